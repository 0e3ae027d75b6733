package web

import (
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/draw/solid"
)

// A project becomes a set, its boxes are edited one by one, seen together, printed,
// and become a project again; undo takes every step back.
func TestSets(t *testing.T) {
	a := newApp(t)
	b := brief.New("mm")
	b.Name = "tower"
	b.Set("card.sheet", "a3")
	id := a.begin(b)
	box := ""
	do := func(pairs ...string) brief.Brief {
		t.Helper()
		w := a.post("/projects/"+id+"/change?box="+box, append(pairs, "base", fmt.Sprint(a.head(id).ID))...)
		if w.Code != http.StatusSeeOther && w.Code != http.StatusOK {
			t.Fatalf("%v: %d", pairs, w.Code)
		}
		return a.head(id).Doc
	}
	page := func(query string) string { return a.get("/projects/" + id + query).Body.String() }
	if !strings.Contains(page("?stage=contents"), "Make it a set") {
		t.Error("nothing makes it a set")
	}
	if now := do("act", "add-box"); !now.IsSet() || len(now.Several.Boxes) != 2 || now.Several.Kind != "companions" {
		t.Fatalf("%+v", now.Several)
	}
	box = "2"
	now := do("name", "top", "set.kind", "stack", "box.options.lid", "full", "contents.@1.count", "3", "contents.@1.length", "60 mm",
		"contents.@1.width", "50 mm")
	top := now.Member(1)
	if now.Several.Kind != "stack" || top.Name != "top" || top.Contents[0].Count != "3" || now.Member(0).Contents[0].Count != "4" ||
		now.Name != "tower" || now.Several.Boxes[1].Card != nil {
		t.Errorf("%s", now.Encode())
	}
	// A remedy may be asked for in every box: each takes the change, and keeps what is its own.
	now = do("box.options.tabs", "half", "to-all", "yes")
	foot, top := now.Member(0), now.Member(1)
	if foot.Get("box.options.tabs") != "half" || top.Get("box.options.tabs") != "half" || top.Get("box.options.lid") != "full" ||
		foot.Get("box.options.lid") == "full" || foot.Contents[0].Count != "4" {
		t.Errorf("in every box: %s", now.Encode())
	}
	box = "1"
	if now = do("card.stock", "cover-270", "set.name", "the tower"); now.Member(1).Card.Stock != "cover-270" || now.Name != "the tower" {
		t.Error("the second does not follow the first")
	}
	for query, says := range map[string]string{
		"?stage=box&view=folded&all=1": "From apart to together", "?stage=sheets&view=sheets": "Top: base",
		"?stage=bench&view=turns&all=1": "Put them together", "?stage=bench&view=turns": "Box by box", "?box=2": `id="box-2"`,
		"/print": "Steps for all boxes", "?box=gone": "the top stands on the box 1", "?stage=contents&box=2": "Name of this box",
	} {
		if got := page(query); !strings.Contains(got, says) && !strings.Contains(strings.ToLower(got), strings.ToLower(says)) {
			t.Errorf("%s does not show %q", query, says)
		}
	}
	var solid solid.Solid
	if err := json.Unmarshal(a.get("/projects/"+id+"/solid.json?all=1").Body.Bytes(), &solid); err != nil || len(solid.Cards) != 2 ||
		len(solid.Steps) != 1 || solid.Steps[0].End != solid.Closed || !strings.Contains(solid.Steps[0].Says, "Set the top on") {
		t.Errorf("the solid of the set: %v %+v %+v", err, solid.Cards, solid.Steps)
	}
	if list := a.get("/").Body.String(); !strings.Contains(list, "a set of 2") {
		t.Error("the list does not say that it is a set")
	}
	// A field that can't be read keeps the last plan of that box, and troubles no other.
	box = "2"
	do("contents.@1.length", "wide")
	if got := page("?stage=contents&box=2"); !strings.Contains(got, "Your previous box") {
		t.Error("the last plan of the second box is gone")
	}
	if got := page("?stage=contents&box=1"); strings.Contains(got, "Your previous box") {
		t.Error("the first box is in trouble for the second")
	}
	a.post("/projects/"+id+"/undo", "base", fmt.Sprint(a.head(id).ID))
	if now = a.head(id).Doc; now.Member(1).Contents[0].Length != "60 mm" {
		t.Errorf("undone: %s", now.Member(1).Contents[0].Length)
	}
	// Two windows: one edits the first box, one the second; both stay.
	base := fmt.Sprint(a.head(id).ID)
	a.post("/projects/"+id+"/change?box=1", "base", base, "tools.fit", "easy")
	a.post("/projects/"+id+"/change?box=2", "base", base, "contents.@1.height", "30 mm")
	if now = a.head(id).Doc; now.Member(0).Tools.Fit != "easy" || now.Member(1).Contents[0].Height != "30 mm" {
		t.Errorf("%s", now.Encode())
	}
	box = "1"
	if now = do("act", "remove-box:2"); now.IsSet() || now.Name != "the tower" || len(now.Contents) != 1 {
		t.Errorf("%s", now.Encode())
	}
}

// A box that follows from the others goes on following when something else of it
// changes, and is its own when its size does.
func TestBoxesFollow(t *testing.T) {
	a := newApp(t)
	b := brief.New("mm")
	b.Contents, b.Size = nil, &brief.Size{Length: "120 mm", Width: "100 mm", Depth: "40 mm"}
	b.Card.Sheet = "a3"
	b.Several = &brief.Set{Kind: "stack", Step: "20 mm", Boxes: []brief.Member{{ID: "1"}, {ID: "2"}}}
	id := a.begin(b)
	post := func(pairs ...string) brief.Member {
		a.post("/projects/"+id+"/change?box=2", append(pairs, "base", fmt.Sprint(a.head(id).ID))...)
		return a.head(id).Doc.Several.Boxes[1]
	}
	if got := a.get("/projects/" + id + "?box=2&stage=contents").Body.String(); !strings.Contains(got, `value="100"`) {
		t.Error("the size that follows is not shown")
	}
	if m := post("box.options.lid", "full"); m.Own() || m.Box == nil {
		t.Errorf("after another lid: %+v", m)
	}
	if m := post("size.length", "90 mm"); m.Size == nil || m.Size.Length != "90 mm" || m.Size.Width != "80 mm" {
		t.Errorf("after its own size: %+v", m.Size)
	}
}
