package net

import "slices"

// Mirrored gives a found piece as its mirror image, left for right: what one
// gets by cutting it alike and scoring it on the other face.
func (p *Piece) Mirrored() *Piece {
	q := *p
	flip := func(at Point) Point { return Point{p.Width - at.X, at.Y} }
	q.Faces = make([]*Face, len(p.Faces))
	beyond := map[*Face]*Face{}
	for i, f := range p.Faces {
		g := *f
		q.Faces[i], beyond[f] = &g, &g
	}
	for i, f := range p.Faces {
		g, n := q.Faces[i], len(f.Points)
		g.Points, g.Edges, g.Holes = mirrored(f.Points, flip), make([]Edge, n), nil
		for k := range n {
			e := f.Edges[(2*n-2-k)%n]
			e.A, e.B = flip(e.B), flip(e.A)
			e.Beyond = beyond[e.Beyond]
			g.Edges[k] = e
		}
		for _, h := range f.Holes {
			g.Holes = append(g.Holes, mirrored(h, flip))
		}
	}
	if p.facetted != nil {
		q.facetted = p.facetted.Mirrored()
	}
	if p.Middle != nil {
		mid := flip(*p.Middle)
		q.Middle = &mid
	}
	return &q
}

func mirrored(ring []Point, flip func(Point) Point) []Point {
	out := make([]Point, len(ring))
	for i, at := range ring {
		out[len(ring)-1-i] = flip(at)
	}
	return slices.Clip(out)
}
