package fold

import "math"

// Hollow is the room in a box. Between its level floor and cover and its upright
// walls it is a block; faces on the slant, and curves, may reach into that.
type Hollow struct {
	Lo, Hi  Vec // between what is level and what stands
	In, Out Vec // the corners of a block that stands in it and touches nothing
	Shaped  bool
}

// Room shrinks an upright block round a place until no card reaches into it. Each face cuts it on the side where
// that takes least and leaves the place in it. Where faces slope in, of all blocks that stand on the floor the one
// is taken that has the size that is wanted, or is the largest.
func Room(lo, hi, heart, want Vec, bodies ...*Body) Hollow {
	var slopes []reach
	faces := reaching(bodies)
	for _, f := range faces {
		if f.Level() || f.Upright() {
			lo, hi = f.cut(lo, hi, heart, -1)
		} else {
			slopes = append(slopes, f)
		}
	}
	h := Hollow{Lo: lo, Hi: hi, In: lo, Out: hi}
	axis := leaning(slopes)
	best := -1.0
	const tries = 24
	for i := range tries {
		part := 1 - 0.6*float64(i)/tries
		a, b := h.between(heart, part, axis, slopes)
		if i == 0 {
			h.In, h.Out = a, b
			if less := hi.Sub(lo).Sub(b.Sub(a)); max(less.X, less.Y, less.Z) <= graze*thickest(bodies) {
				h.Lo, h.Hi = a, b // a roof that begins at the rim, as thick as its card
				return h
			}
			h.Shaped = true
		}
		if s := suits(b.Sub(a), want, hi.Sub(lo)); s > best {
			best, h.In, h.Out = s, a, b
		}
	}
	return h
}

// graze is how much, in calipers, slopes may take of a room and leave it a block.
const graze = 3.0

func thickest(bodies []*Body) (t float64) {
	for _, b := range bodies {
		t = max(t, b.T)
	}
	return t
}

// between shrinks the hollow to a part of its width along an axis, to what of its
// height no slope reaches into then, and makes it as wide as it can be at that.
func (h Hollow) between(heart Vec, part float64, axis int, slopes []reach) (lo, hi Vec) {
	lo, hi = h.Lo, h.Hi
	mid, half := lo.Add(hi).Times(0.5).part(axis), (hi.part(axis)-lo.part(axis))/2
	lo.set(axis, mid-part*half)
	hi.set(axis, mid+part*half)
	for _, f := range slopes {
		lo, hi = f.cut(lo, hi, heart, -1)
	}
	wideLo, wideHi := lo, hi
	wideLo.set(axis, h.Lo.part(axis))
	wideHi.set(axis, h.Hi.part(axis))
	for _, f := range slopes {
		wideLo, wideHi = f.cut(wideLo, wideHi, heart, axis)
	}
	return wideLo, wideHi
}

// leaning is the level axis along which slopes lean most.
func leaning(slopes []reach) int {
	x, y := 0.0, 0.0
	for _, f := range slopes {
		x, y = x+math.Abs(f.In.X)*f.Area(), y+math.Abs(f.In.Y)*f.Area()
	}
	if y > x {
		return 1
	}
	return 0
}

// suits says how well a block of a size does: whether it has what is wanted, and how much of the whole it is.
func suits(size, want, whole Vec) float64 {
	share, has := 1.0, 1.0
	for axis := range 3 {
		share *= max(0, size.part(axis)) / max(whole.part(axis), 1e-9)
		if w := want.part(axis); w > 0 {
			has = min(has, size.part(axis)/w)
		}
	}
	return 2*has + share
}

