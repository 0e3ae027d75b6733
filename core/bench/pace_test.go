package bench

import (
	"math"
	"testing"
)

// A pace moves by what was recorded, little by one quick step and all the way by much; what has
// no record of its own goes by the rest, and no pace is out of all reason.
func TestPace(t *testing.T) {
	score, cut := Step{Title: "Score", Minutes: 10}, Step{Title: "Cut", Minutes: 10}
	for _, c := range []struct {
		taken      []Taken
		score, cut float64
	}{
		{nil, 10, 10},
		{[]Taken{{"Score", 600, 10}}, 10, 10},
		{[]Taken{{"Score", 1200, 10}}, 10 * (20 + 5*25.0/15) / 15, 10 * 25.0 / 15},
		{[]Taken{{"Score", 12000, 100}}, 10 * (200 + 5*205.0/105) / 105, 10 * 205.0 / 105},
		{[]Taken{{"Score", 1, 1000}}, 2.5, 2.5},
		{[]Taken{{"Score", 1e7, 10}}, 40, 40},
	} {
		p := PaceOf(c.taken)
		if got := p.Of(score); math.Abs(got-c.score) > 0.01 {
			t.Errorf("%v: scoring %.3f, not %.3f", c.taken, got, c.score)
		}
		if got := p.Of(cut); math.Abs(got-c.cut) > 0.01 {
			t.Errorf("%v: cutting %.3f, not %.3f", c.taken, got, c.cut)
		}
		if sum := p.Minutes([]Step{score, cut}); math.Abs(sum-p.Of(score)-p.Of(cut)) > 1e-9 {
			t.Errorf("%v: %.3f in all", c.taken, sum)
		}
	}
}
