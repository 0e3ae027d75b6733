package web

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
)

// How the shop is shown.

// shopState is the shop as its page shows it.
type shopState struct {
	*readShop
	kept
}

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

func (s *Server) showShop(c *echo.Context, code int, head store.Head[shop.Document], e edited[shop.Document]) error {
	ctx, v := c.Request().Context(), shopViewOf(c)
	now, err := s.shopNow(ctx)
	if err != nil {
		return err
	}
	if now.ID == 0 { // plans may be made with another until anything is changed
		now = readAs(head)
	}
	st := &shopState{readShop: now}
	if st.kept, err = keptOf(ctx, s.shopKind(c), &now.Head, &e, func(path string) string {
		return labelled(shop.Form, &now.Doc, path)
	}); err != nil {
		return err
	}
	if now.ID == 0 {
		st.Said = "As it ships"
	}
	if e.part != "" {
		v.Card = e.part
	}
	if d := &now.Doc; d.Of(v.Card) < 0 && len(d.Cards) > 0 {
		v.Card = d.Cards[0].ID
	}
	f := shopForm{form{doc: &now.Doc, at: shop.FieldAt, report: now.Report, thick: true}}
	data := &shopPage{page: page{Part: "shopbench", Title: "The shop: " + titleOf(v.Stage), InPlace: true}, S: st, V: v,
		Base: now.ID, Path: "/shop", Here: v.Link(), Rail: shopRail(v, st), Groups: f.shopGroups(v, st)}
	if err := s.shopTable(ctx, data); err != nil {
		return err
	}
	return s.render(c, code, "shop", data)
}

// shopPage is a part of the shop as its page shows it.
type shopPage struct {
	page
	S          *shopState
	V          shopView
	Base       int64
	Path, Here string
	Rail       []partLink
	Groups     []group
	Tiles      []tile
	Stock      *brief.Stock // the card that is looked at
	Facts      []fact
	Uses, Keep []store.BoxRev
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
		l := partLink{ID: p.ID, Title: p.Title, State: "settled", Why: "settled", Link: v.Link("part", p.ID, "card", ""),
			Here: p.ID == v.Stage}
		if p.ID == "tools" && st.Doc.Tools == (brief.Tools{}) {
			l.State, l.Why = "guessed", "not described yet: any mark is taken to be set directly"
		}
		own := func(pr brief.Problem) bool { return strings.HasPrefix(pr.Field, owns[p.ID]) }
		if at := slices.IndexFunc(st.Report.Problems, own); at >= 0 {
			l.State, l.Why = "trouble", st.Report.Problems[at].Text
		}
		out = append(out, l)
	}
	return out
}

// shopForm asks about the shop.
type shopForm struct{ form }

// shopGroups are the questions of a part of the shop.
func (f shopForm) shopGroups(v shopView, st *shopState) []group {
	switch v.Stage {
	case "cards":
		return f.cardGroups(v.Card, st)
	case "offcuts":
		return f.offcutGroups(st)
	case "tools":
		return toolGroups(f.form, "tools.")
	case "habits":
		return f.habitGroups()
	case "prices":
		return f.priceGroups()
	}
	return nil
}

func (f shopForm) cardGroups(id string, st *shopState) []group {
	i := st.Doc.Of(id)
	if i < 0 {
		return nil
	}
	card, _ := st.Workshop.Card(id)
	path := "cards.@" + id + "."
	open := func(name, empty string) field { return f.open(path+name, empty) }
	thick := "not measured"
	if card.Estimated {
		thick = "about " + strings.TrimSuffix(card.Caliper.Exact("mm"), " mm")
	}
	pick := func(name string, choices ...style.Choice) field { return f.pick(path+name, choices) }
	motifs := []style.Choice{{ID: "", Label: "as it comes"}}
	for _, m := range shop.Motifs {
		motifs = append(motifs, style.Choice{ID: m, Label: m})
	}
	about := group{Title: called(string(st.Doc.Cards[i].Title), "This card"), ID: "card-" + id, Fields: []field{
		f.ask(path + "title"),
		pick("kind", style.Choice{ID: "card", Label: "card"}, style.Choice{ID: "paper", Label: "paper"},
			style.Choice{ID: "specialty", Label: "specialty"}),
		open("gsm", "not known"), open("caliper", thick), open("ten", "or ten at once"),
		pick("grain", style.Choice{ID: "", Label: "not known"}, style.Choice{ID: "long", Label: "along the long side"},
			style.Choice{ID: "short", Label: "along the short side"}),
		open("sheets", "every size"),
	}, MoreSays: "Bulk, price, in hand, packs", More: []field{open("bulk", "1.25"), open("price",
		"not known"), f.open("currency", "none"),
		open("hand", "not counted"), open("pack", "by the sheet")}}
	if card.Estimated {
		about.Says = []string{fmt.Sprintf("Estimated from its weight: %.2f mm. Measure ten sheets on each other to be sure.",
			card.Caliper.MM())}
	}
	looks := group{Title: "How it looks", ID: "looks", Fields: []field{f.colour(path+"colour", card.Colour),
		f.colour(path+"inside", card.Inside),
		pick("pattern", style.Choice{ID: "", Label: "plain"}, style.Choice{ID: "up", Label: "has a way up"},
			style.Choice{ID: "any", Label: "any way up"})}}
	if p := st.Doc.Cards[i].Pattern; p == "up" || p == "any" {
		looks.Fields = append(looks.Fields, f.pick(path+"motif", motifs), f.colour(path+"ink", card.Ink),
			open("repeat", "24 mm"))
	}
	for _, g := range []*group{&about, &looks} {
		for _, fd := range g.More {
			g.Open = g.Open || fd.Problem != nil
		}
	}
	return []group{about, looks}
}

