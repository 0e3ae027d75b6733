package net

import (
	"math"
	"slices"

	"brevium/core/measure"
)

// TabShape says how a corner cell is cut to become a tab.
type TabShape struct {
	Reach  Length // how far it stands out from its crease
	Mitre  Length // how much each end slants in over that reach
	Relief Length // how much each end stays clear of the crease's ends
}

// rim is a cell seen from the crease it hangs on: how long the crease is, how
// deep the cell, and where a place along and out from the crease lies.
type rim struct {
	length, depth Length
	at            func(along, out Length) Point
}

// rim finds how a cell hangs on the named wall.
func (p *Piece) rim(name, wall string) (rim, bool) {
	r, c, rows, cols, ok := p.cell(name)
	if !ok {
		return rim{}, false
	}
	g := p.grid
	lo, hi := Point{g.xs[c], g.ys[r]}, Point{g.xs[cols], g.ys[rows]}
	var a, b, out, along Point
	switch {
	case rows < len(g.cells) && g.cells[rows][c] == wall:
		a, b, out, along = Point{lo.X, hi.Y}, hi, Point{0, -1}, Point{1, 0}
	case r > 0 && g.cells[r-1][c] == wall:
		a, b, out, along = lo, Point{hi.X, lo.Y}, Point{0, 1}, Point{1, 0}
	case cols < len(g.cells[r]) && g.cells[r][cols] == wall:
		a, b, out, along = Point{hi.X, lo.Y}, hi, Point{-1, 0}, Point{0, 1}
	case c > 0 && g.cells[r][c-1] == wall:
		a, b, out, along = lo, Point{lo.X, hi.Y}, Point{1, 0}, Point{0, 1}
	default:
		p.fault("the tab %s does not touch %s", name, wall)
		return rim{}, false
	}
	depth := hi.X - lo.X
	if out.X == 0 {
		depth = hi.Y - lo.Y
	}
	return rim{b.X - a.X + b.Y - a.Y, depth, func(u, v Length) Point {
		return Point{a.X + along.X*u + out.X*v, a.Y + along.Y*u + out.Y*v}
	}}, true
}

// Tab cuts a cell to a tab that hangs on the named wall. What the shape leaves of the cell is cut away.
func (p *Piece) Tab(name, wall string, shape TabShape) {
	r, ok := p.rim(name, wall)
	if !ok {
		return
	}
	reach := min(shape.Reach, r.depth)
	relief := min(shape.Relief, r.length/4)
	mitre := min(shape.Mitre, (r.length-2*relief)/3)
	p.CutAlong(r.at(0, 0), r.at(relief, 0), r.at(relief+mitre, reach), r.at(r.length-relief-mitre, reach),
		r.at(r.length-relief, 0), r.at(r.length, 0))
	if reach < r.depth {
		p.Label(r.at(r.length/2, (reach+r.depth)/2), trim)
	}
	if side := relief + mitre; side > 0 {
		p.Label(r.at(side/4, reach*7/8), trim)
		p.Label(r.at(r.length-side/4, reach*7/8), trim)
	}
	p.Rename(name, r.at(r.length/2, reach/2))
}

// Shear slants the two ends of a cell in, by so much each over its whole depth.
func (p *Piece) Shear(name, wall string, first, last Length) {
	r, ok := p.rim(name, wall)
	if !ok {
		return
	}
	p.CutAlong(r.at(0, 0), r.at(first, r.depth))
	p.CutAlong(r.at(r.length, 0), r.at(r.length-last, r.depth))
	for _, end := range []struct{ by, at Length }{{first, first / 4}, {last, r.length - last/4}} {
		if end.by > 0 {
			p.Label(r.at(end.at, r.depth*7/8), trim)
		}
	}
	p.Rename(name, r.at(r.length/2, r.depth/2))
}

