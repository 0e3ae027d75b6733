package reader

import (
	"fmt"

	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/nets"
	"brevium/core/style"
)

// fourWalls finds the seam and the four walls among the segments of a tube. The seam is at the end that is no wall:
// the narrower one, unless the walls are only equal with the other.
func (l *list) fourWalls(p *typed, segments []Length, field string) (walls []Length, seamFirst, ok bool) {
	if len(segments) != 5 {
		fix := "A tube of four walls needs four scores one way: three between the walls and one for the seam."
		if len(segments) == 4 {
			fix = "Leave a strip of " + l.Say(l.Wide()) + " beyond the fourth wall to stick the seam, and score it."
		}
		l.Problem(p.Field+field, fmt.Sprintf("These scores make %d walls and no clear seam.", len(segments)), fix)
		return nil, false, false
	}
	first := segments[1] == segments[3] && segments[2] == segments[4]
	last := segments[0] == segments[2] && segments[1] == segments[3]
	seamFirst = segments[0] < segments[4]
	if first != last {
		seamFirst = first
	}
	walls = segments[:4]
	if seamFirst {
		walls = segments[1:]
	}
	l.equal(p, walls)
	return walls, seamFirst, true
}

// sleeveNet makes a sleeve or band of a typed tube, whichever way it was scored.
func (l *list) sleeveNet(p *typed) (*net.Piece, style.Dims, bool) {
	segments, long, field := p.Rows, p.Wide(), "down"
	if len(p.Cols) > 1 {
		segments, long, field = p.Cols, p.High(), "across"
	}
	if len(p.Cols) > 1 && len(p.Rows) > 1 {
		return l.shapes(p, "a sleeve is scored one way only")
	}
	walls, seamFirst, ok := l.fourWalls(p, segments, field)
	if !ok {
		return nil, style.Dims{}, false
	}
	names, wide, high := []string{"bottom", "front", "top", "back"}, walls[0], walls[1]
	if high > wide {
		names, wide, high = []string{"front", "top", "back", "bottom"}, high, wide
	}
	order := []string{"front", "top", "back", "seam"}
	if seamFirst {
		order = append([]string{"seam"}, order[:3]...)
	}
	sizes := nets.Sizes{Name: p.Name, Cols: net.Cols(long), Rows: segments, T: l.T()}
	n := nets.Tube{Sizes: sizes, SeamFirst: seamFirst, Mitre: l.Mark()}.Sleeve(names, false).Piece
	n.FoldUp(order...)
	if p.role == "band" {
		n.Part = net.Band
	}
	return n, style.Dims{Length: long, Width: wide, Depth: high}, true
}

// tubeNet makes a carton of a typed tube: walls side by side, and above and below them a row of flaps each, or a
// closing panel and its lip. Without flaps it is a sleeve by itself.
func (l *list) tubeNet(p *typed) (*net.Piece, style.Dims, bool) {
	q, field := *p, "across"
	if len(q.Cols) < 4 && len(q.Rows) == 5 {
		q, field = q.turned(), "down"
	}
	walls, seamFirst, ok := l.fourWalls(&q, q.Cols, field)
	if !ok {
		return nil, style.Dims{}, false
	}
	above, ok := l.rowsAbove(&q, walls)
	if !ok {
		l.Problem(p.Field+"down", fmt.Sprintf("%d rows are too many to tell walls from flaps.", len(q.Rows)),
			"A tube has its walls, and above and below them one row of flaps, or a closing panel with its lip.")
		return nil, style.Dims{}, false
	}
	below := len(q.Rows) - 1 - above
	d := style.Dims{Length: walls[0], Width: walls[1], Depth: q.Rows[above]}
	ends := [...]nets.TubeEnd{nets.Open, nets.Flaps, nets.Lip}
	tube := nets.Tube{Sizes: q.sizes(l.T()), SeamFirst: seamFirst, Mitre: l.Mark(), Top: ends[above], Bottom: ends[below],
		Closes: "back-"}
	n := tube.Carton(d.Length, d.Width)
	if tube.Top == nets.Flaps {
		l.flapsClose(p, "top", q.Rows[0], d.Width, n.Gone)
	}
	if tube.Bottom == nets.Flaps {
		l.flapsClose(p, "bottom", q.Rows[above+1], d.Width, n.Gone)
	}
	closeEnd(n, "bottom", tube.Bottom, q.Rows[len(q.Rows)-1], d.Width, n.FoldUp)
	closeEnd(n, "top", tube.Top, q.Rows[0], d.Width, n.Closing)
	return l.done(&q, n), d, true
}

// flapsClose warns when flaps of an end are longer than what they close, or leave a gap between them.
func (l *list) flapsClose(p *typed, end string, flap, over Length, gone map[string]bool) {
	where := map[string]string{"top": "above", "bottom": "below"}[end]
	reach := Length(0)
	for _, wall := range []string{"back-", "front-"} {
		if !gone[wall+end] {
			reach += flap
		}
	}
	switch {
	case flap > over+l.T():
		l.warn("long-flap", "Check the scores: a flap is no longer than what it closes.",
			"The flaps of the %s %s are %s long, but they close only %s, so they stick "+
				"out.", p.Name, where, l.Say(flap), l.Say(over))
	case reach > 0 && reach < over-max(l.Mark(), 2*l.T()):
		l.warn("short-flap", "Check the scores, if it was meant to be closed.",
			"The flaps of the %s %s leave a gap of %s between them.", p.Name, where, l.Say(over-reach))
	}
}

