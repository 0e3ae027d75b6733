package questions

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/words"
	"brevium/web/desk"
)

// The Card & fit stage: which card for which part, how a lid goes on, what is between,
// and the tools, where they are not the shop's.

func (f Form) card() []desk.Group {
	out := append([]desk.Group{f.cards()}, f.ownCards()...)
	return append(out, f.fit(), f.bench(), f.ownTools())
}

// ownCards asks for what is wrong with the cards a document describes itself.
func (f Form) ownCards() (out []desk.Group) {
	for _, own := range f.b.Card.Own {
		prefix := "card.own.@" + own.ID + "."
		if !slices.ContainsFunc(f.p.Problems, func(p brief.Problem) bool { return strings.HasPrefix(p.Field, prefix) }) {
			continue
		}
		g := desk.Group{ID: "own-" + own.ID, Title: desk.Called(string(own.Title), "This box's own card")}
		for _, name := range brief.Of("card.own") {
			if fd := f.Ask(prefix + name); fd.Value != "" || fd.Problem != nil {
				if fd.Kind == "select" || fd.Kind == "tick" {
					fd.Kind = "text"
				}
				g.Fields = append(g.Fields, fd)
			}
		}
		out = append(out, g)
	}
	return out
}

// cardChoices are the cards of the shop that are not retired, those of the document
// itself, and the one that is chosen, be it there or not.
func (f Form) cardChoices(now string) (out []style.Choice) {
	add := func(c shop.Card, more string) {
		if !slices.ContainsFunc(out, func(o style.Choice) bool { return o.ID == c.ID }) {
			out = append(out, style.Choice{ID: c.ID, Label: c.Title + ", " + desk.Thick(c.Caliper, f.p.Units) + more})
		}
	}
	r := brief.NewReader(f.b)
	for _, own := range f.b.Card.Own {
		if c, ok := shop.ReadStock(r, "card.own.@"+own.ID+".", own); ok {
			add(c, ", from this box")
		}
	}
	for _, c := range f.shop.Cards {
		if !c.Retired || c.ID == now {
			add(c, "")
		}
	}
	return out
}

func (f Form) sheetChoices() (out []style.Choice) {
	comes := f.shop.Sheets
	if c, ok := f.shop.Card(string(f.b.Card.Stock)); ok {
		comes = f.shop.Comes(c)
	}
	if f.p.Comes != nil {
		comes = f.p.Comes(f.p.Card)
	}
	for _, s := range comes {
		out = append(out, style.Choice{ID: s.ID, Label: s.Title})
	}
	if now := string(f.b.Card.Sheet); now != request.Least {
		if s, err := f.shop.AnySheet(now, f.p.Units); err == nil &&
			!slices.ContainsFunc(out, func(c style.Choice) bool { return c.ID == now }) {
			out = append(out, style.Choice{ID: now, Label: s.Title})
		}
	}
	return append(out, style.Choice{ID: request.Least, Label: "whichever uses least"})
}

// cards asks for the card of the box, and of each part that may have another.
func (f Form) cards() desk.Group {
	g := desk.Group{ID: "cards", MoreID: "cards"}
	stock := f.Pick("card.stock", f.cardChoices(string(f.b.Card.Stock)))
	parts := f.parts()
	if len(parts) > 0 && slices.Contains([]string{"lid", "sleeve", "cap", "shell"}, parts[0]) {
		stock.Label = "Card for the base"
	}
	g.Fields = append(g.Fields, stock)
	for i, part := range parts {
		now := f.b.Get("card.stocks." + part)
		choices := append([]style.Choice{{ID: "", Label: "the same"}}, f.cardChoices(now)...)
		fd := f.Choice("select", "card.stocks."+part, "Card for the "+part, "", choices)
		if i == 0 || now != "" || fd.Problem != nil {
			g.Fields = append(g.Fields, fd)
		} else {
			g.More = append(g.More, fd)
		}
	}
	g.MoreSays = "Other parts, grain, two halves"
	g.Fields = append(g.Fields, f.Pick("card.sheet", f.sheetChoices()))
	g.More = append(g.More, f.Pick("card.grain", []style.Choice{{ID: "", Label: "any way"},
		{ID: "keep", Label: "same way on every piece"}}),
		f.Ask("card.join"))
	if c := f.p.Card; c.Estimated {
		g.Says = append(g.Says, fmt.Sprintf("%s: %s is an estimate. Measure it to be sure.", c.Title, c.Caliper.Fine(f.p.Step.Unit)))
	}
	return g
}

// parts are the pieces of this box that may be of another card, what goes over
// something first.
func (f Form) parts() (out []string) {
	if f.Shown == nil || f.p.Style == nil || f.p.Style != f.Shown.Style {
		return nil
	}
	has := func(name string) bool { return f.Shown.Box.Part(name) != nil }
	for _, name := range f.p.Style.Apart {
		if has(name) && f.Shown.Box.Parts[0].Name != name {
			out = append(out, name)
		}
	}
	if has("band") {
		out = append(out, "band")
	}
	for _, p := range f.Shown.Box.Pieces() {
		kind := string(p.Part)
		if (kind == "insert" || kind == "liner") && !slices.Contains(out, kind) {
			out = append(out, kind)
		}
	}
	if f.Shown.Outside+f.Shown.Inside > 0 {
		out = append(out, "layer")
	}
	for part := range brief.Sorted(f.b.Card.Stocks) {
		if !slices.Contains(out, part) {
			out = append(out, part)
		}
	}
	return out
}

