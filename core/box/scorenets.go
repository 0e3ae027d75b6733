package box

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/sheet"
)

// openNet makes a tray of a typed piece: one wall round a panel (two scores
// each way), or walls rolled over inwards (four).
func (j *Job) openNet(p *typed) (*sheet.Piece, Dims, string, bool) {
	switch {
	case len(p.cols) == 3 && len(p.rows) == 3:
		return j.plainNet(p), Dims{p.cols[1], p.rows[1], min(p.cols[0], p.cols[2], p.rows[0], p.rows[2])}, "single", true
	case len(p.cols) == 5 && len(p.rows) == 5:
		return j.rolledNet(p), Dims{p.cols[2], p.rows[2], min(p.cols[1], p.cols[3], p.rows[1], p.rows[3])}, "rolled", true
	}
	j.Problem(p.field+"across", fmt.Sprintf("The %s has %d scores across and %d down; a tray wants two each way, or four each way for rolled walls.", p.name, len(p.cols)-1, len(p.rows)-1),
		"Check the list, or say that this piece is a tube.")
	return nil, Dims{}, "", false
}

// uneven says when walls are not all of one height, and by whom the rim is
// made crooked.
func (j *Job) uneven(p *typed, walls map[string]Length) {
	lo, hi := "", ""
	for _, name := range []string{"left", "right", "back", "front"} {
		if lo == "" || walls[name] < walls[lo] {
			lo = name
		}
		if hi == "" || walls[name] > walls[hi] {
			hi = name
		}
	}
	if walls[lo] != walls[hi] {
		j.Warn(brief.Warning{Code: "uneven-walls", Text: fmt.Sprintf("The walls of the %s are not of one height: the %s is %s and the %s %s.", p.name, lo, j.Say(walls[lo]), hi, j.Say(walls[hi])),
			Fix: "Check the scores, if the rim was meant to be level."})
	}
}

// grid draws a typed piece by a picture of its cells, less the squares that
// are cut away, and gives the names of those.
func (p *typed) grid(cols, rows []Length, picture string) (*sheet.Piece, map[string]bool) {
	gone := map[string]bool{}
	var out []string
	for r, line := range strings.Split(strings.TrimSpace(picture), "\n") {
		words, c := strings.Fields(line), 0
		for i, w := range words {
			if w == "|" {
				continue
			}
			if p.away[[2]int{c, r}] && w != "." {
				gone[w], words[i] = true, "."
			}
			c++
		}
		out = append(out, strings.Join(words, " "))
	}
	return sheet.Grid(p.name, cols, rows, strings.Join(out, "\n")), gone
}

// forget takes out what a recipe says of faces that were cut away. Walls can't
// be.
func (j *Job) forget(p *typed, n *sheet.Piece, gone map[string]bool) {
	for _, wall := range []string{"panel", "left", "right", "back", "front", "seam"} {
		if gone[wall] {
			j.Problem(p.field+"away", fmt.Sprintf("One of the squares cut away is the %s of the %s: without it nothing holds together.", wall, p.name), "Count columns from the left and rows from the top; cut away corners and flaps only.")
		}
	}
	lost := func(g sheet.Glue) bool { return gone[g.Face] || gone[g.On] }
	n.Glues, n.Tucks = slices.DeleteFunc(n.Glues, lost), slices.DeleteFunc(n.Tucks, lost)
	n.Meets = slices.DeleteFunc(n.Meets, func(m [2]string) bool { return gone[m[0]] || gone[m[1]] })
	for i := range n.Order {
		n.Order[i] = slices.DeleteFunc(n.Order[i], func(f string) bool { return gone[f] })
	}
	n.Order = slices.DeleteFunc(n.Order, func(group []string) bool { return len(group) == 0 })
}

// plainNet is a tray of one wall round a panel; corner squares that stay are
// slit to tabs on the sides.
func (j *Job) plainNet(p *typed) *sheet.Piece {
	n, gone := p.grid(p.cols, p.rows, `
		back-left-tab  | back  | back-right-tab
		left             panel   right
		front-left-tab | front | front-right-tab`)
	n.Root = "panel"
	n.FoldUp("left", "right")
	n.FoldUp("back-left-tab", "front-left-tab", "back-right-tab", "front-right-tab")
	n.FoldUp("back", "front")
	for _, end := range []string{"back", "front"} {
		for _, side := range []string{"left", "right"} {
			n.Meet(end, side)
			n.Glue(end+"-"+side+"-tab", end)
		}
	}
	j.forget(p, n, gone)
	j.uneven(p, map[string]Length{"left": p.cols[0], "right": p.cols[2], "back": p.rows[0], "front": p.rows[2]})
	return n
}

