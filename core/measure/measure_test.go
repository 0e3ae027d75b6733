package measure

import (
	"math/rand/v2"
	"strings"
	"testing"
)

func TestParse(t *testing.T) {
	good := []struct {
		text string
		unit Unit
		want Length
	}{
		{"5 3/4", Inches, 5*Inch + Inch*3/4}, {"5-3/4", Inches, 5*Inch + Inch*3/4},
		{"5¾", Inches, 5*Inch + Inch*3/4}, {`5.75"`, Millimetres, 5*Inch + Inch*3/4},
		{"14.6cm", Inches, 146 * Millimetre}, {"146 mm", Inches, 146 * Millimetre},
		{"146", Millimetres, 146 * Millimetre}, {"14,6 cm", Inches, 146 * Millimetre},
		{" 4  1 / 2 in ", Millimetres, 4*Inch + Inch/2}, {"23⁄32", Inches, Inch * 23 / 32},
		{"5¹⁵⁄₁₆ in", Inches, 5*Inch + Inch*15/16}, {"¾”", Millimetres, Inch * 3 / 4},
		{".5", Inches, Inch / 2}, {"5.", Inches, 5 * Inch}, {"0", Inches, 0}, {"1/3 in", Inches, 8466667},
		{"3 Inches", Millimetres, 3 * Inch}, {"10000 mm", Inches, Max},
	}
	for _, g := range good {
		if got, err := Parse(g.text, g.unit); err != nil || got != g.want {
			t.Errorf("Parse(%q, %s) = %d, %v; want %d", g.text, g.unit, got, err, g.want)
		}
	}
	bad := map[string]string{
		"": "is empty", "five": "not a length", "-3": "below zero", "1/0": "divides by zero",
		"5 3/": "middle of a fraction", "5 /": "", "10000000000000": "longer than any card", "1e9": "not a length",
		"5 6": "not a length", "5.2.1": "not a length", "in": "", "1/2/3": "not a length", "5.5 1/2": "not a length",
		strings.Repeat("9", 50): "too long", "3 1/-2": "not a length", "NaN": "not a length",
	}
	for text, part := range bad {
		if got, err := Parse(text, Inches); err == nil || !strings.Contains(err.Error(), part) {
			t.Errorf("Parse(%q) = %d, %v; want an error that says %q", text, got, err, part)
		}
	}
}

func TestShow(t *testing.T) {
	sixteenth, mm := Steps[1], Steps[3]
	cases := []struct {
		step    Step
		l       Length
		text    string
		rounded bool
	}{
		{sixteenth, 5*Inch + Inch*15/16, "5 15⁄16", false},
		{sixteenth, Inch * 23 / 32, "23⁄32", false},
		{sixteenth, 115 * Millimetre, "4 1⁄2", true},
		{sixteenth, 0, "0", false},
		{mm, 146 * Millimetre, "146", false},
		{mm, Millimetre / 2, "0.5", false},
		{mm, 3*Inch + Inch/2, "89", true},
	}
	for _, c := range cases {
		got := c.step.Show(c.l)
		if got.Text != c.text || got.Rounded != c.rounded {
			t.Errorf("%s shows %d as %q rounded %v; want %q, %v", c.step, c.l, got.Text, got.Rounded, c.text, c.rounded)
		}
	}
	if got := sixteenth.Show(5 * Inch).Other; got != "127 mm" {
		t.Errorf("5 in is shown as %q on the other side", got)
	}
	if down, up := mm.ShowDown(3*Inch+Inch/2), mm.ShowUp(3*Inch+Inch/2); down.Text != "88" || up.Text != "89" {
		t.Errorf("88.9 mm goes down to %s and up to %s", down.Text, up.Text)
	}
}

