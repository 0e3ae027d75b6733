package dress_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/costs"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/core/shop"
	"brevium/core/wish"
	"brevium/internal/tried"
)

// Each kind of finish can be done at each moment: it has its step there, in order, says where, shows
// a piece that there is, takes time, dries where ink is wet, and what it is done with is laid out.
func TestFinishing(t *testing.T) {
	for _, kind := range wish.FinishKinds {
		for _, when := range append([]string{""}, wish.Moments...) {
			b := tried.Dressed(tried.Metric("tray-lid", 90, 70, 40, "copies", "10"), fmt.Sprintf(`{"layers": [{"on": "lid/top"}],
				"finishes": [{"kind": %q, "on": "lid/top, base/front", "when": %q, "count": "2", "what": "sage"}]}`, kind, when))
			p := advice.Make(b, request.Default)
			if !p.OK() {
				t.Fatalf("%s %s: %v", kind, when, p.Problems)
			}
			bare := b.Clone()
			bare.Dress.Finishes = nil
			if plain := advice.Make(bare, request.Default); p.Minutes() <= plain.Minutes() {
				t.Errorf("%s %s: takes no time", kind, when)
			}
			i := slices.IndexFunc(p.Guide.Steps, func(s bench.Step) bool { return strings.HasPrefix(s.Title, "Finish") })
			if i < 0 {
				t.Fatalf("%s %s: no step", kind, when)
			}
			s, all := p.Guide.Steps[i], strings.Join(p.Guide.Steps[i].Says, " ")
			for _, part := range []string{"lid top", "base front", "sage"} {
				if !strings.Contains(all, part) {
					t.Errorf("%s %s does not say %s: %s", kind, when, part, all)
				}
			}
			before := func(title string) bool {
				at := slices.IndexFunc(p.Guide.Steps, func(s bench.Step) bool { return s.Title == title })
				return at < 0 || i < at
			}
			want := map[string][2]bool{"scoring": {true, true}, "flat": {false, true}, "sticking": {false, true}, "last": {false, false}}
			if w, ok := want[when]; ok && (w[0] != before("Score") || w[1] != before("Stick")) {
				t.Errorf("%s %s stands after %q", kind, when, p.Guide.Steps[max(0, i-1)].Title)
			}
			if wet := slices.Contains([]string{"ink", "sponge", "stamp", "letter"}, kind); wet != (len(s.Waits) > 0) {
				t.Errorf("%s %s: waits %v", kind, when, s.Waits)
			}
			if len(s.Frames) == 0 || p.Box.Piece(s.Frames[0].Piece) == nil || s.Check == "" {
				t.Errorf("%s %s: frames %v, check %q", kind, when, s.Frames, s.Check)
			}
			if len(p.Dressed.Supplies) != 1 {
				t.Errorf("%s %s: laid out %v", kind, when, p.Dressed.Supplies)
			}
		}
	}
}

// A maker's own minutes and drying are taken as they are, a piece of the dressing is found by its
// name, ink is priced by what it does, and what is not there is said to be.
func TestFinishesAreReadAndCosted(t *testing.T) {
	make := func(finish string) *plan.Plan {
		return advice.Make(tried.Dressed(tried.Metric("tray-lid", 90, 70, 40, "copies", "10"),
			`{"layers": [{"on": "lid/top"}], "band": {"width": "20 mm"}, "finishes": [`+finish+`]}`), request.Default)
	}
	p := make(`{"kind": "ink", "on": "paper band", "minutes": "3", "dry": "40"}`)
	i := slices.IndexFunc(p.Guide.Steps, func(s bench.Step) bool { return s.Title == bench.FinishFlat })
	if i < 0 || p.Guide.Steps[i].Minutes != 30 || p.Guide.Steps[i].Waits[0].Seconds != 2400 ||
		p.Guide.Steps[i].Frames[0].Piece != "paper band" {
		t.Fatalf("%v", p.Guide.Steps)
	}
	w := request.Default
	w.Prices = map[string]shop.Price{"ink": {Coins: 600, Amount: 200}}
	if all := fmt.Sprint(costs.Reckon(sets.JobOf(p), w, bench.Pace{})); !strings.Contains(all, "Ink") {
		t.Errorf("no cost of ink in %s", all)
	}
	for field, finish := range map[string]string{
		"on":    `{"kind": "ink", "on": "chimney"}`,
		"kind":  `{"kind": "gild", "on": "top"}`,
		"when":  `{"kind": "ink", "on": "top", "when": "never"}`,
		"count": `{"kind": "sticker", "on": "top", "count": "100"}`,
	} {
		p := make(finish)
		if len(p.Problems) == 0 || !slices.ContainsFunc(p.Problems, func(q brief.Problem) bool { return q.Field == "dress.finishes.0."+field }) {
			t.Errorf("%s: %v", finish, p.Problems)
		}
	}
}

// A band of the dressing is formed on the box when it says so, whatever the house does: longer on the
// sheet, and trimmed; drawn and proved as the scored one is.
func TestBandFormedOnTheBox(t *testing.T) {
	for form, spare := range map[string]measure.Length{"": 12, "scored": 0, "wrapped": 12} {
		b := tried.Metric("tray-lid", 90, 70, 40, "tools.wraps", "formed")
		p := advice.Make(tried.Dressed(b, `{"band": {"width": "20 mm", "form": "`+form+`"}}`), request.Default)
		band := p.Box.Piece("paper band")
		if !p.Holds() || band == nil || len(band.Passes) == 0 {
			t.Fatal(form, p.Problems, tried.Said(p))
		}
		cut := p.Blanks(band, p.Copies)[0]
		if off := cut.W + cut.H - band.Width - band.Height; off != spare*measure.Millimetre {
			t.Errorf("%q: it is cut %v longer", form, off)
		}
		if formed := tried.StepOf(p, "stick:paper band").Title == bench.FormOn; formed != (spare > 0) {
			t.Errorf("%q: formed on the box: %v", form, formed)
		}
	}
}
