package web

import (
	"fmt"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/web/questions"
	"brevium/web/workbench"
)

// What the buttons of the stage do to the document.
func TestDressingActs(t *testing.T) {
	a := newApp(t)
	id := a.begin(brief.New("in"))
	do := func(pairs ...string) (brief.Dress, string) {
		t.Helper()
		w := a.post("/projects/"+id+"/change?stage=dressing", append(pairs, "base", fmt.Sprint(a.head(id).ID))...)
		if w.Code != 200 {
			t.Fatalf("%v: %d %s", pairs, w.Code, w.Body)
		}
		return a.head(id).Doc.Dress, w.Body.String()
	}
	on := func(d brief.Dress) (out []string) {
		for _, l := range d.Layers {
			out = append(out, string(l.On))
		}
		return out
	}
	if d, page := do("act", "dress-as:keepsake"); len(d.Layers) != 2 || len(d.Liners) != 1 || d.Scheme.Second == "" ||
		!strings.Contains(page, "Every layer lies within its panel") {
		t.Errorf("%+v", d)
	}
	if d, _ := do("act", "dress-as:neat"); len(d.Layers) != 1 || d.Layers[0].On != "outside" || d.Liners != nil {
		t.Errorf("%+v", d)
	}
	// A panel that has a layer loses it, and has it again: what others have.
	if d, page := do("act", "panel:lid/top"); strings.Contains(on(d)[0], "lid/top") || !strings.Contains(on(d)[0],
		"base/front") ||
		!strings.Contains(page, `id="panel-lid-top"`) {
		t.Errorf("%v", on(d))
	}
	if d, _ := do("act", "panel:lid/top"); !strings.HasSuffix(on(d)[0], "lid/top") {
		t.Errorf("%v", on(d))
	}
	do("act", "dress-as:bare")
	if d, _ := do("act", "panel:base/front"); len(d.Layers) != 1 || d.Layers[0].On != "base/front" {
		t.Errorf("%v", on(d))
	}
	// Another style has no such panel: the layer goes where it may.
	if d, page := do("box.style", "carton"); on(d)[0] == "base/front" || !strings.Contains(page, "checks passed") {
		t.Errorf("in a carton: %v", on(d))
	}
	a.post("/projects/" + id + "/undo")
	if d, _ := do("act", "panel:base/front"); len(d.Layers) != 0 {
		t.Errorf("%v", on(d))
	}
	d, _ := do("act", "add-dress:toppers")
	field := "dress.toppers.@" + d.Toppers[0].ID + "."
	if d, page := do(field+"shape", "heart", field+"words", "Thanks", field+"border",
		"4 in"); d.Toppers[0].Words != "Thanks" ||
		!strings.Contains(page, "leaves nothing of a heart") {
		t.Errorf("%+v", d.Toppers)
	}
	// While something is wrong it is not known which panels layers are on: none is lost.
	do("act", "add-dress:layers")
	if d, page := do("act", "panel:lid/top"); on(d)[0] != "outside" || !strings.Contains(page, "Fix the red fields first") {
		t.Errorf("while something is wrong: %v", on(d))
	}
	a.post("/projects/" + id + "/undo")
	if d, page := do("act", "mend:dress.toppers.0.border"); d.Toppers[0].Border != "" || strings.Contains(page,
		"leaves nothing") {
		t.Errorf("%+v", d.Toppers)
	}
	if d, _ := do("act", "remove-dress:toppers."+d.Toppers[0].ID); d.Toppers != nil {
		t.Errorf("%+v", d.Toppers)
	}
	if _, page := do("act", "remove-dress:toppers.gone"); !strings.Contains(page, "in another window") {
		t.Error("taking off twice is not told")
	}
	first := a.head(id).Doc.Dress.Scheme
	if d, _ := do("act", "scheme:1"); d.Scheme == first || d.Scheme.Main == "" {
		t.Errorf("%+v", d.Scheme)
	}
	d, page := do("act", "add-dress:finishes")
	if field := "dress.finishes.@" + d.Finishes[0].ID + "."; !strings.Contains(page, `name="`+field+`when"`) {
		t.Error("a finish has no moment")
	} else if d, _ := do(field+"kind", "stamp", field+"what", "seed heads"); d.Finishes[0].What != "seed heads" {
		t.Errorf("%+v", d.Finishes)
	}
	if d, _ := do("act", "remove-dress:finishes."+d.Finishes[0].ID); d.Finishes != nil {
		t.Errorf("%+v", d.Finishes)
	}
	for _, add := range []string{"layers", "liners", "windows", "grips"} {
		do("act", "add-dress:"+add)
	}
	if d := a.head(id).Doc.Dress; len(d.Layers)+len(d.Liners)+len(d.Windows)+len(d.Grips) != 4 {
		t.Errorf("%+v", d)
	}
	a.post("/projects/" + id + "/undo")
	if d := a.head(id).Doc.Dress; len(d.Grips) != 0 || len(d.Windows) != 1 {
		t.Errorf("undone: %+v", d)
	}
	// Another window took the layer out: what was typed in it has nowhere to go, and is told.
	layer := a.head(id).Doc.Dress.Layers[0].ID
	base := fmt.Sprint(a.head(id).ID)
	do("act", "remove-dress:layers."+layer)
	w := a.post("/projects/"+id+"/change?stage=dressing", "dress.layers.@"+layer+".border", "1/4 in", "base", base)
	if !strings.Contains(w.Body.String(), "was not saved") {
		t.Error("a field of a layer that is gone is not told")
	}
}

