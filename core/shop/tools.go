package shop

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/measure"
)

// Tools is what the maker scores, trims and punches with. What is nothing is not
// known: then any distance on the marks is taken to be set directly.
type Tools struct {
	Grooves   []Length // how far apart the grooves of the board are: every one of these
	Board     Length   // how far they go
	FromRight bool     // they are numbered from the right
	Reads     Length   // the trimmer
	Cuts      Length   // the longest cut it makes
	Ruler     bool     // there is no board: scores are drawn along a ruler with a stylus
	Scissors  bool     // there is no trimmer
	NoFolder  bool     // there is no bone folder
	Punches   []Punch
}

// Punch is a punch or a shape cutter of a fixed size.
type Punch struct {
	Kind  string // hole, corner, notch or circle
	Size  Length // across; the radius of a corner
	Reach Length // how far in from the edge it gets; 0 is anywhere
}

// PunchKinds are the kinds of punch.
var PunchKinds = []string{"hole", "corner", "notch", "circle"}

// ParsePunch reads "hole 3 mm reach 25 mm", with the kind before the size or behind it;
// without a kind it is a hole punch.
func ParsePunch(text string, unit measure.Unit) (p Punch, err error) {
	size, reach, far := strings.Cut(strings.ToLower(strings.TrimSpace(text)), "reach")
	p.Kind = PunchKinds[0]
	var rest []string
	for word := range strings.FieldsSeq(size) {
		if slices.Contains(PunchKinds, word) {
			p.Kind = word
		} else {
			rest = append(rest, word)
		}
	}
	if p.Size, err = measure.Parse(strings.Join(rest, " "), unit); err == nil &&
		(p.Size < measure.Millimetre/2 || p.Size > 200*measure.Millimetre) {
		err = fmt.Errorf("a punch is 1 to 200 mm across")
	}
	if err == nil && far { // "reach" or "reaches"
		p.Reach, err = measure.Parse(strings.TrimPrefix(strings.TrimSpace(reach), "es"), unit)
	}
	if err != nil {
		return p, fmt.Errorf("%q isn't a punch. Write hole, corner, notch or circle and its size, like hole 3 mm "+
			"reach 25 mm", text)
	}
	return p, nil
}

// The nearest and the farthest that grooves lie apart.
const leastGroove, mostGroove = measure.Millimetre / 4, 100 * measure.Millimetre

// ParseGroove reads how far apart the grooves of a board are.
func ParseGroove(text string, unit measure.Unit) (Length, error) {
	l, err := measure.Parse(text, unit)
	if err == nil && (l < leastGroove || l > mostGroove) {
		err = fmt.Errorf("no board has a groove every %s. Usual ones are 1/8 in, 1/16 in, 1 mm and 5 mm",
			strings.TrimSpace(text))
	}
	return l, err
}

// How a score at a distance is set.
type How struct {
	At     Length // the groove or, without one, the distance itself
	Spacer Length // laid against the fence first, when no groove lies at the distance itself
	Ruler  bool   // no groove and no spacer: a mark with the ruler
}

// leastSpacer is the narrowest strip that is handled well against a fence.
const leastSpacer = 6 * measure.Millimetre

// Direct reports whether a groove lies at a distance from the fence, as the piece lies
// or counted from the far end of a board that is numbered so.
func (t Tools) Direct(at, step Length) bool {
	if t.Board > 0 && at > t.Board {
		return false
	}
	if len(t.Grooves) == 0 {
		return at%step == 0
	}
	return slices.ContainsFunc(t.Grooves, func(g Length) bool { return at%g == 0 })
}

// Set finds how a score is made so far from an edge. Of no board that is known, a distance between the marks takes
// the next mark and a spacer for the rest. A board's grooves are met with a strip as wide as can be trimmed; what
// no strip meets is marked with the ruler.
func (t Tools) Set(at, step Length) How {
	if t.Ruler || t.Direct(at, step) {
		return How{At: at}
	}
	if len(t.Grooves) == 0 && (t.Board == 0 || at <= t.Board) {
		groove := at.Up(step)
		return How{At: groove, Spacer: groove - at}
	}
	reads := t.Reads
	if reads == 0 {
		reads = step
	}
	best := How{At: at, Ruler: true}
	for _, g := range t.Grooves {
		for groove := at.Up(g); groove-at <= leastSpacer+4*g; groove += g {
			if s := groove - at; s >= leastSpacer && s%reads == 0 && (t.Board == 0 || groove <= t.Board) &&
				(best.Ruler || s < best.Spacer) {
				best = How{At: groove, Spacer: s}
			}
		}
	}
	return best
}

// Groove gives the finest spacing of the grooves, in which walls are best scored:
// the step itself when no board is known.
func (t Tools) Groove(step Length) Length {
	if len(t.Grooves) == 0 || t.Ruler {
		return step
	}
	return slices.Min(t.Grooves)
}

// Owned gives the size of the maker's punch of a kind that is nearest to one, of
// those between two sizes; without one, the size itself.
func (t Tools) Owned(kind string, want, least, most Length) Length {
	best, found := want, false
	for _, p := range t.Punches {
		if p.Kind != kind || p.Size < least || most > 0 && p.Size > most {
			continue
		}
		if !found || (p.Size-want).Abs() < (best-want).Abs() {
			best, found = p.Size, true
		}
	}
	return best
}

// Reaches finds a punch of a size and reports whether it gets so far in from the edge.
func (t Tools) Reaches(kind string, size, in Length) (p Punch, owned, reaches bool) {
	for _, q := range t.Punches {
		if q.Kind != kind || (q.Size-size).Abs() > measure.Millimetre/20 {
			continue
		}
		if p, owned = q, true; q.Reach == 0 || in <= q.Reach {
			return p, true, true
		}
	}
	return p, owned, false
}
