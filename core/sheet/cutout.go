package sheet

import "math"

// Shape makes the piece a single face of an outline, with holes in it: what lies
// outside is cut away.
func (p *Piece) Shape(face string, ring []Point, holes [][]Point) {
	p.only = true
	lo, hi := ring[0], ring[0]
	for _, q := range ring {
		lo, hi = Point{min(lo.X, q.X), min(lo.Y, q.Y)}, Point{max(hi.X, q.X), max(hi.Y, q.Y)}
	}
	if full := (hi.X - lo.X).MM() * (hi.Y - lo.Y).MM(); math.Abs(full-math.Abs(area(ring))) > 1e-6*full {
		p.CutAlong(append(append([]Point{}, ring...), ring[0])...)
	}
	for _, h := range holes {
		p.Opening(h)
	}
	p.Label(within(ring, holes), face)
}

// Opening punches a hole of any outline.
func (p *Piece) Opening(ring []Point) {
	for i := range ring {
		p.Lines = append(p.Lines, Line{Kind: Hole, A: ring[i], B: ring[(i+1)%len(ring)]})
	}
}

// within finds a place on the card of an outline, clear of its holes.
func within(ring []Point, holes [][]Point) Point {
	lo, hi := ring[0], ring[0]
	for _, q := range ring {
		lo, hi = Point{min(lo.X, q.X), min(lo.Y, q.Y)}, Point{max(hi.X, q.X), max(hi.Y, q.Y)}
	}
	for n := Length(2); n < 64; n++ {
		for i := Length(1); i < n; i++ {
			for k := Length(1); k < n; k++ {
				at := Point{lo.X + (hi.X-lo.X)*i/n, lo.Y + (hi.Y-lo.Y)*k/n}
				free := Inside(ring, at)
				for _, h := range holes {
					free = free && !Inside(h, at)
				}
				if free {
					return at
				}
			}
		}
	}
	return lo
}
