package reader

import (
	"fmt"
	"strings"

	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/nets"
	"brevium/core/style"
)

// fourWalls finds the seam and the four walls among the segments of a tube.
// The seam is at the end that is no wall: the narrower one, unless the walls
// are only equal with the other.
func (l *list) fourWalls(p *typed, segments []Length, field string) (walls []Length, seamFirst, ok bool) {
	if len(segments) != 5 {
		fix := "A tube of four walls wants four scores one way: three between the walls and one for the seam."
		if len(segments) == 4 {
			fix = "Leave a strip of " + l.Say(l.Wide()) + " beyond the fourth wall to stick the seam, and score it."
		}
		l.Problem(p.Field+field, fmt.Sprintf("These scores make %d walls and no seam that can be told.", len(segments)), fix)
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

// tubeNames orders a seam and four walls as they lie.
func tubeNames(names []string, seamFirst bool) []string {
	if seamFirst {
		return append([]string{"seam"}, names...)
	}
	return append(append([]string(nil), names...), "seam")
}

// stickSeam sticks the seam, which hangs on the wall at its own end, on the
// wall at the other.
func (l *list) stickSeam(n *net.Piece, names []string, seamFirst bool, wide Length) {
	from, to := names[3], names[0]
	if seamFirst {
		from, to = to, from
	}
	n.Tab("seam", from, net.TabShape{Reach: wide, Relief: l.T(), Mitre: l.Mark()})
	n.Seam("seam", from, to)
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
	order := tubeNames(names, seamFirst)
	n := net.Grid(p.Name, net.Cols(long), segments, strings.Join(order, "\n"))
	l.stickSeam(n, names, seamFirst, min(segments[0], segments[4]))
	n.Root = "bottom"
	n.FoldUp(without(order, "bottom")...)
	if p.role == "band" {
		n.Part = net.Band
	}
	return n, style.Dims{Length: long, Width: wide, Depth: high}, true
}

func without(names []string, one string) (out []string) {
	for _, n := range names {
		if n != one {
			out = append(out, n)
		}
	}
	return out
}

// tubeNet makes a carton of a typed tube: walls side by side, and above and
// below them a row of flaps each, or a closing panel and its lip. Without flaps
// it is a sleeve by itself.
func (l *list) tubeNet(p *typed) (*net.Piece, style.Dims, bool) {
	q, field := *p, "across"
	if len(q.Cols) < 4 && len(q.Rows) == 5 {
		q, field = q.turned(), "down"
	}
	walls, seamFirst, ok := l.fourWalls(&q, q.Cols, field)
	if !ok {
		return nil, style.Dims{}, false
	}
	names := []string{"back", "right", "front", "left"}
	lines := map[string][]string{"body": tubeNames(names, seamFirst)}
	for _, end := range []string{"top", "bottom"} {
		lines[end] = tubeNames([]string{"back-" + end + " |", "right-" + end + " |", "front-" + end + " |", "left-" + end},
			seamFirst)
		lines[end+" panel"] = tubeNames([]string{"back-" + end + " |", "right-" + end, ".", "left-" + end}, seamFirst)
		lines[end+" lip"] = tubeNames([]string{"back-" + end + "-lip", ".", ".", "."}, seamFirst)
	}
	layout := l.tubeRows(&q, walls)
	if layout == nil {
		l.Problem(p.Field+"down", fmt.Sprintf("%d rows are too many to tell walls from flaps.", len(q.Rows)),
			"A tube has its walls, and above and below them one row of flaps, or a closing panel with its lip.")
		return nil, style.Dims{}, false
	}
	d := style.Dims{Length: walls[0], Width: walls[1]}
	var picture []string
	for i, kind := range layout {
		line := strings.Join(lines[kind], " ")
		if kind != "body" {
			line = strings.Replace(line, "seam", ".", 1)
		} else {
			d.Depth = q.Rows[i]
		}
		picture = append(picture, line)
	}
	n, gone := q.grid(strings.Join(picture, "\n"))
	l.stickSeam(n, names, seamFirst, min(q.Cols[0], q.Cols[4]))
	flaps := map[string]Length{}
	for i, kind := range layout {
		if kind == "top" || kind == "bottom" {
			flaps[kind] = q.Rows[i]
			l.flapsClose(p, kind, q.Rows[i], d.Width, gone)
		}
	}
	l.tubeEnds(n, d, strings.Join(layout, ","), gone, flaps)
	return l.done(&q, nets.Net{Piece: n, Gone: gone}), d, true
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
			"The flaps of the %s %s are %s long, and they close only %s: they stand out.", p.Name, where, l.Say(flap), l.Say(over))
	case reach > 0 && reach < over-max(l.Mark(), 2*l.T()):
		l.warn("short-flap", "Check the scores, if it was meant to be closed.",
			"The flaps of the %s %s leave a gap of %s between them.", p.Name, where, l.Say(over-reach))
	}
}

