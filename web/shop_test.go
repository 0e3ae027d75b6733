package web

import (
	"fmt"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/store"
	"brevium/web/desk"
)

func (a *app) shop() *shop.Document {
	a.t.Helper()
	s, err := a.store.Shops.Head(a.t.(*testing.T).Context(), store.TheShop)
	if err != nil {
		a.t.Fatal(err)
	}
	return &s.Doc
}

// typeInShop sends a field of the shop as the page does, and gives the page.
func (a *app) typeInShop(path, text string, more ...string) string {
	a.t.Helper()
	part, card := path[:max(0, strings.IndexByte(path, '.'))], ""
	if part == "cards" {
		card = strings.Split(path, ".")[1][1:]
	}
	w := a.post("/shop/change?part="+part+"&card="+card, append([]string{path, text}, more...)...)
	if w.Code != http.StatusOK {
		a.t.Fatalf("%s = %q: %d %s", path, text, w.Code, w.Body)
	}
	return w.Body.String()
}

// A card's numbers move in no box until that is asked for, then in all; undo takes the
// shop back and leaves them what they are.
func TestBoxesKeepTheirCard(t *testing.T) {
	a := newApp(t)
	b := brief.New("in")
	b.Card.Stock = "kraft-300"
	one := a.begin(b)
	b.Set("card.stocks.lid", "kraft-300")
	b.Card.Stock = "cover-216"
	two := a.begin(b)
	other := a.begin(brief.New("in"))
	before := map[string]string{}
	clearance := func(id string) string {
		now, _ := a.store.Shops.Head(t.Context(), store.TheShop)
		p := plan.Make(a.head(id).Doc, desk.ReadAs(now).Workshop)
		return p.Box.Clearance.Exact("mm") + " " + fmt.Sprint(p.CardOf("kraft-300").Caliper)
	}
	for _, id := range []string{one, two, other} {
		before[id] = clearance(id)
	}
	page := a.typeInShop("cards.@kraft-300.ten", "12")
	if !strings.Contains(page, "2 boxes keep the old numbers") ||
		a.shop().Get("cards.@kraft-300.ten") != "12 mm" {
		t.Errorf("what moves is not told: %.600s", page)
	}
	a.typeInShop("cards.@kraft-300.ten", "13 mm")
	for id, was := range before {
		if got := clearance(id); got != was {
			t.Errorf("a box went from %s to %s unasked", was, got)
		}
		if own := len(a.head(id).Doc.Card.Own); own != map[bool]int{true: 0, false: 1}[id == other] {
			t.Errorf("%d cards of its own", own)
		}
	}
	if page := a.get("/projects/" + one + "?stage=card").Body.String(); !strings.Contains(page,
		"uses the old numbers of Kraft, 300 gsm, 0.016 in. In Supplies it is 0.051 in") {
		t.Error("the box does not say what it keeps")
	}
	a.typeInShop("cards.@kraft-300.price", "0.20") // no number of a plan
	if page := a.get("/shop?part=cards&card=kraft-300").Body.String(); !strings.Contains(page, "Boxes planned before you changed this card") {
		t.Error("the shop does not list who keeps them")
	}
	if w := a.post("/projects/"+two+"/change", "act", "take-shop:kraft-300"); w.Code != http.StatusOK ||
		clearance(two) == before[two] {
		t.Error("one box does not take the new numbers when asked")
	}
	a.typeInShop("act", "take-all:kraft-300")
	if clearance(one) == before[one] || len(a.head(one).Doc.Card.Own) != 0 {
		t.Error("the others do not take them when asked")
	}
	a.post("/shop/undo")
	a.post("/shop/undo")
	a.post("/shop/undo")
	if a.shop().Get("cards.@kraft-300.ten") != "12 mm" || len(a.head(one).Doc.Card.Own) != 0 {
		t.Errorf("undone to %q", a.shop().Get("cards.@kraft-300.ten"))
	}
	a.post("/shop/redo")
	if a.shop().Get("cards.@kraft-300.ten") != "13 mm" {
		t.Error("not done again")
	}
}

