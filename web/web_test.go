package web

import (
	"context"
	"fmt"
	"net/http"
	"net/http/httptest"
	"strconv"
	"strings"
	"sync"
	"testing"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/web/workbench"
)

func TestChangeAndUndo(t *testing.T) {
	a := newApp(t)
	id := a.begin(brief.New("in"))
	base := fmt.Sprint(a.head(id).ID)
	w := a.post("/projects/"+id+"/change", "base", base, "burst", "w1:1", "contents.@1.length", "11.5cm",
		"contents.@1.count", "2", "nothing.at.all", "x")
	if w.Code != 200 || !strings.Contains(w.Body.String(), `value="115 mm"`) || strings.Contains(w.Body.String(), "<html") {
		t.Fatalf("%d %.300s", w.Code, w.Body)
	}
	if got := a.head(id).Doc; got.Contents[0].Length != "115 mm" || got.Contents[0].Count != "2" {
		t.Errorf("kept %s", got.Encode())
	}
	// A bad entry is kept, told beside its field, and the last plan stays.
	base = fmt.Sprint(a.head(id).ID)
	body := a.post("/projects/"+id+"/change", "base", base, "burst", "w1:2", "contents.@1.length", "5 3/").Body.String()
	for _, part := range []string{
		`value="5 3/"`, `id="f-contents-1-length-problem"`, "stops in the middle of a fraction",
		"Your previous box", `class="drawing above"`,
	} {
		if !strings.Contains(body, part) {
			t.Errorf("a bad entry: no %q in the answer", part)
		}
	}
	a.post("/projects/" + id + "/undo")
	if got := a.head(id).Doc.Contents[0].Length; got != "115 mm" {
		t.Errorf("undone to %q", got)
	}
	a.post("/projects/" + id + "/redo")
	if got := a.head(id).Doc.Contents[0].Length; got != "5 3/" {
		t.Errorf("redone to %q", got)
	}
}

func TestActs(t *testing.T) {
	a := newApp(t)
	id := a.begin(brief.New("in"))
	do := func(pairs ...string) (brief.Brief, int) {
		w := a.post("/projects/"+id+"/change", append(pairs, "base", fmt.Sprint(a.head(id).ID))...)
		return a.head(id).Doc, w.Code
	}
	if b, _ := do("act", "add-thing"); len(b.Contents) != 2 {
		t.Errorf("%d things", len(b.Contents))
	}
	if b, _ := do("act", "remove-thing:1"); len(b.Contents) != 1 || b.Contents[0].Name != "another thing" ||
		b.Contents[0].ID == "1" {
		t.Errorf("%+v", b.Contents)
	}
	do("act", "add-usual:tulip bulb")
	do("act", "remove-thing:"+a.head(id).Doc.Contents[0].ID)
	if b, _ := do("act", "use-size"); b.Size == nil || b.Size.Length != "5 9/16 in" {
		t.Errorf("%+v", b.Size)
	}
	do("size.length", "4 7/16")
	if b, _ := do("units", "mm"); b.Tools.Step != "1 mm" || b.Size.Length != "4 7/16 in" {
		t.Errorf("changing the unit gives %s, %s", b.Tools.Step, b.Size.Length)
	}
	if b, _ := do("act", "use-contents"); b.Size != nil {
		t.Error("the size is still given")
	}
	if _, code := do("act", "explode"); code != http.StatusBadRequest {
		t.Errorf("a button that is none gives %d", code)
	}
	before := a.head(id).ID
	if _, code := do("notes", strings.Repeat("é", 4001)); code != http.StatusUnprocessableEntity || a.head(id).ID != before {
		t.Errorf("a field too long gives %d", code)
	}
	do("box.options.glitter", "x", "contents.@77.length", "3", "brevium", "2")
	if a.head(id).ID != before {
		t.Error("a field that no project has was kept")
	}
	do("notes", strings.Repeat("é", 4000))
	for range 30 {
		do("act", "add-thing")
	}
	if n := len(a.head(id).Doc.Contents); n != 24 {
		t.Errorf("%d kinds of thing", n)
	}
}

// What a problem offers is done by its button: a box that misses its sheet by a
// sixteenth comes off it in plain numbers, by one click.
func TestMendByClick(t *testing.T) {
	a := newApp(t)
	b := brief.New("in")
	b.Contents, b.Size = nil, &brief.Size{Length: "7 in", Width: "3 in", Depth: "2 1/2 in"}
	b.Box = brief.Box{Style: "flap-box", Options: map[string]brief.Text{"sides": "from-base", "flap-depth": "1 in",
		"closure": "band"}}
	id := a.begin(b)
	if page := a.get("/projects/" + id).Body.String(); !strings.Contains(page, `value="mend:tools.allowances"`) ||
		!strings.Contains(page, "12 in × 12 1/16 in") && !strings.Contains(page, "larger than every sheet") {
		t.Error("the problem, or its remedy, is not on the page")
	}
	for _, says := range []string{"", "That is already fixed."} {
		w := a.post("/projects/"+id+"/change", "act", "mend:tools.allowances", "base", fmt.Sprint(a.head(id).ID))
		if p := plan.Make(a.head(id).Doc, request.Default); w.Code != 200 || !p.Holds() ||
			!strings.Contains(w.Body.String(), says) {
			t.Errorf("%d, %v %+v", w.Code, p.Problems, p.Checks)
		}
	}
}

