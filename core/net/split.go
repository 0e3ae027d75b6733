package net

import "brevium/core/measure"

// Spot is a place on a cell, in halves of it: 0, 0 is its top left corner, 1, 2
// the middle of its lower edge.
func (p *Piece) Spot(cell string, across, down int) Point {
	lo, hi := p.Cell(cell)
	part := func(a, b Length, k int) Length { return a + (b-a)*Length(k)/2 }
	return Point{part(lo.X, hi.X, across), part(lo.Y, hi.Y, down)}
}

// Stand says that the piece stands on a cell which is only a part of its floor:
// the middle of the floor, so long and wide, is measured from the cell's corner.
func (p *Piece) Stand(cell string, long, wide Length) {
	lo, _ := p.Cell(cell)
	p.Root, p.Middle = cell, &Point{lo.X + long/2, lo.Y + wide/2}
}

// Split scores (or only bends) a cell along a line, and names the part that
// lies to the left of one who looks from a to b; the rest keeps its name.
func (p *Piece) Split(cell string, kind Kind, a, b Point, left string) {
	if p.cells == nil {
		p.cells = map[string][]Point{}
	}
	whole := p.cells[cell]
	if whole == nil {
		lo, hi := p.Cell(cell)
		whole = []Point{lo, {hi.X, lo.Y}, hi, {lo.X, hi.Y}}
	}
	p.Slant(kind, a, b, 90, Valley)
	p.cells[left], p.cells[cell] = side(whole, a, b), side(whole, b, a)
	p.Label(middle(p.cells[left]), left)
	p.Rename(cell, middle(p.cells[cell]))
}

// side is the part of an outline that lies to the left of a line, seen from a
// to b with y running down.
func side(outline []Point, a, b Point) []Point {
	off := func(q Point) float64 {
		return (b.X-a.X).MM()*(a.Y-q.Y).MM() - (b.Y-a.Y).MM()*(a.X-q.X).MM()
	}
	return Half(nil, outline, off, func(q, next Point, k float64) Point {
		return Point{q.X + measure.FromMM((next.X-q.X).MM()*k), q.Y + measure.FromMM((next.Y-q.Y).MM()*k)}
	})
}

// Half appends to out the part of a convex outline on one side of a line: side is not negative there, and between
// gives the point so far on the way from one corner to the next at which the line is met.
func Half[P any](out, outline []P, side func(P) float64, between func(a, b P, part float64) P) []P {
	for i, q := range outline {
		next := outline[(i+1)%len(outline)]
		s, t := side(q), side(next)
		if s >= 0 {
			out = append(out, q)
		}
		if s*t < 0 {
			out = append(out, between(q, next, s/(s-t)))
		}
	}
	return out
}

// middle is a place well within an outline that is convex.
func middle(outline []Point) Point {
	if len(outline) < 3 {
		return Point{}
	}
	return (&Face{Points: outline}).Centre()
}
