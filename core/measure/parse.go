package measure

import (
	"fmt"
	"math/big"
	"strings"
	"unicode/utf8"
)

// How tells a person the ways a length may be written.
const How = "Write it like 5 3/4, 5.75 or 146 mm."

// longest is more than any real length needs; it keeps the arithmetic small.
const longest = 40

var vulgar = strings.NewReplacer(
	"½", " 1/2", "¼", " 1/4", "¾", " 3/4", "⅓", " 1/3", "⅔", " 2/3",
	"⅛", " 1/8", "⅜", " 3/8", "⅝", " 5/8", "⅞", " 7/8",
	"⁄", "/", "∕", "/", "\u00a0", " ", "\u2009", " ", "\u202f", " ", "−", "-", "–", "-",
	"₀", "0", "₁", "1", "₂", "2", "₃", "3", "₄", "4", "₅", "5", "₆", "6", "₇", "7", "₈", "8", "₉", "9",
)

const raised = "⁰¹²³⁴⁵⁶⁷⁸⁹"

// plain writes set fractions with ordinary digits. A raised digit right behind
// an ordinary one begins a fraction: 5¹⁵⁄₁₆ is five and fifteen sixteenths.
func plain(s string) string {
	var b strings.Builder
	before := ' '
	for _, r := range s {
		at := strings.IndexRune(raised, r)
		if at < 0 {
			b.WriteRune(r)
		} else {
			if before >= '0' && before <= '9' {
				b.WriteByte(' ')
			}
			b.WriteByte(byte('0' + utf8.RuneCountInString(raised[:at])))
		}
		before = r
	}
	return vulgar.Replace(b.String())
}

var units = []struct {
	suffix string
	size   Length
	unit   Unit
}{
	{"inches", Inch, Inches}, {"inch", Inch, Inches}, {"in.", Inch, Inches}, {"in", Inch, Inches},
	{`"`, Inch, Inches}, {"”", Inch, Inches}, {"″", Inch, Inches}, {"''", Inch, Inches},
	{"mm", Millimetre, Millimetres}, {"cm", 10 * Millimetre, Millimetres},
}

// Parse reads a length such as `5 3/4`, `5-3/4`, `5¾`, `5.75"`, `14.6cm` or `146 mm`. A bare number takes the given
// unit. What is finer than a nanometre (a third of an inch, say) goes to the nearest one. Negative lengths and
// lengths beyond Max are errors; zero is a length.
func Parse(text string, unit Unit) (Length, error) {
	l, _, err := ParseUnit(text, unit)
	return l, err
}

// ParseUnit reads a length as Parse does and says which unit it was given in.
func ParseUnit(text string, unit Unit) (Length, Unit, error) {
	shown := strings.TrimSpace(text)
	if shown == "" {
		return 0, unit, fmt.Errorf("it is empty")
	}
	if len(shown) > longest {
		return 0, unit, fmt.Errorf("that is too long for a length")
	}
	s := strings.ToLower(shown)
	size, given := unit.Size(), unit
	for _, u := range units {
		if rest, ok := strings.CutSuffix(s, u.suffix); ok {
			s, size, unit = rest, u.size, u.unit
			if u.unit == Millimetres && given == Centimetres {
				unit = given
			}
			break
		}
	}
	s = strings.TrimSpace(plain(s))
	if strings.HasPrefix(s, "-") {
		return 0, unit, fmt.Errorf("%q is below zero", shown)
	}
	r, err := number(s, shown)
	if err != nil {
		return 0, unit, err
	}
	r.Mul(r, new(big.Rat).SetInt64(int64(size)))
	if r.Cmp(new(big.Rat).SetInt64(int64(Max))) > 0 {
		return 0, unit, fmt.Errorf("%q is longer than any card. The most is %s", shown, Max.Exact(unit))
	}
	return nearest(r), unit, nil
}

// Suffix gives the unit a length was written with, as it was written; "" for a bare number.
func Suffix(text string) string {
	s := strings.ToLower(strings.TrimSpace(text))
	for _, u := range units {
		if strings.HasSuffix(s, u.suffix) {
			return u.suffix
		}
	}
	return ""
}

// Fraction reports whether a length is written as a fraction without a unit, as inches are.
func Fraction(text string) bool {
	return Suffix(text) == "" && strings.Contains(plain(strings.TrimSpace(text)), "/")
}

// ParsePair reads two lengths such as "300 x 400 mm", "30×30cm", "12 by 12" or "8 1/2 in * 11 in", and says
// which unit they were given in. A bare one takes the unit of the other, and both bare the given unit.
func ParsePair(text string, unit Unit) (a, b Length, in Unit, err error) {
	s := strings.NewReplacer("×", "x", "*", "x", " by ", "x", "✕", "x").Replace(strings.ToLower(text))
	one, other, two := strings.Cut(s, "x")
	if !two {
		return 0, 0, unit, fmt.Errorf("%q is not two lengths", text)
	}
	if Suffix(one) == "" {
		one += Suffix(other)
	} else if Suffix(other) == "" {
		other += Suffix(one)
	}
	if b, in, err = ParseUnit(other, unit); err == nil {
		a, err = Parse(one, in)
	}
	return a, b, in, err
}

// number reads `5`, `5.75`, `5,75`, `3/4`, `5 3/4` or `5-3/4`.
func number(s, shown string) (*big.Rat, error) {
	// A fraction may stand behind a whole number with a blank or a dash.
	s = strings.Join(strings.Fields(s), " ")
	s = strings.ReplaceAll(strings.ReplaceAll(s, " /", "/"), "/ ", "/")
	whole, fraction, mixed := strings.Cut(s, " ")
	if !mixed {
		whole, fraction, mixed = strings.Cut(s, "-")
	}
	if !mixed {
		if !strings.Contains(s, "/") {
			return decimal(s, shown)
		}
		whole, fraction = "0", s
	}
	if !strings.Contains(fraction, "/") {
		return nil, fmt.Errorf("%q is not a length", shown)
	}
	w, err := digits(whole, shown)
	if err != nil {
		return nil, err
	}
	top, bottom, _ := strings.Cut(fraction, "/")
	if top == "" || bottom == "" {
		return nil, fmt.Errorf("%q stops in the middle of a fraction", shown)
	}
	n, err := digits(top, shown)
	if err != nil {
		return nil, err
	}
	d, err := digits(bottom, shown)
	if err != nil {
		return nil, err
	}
	if d.Sign() == 0 {
		return nil, fmt.Errorf("%q divides by zero", shown)
	}
	f := new(big.Rat).SetFrac(n, d)
	return f.Add(f, new(big.Rat).SetInt(w)), nil
}

func digits(s, shown string) (*big.Int, error) {
	if s == "" || strings.Trim(s, "0123456789") != "" {
		return nil, fmt.Errorf("%q is not a length", shown)
	}
	n, _ := new(big.Int).SetString(s, 10)
	return n, nil
}

func decimal(s, shown string) (*big.Rat, error) {
	s = strings.Replace(s, ",", ".", 1)
	whole, part, _ := strings.Cut(s, ".")
	n, err := digits(whole+part, shown)
	if err != nil {
		return nil, err
	}
	scale := new(big.Int).Exp(big.NewInt(10), big.NewInt(int64(len(part))), nil)
	return new(big.Rat).SetFrac(n, scale), nil
}

func nearest(r *big.Rat) Length {
	twice := new(big.Int).Mul(r.Num(), big.NewInt(2))
	twice.Add(twice, r.Denom())
	twice.Quo(twice, new(big.Int).Mul(r.Denom(), big.NewInt(2)))
	return Length(twice.Int64())
}
