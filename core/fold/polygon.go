package fold

import (
	"math"
	"slices"

	"brevium/core/net"
)

// flatten gives the outline in the face's own plane.
func (p *Placed) flatten(points []Vec) [][2]float64 {
	out := make([][2]float64, len(points))
	for i, v := range points {
		d := v.Sub(p.At)
		out[i] = [2]float64{d.Dot(p.X), d.Dot(p.Y)}
	}
	return out
}

// card gives the outline of a face in this one's plane, its holes joined to the
// rim by cuts of no width, so that it is one ring.
func (p *Placed) card(of *Placed) [][2]float64 {
	ring := p.flatten(of.Poly)
	for _, h := range of.Holes {
		ring = bridge(ring, p.flatten(h))
	}
	return ring
}

// bridge joins a hole to the ring round it where they are nearest.
func bridge(ring, hole [][2]float64) [][2]float64 {
	if area(ring)*area(hole) > 0 {
		hole = slices.Clone(hole)
		slices.Reverse(hole)
	}
	lo, high := hole[0], hole[0]
	for _, p := range hole {
		lo = [2]float64{min(lo[0], p[0]), min(lo[1], p[1])}
		high = [2]float64{max(high[0], p[0]), max(high[1], p[1])}
	}
	best, ri, hi := math.Inf(1), 0, 0 // the square of the distance, and where
	for i, a := range ring {
		if x, y := max(lo[0]-a[0], a[0]-high[0], 0), max(lo[1]-a[1], a[1]-high[1], 0); x*x+y*y >= best {
			continue
		}
		for k, b := range hole {
			if x, y := a[0]-b[0], a[1]-b[1]; x*x+y*y < best {
				best, ri, hi = x*x+y*y, i, k
			}
		}
	}
	out := slices.Clone(ring[:ri+1])
	out = append(out, hole[hi:]...)
	out = append(out, hole[:hi+1]...)
	return append(out, ring[ri:]...)
}

// Has reports whether a place in the face's plane lies on its card.
func (p *Placed) Has(at Vec) bool { return p.holds(at) }

// holds reports whether a place in the face's plane lies on its card.
func (p *Placed) holds(at Vec) bool {
	q := p.flatten([]Vec{at})[0]
	if !inside(p.flatten(p.Poly), q) {
		return false
	}
	for i, h := range p.Holes {
		if p.fromHole(i, at) == 0 && inside(p.flatten(h), q) {
			return false
		}
	}
	return true
}

func inside(poly [][2]float64, at [2]float64) bool {
	in := false
	for i, a := range poly {
		b := poly[(i+1)%len(poly)]
		if (a[1] > at[1]) != (b[1] > at[1]) && at[0] < a[0]+(at[1]-a[1])/(b[1]-a[1])*(b[0]-a[0]) {
			in = !in
		}
	}
	return in
}

// fromRim is the distance of a place on the card from its nearest edge.
func (p *Placed) fromRim(at Vec) float64 {
	best := math.Inf(1)
	near := func(ring []Vec) {
		for i, a := range ring {
			best = min(best, fromLine(at, a, ring[(i+1)%len(ring)]))
		}
	}
	near(p.Poly)
	for i, hole := range p.Holes {
		if p.fromHole(i, at) < best {
			near(hole)
		}
	}
	return best
}

// fromHole is how far a place is, at the least, from a hole: 0 within the box round it.
func (p *Placed) fromHole(i int, at Vec) float64 {
	lo, hi := p.about[i][0], p.about[i][1]
	const hair = 1e-6
	x, y, z := max(lo.X-at.X, at.X-hi.X, 0), max(lo.Y-at.Y, at.Y-hi.Y, 0), max(lo.Z-at.Z, at.Z-hi.Z, 0)
	if d := math.Sqrt(x*x + y*y + z*z); d > hair {
		return d
	}
	return 0
}

// overlap is the area, in square millimetres, that two faces share when seen
// along the second one's inside direction.
func overlap(p, q *Placed) float64 {
	shared, _ := lap(p, q)
	return shared
}

