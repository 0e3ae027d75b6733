package web

import (
	"fmt"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/store"
	"brevium/web/sheets"
)

// The figures of a view are those of its sheets; alike ones are one picture, what a hand
// pinned is one of its own, and too many kinds are counted, not drawn.
func TestCutView(t *testing.T) {
	p := plan.Make(tubes(), request.Default)
	v := sheets.CutViewOf(p.Cuts, p.Step, true)
	if v.Count != 2 || len(v.Kinds) != 2 || v.Kinds[0].Title != "Sheet 1" || v.Price != p.Cost || v.Cuts < 4 {
		t.Errorf("%+v", v)
	}
	if want := p.Layout.Used; v.Used < want-1e-6 || v.Used > want+1e-6 || !strings.HasSuffix(v.Waste, "cm²") ||
		!strings.HasSuffix(v.Largest, "mm") {
		t.Errorf("%.4f used of %.4f, %s left, %s the largest", v.Used, want, v.Waste, v.Largest)
	}
	b := tubes()
	b.Copies = "40"
	p = plan.Make(b, request.Default)
	if v := sheets.CutViewOf(p.Cuts, p.Step, true); len(v.Kinds) != 1 || v.Kinds[0].Alike != 20 || v.Settings > 4 {
		t.Errorf("%d kinds, %d settings", len(v.Kinds), v.Settings)
	}
	const mm = measure.Millimetre
	var many []layout.Piece
	for i := range sheets.MostDrawn + 5 {
		many = append(many, layout.Piece{Name: fmt.Sprint("p", i), W: mm * measure.Length(180+i), H: mm * measure.Length(270-i), Count: 1})
	}
	p.Cuts[0].Layout = layout.Fit(many, 210*mm, 297*mm)
	if v := sheets.CutViewOf(p.Cuts, p.Step, false); len(v.Kinds) != sheets.MostDrawn || v.Hidden != 5 || v.Count != sheets.MostDrawn+5 {
		t.Errorf("%d drawn, %d hidden, %d sheets", len(v.Kinds), v.Hidden, v.Count)
	}
}

// The ways stand side by side, each with its figures and a button that cuts it so; a hair
// less is told with what it saves, by a button too.
func TestWaysAndNear(t *testing.T) {
	a := newApp(t)
	b := tubes()
	b.Box.Pieces[0].Width, b.Box.Pieces[0].Across, b.Copies = "214 mm", "50, 100, 150, 200", "8"
	id := a.begin(b)
	path := "/projects/" + id
	page := a.get(path + "/cutways?stage=sheets").Body.String()
	for _, says := range []string{"Fewest sheets", "Largest offcut", "Fewest settings", "Least cost", "proved",
		`name="sheets.aim" value="cost"`} {
		if !strings.Contains(page, says) {
			t.Errorf("the ways do not say %s", says)
		}
	}
	near := a.get(path + "/nearly?stage=sheets").Body.String()
	for _, says := range []string{"4 mm less", "4 instead of 8 sheets", `name="box.pieces.0.width" value="210 mm"`} {
		if !strings.Contains(near, says) {
			t.Errorf("a hair less does not say %s: %s", says, near)
		}
	}
	after := a.post(path+"/change?stage=sheets&view=sheets", "base", fmt.Sprint(a.head(id).ID), "box.pieces.0.width", "210 mm",
		"was.box.pieces.0.width", "214 mm").Body.String()
	if !strings.Contains(after, "3 more alike") {
		t.Error("it does not save")
	}
	broken := b.Clone()
	broken.Box.Pieces[0].Width = "soon"
	id = a.begin(broken)
	for _, of := range []string{"/cutways", "/nearly", "/least", "/shopping.csv"} {
		if w := a.get("/projects/" + id + of); w.Code != 404 {
			t.Errorf("%s of a box without a plan: %d", of, w.Code)
		}
	}
}

// What a document asks of its sheets is done wherever they are shown: by any size, from
// offcuts, with a margin; wrong answers are refused at their field.
func TestSheetsAsked(t *testing.T) {
	a := newApp(t)
	id := a.begin(tubes())
	set := func(pairs ...string) string {
		t.Helper()
		w := a.post("/projects/"+id+"/change?stage=sheets&view=sheets", append([]string{"base", fmt.Sprint(a.head(id).ID)}, pairs...)...)
		if w.Code != 200 {
			t.Fatalf("%d", w.Code)
		}
		return w.Body.String()
	}
	if page := set("sheets.sizes", "any", "sheets.aim", "card"); strings.Contains(page, "A4, 210 × 297 mm</figcaption>") {
		t.Error("it is cut from the sheet that was chosen")
	}
	set("sheets.sizes", "", "sheets.aim", "")
	a.post("/shop/change", "act", "add-offcut")
	now, err := a.store.Shops.Head(t.Context(), store.TheShop)
	if err != nil {
		t.Fatal(err)
	}
	o := now.Doc.Offcuts[0].ID
	a.post("/shop/change", "offcuts.@"+o+".width", "200 mm", "offcuts.@"+o+".height", "130 mm", "offcuts.@"+o+".card", "cover-216")
	if page := set("sheets.offcuts", "yes"); !holds(page, "and 1 kept offcut") {
		t.Error("the offcut is not used")
	}
	a.post("/projects/"+id+"/cut?stage=sheets", "base", fmt.Sprint(a.head(id).ID))
	if now, _ := a.store.Shops.Head(t.Context(), store.TheShop); now.Doc.Get("offcuts.@"+o+".width") != "" {
		t.Error("the offcut that was cut up is there still")
	}
	if page := set("sheets.margin", "20 mm"); !strings.Contains(page, "3</b>") {
		t.Error("the margin is not kept free")
	}
	if page := set("sheets.margin", "9 in"); !strings.Contains(page, "is too wide") {
		t.Error("a margin of nine inches is taken")
	}
	set("sheets.margin", "")
	if printed := a.get("/projects/" + id + "/print").Body.String(); !strings.Contains(printed, "Sheet 1") {
		t.Error("no sheet is printed")
	}
}

// A set's sheets are searched together, as its document asks.
func TestSetSheets(t *testing.T) {
	a := newApp(t)
	b := tubes()
	b.Copies = "1"
	b.AddMember()
	b.Sheets = brief.Sheets{Aim: "cost", Sizes: "any"}
	id := a.begin(b)
	page := a.get("/projects/" + id + "?stage=sheets&view=sheets").Body.String()
	if !strings.Contains(page, "cut-sheet") || strings.Contains(page, `role="button" data-mm`) ||
		strings.Contains(page, "Almost one sheet less") {
		t.Error("the sheets of the set are not shown as they are")
	}
	if printed := a.get("/projects/" + id + "/print").Body.String(); !strings.Contains(printed, "print-sheets") {
		t.Error("no sheet of the set is printed")
	}
}
