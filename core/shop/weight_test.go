package shop

import (
	"math"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/measure"
)

// Weights as the trade has them: pounds of 500 sheets of each grade's own size.
func TestWeights(t *testing.T) {
	for text, want := range map[string]float64{
		"300": 300, "300 gsm": 300, "300gsm": 300, "80 lb cover": 216.3, "80lb": 216.3, "100 lb cover": 270.4, "65# cover": 175.8,
		"60 lb text": 88.8, "110 lb index": 198.9, "100 bristol": 219.3, "90 lb tag": 146.5, "0.1 kg": 0, "5000": 0, "5,000 gsm": 0, "12 gsm": 0,
		"-3": 0, "": 0, "heavy": 0, "80 stone": 0, "NaN": 0, "1e9": 0,
	} {
		got, err := ParseWeight(text)
		if want == 0 {
			if err == nil || !strings.Contains(err.Error(), "gsm") {
				t.Errorf("%q is %v, %v", text, got, err)
			}
		} else if err != nil || math.Abs(got-want) > 0.06 {
			t.Errorf("%q is %.2f gsm, want %.1f: %v", text, got, want, err)
		}
	}
	for _, g := range Grades { // there and back
		if p := g.Pounds(g.Grams(77)); math.Abs(p-77) > 1e-9 {
			t.Errorf("%s: 77 lb is %v lb", g.ID, p)
		}
	}
}

func stock(pairs ...string) brief.Stock {
	b := brief.Brief{Card: brief.Card{Own: []brief.Stock{{ID: "x", Title: "Try"}}}}
	for i := 0; i+1 < len(pairs); i += 2 {
		b.Set("card.own.0."+pairs[i], pairs[i+1])
	}
	return b.Card.Own[0]
}

func reader(units brief.Text) *brief.Reader {
	return brief.NewReader(&brief.Brief{Units: units, Tools: brief.Tools{Step: "1 mm"}})
}

// How thick card is: one sheet, ten, or an estimate that says so.
func TestCalipers(t *testing.T) {
	const um = measure.Millimetre / 1000
	for _, c := range []struct {
		stock     brief.Stock
		want      Length
		estimated bool
	}{
		{stock("caliper", "0.42 mm"), 420 * um, false},
		{stock("ten", "4.4 mm"), 440 * um, false},
		{stock("caliper", "0.3 mm", "ten", "9 mm"), 300 * um, false}, // one sheet counts
		{stock("caliper", "12 pt"), 305 * um, false},
		{stock("gsm", "300"), 380 * um, true}, // 1.25 cm³ a gram: 0.375
		{stock("gsm", "100", "kind", "paper"), 120 * um, true},
		{stock("gsm", "300", "bulk", "1.4"), 420 * um, true},
		{stock("gsm", "80 lb cover"), 270 * um, true},
	} {
		got, ok := ReadStock(reader("mm"), "", c.stock)
		if !ok || got.Caliper != c.want || got.Estimated != c.estimated {
			t.Errorf("%+v is %s, estimated %v", c.stock, got.Caliper.Exact("mm"), got.Estimated)
		}
	}
}

// What is no card has a text at its field that says what is usual.
func TestBadCards(t *testing.T) {
	for _, c := range []struct {
		field, text, usual string
	}{
		{"caliper", "0", "0.2 to 0.5"}, {"caliper", "9 mm", "0.2 to 0.5"}, {"caliper", "thin", "0.2 to 0.5"}, {"ten",
			"90 mm", "0.2 to 0.5"},
		{"gsm", "5000", "150 to 400"}, {"gsm", "0", "150 to 400"}, {"bulk", "9", "1.1 to 1.5"}, {"sheets", "0 x 10 mm",
			"12x12"},
		{"sheets", "10 x 10 m", "12x12"}, {"sheets", "big", "12x12"}, {"price", "dear", "like 0.40"}, {"price", "-1",
			"like 0.40"},
		{"price", "1e6", "like 0.40"}, {"hand", "some", "Count"}, {"colour", "red", "#e9dcc0"}, {"grain", "up",
			"long or short"},
		{"kind", "wood", "specialty"}, {"repeat", "9000 mm", "10 to 100"}, {"repeat", "far",
			"pattern repeats every"}, {"title", "", "name"}, {"pattern", "wild", "up or any"},
	} {
		s := stock("gsm", "250")
		b := brief.Brief{Card: brief.Card{Own: []brief.Stock{s}}}
		b.Set("card.own.0."+c.field, c.text)
		if c.field == "title" {
			b.Card.Own[0].Title = ""
		}
		r := reader("mm")
		_, ok := ReadStock(r, "p.", b.Card.Own[0])
		if ok || len(r.Problems) == 0 || r.Problems[0].Field != "p."+c.field ||
			!strings.Contains(r.Problems[0].Text+r.Problems[0].Fix, c.usual) {
			t.Errorf("%s = %q: %+v", c.field, c.text, r.Problems)
		}
	}
	for _, c := range [][2]string{{"grooves", "0 mm"}, {"grooves", "1 m"}, {"grooves", "1/8 in, x"}, {"board", "3 mm"},
		{"trimmer.reads", "9 cm"},
		{"trimmer.cuts", "1 mm"}, {"punches", "hammer 3 mm"}, {"punches", "hole 0 mm"}, {"numbers", "up"}, {"tape", "1 mm"}} {
		d := Shipped()
		d.Set("tools."+c[0], c[1])
		if _, r := Read(d); len(r.Problems) != 1 || r.Problems[0].Field != "tools."+c[0] || r.Problems[0].Fix == "" {
			t.Errorf("%s = %q: %+v", c[0], c[1], r.Problems)
		}
	}
	d := Shipped()
	d.Set("cards.@kraft-300.title", "light, FOG, 160 gsm")
	if s, r := Read(d); len(r.Problems) != 1 || !strings.Contains(r.Problems[0].Text, "Two cards") ||
		s.Troubled["kraft-300"] == "" {
		t.Errorf("two of one name: %+v", r.Problems)
	}
}

// Sheets of the maker's own, by what they cost.
func TestOwnSheets(t *testing.T) {
	c, ok := ReadStock(reader("mm"), "", stock("gsm", "250", "sheets", "300 x 400 mm, a4, 8.5x11", "price", "0.60"))
	if !ok || len(c.Sheets) != 3 || c.Sheets[0].Title != "300 × 400 mm" || c.Cost(c.Sheets[0], 2) != 120 ||
		c.Cost(c.Sheets[1], 1) != 31 {
		t.Errorf("%+v", c)
	}
	for grain, want := range map[string][2]string{"long": {"height", "width"}, "short": {"width", "height"}, "": {"", ""}} {
		c.Grain = grain
		if got := [2]string{c.Runs(Sheet{Width: 3, Height: 4}), c.Runs(Sheet{Width: 4, Height: 3})}; got != want {
			t.Errorf("grain %q runs along %v", grain, got)
		}
	}
}
