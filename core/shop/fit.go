package shop

// What thickness asks for: the clearance of a lid, the width a tab needs to hold.

import (
	"brevium/core/measure"
)

type Length = measure.Length

const tenth = measure.Millimetre / 10

// Slack is the ease a maker likes, over the whole width, beyond the card's
// own thickness.
var Slack = map[string]Length{"snug": 5 * tenth, "easy": 10 * tenth, "loose": 16 * tenth}

// Adhesive is what sticks a tab, and how wide a tab it wants.
type Adhesive struct {
	ID, Title string
	Width     Length
}

// Adhesives lists the two schools; the first is the default.
var Adhesives = []Adhesive{
	{"tape", "double-sided tape", 100 * tenth},
	{"glue", "wet glue", 60 * tenth},
}

// forgiven is how far a step may fall short of the clearance wanted.
const forgiven = measure.Millimetre / 20

// Clearance gives how much larger a lid's panel is than the base's, over the
// whole width: c = 2t(1 + n) + 2 layer + slack, for card of caliper t, n
// full-face layers inside the lid's wall and a layer of that thickness on each
// outer wall of the base. It is snapped up to the step the tools can measure,
// except where the step below falls short by less than 0.05 mm.
func Clearance(t Length, n int, layer, slack, step Length) Length {
	need := 2*t*Length(1+n) + 2*layer + slack
	if down := need.Down(step); need-down < forgiven {
		return down
	}
	return need.Up(step)
}
