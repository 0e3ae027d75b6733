package net

import (
	"math"
	"slices"
)

// Shape makes the piece a single face of an outline, with holes in it: what lies
// outside is cut away. It has no lines to find a face from but its own.
func (p *Piece) Shape(face string, ring []Point, holes [][]Point) {
	p.shaped = ringFace(face, Cut, ring, false)
	for _, h := range holes {
		p.punched = append(p.punched, ringFace("", Hole, h, false))
		p.shaped.Holes = append(p.shaped.Holes, ringFace("", Hole, h, true).Points)
	}
}

// Shaped reports whether it is cut to an outline that is no rectangle.
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

// Punched reports whether a line is a facet of a round hole.
func (p *Piece) Punched(l Line) bool {
	for _, h := range p.Punches {
		if h.onRing(l.A) && h.onRing(l.B) {
			return true
		}
	}
	return false
}

func (h Punch) onRing(at Point) bool {
	x, y := (at.X - h.Mid.X).MM(), (at.Y - h.Mid.Y).MM()
	off := math.Hypot(x, y) - h.Wide(math.Atan2(y, x))
	return off > -0.01 && off < 0.012*h.Diameter.MM()+0.05
}

// Proved reports whether a round hole is cut out of the piece as it was found: of that size, in
// that place.
func (p *Piece) Proved(h Punch) bool {
	for _, f := range p.Faces {
		if !f.Waste || len(f.Edges) == 0 || f.Edges[0].Kind != Hole {
			continue
		}
		round := true
		for _, q := range f.Points {
			round = round && h.onRing(q)
		}
		if round {
			return true
		}
	}
	return false
}
