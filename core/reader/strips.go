package reader

import (
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/nets"
	"brevium/core/style"
)

// asFolder gives a strip or hinged box with its columns across, its base below its lid.
func (l *list) asFolder(p *typed) (typed, bool) {
	q := *p
	if len(q.Cols) == 5 && len(q.Rows) == 3 {
		q = q.turned()
	}
	if len(q.Cols) != 3 || len(q.Rows) != 5 {
		return q, false
	}
	corners := func(row int) bool { return q.Away[[2]int{0, row}] && q.Away[[2]int{2, row}] }
	if corners(4) && !corners(0) || corners(4) == corners(0) && q.Rows[4] < q.Rows[0] {
		q = q.flipped()
	}
	return q, true
}

// hingedNet is one sheet: lid front, lid, hinge wall, base, front, with sides of lid and base beside them. Its lid
// is as wide as its base: that it goes over is the card's give, and is said.
func (l *list) hingedNet(p *typed) (*net.Piece, style.Dims, bool) {
	q, ok := l.asFolder(p)
	if !ok {
		return l.shapes(p, "a box with a hinged lid needs two one way and four the other")
	}
	if q.Rows[4] == q.Rows[0] && q.Rows[3] > q.Rows[1] {
		q = q.flipped() // the lid is the larger one
	}
	l.uneven(p.Name, map[string]Length{"left": q.Cols[0], "right": q.Cols[2], "back": q.Rows[2], "front": q.Rows[4]})
	l.uneven("lid of the "+p.Name, map[string]Length{"left": q.Cols[0], "right": q.Cols[2], "front": q.Rows[0]})
	l.longLid(p, q.Rows[1], q.Rows[3])
	n := q.sizes(l.T()).Spread().Hinged(l.corner(&q, min(q.Rows[2], q.Rows[4]), q.Cols[1]), l.corner(&q, q.Rows[0], q.Cols[1]))
	for _, lid := range []string{"lid-left", "lid-right", "lid-front", "lid-left-tab", "lid-right-tab"} {
		for _, wall := range []string{"left", "right", "front", "back", "front-left-tab", "front-right-tab", "back-left-tab",
			"back-right-tab"} {
			n.Crowds = append(n.Crowds, [2]string{lid, wall})
		}
	}
	l.warn("tight-lid", "Move the lid's side scores out by a hair, or trim its sides slightly.",
		"The lid of the %s is no wider than its base, so their sides press on each other.", p.Name)
	h := min(q.Cols[0], q.Cols[2], q.Rows[2], q.Rows[4])
	return l.done(&q, n), style.Dims{Length: q.Cols[1], Width: q.Rows[3], Depth: h}, true
}

// longLid says when what closes a box is shorter, or much longer, than what it closes.
func (l *list) longLid(p *typed, lid, base Length) {
	fix := "Score the lid slightly longer than the base, so that it goes over the front."
	switch over := lid - base; {
	case over < 0:
		l.warn("short-lid", fix, "The lid of the %s is %s shorter, back to front, than its base, so it can't close.", p.Name,
			l.Say(-over))
	case over > 4*l.T()+max(l.Mark(), measure.Millimetre):
		l.warn("long-lid", fix, "The lid of the %s is %s longer, back to front, than its base, so it leaves a gap in "+
			"front.", p.Name,
			l.Say(over))
	}
}

// stripNet is a strip with a flap: flap, top, back, bottom, front; its sides come from the base when the columns
// beside are as wide as it is high, else from front and back.
func (l *list) stripNet(p *typed) (*net.Piece, style.Dims, bool) {
	q, ok := l.asFolder(p)
	if !ok {
		return l.shapes(p, "a strip with a flap needs two one way and four the other")
	}
	d := style.Dims{Length: q.Cols[1], Width: q.Rows[3], Depth: q.Rows[2]}
	q.Away[[2]int{0, 0}], q.Away[[2]int{2, 0}] = true, true
	n := l.sides(&q, d)
	n.Root = "bottom"
	n.Closing("top", "flap")
	if q.Rows[1] <= d.Width {
		n.Over("flap", "front", 1)
	}
	l.longLid(p, q.Rows[1], d.Width)
	l.uneven(p.Name, map[string]Length{"left": q.Cols[0], "right": q.Cols[2]})
	if q.Rows[4] < d.Depth {
		l.uneven(p.Name, map[string]Length{"back": d.Depth, "front": q.Rows[4]})
	}
	if q.Rows[4] > d.Depth {
		l.warn("uneven-walls", "Check the scores.", "The front of the %s is %s and its back %s, so the front sticks "+
			"up above the rim.",
			p.Name, l.Say(q.Rows[4]), l.Say(d.Depth))
	}
	return l.done(&q, n), d, true
}

// sides draws a strip whose sides come from the base, or from front and back.
func (l *list) sides(q *typed, d style.Dims) nets.Net {
	t := l.T()
	s := nets.Strip{Sizes: q.sizes(t)}
	if q.Cols[0] == d.Depth && q.Cols[0] != d.Width || q.Cols[0] <= d.Depth && d.Depth <= d.Width {
		s.Tab = l.corner(q, q.Cols[0], d.Width)
		s.Dust = func() net.TabShape { return net.TabShape{Reach: q.Cols[0], Relief: 3 * t, Mitre: l.Mark()} }
		return s.FromBase()
	}
	outer, inner := "front", "back"
	if q.Rows[4] < d.Depth {
		outer, inner = "back", "front"
	}
	end := func(reach Length) func() net.TabShape {
		return func() net.TabShape { return net.TabShape{Reach: reach, Relief: t, Mitre: l.Mark()} }
	}
	s.Tab, s.Dust = end(min(q.Cols[0], q.Rows[4]-t, d.Depth-t)), end(min(q.Rows[1]-t, d.Length/2-t))
	return s.FromWalls(outer, inner, min(q.Cols[0], d.Width-t), true)
}
