package drawings

import (
	"math"
	"slices"
)

// Rims are cut so that nothing comes free before all within it is done. Rims that touch are a
// cluster: of it each stroke after the first runs on from one that is cut. A cluster comes before
// every other that closes it in, by itself or together with the edge of the sheet.

// cluster is strokes that touch each other, and the area they close in.
type cluster struct {
	strokes []Stroke
	cut     []Stroke // of it, those that are cut already: slits that rims run into
	lo, hi  Point    // of the strokes
	inLo    Point    // and of what they close in
	inHi    Point
}

// freeing orders the rims of a sheet, whose slits and holes are cut.
func (d Drawing) freeing(all, cut []Stroke, at Point) (out []Stroke) {
	left := d.clusters(append(slices.Clone(all), cut...), len(all))
	for len(left) > 0 {
		best, least := -1, math.Inf(1)
		for i, c := range left {
			if slices.ContainsFunc(left, func(o cluster) bool { return c.closesIn(o) && !o.closesIn(c) }) {
				continue
			}
			if by := c.from(at); by < least-1e-9 {
				best, least = i, by
			}
		}
		best = max(best, 0)
		for _, s := range left[best].grown(at) {
			out = append(out, s)
			at = end(s, true)
		}
		left = slices.Delete(left, best, best+1)
	}
	return out
}

func (c cluster) closesIn(o cluster) bool {
	const hair = 0.01
	return o.lo.X > c.inLo.X-hair && o.lo.Y > c.inLo.Y-hair && o.hi.X < c.inHi.X+hair && o.hi.Y < c.inHi.Y+hair
}

// from is how far the nearest end of a cluster is.
func (c cluster) from(at Point) float64 {
	least := math.Inf(1)
	for _, s := range c.strokes {
		least = min(least, apartBy(at, end(s, false)), apartBy(at, end(s, true)))
	}
	return least
}

// grown orders the strokes of a cluster: always the nearest of those that touch what is cut.
func (c cluster) grown(at Point) (out []Stroke) {
	left, done := slices.Clone(c.strokes), slices.Clone(c.cut)
	for len(left) > 0 {
		var s Stroke
		s, left = takeNearest(left, at, func(s Stroke) bool { return len(done) == 0 || slices.ContainsFunc(done, s.touches) })
		out, done, at = append(out, s), append(done, s), end(s, true)
	}
	return out
}

// clusters finds which strokes touch, of which the first so many are still to be cut.
func (d Drawing) clusters(all []Stroke, todo int) (out []cluster) {
	of := make([]int, len(all))
	for i := range all {
		of[i] = i
		for k := range i {
			if from := of[k]; of[i] != from && all[i].touches(all[k]) {
				for n := range i + 1 {
					if of[n] == from {
						of[n] = of[i]
					}
				}
			}
		}
	}
	for i := range all {
		var c cluster
		for k, s := range all {
			switch {
			case of[k] != i:
			case k < todo:
				c.strokes = append(c.strokes, s)
			default:
				c.cut = append(c.cut, s)
			}
		}
		if len(c.strokes) > 0 {
			out = append(out, d.closedIn(c))
		}
	}
	return out
}

// closedIn reckons what a cluster closes in: what lies between its strokes and, where it runs from
// one edge of the sheet to the one across, all to the nearer of the other edges.
func (d Drawing) closedIn(c cluster) cluster {
	c.lo, c.hi = extent(append(slices.Clone(c.strokes), c.cut...))
	c.inLo, c.inHi = c.lo, c.hi
	if edgeOf(c.lo.X, d.W) && edgeOf(c.hi.X, d.W) {
		if c.lo.Y < d.H-c.hi.Y {
			c.inLo.Y = 0
		} else {
			c.inHi.Y = d.H
		}
	}
	if edgeOf(c.lo.Y, d.H) && edgeOf(c.hi.Y, d.H) {
		if c.lo.X < d.W-c.hi.X {
			c.inLo.X = 0
		} else {
			c.inHi.X = d.W
		}
	}
	return c
}

func extent(all []Stroke) (lo, hi Point) {
	lo, hi = all[0].Points[0], all[0].Points[0]
	for _, s := range all {
		for _, q := range s.Points {
			lo, hi = Point{min(lo.X, q.X), min(lo.Y, q.Y)}, Point{max(hi.X, q.X), max(hi.Y, q.Y)}
		}
	}
	return lo, hi
}

// touches reports whether an end of the one lies on the other.
func (s Stroke) touches(o Stroke) bool {
	lo, hi := extent([]Stroke{s})
	oLo, oHi := extent([]Stroke{o})
	const hair = 0.01
	if lo.X > oHi.X+hair || oLo.X > hi.X+hair || lo.Y > oHi.Y+hair || oLo.Y > hi.Y+hair {
		return false
	}
	on := func(s, o Stroke) bool {
		return slices.ContainsFunc(s.Points, func(q Point) bool { return o.from(q) < hair })
	}
	return on(s, o) || on(o, s)
}

// from is how far a point is from a stroke.
func (s Stroke) from(q Point) float64 {
	least := math.Inf(1)
	for i := 1; i < len(s.Points); i++ {
		a, b := s.Points[i-1], s.Points[i]
		ux, uy := b.X-a.X, b.Y-a.Y
		t := min(1, max(0, ((q.X-a.X)*ux+(q.Y-a.Y)*uy)/max(ux*ux+uy*uy, 1e-12)))
		least = min(least, apartBy(q, Point{a.X + t*ux, a.Y + t*uy}))
	}
	return least
}
