package fold

import "math"

// Rigid is a motion that keeps shapes: a turn about an axis through the origin
// and then a shift.
type Rigid struct {
	axis  Vec
	angle float64
	shift Vec
}

// from gives the motion that takes one frame to another.
func from(a, b Frame) Rigid {
	turned := func(v Vec) Vec {
		return b.X.Times(a.X.Dot(v)).Add(b.Y.Times(a.Y.Dot(v))).Add(b.In.Times(a.In.Dot(v)))
	}
	x, y, z := turned(Vec{X: 1}), turned(Vec{Y: 1}), turned(Vec{Z: 1})
	angle := math.Acos(max(-1, min(1, (x.X+y.Y+z.Z-1)/2)))
	axis := Vec{y.Z - z.Y, z.X - x.Z, x.Y - y.X}
	if axis.Len() < 1e-9 {
		// Half a turn: the axis is what it leaves in place.
		axis = x.Add(Vec{X: 1})
		if axis.Len() < 1e-6 {
			axis = y.Add(Vec{Y: 1})
		}
		if axis.Len() < 1e-6 {
			axis = z.Add(Vec{Z: 1})
		}
	}
	r := Rigid{axis: axis.unit(), angle: angle}
	r.shift = b.At.Sub(a.At.turn(r.axis, angle))
	return r
}

// Onto gives the motion that lays a face along another, their middles together
// but for so much to the right, down (as the other is drawn) and outwards.
func Onto(face, on *Placed, right, down, out float64) Rigid {
	target := on.Frame
	flo, fhi := face.Bounds()
	lo, hi := on.Bounds()
	target.At = on.At.Add(on.X.Times((lo.X+hi.X-flo.X-fhi.X).MM()/2 + right)).
		Add(on.Y.Times((lo.Y+hi.Y-flo.Y-fhi.Y).MM()/2 + down)).Add(on.In.Times(-out))
	return from(face.Frame, target)
}

// Carry moves the body by a part of the motion, from 0 to 1. Its middle goes
// straight, but for being raised by a hump on the way.
func (b *Body) Carry(r Rigid, part, hump float64) {
	lo, hi := Bounds(b)
	mid := lo.Add(hi).Times(0.5)
	goal := mid.turn(r.axis, r.angle).Add(r.shift)
	to := mid.Add(goal.Sub(mid).Times(part)).Add(Vec{Z: hump * 4 * part * (1 - part)})
	if part == 1 {
		to = goal
	}
	for _, f := range b.Faces {
		f.Frame = f.Frame.turn(mid, r.axis, r.angle*part).move(to.Sub(mid))
		f.lay()
	}
}

// Way gives the motion between two places of one body.
func Way(before, after *Body) Rigid { return from(before.Faces[0].Frame, after.Faces[0].Frame) }

// Copy gives the body's faces to move on their own.
func (b *Body) Copy() *Body {
	out := *b
	out.Faces = make([]*Placed, len(b.Faces))
	for i, f := range b.Faces {
		g := *f
		g.Body = &out
		out.Faces[i] = &g
	}
	return &out
}
