package shop

import (
	"testing"

	"brevium/core/measure"
)

func TestClearance(t *testing.T) {
	const mm, in = measure.Millimetre, measure.Inch
	cases := []struct {
		caliper      Length
		n            int
		layer, slack Length
		step, want   Length
	}{
		{27 * mm / 100, 0, 0, mm / 2, in / 16, in / 16}, // 1.04 mm goes up to 1.5875
		{27 * mm / 100, 0, 0, mm / 2, mm, mm},           // 1.04 mm misses 1 by less than 0.05
		{27 * mm / 100, 0, 0, mm / 2, mm / 2, mm},
		{27 * mm / 100, 1, 0, mm / 2, mm, 2 * mm},                     // 1.58 mm
		{27 * mm / 100, 0, 3 * mm / 10, 16 * mm / 10, mm / 2, 3 * mm}, // 2.74 mm
		{45 * mm / 100, 0, 0, mm / 2, in / 32, in / 16},               // 1.4 mm
		{25 * mm / 100, 0, 0, mm, mm / 2, 3 * mm / 2},                 // exactly a step
	}
	for _, c := range cases {
		if got := Clearance(c.caliper, c.n, c.layer, c.slack, c.step); got != c.want {
			t.Errorf("Clearance(%d, %d, %d, %d, %d) = %d, want %d", c.caliper, c.n, c.layer, c.slack, c.step, got, c.want)
		}
	}
}
