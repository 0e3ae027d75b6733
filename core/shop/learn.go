package shop

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"brevium/core/measure"
)

// A shop learns from its own lids. A record says how a lid was found to fit, or how
// much play a strip of card measured; each is an estimate of how much more slack
// than the usual this card wants with these walls and layers. What is learnt is
// their mean, with one record's weight given to the usual slack, so that few
// records move it little; it stays within bounds, and the order of the records is
// of no account.

// Key is what a slack is learnt for.
type Key struct {
	Card   string
	Walls  string // of what goes over: single, rolled or pinwheel
	Layers int    // stuck on between, on each wall
}

func (k Key) String() string { return fmt.Sprintf("%s/%s/%d", k.Card, k.Walls, k.Layers) }

// Record is a lid that was made: the slack that was asked for and the ease it had
// by the numbers, both over the whole width, and how it was found.
type Record struct {
	Key
	Usual, Had Length
	Verdict    string // tight, right or loose; or
	Gap        Length // what was measured, when Measured
	Measured   bool
}

// Verdicts are how a lid can be found, with how much more slack it should have had.
var Verdicts = []struct{ ID, Title string }{
	{"tight", "Too tight"}, {"right", "Just right"}, {"loose", "Loose"},
}

const felt = measure.Millimetre // by which a lid that is felt to be tight or loose is off

// More is how much more slack than the usual the record asks for. A lid that was
// tight although rounding had given it more than was asked for wants that twice: the
// card takes at least so much more than its caliper says.
func (r Record) More() Length {
	had := r.Had - r.Usual
	switch {
	case r.Measured:
		return r.Had - r.Gap
	case r.Verdict == "tight":
		return had + max(had, 0) + felt
	case r.Verdict == "loose":
		return had - felt
	}
	return had
}

// Learnt is what the records of one kind come to.
type Learnt struct {
	More      Length // slack beyond the usual
	Low, High Length // what it would be with any one record left out
	Records   int
	Aside     bool // the maker does not want it used
}

// The least and the most that is learnt.
const leastMore, mostMore = -3 * tenth, 25 * tenth

// Learn reckons what records come to.
func Learn(records []Record) Learnt {
	sum, n := Length(0), Length(len(records))
	for _, r := range records {
		sum += r.More()
	}
	mean := func(sum, n Length) Length {
		if n <= 0 {
			return 0
		}
		return min(max((sum/(n+1)).Near(tenth/10), leastMore), mostMore)
	}
	out := Learnt{More: mean(sum, n), Records: len(records)}
	out.Low, out.High = out.More, out.More
	for _, r := range records {
		without := mean(sum-r.More(), n-1)
		out.Low, out.High = min(out.Low, without), max(out.High, without)
	}
	return out
}

// LearnAll reckons it for each kind of record there is.
func LearnAll(records []Record, aside func(Key) bool) map[Key]Learnt {
	of := map[Key][]Record{}
	for _, r := range records {
		of[r.Key] = append(of[r.Key], r)
	}
	out := map[Key]Learnt{}
	for k, rs := range of {
		l := Learn(rs)
		l.Aside = aside != nil && aside(k)
		out[k] = l
	}
	return out
}

// Keys lists what was learnt in order.
func Keys(learnt map[Key]Learnt) []Key {
	out := make([]Key, 0, len(learnt))
	for k := range learnt {
		out = append(out, k)
	}
	slices.SortFunc(out, func(a, b Key) int {
		return cmp.Or(strings.Compare(a.Card, b.Card), strings.Compare(a.Walls, b.Walls), cmp.Compare(a.Layers, b.Layers))
	})
	return out
}
