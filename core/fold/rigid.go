package fold

import (
	"math"

	"brevium/core/net"
)

// Rigid is a motion that keeps shapes: a turn about an axis through the origin and then a shift.
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

// Place lays a face along another: their middles together, but for so much to
// the right, down (as the other is drawn) and outwards, in millimetres.
type Place struct {
	Right, Down, Out float64
	Quarters         int  // quarter turns, as the clock goes on the other's drawing
	Over             bool // turned over: the insides look at each other
	Stood            bool // on its lower edge, upright on the other's inside
}

// Onto gives the motion that lays a face in its place along another, which is the table when it is nil.
func Onto(face, on *Placed, by Place) Rigid {
	target, mid := flat, Vec{}
	if on != nil {
		target, mid = on.Frame, on.Middle()
	}
	mid = mid.Add(target.X.Times(by.Right)).Add(target.Y.Times(by.Down)).Add(target.In.Times(-by.Out))
	for range by.Quarters & 3 {
		target.X, target.Y = target.Y, target.X.Times(-1)
	}
	lo, hi := face.Bounds()
	held := net.Point{X: (lo.X + hi.X) / 2, Y: (lo.Y + hi.Y) / 2}
	switch {
	case by.Over:
		target.Y, target.In = target.Y.Times(-1), target.In.Times(-1)
	case by.Stood:
		target.Y, target.In = target.In.Times(-1), target.Y
		held.Y = hi.Y
	}
	target.At = Vec{}
	target.At = mid.Sub(target.place(held))
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