// colour is a field for a colour, which shows one where none was chosen.
func (f shopForm) colour(path, now string) field {
	fd := f.ask(path)
	if fd.Kind = "colour"; fd.Value == "" || fd.Problem != nil {
		fd.Value = now
	}
	return fd
}

func (f shopForm) offcutGroups(st *shopState) (out []group) {
	var cards []style.Choice
	for _, c := range st.Workshop.Cards {
		cards = append(cards, style.Choice{ID: c.ID, Label: c.Title})
	}
	for _, o := range st.Doc.Offcuts {
		path := "offcuts.@" + o.ID + "."
		out = append(out, group{ID: o.ID, Title: fmt.Sprintf("%s × %s", o.Width, o.Height), Remove: "remove-offcut:" + o.ID,
			Fields: []field{f.ask(path + "width"), f.ask(path + "height"), f.pick(path+"card", cards),
				f.open(path+"from", "not noted")}})
	}
	return append(out, group{Add: "add-offcut", AddSays: "Add an offcut"})
}

// toolGroups ask about the tools: of the shop, or of a box that has others.
func toolGroups(f form, prefix string) []group {
	open := func(name, empty string) field { return f.open(prefix+name, empty) }
	return []group{
		{Title: "Scoring board", ID: "board", Fields: []field{open("grooves", "every mark"), open("board", "12 in"),
			f.pick(prefix+"numbers", []style.Choice{{ID: "", Label: "from the left"}, {ID: "right", Label: "from the right"}})},
			Says: []string{"Several spacings with commas: 1/8 in, 5 mm. Walls are made to fall in a groove; what can't " +
				"is told with the way round it."}},
		{Title: "Other hands", ID: "hands", Fields: []field{
			f.pick(prefix+"scoring", []style.Choice{{ID: "", Label: "a scoring board"}, {ID: "ruler", Label: "a ruler and a stylus"}}),
			f.pick(prefix+"cutting", []style.Choice{{ID: "", Label: "a trimmer"}, {ID: "scissors", Label: "scissors alone"}}),
			f.pick(prefix+"folder", []style.Choice{{ID: "", Label: "a bone folder"}, {ID: "none", Label: "the back of a spoon"}})},
			Says: []string{"Score cards and steps use the tools you choose. With a ruler, you measure every length from one edge."}},
		{Title: "Trimmer", ID: "trimmer", Fields: []field{open("trimmer.reads", "the marks"), open("trimmer.cuts", "12 in")}},
		{Title: "Punches and cutters", ID: "punches", Fields: []field{open("punches", "none")},
			Says: []string{"Holes, notches and rounded corners take a size you own. Reach is how far in from the " +
				"edge a hand punch gets."}},
		{Title: "Tape", ID: "tape", Fields: []field{open("tape", "10 mm")}},
	}
}

func (f shopForm) habitGroups() (out []group) {
	for _, h := range shop.Habits {
		choices := make([]style.Choice, 0, len(h.Choices))
		for _, c := range h.Choices {
			choices = append(choices, style.Choice{ID: c.ID, Label: c.Label, Why: c.Why})
		}
		fd := f.buttons("habits."+h.ID, choices)
		if h.ID == "step" {
			fd = f.pick("habits."+h.ID, choices)
		}
		fd.Label = h.Label
		out = append(out, group{ID: "habit-" + h.ID, Fields: []field{fd}, Says: []string{h.Why}})
	}
	return out
}

// shopTable makes what stands on the table, and beside it, for a part of the shop.
func (s *Server) shopTable(ctx context.Context, data *shopPage) (err error) {
	v, st := data.V, data.S
	switch v.Stage {
	case "cards":
		data.Tiles = tiles(v, st)
		return s.cardFacts(ctx, v.Card, st, data)
	case "offcuts":
		units := measure.DefaultStep(st.Doc.Units())
		label := func(o shop.Kept) string { return units.Show(o.Width).Text + " × " + units.Show(o.Height).String() }
		card := func(id string) shop.Card { c, _ := st.Workshop.Card(id); return c }
		data.Picture = template.HTML(draw.Offcuts(st.Workshop.Offcuts, card, label, tableW, tableH))
	case "tools":
		data.Picture = template.HTML(draw.Tools(st.Workshop.Tools, st.Doc.Units(), tableW, 460))
	case "habits":
		data.History, err = s.store.Shops.History(ctx, store.TheShop, st.ID, 30)
	case "fit":
		data.Learnt = learnt(st)
	}
	return err
}

