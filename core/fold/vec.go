package fold

import (
	"math"

	"brevium/core/net"
)

// Vec is a place or direction in space, in millimetres. X runs right, Y back,
// Z up from the table.
type Vec struct{ X, Y, Z float64 }

func (a Vec) Add(b Vec) Vec       { return Vec{a.X + b.X, a.Y + b.Y, a.Z + b.Z} }
func (a Vec) Sub(b Vec) Vec       { return Vec{a.X - b.X, a.Y - b.Y, a.Z - b.Z} }
func (a Vec) Times(k float64) Vec { return Vec{a.X * k, a.Y * k, a.Z * k} }
func (a Vec) Dot(b Vec) float64   { return a.X*b.X + a.Y*b.Y + a.Z*b.Z }
func (a Vec) Len() float64        { return math.Sqrt(a.Dot(a)) }
func (a Vec) Cross(b Vec) Vec {
	return Vec{a.Y*b.Z - a.Z*b.Y, a.Z*b.X - a.X*b.Z, a.X*b.Y - a.Y*b.X}
}

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

func (f Frame) place(p net.Point) Vec {
	return f.At.Add(f.X.Times(p.X.MM())).Add(f.Y.Times(p.Y.MM()))
}

func (f Frame) turn(through, axis Vec, angle float64) Frame {
	return Frame{
		At: through.Add(f.At.Sub(through).turn(axis, angle)),
		X:  f.X.turn(axis, angle), Y: f.Y.turn(axis, angle), In: f.In.turn(axis, angle),
	}
}

func (f Frame) move(by Vec) Frame { f.At = f.At.Add(by); return f }
