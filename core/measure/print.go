package measure

import (
	"fmt"
	"strconv"
	"strings"
)

// finest is the smallest fraction of an inch that is written as one.
const finest = 64

// slash is the fraction slash, which a font sets as a proper fraction.
const slash = "⁄"

// Exact writes the length for a document: a fraction of an inch down to 1/64, in
// thirds or tenths, otherwise millimetres, which write every nanometre.
func (l Length) Exact(u Unit) string {
	if u == Inches {
		if text, ok := l.fraction("/"); ok {
			return text + " in"
		}
		if text, ok := l.odd(); ok {
			return text + " in"
		}
	}
	if u == Centimetres {
		return l.decimal(u) + " cm"
	}
	return l.decimal(Millimetres) + " mm"
}

// Fine writes a thickness or a gap, which is finer than any mark: hundredths of a millimetre, thousandths of an inch.
func (l Length) Fine(u Unit) string {
	if u == Millimetres {
		return fmt.Sprintf("%.2f mm", l.MM())
	}
	return fmt.Sprintf("%.3f %s", float64(l)/float64(u.Size()), u)
}

// fraction writes whole inches and a fraction, if 64ths are fine enough.
func (l Length) fraction(bar string) (string, bool) {
	if l%(Inch/finest) != 0 {
		return "", false
	}
	sign := ""
	if l < 0 {
		sign, l = "-", -l
	}
	whole, n, d := l/Inch, (l%Inch)/(Inch/finest), Length(finest)
	for n != 0 && n%2 == 0 {
		n, d = n/2, d/2
	}
	switch {
	case n == 0:
		return fmt.Sprintf("%s%d", sign, whole), true
	case whole == 0:
		return fmt.Sprintf("%s%d%s%d", sign, n, bar, d), true
	}
	return fmt.Sprintf("%s%d %d%s%d", sign, whole, n, bar, d), true
}

// odd writes a length that was typed in thirds, sixths, twelfths, fifths or tenths of an inch: it is read back
// to the same nanometre.
func (l Length) odd() (string, bool) {
	sign := ""
	if l < 0 {
		sign, l = "-", -l
	}
	for _, d := range []Length{3, 5, 6, 10, 12} {
		n := (l%Inch*d + Inch/2) / Inch
		if (2*n*Inch+d)/(2*d) != l%Inch || n == 0 || n == d {
			continue
		}
		if l < Inch {
			return fmt.Sprintf("%s%d/%d", sign, n, d), true
		}
		return fmt.Sprintf("%s%d %d/%d", sign, l/Inch, n, d), true
	}
	return "", false
}

func (l Length) decimal(u Unit) string {
	sign, places := "", 6
	if l < 0 {
		sign, l = "-", -l
	}
	one := u.Size()
	if u == Centimetres {
		places = 7
	}
	text := sign + strconv.FormatInt(int64(l/one), 10)
	if rest := int64(l % one); rest != 0 {
		text += "." + strings.TrimRight(fmt.Sprintf("%0*d", places, rest), "0")
	}
	return text
}

// Shown is a length as the eye meets it.
type Shown struct {
	Text    string // the number alone, with a fraction slash
	Unit    Unit
	Rounded bool   // the text is near the length, not equal to it
	Exact   string // the length itself, with its unit
	Other   string // about the same in the other unit
}

// String gives the number and unit, with "about" before what was rounded.
func (s Shown) String() string {
	text := s.Text + " " + string(s.Unit)
	if s.Rounded {
		return "about " + text
	}
	return text
}

// Round says which way Show goes when the marks miss the length.
type Round func(l, step Length) Length

// Show writes a length at the resolution of the step. A length that a finer common mark still meets (half a step,
// such as a spacer makes) is written to the letter; any other goes to the nearest step and says so.
func (s Step) Show(l Length) Shown { return s.show(l, Length.Near) }

// ShowDown is Show for room: what is rounded is never more than there is.
func (s Step) ShowDown(l Length) Shown { return s.show(l, Length.Down) }

// ShowUp is Show for bulk: what is rounded is never less than there is.
func (s Step) ShowUp(l Length) Shown { return s.show(l, Length.Up) }

func (s Step) show(l Length, round Round) Shown {
	near := l
	if l%(s.Size/4) != 0 {
		near = round(l, s.Size)
	}
	return Shown{
		Text: near.number(s.Unit), Unit: s.Unit, Rounded: near != l,
		Exact: l.Exact(s.Unit), Other: l.about(s.Unit.Other()),
	}
}

func (l Length) number(u Unit) string {
	if u == Inches {
		if text, ok := l.fraction(slash); ok {
			return text
		}
		u = Millimetres
	}
	return l.decimal(u)
}

// about writes the length in a unit to a fine mark of it.
func (l Length) about(u Unit) string {
	if u == Inches {
		return l.Near(Inch/32).number(u) + " in"
	}
	return l.Near(Millimetre/10).number(u) + " mm"
}
