package fold

import (
	"math"
	"slices"

	"brevium/core/measure"
	"brevium/core/net"
)

// What a box measures is read off its faces as they stand, each as thick as its card.

// Extent gives the upright box round the bodies, card and all.
func Extent(bodies ...*Body) (lo, hi Vec) {
	inf := math.Inf(1)
	lo, hi = Vec{inf, inf, inf}, Vec{-inf, -inf, -inf}
	for _, b := range bodies {
		for _, f := range b.Faces {
			by := f.thick()
			for _, v := range f.Poly {
				lo = Vec{min(lo.X, v.X-by.X), min(lo.Y, v.Y-by.Y), min(lo.Z, v.Z-by.Z)}
				hi = Vec{max(hi.X, v.X+by.X), max(hi.Y, v.Y+by.Y), max(hi.Z, v.Z+by.Z)}
			}
		}
	}
	return lo, hi
}

// thick is how far half the card's thickness reaches along each axis.
func (p *Placed) thick() Vec {
	return Vec{math.Abs(p.In.X), math.Abs(p.In.Y), math.Abs(p.In.Z)}.Times(p.Body.T / 2)
}

// Level reports whether a face lies level.
func (p *Placed) Level() bool { return math.Abs(p.In.Z) > 0.999 }

// Upright reports whether a face stands upright.
func (p *Placed) Upright() bool { return math.Abs(p.In.Z) < 0.001 }

// Rim is how high the walls stand that look to each of the four sides: the lowest of the four.
func (b *Body) Rim() float64 {
	top := map[string]float64{}
	for _, f := range b.Faces {
		if !f.Upright() || f.Layer > 0 {
			continue
		}
		s := side(f.In)
		for _, v := range f.Poly {
			top[s] = max(top[s], v.Z)
		}
	}
	rim := math.Inf(1)
	for _, s := range []string{"left", "right", "front", "back"} {
		rim = min(rim, top[s])
	}
	return rim
}

// Above is what closes a box above its walls.
type Above int

const (
	Open Above = iota
	Flat
	Roof
)

// Covered says what closes a box above a height, over the middle of its floor.
func Covered(mid Vec, height float64, bodies ...*Body) Above {
	found := Open
	for _, b := range bodies {
		for _, f := range b.Faces {
			lo, hi := boxRound(f.Poly)
			if f.Upright() || hi.Z <= height || lo.X > mid.X || hi.X < mid.X || lo.Y > mid.Y+tolerance || hi.Y < mid.Y-tolerance {
				continue
			}
			if f.Level() {
				return Flat
			}
			found = Roof
		}
	}
	return found
}

// Sides are the ways a box is looked at, with the direction towards the eye.
var Sides = []struct {
	Name, Says string
	To         Vec
}{{"left", "the left", Vec{X: -1}}, {"right", "the right", Vec{X: 1}}, {"front", "the front", Vec{Y: -1}},
	{"back", "the back", Vec{Y: 1}}, {"above", "above", Vec{Z: 1}}, {"below", "below", Vec{Z: -1}}}

// Seam is where the raw edge of one wall comes to another, and from which sides it is seen.
type Seam struct {
	Piece, Edge, Wall string
	From              []string
}

// Seams looks for the seams of a body that are seen among all bodies.
func (b *Body) Seams(all ...*Body) (out []Seam) {
	faces := reaching(all)
	for _, m := range b.Piece.Meets {
		p, q := b.Find(m[0]), b.Find(m[1])
		if p == nil || q == nil || opens(b.Piece, m[0]) && opens(b.Piece, m[1]) {
			continue // where the box opens is no seam
		}
		i, k := nearestEdges(p, q)
		for _, raw := range []struct {
			f, wall *Placed
			edge    int
		}{{p, q, i}, {q, p, k}} {
			if !raw.f.Face.Edges[raw.edge].Kind.Open() {
				continue
			}
			if from := seenFrom(raw.f, raw.edge, faces); len(from) > 0 {
				out = append(out, Seam{b.Name, raw.f.Name, raw.wall.Name, from})
			}
		}
	}
	return out
}

func opens(p *net.Piece, face string) bool {
	return slices.ContainsFunc(p.Order, func(m net.Move) bool {
		return m.When == net.Close && slices.Contains(m.Faces, face)
	})
}

