package supplies

import (
	"context"
	"fmt"
	"html/template"
	"slices"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/words"
	"brevium/draw"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/questions"
	"brevium/web/workbench"
)

// How the shop is shown.

// shopState is the shop as its page shows it.
type shopState struct {
	*desk.ReadShop
	desk.Kept
}

// MostMore and LeastMore are the most that records add to the room of a lid, and take from it.
func (st *shopState) MostMore() string  { return shop.MostMore.Fine(st.Doc.Units()) }
func (st *shopState) LeastMore() string { return (-shop.LeastMore).Fine(st.Doc.Units()) }

// partLink is a part of the shop on its rail.
type partLink struct {
	ID, Title, State, Why, Link string
	Here                        bool
}

// tile is a card in the list of them.
type tile struct {
	ID, Title, Line, Link string
	Here, Retired, Bad    bool
	Picture               template.HTML
}

func (s *Room) showShop(c *echo.Context, code int, head store.Head[shop.Document], e desk.Edited[shop.Document]) error {
	ctx, v := c.Request().Context(), shopViewOf(c)
	now, err := s.ShopNow(ctx)
	if err != nil {
		return err
	}
	if now.ID == 0 { // plans may be made with another until anything is changed
		now = desk.ReadAs(head)
	}
	st := &shopState{ReadShop: now}
	if st.Kept, err = desk.KeptOf(ctx, s.ShopKind(c), &now.Head, &e, func(path string) string {
		return desk.Labelled(shop.Form, &now.Doc, path)
	}); err != nil {
		return err
	}
	if now.ID == 0 {
		st.Said = "As it ships"
	}
	if e.Part != "" {
		v.Card = e.Part
	}
	if d := &now.Doc; d.Of(v.Card) < 0 && len(d.Cards) > 0 {
		v.Card = d.Cards[0].ID
	}
	f := shopForm{desk.Form{Doc: &now.Doc, At: shop.FieldAt, Report: now.Report, Thick: true}}
	data := &shopPage{Page: desk.Page{Part: "shopbench", Title: "Supplies: " + titleOf(v.Stage), InPlace: true}, S: st, V: v,
		Base: now.ID, Path: "/shop", Here: v.Link(), Rail: shopRail(v, st), Groups: f.shopGroups(v, st)}
	if err := s.shopTable(ctx, data); err != nil {
		return err
	}
	return s.Render(c, code, "shop", data)
}

// shopPage is a part of the shop as its page shows it.
type shopPage struct {
	desk.Page
	S          *shopState
	V          shopView
	Base       int64
	Path, Here string
	Rail       []partLink
	Groups     []desk.Group
	Tiles      []tile
	Stock      *brief.Stock // the card that is looked at
	Facts      []fact
	Uses, Keep []store.Named
	MoreUses   int
	Picture    template.HTML
	History    []store.Revision[shop.Document]
	Learnt     []fitLesson
}

func titleOf(part string) string {
	for _, p := range shopParts {
		if p.ID == part {
			return p.Title
		}
	}
	return ""
}

func shopRail(v shopView, st *shopState) (out []partLink) {
	owns := map[string]string{"cards": "cards.", "offcuts": "offcuts.", "tools": "tools.", "habits": "habits.",
		"fit": "fits.", "prices": "prices."}
	for _, p := range shopParts {
		l := partLink{ID: p.ID, Title: p.Title, State: "done", Why: "You can change it here.", Link: v.Link("part", p.ID, "card", ""),
			Here: p.ID == v.Stage}
		if p.ID == "tools" && st.Doc.Tools == (brief.Tools{}) {
			l.State, l.Why = "later", "not described yet, so Brevium assumes a groove at every mark"
		}
		own := func(pr brief.Problem) bool { return strings.HasPrefix(pr.Field, owns[p.ID]) }
		if at := slices.IndexFunc(st.Report.Problems, own); at >= 0 {
			l.State, l.Why = "look", st.Report.Problems[at].Text
		}
		out = append(out, l)
	}
	return out
}

// shopForm asks about the shop.
type shopForm struct{ desk.Form }

// shopGroups are the questions of a part of the shop.
func (f shopForm) shopGroups(v shopView, st *shopState) []desk.Group {
	switch v.Stage {
	case "cards":
		return f.cardGroups(v.Card, st)
	case "offcuts":
		return f.offcutGroups(st)
	case "tools":
		return questions.ToolGroups(f.Form, "tools.")
	case "habits":
		return f.habitGroups()
	case "prices":
		return f.priceGroups()
	}
	return nil
}

