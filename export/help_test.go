package export

import (
	"math"
	"testing"

	"brevium/core/sets"
	"brevium/export/drawings"
	"brevium/internal/drawn"
)

// unproved is a box whose proof does not hold: a piece is larger than its sheet.
func unproved(t testing.TB) sets.Job {
	j := drawn.Job(t, "tray-lid", "200 mm", "150 mm", "60 mm", "card.sheet", "6x6")
	if j.Holds() {
		t.Fatal("it holds")
	}
	for i := range j.Plans[0].Checks[:4] { // more than a line of a page tells
		j.Plans[0].Checks[i].Holds = false
	}
	return j
}

func apartBy(a, b drawings.Point) float64 { return math.Hypot(a.X-b.X, a.Y-b.Y) }