// tubeRows tells which rows of a tube are its walls, and what lies above and below them: nothing, a row of
// flaps, or a closing panel with its lip. A closing panel is as deep as the tube and its lip is less; of what
// could be either, what is cut away and the size that is claimed decide, or the highest row is the walls.
func (l *list) tubeRows(p *typed, walls []Length) (layout []string) {
	rows := p.Rows
	above := [][]string{nil, {"top"}, {"top lip", "top panel"}}
	below := [][]string{nil, {"bottom"}, {"bottom panel", "bottom lip"}}
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
	for _, a := range above {
		body := len(a)
		if left := len(rows) - body - 1; left < 0 || left >= len(below) {
			continue
		}
		b := below[len(rows)-body-1]
		fits := 4
		if len(a) == 2 {
			fits += panels(rows[1], rows[0], rows[body])
		}
		if len(b) == 2 {
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
			best, highest = fits, rows[body]
			layout = append(append(append([]string{}, a...), "body"), b...)
		}
	}
	return layout
}

// tubeEnds folds the flaps in: the sides first, then front and back. Flaps are how long those of an end with
// a row of them are.
func (l *list) tubeEnds(n *net.Piece, d style.Dims, layout string, gone map[string]bool, flaps map[string]Length) {
	n.Root = "back"
	if strings.Contains(layout, "bottom") && !gone["back-bottom"] {
		n.Stand("back-bottom", d.Length, d.Width)
		n.FoldUp("back")
	}
	n.FoldUp("right", "front", "left", "seam")
	for _, end := range []string{"bottom", "top"} {
		if !strings.Contains(layout, end) {
			continue
		}
		fold := n.FoldUp
		if end == "top" {
			fold = n.Closing
		}
		side := []string{"right-" + end, "left-" + end}
		n.Tuck(side[0], "back-"+end, 2)
		n.Tuck(side[1], "back-"+end, 3)
		fold(side...)
		group := without([]string{"back-" + end}, n.Root)
		if strings.Contains(layout, end+" panel") {
			n.Tuck("back-"+end+"-lip", "front", 1)
			group = append(group, "back-"+end+"-lip")
		} else {
			if 2*flaps[end] > d.Width { // ledges don't meet
				n.Tuck("front-"+end, "back-"+end, 1)
			}
			group = append(group, "front-"+end)
		}
		fold(group...)
	}
}

// pinchNet is a tube whose top is pinched: the flaps of its base below, its
// tube above them; what is pinched is part of the tube, or a row of its own.
func (l *list) pinchNet(p *typed) (*net.Piece, style.Dims, bool) {
	if len(p.Cols) != 5 || len(p.Rows) < 2 || len(p.Rows) > 3 {
		return l.shapes(p, "a pinch-top tube wants four across and one or two down")
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
	n := style.Pinched(l.Spec, p.Name, style.Dims{Length: walls[0], Width: walls[1], Depth: q.Rows[1]}, q.Rows[0],
		min(p.Cols[0], p.Cols[4]), q.Rows[2])
	return n, style.Dims{Length: walls[0], Width: walls[1], Depth: q.Rows[1]}, true
}

// capNet is a gable cap: ridge strips, slopes and skirt over four walls.
func (l *list) capNet(p *typed) (*net.Piece, style.Dims, bool) {
	if len(p.Cols) != 5 || len(p.Rows) != 3 {
		return l.shapes(p, "a gable cap wants four across and two down")
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
	return style.Gable(l.Spec, p.Name, d, p.Rows[1], p.Rows[0], p.Rows[2], min(p.Cols[0], p.Cols[4])), d, true
}