// rowsAbove tells how many rows of a tube lie above its walls, and so below them too: none, a row of flaps, or a closing
// panel with its lip. A closing panel is as deep as the tube and its lip is less; of what could be either, what is cut
// away and the size that is claimed decide, or the highest row is the walls.
func (l *list) rowsAbove(p *typed, walls []Length) (above int, ok bool) {
	rows := p.Rows
	panels := func(panel, lip, body Length) int { // how well they are a panel and its lip
		switch {
		case lip >= panel || lip >= body:
			return -2
		case panel == walls[0] || panel == walls[1]:
			return 3
		case min((panel-walls[1]).Abs(), (panel-walls[0]).Abs()) <= 3*measure.Millimetre:
			return 1
		}
		return -1
	}
	best, highest := -99, Length(0)
	for body := range min(3, len(rows)) {
		if len(rows)-body > 3 {
			continue
		}
		fits := 4
		if body == 2 {
			fits += panels(rows[1], rows[0], rows[body])
		}
		if len(rows)-body == 3 {
			fits += panels(rows[body+1], rows[body+2], rows[body])
		}
		for at := range p.Away {
			if at[1] == body {
				fits -= 4 // a wall is never cut away
			}
		}
		if l.Stated != nil && l.Stated.Depth == rows[body] {
			fits += 4
		}
		if fits > best || fits == best && rows[body] > highest {
			best, highest, above, ok = fits, rows[body], body, true
		}
	}
	return above, ok
}

// closeEnd folds the flaps of an end in: the sides first, then front and back. Flap is how long those of a row are, over
// what they close.
func closeEnd(n nets.Net, end string, kind nets.TubeEnd, flap, over Length, fold func(...string)) {
	if kind == nets.Open {
		return
	}
	n.Tuck("right-"+end, "back-"+end, 2)
	n.Tuck("left-"+end, "back-"+end, 3)
	fold("right-"+end, "left-"+end)
	last := "front-" + end
	if kind == nets.Lip {
		last = "back-" + end + "-lip"
		n.Tuck(last, "front", 1)
	} else if 2*flap > over { // ledges don't meet
		n.Tuck(last, "back-"+end, 1)
	}
	if n.Root == "back-"+end {
		fold(last)
	} else {
		fold("back-"+end, last)
	}
}

// pinchNet is a tube whose top is pinched: the flaps of its base below, its
// tube above them; what is pinched is part of the tube, or a row of its own.
func (l *list) pinchNet(p *typed) (*net.Piece, style.Dims, bool) {
	if len(p.Cols) != 5 || len(p.Rows) < 2 || len(p.Rows) > 3 {
		return l.shapes(p, "a pinch-top tube needs four across and one or two down")
	}
	walls, _, ok := l.fourWalls(p, p.Cols, "across")
	if !ok {
		return nil, style.Dims{}, false
	}
	q := *p
	if len(q.Rows) == 2 {
		// What is pinched is not scored: about four fifths of the wider side.
		pinch := min((max(walls[0], walls[1]) * 4 / 5).Up(l.Mark()), q.Rows[0]*2/3)
		q.Rows = []Length{pinch, q.Rows[0] - pinch, q.Rows[1]}
	}
	d, flap := style.Dims{Length: walls[0], Width: walls[1], Depth: q.Rows[1]}, q.Rows[2]
	s := l.slopes(p, d, q.Rows[0])
	n := s.Pinched(d.Depth, flap, min(flap, d.Width-2*l.T()), min(flap, d.Length-2*l.T()), l.Adhesive.Width)
	return n, d, true
}

// capNet is a gable cap: ridge strips, slopes and skirt over four walls.
func (l *list) capNet(p *typed) (*net.Piece, style.Dims, bool) {
	if len(p.Cols) != 5 || len(p.Rows) != 3 {
		return l.shapes(p, "a gable cap needs four across and two down")
	}
	walls, _, ok := l.fourWalls(p, p.Cols, "across")
	if !ok {
		return nil, style.Dims{}, false
	}
	d := style.Dims{Length: walls[0], Width: walls[1], Depth: p.Rows[2]}
	if 2*p.Rows[1] <= d.Width {
		l.Problem(p.Field+"down", fmt.Sprintf("Slopes of %s don't meet over a width of %s.", l.Say(p.Rows[1]), l.Say(d.Width)),
			"Check the scores: a slope is longer than half the wall beside it.")
		return nil, d, false
	}
	return l.slopes(p, d, p.Rows[1]).Gable(p.Rows[0], p.Rows[2], net.Score), d, true
}

// slopes is a typed tube with slopes so long.
func (l *list) slopes(p *typed, d style.Dims, slope Length) nets.Slopes {
	return nets.Slopes{Name: p.Name, Length: d.Length, Width: d.Width, Slope: slope, Seam: min(p.Cols[0], p.Cols[4]), T: l.T(),
		Mark: l.Mark()}
}