func tiles(v shopView, st *shopState) (out []tile) {
	for _, stock := range st.Doc.Cards {
		c, ok := st.Workshop.Card(stock.ID)
		t := tile{ID: stock.ID, Title: called(string(stock.Title), "no name"), Link: v.Link("card", stock.ID),
			Here:    stock.ID == v.Card,
			Retired: stock.Retired == "yes", Bad: !ok}
		if ok {
			t.Picture = template.HTML(draw.Swatch(c, 132, 92))
			t.Line = fmt.Sprintf("%d gsm · %s", c.GSM, cardThick(c))
		}
		out = append(out, t)
	}
	slices.SortStableFunc(out, func(a, b tile) int {
		order := map[bool]int{true: 1}
		return order[a.Retired] - order[b.Retired]
	})
	return out
}

func cardThick(c shop.Card) string {
	if c.Estimated {
		return fmt.Sprintf("about %.2f mm", c.Caliper.MM())
	}
	return fmt.Sprintf("%.3g mm", c.Caliper.MM())
}

// cardFacts tells what the numbers of a card come to, and which boxes are made of it.
func (s *Server) cardFacts(ctx context.Context, id string, st *shopState, data *shopPage) error {
	i := st.Doc.Of(id)
	if i < 0 {
		return nil
	}
	stock := st.Doc.Cards[i]
	data.Stock = &stock
	if c, ok := st.Workshop.Card(id); ok {
		data.Facts = factsOf(c, st)
	}
	all, err := s.using(ctx, id)
	if err != nil {
		return err
	}
	var uses, keep []store.BoxRev
	for _, rev := range all {
		if k := ownCard(&rev.Doc, id); k >= 0 && !sameNumbers(rev.Doc.Card.Own[k], stock) {
			keep = append(keep, rev)
		} else {
			uses = append(uses, rev)
		}
	}
	data.Uses, data.Keep = uses[:min(len(uses), mostUses)], keep[:min(len(keep), mostUses)]
	data.MoreUses = max(0, len(uses)-mostUses) + max(0, len(keep)-mostUses)
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
	add("Thickness", fmt.Sprintf("%.3g mm, %.0f thousandths of an inch; %s", c.Caliper.MM(), c.Caliper.MM()/25.4*1000, how))
	bulk := shop.Over{Inner: c.Caliper, Outer: c.Caliper}.Bulk()
	add("Clearance it wants", fmt.Sprintf("%.2f mm snug, %.2f mm easy, with single walls", (bulk+shop.Slack["snug"]).MM(),
		(bulk+shop.Slack["easy"]).MM()))
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
		add("In hand", plainCount(c.Hand, "sheet", "sheets"))
	}
	return out
}

// fitLesson is what was learnt of one card with one kind of walls.
type fitLesson struct {
	Key, Title, Says string
	Aside            bool
	Picture          template.HTML
	Records          []shop.Fit
}

func learnt(st *shopState) (out []fitLesson) {
	for _, k := range shop.Keys(st.Workshop.Learnt) {
		l := st.Workshop.Learnt[k]
		card, _ := st.Workshop.Card(k.Card)
		usual := shop.Slack["snug"]
		one := fitLesson{Key: k.String(), Title: fmt.Sprintf("%s, %s walls", called(card.Title, k.Card), k.Walls),
			Aside:   l.Aside,
			Picture: template.HTML(draw.Learnt(usual, l, 420, 56))}
		if k.Layers > 0 {
			one.Title += ", " + plainCount(k.Layers, "layer", "layers") + " between"
		}
		for _, f := range st.Doc.Fits {
			if string(f.Card) == k.Card && string(f.Walls) == k.Walls && string(f.Layers) == fmt.Sprint(k.Layers) {
				one.Records = append(one.Records, f)
			}
		}
		one.Says = fmt.Sprintf("%.2f mm %s than usual: a snug lid is planned with %.2f mm of ease instead of %.2f mm. With any one of %s "+
			"left out it would lie between %.2f and %.2f mm.", max(l.More, -l.More).MM(), map[bool]string{true: "more",
			false: "less"}[l.More >= 0],
			(usual + l.More).MM(), usual.MM(), plainCount(l.Records, "record",
				"records"), (usual + l.Low).MM(), (usual + l.High).MM())
		out = append(out, one)
	}
	return out
}

// Found tells a record in words.
func (l fitLesson) Found(f shop.Fit) string {
	if f.Gap != "" {
		return "a gap of " + string(f.Gap)
	}
	for _, v := range shop.Verdicts {
		if v.ID == string(f.Verdict) {
			return words.Small(v.Title)
		}
	}
	return string(f.Verdict)
}
