package web

import (
	"context"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"net/http/httptest"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/cutlist"
	"brevium/store"
	"brevium/web/sheets"
	"brevium/web/supplies"
	"brevium/web/workbench"
)

// tubes is a box of one typed piece, three of it.
func tubes() brief.Brief {
	b, err := brief.Decode([]byte(`{"brevium":1,"name":"Tubes","units":"mm","copies":3,"box":{"style":"score-list","pieces":[
		{"name":"tube","is":"tube","width":"180 mm","height":"121 mm","across":"42, 84, 126, 168"}]},
		"card":{"stock":"cover-216","sheet":"a4"},"tools":{"step":"1 mm","fit":"snug"}}`))
	if err != nil {
		panic(err)
	}
	return b
}

func (a *app) shopHas() (hand string, offcuts int) {
	a.t.Helper()
	now := a.shop()
	return now.Get("cards.@cover-216.hand"), len(now.Offcuts)
}

// A piece is held, moved, turned and let go; what can't be read does nothing.
func TestHolding(t *testing.T) {
	a := newApp(t)
	id := a.begin(tubes())
	path := "/projects/" + id
	act := func(what string) string {
		t.Helper()
		w := a.post(path+"/change?stage=sheets&view=sheets", "base", fmt.Sprint(a.head(id).ID), "act", what)
		if w.Code != 200 {
			t.Fatalf("%s: %d", what, w.Code)
		}
		return w.Body.String()
	}
	if page := act("hold:0:0:here"); !strings.Contains(page, "pin-mark") || !strings.Contains(page, "1 pinned by you") {
		t.Error("what is held is not told")
	}
	pins := a.head(id).Doc.Sheets.Pins
	if len(pins) != 1 || pins[0].Piece != "tube" || pins[0].Sheet != "1" {
		t.Fatalf("%+v", pins)
	}
	act("hold:0:0:down")
	act("hold:0:0:down")
	if pins = a.head(id).Doc.Sheets.Pins; len(pins) != 1 || pins[0].Y != "2 mm" {
		t.Errorf("%+v", pins)
	}
	act("hold:0:0:turn")
	if pins = a.head(id).Doc.Sheets.Pins; len(pins) != 1 || pins[0].Turned != "yes" {
		t.Errorf("%+v", pins)
	}
	act("hold:0:0:turn")
	act("hold:0:0:here:7.2:-300")
	if pins = a.head(id).Doc.Sheets.Pins; len(pins) != 1 || pins[0].X != "7 mm" || pins[0].Y != "0 mm" {
		t.Errorf("%+v", pins)
	}
	// Another beside it is on the same sheet, under the same number.
	b := a.head(id).Doc
	b.Sheets.Pins[0].X, b.Sheets.Pins[0].Y = "0", "150"
	if pins = b.Sheets.Pins; !workbench.SamePlace(pins[0], brief.Pin{Piece: "tube", X: "0 mm", Y: "15 cm"}, "mm") {
		t.Error("one place is two")
	}
	if act("hold:0:0:free"); len(a.head(id).Doc.Sheets.Pins) != 0 {
		t.Error("it is held still")
	}
	if page := act("hold:9:9:here"); !strings.Contains(page, "moved that piece") {
		t.Error("a piece that is not there was held")
	}
	if w := a.post(path+"/change", "base", fmt.Sprint(a.head(id).ID), "act", "hold:x"); w.Code != 400 {
		t.Errorf("%d", w.Code)
	}
}

// “Cut it” takes sheets and puts offcuts in, as one change that is undone whole.
func TestCutIt(t *testing.T) {
	a := newApp(t)
	id := a.begin(tubes())
	a.post("/shop/change", "cards.@cover-216.hand", "7", "cards.@cover-216.sheets", "a4", "cards.@cover-216.pack", "5")
	hand, offcuts := a.shopHas()
	if hand != "7" {
		t.Fatalf("%q in hand", hand)
	}
	w := a.post("/projects/"+id+"/cut?stage=sheets&view=sheets", "base", fmt.Sprint(a.head(id).ID))
	if now, kept := a.shopHas(); w.Code != 200 || now != "5" || kept <= offcuts || !strings.Contains(w.Body.String(), "2 sheets taken") {
		t.Errorf("%d: %s in hand, %d offcuts", w.Code, now, kept)
	}
	made := regexp.MustCompile(`name="shop" value="(\d+)"`).FindStringSubmatch(w.Body.String())[1]
	if stash := a.get("/shop/stash.csv").Body.String(); !strings.Contains(stash, "whole sheets") || !strings.Contains(stash, "Tubes") {
		t.Error(stash)
	}
	a.post("/projects/"+id+"/uncut?stage=sheets", "base", fmt.Sprint(a.head(id).ID), "shop", made)
	if now, kept := a.shopHas(); now != "7" || kept != offcuts {
		t.Errorf("%s in hand, %d offcuts of %d", now, kept, offcuts)
	}
	a.post("/shop/change", "cards.@cover-216.hand", "1")
	csv := a.get("/projects/" + id + "/shopping.csv").Body.String()
	if want := `"A4, 210 × 297 mm",2,1,1,1,4,`; !strings.Contains(csv, want) {
		t.Errorf("%s: want %s", csv, want)
	}
}

