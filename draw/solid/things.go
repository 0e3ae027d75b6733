package solid

import (
	"math"

	"brevium/core/fold"
)

// thingColour is the colour of things inside.
const thingColour = "#c9a36b"

// around is how many corners stand for a round where it is cut.
const around = 24

// thing gives the polygons of a thing that are seen, from back to front. All
// lie within it, so that what hides the thing hides them: a ball is the disc
// through its middle that faces the eye, a can its far end, the flat through
// its axis, and its near end. Together they are the thing's outline.
func (s *Scene) thing(b fold.Block) []poly {
	mid, r := b.Mid(), b.Radius()
	switch b.Shape {
	case fold.Ball:
		return []poly{s.disc(disc{mid, s.eye, r, true})}
	case fold.Upright:
		if b.Neck == 0 {
			return s.can(mid, fold.Vec{Z: 1}, r, b.Lo.Z, b.Hi.Z)
		}
		body, neck := s.can(mid, fold.Vec{Z: 1}, r, b.Lo.Z, b.Shoulder), s.can(mid, fold.Vec{Z: 1}, b.Neck, b.Shoulder, b.Hi.Z)
		if s.eye.Z < 0 {
			body, neck = neck, body
		}
		return append(body, neck...)
	case fold.LyingX:
		return s.can(mid, fold.Vec{X: 1}, (b.Hi.Z-b.Lo.Z)/2, b.Lo.X, b.Hi.X)
	case fold.LyingY:
		return s.can(mid, fold.Vec{Y: 1}, (b.Hi.Z-b.Lo.Z)/2, b.Lo.Y, b.Hi.Y)
	}
	return s.brick(b.Lo, b.Hi)
}

// disc makes a round, with the corners it has where it is cut.
func (s *Scene) disc(d disc) poly {
	p := poly{normal: d.out, colour: thingColour, round: &d}
	side := d.out.Cross(fold.Vec{X: 1})
	if side.Len() < 0.1 {
		side = d.out.Cross(fold.Vec{Y: 1})
	}
	u := side.Times(1 / side.Len())
	w := d.out.Cross(u)
	for i := range around {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / around)
		p.add(d.mid.Add(u.Times(d.r*cos)).Add(w.Times(d.r*sin)), true)
	}
	return p
}

// can makes a cylinder round an axis through mid.
func (s *Scene) can(mid, axis fold.Vec, r, from, to float64) (out []poly) {
	far, near := from, to
	if axis.Dot(s.eye) < 0 {
		far, near = to, from
	}
	end := func(at float64) fold.Vec { return mid.Sub(axis.Times(mid.Dot(axis))).Add(axis.Times(at)) }
	out = append(out, s.disc(disc{mid: end(far), out: axis, r: r}))
	if across := axis.Cross(s.eye); across.Len() > 1e-6 {
		u := across.Times(r / across.Len())
		out = append(out, poly{
			points: []fold.Vec{end(far).Add(u), end(near).Add(u), end(near).Sub(u), end(far).Sub(u)},
			real:   []bool{true, false, true, false}, normal: u.Times(1 / r).Cross(axis), colour: thingColour,
		})
	}
	return append(out, s.disc(disc{mid: end(near), out: axis, r: r}))
}

// brick makes the sides of a block that face the eye.
func (s *Scene) brick(lo, hi fold.Vec) (out []poly) {
	corner := func(i int) fold.Vec {
		p := lo
		if i&1 != 0 {
			p.X = hi.X
		}
		if i&2 != 0 {
			p.Y = hi.Y
		}
		if i&4 != 0 {
			p.Z = hi.Z
		}
		return p
	}
	for _, side := range []struct {
		corners [4]int
		out     fold.Vec
	}{
		{[4]int{0, 1, 3, 2}, fold.Vec{Z: -1}}, {[4]int{4, 5, 7, 6}, fold.Vec{Z: 1}}, {[4]int{0, 1, 5, 4}, fold.Vec{Y: -1}},
		{[4]int{2, 3, 7, 6}, fold.Vec{Y: 1}}, {[4]int{0, 2, 6, 4}, fold.Vec{X: -1}}, {[4]int{1, 3, 7, 5}, fold.Vec{X: 1}},
	} {
		if side.out.Dot(s.eye) <= 0 {
			continue
		}
		p := poly{normal: side.out, colour: thingColour}
		for _, i := range side.corners {
			p.add(corner(i), true)
		}
		out = append(out, p)
	}
	return out
}

