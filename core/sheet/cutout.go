package sheet

import "slices"

// Shape makes the piece a single face of an outline, with holes in it: what lies
// outside is cut away. It has no lines to find a face from but its own.
func (p *Piece) Shape(face string, ring []Point, holes [][]Point) {
	p.shaped = ringFace(face, Cut, ring, false)
	for _, h := range holes {
		p.punched = append(p.punched, ringFace("", Hole, h, false))
		p.shaped.Holes = append(p.shaped.Holes, ringFace("", Hole, h, true).Points)
	}
}

// Shaped says whether it is cut to an outline that is no rectangle.
func (p *Piece) Shaped() bool {
	return p.shaped != nil && (len(p.punched) > 0 || p.shaped.Area() < p.Width.MM()*p.Height.MM()*(1-1e-6))
}

// ringFace is a face within an outline, its card to the right of every edge as it is
// drawn or, of a hole, to the left.
func ringFace(name string, kind Kind, ring []Point, hole bool) *Face {
	ring = slices.Clone(ring)
	if (area(ring) < 0) != hole {
		slices.Reverse(ring)
	}
	f := &Face{Name: name, Points: ring, Waste: kind == Hole}
	for i, q := range ring {
		f.Edges = append(f.Edges, Edge{Line: Line{Kind: kind, A: q, B: ring[(i+1)%len(ring)]}})
	}
	return f
}

// Opening cuts a window of any outline; its shape is square, round or rounded.
func (p *Piece) Opening(shape string, ring []Point) {
	lo, hi := Bounds(ring)
	p.Windows = append(p.Windows, Window{lo, hi, shape})
	for i := range ring {
		p.Lines = append(p.Lines, Line{Kind: Hole, A: ring[i], B: ring[(i+1)%len(ring)]})
	}
}
