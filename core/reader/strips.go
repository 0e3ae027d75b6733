package reader

import (
	"brevium/core/measure"
	"brevium/core/sheet"
	"brevium/core/style"
)

// asFolder gives a strip or hinged box with its columns across, its base below
// its lid.
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

// hingedNet is one sheet: lid front, lid, hinge wall, base, front, with sides of
// lid and base beside them. Its lid is as wide as its base: that it goes over is
// the card's give, and is said.
func (l *list) hingedNet(p *typed) (*sheet.Piece, style.Dims, bool) {
	q, ok := l.asFolder(p)
	if !ok {
		return l.shapes(p, "a box with a hinged lid wants two one way and four the other")
	}
	if q.Rows[4] == q.Rows[0] && q.Rows[3] > q.Rows[1] {
		q = q.flipped() // the lid is the larger one
	}
	l.uneven(p.Name, map[string]Length{"left": q.Cols[0], "right": q.Cols[2], "back": q.Rows[2], "front": q.Rows[4]})
	l.uneven("lid of the "+p.Name, map[string]Length{"left": q.Cols[0], "right": q.Cols[2], "front": q.Rows[0]})
	l.longLid(p, q.Rows[1], q.Rows[3])
	n, gone := q.grid(`
		lid-left-tab   | lid-front | lid-right-tab
		lid-left         lid         lid-right
		-                ~           -
		back-left-tab  | back      | back-right-tab
		left             base        right
		front-left-tab | front     | front-right-tab`)
	l.corners(&q, n, gone, min(q.Rows[2], q.Rows[4]), q.Cols[1])
	for _, side := range sides {
		if tab := "lid-" + side + "-tab"; !gone[tab] {
			n.Corner(tab, "lid-"+side, "lid-front", l.tab(&q, q.Rows[0], q.Cols[1]))
		}
	}
	n.Root = "base"
	n.FoldUp("left", "right")
	n.FoldUp("back-left-tab", "front-left-tab", "back-right-tab", "front-right-tab")
	n.FoldUp("back", "front")
	n.FoldUp("lid-left", "lid-right", "lid-left-tab", "lid-right-tab")
	n.FoldUp("lid-front")
	n.Closing("lid")
	for _, lid := range []string{"lid-left", "lid-right", "lid-front", "lid-left-tab", "lid-right-tab"} {
		for _, wall := range []string{"left", "right", "front", "back", "front-left-tab", "front-right-tab", "back-left-tab",
			"back-right-tab"} {
			n.Crowds = append(n.Crowds, [2]string{lid, wall})
		}
	}
	l.warn("tight-lid", "Move the lid's side scores out by a hair, or trim its sides slightly.",
		"The lid of the %s is no wider than its base: its sides press on the base's.", p.Name)
	h := min(q.Cols[0], q.Cols[2], q.Rows[2], q.Rows[4])
	return l.done(&q, n, gone), style.Dims{Length: q.Cols[1], Width: q.Rows[3], Depth: h}, true
}

// longLid says when what closes a box is shorter, or much longer, than what it closes.
func (l *list) longLid(p *typed, lid, base Length) {
	fix := "Score the lid a hair longer than the base: it goes over the front."
	switch over := lid - base; {
	case over < 0:
		l.warn("short-lid", fix, "The lid of the %s is %s shorter, back to front, than its base: it can't close.", p.Name,
			l.Say(-over))
	case over > 4*l.T()+max(l.Mark(), measure.Millimetre):
		l.warn("long-lid", fix, "The lid of the %s is %s longer, back to front, than its base: it leaves a gap in front.", p.Name,
			l.Say(over))
	}
}