// cut takes from a block what a face reaches into, along one axis or, when that is
// -1, the one that takes least. What slopes in above its middle takes of its height,
// what slopes in below of its width: things stand on the floor.
func (r reach) cut(lo, hi, heart Vec, along int) (Vec, Vec) {
	const hair = 1e-6
	by := r.thick()
	for axis := range 3 {
		if r.lo.part(axis) >= hi.part(axis)+by.part(axis)-hair || r.hi.part(axis) <= lo.part(axis)-by.part(axis)+hair {
			return lo, hi
		}
	}
	poly, s := r.Poly, slicing{}
	for axis := range 3 {
		poly = s.above(poly, axis, lo.part(axis)-by.part(axis)+hair, 1)
		poly = s.above(poly, axis, hi.part(axis)+by.part(axis)-hair, -1)
	}
	if len(poly) == 0 {
		return lo, hi
	}
	plo, phi := boxRound(poly)
	best, at, up := math.Inf(1), 0, false
	for axis := range 3 {
		if along >= 0 && axis != along || along < 0 && r.spares(axis, (lo.Z+hi.Z)/2) {
			continue
		}
		size := hi.part(axis) - lo.part(axis)
		for _, u := range []bool{false, true} {
			edge := phi.part(axis) + by.part(axis)
			loss := edge - lo.part(axis)
			if u {
				edge = plo.part(axis) - by.part(axis)
				loss = hi.part(axis) - edge
			}
			if u != (edge > heart.part(axis)) {
				loss += 10 * size // the place would be cut off
			}
			if loss /= size; loss < best {
				best, at, up = loss, axis, u
			}
		}
	}
	if up {
		hi.set(at, plo.part(at)-by.part(at))
	} else {
		lo.set(at, phi.part(at)+by.part(at))
	}
	return lo, hi
}

// spares reports whether a slope leaves a block its size along an axis.
func (r reach) spares(axis int, middle float64) bool {
	if r.Level() || r.Upright() {
		return false
	}
	below := r.hi.Z < middle || r.In.Z > 0.1 && r.lo.Z < middle
	return axis < 2 && r.lo.Z > middle || axis == 2 && below
}

func (a *Vec) set(axis int, to float64) { *[]*float64{&a.X, &a.Y, &a.Z}[axis] = to }

// Short is how much larger a box must be along each axis for slopes and curves to
// clear what is in it: each is moved out along the way it looks, but never down.
func Short(things []Block, bodies ...*Body) (by Vec) {
	for _, f := range reaching(bodies) {
		if f.Level() || f.Upright() {
			continue
		}
		for _, t := range things {
			if !f.near(t, f.Body.T) || !f.touches(t) {
				continue
			}
			deep := f.Body.T/2 - f.foremost(t)
			side := math.Hypot(f.In.X, f.In.Y)
			if f.In.Z > 0 { // a slope below: only further apart
				by = Vec{max(by.X, 2*deep/side*math.Abs(f.In.X)/side), max(by.Y, 2*deep/side*math.Abs(f.In.Y)/side), by.Z}
				continue
			}
			by = Vec{max(by.X, 2*deep*math.Abs(f.In.X)), max(by.Y, 2*deep*math.Abs(f.In.Y)), max(by.Z, deep*math.Abs(f.In.Z))}
		}
	}
	return by
}

// foremost is how far before the plane of a face the nearest place of a thing is; less than nothing behind it.
func (p *Placed) foremost(t Block) float64 {
	mid := t.Mid()
	off := mid.Sub(p.Poly[0]).Dot(p.In)
	if t.Shape == Ball {
		return off - t.Radius()
	}
	half := t.Hi.Sub(t.Lo).Times(0.5)
	x, y, z := half.X*math.Abs(p.In.X), half.Y*math.Abs(p.In.Y), half.Z*math.Abs(p.In.Z)
	switch t.Shape {
	case Upright:
		return off - half.X*math.Hypot(p.In.X, p.In.Y) - z
	case LyingX:
		return off - x - half.Z*math.Hypot(p.In.Y, p.In.Z)
	case LyingY:
		return off - y - half.Z*math.Hypot(p.In.X, p.In.Z)
	}
	return off - x - y - z
}
