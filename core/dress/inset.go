package dress

import (
	"math"
	"slices"

	"brevium/core/net"
)

// The outline of a layer is that of its panel with every edge moved inwards. It is
// reckoned in whole nanometres wherever edges run along the axes.

type pt struct{ x, y float64 } // nanometres

func (a pt) sub(b pt) pt           { return pt{a.x - b.x, a.y - b.y} }
func (a pt) dot(b pt) float64      { return a.x*b.x + a.y*b.y }
func (a pt) cross(b pt) float64    { return a.x*b.y - a.y*b.x }
func (a pt) len() float64          { return math.Hypot(a.x, a.y) }
func (a pt) on(d pt, k float64) pt { return pt{a.x + d.x*k, a.y + d.y*k} }

func pts(ring []net.Point) []pt {
	out := make([]pt, len(ring))
	for i, p := range ring {
		out[i] = pt{float64(p.X), float64(p.Y)}
	}
	return out
}

func points(ring []pt) []net.Point {
	out := make([]net.Point, len(ring))
	for i, p := range ring {
		out[i] = net.Point{X: Length(math.Round(p.x)), Y: Length(math.Round(p.y))}
	}
	return out
}

func ringArea(ring []pt) (sum float64) {
	for i, a := range ring {
		sum += a.cross(ring[(i+1)%len(ring)])
	}
	return sum / 2
}

// edge is a side of an outline, moved: a place on it, its direction, and how far.
type edge struct {
	at, dir pt
	by      float64
}

// hairline is how far a corner may lie off the line of its neighbours and be none, in nanometres.
const hairline = 3000

// inset moves every edge of a closed outline inwards (outwards, if by is less than nothing): by gives how far, for
// an edge whose outward side looks along n. Edges that are used up go. It is nil when nothing is left.
func inset(ring []net.Point, by func(n pt) Length) []net.Point {
	poly := tidy(pts(ring))
	if len(poly) < 3 {
		return nil
	}
	edges := movedEdges(poly, by)
	for len(edges) >= 3 {
		out, worst, back := make([]pt, len(edges)), -1, -0.5
		for i, e := range edges {
			out[i] = meet(edges[(i+len(edges)-1)%len(edges)], e)
		}
		for i, e := range edges {
			if run := out[(i+1)%len(out)].sub(out[i]).dot(e.dir); run < back {
				worst, back = i, run
			}
		}
		if worst < 0 {
			if !keeps(out, poly, edges) {
				return nil
			}
			return points(out)
		}
		edges = slices.Delete(edges, worst, worst+1)
	}
	return nil
}

// movedEdges gives the edges of an outline, each moved by so much. A sharp corner that
// reaches into the card is gone round: else a sliver would be taken off far beyond it.
func movedEdges(poly []pt, by func(n pt) Length) (edges []edge) {
	move := func(at, dir pt) {
		inward := pt{-dir.y, dir.x} // of a ring that runs with the card at its left
		far := float64(by(pt{-inward.x, -inward.y}))
		edges = append(edges, edge{at: at.on(inward, far), dir: dir, by: far})
	}
	along := func(i int) pt {
		d := poly[(i+1)%len(poly)].sub(poly[i%len(poly)])
		return pt{d.x / d.len(), d.y / d.len()}
	}
	for i, a := range poly {
		before, d := along(i+len(poly)-1), along(i)
		if turn := math.Atan2(before.cross(d), before.dot(d)); turn < -math.Pi/3 {
			const parts = 6
			from := math.Atan2(before.y, before.x)
			for n := 1; n < parts; n++ {
				s, c := math.Sincos(from + turn*float64(n)/parts)
				move(a, pt{c, s})
			}
		}
		move(a, d)
	}
	return edges
}

// meet is where two edges come together, which follow each other.
func meet(a, b edge) pt {
	d := a.dir.cross(b.dir)
	if math.Abs(d) < 1e-9 {
		return b.at
	}
	return a.at.on(a.dir, b.at.sub(a.at).cross(b.dir)/d)
}