// hard is a list of which a quick look proves nothing.
func hard() cutlist.List {
	r := rand.New(rand.NewPCG(6, 602))
	l := cutlist.List{Name: "Hard", Units: "mm", Sheets: []cutlist.Sheet{{Name: "S", Width: "100", Height: "100"}}}
	for i := range 60 {
		w, h := 67+r.IntN(34), 1+r.IntN(50)
		if i%4 == 0 {
			w, h = 1+r.IntN(50), 50+r.IntN(50)
		}
		l.Pieces = append(l.Pieces, cutlist.Piece{Name: brief.Text(fmt.Sprint("p", i)), Width: brief.Text(fmt.Sprint(w)),
			Height: brief.Text(fmt.Sprint(h))})
	}
	return l
}

// A search tells how far it is and ends; what it found is remembered and shown.
func TestLeastStream(t *testing.T) {
	a := newApp(t)
	id, err := a.store.Lists.Create(t.Context(), hard(), "new")
	if err != nil {
		t.Fatal(err)
	}
	if page := a.get("/cut/" + id).Body.String(); !strings.Contains(page, `data-least="/cut/`+id+`/least"`) {
		t.Fatal("nothing is looked for")
	}
	w := a.get("/cut/" + id + "/least")
	events := strings.Split(strings.TrimSpace(w.Body.String()), "\n\n")
	if w.Header().Get("Content-Type") != "text/event-stream" || len(events) < 4 {
		t.Fatalf("%d events: %.300s", len(events), w.Body.String())
	}
	last := -1.0
	for i, e := range events {
		var p sheets.Progress
		if err := json.Unmarshal([]byte(strings.TrimPrefix(e, "data: ")), &p); err != nil {
			t.Fatalf("%v: %s", err, e)
		}
		if p.Done < last || p.Ended != (i == len(events)-1) || p.Better && !strings.Contains(p.HTML, "cut-sheet") {
			t.Fatalf("%+v after %v", p, last)
		}
		last = p.Done
	}
	if page := a.get("/cut/" + id).Body.String(); strings.Contains(page, "data-least") {
		t.Error("it is looked for again")
	}
}

// Boxes are cut together, in no more sheets than alone; what can't be is told.
func TestFair(t *testing.T) {
	a := newApp(t)
	one, two := a.begin(tubes()), a.begin(tubes())
	broken := tubes()
	broken.Box.Pieces[0].Width = "soon"
	three := a.begin(broken)
	page := a.get("/fair?p=" + one + "&p=" + two + "&p=" + three + "&p=" + one + "&p=none").Body.String()
	for _, says := range []string{"2 boxes: <b>3 sheets</b> together, 4 one by", "has no plan yet", "no longer exists",
		"What you have and need"} {
		if !holds(page, says) {
			t.Errorf("it does not say %s", says)
		}
	}
	_, before := a.shopHas()
	press := func(path, shop string) (page, to string) {
		t.Helper()
		form := url.Values{"p": {one, two}, "shop": {shop}}
		r := httptest.NewRequest("POST", path, strings.NewReader(form.Encode()))
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		w := a.do(r)
		if to = w.Header().Get("Location"); w.Code != 303 {
			t.Fatalf("%s: %d", path, w.Code)
		}
		return a.get(to).Body.String(), to
	}
	page, to := press("/fair/cut", "")
	if _, kept := a.shopHas(); kept <= before || !strings.Contains(page, "3 sheets taken") {
		t.Errorf("%d offcuts after %d", kept, before)
	}
	if page, _ := press("/fair/uncut", "1"); !strings.Contains(page, "have changed since") {
		t.Error("another change was undone")
	}
	cut := to[strings.LastIndexByte(to, '=')+1:]
	if page, _ := press("/fair/uncut", cut); !strings.Contains(page, "back in your supplies") {
		t.Error("it was not undone")
	}
	if _, kept := a.shopHas(); kept != before {
		t.Errorf("%d offcuts, %d before", kept, before)
	}
	if csv := a.get("/fair/shopping.csv?p=" + one + "&p=" + two).Body.String(); !strings.Contains(csv, ",3,") {
		t.Error(csv)
	}
	many := "/fair?"
	for i := range supplies.MostTogether + 1 {
		many += fmt.Sprintf("p=%d&", i)
	}
	if w := a.get(many); w.Code != 400 {
		t.Errorf("%d", w.Code)
	}
}