// Fan cuts a cell into strips that hang on the named wall. Near and far are how far each reaches along the crease
// and along the outer edge, from one end of the crease or from the other.
func (p *Piece) Fan(cell, wall string, fromEnd bool, near, far []Length, names []string) {
	r, ok := p.rim(cell, wall)
	if !ok {
		return
	}
	at := func(along, out Length) Point {
		if fromEnd {
			along = r.length - along
		}
		return r.at(along, out)
	}
	p.labels = slices.DeleteFunc(p.labels, func(l label) bool { return l.name == cell })
	n, f := Length(0), Length(0)
	for i, name := range names {
		if near[i] < r.length || far[i] < r.length {
			p.CutAlong(at(near[i], 0), at(far[i], r.depth))
			if i+1 < len(names) {
				p.Slits = append(p.Slits, p.Lines[len(p.Lines)-1])
			}
		}
		p.Label(at((n+near[i]+f+far[i])/4, r.depth/2), name)
		n, f = near[i], far[i]
	}
	if f < r.length {
		p.Label(at(r.length-(r.length-f)/4, r.depth*7/8), trim)
	}
}

// Corner makes a tab of a corner cell: it hangs on one wall and is stuck behind the next, whose edges meet.
func (p *Piece) Corner(tab, hang, wall string, shape TabShape) {
	p.Tab(tab, hang, shape)
	p.Glue(tab, wall)
	p.Meet(wall, hang)
	p.Role("tab", tab)
}

// Tucked makes a flap of a cell, that hangs on one wall and is tucked in behind another, layers of card away.
func (p *Piece) Tucked(flap, hang, behind string, layers int, shape TabShape) {
	p.Tab(flap, hang, shape)
	p.Tuck(flap, behind, layers)
}

// Shorten cuts a cell off at a reach from its crease.
func (p *Piece) Shorten(name, wall string, reach Length) {
	if r, ok := p.rim(name, wall); ok && reach < r.depth {
		p.CutAlong(r.at(0, reach), r.at(r.length, reach))
		p.Label(r.at(r.length/2, (reach+r.depth)/2), trim)
		p.Rename(name, r.at(r.length/2, reach/2))
	}
}

// Round cuts the outer corners of a flap to quarter rounds.
func (p *Piece) Round(name, wall string, relief, radius Length) {
	r, ok := p.rim(name, wall)
	if !ok {
		return
	}
	radius = min(radius, r.depth, r.length/2-relief)
	const n = facets / 4
	arc := func(turn int) (u, v Length) { // from the side to the outer edge
		s, c := math.Sincos(math.Pi / 2 * float64(turn) / n)
		return measure.FromMM(radius.MM() * (1 - c)), measure.FromMM(radius.MM() * s)
	}
	line := []Point{}
	if relief > 0 { // else what hangs at its sides stays
		line = append(line, r.at(0, 0), r.at(relief, 0))
	}
	for i := range n + 1 {
		u, v := arc(i)
		line = append(line, r.at(relief+u, r.depth-radius+v))
	}
	for i := range n + 1 {
		u, v := arc(n - i)
		line = append(line, r.at(r.length-relief-u, r.depth-radius+v))
	}
	if relief > 0 {
		line = append(line, r.at(r.length-relief, 0), r.at(r.length, 0))
	}
	p.flap(name, r, line)
}

// Pointed cuts a flap to a tip at the middle of its outer edge, from shoulders at its sides.
func (p *Piece) Pointed(name, wall string, relief, shoulder Length) {
	if r, ok := p.rim(name, wall); ok {
		p.flap(name, r, []Point{r.at(0, 0), r.at(relief, 0), r.at(relief, shoulder), r.at(r.length/2, r.depth),
			r.at(r.length-relief, shoulder), r.at(r.length-relief, 0), r.at(r.length, 0)})
	}
}

// flap cuts along a line, and away what lies at the outer corners.
func (p *Piece) flap(name string, r rim, line []Point) {
	p.CutAlong(line...)
	sliver := min(r.depth, r.length) / 1000
	p.Label(r.at(sliver, r.depth-sliver), trim)
	p.Label(r.at(r.length-sliver, r.depth-sliver), trim)
	p.Rename(name, r.at(r.length/2, r.depth/2))
}

// Rename moves a cell's name off the card that goes.
func (p *Piece) Rename(name string, at Point) {
	p.labels = slices.DeleteFunc(p.labels, func(l label) bool { return l.name == name })
	p.Label(at, name)
}

// Cell gives the corners of the cells that a name covers, or of the whole piece when it covers none.
func (p *Piece) Cell(name string) (lo, hi Point) {
	r, c, rows, cols, ok := p.cell(name)
	if !ok {
		return Point{}, Point{p.Width, p.Height}
	}
	return Point{p.grid.xs[c], p.grid.ys[r]}, Point{p.grid.xs[cols], p.grid.ys[rows]}
}
