package sheet

import "slices"

// TabShape says how a corner cell is cut to become a tab.
type TabShape struct {
	Reach  Length // how far it stands out from its crease
	Mitre  Length // how much each end slants in over that reach
	Relief Length // how much each end stays clear of the crease's ends
}

// Tab cuts a cell to a tab that hangs on the named wall. What the shape leaves
// of the cell is cut away.
func (p *Piece) Tab(name, wall string, shape TabShape) {
	r, c, rows, cols, ok := p.cell(name)
	if !ok {
		return
	}
	g := p.grid
	lo, hi := Point{g.xs[c], g.ys[r]}, Point{g.xs[cols], g.ys[rows]}
	// A and B are the ends of the crease, out and along unit steps from it.
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
		return
	}
	length, depth := b.X-a.X+b.Y-a.Y, hi.X-lo.X
	if out.X == 0 {
		depth = hi.Y - lo.Y
	}
	reach := min(shape.Reach, depth)
	relief := min(shape.Relief, length/4)
	mitre := min(shape.Mitre, (length-2*relief)/3)
	at := func(u, v Length) Point { // u along the crease, v out from it
		return Point{a.X + along.X*u + out.X*v, a.Y + along.Y*u + out.Y*v}
	}
	p.CutAlong(a, at(relief, 0), at(relief+mitre, reach), at(length-relief-mitre, reach), at(length-relief, 0), b)
	if reach < depth {
		p.Label(at(length/2, (reach+depth)/2), trim)
	}
	if side := relief + mitre; side > 0 {
		p.Label(at(side/4, reach*7/8), trim)
		p.Label(at(length-side/4, reach*7/8), trim)
	}
	// The cell's own label may now lie on card that goes: name the tab anew.
	p.unlabel(name)
	p.Label(at(length/2, reach/2), name)
}

func (p *Piece) unlabel(name string) {
	p.labels = slices.DeleteFunc(p.labels, func(l label) bool { return l.name == name })
}