// rolledNet is a tray of rolled walls: of each corner one square stays.
func (j *Job) rolledNet(p *typed) *sheet.Piece {
	t := j.T()
	n, gone := p.grid(p.cols, p.rows, `
		.          .                back-roll   .                 .
		.          back-left-tab  | back      | back-right-tab    .
		left-roll  left             panel       right             right-roll
		.          front-left-tab | front     | front-right-tab   .
		.          .                front-roll  .                 .`)
	for i, end := range []string{"back", "front"} {
		n.Tab(end+"-roll", end, sheet.TabShape{Reach: p.rows[4*i], Relief: 2 * t})
		for _, side := range []string{"left", "right"} {
			n.Glue(end+"-"+side+"-tab", end)
			n.Meet(end, side)
		}
		n.GlueOver(end+"-roll", end, 2)
		n.Turn(false, []Length{p.rows[0], p.high() - p.rows[4]}[i], 180, sheet.Valley)
	}
	for k, side := range []string{"left", "right"} {
		n.Tab(side+"-roll", side, sheet.TabShape{Reach: p.cols[4*k], Relief: 3 * t})
		n.Glue(side+"-roll", side)
		n.Turn(true, []Length{p.cols[0], p.wide() - p.cols[4]}[k], 180, sheet.Valley)
	}
	n.Root = "panel"
	n.FoldUp("left", "right", "back-left-tab", "front-left-tab", "back-right-tab", "front-right-tab")
	n.FoldUp("back", "front")
	n.FoldUp("left-roll", "right-roll")
	n.FoldUp("back-roll", "front-roll")
	j.forget(p, n, gone)
	j.uneven(p, map[string]Length{"left": p.cols[1], "right": p.cols[3], "back": p.rows[1], "front": p.rows[3]})
	return n
}

