package shop

import (
	"strings"
	"testing"

	"brevium/core/measure"
)

// The shelf that ships: every card can be told from the others, drawn and
// priced, and every sheet is found by its name.
func TestDefaultShelf(t *testing.T) {
	seen := map[string]bool{}
	for _, c := range Default.Cards {
		if got, ok := Default.Card(c.ID); !ok || got.Title != c.Title || seen[c.ID] {
			t.Errorf("%s is not found, or twice", c.ID)
		}
		seen[c.ID] = true
		if c.Caliper < measure.Millimetre/10 || c.Caliper > measure.Millimetre || c.GSM < 100 || c.Each <= 0 {
			t.Errorf("%s: %v thick, %d gsm, %d", c.ID, c.Caliper, c.GSM, c.Each)
		}
		for _, colour := range []string{c.Colour, c.Inside} {
			if len(colour) != 7 || colour[0] != '#' {
				t.Errorf("%s is %q", c.ID, colour)
			}
		}
		if (c.Pattern == "") != (c.Ink == "") || !strings.Contains(c.Title, "gsm") {
			t.Errorf("%s: pattern %q in %q", c.ID, c.Pattern, c.Ink)
		}
	}
	for _, s := range Default.Sheets {
		if got, ok := Default.Sheet(s.ID); !ok || got != s {
			t.Errorf("%s is not found", s.ID)
		}
	}
	if _, ok := Default.Card("gold leaf"); ok {
		t.Error("a card that is not there was found")
	}
	if _, ok := Default.Sheet("a0"); ok {
		t.Error("a sheet that is not there was found")
	}
}

func TestCost(t *testing.T) {
	a4, _ := Default.Sheet("a4")
	// A square metre of it costs its price: 16 sheets of A4 are 0.998 of one.
	card := Card{Bought: Bought{Each: 1000, Per: 1e6}}
	if got := card.Cost(a4, 16); got != 998 {
		t.Errorf("16 sheets cost %d", got)
	}
	if card.Cost(a4, 0) != 0 {
		t.Error("no sheets cost something")
	}
}

// Sheets as people write them.
func TestSheetsAsTyped(t *testing.T) {
	const mm, in = measure.Millimetre, measure.Inch
	for text, want := range map[string][2]Length{"30 x 30 cm": {300 * mm, 300 * mm}, "30×30cm": {300 * mm, 300 * mm},
		"30 cm x 40 cm": {300 * mm, 400 * mm}, "30.5 by 30.5 cm": {305 * mm, 305 * mm}, "A5": {148 * mm, 210 * mm}, "a 6": {105 * mm, 148 * mm},
		"A2": {420 * mm, 594 * mm}, "a4": {210 * mm, 297 * mm}, "Letter": {17 * in / 2, 11 * in},
		"30 cm square": {300 * mm, 300 * mm}, "12x12": {12 * in, 12 * in}, "12 in x 9": {12 * in, 9 * in},
		"8 1/2 x 11": {17 * in / 2, 11 * in}, "300*400": {300 * mm, 400 * mm}, `5 1/2 x 8 1/2"`: {11 * in / 2, 17 * in / 2}} {
		got, err := Default.AnySheet(text, measure.Millimetres)
		if err != nil || got.Width != want[0] || got.Height != want[1] {
			t.Errorf("%q is %s × %s, %v", text, got.Width.Exact("mm"), got.Height.Exact("mm"), err)
			continue
		}
		if again, err := Default.AnySheet(got.ID, measure.Inches); err != nil || !again.Same(got) {
			t.Errorf("%q is kept as %q, which is %+v, %v", text, got.ID, again, err)
		}
	}
	for _, text := range []string{"", "A7", "A0", "30", "30 x cm", "a x b", "5 x 5 mm", "9999 x 1 mm"} {
		if got, err := Default.AnySheet(text, measure.Millimetres); err == nil {
			t.Errorf("%q is %+v", text, got)
		}
	}
}
