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

// Proved reports whether a round hole is cut out of the piece as it was found: of that size, in that place.
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

// Outline gives the lines as they end up on the card that stays: creases
// once, slits once, every edge beside nothing or beside card cut away, and holes.
func (p *Piece) Outline() []Line {
	var out []Line
	done := map[[2]Point]bool{}
	for _, f := range p.Kept() {
		for _, e := range f.Edges {
			if done[[2]Point{e.B, e.A}] {
				continue
			}
			done[[2]Point{e.A, e.B}] = true
			l := e.Line
			if e.Beyond == nil || e.Beyond.Waste {
				if l.Kind != Hole {
					l.Kind = Cut
				}
			}
			out = append(out, l)
		}
	}
	for _, f := range p.Faces {
		for _, e := range f.Edges {
			if f.Waste && e.Kind == Hole {
				out = append(out, e.Line)
			}
		}
	}
	return joinUp(out)
}

// joinUp makes one line of those that run on from each other alike.
func joinUp(lines []Line) []Line {
	for i := 0; i < len(lines); i++ {
		if lines[i].Kind == Hole {
			continue // what is punched is never joined, and may be much
		}
		for k := i + 1; k < len(lines); k++ {
			if l, ok := runOn(lines[i], lines[k]); ok {
				lines[i] = l
				lines = append(lines[:k], lines[k+1:]...)
				k = i
			}
		}
	}
	return lines
}

func runOn(a, b Line) (Line, bool) {
	if a.Kind != b.Kind || a.Fold != b.Fold || a.Turn != b.Turn || a.Via != b.Via || a.Name != b.Name || a.Kind == Hole {
		return a, false
	}
	if a.A == b.A || a.A == b.B {
		a.A, a.B = a.B, a.A
	}
	if a.B == b.B {
		b.A, b.B = b.B, b.A
	}
	whole := a
	whole.B = b.B
	return whole, a.B == b.A && whole.A != whole.B && onLine(whole, a.B)
}

// Within reports whether a line is a part of another.
func (l Line) Within(of Line) bool {
	on := func(at Point) bool { return at == of.A || at == of.B || onLine(of, at) }
	return on(l.A) && on(l.B)
}