// keeps reports whether an outline lies within another, nowhere nearer to it than the least its edges were moved.
func keeps(out, poly []pt, edges []edge) bool {
	least := math.Inf(1)
	for _, e := range edges {
		least = min(least, e.by)
	}
	if ringArea(out) <= 0 {
		return false
	}
	if least <= 0 {
		return true
	}
	inner, outer := points(out), points(poly)
	for n, p := range out {
		if !net.Inside(outer, inner[n]) {
			return false
		}
		for i, a := range poly {
			if toSegment(p, a, poly[(i+1)%len(poly)]) < least-hairline {
				return false
			}
		}
	}
	return true
}

func toSegment(p, a, b pt) float64 {
	d := b.sub(a)
	t := 0.0
	if l := d.dot(d); l > 0 {
		t = max(0, min(1, p.sub(a).dot(d)/l))
	}
	return p.sub(a.on(d, t)).len()
}

// tidy takes out corners that are none, and turns the outline so that its card lies at the left of every edge.
func tidy(ring []pt) []pt {
	if ringArea(ring) < 0 {
		ring = slices.Clone(ring)
		slices.Reverse(ring)
	}
	for i := 0; i < len(ring) && len(ring) > 3; {
		a, b, c := ring[(i+len(ring)-1)%len(ring)], ring[i], ring[(i+1)%len(ring)]
		// Of a curve every corner stays: it is off the line by more than that.
		if d := c.sub(a); b.sub(a).len() < hairline || math.Abs(b.sub(a).cross(d)) < hairline*d.len() &&
			b.sub(a).dot(c.sub(b)) > 0 {
			ring = slices.Delete(slices.Clone(ring), i, i+1)
			continue
		}
		i++
	}
	return ring
}

// even is the same border on every side.
func even(by Length) func(pt) Length { return func(pt) Length { return by } }

// rounded cuts the square corners of an outline round.
func rounded(ring []net.Point, radius Length) []net.Point {
	if radius <= 0 {
		return ring
	}
	poly := tidy(pts(ring))
	var out []pt
	for i, b := range poly {
		a, c := poly[(i+len(poly)-1)%len(poly)], poly[(i+1)%len(poly)]
		in, on := b.sub(a), c.sub(b)
		li, lo := in.len(), on.len()
		square := math.Abs(in.dot(on)) < 1e-6*li*lo && in.cross(on) > 0
		r := min(float64(radius), li/2, lo/2)
		if !square || r < 1e5 {
			out = append(out, b)
			continue
		}
		in, on = pt{in.x / li, in.y / li}, pt{on.x / lo, on.y / lo}
		mid := b.on(in, -r).on(on, r)
		const parts = 6
		for n := range parts + 1 {
			s, co := math.Sincos(math.Pi / 2 * float64(n) / parts)
			out = append(out, mid.on(on, -r*co).on(in, r*s))
		}
	}
	return points(out)
}

// turned gives an outline as it is drawn when a quarter turn so often brings what is up on the box to the top.
func turned(ring []net.Point, quarters int) []net.Point {
	out := slices.Clone(ring)
	for range quarters & 3 {
		for i, p := range out {
			out[i] = net.Point{X: p.Y, Y: -p.X}
		}
	}
	return out
}

// moved shifts outlines.
func moved(ring []net.Point, x, y Length) []net.Point {
	out := slices.Clone(ring)
	for i := range out {
		out[i].X, out[i].Y = out[i].X+x, out[i].Y+y
	}
	return out
}

// cutTo makes a piece of an outline and what is cut out of it.
func cutTo(name, face string, ring []net.Point, holes [][]net.Point) *net.Piece {
	lo, hi := net.Bounds(ring)
	p := net.New(name, hi.X-lo.X, hi.Y-lo.Y)
	ring = moved(ring, -lo.X, -lo.Y)
	var cut [][]net.Point
	for _, h := range holes {
		cut = append(cut, moved(h, -lo.X, -lo.Y))
	}
	p.Shape(face, ring, cut)
	p.Root = face
	return p
}

// round is a ring about a middle that a circle just passes through.
func round(mid net.Point, rx, ry Length, parts int) (out []net.Point) {
	for i := range parts {
		s, c := math.Sincos(2 * math.Pi * float64(i) / float64(parts))
		out = append(out, net.Point{X: mid.X + Length(math.Round(float64(rx)*c)),
			Y: mid.Y + Length(math.Round(float64(ry)*s))})
	}
	return out
}