// A list is typed, changed, refused where it can't be, told of two windows, taken in as
// CSV and thrown away and put back.
func TestCutLists(t *testing.T) {
	a := newApp(t)
	w := a.post("/cut")
	path := w.Header().Get("Location")
	if w.Code != 303 || !strings.Contains(a.get(path).Body.String(), "cut-sheet") || !strings.Contains(a.get("/cut").Body.String(), path) {
		t.Fatalf("%d %s", w.Code, path)
	}
	a.acts(path, "act", "add-piece")
	list, err := a.store.Lists.Head(t.Context(), strings.TrimPrefix(path, "/cut/"))
	if err != nil || len(list.Doc.Pieces) != 2 {
		t.Fatal(list, err)
	}
	sheet, label, tag := "sheets.@1.", "pieces.@1.", "pieces.@"+list.Doc.Pieces[1].ID+"."
	fields := []string{"base", a.base(path), "name", "Labels", "units", "mm", sheet + "name", "A4", sheet + "width", "210 mm",
		sheet + "height", "297 mm", label + "name", "label", label + "width", "100 mm", label + "height", "90 mm", label + "count", "6",
		label + "turn", "no", tag + "name", "tag", tag + "height", "30 mm"}
	if w := a.post(path+"/change", fields...); w.Code != 200 {
		t.Fatalf("%d", w.Code)
	}
	if page := a.get(path).Body.String(); !strings.Contains(page, "tag has no width") || strings.Contains(page, "cut-sheet") {
		t.Error("a piece without a width was laid")
	}
	// Another window takes the first piece out; what this one types goes to the second all the same.
	shown := a.base(path)
	a.acts(path, "act", "remove-piece:1")
	w = a.post(path+"/change", "base", shown, tag+"width", "40", label+"count", "7")
	if got := text(w); !strings.Contains(got, "“label” was removed in another window") {
		t.Errorf("an older window: %d %s", w.Code, got)
	}
	if l, _ := a.store.Lists.Head(t.Context(), list.Of); len(l.Doc.Pieces) != 1 || l.Doc.Pieces[0].Width != "40 mm" ||
		l.Doc.Pieces[0].Name != "tag" {
		t.Errorf("%+v", l.Doc.Pieces)
	}
	a.acts(path, "act", "add-piece")
	a.post(path+"/undo", "since", a.base(path))
	a.post(path+"/undo", "any", "yes")
	a.undoes(path, "Removed a piece")
	a.acts(path, tag+"width", "40")
	page := a.get(path).Body.String()
	if !strings.Contains(page, "fewest possible") && !strings.Contains(page, "fewest possible (proved)") {
		t.Error("it is not laid and proved")
	}
	if csv := a.get(path + "/pieces.csv").Body.String(); !strings.Contains(csv, "label,100 mm,90 mm,6,no") {
		t.Error(csv)
	}
	if w := a.send(path+"/csv", "list", "name,height\na,1"); w.Code != 400 || !strings.Contains(w.Body.String(), "was not added") {
		t.Errorf("%d", w.Code)
	}
	if w := a.send(path+"/csv", "list", "name,width,height,count\nnew,10,20,3"); w.Code != 303 ||
		!strings.Contains(a.get(path).Body.String(), `value="new"`) {
		t.Errorf("%d", w.Code)
	}
	if w := a.send("/cut", "list", "width,height\n1,2"); w.Code != 303 {
		t.Errorf("%d", w.Code)
	}
	a.post(path + "/away")
	if strings.Contains(a.get("/cut").Body.String(), path+`"`) || !strings.Contains(a.get(path).Body.String(), "You deleted") {
		t.Error("it was not deleted")
	}
	if a.post(path + "/back"); !strings.Contains(a.get("/cut").Body.String(), path+`"`) {
		t.Error("it is not back")
	}
	if w := a.get("/cut/none"); w.Code != 404 {
		t.Errorf("%d", w.Code)
	}
}

