package web

import (
	"strings"
	"testing"

	"brevium/core/brief"
)

// A list with a wrong number says which, and the button puts it right; while a list can't be, no older plan
// stands beside it as proved.
func TestWrongList(t *testing.T) {
	a := newApp(t)
	b, err := brief.Decode([]byte(`{"brevium":1,"name":"Tube","units":"mm","box":{"style":"score-list","pieces":[
		{"name":"tube","is":"tube","width":"270 mm","height":"230 mm","across":"90, 130, 220, 260","down":"15, 55, 175, 215"}]},
		"card":{"stock":"cover-216","sheet":"a3"},"tools":{"step":"1 mm","fit":"snug"}}`))
	if err != nil {
		t.Fatal(err)
	}
	id := a.begin(b)
	path := "/projects/" + id
	change := func(field, text string) string {
		t.Helper()
		w := a.post(path+"/change?stage=box", "base", a.headID(id), field, text)
		if w.Code != 200 {
			t.Fatalf("%s = %s: %d %s", field, text, w.Code, w.Body)
		}
		// The page is there at once; what would help, which is searched for, it asks for when nothing else waits.
		page, more := w.Body.String(), strings.Contains(w.Body.String(), `data-more="1"`)
		if wrong := text != "90 mm, 130 mm, 220 mm, 260 mm"; more != wrong || strings.Contains(page, "in this list looks wrong") {
			t.Errorf("%s = %s: more is to come: %v", field, text, more)
		}
		if more {
			page = a.get(path + "?stage=box").Body.String()
		}
		return page
	}
	if page := a.get(path + "?stage=box").Body.String(); strings.Contains(page, "in this list looks wrong") ||
		!strings.Contains(page, "checks passed") {
		t.Error("a list that is right is doubted, or not proved")
	}
	page := change("box.pieces.0.across", "90, 130, 222, 260")
	if !strings.Contains(page, "the score across at 222 mm should be at 220 mm") {
		t.Errorf("not told which number is wrong")
	}
	if page = change("box.pieces.0.across", "90, 130, 220"); strings.Contains(page, "checks passed") ||
		strings.Contains(page, "Your previous box") {
		t.Error("a list that can't be shows an older plan")
	}
	if !strings.Contains(page, "a score across is missing at 260 mm") {
		t.Error("not told which score is missing")
	}
	if page = change("box.pieces.0.across", "90 mm, 130 mm, 220 mm, 260 mm"); !strings.Contains(page, "checks passed") {
		t.Error("put right, it is not proved")
	}
}

// A fraction in a box of millimetres is asked about, and the button makes it inches; a new box begins in the
// shop's unit, whatever the last one was in; and a box in centimetres shows its numbers so.
func TestUnitsAsked(t *testing.T) {
	a := newApp(t)
	b := brief.New("mm")
	id := a.begin(b)
	path := "/projects/" + id
	page := a.post(path+"/change?stage=contents", "base", a.headID(id), "contents.0.length", "3 1/4",
		"was.contents.0.length", "115 mm").Body.String()
	if !strings.Contains(page, "is a fraction, but this box is in millimetres") ||
		!strings.Contains(page, `value="mend:contents.0.length"`) {
		t.Error("a fraction in millimetres is not asked about")
	}
	a.post(path+"/change?stage=contents", "base", a.headID(id), "act", "mend:contents.0.length")
	if got := a.head(id).Doc.Contents[0].Length; got != "3 1/4 in" {
		t.Errorf("made inches it is %q", got)
	}
	small := brief.New("mm") // 3.25 mm make no box: whether it was inches is asked before all else
	small.Contents, small.Size = nil, &brief.Size{Length: "3 1/4", Width: "90", Depth: "50"}
	id = a.begin(small)
	path = "/projects/" + id
	page = a.get(path + "?stage=contents").Body.String()
	asked, trouble := strings.Index(page, "is a fraction, but this box"), strings.Index(page, "The front of the base, less the card")
	if said := strings.Count(page, "Use inches"); asked < 0 || trouble >= 0 && trouble < asked || said != 2 {
		t.Errorf("a fraction that makes no box is asked about %d times, at %d, after what else is wrong, at %d", said, asked, trouble)
	}
	a.post(path+"/change?stage=contents", "base", a.headID(id), "act", "mend:size.length")
	if got := a.head(id).Doc.Size.Length; got != "3 1/4 in" {
		t.Errorf("made inches it is %q", got)
	}
	for _, unit := range []string{"", "mm", "cm", "in"} {
		a.typeInShop("habits.units", unit)
		at, _, _ := strings.Cut(at(t, a.post("/projects")), "?")
		want := brief.Text(unit)
		if unit == "" {
			want = "in"
		}
		if got := a.head(strings.TrimPrefix(at, "/projects/")).Doc.Units; got != want {
			t.Errorf("with %q in the shop a new box begins in %q", unit, got)
		}
	}
	a.post(path+"/change", "base", a.headID(id), "units", "cm", "was.units", "mm")
	if page := a.get(path + "?stage=box").Body.String(); !strings.Contains(page, ">cm<") && !strings.Contains(page, "centimetres") {
		t.Error("no centimetres are shown")
	}
}
