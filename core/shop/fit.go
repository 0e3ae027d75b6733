package shop

import (
	"brevium/core/measure"
)

// What thickness asks for: the clearance of a lid, the width a tab needs to hold.

const tenth = measure.Millimetre / 10

// Slack is the ease a maker likes, in all, on top of the card's thickness's own thickness.
var Slack = map[string]Length{"snug": 5 * tenth, "easy": 10 * tenth, "loose": 16 * tenth}

// Adhesive is what sticks a tab, and how wide a tab it wants: of a corner, and of a long seam.
type Adhesive struct {
	ID, Title, Why string
	Width          Length // the least tab
	Seam           Length // the least long seam
	Hold           string // how long it is held
	Press, Dry     int    // the same in seconds, and how long it dries
}

// Adhesives lists the schools; the first is the default.
var Adhesives = []Adhesive{
	{"tape", "double-sided tape", "Holds at once. Needs a wide tab.", 100 * tenth, 100 * tenth,
		"Press each strip down along its whole length. Tape holds at once and can't be moved.", 0, 0},
	{"glue", "wet glue", "Can be moved for a moment, holds weight, must be held while it sets.", 60 * tenth, 60 * tenth,
		"Hold each glued tab for half a minute, peg it for ten, and let it dry for an hour before filling.", 30, 3600},
	{"both", "tape on seams, glue on corners", "Tape holds the long seam while the corners are glued.", 60 * tenth,
		100 * tenth,
		"The tape holds at once. Hold each glued corner for half a minute and let it dry for an hour before " +
			"filling.", 30, 3600},
}

// forgiven is how far a step may fall short of the clearance wanted.
const forgiven = measure.Millimetre / 20

// Over is one thing that goes over another: how thick the card of each is, how many
// full faces of card lie inside the outer one's wall, and how thick what is stuck
// on is, on each wall: outside the inner one, inside the outer one.
type Over struct {
	Inner, Outer    Length
	Layers          int
	Outside, Lining Length
}

// Bulk is what card and layers take up over the whole width. With one card for both it is 2t(1 + n) + 2 layer: half
// of each wall's card lies on either side of its score, and n faces more lie inside the outer wall.
func (o Over) Bulk() Length { return o.Inner + o.Outer*Length(1+2*o.Layers) + 2*(o.Outside+o.Lining) }

// Clearance gives how much larger the outer panel is than the inner, over the whole width: bulk and slack, snapped
// up to the step the tools can measure, except where the step below falls short by less than 0.05 mm.
func (o Over) Clearance(slack, step Length) Length {
	need := o.Bulk() + slack
	if down := need.Down(step); need-down < forgiven {
		return down
	}
	return need.Up(step)
}

// PlainGain is what plain numbers add where something bends round: one mark of the tools, if that is a millimetre.
func PlainGain(step Length) Length { return measure.Millimetre.Up(step) }

// Wrap is a band round a box: the card of what it goes round and its own, the ease it slides with, and
// what is stuck on between, over the whole width.
type Wrap struct {
	Card, Own, Ease, Layers Length
	Plain                   bool
}

// Round gives how long the band is, between its scores, over a box of so much from score to score. In plain
// numbers layers of less than a mark are left to the card's give.
func (w Wrap) Round(scored, step Length) Length {
	if w.Plain {
		return scored + w.Layers.Down(step) + PlainGain(step)
	}
	return (scored + w.Card + w.Own + w.Ease + w.Layers).Up(step)
}

// Clearance is Over's, for one card of caliper t throughout.
func Clearance(t Length, n int, layer, slack, step Length) Length {
	return Over{Inner: t, Outer: t, Layers: n, Outside: layer}.Clearance(slack, step)
}

// TooTight and TooLoose bound the play a lid may have over the whole width: below
// the one it does not go on, above the other it slides about.
const (
	TooTight = 2 * tenth
	TooLoose = 24 * tenth
)