// seenFrom gives the sides to which a raw edge looks with nothing before it.
func seenFrom(p *Placed, edge int, faces []reach) (from []string) {
	a, b := p.Poly[edge], p.Poly[(edge+1)%len(p.Poly)]
	outward := b.Sub(a).unit().Cross(p.In).Times(-1)
	if p.holds(a.Add(b).Times(0.5).Add(outward.Times(0.01))) {
		outward = outward.Times(-1)
	}
	for _, s := range Sides {
		if outward.Dot(s.To) < 0.7 {
			continue
		}
		for _, part := range []float64{0.04, 0.3, 0.5, 0.7, 0.96} {
			at := a.Add(b.Sub(a).Times(part)).Add(outward.Times(p.Body.T))
			if !hidden(at, s.To, faces) {
				from = append(from, s.Name)
				break
			}
		}
	}
	return from
}

// hidden reports whether card lies before a place, seen from a side.
func hidden(at, to Vec, faces []reach) bool {
	for _, f := range faces {
		slope := f.In.Dot(to)
		if math.Abs(slope) < 0.05 {
			continue
		}
		d := f.Poly[0].Sub(at).Dot(f.In) / slope
		if d > -f.Body.T/2 && f.holds(at.Add(to.Times(d))) {
			return true
		}
	}
	return false
}

// nearestEdges finds the edges at which two faces come nearest to each other, of several the longest.
func nearestEdges(p, q *Placed) (i, k int) {
	const hair = 1e-6
	best, long := math.Inf(1), 0.0
	for a := range p.Poly {
		for b := range q.Poly {
			d, l := edgesApart(p, a, q, b), min(p.edge(a), q.edge(b))
			if d < best-hair || d < best+hair && l > long {
				best, long, i, k = min(d, best), l, a, b
			}
		}
	}
	return i, k
}

// edge is how long an edge is.
func (p *Placed) edge(i int) float64 { return p.Poly[(i+1)%len(p.Poly)].Sub(p.Poly[i]).Len() }

// edgesApart is how far an edge of one face is from an edge of another that
// runs alike, over the length they should share.
func edgesApart(p *Placed, i int, q *Placed, k int) float64 {
	a, b := p.Poly[i], p.Poly[(i+1)%len(p.Poly)]
	c, d := q.Poly[k], q.Poly[(k+1)%len(q.Poly)]
	apart := min(max(a.Sub(c).Len(), b.Sub(d).Len()), max(a.Sub(d).Len(), b.Sub(c).Len()))
	return min(apart, max(fromLine(c, a, b), fromLine(d, a, b)), max(fromLine(a, c, d), fromLine(b, c, d)))
}

// Stacked reports whether a piece lies flat when so pressed: all its faces in one
// plane, its seams on what they are stuck to.
func Stacked(p *net.Piece, pressed Pressed) bool {
	b := UpTo(p, 0.1, func(string) float64 { return 0 }, pressed)
	for _, f := range b.Faces {
		for _, v := range f.Poly {
			if math.Abs(v.Z) > tolerance {
				return false
			}
		}
	}
	for _, g := range p.Glues {
		f, on := b.Find(g.Face), b.Find(g.On)
		if f != nil && on != nil && p.Stored(g) && overlap(f, on) < 0.9*f.Area() {
			return false
		}
	}
	return true
}

// Reach gives the upright box round a face.
func Reach(p *Placed) (lo, hi Vec) { return boxRound(p.Poly) }

// Shows reports whether some of a face's outside has no card before it, seen straight on:
// looked for at spots spread over the face.
func (p *Placed) Shows(bodies ...*Body) bool {
	lo, hi := p.Bounds()
	faces, out := reaching(bodies), p.In.Times(-1)
	spots := []float64{0.5, 0.04, 0.96, 0.25, 0.75}
	for _, u := range spots {
		for _, v := range spots {
			at := net.Point{X: lo.X + measure.Length(u*float64(hi.X-lo.X)), Y: lo.Y + measure.Length(v*float64(hi.Y-lo.Y))}
			if net.Inside(p.Points, at) && !hidden(p.place(at).Add(out.Times(p.Body.T)), out, faces) {
				return true
			}
		}
	}
	return false
}

// Overlap is the area, in square millimetres, that two faces share when the one is seen
// along the other's inside direction.
func Overlap(p, q *Placed) float64 { return overlap(p, q) }
