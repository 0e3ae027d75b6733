package advice

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/readings"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/words"
)

// strengthen tries what makes a box bear more and keeps what does, the least card first: of each way the least
// that helps or, where no one way is enough, two together.
func (a *adviser) strengthen(w request.Workshop, code string) (out []brief.Fix) {
	type helps struct {
		brief.Fix
		card float64
	}
	var all []helps
	try := func(f brief.Fix) bool {
		if !a.affords(2) {
			return false
		}
		q := plan.Borne(a.With(f.Set), w)
		if q == nil || !q.Holds() {
			return false
		}
		if slices.ContainsFunc(readings.Carries(q.Under(a.Above)), func(c readings.Carry) bool { return c.Code == code && !c.Holds }) {
			return false
		}
		all = append(all, helps{f, Grams(q)})
		return true
	}
	ways := a.stronger(w, code)
	for _, way := range ways {
		for _, f := range way {
			if try(f) {
				break
			}
		}
	}
	for i := 0; len(all) == 0 && i < len(ways); i++ {
		for _, other := range ways[i+1:] {
			try(both(ways[i][len(ways[i])-1], other[len(other)-1]))
		}
	}
	slices.SortStableFunc(all, func(a, b helps) int { return cmp.Compare(a.card, b.card) })
	for _, h := range all {
		out = append(out, h.Fix)
	}
	return out
}

// both is two changes made together.
func both(a, b brief.Fix) brief.Fix {
	return brief.Fix{Text: strings.TrimSuffix(a.Text, ".") + ", and " + words.Small(b.Text), Set: a.Set.And(b.Set...)}
}

// stronger lists the ways there are to make this box bear more, each from the least of it to the most.
func (a *adviser) stronger(w request.Workshop, code string) (ways [][]brief.Fix) {
	for _, f := range a.Style.Remedies(style.Stiffer, a.Answers) {
		ways = append(ways, []brief.Fix{f})
	}
	if code == "floor" && a.Style.Tray {
		var liners []brief.Fix
		for n := a.Floor + 1; n <= request.MostLayers; n++ {
			liners = append(liners, brief.Fix{Text: fmt.Sprintf("Glue %s of card over the whole floor.", words.Count(n, "layer")),
				Set: brief.To("dress.floor", fmt.Sprint(n))})
		}
		if len(liners) > 0 {
			ways = append(ways, liners)
		}
	}
	var cards []brief.Fix
	for _, c := range a.heavier(w) {
		cards = append(cards, brief.Fix{Text: "Cut it from " + c.Title + ".", Set: brief.To("card.stock", c.ID)})
	}
	if len(cards) > 0 {
		ways = append(ways, cards)
	}
	if !a.KeepGrain && a.Card.Grain != "" {
		ways = append(ways, []brief.Fix{{Text: "Turn each piece on the sheet so that the grain runs along its longer scores.",
			Set: brief.To("card.grain", "keep")}})
	}
	if code == "floor" && a.Kind != nil && a.Kind.ID == "none" && len(a.Things) > 0 && a.Style.Tray {
		ways = append(ways, []brief.Fix{{Text: "Add slotted dividers, and stick their ends to the walls.",
			Set: brief.To("arrange.compartments", "slotted")}})
	}
	return ways
}

// heavier lists the cards of the shop that are thicker than the box's, the thinnest first.
func (a *adviser) heavier(w request.Workshop) []shop.Card {
	out := slices.DeleteFunc(w.Offered(), func(c shop.Card) bool { return c.Caliper <= a.Card.Caliper })
	slices.SortStableFunc(out, func(a, b shop.Card) int { return cmp.Compare(a.Caliper, b.Caliper) })
	return out
}

// Grams is what the card of one box weighs, as it is cut.
func Grams(p *plan.Plan) (g float64) {
	for _, piece := range p.Box.Pieces() {
		g += piece.Width.MM() * piece.Height.MM() / 1e6 * float64(p.CardOf(piece.Stock).GSM*piece.Count)
	}
	return g
}