func (f shopForm) cardGroups(id string, st *shopState) []desk.Group {
	i := st.Doc.Of(id)
	if i < 0 {
		return nil
	}
	card, _ := st.Workshop.Card(id)
	path := "cards.@" + id + "."
	open := func(name, empty string) desk.Field { return f.Open(path+name, empty) }
	thick := "not measured"
	if card.Estimated {
		thick = "about " + strings.TrimSuffix(card.Caliper.Exact("mm"), " mm")
	}
	pick := func(name string, choices ...style.Choice) desk.Field { return f.Pick(path+name, choices) }
	motifs := []style.Choice{{ID: "", Label: "any way"}}
	for _, m := range shop.Motifs {
		motifs = append(motifs, style.Choice{ID: m, Label: m})
	}
	about := desk.Group{Title: desk.Called(string(st.Doc.Cards[i].Title), "This card"), ID: "card-" + id, Fields: []desk.Field{
		f.Ask(path + "title"),
		pick("kind", style.Choice{ID: "card", Label: "card"}, style.Choice{ID: "paper", Label: "paper"},
			style.Choice{ID: "specialty", Label: "specialty"}),
		open("gsm", "not known"), open("caliper", thick), open("ten", "or ten at once"),
		pick("grain", style.Choice{ID: "", Label: "not known"}, style.Choice{ID: "long", Label: "along the long side"},
			style.Choice{ID: "short", Label: "along the short side"}),
		open("sheets", "every size"),
	}, MoreSays: "Bulk, price, in hand, packs", More: []desk.Field{open("bulk", "1.25"), open("price",
		"not known"), f.Open("currency", "none"),
		open("hand", "not counted"), open("pack", "by the sheet")}}
	if card.Estimated {
		about.Says = []string{fmt.Sprintf("Estimated from its weight: %s. Measure a stack of ten sheets to be sure.",
			card.Caliper.Fine(st.Doc.Units()))}
	}
	looks := desk.Group{Title: "How it looks", ID: "looks", Fields: []desk.Field{f.colour(path+"colour", card.Colour),
		f.colour(path+"inside", card.Inside),
		pick("pattern", style.Choice{ID: "", Label: "plain"}, style.Choice{ID: "up", Label: "has a way up"},
			style.Choice{ID: "any", Label: "any way up"})}}
	if p := st.Doc.Cards[i].Pattern; p == "up" || p == "any" {
		looks.Fields = append(looks.Fields, f.Pick(path+"motif", motifs), f.colour(path+"ink", card.Ink),
			open("repeat", "24 mm"))
	}
	for _, g := range []*desk.Group{&about, &looks} {
		for _, fd := range g.More {
			g.Open = g.Open || fd.Problem != nil
		}
	}
	return []desk.Group{about, looks}
}

// colour is a field for a colour, which shows one where none was chosen.
func (f shopForm) colour(path, now string) desk.Field {
	fd := f.Ask(path)
	if fd.Kind = "colour"; fd.Value == "" || fd.Problem != nil {
		fd.Value = now
	}
	return fd
}

func (f shopForm) offcutGroups(st *shopState) (out []desk.Group) {
	var cards []style.Choice
	for _, c := range st.Workshop.Cards {
		cards = append(cards, style.Choice{ID: c.ID, Label: c.Title})
	}
	for _, o := range st.Doc.Offcuts {
		path := "offcuts.@" + o.ID + "."
		out = append(out, desk.Group{ID: o.ID, Title: fmt.Sprintf("%s × %s", o.Width, o.Height), Remove: "remove-offcut:" + o.ID,
			Fields: []desk.Field{f.Ask(path + "width"), f.Ask(path + "height"), f.Pick(path+"card", cards),
				f.Open(path+"from", "not noted")}})
	}
	return append(out, desk.Group{Add: "add-offcut", AddSays: "Add an offcut"})
}

func (f shopForm) habitGroups() (out []desk.Group) {
	for _, h := range shop.Habits {
		choices := make([]style.Choice, 0, len(h.Choices))
		for _, c := range h.Choices {
			choices = append(choices, style.Choice{ID: c.ID, Label: c.Label, Why: c.Why})
		}
		fd := f.Buttons("habits."+h.ID, choices)
		if h.ID == "step" {
			fd = f.Pick("habits."+h.ID, choices)
		}
		fd.Label = h.Label
		out = append(out, desk.Group{ID: "habit-" + h.ID, Fields: []desk.Field{fd}, Says: []string{h.Why}})
	}
	return out
}