// lap is what two faces share: the area, and how wide it is where it is narrower.
func lap(p, q *Placed) (shared, narrow float64) {
	if beside(q.flatten(p.Poly), q.flatten(q.Poly)) {
		return 0, 0
	}
	lo, hi := [2]float64{math.Inf(1), math.Inf(1)}, [2]float64{math.Inf(-1), math.Inf(-1)}
	var room [2][8][2]float64
	own := triangles(q.card(q))
	for _, s := range triangles(q.card(p)) {
		for _, c := range own {
			part := clip(s[:], c, &room)
			shared += math.Abs(area(part))
			for _, at := range part {
				for k := range at {
					lo[k], hi[k] = min(lo[k], at[k]), max(hi[k], at[k])
				}
			}
		}
	}
	return shared, max(0, min(hi[0]-lo[0], hi[1]-lo[1]))
}

// beside reports whether two outlines lie clear of each other, one way or the other.
func beside(a, b [][2]float64) bool {
	for k := range 2 {
		loA, hiA, loB, hiB := math.Inf(1), math.Inf(-1), math.Inf(1), math.Inf(-1)
		for _, p := range a {
			loA, hiA = min(loA, p[k]), max(hiA, p[k])
		}
		for _, p := range b {
			loB, hiB = min(loB, p[k]), max(hiB, p[k])
		}
		if hiA <= loB || hiB <= loA {
			return true
		}
	}
	return false
}

func area(poly [][2]float64) float64 {
	sum := 0.0
	for i, a := range poly {
		b := poly[(i+1)%len(poly)]
		sum += a[0]*b[1] - b[0]*a[1]
	}
	return sum / 2
}

// clip cuts a triangle to another, side by side, in the room it is given.
func clip(poly [][2]float64, by [3][2]float64, room *[2][8][2]float64) [][2]float64 {
	if area(by[:]) < 0 {
		by[1], by[2] = by[2], by[1]
	}
	for i, a := range by {
		b := by[(i+1)%3]
		side := func(p [2]float64) float64 { return (b[0]-a[0])*(p[1]-a[1]) - (b[1]-a[1])*(p[0]-a[0]) }
		poly = net.Half(room[i%2][:0], poly, side, between)
	}
	return poly
}

func between(p, q [2]float64, t float64) [2]float64 {
	return [2]float64{p[0] + t*(q[0]-p[0]), p[1] + t*(q[1]-p[1])}
}

// triangles cuts a simple polygon into triangles by clipping ears.
func triangles(poly [][2]float64) (out [][3][2]float64) {
	poly = append([][2]float64(nil), poly...)
	if area(poly) < 0 {
		for i, k := 0, len(poly)-1; i < k; i, k = i+1, k-1 {
			poly[i], poly[k] = poly[k], poly[i]
		}
	}
	for len(poly) > 3 {
		ear := -1
		for i := range poly {
			a, b, c := poly[(i+len(poly)-1)%len(poly)], poly[i], poly[(i+1)%len(poly)]
			if isEar(poly, a, b, c) {
				ear = i
				out = append(out, [3][2]float64{a, b, c})
				break
			}
		}
		if ear < 0 {
			// A bridge or a spike left no clean ear: drop the flattest corner.
			ear = 0
		}
		poly = append(poly[:ear], poly[ear+1:]...)
	}
	if len(poly) == 3 {
		out = append(out, [3][2]float64{poly[0], poly[1], poly[2]})
	}
	return out
}

func isEar(poly [][2]float64, a, b, c [2]float64) bool {
	t := [][2]float64{a, b, c}
	if area(t) <= 1e-9 {
		return false
	}
	lo := [2]float64{min(a[0], b[0], c[0]), min(a[1], b[1], c[1])}
	hi := [2]float64{max(a[0], b[0], c[0]), max(a[1], b[1], c[1])}
	for _, p := range poly {
		if p[0] < lo[0] || p[0] > hi[0] || p[1] < lo[1] || p[1] > hi[1] {
			continue
		}
		if p != a && p != b && p != c && inside(t, p) {
			return false
		}
	}
	return true
}
