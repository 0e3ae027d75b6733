package web

import (
	"encoding/json"
	"encoding/xml"
	"fmt"
	"regexp"
	"slices"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/style"
)

var linked = regexp.MustCompile(`data-link="([^"]+)"`)

// links gives the marks in a part of a page, each once.
func links(part string) (out []string) {
	for _, m := range linked.FindAllStringSubmatch(part, -1) {
		out = append(out, m[1])
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// Of every style, each number in the tally has its line on the flat drawing,
// and each line that is scored, slanted or bent its number.
func TestNumbersAndLinesAreLinked(t *testing.T) {
	a := newApp(t)
	for _, s := range style.Styles {
		b := brief.New("mm")
		b.Contents, b.Size = nil, &brief.Size{Length: "90 mm", Width: "70 mm", Depth: "40 mm"}
		if s.ID == "arched-box" { // half as high as it is wide, and more
			b.Size.Depth = "70 mm"
		}
		b.Box = brief.Box{Style: brief.Text(s.ID)}
		b.Set("tools.step", "1 mm")
		b.Set("card.sheet", "a3")
		b.Set("card.join", "yes")
		page := a.get("/projects/" + a.begin(b) + "?view=flat").Body.String()
		flat, rest, ok := strings.Cut(page[strings.Index(page, "<figure"):], "</figure>")
		if !ok || !strings.Contains(flat, "drawing flat") {
			t.Fatalf("%s: no drawing", s.ID)
		}
		drawn, told := links(flat), links(rest[strings.Index(rest, `class="tally"`):])
		if !slices.Equal(drawn, told) {
			t.Errorf("%s: drawn %v, told %v", s.ID, drawn, told)
		}
		if len(told) < 6 {
			t.Errorf("%s: only %v", s.ID, told)
		}
	}
}

// The gallery: every style at the project's size or why not, narrowed by
// wishes, each with its picture.
func TestGallery(t *testing.T) {
	a := newApp(t)
	b := brief.New("mm")
	b.Set("card.sheet", "a3")
	b.Set("contents.0.length", "95 mm")
	b.Set("contents.0.stack", "1")
	b.Set("contents.0.count", "1")
	b.Set("contents.0.height", "40 mm")
	path := "/projects/" + a.begin(b)
	all := a.get(path + "?view=styles&stage=box").Body.String()
	for _, s := range style.Styles {
		if !strings.Contains(all, `data-style="`+s.ID+`"`) || !strings.Contains(all, s.About) {
			t.Errorf("%s is not in the gallery", s.ID)
		}
		for _, still := range []string{"", "&still=1"} {
			r := a.get(path + "/style.svg?style=" + s.ID + still)
			if strings.Contains(all, "style="+s.ID) != (r.Code == 200) {
				t.Errorf("the picture of %s: %d", s.ID, r.Code)
			}
			if r.Code != 200 {
				continue
			}
			moves := strings.Contains(r.Body.String(), "<animate ")
			if err := xml.Unmarshal(r.Body.Bytes(), new(any)); err != nil || moves != (still == "") {
				t.Errorf("the picture of %s%s: %v, moves %v", s.ID, still, err, moves)
			}
		}
	}
	for want, styles := range map[string]string{
		"book": "flap-box hinged-lid carton wrap-cover fold-flat book-wrap", "tall&want=flat": "carton pinch-top",
		"clean&want=tall": "pleat-pouch", "flat&want=tall&want=clean": "",
	} {
		got := a.get(path + "?view=styles&want=" + want).Body.String()
		var shown []string
		for _, s := range style.Styles {
			if strings.Contains(got, `data-style="`+s.ID+`"`) {
				shown = append(shown, s.ID)
			}
		}
		if strings.Join(shown, " ") != styles {
			t.Errorf("%s: %v", want, shown)
		}
		if styles == "" && !strings.Contains(got, "Clear one of the ticks") {
			t.Error("an empty gallery says nothing")
		}
	}
	if r := a.get(path + "/style.svg?style=hat"); r.Code != 404 {
		t.Errorf("an unknown style: %d", r.Code)
	}
	if r := a.post(path+"/change", "base", fmt.Sprint(a.head(strings.TrimPrefix(path, "/projects/")).ID),
		"box.style", "carton"); r.Code != 200 || a.head(strings.TrimPrefix(path,
		"/projects/")).Doc.Box.Style != "carton" {
		t.Errorf("taking a style: %d", r.Code)
	}
	if r := a.get(path + "/solid.json"); r.Code != 200 || !json.Valid(r.Body.Bytes()) ||
		r.Header().Get("Content-Type") != "application/json" {
		t.Errorf("the solid: %d", r.Code)
	}
	b.Contents = nil
	if r := a.get("/projects/" + a.begin(b) + "/solid.json"); r.Code != 404 {
		t.Errorf("the solid of no plan: %d", r.Code)
	}
}

// A list of scores by the forms of its page: begun, written over, added to,
// taken from, undone, and given away as a document.
func TestListOfScores(t *testing.T) {
	a := newApp(t)
	r := a.post("/projects", "from", "scores")
	path, _, _ := strings.Cut(r.Header().Get("Location"), "?")
	id := strings.TrimPrefix(path, "/projects/")
	if r.Code != 303 || a.head(id).Doc.Box.Style != "score-list" {
		t.Fatalf("begun: %d %s", r.Code, r.Header().Get("Location"))
	}
	change := func(pairs ...string) string {
		t.Helper()
		r := a.post(path+"/change?stage=box", append([]string{"base", fmt.Sprint(a.head(id).ID)}, pairs...)...)
		if r.Code != 200 {
			t.Fatalf("%v: %d", pairs, r.Code)
		}
		return r.Body.String()
	}
	if page := change("box.pieces.@1.width", "9 1/2", "box.pieces.@1.across", "2, 7 1/2", "box.pieces.@2.is",
		"lid"); !strings.Contains(page, "lid is too tight") {
		t.Error("a lid too short for its base is not told")
	}
	if got := a.head(id).Doc.Box.Pieces[0]; got.Width != "9 1/2 in" || got.Across != "2, 7 1/2" {
		t.Errorf("kept as %+v", got)
	}
	change("act", "add-piece")
	third := "box.pieces.@" + a.head(id).Doc.Box.Pieces[2].ID
	change(third+".name", "liner", third+".width", "9 in")
	if page := change(third+".height", "2 in"); !strings.Contains(page, "liner") {
		t.Error("a liner that can't go in is not told")
	}
	old := fmt.Sprint(a.head(id).ID)
	change("act", "remove-piece:1")
	if n := len(a.head(id).Doc.Box.Pieces); n != 2 {
		t.Errorf("%d pieces are left", n)
	}
	if r := a.post(path+"/change", "base", old, "act", "remove-piece:1"); !strings.Contains(r.Body.String(),
		"removed it in another window") {
		t.Errorf("taking out what another window took out: %d", r.Code)
	}
	a.post(path + "/undo")
	if n := len(a.head(id).Doc.Box.Pieces); n != 3 {
		t.Errorf("undone, %d pieces", n)
	}
	doc := a.get(path + "/document").Body.String()
	if again, err := brief.Decode([]byte(doc)); err != nil || len(again.Box.Pieces) != 3 {
		t.Errorf("as a document: %v", err)
	}
	want := a.get(path + "/document").Body.String()
	change("box.style", "hinged-lid")
	if got := a.head(id).Doc; got.Size == nil || got.Size.Depth != "2 in" || len(got.Box.Pieces) != 3 {
		t.Errorf("a style taken in place of the list has the size %+v and %d pieces kept", got.Size, len(got.Box.Pieces))
	}
	a.post(path + "/undo")
	if a.get(path+"/document").Body.String() != want {
		t.Error("undone, the list is another")
	}
	for _, part := range []string{
		"?stage=contents", "?stage=card", "?stage=dressing", "?stage=sheets&view=sheets", "?stage=bench&view=turns",
		"?stage=record", "?view=folded", "?view=above", "?view=ways", "/print",
	} {
		if r := a.get(path + part); r.Code != 200 {
			t.Errorf("%s: %d", part, r.Code)
		}
	}
}