func (f Form) fit() desk.Group {
	fits := []style.Choice{{ID: "snug", Label: "Snug"}, {ID: "easy", Label: "Easy"}, {ID: "loose", Label: "Loose"}}
	slack := f.Open("tools.slack", "")
	if f.Shown != nil {
		slack.Open = strings.TrimSuffix(f.Shown.Slack.Fine(f.Report.Units), " "+slack.Unit)
	}
	g := desk.Group{ID: "fit", MoreID: "fit", Fields: []desk.Field{f.Buttons("tools.fit", fits)}, More: []desk.Field{slack,
		f.Open("dress.outside", "0"), f.Open("dress.inside", "0"), f.Open("dress.floor", "0")},
		Tells: []string{"Layers you add under Decoration are counted already."}, MoreSays: "Exact room, layers"}
	for _, fd := range g.More {
		g.Open = g.Open || fd.Problem != nil
	}
	if f.Shown != nil && f.Shown.Chosen != "" {
		g.Says = append(g.Says, f.Shown.Chosen)
	}
	return g
}

// bench asks about units, marks, glue or tape, how numbers are said, and in
// which order the work goes.
func (f Form) bench() desk.Group {
	var adhesives, steps []style.Choice
	house := func(path string, choices []style.Choice) desk.Field {
		fd := f.Buttons(path, choices)
		if f.b.Get(path) == "" {
			fd.Value = f.houseSays(path, choices[0].ID)
		}
		return fd
	}
	for _, a := range shop.Adhesives {
		adhesives = append(adhesives, style.Choice{ID: a.ID, Label: words.Capital(a.Title),
			Why: a.Why + " Tabs of " + desk.Plainly(measure.DefaultStep(f.p.Units).ShowUp(a.Width).String()) + "."})
	}
	for _, s := range measure.Steps {
		if s.Unit.Metric() == f.p.Units.Metric() || s.String() == f.b.Get("tools.step") {
			steps = append(steps, style.Choice{ID: s.String(), Label: "every " + s.String()})
		}
	}
	allowances := []style.Choice{
		{ID: "card", Label: "For the card", Why: "The numbers allow for the card's thickness."},
		{ID: "plain", Label: "Plain numbers", Why: "Round numbers. You trim a sliver where it jams. Often saves a sheet."},
	}
	burnish := []style.Choice{{ID: "after", Label: "After cutting"}, {ID: "before", Label: "Before cutting"}}
	first := []style.Choice{{ID: "drawn", Label: "As drawn"}, {ID: "short", Label: "The short way"},
		{ID: "long", Label: "The long way"}}
	g := desk.Group{ID: "bench", MoreID: "work", MoreSays: "How you work: units, marks, glue", More: []desk.Field{f.Units(),
		f.Pick("tools.step", steps), house("tools.adhesive", adhesives), house("tools.allowances", allowances),
		house("tools.burnish", burnish), house("tools.first", first),
		f.Pick("tools.house", choices("", "as in Supplies", "no", "as when this box was made"))}}
	for _, fd := range g.More {
		g.Open = g.Open || fd.Problem != nil
	}
	return g
}

// houseSays is the answer of the house to what a box leaves open.
func (f Form) houseSays(path, otherwise string) string {
	for _, h := range shop.Habits {
		if does := f.shop.Habit(h.ID); h.Path == path && does != "" {
			return does
		}
	}
	return otherwise
}

// ownTools asks for tools other than the shop's, folded away.
func (f Form) ownTools() desk.Group {
	g := desk.Group{ID: "own-tools", MoreID: "own-tools", MoreSays: "Other tools for this box"}
	for _, part := range ToolGroups(f.Form, "tools.") {
		g.More = append(g.More, part.Fields...)
	}
	for _, fd := range g.More {
		g.Open = g.Open || fd.Problem != nil || fd.Value != "" && fd.Kind != "select"
	}
	return g
}

// ToolGroups ask about the tools: of the shop, or of a box that has others.
func ToolGroups(f desk.Form, prefix string) []desk.Group {
	open := func(name, empty string) desk.Field { return f.Open(prefix+name, empty) }
	return []desk.Group{
		{Title: "Scoring board", ID: "board", Fields: []desk.Field{open("grooves", "every mark"), open("board", "12 in"),
			f.Pick(prefix+"numbers", []style.Choice{{ID: "", Label: "from the left"}, {ID: "right", Label: "from the right"}})},
			Says: []string{"Write several spacings with commas: " + f.Report.Units.Either("1/8, 1/16 in", "5 mm, 1 mm") +
				". Brevium makes walls fall in a groove where it can."}},
		{Title: "Without a board or trimmer", ID: "hands", Fields: []desk.Field{
			f.Pick(prefix+"scoring", []style.Choice{{ID: "", Label: "a scoring board"}, {ID: "ruler", Label: "a ruler and a stylus"}}),
			f.Pick(prefix+"cutting", []style.Choice{{ID: "", Label: "a trimmer"}, {ID: "scissors", Label: "scissors alone"}}),
			f.Pick(prefix+"folder", []style.Choice{{ID: "", Label: "a bone folder"}, {ID: "none", Label: "the back of a spoon"}})},
			Says: []string{"The score cards and steps follow the tools you choose here. With a ruler, measure every length from the same edge."}},
		{Title: "Trimmer", ID: "trimmer", Fields: []desk.Field{open("trimmer.reads", "the marks"), open("trimmer.cuts", "12 in")}},
		{Title: "Punches and cutters", ID: "punches", Fields: []desk.Field{open("punches", "none")},
			Says: []string{"Holes, notches and rounded corners use the sizes you own. Reach is how far in from the " +
				"edge a hand punch gets."}},
		{Title: "Tape", ID: "tape", Fields: []desk.Field{open("tape", "10 mm")}},
	}
}
