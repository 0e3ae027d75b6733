// Package measure holds exact lengths: what a maker types, what a ruler can
// show, and the whole numbers between the two.
//
// A Length counts nanometres. One sixty-fourth of an inch is 396 875 of them and a millimetre is a million, so
// inches and millimetres add up exactly and no rounding ever decides a cut. Only printing rounds, and it says so.
package measure

import "fmt"

// Length is a distance in nanometres.
type Length int64

const (
	Nanometre  Length = 1
	Millimetre Length = 1_000_000
	Inch       Length = 25_400_000
)

// Max is the longest length a field takes; no card is longer.
const Max = 10_000 * Millimetre

// MM gives the length in millimetres, for geometry that needs roots and angles.
func (l Length) MM() float64 { return float64(l) / float64(Millimetre) }

// FromMM snaps a computed distance to the nearest nanometre.
func FromMM(mm float64) Length {
	if mm < 0 {
		return -FromMM(-mm)
	}
	return Length(mm*float64(Millimetre) + 0.5)
}

// Up gives the next multiple of step at or above l.
func (l Length) Up(step Length) Length { return -(-l).Down(step) }

// Down gives the multiple of step at or below l.
func (l Length) Down(step Length) Length {
	if step <= 0 {
		return l
	}
	rest := l % step
	if rest < 0 {
		rest += step
	}
	return l - rest
}

// Near gives the multiple of step nearest to l, the upper one at half way.
func (l Length) Near(step Length) Length { return (l + step/2).Down(step) }

// Abs gives the length without its sign.
func (l Length) Abs() Length { return max(l, -l) }

// Unit is one of the two units makers work in.
type Unit string

const (
	Inches      Unit = "in"
	Millimetres Unit = "mm"
	Centimetres Unit = "cm"
)

// Metric reports whether lengths in the unit are tens of each other's.
func (u Unit) Metric() bool { return u != Inches }

// Size is one of the unit.
func (u Unit) Size() Length {
	switch u {
	case Inches:
		return Inch
	case Centimetres:
		return 10 * Millimetre
	}
	return Millimetre
}

// Other gives the unit that is not u.
func (u Unit) Other() Unit {
	if u == Inches {
		return Millimetres
	}
	return Inches
}

// Either is one of two texts, as the unit is.
func (u Unit) Either(inches, metric string) string {
	if u.Metric() {
		return metric
	}
	return inches
}

// Word is the unit spelled out.
func (u Unit) Word() string {
	switch u {
	case Inches:
		return "inches"
	case Centimetres:
		return "centimetres"
	}
	return "millimetres"
}

// Step is the finest distance the maker's tools can measure, in the unit they are marked in.
type Step struct {
	Size Length
	Unit Unit
}

// Steps lists the marks that trimmers and scoring boards come with.
var Steps = []Step{
	{Inch / 8, Inches}, {Inch / 16, Inches}, {Inch / 32, Inches},
	{Millimetre, Millimetres}, {Millimetre / 2, Millimetres},
}

// DefaultStep is what most tools of the unit show.
func DefaultStep(u Unit) Step {
	if u == Inches {
		return Steps[1]
	}
	return Steps[3].In(u)
}

// In is the step in another unit of the same kind: marks of a millimetre, shown in centimetres.
func (s Step) In(u Unit) Step {
	if s.Unit.Metric() && u.Metric() {
		s.Unit = u
	}
	return s
}

// Usual gives the one of two lengths that is usual where marks are in inches, or in millimetres.
func (s Step) Usual(inches, millimetres Length) Length {
	if s.Unit == Inches {
		return inches
	}
	return millimetres
}

// String gives the step as a document writes it, such as "1/16 in".
func (s Step) String() string {
	if s.Unit == Centimetres {
		return s.Size.Exact(Millimetres)
	}
	return s.Size.Exact(s.Unit)
}

// ParseStep finds the step that text names.
func ParseStep(text string, unit Unit) (Step, error) {
	l, err := Parse(text, unit)
	if err == nil {
		for _, s := range Steps {
			if s.Size == l {
				return s, nil
			}
		}
	}
	return Step{}, fmt.Errorf("tools are marked every 1/8, 1/16 or 1/32 in, or every 1 or 0.5 mm, not every %q", text)
}
