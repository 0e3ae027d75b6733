package shop

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/measure"
)

// A shop learns from its own lids. A record says how a lid was found to fit, or how much play a strip of card
// measured. What is learnt is how much more slack than the usual this card wants with these walls and layers.
//
// The rule is Bayes'. Each maker has a liking: an ease by which a lid is just right to her. A lid whose true ease
// is within a third of a millimetre of that is called just right, one with less tight, one with more loose; the
// hand is off by a little. What the marks rounded up is in the ease the lid had by the numbers, so a verdict speaks
// of the lid as it was and not of what was asked for. Before any record the liking is about the usual, and far from
// it less likely; each record makes likings that agree with it likelier. The mean of what is then likely is learnt:
// never beyond what the records speak of, whatever their order, and a new verdict counts as much as an old.

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
	Gap        Length // how far the lid moved, both sides together, when Measured
	Measured   bool
}

// Verdicts are how a lid can be found, with how much more slack it should have had.
var Verdicts = []struct{ ID, Title string }{
	{"tight", "Too tight"}, {"right", "Just right"}, {"loose", "Loose"},
}

// By how much a lid that is felt to be tight or loose is off at the most; within what it is just right; how far the
// hand and the card are off; and how far from the usual a liking commonly is. In millimetres, over the whole width.
const felt, liked, hand, common = measure.Millimetre, 0.33, 0.12, 0.5

// More is how much more slack than the usual the record speaks of, at the most.
func (r Record) More() Length {
	had := r.Had - r.Usual
	switch {
	case r.Measured:
		return r.Had - r.Gap
	case r.Verdict == "tight":
		return had + felt
	case r.Verdict == "loose":
		return had - felt
	}
	return had
}

// agrees is the logarithm of how likely the record is when so much more slack than the usual is liked.
func (r Record) agrees(more float64) float64 {
	if r.Measured {
		off := (more - (r.Had - r.Gap).MM()) / hand
		return -off * off / 2
	}
	over := (r.Had - r.Usual).MM() - more // how much looser than she likes it the lid was
	below := func(x float64) float64 { return math.Erfc(-x/hand/math.Sqrt2) / 2 }
	likely := below(over+liked) - below(over-liked)
	switch r.Verdict {
	case "tight":
		likely = below(-liked - over)
	case "loose":
		likely = below(over - liked)
	}
	return math.Log(likely + 1e-12) // nothing is quite impossible
}

// Learnt is what the records of one kind come to.
type Learnt struct {
	More      Length // slack beyond the usual
	Low, High Length // what it would be with any one record left out
	Records   int
	Aside     bool // the maker does not want it used
}

// The least and the most that is learnt.
const LeastMore, MostMore = -3 * tenth, 25 * tenth

// Learn reckons what records come to.
func Learn(records []Record) Learnt {
	out := Learnt{Records: len(records)}
	if len(records) == 0 {
		return out
	}
	const grain = tenth / 10
	n := int((MostMore-LeastMore)/grain) + 1
	at := func(i int) Length { return LeastMore + Length(i)*grain }
	all, each := make([]float64, n), make([][]float64, len(records))
	for i := range n {
		x := at(i).MM() / common
		all[i] = -math.Log(1 + x*x)
		for k, r := range records {
			each[k] = append(each[k], r.agrees(at(i).MM()))
			all[i] += each[k][i]
		}
	}
	low, high := Length(0), Length(0)         // what the records speak of
	tight, loose := -measure.Max, measure.Max // a lid that was tight is followed by no smaller one
	for _, r := range records {
		low, high = min(low, r.More()), max(high, r.More())
		switch had := r.Had - r.Usual; {
		case r.Measured:
		case r.Verdict == "tight":
			tight = max(tight, had)
		case r.Verdict == "loose":
			loose = min(loose, had)
		}
	}
	if tight > loose { // she was of two minds
		tight, loose = -measure.Max, measure.Max
	}
	mean := func(without []float64) Length {
		best := math.Inf(-1)
		for i := range n {
			best = max(best, all[i]-without[i])
		}
		sum, weight := 0.0, 0.0
		for i := range n {
			w := math.Exp(all[i] - without[i] - best)
			sum, weight = sum+w*at(i).MM(), weight+w
		}
		m := min(max(measure.FromMM(sum/weight).Near(grain), low, tight), high, loose)
		return min(max(m, LeastMore), MostMore)
	}
	out.More = mean(make([]float64, n))
	out.Low, out.High = out.More, out.More
	for _, without := range each {
		m := mean(without)
		out.Low, out.High = min(out.Low, m), max(out.High, m)
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

// FitKeys lists of what boxes fits were learnt, in order.
func (s Shop) FitKeys() []Key {
	out := make([]Key, 0, len(s.learnt))
	for k := range s.learnt {
		out = append(out, k)
	}
	slices.SortFunc(out, func(a, b Key) int {
		return cmp.Or(strings.Compare(a.Card, b.Card), strings.Compare(a.Walls, b.Walls), cmp.Compare(a.Layers, b.Layers))
	})
	return out
}