// stripNet is a strip with a flap: flap, top, back, bottom, front; its sides
// come from the base when the columns beside are as wide as it is high, else
// from front and back.
func (l *list) stripNet(p *typed) (*sheet.Piece, style.Dims, bool) {
	q, ok := l.asFolder(p)
	if !ok {
		return l.shapes(p, "a strip with a flap wants two one way and four the other")
	}
	d := style.Dims{Length: q.Cols[1], Width: q.Rows[3], Depth: q.Rows[2]}
	for _, row := range []int{0} {
		q.Away[[2]int{0, row}], q.Away[[2]int{2, row}] = true, true
	}
	var n *sheet.Piece
	var gone map[string]bool
	if q.Cols[0] == d.Depth && q.Cols[0] != d.Width || q.Cols[0] <= d.Depth && d.Depth <= d.Width {
		n, gone = l.sidesFromBase(&q, d)
	} else {
		n, gone = l.sidesFromWalls(&q, d)
	}
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
		l.warn("uneven-walls", "Check the scores.", "The front of the %s is %s and its back %s: the front stands above the rim.",
			p.Name, l.Say(q.Rows[4]), l.Say(d.Depth))
	}
	return l.done(&q, n, gone), d, true
}

func (l *list) sidesFromBase(q *typed, d style.Dims) (*sheet.Piece, map[string]bool) {
	t := l.T()
	n, gone := q.grid(`
		left-flap       flap    right-flap
		left-dust       top     right-dust
		-               ~       -
		back-left-tab   back    back-right-tab
		-               ~       -
		left            bottom  right
		-               ~       -
		front-left-tab  front   front-right-tab`)
	for _, side := range sides {
		for _, end := range ends {
			if tab := end + "-" + side + "-tab"; !gone[tab] {
				n.Corner(tab, end, side, l.tab(q, q.Cols[0], d.Width))
			}
		}
		if dust := side + "-dust"; !gone[dust] {
			n.Tab(dust, "top", sheet.TabShape{Reach: q.Cols[0], Relief: 3 * t, Mitre: l.Mark()})
			n.Tuck(dust, side, 2)
			n.Role("dust flap", dust)
		}
	}
	n.FoldUp("back", "front", "back-left-tab", "front-left-tab", "back-right-tab", "front-right-tab")
	n.FoldUp("left", "right")
	n.Closing("left-dust", "right-dust")
	return n, gone
}

func (l *list) sidesFromWalls(q *typed, d style.Dims) (*sheet.Piece, map[string]bool) {
	t := l.T()
	n, gone := q.grid(`
		left-flap   flap     right-flap
		left-dust | top    | right-dust
		back-left   back     back-right
		-           ~        -
		left-tab    bottom   right-tab
		-           ~        -
		front-left  front    front-right`)
	outer, inner := "front", "back"
	if q.Rows[4] < d.Depth {
		outer, inner = "back", "front"
	}
	for _, side := range sides {
		if !gone[inner+"-"+side] && !gone[outer+"-"+side] {
			n.Shorten(inner+"-"+side, inner, min(q.Cols[0], d.Width-t))
			n.Glue(inner+"-"+side, outer+"-"+side)
			if q.Cols[0] == d.Width {
				n.Meet(outer+"-"+side, inner)
			}
		}
		if tab := side + "-tab"; !gone[tab] {
			n.Tab(tab, "bottom", sheet.TabShape{Reach: min(q.Cols[0], q.Rows[4]-t, d.Depth-t), Relief: t, Mitre: l.Mark()})
			n.GlueLapped(tab, outer+"-"+side, 2)
			n.Role("tab", tab)
		}
		if dust := side + "-dust"; !gone[dust] {
			n.Tab(dust, "back-"+side, sheet.TabShape{Reach: min(q.Rows[1]-t, d.Length/2-t), Relief: t, Mitre: l.Mark()})
			n.Tuck(dust, "top", 1)
			n.Role("dust flap", dust)
		}
	}
	n.FoldUp("left-tab", "right-tab")
	n.FoldUp(inner, inner+"-left", inner+"-right")
	n.FoldUp(outer, outer+"-left", outer+"-right")
	n.Closing("left-dust", "right-dust")
	return n, gone
}
