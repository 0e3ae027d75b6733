package costs_test

import (
	"fmt"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/costs"
	"brevium/core/cutting"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/core/shop"
	"brevium/internal/tried"
)

// What a batch costs, worked by hand: sheets shared out by area, tape by its length, magnets by
// the pair, packs bought whole, work at the hour and the margin on top.
func TestCosts(t *testing.T) {
	w := request.Default
	w.Prices = map[string]shop.Price{"tape": {Coins: 240, Amount: 10_000}, "magnet": {Coins: 450, Amount: 20},
		"wage": {Coins: 1200}, "margin": {Coins: 2500}}
	b := tried.Metric("flap-box", 90, 70, 40, "copies", "12", "box.options.closure", "magnet", "arrange.compartments", "")
	p := advice.Make(b, w)
	j := sets.JobOf(p)
	c := costs.Reckon(j, w, bench.PaceOf(nil))
	sheets, share := int64(0), int64(0)
	for _, cut := range p.Cuts {
		sheets += cut.Cost()
	}
	for _, l := range c.Parts {
		share += l.All
	}
	if share != sheets || sheets != p.Cost || sheets == 0 {
		t.Errorf("the sheets cost %d, shared out %d, in the plan %d", sheets, share, p.Cost)
	}
	rest := map[string]costs.CostLine{}
	for _, l := range c.Rest {
		rest[l.What] = l
	}
	tape := p.Guide.Tape.Long().MM() * 240 / 10_000
	if l := rest["Double-sided tape"]; !l.Known || float64(l.All)-tape > 0.5 || tape-float64(l.All) > 0.5 {
		t.Errorf("tape: %+v, not %.2f", l, tape)
	}
	if l := rest["Disc magnets"]; l.Amount != "24" || l.All != 540 || l.Packs != "2 packs" || l.Buy != 900 {
		t.Errorf("magnets: %+v", l)
	}
	minutes := bench.Pace{}.Whole(p.Guide.Steps)
	work := int64(1200*minutes/60 + 0.5)
	if c.Work != work || c.Boxes != 12 || c.Ask != costs.Each(int64((float64(c.All+work)*1.25)+0.999999), 12) {
		t.Errorf("work %d, not %d; ask %d of %d", c.Work, work, c.Ask, c.All)
	}
	if len(c.Unknown) != 0 {
		t.Errorf("not known: %v", c.Unknown)
	}
	coins := func(n int64) string { return fmt.Sprint(n, " coins") }
	if got := c.Said(c.All, coins); got != fmt.Sprint(c.All, " coins") {
		t.Errorf("known to the last coin: %q", got)
	}
	// Of what has no price it is said, and nothing is made up.
	w.Prices = nil
	if c := costs.Reckon(j, w, bench.Pace{}); c.Said(c.All, coins) != fmt.Sprintf("at least %d coins", sheets) ||
		c.Said(0, coins) != "not known" {
		t.Errorf("%q, %q", c.Said(c.All, coins), c.Said(0, coins))
	}
	if c := costs.Reckon(j, w, bench.Pace{}); c.Ask != 0 || len(c.Unknown) != 2 || c.All != sheets {
		t.Errorf("without prices: ask %d, %v", c.Ask, c.Unknown)
	}
	set := sets.Make(tried.ASet("stack", "20 mm", brief.Member{ID: "2"}), request.Default)
	c = costs.Reckon(set.Job(), request.Default, bench.Pace{})
	if got := c.Cards[0].Amount; c.All < set.Cost || !strings.Contains(got, " of ") {
		t.Errorf("a set: %d of %d, %s", c.All, set.Cost, got)
	}
}

// A layer takes two strips of tape along its long edges, by hand, in each school; a lot of one
// card is counted once against what is in hand, whichever box it is for.
func TestLayersAreTaped(t *testing.T) {
	box := tried.Metric("tray-lid", 96, 74, 44, "copies", "3")
	for _, school := range []struct {
		is    string
		takes bool
		says  string
	}{{"", true, "Tape goes"}, {"both", true, "Tape (the darker"}, {"glue", false, "Glue goes"}} {
		b := box
		b.Tools.Adhesive = brief.Text(school.is)
		plain := advice.Make(b, request.Default)
		p := advice.Make(tried.Dressed(b, `{"layers": [{"on": "lid/top", "border": "5 mm"}]}`), request.Default)
		if !p.OK() {
			t.Fatal(p.Problems)
		}
		if says := p.Glue().Said(); !strings.HasPrefix(says, school.says) {
			t.Errorf("%q: %s", school.is, says)
		}
		want := shop.Length(0)
		if school.takes {
			want = 3 * 2 * p.Dressed.Laid[0].Piece.Width
		}
		if more := p.Guide.Tape.Long() - plain.Guide.Tape.Long(); more != want {
			t.Errorf("%q: the layer takes %s of tape, not %s", school.is, p.Say(more), p.Say(want))
		}
	}
	p, hand := advice.Make(box, request.Default), request.Default
	hand.Cards = append([]shop.Card(nil), hand.Cards...)
	i := 0
	for hand.Cards[i].ID != p.Card.ID {
		i++
	}
	hand.Cards[i].Hand, hand.Cards[i].Sheets = 5, []shop.Sheet{p.Cuts[0].Sheet}
	cuts := append(append([]cutting.Cut(nil), p.Cuts...), p.Cuts...)
	n := 2 * len(p.Cuts[0].Sheets)
	if buy := shop.Shopping(costs.Needs(cuts, hand)); len(buy) != 1 || buy[0].Count != n || buy[0].Short != max(0, n-5) {
		t.Errorf("of %d sheets with 5 in hand %+v", n, buy)
	}
}