// What is written exactly reads back as the same length, in either unit.
func TestExactReadsBack(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	for range 5000 {
		l := Length(r.Int64N(int64(Max)))
		if r.IntN(2) == 0 {
			l = l.Down(Inch / 64)
		}
		for _, u := range []Unit{Inches, Millimetres} {
			if back, err := Parse(l.Exact(u), u.Other()); err != nil || back != l {
				t.Fatalf("%d is written %q and read back as %d, %v", l, l.Exact(u), back, err)
			}
		}
	}
}

func TestSnap(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	for range 5000 {
		l, s := Length(r.Int64N(int64(Max)))-Max/2, Steps[r.IntN(len(Steps))].Size
		down, near, up := l.Down(s), l.Near(s), l.Up(s)
		if down > l || up < l || up-down > s || down%s != 0 || up%s != 0 || (near-l).Abs() > s/2 || near%s != 0 {
			t.Fatalf("%d at %d: %d, %d, %d", l, s, down, near, up)
		}
	}
}

func FuzzParse(f *testing.F) {
	for _, s := range []string{"5 3/4", "5¾", "1/0", "14.6cm", "5 3/", "1e9", "--", "99999999999999999999999"} {
		f.Add(s, true)
	}
	f.Fuzz(func(t *testing.T, s string, inches bool) {
		u := Millimetres
		if inches {
			u = Inches
		}
		l, err := Parse(s, u)
		if err != nil {
			return
		}
		if l < 0 || l > Max {
			t.Fatalf("Parse(%q) = %d", s, l)
		}
		if back, err := Parse(l.Exact(u), u); err != nil || back != l {
			t.Fatalf("%q: %q reads back as %d, %v", s, l.Exact(u), back, err)
		}
	})
}

// Centimetres are millimetres with a point: what is written in one unit is read back the same in any.
func TestCentimetres(t *testing.T) {
	for l, want := range map[Length]string{146 * Millimetre: "14.6 cm", 5 * Millimetre / 2: "0.25 cm", 300 * Millimetre: "30 cm",
		Inch: "2.54 cm", Inch / 64: "0.0396875 cm", -12 * Millimetre: "-1.2 cm"} {
		if got := l.Exact(Centimetres); got != want {
			t.Errorf("%d nm is %q, want %q", l, got, want)
		}
	}
	r := rand.New(rand.NewPCG(4, 4))
	for range 2000 {
		l := Length(r.Int64N(int64(2000 * Millimetre)))
		if got, unit, err := ParseUnit(l.Exact(Centimetres), Centimetres); err != nil || got != l || unit != Centimetres {
			t.Fatalf("%s is read back as %d %s, %v", l.Exact(Centimetres), got, unit, err)
		}
	}
	if s := DefaultStep(Centimetres); s.Show(146*Millimetre).String() != "14.6 cm" || s.String() != "1 mm" {
		t.Errorf("%s, %s", s.Show(146*Millimetre), s)
	}
	for text, want := range map[string]bool{"3 1/4": true, "3¼": true, "3.25": false, "3 1/4 in": false, "1/2\"": false, "": false} {
		if Fraction(text) != want {
			t.Errorf("%q is a bare fraction: %v", text, !want)
		}
	}
}

// Thirds and tenths of an inch stay what was typed.
func TestThirds(t *testing.T) {
	for _, text := range []string{"3 1/3 in", "2/3 in", "5 1/6 in", "7/12 in", "5 1/10 in", "2 2/5 in", "-1 1/3 in"} {
		l, err := Parse(strings.TrimPrefix(text, "-"), Inches)
		if text[0] == '-' {
			l = -l
		}
		if got := l.Exact(Inches); err != nil || got != text {
			t.Errorf("%q is written as %q, %v", text, got, err)
		}
	}
	r := rand.New(rand.NewPCG(6, 1))
	for range 20000 {
		l := Length(r.Int64N(int64(500 * Millimetre)))
		if got, err := Parse(l.Exact(Inches), Inches); err != nil || got != l {
			t.Fatalf("%d nm is written as %s, read back as %d", l, l.Exact(Inches), got)
		}
	}
}