// fourWalls finds the seam and the four walls among the segments of a tube.
// The seam is the narrower end.
func (j *Job) fourWalls(p *typed, segments []Length, field string) (walls []Length, seamFirst, ok bool) {
	if len(segments) != 5 {
		fix := "A tube of four walls wants four scores one way: three between the walls and one for the seam."
		if len(segments) == 4 {
			fix = "Leave a strip of " + j.Say(j.Adhesive.Width.Up(j.Step.Size)) + " beyond the fourth wall to stick the seam, and score it."
		}
		j.Problem(p.field+field, fmt.Sprintf("These scores make %d walls and no seam that can be told.", len(segments)), fix)
		return nil, false, false
	}
	seamFirst = segments[0] < segments[4]
	walls = segments[:4]
	if seamFirst {
		walls = segments[1:]
	}
	check := fold.Check{Name: p.name + ": opposite walls are equal", Holds: walls[0] == walls[2] && walls[1] == walls[3], Figure: fmt.Sprintf("%s and %s, %s and %s", walls[0].Exact(j.Units), walls[2].Exact(j.Units), walls[1].Exact(j.Units), walls[3].Exact(j.Units))}
	if !check.Holds {
		check.Figure += ": it can't close square"
	}
	j.claim(check)
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
func stickSeam(n *sheet.Piece, names []string, seamFirst bool) {
	from, to := names[3], names[0]
	if seamFirst {
		from, to = to, from
	}
	n.Glue("seam", to)
	n.Meet(from, to)
}

// sleeveNet makes a sleeve of a typed tube, whichever way it was scored.
func (j *Job) sleeveNet(p *typed) (*sheet.Piece, Dims, bool) {
	segments, long, field := p.rows, p.wide(), "down"
	if len(p.cols) > 1 {
		segments, long, field = p.cols, p.high(), "across"
	}
	if len(p.cols) > 1 && len(p.rows) > 1 {
		j.Problem(p.field+"down", "A sleeve is scored one way only.", "Clear the scores of the other way.")
		return nil, Dims{}, false
	}
	walls, seamFirst, ok := j.fourWalls(p, segments, field)
	if !ok {
		return nil, Dims{}, false
	}
	names, wide, high := []string{"bottom", "front", "top", "back"}, walls[0], walls[1]
	if high > wide {
		names, wide, high = []string{"front", "top", "back", "bottom"}, high, wide
	}
	order := tubeNames(names, seamFirst)
	n := sheet.Grid(p.name, sheet.Cols(long), segments, strings.Join(order, "\n"))
	stickSeam(n, names, seamFirst)
	n.Root = "bottom"
	n.FoldUp(without(order, "bottom")...)
	return n, Dims{long, wide, high}, true
}

func without(names []string, one string) (out []string) {
	for _, n := range names {
		if n != one {
			out = append(out, n)
		}
	}
	return out
}

// turned gives the piece with its sides exchanged.
func (p *typed) turned() *typed {
	q := *p
	q.cols, q.rows, q.away = p.rows, p.cols, map[[2]int]bool{}
	for at := range p.away {
		q.away[[2]int{at[1], at[0]}] = true
	}
	return &q
}

// typedTube makes a carton of a typed tube: walls side by side, and above and
// below them a row of flaps each, or a closing panel and its lip.
func (j *Job) typedTube(p *typed) *Box {
	t := j.T()
	field := "across"
	if len(p.cols) < 4 && len(p.rows) == 5 {
		p, field = p.turned(), "down"
	}
	cols, rows := p.cols, p.rows
	walls, seamFirst, ok := j.fourWalls(p, cols, field)
	if !ok {
		return nil
	}
	names := []string{"back", "right", "front", "left"}
	d := Dims{walls[0], walls[1], rows[0]}
	lines := map[string][]string{"body": tubeNames(names, seamFirst)}
	for _, end := range []string{"top", "bottom"} {
		lines[end] = tubeNames([]string{"back-" + end + " |", "right-" + end + " |", "front-" + end + " |", "left-" + end}, seamFirst)
		lines[end+" panel"] = tubeNames([]string{"back-" + end + " |", "right-" + end, ".", "left-" + end}, seamFirst)
		lines[end+" lip"] = tubeNames([]string{"back-" + end + "-lip", ".", ".", "."}, seamFirst)
	}
	layout := map[int][]string{1: {"body"}, 3: {"top", "body", "bottom"}, 5: {"top lip", "top panel", "body", "bottom panel", "bottom lip"}}[len(rows)]
	if len(rows) == 2 {
		layout = []string{"body", "bottom"}
		if rows[0] < rows[1] {
			layout = []string{"top", "body"}
		}
	}
	if layout == nil {
		j.Problem(p.field+"down", fmt.Sprintf("%d rows are too many to tell walls from flaps.", len(rows)), "A tube has its walls, and above and below them one row of flaps, or a closing panel with its lip.")
		return nil
	}
	var picture []string
	for i, kind := range layout {
		line := strings.Join(lines[kind], " ")
		if kind != "body" {
			line = strings.Replace(line, "seam", ".", 1)
		} else {
			d.Depth = rows[i]
		}
		picture = append(picture, line)
	}
	n, gone := p.grid(cols, rows, strings.Join(picture, "\n"))
	stickSeam(n, names, seamFirst)
	b := &Box{Size: d, Holder: p.name, Rim: d.Depth, Strength: 2, OpenTop: true, Inside: d.less(Dims{t, 3 * t, t}), Outside: Dims{d.Length + t, d.Width + t, d.Depth + t}, Pieces: []*sheet.Piece{n}}
	j.typedEnds(b, n, d, strings.Join(layout, ","))
	j.forget(p, n, gone)
	j.claimStated(b)
	return b
}

// typedEnds folds the flaps in: the sides first, then front and back.
func (j *Job) typedEnds(b *Box, n *sheet.Piece, d Dims, layout string) {
	n.Root = "back"
	if strings.Contains(layout, "bottom") {
		n.Root, b.Floor = "back-bottom", 2*j.T()
		lo, _ := n.Cell("back-bottom")
		back, _ := n.Cell("back")
		n.Middle = &sheet.Point{X: back.X + d.Length/2, Y: lo.Y + d.Width/2}
		n.FoldUp("back")
	}
	n.FoldUp("right", "front", "left", "seam")
	for _, end := range []string{"bottom", "top"} {
		if !strings.Contains(layout, end) {
			continue
		}
		side := []string{"right-" + end, "left-" + end}
		n.Tuck(side[0], "back-"+end, 2)
		n.Tuck(side[1], "back-"+end, 3)
		n.FoldUp(side...)
		group := without([]string{"back-" + end}, n.Root)
		if strings.Contains(layout, end+" panel") {
			n.Tuck("back-"+end+"-lip", "front", 1)
			group = append(group, "back-"+end+"-lip")
		} else {
			n.Tuck("front-"+end, "back-"+end, 1)
			group = append(group, "front-"+end)
		}
		n.FoldUp(group...)
		if end == "top" {
			b.Opens, b.OpenTop = append(group, side...), false
		}
	}
}