// What a deep search of a box found is offered when it is less than what the box is cut
// from, and one click cuts it so.
func TestFoundIsOffered(t *testing.T) {
	a := newApp(t)
	r := rand.New(rand.NewPCG(2, 5))
	offered := 0
	for range 60 {
		b := brief.New("in")
		b.Contents, b.Copies = nil, brief.Whole(fmt.Sprint(8+r.IntN(10)))
		b.Box.Style = "cross-fold"
		b.Size = &brief.Size{Length: brief.Text(fmt.Sprintf("%d mm", 40+r.IntN(60))), Width: brief.Text(fmt.Sprintf("%d mm", 30+r.IntN(50))),
			Depth: brief.Text(fmt.Sprintf("%d mm", 15+r.IntN(30)))}
		id := a.begin(b)
		path := "/projects/" + id
		if !strings.Contains(a.get(path+"?stage=sheets&view=sheets").Body.String(), "data-least") {
			continue
		}
		a.get(path + "/least")
		page := a.get(path + "?stage=sheets&view=sheets").Body.String()
		if strings.Contains(page, "data-least") {
			t.Fatal("it is looked for again")
		}
		if !strings.Contains(page, "Found a better layout") {
			continue
		}
		offered++
		now := a.post(path+"/change?stage=sheets&view=sheets", "base", fmt.Sprint(a.head(id).ID), "act", "take-deep").Body.String()
		if strings.Contains(now, "Found a better layout") || a.head(id).Doc.Sheets.Look != "deep" {
			t.Fatal("it is not cut so")
		}
		if offered == 3 {
			return
		}
	}
	t.Errorf("only %d searches found less than the quick rules", offered)
}

// leaver looks on for a few words and then leaves.
type leaver struct {
	*httptest.ResponseRecorder
	words int
	leave func()
}

func (l *leaver) Flush() {
	if l.words--; l.words == 0 {
		l.leave()
	}
}

// Who stops looking keeps what was found so far; it can be looked for again.
func TestStopLooking(t *testing.T) {
	a := newApp(t)
	id, err := a.store.Lists.Create(t.Context(), hard(), "new")
	if err != nil {
		t.Fatal(err)
	}
	ctx, leave := context.WithCancel(t.Context())
	r := httptest.NewRequest("GET", "/cut/"+id+"/least", nil).WithContext(ctx)
	r.Host = "127.0.0.1:8417"
	w := &leaver{httptest.NewRecorder(), 3, leave}
	a.handler.ServeHTTP(w, r)
	if told := w.Body.String(); strings.Contains(told, `"ended"`) || strings.Count(told, "data: ") > 4 {
		t.Errorf("it went on: %.200s", told)
	}
	if page := a.get("/cut/" + id).Body.String(); !strings.Contains(page, "data-least") || !strings.Contains(page, "cut-sheet") {
		t.Error("it can't be looked for again")
	}
}

// What is remembered of a search serves the offcuts that are in hand now, though others of
// that size were cut up before; and undo takes back the cut, not what was done since.
func TestOffcutsOfOneSize(t *testing.T) {
	a := newApp(t)
	b := tubes()
	b.Copies, b.Sheets.Offcuts = "1", "yes"
	id := a.begin(b)
	offcut := func() string {
		t.Helper()
		a.post("/shop/change", "act", "add-offcut")
		now := a.shop()
		o := now.Offcuts[len(now.Offcuts)-1].ID
		for _, other := range now.Offcuts {
			if now.Get("offcuts.@"+other.ID+".width") == "" {
				o = other.ID
			}
		}
		a.post("/shop/change", "offcuts.@"+o+".width", "200 mm", "offcuts.@"+o+".height", "130 mm", "offcuts.@"+o+".card", "cover-216")
		return o
	}
	has := func(o string) bool {
		now := a.shop()
		return now.Get("offcuts.@"+o+".width") != ""
	}
	for range 2 {
		o := offcut()
		a.post("/projects/"+id+"/cut?stage=sheets", "base", fmt.Sprint(a.head(id).ID))
		if has(o) {
			t.Fatal("the offcut that was cut up is there still")
		}
	}
	now, err := a.store.Shops.Head(t.Context(), store.TheShop)
	if err != nil {
		t.Fatal(err)
	}
	cut := fmt.Sprint(now.ID)
	o := offcut()
	page := a.post("/projects/"+id+"/uncut?stage=sheets", "base", fmt.Sprint(a.head(id).ID), "shop", cut).Body.String()
	if !has(o) || !strings.Contains(page, "have changed since") {
		t.Error("what was done after the cut was taken back")
	}
}
