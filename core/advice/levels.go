package advice

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/dress"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/core/words"
)

// How far a maker goes with a box, in one choice that sets many.

// Level is one way to dress the whole box, and what it comes to.
type Level struct {
	ID, Title, Why string
	Dress          brief.Dress
	Pieces, Sheets int
	Minutes        int
	Cost           int64
	Can, Now       bool // it can be done; it is what the document says
	WhyNot         string
	Plan           *plan.Plan // nil when it can't be done
}

// Levels plans the box with no decoration, a little, plenty and as a keepsake.
func Levels(p *plan.Plan, w request.Workshop) []Level { return LevelsOf(p, p.Brief, w, plan.Make) }

// LevelsOf is Levels for a document that this is a plan of, maybe without its dressing. They are planned together by
// make, which must be safe for concurrent use.
func LevelsOf(p *plan.Plan, of brief.Brief, w request.Workshop,
	make func(brief.Brief, request.Workshop) *plan.Plan) []Level {
	if !p.OK() {
		return nil
	}
	out := []Level{
		{ID: "bare", Title: "None", Why: "Plain card, no decoration."},
		{ID: "quick", Title: "A little", Why: "One layer where people look first. Quick to make for a fair table."},
		{ID: "neat", Title: "Plenty", Why: "A layer on every panel you can see, except the underside."},
		{ID: "keepsake", Title: "Keepsake", Why: "Card and paper on every panel, and a lining inside."},
	}
	Together(context.Background(), len(out), func(i int) {
		l := &out[i]
		b := of.Clone()
		b.Dress = dressedAs(p, l.ID, of.Clone().Dress, w)
		l.Dress, l.Now = b.Dress, sameLayers(b.Dress, of.Dress)
		got := make(b, w)
		if l.Can = got.OK(); !l.Can {
			if len(got.Problems) > 0 {
				l.WhyNot = got.Problems[0].Text
			}
			return
		}
		l.Plan = got
		l.Pieces, l.Sheets, l.Minutes, l.Cost = got.Pieces(), len(got.Layout.Sheets), got.Minutes(), got.Cost
	})
	return out
}

// sameLayers reports whether two dressings have the same layers and liners.
func sameLayers(a, b brief.Dress) bool {
	layer := func(x, y brief.Layer) bool { x.ID, y.ID = "", ""; return x == y }
	liner := func(x, y brief.Liner) bool { x.ID, y.ID = "", ""; return x == y }
	return slices.EqualFunc(a.Layers, b.Layers, layer) && slices.EqualFunc(a.Liners, b.Liners, liner)
}

// dressedAs gives the dressing of a level: what it sets in place of layers and liners,
// and the rest as the document has it.
func dressedAs(p *plan.Plan, level string, d brief.Dress, w request.Workshop) brief.Dress {
	d.Layers, d.Liners = nil, nil
	if level != "bare" && d.Scheme == (brief.Scheme{}) {
		d.Scheme = Schemes(p, w)[0].Scheme
	}
	outside := brief.Text("outside")
	if p.Underside {
		outside = "all"
	}
	panels := dress.Panels(p.Box, p.Card.Caliper)
	has := func(meant func(*dress.Panel) bool) bool { return slices.ContainsFunc(panels, meant) }
	switch level {
	case "quick":
		on := brief.Text("top")
		if !has(func(q *dress.Panel) bool { return q.Looks == "above" && q.Shows }) {
			on = "sides"
			if has(func(q *dress.Panel) bool { return q.Looks == "front" && q.Shows }) {
				on = "front"
			}
		}
		d.Layers = []brief.Layer{{ID: "1", On: on}}
	case "neat":
		d.Layers = []brief.Layer{{ID: "1", On: outside}}
	case "keepsake":
		d.Layers = []brief.Layer{{ID: "1", On: "all", Stock: "accent"}, {ID: "2", On: "all", Stock: "second"}}
		if len(p.Box.Rooms) == 0 {
			d.Liners = []brief.Liner{{ID: "1", In: "all"}}
		}
	}
	return d
}

// called is the name of a card without its weight.
func called(title string) string {
	name, _, _ := strings.Cut(title, ",")
	return name
}

// Suit is a scheme of cards that go together, by what it is called.
type Suit struct {
	Title  string
	Scheme brief.Scheme
	Cards  []shop.Card // main, second, accent, plain
}

// Schemes suggests cards of the shop that go together with the box's own: one for every
// printed card, with the accent that stands out most from both.
func Schemes(p *plan.Plan, w request.Workshop) (out []Suit) {
	offered := w.Offered()
	var plains, printed []shop.Card
	for _, c := range offered {
		if c.Pattern == "" {
			plains = append(plains, c)
		} else {
			printed = append(printed, c)
		}
	}
	if len(plains) == 0 {
		plains = []shop.Card{p.Card}
	}
	if len(printed) == 0 {
		printed = plains
	}
	lightest := slices.MaxFunc(plains, func(a, b shop.Card) int {
		return cmp.Compare(dress.Contrast(a.Colour, "#000000"), dress.Contrast(b.Colour, "#000000"))
	})
	for _, second := range printed {
		accent := slices.MaxFunc(plains, func(a, b shop.Card) int {
			stands := func(c shop.Card) float64 {
				return min(dress.Contrast(c.Colour, second.Colour), dress.Contrast(c.Colour, p.Card.Colour)+0.2)
			}
			return cmp.Compare(stands(a), stands(b))
		})
		s := brief.Scheme{Main: brief.Text(p.Card.ID), Second: brief.Text(second.ID), Accent: brief.Text(accent.ID),
			Plain: brief.Text(lightest.ID)}
		out = append(out, Suit{called(second.Title) + " and " + words.Small(called(accent.Title)), s, []shop.Card{p.Card,
			second, accent, lightest}})
	}
	return out
}
