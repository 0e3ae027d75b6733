package readings_test

import (
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/cutting"
	"brevium/core/readings"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/core/shop"
	"brevium/internal/tried"
)

// What the shop has too little of, or none, is told; and what is said to no purpose.
func TestStockIsTold(t *testing.T) {
	d := shop.Shipped()
	d.Set("cards.@cover-216.hand", "1")
	d.Set("tools.trimmer.cuts", "10 in")
	s, _ := shop.Read(d)
	w := request.Workshop{Shop: *s}
	p := advice.Make(tried.Sized("5", "3 1/2", "2"), w)
	if !strings.Contains(tried.Warned(p, "short-of-card"), "2 sheets of Cover, oat") ||
		!strings.Contains(tried.Warned(p, "long-cut"), "your trimmer only cuts 10 in") {
		t.Errorf("%+v", p.Warnings)
	}
	if p = advice.Make(tried.Sized("2", "2", "1"), w); tried.Warned(p, "short-of-card") != "" {
		t.Errorf("one sheet is enough: %+v", p.Warnings)
	}
	for field, text := range map[string]string{"card.stocks.wheel": "kraft-300", "dress.floor": "1", "dress.outside": "2"} {
		b := tried.Sized("3", "2", "2", "box.style", "carton", "card.sheet", "a3", field, text)
		p, cleared := advice.Make(b, request.Default), advice.Make(tried.Taken(b, brief.To(field, "")), request.Default)
		if tried.Warned(p, "idle-option") == "" || tried.Warned(cleared, "idle-option") != "" {
			t.Errorf("%s = %s: %+v", field, text, p.Warnings)
		}
	}
	for _, c := range [][3]string{{"card.stocks.lid", "lead", "card.stocks.lid"}, {"card.sheet", "9 x 9 m", "card.sheet"},
		{"dress.outside", "9", "dress.outside"}, {"dress.floor", "some", "dress.floor"},
		{"tools.slack", "40 mm", "tools.slack"}, {"card.grain", "up", "card.grain"},
		{"tools.burnish", "never", "tools.burnish"}, {"tools.grooves", "0 in", "tools.grooves"}} {
		tried.WantProblem(t, tried.Sized("5", "3 1/2", "2", c[0], c[1]), c[2], c[1])
	}
	own := tried.Sized("5", "3 1/2", "2")
	own.Card.Own = []brief.Stock{{ID: "small", Title: "Small", GSM: "300", Sheets: "6x6"}}
	own.Card.Stock = "small"
	tried.WantProblem(t, own, "card.sheet", "12x12")
}

// In a stack the lower box bears what stands on it: the heavier the upper, the sooner
// that is told.
func TestStackBears(t *testing.T) {
	bears := func(mass string) (load, limit float64, told bool) {
		b := brief.New("mm")
		b.Card.Sheet, b.Card.Stock = "a3", "light-160"
		b.Contents = []brief.Item{{ID: "1", Name: "jar", Shape: "cylinder", Diameter: "60 mm",
			Height: "40 mm", Count: "1", Mass: brief.Text(mass)}}
		b.AddMember()
		b.AddMember()
		b.Several.Kind = "stack"
		s := sets.Make(b, request.Default)
		if !s.OK() {
			t.Fatal(s.Plans[0].Problems)
		}
		for _, c := range readings.Carries(s.Plans[0]) {
			if c.Code == "stack" {
				load, limit = c.Load, c.Limit
			}
		}
		return load, limit, slices.ContainsFunc(s.Warnings, func(w brief.Warning) bool { return w.Code == "weak-stack" })
	}
	load, limit, told := bears("50 g")
	if load < 100 || load > 140 || limit <= 0 || told != (load > limit) { // two of 50 g and their card
		t.Errorf("%.0f g on %.0f g, told %v", load, limit, told)
	}
	if heavy, _, told := bears("3 kg"); heavy < 6000 || !told {
		t.Errorf("%.0f g are not told", heavy)
	}
}

// The grain of each piece is told, and kept when that is asked for.
func TestGrainIsTold(t *testing.T) {
	b := tried.Sized("6", "2", "1", "card.sheet", "8.5x11") // long scores from left to right
	p := advice.Make(b, request.Default)
	against := slices.ContainsFunc(readings.Grains(p), func(g readings.Grain) bool { return !g.Runs })
	b.Card.Grain = "keep"
	kept := advice.Make(b, request.Default)
	if len(readings.Grains(p)) != 2 || !kept.Holds() ||
		slices.ContainsFunc(readings.Grains(kept), func(g readings.Grain) bool { return !g.Runs }) {
		t.Errorf("%+v, against %v; kept %+v", readings.Grains(p), against, readings.Grains(kept))
	}
	if cutting.WantsGrain(p.Box.Piece("base")) != "width" {
		t.Error("the grain should run with the longer scores")
	}
	b.Card.Stock = "duplex-350"
	if g := readings.Grains(advice.Make(b, request.Default)); len(g) > 0 {
		t.Errorf("grain nobody knows: %+v", g)
	}
}