// Whatever the stage offers is something that can be: every choice of every field is read,
// and every field it shows is one of the document.
func TestDressingOffers(t *testing.T) {
	b := brief.New("mm")
	b.Contents, b.Size = nil, &brief.Size{Length: "120 mm", Width: "90 mm", Depth: "60 mm"}
	b.Dress = brief.Dress{Layers: []brief.Layer{{ID: "1", On: "outside"}}, Liners: []brief.Liner{{ID: "1", In: "floor"}},
		Windows: []brief.Opening{{ID: "1", On: "top"}}, Grips: []brief.Grip{{ID: "1", Kind: "notch", On: "base/left"}},
		Toppers: []brief.Topper{{ID: "1", Shape: "round"}}, Band: brief.Belt{Way: "level"},
		Finishes: []brief.Finish{{ID: "1", Kind: "stamp", On: "outside"}},
		Ribbon:   brief.Ribbon{Way: "across"},
		Bow:      brief.Bow{Loops: "4"}}
	p := plan.Make(b, request.Default)
	f := questions.Of(&b, p, p, request.Default)
	seen, tried := map[string]bool{}, 0
	for _, s := range f.DressSections() {
		for _, g := range s.Groups {
			for _, fd := range append(g.Fields, g.More...) {
				if _, known := brief.FieldAt(fd.Path); !known || fd.Label == "" {
					t.Errorf("%s is no field of the document", fd.Path)
				}
				seen[fd.Path] = true
				for _, c := range fd.Choices {
					other := b.Clone()
					if !other.Set(fd.Path, c.ID) {
						t.Fatalf("%s can't be set", fd.Path)
					}
					tried++
					for _, pr := range request.Read(other, request.Default).Problems {
						t.Errorf("%s is offered as %q and refused: %s", fd.Path, c.ID, pr.Text)
					}
				}
			}
		}
	}
	if tried < 150 {
		t.Errorf("only %d choices were offered", tried)
	}
	for _, field := range brief.Table {
		path := strings.Replace(field.Path, "*", "@1", 1)
		rare := strings.HasPrefix(path, "dress.scheme.") || strings.HasPrefix(path, "dress.closure.") ||
			strings.HasPrefix(path, "dress.handle.") || path == "dress.underside" || strings.Count(path, ".") == 1
		if strings.HasPrefix(path, "dress.") && !rare && !seen[path] && path != "dress.grips.@1.stock" {
			t.Errorf("the stage does not ask for %s", path)
		}
	}
}

// A distance to either side keeps its unit too when that of the project changes.
func TestOffsetsKeepTheirUnit(t *testing.T) {
	inches, mm := brief.New("in"), brief.New("mm")
	for _, c := range [][3]string{{"dress.windows.@1.right", "-1/2", "-1/2 in"}, {"dress.toppers.@1.down", "2", "2 in"},
		{"dress.toppers.@1.right", "- 3 mm", "-3 mm"}, {"dress.toppers.@1.right", "some", "some"},
		{"dress.toppers.@1.width", "-1", "-1"}, {"dress.windows.@1.down", "-", "-"}} {
		if got := workbench.AsStored(c[0], c[1], &inches, &mm); got != c[2] {
			t.Errorf("%s: %q is kept as %q", c[0], c[1], got)
		}
	}
}
