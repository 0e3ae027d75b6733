package demo

import (
	"context"

	"brevium/core/brief"
	"brevium/core/shop"
	"brevium/store"
)

// fillShop gives the fair's shop a few offcuts, counted card, and what was found of
// two lids.
func fillShop(ctx context.Context, s *store.Store) error {
	d := shop.Shipped()
	for path, text := range map[string]string{
		"cards.@cover-216.hand": "14", "cards.@kraft-300.hand": "6", "cards.@duplex-350.hand": "9", "tools.board": "12 in",
		"tools.trimmer.cuts": "17 in",
		"prices.wage":        "14.00", "prices.margin": "25", "tools.punches": "hole 6 mm reach 30 mm, corner 5 mm, notch 20 mm",
	} {
		d.Set(path, text)
	}
	d.Offcuts = []shop.Offcut{
		{ID: "o1", Card: "kraft-300", Width: "3 in", Height: "8 1/2 in", From: "Plant marker box"},
		{ID: "o2", Card: "cover-216", Width: "2 1/4 in", Height: "12 in", From: "Seed packet sampler"},
		{ID: "o3", Card: "duplex-350", Width: "70 mm", Height: "190 mm", From: "Round tea tin"},
	}
	fit := shop.Fit{Card: "duplex-350", Walls: "pinwheel", Layers: "0", Usual: "0.5 mm"}
	for i, f := range []struct{ on, box, had, verdict, gap brief.Text }{
		{"2026-09-12", "Thumb pot, first try", "0.7 mm", "tight", ""}, {"2026-09-20", "Thumb pot", "1.2 mm", "", "0.6 mm"},
		{"2026-10-03", "Jute in moss", "1.2 mm", "right", ""},
	} {
		one := fit
		one.ID, one.On, one.Box, one.Had, one.Verdict, one.Gap = string(rune('a'+i)), string(f.on), f.box, f.had, f.verdict, f.gap
		d.Fits = append(d.Fits, one)
	}
	_, err := s.Shops.Save(ctx, store.TheShop, "", store.Change[shop.Document]{Doc: d, What: "Made up for the fair"})
	return err
}
