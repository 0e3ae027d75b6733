package advice_test

import (
	"math/rand/v2"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/planjson"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/internal/tried"
)

// changed is a shop after something was changed in it, a thing at a time.
func changed(r *rand.Rand) request.Workshop {
	d := shop.Shipped()
	at := func(path, text string) { d.Set("cards.@"+d.Cards[r.IntN(len(d.Cards))].ID+"."+path, text) }
	switch r.IntN(8) {
	case 0:
		at("hand", "7")
	case 1:
		at("thickness", "0.5 mm")
	case 2:
		at("retired", "yes")
	case 3:
		d.Habits = brief.Options{"clearance": "trim", "walls": "rolled", "tabs": "half"}
	case 4:
		d.Tools.Grooves = "1/8 in"
	case 5:
		d.Offcuts = []shop.Offcut{{ID: "k", Card: brief.Text(d.Cards[0].ID), Width: "250 mm", Height: "200 mm"}}
	case 6:
		d.Prices = brief.Options{"wage": "12"}
	case 7:
		d.Cards = d.Cards[1:]
	}
	s, _ := shop.Read(d)
	return request.Workshop{Shop: *s}
}

// What was looked at of a shop is all that a plan and what is said of it hang on: wherever that is the same in a shop
// that was changed, the plan is the same to the letter; and most changes concern few boxes.
func TestLookedHolds(t *testing.T) {
	r := rand.New(rand.NewPCG(28, 1))
	holds, made := 0, 0
	for range tried.Boxes(12_000) {
		b := tried.Random(r)
		if r.IntN(2) == 0 {
			b.Sheets.Offcuts = "yes"
		}
		w := request.Default
		watched, looked := w.Watched()
		w.Shop = watched
		p := advice.Make(b, w)
		other := changed(r)
		made++
		if !looked.Holds(other.Shop) {
			continue
		}
		holds++
		if got, want := string(planjson.Write(advice.Make(b, other))), string(planjson.Write(p)); got != want {
			t.Fatalf("the shop was changed and the plan with it, unnoticed: %s", b.Encode())
		}
	}
	if holds < made/4 || holds > made*9/10 {
		t.Errorf("%d of %d plans hold when the shop is changed", holds, made)
	}
}