// A card that only layers, a scheme or a topper is cut from is kept as it was too, in a
// set as well.
func TestDressingKeepsItsCard(t *testing.T) {
	for _, dress := range []brief.Dress{{Layers: []brief.Layer{{On: "base/sides", Stock: "dots-120"}}},
		{Layers: []brief.Layer{{On: "base/sides"}}, Scheme: brief.Scheme{Second: "dots-120"}},
		{Toppers: []brief.Topper{{Shape: "round", Stock: "plain, dots-120"}}}} {
		for _, set := range []bool{false, true} {
			a := newApp(t)
			b := brief.New("in")
			b.Dress = dress
			if set {
				b.AddMember()
				m := b.Member(1)
				b.Dress = brief.Dress{}
				b.SetMember(1, m)
			}
			id := a.begin(b)
			a.typeInShop("cards.@dots-120.ten", "6 mm")
			if own := a.head(id).Doc.Card.Own; len(own) != 1 || own[0].ID != "dots-120" {
				t.Errorf("set %v, %+v: the box keeps %+v", set, dress, own)
			}
		}
	}
}

// A card that boxes are made of is retired; one that none is is taken out. Retired, it
// is offered to no other box.
func TestCardsAreRetired(t *testing.T) {
	a := newApp(t)
	b := brief.New("in")
	b.Card.Stock = "kraft-300"
	id := a.begin(b)
	a.typeInShop("act", "remove-card:kraft-300")
	a.typeInShop("act", "remove-card:light-160")
	d := a.shop()
	if d.Get("cards.@kraft-300.retired") != "yes" || d.Of("light-160") >= 0 {
		t.Error("retired or lost the wrong way round")
	}
	offers := func(id string) bool {
		return strings.Contains(a.get("/projects/"+id+"?stage=card").Body.String(), `<option value="kraft-300"`)
	}
	if !offers(id) || offers(a.begin(brief.New("in"))) {
		t.Error("a retired card is offered to others, or not to its own box")
	}
	b.Card.Stock = "light-160"
	if page := a.get("/projects/" + a.begin(b)).Body.String(); !strings.Contains(page, "You have no card called") {
		t.Error("a card that is gone is not told")
	}
}

// Two windows: what they change differently is shown, the rest is merged; a change that
// comes twice is made once.
func TestTwoWindowsInTheShop(t *testing.T) {
	a := newApp(t)
	a.typeInShop("cards.@kraft-300.price", "0.20", "base", "0")
	page := a.typeInShop("cards.@kraft-300.price", "0.30", "base", "0", "was.cards.@kraft-300.price", "0.16",
		"cards.@kraft-300.hand", "7",
		"was.cards.@kraft-300.hand", "")
	if !strings.Contains(page, "“Kraft, 300 gsm: price of a sheet” was changed in another window too") ||
		a.shop().Get("cards.@kraft-300.price") != "0.20" ||
		a.shop().Get("cards.@kraft-300.hand") != "7" {
		t.Errorf("merged to %q, %q", a.shop().Get("cards.@kraft-300.price"), a.shop().Get("cards.@kraft-300.hand"))
	}
	a.typeInShop("act", "remove-card:light-160")
	if page = a.typeInShop("cards.@light-160.price", "1"); !strings.Contains(page,
		"This was removed in another window") {
		t.Error("a card that is gone takes a price")
	}
	for range 2 {
		a.post("/shop/change", "act", "add-card", "sent-as", "w:1")
	}
	if n := len(a.shop().Cards); n != len(shop.Shipped().Cards) {
		t.Errorf("%d cards", n)
	}
}

// Lists come in whole or not at all, and bad fields are kept as typed with what is
// usual beside them.
func TestShopRefuses(t *testing.T) {
	a := newApp(t)
	w := a.send("/shop/cards", "list", "title,gsm\nHedge,300\nMoss,9000\n")
	if w.Code != http.StatusUnprocessableEntity || !strings.Contains(w.Body.String(), "line 3:") ||
		len(a.shop().Cards) != len(shop.Shipped().Cards) {
		t.Errorf("%d %.400s", w.Code, w.Body)
	}
	if w = a.send("/shop/cards", "list", "title,gsm\nHedge,300\n"); w.Code != http.StatusSeeOther ||
		a.shop().Of("hedge") < 0 {
		t.Errorf("%d: a good list is refused", w.Code)
	}
	if w = a.get("/shop/cards.csv"); !strings.Contains(w.Body.String(), "hedge,Hedge") {
		t.Error("it is not written again")
	}
	for path, usual := range map[string]string{"cards.@kraft-300.ten": "0.2 to 0.5 mm",
		"cards.@kraft-300.gsm":    "150 to 400 gsm",
		"cards.@kraft-300.sheets": "300 x 400 mm", "tools.grooves": "1/8 in or 5 mm"} {
		text := map[bool]string{true: "0 mm", false: "5000"}[strings.HasPrefix(path, "tools")]
		if page := a.typeInShop(path, text); !strings.Contains(strings.NewReplacer(`<span class="fr"><i>`, "", "</i>⁄<i>",
			"/", "</i></span>", "").
			Replace(page), usual) || a.shop().Get(path) == "" {
			t.Errorf("%s = %q does not say %q, or is not kept as typed", path, text, usual)
		}
		a.post("/shop/undo")
	}
	if w := a.post("/shop/change", "act", "sell"); w.Code != http.StatusBadRequest {
		t.Errorf("a button that is none: %d", w.Code)
	}
	if w := a.post("/shop/change", "cards.@kraft-300.title", strings.Repeat("x",
		300)); w.Code != http.StatusUnprocessableEntity {
		t.Errorf("a title of 300 letters: %d", w.Code)
	}
	id := a.begin(brief.New("in"))
	for gap, want := range map[string]string{"": "Choose how it fitted", "wide": "how far the lid moves", "99 mm": "how far the lid moves",
		"0.6 mm": "Saved. Brevium plans"} {
		if w := a.post("/projects/"+id+"/fitted", "gap", gap); !strings.Contains(w.Body.String(), want) {
			t.Errorf("a gap of %q does not say %q", gap, want)
		}
	}
	if len(a.shop().Fits) != 1 {
		t.Errorf("%d records", len(a.shop().Fits))
	}
}

