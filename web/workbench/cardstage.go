package workbench

import (
	"context"
	"fmt"
	"html/template"
	"reflect"
	"slices"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/readings"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/core/words"
	"brevium/draw"
	"brevium/web/desk"
)

// What the Card & fit stage tells beside its questions.

// corner is what the table shows of the fit: the sections, drawn, and what is to be
// said of them.
type corner struct {
	Title, Says string
	Verdict     string
	Picture     template.HTML
}

// Sections are the corners of what goes over something.
func (st *State) Sections() []readings.Section {
	if st.Shown == nil {
		return nil
	}
	return readings.Sections(st.Shown)
}

// Grains tells of each piece which way its grain runs.
func (st *State) Grains() []readings.Grain { return readings.Grains(st.Shown) }

// Left is what is left over.
func (st *State) Left() []readings.Left { return readings.LeftOver(st.Shown, st.House.Offcuts()) }

// Supplies is what to lay out for the one box that is shown.
func (st *State) Supplies() []string { return readings.Supplies(st.Shown) }

// Corners draws every corner where something goes over something.
func (st *State) Corners() (out []corner) {
	for _, s := range st.Sections() {
		out = append(out, corner{words.Capital(s.Outer), draw.SectionSays(s, st.Shown.Step.Unit), s.Verdict,
			template.HTML(draw.Section(st.Shown, s, TableW, 330))})
	}
	return out
}

// ownStock is a card that the box describes itself: it keeps it as it was, while the
// shop has other numbers for it, or brings it along.
type ownStock struct{ ID, Says, Act, Do string }

// OwnCards lists those it is made of.
func (st *State) OwnCards() (out []ownStock) {
	r, named := brief.NewReader(&st.Brief), st.Brief.Cards()
	for _, own := range st.Brief.Card.Own {
		mine, ok := shop.ReadStock(r, "", own)
		stock, known := st.House.Stocks[own.ID]
		house, sound := st.House.Card(own.ID)
		switch {
		case !ok || !slices.Contains(named, own.ID) || known && SameNumbers(own, stock):
		case !known:
			out = append(out, ownStock{own.ID, fmt.Sprintf("This box has its own card: %s, %s.", mine.Title,
				mine.Caliper.Fine(r.Step.Unit)),
				"keep-card", "Add it to Supplies"})
		case sound:
			says := fmt.Sprintf("This box uses the old numbers of %s, %s. In Supplies it is %s now.", mine.Title,
				mine.Caliper.Fine(r.Step.Unit), house.Caliper.Fine(r.Step.Unit))
			out = append(out, ownStock{own.ID, says, "take-shop", "Use the new numbers"})
		}
	}
	return out
}

// FromShop lists what the plan took from the shop and the document does not say.
func (st *State) FromShop() []request.Used {
	if st.Shown == nil {
		return nil
	}
	return slices.DeleteFunc(slices.Clone(st.Shown.Used), func(u request.Used) bool { return len(u.Set) == 0 })
}

// takeShop lets the box take the numbers of the shop for a card it kept as it was; a
// set takes them in all its boxes.
func takeShop(_ context.Context, c *pressed) error {
	id := c.Arg
	c.After = func(e *desk.Edited[brief.Brief]) { DropOwn(&e.Doc, id) }
	return nil
}

// writeShop writes what the plan took from the shop into the document.
func writeShop(_ context.Context, c *pressed) error {
	c.Doc = plan.Make(c.Doc, c.shop).Written(c.Doc, nil)
	return nil
}

// Strength tells what a check of strength came to as parts of the bar it is drawn as.
func (st *State) Strength() (out []carried) {
	for _, c := range readings.Carries(st.Shown) {
		whole := max(c.Load, c.Limit, 1)
		out = append(out, carried{c, 100 * c.Load / whole, 100 * c.Limit / whole})
	}
	return out
}

type carried struct {
	readings.Carry
	Has, Bears float64 // hundredths of the longer of the two
}

// Away reports whether a caution was put away on the screen.
func (st *State) Away(id string) bool { return st.House.Seen[id] }

// Against reports whether a piece lies against the grain on its sheet.
func (st *State) Against() bool {
	return slices.ContainsFunc(st.Grains(), func(g readings.Grain) bool { return !g.Runs })
}

// clearanceMoved tells what a change of card, layers, walls or fit did to the clearance.
func (s *Room) clearanceMoved(w request.Workshop, was brief.Brief, now *plan.Plan, e desk.Edited[brief.Brief]) string {
	if was.IsSet() || !now.OK() || reflect.DeepEqual(was.Card, e.Doc.Card) && reflect.DeepEqual(was.Dress, e.Doc.Dress) &&
		was.Tools == e.Doc.Tools {
		return ""
	}
	before := s.bare(was, w)
	corner := readings.Sections(now)
	if !before.OK() || len(corner) == 0 || before.Box.Clearance == now.Box.Clearance {
		return ""
	}
	by, way := now.Box.Clearance-before.Box.Clearance, "larger"
	if by < 0 {
		by, way = -by, "smaller"
	}
	return fmt.Sprintf("The %s is %s %s than it was before this change.", corner[0].Outer, now.Say(by), way)
}