// backToFront orders things so that none is painted over by what it hides.
// Each stands clear of each, so of two that meet on the picture a plane between
// them tells which is nearer. Things stand in upright stacks, seen along lines
// that cross the floor one way, so such an order always exists.
func backToFront(blocks []fold.Block, v View) []fold.Block {
	right, up := v.screen()
	eye := v.eye()
	n := len(blocks)
	shadows := make([][4]float64, n)
	for i, b := range blocks {
		shadows[i] = shadow(b, right, up)
	}
	over := make([][]int32, n) // what is painted after it
	under := make([]int32, n)  // how many must be painted before it
	for i := range n {
		for k := i + 1; k < n; k++ {
			a, b := shadows[i], shadows[k]
			if a[0] >= b[1] || b[0] >= a[1] || a[2] >= b[3] || b[2] >= a[3] {
				continue
			}
			switch nearer(blocks[i], blocks[k], eye) {
			case 1:
				over[i] = append(over[i], int32(k))
				under[k]++
			case -1:
				over[k] = append(over[k], int32(i))
				under[i]++
			}
		}
	}
	var order []int32
	for i := range n {
		if under[i] == 0 {
			order = append(order, int32(i))
		}
	}
	for at := 0; at < len(order); at++ {
		for _, k := range over[order[at]] {
			if under[k]--; under[k] == 0 {
				order = append(order, k)
			}
		}
	}
	out := make([]fold.Block, 0, n)
	for _, i := range order {
		out = append(out, blocks[i])
	}
	for i, b := range blocks { // there is no ring, but nothing may be lost
		if under[i] > 0 {
			out = append(out, b)
		}
	}
	return out
}

// nearer is 1 when b is nearer to the eye than a where they meet on the
// picture, -1 when a is, 0 when neither hides the other.
func nearer(a, b fold.Block, eye fold.Vec) int {
	const hair = 1e-6
	sign := 0
	apart := false
	for _, axis := range []struct{ aLo, aHi, bLo, bHi, eye float64 }{
		{a.Lo.X, a.Hi.X, b.Lo.X, b.Hi.X, eye.X}, {a.Lo.Y, a.Hi.Y, b.Lo.Y, b.Hi.Y, eye.Y}, {a.Lo.Z, a.Hi.Z, b.Lo.Z, b.Hi.Z, eye.Z},
	} {
		is := 0
		switch {
		case axis.aHi <= axis.bLo+hair:
			is = 1
		case axis.bHi <= axis.aLo+hair:
			is = -1
		default:
			continue
		}
		apart = true
		if axis.eye < -hair {
			is = -is
		} else if axis.eye <= hair {
			return 0
		}
		if sign != 0 && is != sign {
			return 0
		}
		sign = is
	}
	if apart {
		return sign
	}
	// Rounds set into each other's gaps: the plane between their middles.
	if d := b.Mid().Sub(a.Mid()).Dot(eye); math.Abs(d) > hair {
		return int(math.Copysign(1, d))
	}
	return 0
}

// shadow is the upright box round a thing on the picture: left, right, low, high.
func shadow(b fold.Block, right, up fold.Vec) [4]float64 {
	mid, half := b.Mid(), b.Hi.Sub(b.Lo).Times(0.5)
	wide := math.Abs(half.X*right.X) + math.Abs(half.Y*right.Y) + math.Abs(half.Z*right.Z)
	high := math.Abs(half.X*up.X) + math.Abs(half.Y*up.Y) + math.Abs(half.Z*up.Z)
	x, y := mid.Dot(right), mid.Dot(up)
	return [4]float64{x - wide, x + wide, y - high, y + high}
}
