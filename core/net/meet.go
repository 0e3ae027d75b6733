package net

import (
	"cmp"
	"math"
	"slices"
)

// Where lines meet.

// upright is the bounding box of a line.
type upright struct {
	lo, hi Point
	line   int
}

// meeting finds the pairs of lines i < j whose bounding boxes meet, sorted: of many small holes, few lines come near each
// other. A pair is kept as i*len(lines)+j, which sorts faster than two numbers.
func (m *mesh) meeting(lines []Line) {
	m.boxes, m.pairs = long(m.boxes, len(lines)), m.pairs[:0]
	for i, l := range lines {
		m.boxes[i] = upright{Point{min(l.A.X, l.B.X), min(l.A.Y, l.B.Y)}, Point{max(l.A.X, l.B.X), max(l.A.Y, l.B.Y)}, i}
	}
	slices.SortFunc(m.boxes, func(a, b upright) int { return cmp.Or(cmp.Compare(a.lo.X, b.lo.X), a.line-b.line) })
	for k, a := range m.boxes {
		right, low, high := a.hi.X+2*near, a.lo.Y-2*near, a.hi.Y+2*near
		for _, b := range m.boxes[k+1:] {
			if b.lo.X > right {
				break
			}
			if b.hi.Y >= low && b.lo.Y <= high {
				m.pairs = append(m.pairs, min(a.line, b.line)*len(lines)+max(a.line, b.line))
			}
		}
	}
	slices.Sort(m.pairs)
}

func sign(l Length) Length {
	switch {
	case l > 0:
		return 1
	case l < 0:
		return -1
	}
	return 0
}

// onLine reports whether a point lies on a line, its ends included.
func onLine(l Line, p Point) bool {
	lo := Point{min(l.A.X, l.B.X) - near, min(l.A.Y, l.B.Y) - near}
	hi := Point{max(l.A.X, l.B.X) + near, max(l.A.Y, l.B.Y) + near}
	if p.X < lo.X || p.X > hi.X || p.Y < lo.Y || p.Y > hi.Y {
		return false
	}
	dx, dy := float64(l.B.X-l.A.X), float64(l.B.Y-l.A.Y)
	off := dx*float64(p.Y-l.A.Y) - dy*float64(p.X-l.A.X)
	return math.Abs(off) <= near*math.Hypot(dx, dy)
}

// crossing finds where two lines cross between their ends.
func crossing(a, b Line) (Point, bool) {
	ax, ay := float64(a.B.X-a.A.X), float64(a.B.Y-a.A.Y)
	bx, by := float64(b.B.X-b.A.X), float64(b.B.Y-b.A.Y)
	cross := ax*by - ay*bx
	if math.Abs(cross) <= 1e-9*math.Hypot(ax, ay)*math.Hypot(bx, by) {
		return Point{}, false
	}
	ox, oy := float64(b.A.X-a.A.X), float64(b.A.Y-a.A.Y)
	s, t := (ox*by-oy*bx)/cross, (ox*ay-oy*ax)/cross
	if s <= 0 || s >= 1 || t <= 0 || t >= 1 {
		return Point{}, false
	}
	return Point{a.A.X + Length(math.Round(s*ax)), a.A.Y + Length(math.Round(s*ay))}, true
}