// shopTable makes what stands on the table, and beside it, for a part of the shop.
func (s *Room) shopTable(ctx context.Context, data *shopPage) (err error) {
	v, st := data.V, data.S
	switch v.Stage {
	case "cards":
		data.Tiles = tiles(v, st)
		return s.cardFacts(ctx, v.Card, st, data)
	case "offcuts":
		units := measure.DefaultStep(st.Doc.Units())
		label := func(o shop.Kept) string { return units.Show(o.Width).Text + " × " + units.Show(o.Height).String() }
		card := func(id string) shop.Card { c, _ := st.Workshop.Card(id); return c }
		data.Picture = template.HTML(draw.Offcuts(st.Workshop.Offcuts(), card, label, workbench.TableW, workbench.TableH))
	case "tools":
		data.Picture = template.HTML(draw.Tools(st.Workshop.Tools, st.Doc.Units(), workbench.TableW, 460))
	case "habits":
		data.History, err = s.Store.Shops.History(ctx, store.TheShop, st.ID, 30)
	case "fit":
		data.Learnt = learnt(st)
	}
	return err
}

func tiles(v shopView, st *shopState) (out []tile) {
	for _, stock := range st.Doc.Cards {
		c, ok := st.Workshop.Card(stock.ID)
		t := tile{ID: stock.ID, Title: desk.Called(string(stock.Title), "no name"), Link: v.Link("card", stock.ID),
			Here:    stock.ID == v.Card,
			Retired: stock.Retired == "yes", Bad: !ok}
		if ok {
			t.Picture = template.HTML(draw.Swatch(c, 132, 92))
			t.Line = fmt.Sprintf("%d gsm · %s", c.GSM, cardThick(c, st.Doc.Units()))
		}
		out = append(out, t)
	}
	slices.SortStableFunc(out, func(a, b tile) int {
		order := map[bool]int{true: 1}
		return order[a.Retired] - order[b.Retired]
	})
	return out
}

func cardThick(c shop.Card, unit measure.Unit) string {
	if c.Estimated {
		return "about " + c.Caliper.Fine(unit)
	}
	return c.Caliper.Fine(unit)
}

// cardFacts tells what the numbers of a card come to, and which boxes are made of it.
func (s *Room) cardFacts(ctx context.Context, id string, st *shopState, data *shopPage) error {
	i := st.Doc.Of(id)
	if i < 0 {
		return nil
	}
	stock := st.Doc.Cards[i]
	data.Stock = &stock
	if c, ok := st.Workshop.Card(id); ok {
		data.Facts = factsOf(c, st)
	}
	uses, named, err := s.Store.Naming(ctx, id, mostUses)
	if err != nil {
		return err
	}
	own, described, err := s.Store.Describing(ctx, id, mostUses)
	if err != nil {
		return err
	}
	var keep []store.Named
	for _, rev := range own {
		box := store.Named{Of: rev.Of, Title: string(rev.Doc.Name)}
		if k := workbench.OwnCard(&rev.Doc, id); !workbench.SameNumbers(rev.Doc.Card.Own[k], stock) {
			keep = append(keep, box)
		} else {
			uses = append(uses, box)
		}
	}
	data.Uses, data.Keep = uses, keep
	data.MoreUses = max(0, named-mostUses) + max(0, described-mostUses)
	return nil
}

// mostUses is how many boxes of a card are listed.
const mostUses = 40

// fact is a line of the tally.
type fact struct{ Name, Is string }

func factsOf(c shop.Card, st *shopState) (out []fact) {
	add := func(name, is string) { out = append(out, fact{name, is}) }
	var pounds []string
	for _, g := range shop.Grades[:3] {
		pounds = append(pounds, fmt.Sprintf("%.0f lb %s", g.Pounds(float64(c.GSM)), g.ID))
	}
	add("Weight", fmt.Sprintf("%d gsm: %s", c.GSM, strings.Join(pounds, ", ")))
	how := "measured"
	if c.Estimated {
		how = "an estimate, from weight and bulk"
	}
	unit := st.Doc.Units()
	add("Thickness", c.Caliper.Fine(unit)+"; "+how)
	bulk := shop.Over{Inner: c.Caliper, Outer: c.Caliper}.Bulk()
	add("Room a lid needs", fmt.Sprintf("%s snug, %s easy, with single walls", (bulk+shop.Slack["snug"]).Fine(unit),
		(bulk+shop.Slack["easy"]).Fine(unit)))
	var sheets []string
	for _, t := range st.Workshop.Comes(c) {
		price := ""
		if c.Each > 0 {
			price = fmt.Sprintf(" (%s)", strings.TrimSpace(st.Workshop.Currency+" "+words.Coins(c.Cost(t, 1))))
		}
		sheets = append(sheets, t.Title+price)
	}
	add("Comes in", strings.Join(sheets, "; "))
	if c.Hand >= 0 {
		add("You have", desk.PlainCount(c.Hand, "sheet", "sheets"))
	}
	return out
}
