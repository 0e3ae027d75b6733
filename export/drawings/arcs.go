package drawings

import (
	"math"

	"brevium/core/net"
)

// The plan has rounds in short straight lines, which is all that its proofs need. Files that are
// cut and printed have them as fine as one can see.

// fine is how far a line of a file stays from the round it stands for at the most, in
// millimetres, and mostTurn the widest turn from one line of the plan's rounds to the next.
const fine, mostTurn = 0.004, 24 * math.Pi / 180

// smooth puts points between those of a run of lines wherever three or more are equally long and
// turn equally: there they stand for a round, which goes through their ends.
func smooth(pts []Point, closed bool) []Point {
	n, lines := len(pts), len(pts)-1
	if closed {
		lines = n
	}
	if lines < 3 {
		return pts
	}
	to := func(i int) Point { return pts[(i%n+n)%n] }
	// turn is how the way turns at a point, between lines of one length; 0 elsewhere.
	turn := func(i int) float64 {
		if !closed && (i < 1 || i >= n-1) {
			return 0
		}
		a, b, c := to(i-1), to(i), to(i+1)
		in, out := apartBy(a, b), apartBy(b, c)
		t := math.Atan2((b.X-a.X)*(c.Y-b.Y)-(b.Y-a.Y)*(c.X-b.X), (b.X-a.X)*(c.X-b.X)+(b.Y-a.Y)*(c.Y-b.Y))
		if math.Abs(in-out) > 1e-3 || math.Abs(t) > mostTurn || math.Abs(t) < 1e-3 {
			return 0
		}
		return t
	}
	alike := func(i, k int) bool { return turn(i) != 0 && math.Abs(turn(i)-turn(k)) < 1e-3 }
	out := make([]Point, 0, n)
	for i := range lines {
		out = append(out, to(i))
		switch {
		case alike(i, i+1), alike(i, i-1):
			out = append(out, between(to(i), to(i+1), turn(i))...)
		case alike(i+1, i+2):
			out = append(out, between(to(i), to(i+1), turn(i+1))...)
		}
	}
	if !closed {
		out = append(out, pts[n-1])
	}
	return out
}

// between gives points of the round from a to b that turns so far from the one to the other.
func between(a, b Point, turn float64) (out []Point) {
	chord := apartBy(a, b)
	r := chord / 2 / math.Sin(math.Abs(turn)/2)
	n := int(math.Ceil(math.Abs(turn) / stepOf(r)))
	// The middle lies to the side it turns to, where the chord is seen under the turn.
	off := chord / 2 / math.Tan(turn/2)
	mid := Point{(a.X+b.X)/2 - (b.Y-a.Y)/chord*off, (a.Y+b.Y)/2 + (b.X-a.X)/chord*off}
	from := math.Atan2(a.Y-mid.Y, a.X-mid.X)
	for i := 1; i < n; i++ {
		s, c := math.Sincos(from + turn*float64(i)/float64(n))
		out = append(out, Point{mid.X + r*c, mid.Y + r*s})
	}
	return out
}

// stepOf is how far to go round a circle in one straight line, for that to be fine.
func stepOf(r float64) float64 { return 2 * math.Acos(max(0, 1-fine/max(r, fine))) }

// scooped is the rim of a hole that is widened for a fingertip, which has corners where the
// widening begins and ends.
func scooped(h net.Punch) (out []Point) {
	step := stepOf(2 * h.Wide(h.Towards))
	from := h.Towards - net.ScoopHalf
	for _, span := range []float64{2 * net.ScoopHalf, 2*math.Pi - 2*net.ScoopHalf} {
		n := int(math.Ceil(span / step))
		for i := range n {
			angle := from + span*float64(i)/float64(n)
			s, c := math.Sincos(angle)
			out = append(out, Point{h.Mid.X.MM() + h.Wide(angle)*c, h.Mid.Y.MM() + h.Wide(angle)*s})
		}
		from += span
	}
	return out
}