// Habits are in force for every box that does not say otherwise; numbers have the
// other unit beside them where the house wants it.
func TestHabits(t *testing.T) {
	a := newApp(t)
	id := a.begin(brief.New("in"))
	a.typeInShop("habits.walls", "rolled")
	a.typeInShop("habits.second", "yes")
	page := a.get("/projects/" + id + "?stage=card").Body.String()
	if !strings.Contains(page, "Walls: rolled") || !strings.Contains(page, `<small class="second">`) {
		t.Error("a habit is not followed")
	}
	a.post("/projects/"+id+"/change", "box.options.walls", "single", "was.box.options.walls", "")
	if page = a.get("/projects/" + id + "?stage=card").Body.String(); strings.Contains(page, "Walls: rolled") {
		t.Error("a box can't overrule a habit")
	}
	a.typeInShop("habits.units", "mm")
	a.typeInShop("habits.step", "0.5 mm")
	a.typeInShop("habits.fit", "easy")
	w := a.post("/projects")
	made, _, _ := strings.Cut(strings.TrimPrefix(w.Header().Get("Location"), "/projects/"), "?")
	if b := a.head(made).Doc; b.Units != "mm" || b.Tools.Step != "0.5 mm" || b.Tools.Fit != "easy" {
		t.Errorf("a new box begins in %s, by %s, %s", b.Units, b.Tools.Step, b.Tools.Fit)
	}
	a.post("/projects/"+made+"/change", "units", "in", "was.units", "mm")
	if b := a.head(made).Doc; b.Tools.Step != "1/16 in" {
		t.Errorf("in inches it goes by %s", b.Tools.Step)
	}
}

// A plan with a shop of five hundred cards takes hardly longer than with eight.
func BenchmarkShop500(b *testing.B) {
	d := shop.Shipped()
	for i := range 500 {
		d.Cards = append(d.Cards, brief.Stock{ID: fmt.Sprint("c", i), Title: brief.Text(fmt.Sprint("Card ", i)), GSM: "300"})
	}
	read, _ := shop.Read(d)
	for name, w := range map[string]request.Workshop{"8": request.Default, "508": {Shop: *read}} {
		b.Run(name, func(b *testing.B) {
			doc := brief.New("in")
			doc.Card.Stock = brief.Text(w.Cards[0].ID)
			for b.Loop() {
				plan.Make(doc, w)
			}
		})
	}
}

