package shop

import (
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/measure"
)

// What is in hand is used first, the rest is bought by the sheet or by the pack; of
// another size than the counted one nothing is in hand.
func TestShopping(t *testing.T) {
	a4, letter := Sheets[2], Sheets[1]
	card := Card{ID: "c", Title: "Oat", Sheets: []Sheet{a4, letter},
		Bought: Bought{Each: 40, Per: a4.Area(), Hand: 3}}
	pack := card
	pack.Pack = 10
	uncounted := card
	uncounted.Hand = -1
	for _, c := range []struct {
		need               Need
		hand, short, packs int
		over               int
		price              int64
	}{
		{Need{card, a4, 2}, 3, 0, 0, 0, 0},
		{Need{card, a4, 8}, 3, 5, 0, 0, 200},
		{Need{card, letter, 8}, 0, 8, 0, 0, card.Cost(letter, 8)},
		{Need{pack, a4, 8}, 3, 5, 1, 5, 400},
		{Need{pack, a4, 23}, 3, 20, 2, 0, 800},
		{Need{pack, a4, 3}, 3, 0, 0, 0, 0},
		{Need{uncounted, a4, 4}, 0, 4, 0, 0, 160},
	} {
		got := Shopping([]Need{c.need})[0]
		if got.Hand != c.hand || got.Short != c.short || got.Packs != c.packs || got.Over != c.over || got.Price != c.price {
			t.Errorf("%d of %s: %+v", c.need.Count, c.need.Sheet.Title, got)
		}
	}
	var out strings.Builder
	if err := WriteShopping(&out, Shopping([]Need{{pack, a4, 8}})); err != nil || !strings.Contains(out.String(),
		`Oat,"A4, 210 × 297 mm",8,3,5,1,5,4.00`) {
		t.Errorf("%v: %s", err, out.String())
	}
}

// The stash tells counted sheets and offcuts; a pack is some sheets, or refused.
func TestStash(t *testing.T) {
	d := Shipped()
	d.Cards[0].Hand, d.Cards[0].Pack = "12", "25"
	d.Offcuts = []Offcut{{ID: "o", Card: brief.Text(d.Cards[0].ID), Width: "3 in", Height: "8 1/2 in", From: "=1+1"}}
	s, r := Read(d)
	if len(r.Problems) > 0 || s.Cards[0].Pack != 25 {
		t.Fatal(r.Problems, s.Cards[0].Pack)
	}
	var out strings.Builder
	if err := s.WriteStash(&out, measure.Inches); err != nil {
		t.Fatal(err)
	}
	for _, says := range []string{"card,width,height,count,from", ",12,whole sheets", "3 in,8 1/2 in,1,'=1+1"} {
		if !strings.Contains(out.String(), says) {
			t.Errorf("%s: no %s", out.String(), says)
		}
	}
	for _, pack := range []brief.Whole{"0", "-3", "many", "5000"} {
		d.Cards[0].Pack = pack
		if _, r := Read(d); len(r.Problems) != 1 || !strings.HasSuffix(r.Problems[0].Field, ".pack") {
			t.Errorf("%s: %+v", pack, r.Problems)
		}
	}
}
