package plan

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"

	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/words"
)

// strengthen tries what makes a box bear more, and keeps what does, the least card
// first: of each way the least of it that helps or, where no one way does, the most
// of two together.
func (a *adviser) strengthen(w Workshop, code string) (out []Fix) {
	type helps struct {
		Fix
		card float64
	}
	var all []helps
	try := func(f Fix) bool {
		if !a.affords(2) {
			return false
		}
		q := Make(a.With(f.Set), w)
		if !q.Holds() {
			return false
		}
		if slices.ContainsFunc(Carries(q.Under(a.Above)), func(c Carry) bool { return c.Code == code && !c.Holds }) {
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
func both(a, b Fix) Fix {
	out := Fix{strings.TrimSuffix(a.Text, ".") + ", and " + words.Small(b.Text), maps.Clone(a.Set)}
	maps.Copy(out.Set, b.Set)
	return out
}

// stronger lists the ways there are to make this box bear more, each from the least of
// it to the most.
func (a *adviser) stronger(w Workshop, code string) (ways [][]Fix) {
	q, asks := a.Style.Ask("walls")
	rolls := asks && slices.ContainsFunc(q.Choices, func(c style.Choice) bool { return c.ID == "rolled" })
	if rolls && !a.Box.Parts[0].Piece.Has("rolled flap") {
		ways = append(ways, []Fix{{"Roll its walls.", map[string]string{"box.options.walls": "rolled"}}})
	}
	if code == "floor" && a.Style.Tray {
		var liners []Fix
		for n := a.Floor + 1; n <= mostLayers; n++ {
			liners = append(liners, Fix{fmt.Sprintf("Line the floor with %s of card, glued all over.", words.Count(n, "layer")),
				map[string]string{"dress.floor": fmt.Sprint(n)}})
		}
		if len(liners) > 0 {
			ways = append(ways, liners)
		}
	}
	var cards []Fix
	for _, c := range a.heavier(w) {
		cards = append(cards, Fix{"Cut it from " + c.Title + ".", map[string]string{"card.stock": c.ID}})
	}
	if len(cards) > 0 {
		ways = append(ways, cards)
	}
	if !a.KeepGrain && a.Card.Grain != "" {
		ways = append(ways, []Fix{{"Turn each piece on the sheet so that the grain runs along its longer scores.",
			map[string]string{"card.grain": "keep"}}})
	}
	if code == "floor" && a.Kind != nil && a.Kind.ID == "none" && len(a.Things) > 0 && a.Style.Tray {
		ways = append(ways, []Fix{{"Put slotted dividers in, and stick their ends to the walls.",
			map[string]string{"arrange.compartments": "slotted"}}})
	}
	return ways
}

// heavier lists the cards of the shop that are thicker than the box's, the thinnest
// first.
func (a *adviser) heavier(w Workshop) []shop.Card {
	out := slices.DeleteFunc(w.Offered(), func(c shop.Card) bool { return c.Caliper <= a.Card.Caliper })
	slices.SortStableFunc(out, func(a, b shop.Card) int { return cmp.Compare(a.Caliper, b.Caliper) })
	return out
}

// Grams is what the card of one box weighs, as it is cut.
func Grams(p *Plan) (g float64) {
	for _, piece := range p.Box.Pieces() {
		g += piece.Width.MM() * piece.Height.MM() / 1e6 * float64(p.CardOf(piece.Stock).GSM*piece.Count)
	}
	return g
}
