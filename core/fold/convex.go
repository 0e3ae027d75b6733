package fold

import (
	"math"

	"brevium/core/net"
)

// Convex is a convex part of a face; Real says which edges, from each point to the next, are edges of the face.
type Convex struct {
	Points []Vec
	Real   []bool
}

// Cuts remembers how faces are cut into triangles, which is the same however they stand.
type Cuts map[*net.Face][][3][2]float64

// Convex cuts the face into convex parts, for pictures.
func (p *Placed) Convex(cuts Cuts) []Convex {
	flat := p.flatten(p.Poly)
	if len(p.Holes) == 0 && isConvex(flat) {
		real := make([]bool, len(p.Poly))
		for i := range real {
			real[i] = !p.Smooth(i)
		}
		return []Convex{{p.Poly, real}}
	}
	edge := map[[2][2]float64]bool{}
	for n, ring := range append([][]Vec{p.Poly}, p.Holes...) {
		ring := p.flatten(ring)
		for i, a := range ring {
			if n == 0 && p.Smooth(i) {
				continue
			}
			edge[[2][2]float64{grain(a), grain(ring[(i+1)%len(ring)])}] = true
		}
	}
	var out []Convex
	if cuts[p.Face] == nil {
		cuts[p.Face] = triangles(p.card(p))
	}
	for _, t := range cuts[p.Face] {
		var c Convex
		for i, a := range t {
			b := t[(i+1)%3]
			c.Points = append(c.Points, p.At.Add(p.X.Times(a[0])).Add(p.Y.Times(a[1])))
			c.Real = append(c.Real, edge[[2][2]float64{grain(a), grain(b)}] || edge[[2][2]float64{grain(b), grain(a)}])
		}
		out = append(out, c)
	}
	return out
}

// Smooth reports whether a curved face only goes on over an edge: no line is to be seen there.
func (p *Placed) Smooth(edge int) bool {
	e := p.Edges[edge]
	return e.Kind == net.Bend && e.Beyond != nil && e.Beyond.Name == p.Name
}

// grain rounds a place so that it is the same however the face stands.
func grain(a [2]float64) [2]float64 {
	const fine = 1e4
	return [2]float64{math.Round(a[0]*fine) / fine, math.Round(a[1]*fine) / fine}
}

func isConvex(poly [][2]float64) bool {
	turn := 0.0
	for i, a := range poly {
		b, c := poly[(i+1)%len(poly)], poly[(i+2)%len(poly)]
		z := (b[0]-a[0])*(c[1]-b[1]) - (b[1]-a[1])*(c[0]-b[0])
		if z*turn < -1e-9 {
			return false
		}
		if z*z > 1e-12 {
			turn = z
		}
	}
	return true
}

// Vec is a place or direction in space, in millimetres. X runs right, Y back, Z up from the table.
type Vec struct{ X, Y, Z float64 }

// Add gives a + b.
func (a Vec) Add(b Vec) Vec { return Vec{a.X + b.X, a.Y + b.Y, a.Z + b.Z} }

// Sub gives a - b.
func (a Vec) Sub(b Vec) Vec { return Vec{a.X - b.X, a.Y - b.Y, a.Z - b.Z} }

// Times gives a, k times as long.
func (a Vec) Times(k float64) Vec { return Vec{a.X * k, a.Y * k, a.Z * k} }

// Dot is the inner product.
func (a Vec) Dot(b Vec) float64 { return a.X*b.X + a.Y*b.Y + a.Z*b.Z }

// Len is the length, in millimetres.
func (a Vec) Len() float64 { return math.Sqrt(a.Dot(a)) }

// Cross is the outer product: it stands upright on both.
func (a Vec) Cross(b Vec) Vec { return Vec{a.Y*b.Z - a.Z*b.Y, a.Z*b.X - a.X*b.Z, a.X*b.Y - a.Y*b.X} }

func (a Vec) unit() Vec {
	if l := a.Len(); l > 0 {
		return a.Times(1 / l)
	}
	return a
}

// turn rotates a by an angle round a unit axis through the origin.
func (a Vec) turn(axis Vec, angle float64) Vec {
	s, c := math.Sincos(angle)
	return a.Times(c).Add(axis.Cross(a).Times(s)).Add(axis.Times(axis.Dot(a) * (1 - c)))
}

// Frame places a flat piece of card in space: where its origin lies, which
// way its X and Y run and which way its inside looks.
type Frame struct{ At, X, Y, In Vec }

// flat is card on the table, inside up.
var flat = Frame{X: Vec{X: 1}, Y: Vec{Y: -1}, In: Vec{Z: 1}}

func (f Frame) place(p net.Point) Vec { return f.At.Add(f.X.Times(p.X.MM())).Add(f.Y.Times(p.Y.MM())) }

func (f Frame) turn(through, axis Vec, angle float64) Frame {
	return Frame{
		At: through.Add(f.At.Sub(through).turn(axis, angle)),
		X:  f.X.turn(axis, angle), Y: f.Y.turn(axis, angle), In: f.In.turn(axis, angle),
	}
}

func (f Frame) move(by Vec) Frame { f.At = f.At.Add(by); return f }