// A document that is taken in comes out again to the byte; a bad one changes
// nothing.
func TestUpload(t *testing.T) {
	a := newApp(t)
	upload := func(doc string) *httptest.ResponseRecorder { return a.send("/projects/upload", "document", doc) }
	b := brief.New("mm")
	b.Set("contents.@1.length", "5 3/")
	b.Set("notes", "<script>alert(1)</script>\n“½”")
	doc := string(b.Encode())
	w := upload(doc)
	if w.Code != http.StatusSeeOther {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	where, _, _ := strings.Cut(w.Header().Get("Location"), "?")
	got := a.get(where + "/document")
	if got.Body.String() != doc || !strings.Contains(got.Header().Get("Content-Disposition"), `"new-box.brevium.json"`) {
		t.Errorf("came back as %s", got.Body)
	}
	if page := a.get(where + "?stage=record").Body.String(); strings.Contains(page, "<script>alert") ||
		!strings.Contains(page, "&lt;script&gt;alert") {
		t.Error("notes are not escaped")
	}
	before, _ := a.store.Shelf.Count(context.Background(), false)
	for doc, part := range map[string]string{"junk": "a box that Brevium saved", `{"brevium":1,"x":1}`: "field that Brevium doesn",
		`{"brevium":1,"box":{"options":{"glitter":"1"}}}`:                   "no box has the option",
		`{"brevium":1,"name":"a","name":"b"}`:                               "twice",
		`{"brevium":1,"contents":[` + strings.Repeat("{},", 9_999) + `{}]}`: "10000 things", strings.Repeat("9",
			brief.Limit+5): "larger than"} {
		if w := upload(doc); w.Code != http.StatusUnprocessableEntity || !strings.Contains(w.Body.String(), part) {
			t.Errorf("%.20s: %d", doc, w.Code)
		}
	}
	after, _ := a.store.Shelf.Count(context.Background(), false)
	if after != before {
		t.Error("a bad document left something behind")
	}
	if w := a.post("/projects/upload"); w.Code != http.StatusBadRequest {
		t.Errorf("no file gives %d", w.Code)
	}
}

// Things come from the library and go into it, and come and go as a list.
func TestThings(t *testing.T) {
	a := newApp(t)
	id := a.begin(brief.New("in"))
	path := "/projects/" + id
	a.post(path+"/change", "base", fmt.Sprint(a.head(id).ID), "act", "add-usual", "usual", "honey jar")
	if b := a.head(id).Doc; len(b.Contents) != 2 || b.Contents[1].NeckHeight != "14 mm" || b.Contents[1].Liquid != "yes" {
		t.Fatalf("%+v", b.Contents)
	}
	jar := a.head(id).Doc.Contents[1].ID
	a.post(path+"/change", "base", fmt.Sprint(a.head(id).ID), "contents.@"+jar+".diameter", "60 mm",
		"contents.@"+jar+".food", "no")
	if body := a.post(path+"/keep-thing", "thing", jar).Body.String(); !strings.Contains(body,
		"Honey jar is now one of your usual things") {
		t.Errorf("%.300s", body)
	}
	if body := a.get("/library").Body.String(); !strings.Contains(body, "diameter 60 mm") ||
		strings.Contains(body, "diameter 54 mm") {
		t.Error("the library does not show the maker's own jar in place of the usual one")
	}
	a.post("/library/forget", "name", "honey jar")
	if body := a.get("/library").Body.String(); !strings.Contains(body, "diameter 54 mm") {
		t.Error("a forgotten thing does not give the usual one back")
	}
	list := a.get(path + "/things.csv").Body.String()
	if !strings.HasPrefix(list, "name,shape,count") || !strings.Contains(list, "honey jar,cylinder") {
		t.Errorf("%s", list)
	}
	before := a.head(id).Doc
	if w := a.send(path+"/things", "list", list); w.Code != http.StatusSeeOther || alike(a.head(id).Doc) != alike(before) {
		t.Errorf("%d: %v", w.Code, a.head(id).Doc.Contents)
	}
	if w := a.send(path+"/things", "list", "colour\nred"); w.Code != http.StatusUnprocessableEntity ||
		!strings.Contains(w.Body.String(), "Nothing was added") {
		t.Errorf("a bad list: %d", w.Code)
	}
	if body := a.get(path + "/howmany").Body.String(); !strings.Contains(body, "one sheet is enough for") {
		t.Errorf("%.300s", body)
	}
	a.post(path+"/change", "base", fmt.Sprint(a.head(id).ID), "contents.@"+a.head(id).Doc.Contents[1].ID+".diameter",
		"wide")
	if w := a.post(path+"/keep-thing", "thing", a.head(id).Doc.Contents[1].ID); w.Code != http.StatusUnprocessableEntity {
		t.Errorf("a thing that can't be read was kept: %d", w.Code)
	}
}

// alike writes things without what they are known by.
func alike(b brief.Brief) string {
	b = b.Clone()
	for i := range b.Contents {
		b.Contents[i].ID = ""
	}
	return fmt.Sprint(b.Contents)
}

// Arranging by hand: a move snaps to the marks, one into a neighbour is told
// and not made, a turn turns, and all of it can be left to Brevium again.
func TestByHand(t *testing.T) {
	a := newApp(t)
	b := brief.New("mm")
	b.Contents = []brief.Item{{ID: "1", Name: "tin", Shape: "block", Length: "40 mm", Width: "30 mm",
		Height: "20 mm", Count: "2", Stack: "1"}}
	id := a.begin(b)
	do := func(act string) string {
		return a.post("/projects/"+id+"/change", "base", fmt.Sprint(a.head(id).ID), "act", act).Body.String()
	}
	do("move:1.1:0:40")
	places := a.head(id).Doc.Arrange.Places
	if len(places) != 2 || places[0] != (brief.StackAt{Thing: "1", X: "0 mm", Y: "0 mm"}) ||
		!strings.HasSuffix(string(places[1].Y), "mm") || places[1].Y == "0 mm" {
		t.Fatalf("%+v", places)
	}
	mm := func(s brief.Text) int { n, _ := strconv.Atoi(strings.TrimSuffix(string(s), " mm")); return n }
	on := fmt.Sprintf("move:1.1:%d:%d", 5-mm(places[1].X), 5-mm(places[1].Y))
	if body := do(on); !strings.Contains(body, "would bump into") ||
		fmt.Sprint(a.head(id).Doc.Arrange.Places) != fmt.Sprint(places) {
		t.Error("a move into a neighbour was made")
	}
	do("turn:1.0")
	if got := a.head(id).Doc.Arrange.Places[0].Turned; got != "yes" {
		t.Errorf("turned %q", got)
	}
	do("choose-for-me")
	if got := a.head(id).Doc.Arrange; len(got.Places) != 0 || got.Way != "" {
		t.Errorf("%+v", got)
	}
	way := plan.Make(a.head(id).Doc, request.Default).Ways[1].ID
	do("choose-way:" + way)
	if got := a.head(id).Doc.Arrange.Way; string(got) != way {
		t.Errorf("took %q, want %q", got, way)
	}
	if w := a.post("/projects/"+id+"/change", "base", fmt.Sprint(a.head(id).ID), "act",
		"move:9.0:1:1"); !strings.Contains(w.Body.String(), "That thing is gone") {
		t.Errorf("a stack that is not there: %d", w.Code)
	}
	// A document may have two in one place; the problem's button leaves it to Brevium.
	b.Arrange = brief.Arrange{Places: []brief.StackAt{{Thing: "1", X: "0 mm", Y: "0 mm"}, {Thing: "1", X: "9 mm", Y: "0 mm"}}}
	id = a.begin(b)
	if page := a.get("/projects/" + id).Body.String(); !strings.Contains(page, "in the same place") {
		t.Error("two in one place are not told")
	}
	do("mend:arrange")
	if p := plan.Make(a.head(id).Doc, request.Default); len(a.head(id).Doc.Arrange.Places) != 0 || !p.Holds() {
		t.Errorf("not mended: %v", p.Problems)
	}
}

// A server with a shelf of its own shows and uses that one, on every page.
func TestOwnShelf(t *testing.T) {
	card, sheet := shop.Default.Cards[3], shop.Default.Sheets[3]
	card.ID, card.Title = "shed-1", "Shed board"
	sheet.ID, sheet.Title = "shed-sheet", "Shed sheet"
	a := newAppOf(t, request.Workshop{Shop: shop.Shop{Shelf: shop.Shelf{Cards: []shop.Card{card},
		Sheets: []shop.Sheet{sheet}}}})
	for _, from := range []string{"blank", "scores"} {
		w := a.post("/projects", "from", from, "units", "mm")
		id, _, _ := strings.Cut(strings.TrimPrefix(w.Header().Get("Location"), "/projects/"), "?")
		if b := a.head(id).Doc; b.Card.Stock != "shed-1" || b.Card.Sheet != "shed-sheet" {
			t.Fatalf("%s begins with %+v", from, b.Card)
		}
		if from == "blank" {
			a.post("/projects/"+id+"/change", "base", fmt.Sprint(a.head(id).ID), "act", "add-usual:tulip bulb")
		}
		for _, page := range []string{"?stage=card&view=flat", "?stage=sheets", "?stage=bench", "?stage=box&view=styles",
			"/print"} {
			body := a.get("/projects/" + id + page).Body.String()
			if strings.Contains(body, "Cover, oat") || strings.Contains(body, "12 × 12 in") ||
				strings.Contains(body, "no plan to") {
				t.Errorf("%s%s shows another shelf, or no plan", from, page)
			}
			if strings.Contains(page, "card") && (!strings.Contains(body, "Shed board") || !strings.Contains(body, "Shed sheet")) {
				t.Errorf("%s%s does not show the shelf", from, page)
			}
		}
	}
	// Lessons are shown even where no sheet takes what they make.
	sheet.Width, sheet.Height = sheet.Width/8, sheet.Height/8
	small := newAppOf(t, request.Workshop{Shop: shop.Shop{Shelf: shop.Shelf{Cards: []shop.Card{card},
		Sheets: []shop.Sheet{sheet}}}})
	for _, page := range []string{"/", "/help", "/help/clearance", "/help/sheets", "/how/first-box", "/how/score-card", "/how/lid"} {
		for _, a := range []*app{a, small} {
			if w := a.get(page); w.Code != 200 {
				t.Errorf("%s: %d", page, w.Code)
			}
		}
	}
}

// Every stage and view of every kind of project can be looked at.
func TestEveryPageShows(t *testing.T) {
	a := newApp(t)
	bad, sized := brief.New("in"), brief.New("mm")
	bad.Set("contents.@1.length", "")
	sized.Set("size.length", "120 mm")
	sized.Set("size.width", "80 mm")
	sized.Set("size.depth", "40 mm")
	for _, b := range []brief.Brief{brief.New("in"), sized, bad} {
		id := a.begin(b)
		for _, s := range workbench.Stages {
			for _, v := range workbench.Looks {
				if w := a.get("/projects/" + id + "?stage=" + s.ID + "&view=" + v.ID + "&piece=lid"); w.Code != 200 {
					t.Errorf("%s, %s: %d", s.ID, v.ID, w.Code)
				}
			}
		}
		for _, path := range []string{"/print", "/folded?at=1.3&lift=x&yaw=1e9&pitch=NaN"} {
			if w := a.get("/projects/" + id + path); w.Code != 200 && b.Contents[0].Length != "" {
				t.Errorf("%s: %d", path, w.Code)
			}
		}
	}
}

func TestBinPages(t *testing.T) {
	a := newApp(t)
	id := a.begin(brief.New("in"))
	for _, step := range []struct{ path, where, holds string }{
		{"/projects/" + id + "/copy", "/", "New box, copy"}, {"/projects/" + id + "/bin", "/bin", "Empty the bin"},
		{"/projects/" + id + "/restore", "/bin", "The bin is empty"}, {"/projects/" + id + "/bin", "/bin",
			"New box"}, {"/bin/empty", "/bin", "The bin is empty"},
	} {
		if w := a.post(step.path); w.Code != http.StatusSeeOther {
			t.Errorf("%s: %d", step.path, w.Code)
		}
		if body := a.get(step.where).Body.String(); !strings.Contains(body, step.holds) {
			t.Errorf("after %s, %s has no %q", step.path, step.where, step.holds)
		}
	}
	if w := a.get("/projects/" + id); w.Code != 404 {
		t.Errorf("an emptied project gives %d", w.Code)
	}
}

// A list brought in while other changes land waits its turn, and nothing fails.
func TestListWhileOthersChange(t *testing.T) {
	a := newApp(t)
	id := a.begin(brief.New("in"))
	var wait sync.WaitGroup
	for i := range 36 {
		wait.Go(func() {
			if i%3 == 0 {
				if w := a.send("/projects/"+id+"/things", "list", "name,count\ntin,3\n"); w.Code != http.StatusSeeOther {
					t.Errorf("a list: %d %.300s", w.Code, w.Body)
				}
				return
			}
			if w := a.post("/projects/"+id+"/change", "notes", fmt.Sprint("note ", i)); w.Code != 200 {
				t.Errorf("a change: %d %.300s", w.Code, w.Body)
			}
		})
	}
	wait.Wait()
	if b := a.head(id).Doc; len(b.Contents) != 1 || b.Contents[0].Name != "tin" || b.Contents[0].ID == "1" ||
		b.Notes == "" {
		t.Errorf("%+v, %q", b.Contents, b.Notes)
	}
}
