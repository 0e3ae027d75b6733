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

func TestTakesAndCost(t *testing.T) {
	a4, _ := Default.Sheet("a4")
	const mm = measure.Millimetre
	for _, c := range []struct {
		w, h measure.Length
		want bool
	}{{210 * mm, 297 * mm, true}, {297 * mm, 210 * mm, true}, {211 * mm, 297 * mm, false}, {250 * mm, 250 * mm, false},
		{1, 1, true}} {
		if a4.Takes(c.w, c.h, false) != c.want || a4.Takes(c.w, c.h, true) && (c.w > a4.Width || c.h > a4.Height) {
			t.Errorf("%v × %v on A4: %v", c.w, c.h, !c.want)
		}
	}
	// A square metre of it costs its price: 16 sheets of A4 are 0.998 of one.
	card := Card{Each: 1000, Per: 1e6}
	if got := card.Cost(a4, 16); got != 998 {
		t.Errorf("16 sheets cost %d", got)
	}
	if card.Cost(a4, 0) != 0 {
		t.Error("no sheets cost something")
	}
}
