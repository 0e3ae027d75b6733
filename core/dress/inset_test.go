package dress

import (
	"math"
	"math/rand/v2"
	"testing"

	"brevium/core/net"
	"brevium/core/wish"
)

// apart is the least distance of an outline's corners from another, in nanometres.
func apart(in, out []net.Point) float64 {
	best := math.Inf(1)
	ring := pts(out)
	for _, p := range pts(in) {
		for i, a := range ring {
			best = min(best, toSegment(p, a, ring[(i+1)%len(ring)]))
		}
	}
	return best
}

// Every shape, of any size, moved inwards by any border lies within itself with just
// that border, or is nothing.
func TestInsetIsEven(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 1))
	left := map[string]int{}
	for range 4000 {
		shape := wish.Shapes[r.IntN(len(wish.Shapes))]
		w, h := Length(10+r.IntN(150))*mm, Length(10+r.IntN(150))*mm
		by := Length(1+r.IntN(80)) * mm / 10
		ring := outline(shape, w, h)
		if lo, hi := net.Bounds(ring); lo != (net.Point{}) || hi != (net.Point{X: w, Y: h}) {
			t.Fatalf("%s of %d × %d fills %v to %v", shape, w, h, lo, hi)
		}
		in := inset(ring, even(by))
		if in == nil {
			continue
		}
		left[shape]++
		for _, p := range in {
			if !net.Inside(ring, p) {
				t.Fatalf("%s %d × %d by %d: a corner lies outside", shape, w, h, by)
			}
		}
		// At corners it is a little more, nowhere less.
		if d := apart(in, ring) - float64(by); d < -hairline || d > 0.3*float64(mm) {
			t.Fatalf("%s %d × %d by %d: the border is off by %.0f nm", shape, w, h, by, d)
		}
		if out := inset(in, even(-by)); shape == "rectangle" && math.Abs(apart(out, ring)) > 1 {
			t.Fatalf("a rectangle moved in and out again is another")
		}
	}
	for _, shape := range wish.Shapes {
		if left[shape] < 50 {
			t.Errorf("of %s only %d were left", shape, left[shape])
		}
	}
}

// Rectangles are exact, and no border may be another above and below.
func TestInsetRectangles(t *testing.T) {
	panel := []net.Point{{}, {X: 5 * inch}, {X: 5 * inch, Y: 2 * inch}, {Y: 2 * inch}}
	for _, c := range []struct {
		all, top Length
		w, h     Length
	}{
		{inch / 8, inch / 8, 19 * inch / 4, 7 * inch / 4}, {inch / 16, inch / 16, 39 * inch / 8, 15 * inch / 8},
		{inch / 4, inch / 4, 9 * inch / 2, 3 * inch / 2}, {0, 0, 5 * inch, 2 * inch}, {inch / 8, inch / 2, 19 * inch / 4,
			11 * inch / 8},
	} {
		lo, hi := net.Bounds(inset(panel, func(n pt) Length {
			if n.y < -0.7 {
				return c.top
			}
			return c.all
		}))
		if hi.X-lo.X != c.w || hi.Y-lo.Y != c.h || lo.Y != c.top {
			t.Errorf("%+v: %d × %d from %d", c, hi.X-lo.X, hi.Y-lo.Y, lo.Y)
		}
	}
	if inset(panel, even(inch)) != nil || inset(panel[:2], even(mm)) != nil {
		t.Error("something is left of nothing")
	}
}

// Words in dark ink are read on light card and not on dark, and black on white is 21.
func TestContrast(t *testing.T) {
	if c := Contrast("#000000", "#ffffff"); math.Abs(c-21) > 0.01 {
		t.Error(c)
	}
	if Contrast("#2a2520", "#efe6d2") < 4.5 || Contrast("#2a2520", "#3a3a3a") > 3 || Contrast("#123456", "#123456") != 1 {
		t.Error("contrasts are off")
	}
}