// A box may bring its own card: it can be mended there, and added to the shop. Without
// any card left, every page still shows and says what is missing.
func TestOwnAndNoCards(t *testing.T) {
	a := newApp(t)
	b := brief.New("mm")
	b.Card.Stock, b.Card.Own = "heavy", []brief.Stock{{ID: "heavy", Title: "Hedge board", Caliper: "9 mm"}}
	id := a.begin(b)
	if page := a.get("/projects/" + id + "?stage=card").Body.String(); !strings.Contains(page,
		`name="card.own.@heavy.caliper"`) ||
		!strings.Contains(page, "No card is 9 mm thick.") {
		t.Error("a card of the box's own can't be mended")
	}
	a.post("/projects/"+id+"/change", "card.own.@heavy.caliper", "0.6 mm", "was.card.own.@heavy.caliper", "9 mm")
	if page := a.get("/projects/" + id + "?stage=card").Body.String(); !strings.Contains(page,
		"has its own card: Hedge board, 0.60 mm") {
		t.Error("it is not told that the box brings a card")
	}
	for range 2 {
		if w := a.post("/projects/"+id+"/change", "act", "keep-card:heavy"); !strings.Contains(w.Body.String(),
			"was added to Supplies") {
			t.Errorf("%.300s", w.Body)
		}
	}
	if d := a.shop(); d.Of("heavy") != 0 || len(d.Cards) != len(shop.Shipped().Cards)+1 {
		t.Error("it is not in the shop, or twice")
	}
	for _, c := range a.shop().Cards {
		a.typeInShop("act", "remove-card:"+c.ID)
		a.typeInShop("act", "remove-card:"+c.ID)
	}
	d := a.shop()
	d.Cards = nil
	now, _ := a.store.Shops.At(t.Context(), store.TheShop)
	if _, err := a.store.Shops.Save(t.Context(), store.TheShop, "", store.Change[shop.Document]{Base: now, Doc: *d}); err != nil {
		t.Fatal(err)
	}
	for _, path := range []string{"/", "/shop", "/shop?part=offcuts", "/help", "/how/lid",
		"/projects/" + id + "?stage=card", "/projects/" + id + "?stage=sheets"} {
		if w := a.get(path); w.Code != http.StatusOK {
			t.Errorf("%s without a card: %d", path, w.Code)
		}
	}
	w := a.post("/projects")
	made, _, _ := strings.Cut(w.Header().Get("Location"), "?")
	a.post(made+"/change", "act", "add-thing")
	if page := a.get(made + "?stage=card").Body.String(); !strings.Contains(page, "You have no card called") {
		t.Error("nothing says that there is no card")
	}
}

// A card that comes in other sheets brings its own; the page says what a change did to
// the lid; and without script a conflict is shown as well.
func TestCardsOnTheBench(t *testing.T) {
	a := newApp(t)
	a.typeInShop("cards.@kraft-300.sheets", "300 x 400 mm, a3")
	id := a.begin(brief.New("in"))
	page := a.post("/projects/"+id+"/change?stage=card&view=fit", "card.stock", "kraft-300", "was.card.stock",
		"cover-216").Body.String()
	if b := a.head(id).Doc; b.Card.Sheet != "300 x 400 mm" || strings.Contains(page, `<option value="12x12"`) {
		t.Errorf("the sheet is %s", b.Card.Sheet)
	}
	page = a.post("/projects/"+id+"/change?stage=card&view=fit", "dress.outside", "3", "was.dress.outside", "").Body.String()
	if !strings.Contains(page, "larger than it was before this change") || !strings.Contains(page, "layer outside") {
		t.Error("what moved is not told")
	}
	a.typeInShop("currency", "T", "base", "0")
	r := httptest.NewRequest("POST", "/shop/change?part=cards", strings.NewReader("base=0&currency=U&was.currency="))
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	if w := a.do(r); !strings.Contains(w.Body.String(), "“currency” was changed in another window too") ||
		!strings.Contains(w.Body.String(), "<html") {
		t.Errorf("without script: %d", w.Code)
	}
	r = httptest.NewRequest("POST", "/shop/change?part=tools", strings.NewReader("tools.grooves=5+mm"))
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	if w := a.do(r); w.Code != http.StatusSeeOther || w.Header().Get("Location") != "/shop?part=tools" {
		t.Errorf("%d to %s", w.Code, w.Header().Get("Location"))
	}
	if !strings.Contains(a.get("/projects/"+id+"?stage=sheets").Body.String(), "T 0.") {
		t.Error("the coin does not stand before a cost")
	}
}

// What one request shows is of one state of the shop, whatever another window does to it meanwhile.
func TestOneShopForARequest(t *testing.T) {
	a := newApp(t)
	ctx := desk.WithShop(t.Context())
	before := a.server.Program(ctx)
	head, err := a.store.Shops.Head(ctx, store.TheShop)
	if err != nil {
		t.Fatal(err)
	}
	head.Doc.Currency = "Taler"
	change := store.Change[shop.Document]{Base: head.ID, Doc: head.Doc, What: "Named the coin"}
	if _, err := a.store.Shops.Save(ctx, store.TheShop, "", change); err != nil {
		t.Fatal(err)
	}
	if now := a.server.Program(ctx); now != before || a.server.Workshop(ctx).Currency == "Taler" {
		t.Error("a request saw two shops")
	}
	desk.ShopMoved(ctx)
	if now := a.server.Program(ctx); now == before || a.server.Workshop(ctx).Currency != "Taler" {
		t.Error("a request did not see what it did itself")
	}
}
