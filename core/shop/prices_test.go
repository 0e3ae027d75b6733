package shop

import (
	"testing"

	"brevium/core/brief"
	"brevium/core/measure"
)

func TestPrices(t *testing.T) {
	for _, c := range []struct {
		kind, text string
		coins      int64
		amount     float64
	}{
		{"tape", "2.40 for 10 m", 240, 10_000}, {"tape", "2,4 for 10m", 240, 10_000}, {"ribbon", "3 for 5 yd", 300, 4572},
		{"ribbon", "1 for 3 ft", 100, 914.4}, {"string", "0.5 for 250 mm", 50, 250}, {"ribbon", "2 for 36 in", 200, 914.4},
		{"glue", "2.80 for 100 ml", 280, 100}, {"glue", "2.80 for 100", 280, 100}, {"magnet", "4.5 for 20", 450, 20},
		{"wage", "14", 1400, 0}, {"margin", "25 %", 2500, 0}, {"margin", "0", 0, 0},
	} {
		k, _ := priceKind(c.kind)
		if p, err := ParsePrice(k, c.text, measure.Inches); err != nil || p.Coins != c.coins || p.Amount-c.amount > 1e-6 ||
			c.amount-p.Amount > 1e-6 {
			t.Errorf("%s %q: %+v %v", c.kind, c.text, p, err)
		}
	}
	for _, c := range [][2]string{{"tape", "2.40"}, {"tape", "for 10 m"}, {"tape", "x for 10 m"}, {"tape", "2 for 0 m"},
		{"tape", "-2 for 5 m"}, {"glue", "2 for much"}, {"magnet", "2 for nan"}, {"wage", "14 for 1"}, {"wage", "1e9"}, {"margin", "nan"},
		{"ribbon", "2 for inf m"}} {
		k, _ := priceKind(c[0])
		if p, err := ParsePrice(k, c[1], measure.Millimetres); err == nil {
			t.Errorf("%s %q was taken for %+v", c[0], c[1], p)
		}
	}
	d := Shipped()
	d.Prices = brief.Options{"tape": "cheap", "gold": "1 for 1", "glue": ""}
	s, r := Read(d)
	if len(r.Problems) != 2 || len(s.Prices) != 0 {
		t.Errorf("%v, %v", r.Problems, s.Prices)
	}
	for what, id := range map[string]string{"pair of thin disc magnets": "magnet", "hook dot": "dot", "jute twine": "string",
		"buttons or small brads": "brad", "foam pads": "foam"} {
		if k, ok := PriceOf(what); !ok || k.ID != id {
			t.Errorf("%s is priced as %q", what, k.ID)
		}
	}
	if _, ok := PriceOf("a pebble"); ok {
		t.Error("a pebble has a price")
	}
	p := Price{240, 10_000}
	if p.Packs(10_000) != 1 || p.Packs(10_001) != 2 || p.Share(2_500) != 60 {
		t.Errorf("%d %d packs, a share of %d", p.Packs(10_000), p.Packs(10_001), p.Share(2_500))
	}
}
