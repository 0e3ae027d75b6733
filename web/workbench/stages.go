package workbench

import (
	"fmt"
	"html/template"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/insert"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/draw"
	"brevium/web/desk"
)

// stage is a station of the work on the rail.
type stage struct {
	ID, Title  string
	State, Why string // whether it is done, wants a look, or is still to come
	Link       string
	Here       bool
	fields     []string // prefixes of the fields that belong to it
}

// How far a stage is.
const done, wanted, later = "done", "look", "later"

// Word is the stage's state in a word.
func (st stage) Word() string {
	return map[string]string{done: "Done", wanted: "Look here", later: "Not yet"}[st.State]
}

var Stages = []stage{
	{ID: "contents", Title: "Contents", fields: []string{"contents", "size", "room", "arrange", "set"}},
	{ID: "box", Title: "Box", fields: []string{"box"}},
	{ID: "card", Title: "Card & fit", fields: []string{"card", "tools", "units", "dress.outside", "dress.inside", "dress.floor"}},
	{ID: "dressing", Title: "Decoration", fields: []string{"dress"}},
	{ID: "sheets", Title: "Sheets", fields: []string{"copies", "sheets"}},
	{ID: "bench", Title: "Bench"},
	{ID: "record", Title: "Record", fields: []string{"name", "notes"}},
}

// Past is what was done about a box beside changing it: whether it was made, and at which stages the maker took what was
// suggested.
type Past struct {
	Made   bool
	Agreed []string
}

// Rail says of each stage whether it is done, wants a look or is still to come. Nothing is done that nobody touched or
// agreed to; a box that was made is done with.
func Rail(v View, b *brief.Brief, p *plan.Plan, w request.Workshop, past Past) []stage {
	begun := w.Begin(brief.New(string(b.Units)))
	out := make([]stage, len(Stages))
	for i, st := range Stages {
		st.Here, st.Link = st.ID == v.Stage, v.With("stage", st.ID, "view", "", "piece", "")
		switch {
		case past.Made:
			st.State, st.Why = done, "You have made this box."
		case slices.Contains(past.Agreed, st.ID):
			st.State, st.Why = done, "You took what Brevium suggests."
		case len(st.fields) == 0 || sameFields(b, &begun, st):
			st.State, st.Why = later, "Everything here is as Brevium suggests."
		default:
			st.State, st.Why = done, "You have been here."
		}
		if st.ID == "contents" && (fresh(b) || WaitsForSizes(b, p)) {
			st.State, st.Why = later, "Type what goes in."
		} else if st.ID == "record" && !past.Made {
			st.State, st.Why = later, "Write it down when you have made it."
		} else if at := slices.IndexFunc(p.Problems, func(pr brief.Problem) bool { return st.owns(pr.Field) }); at >= 0 {
			st.State, st.Why = wanted, p.Problems[at].Text
		}
		switch {
		case st.ID == "sheets" && p.OK() && len(p.Layout.TooBig) > 0:
			st.State, st.Why = wanted, "A piece is too big for its sheet."
		case st.ID == "bench" && p.OK() && !p.Holds():
			st.State, st.Why = wanted, "A check failed."
		}
		out[i] = st
	}
	return out
}

func (st stage) owns(field string) bool {
	for _, f := range st.fields {
		if field == f || strings.HasPrefix(field, f+".") {
			return true
		}
	}
	return false
}

func sameFields(a, b *brief.Brief, st stage) bool {
	part := func(x *brief.Brief) string {
		switch st.ID {
		case "contents":
			return fmt.Sprint(x.Contents, x.Room, x.Arrange, x.Size != nil)
		case "box":
			return fmt.Sprint(x.Box)
		case "card":
			return fmt.Sprint(x.Card, x.Tools, x.Dress.Bare())
		case "dressing":
			return fmt.Sprint(x.Dress)
		case "sheets":
			return fmt.Sprint(x.Copies, x.Sheets)
		}
		return fmt.Sprint(x.Name, x.Notes)
	}
	return part(a) == part(b)
}

func (f BoxForm) Groups(stage string) []desk.Group {
	switch stage {
	case "contents":
		if f.b.Several != nil {
			return append(f.Contents(), f.setGroup())
		}
		return f.Contents()
	case "box":
		return f.box()
	case "card":
		return f.card()
	case "sheets":
		return []desk.Group{{Fields: []desk.Field{f.Pick("card.sheet", f.sheetChoices()), f.Ask("copies")}}, f.cutting()}
	case "record":
		return []desk.Group{{Fields: []desk.Field{
			f.Ask("name"), f.notes(),
		}}}
	}
	return nil
}

var Aims = desk.Said("", "fewest sheets", "cost", "least cost", "card", "least card")

// cutting asks how the sheets are to be cut.
func (f BoxForm) cutting() desk.Group {
	g := desk.Group{ID: "cutting", MoreID: "cutting", MoreSays: "How to cut", More: []desk.Field{
		f.Pick("sheets.aim", Aims),
		f.Pick("sheets.among-equals", desk.Said("", "the largest offcut", "stops", "fewest settings of the trimmer")),
		f.Pick("sheets.sizes", desk.Said("", "only the sheet chosen", "any", "any size the card comes in")),
		f.Ask("sheets.offcuts"), f.Open("sheets.margin", "none"),
		f.Pick("sheets.look", desk.Said("", "quickly", "deep", "longer, for the fewest")),
	}, Tells: []string{"After a change here, Brevium also keeps every cut short enough for your trimmer."}}
	for _, fd := range g.More {
		g.Open = g.Open || fd.Problem != nil
	}
	return g
}

func (f BoxForm) Contents() []desk.Group {
	var out []desk.Group
	if f.b.Size != nil {
		out = append(out, desk.Group{Title: "Size, from score to score", Fields: []desk.Field{
			f.Ask("size.length"), f.Ask("size.width"), f.Ask("size.depth"),
		}})
	}
	for _, item := range f.b.Contents {
		out = append(out, f.thing(item))
	}
	alone := len(f.b.Contents) == 0
	if alone && (f.b.Size == nil || typed(f.b)) {
		return out
	}
	apart := f.compartments(alone)
	if alone {
		return append(out, apart)
	}
	return append(out, apart, f.room())
}

// compartments asks how things are kept apart.
func (f BoxForm) compartments(alone bool) desk.Group {
	var kinds []style.Choice
	for _, k := range insert.Kinds {
		if alone && !k.Alone && k.ID != "none" {
			continue // it is made round what goes in
		}
		kinds = append(kinds, style.Choice{ID: k.ID, Label: k.Title, Why: k.Why})
	}
	apart := desk.Group{ID: "apart", Fields: []desk.Field{f.Pick("arrange.compartments", kinds)}}
	k := insert.Find(string(f.b.Arrange.Compartments))
	if k == nil || k.ID == "none" {
		return apart
	}
	apart.Says = []string{k.Why}
	if k.Divides {
		apart.Fields = append(apart.Fields, f.Ask("arrange.dividers"))
		if alone {
			apart.Fields = append(apart.Fields, f.Open("arrange.cells", "2 x 2"))
		}
	}
	return apart
}

// thing asks for one kind of thing: what is measured of its shape, and behind a fold its shape, how it may lie and what
// it is.
func (f BoxForm) thing(item brief.Item) desk.Group {
	path := "contents.@" + item.ID + "."
	name := desk.Called(string(item.Name), "this thing")
	g := desk.Group{ID: item.ID, Title: name, Remove: "remove-thing:" + item.ID, Keep: item.ID,
		Fields: []desk.Field{f.Ask(path + "name")}}
	shape, ok := contents.ShapeOf(string(item.Shape))
	if ok {
		g.How, g.Drawing = shape.How, template.HTML(draw.Measuring(shape.ID))
	}
	for _, m := range shape.Measures {
		g.Fields = append(g.Fields, f.Ask(path+m))
	}
	g.Fields = append(g.Fields, f.Ask(path+"count"))
	half := func(name string) desk.Field {
		fd := f.Pick(path+name, []style.Choice{{ID: "", Label: "as usual"}, {ID: "yes", Label: "yes"}, {ID: "no", Label: "no"}})
		fd.Kind = "half"
		return fd
	}
	g.MoreSays, g.MoreID = "More about it", "thing"
	kind := f.Pick(path+"shape", shapeChoices())
	if kind.Problem != nil || !ok {
		g.Fields = append(g.Fields, kind)
	} else {
		g.More = append(g.More, kind)
	}
	for _, m := range shape.May {
		g.More = append(g.More, f.Open(path+m, "none"))
	}
	g.More = append(g.More, f.Open(path+"mass", "not known"), f.Open(path+"stack", fmt.Sprint(shape.Stack)), half("lie"),
		half("stand"))
	ticks := []string{"upright", "food", "fragile", "flame", "liquid"}
	if shape.ID == "flat" {
		ticks = append(ticks, "envelope")
	}
	for _, t := range ticks {
		g.More = append(g.More, f.Ask(path+t))
	}
	for _, m := range g.More {
		g.Open = g.Open || m.Problem != nil
	}
	return g
}

// room asks for the space round things: what was reckoned stands in each field.
func (f BoxForm) room() desk.Group {
	g := desk.Group{ID: "room", MoreID: "room", MoreSays: "Space around them"}
	says := contents.Room{}
	if f.Shown != nil {
		says = f.Shown.Load.Room
	}
	for _, q := range []struct {
		id   string
		open measure.Length
	}{{"around", says.Around}, {"between", says.Between}, {"padding", says.Padding}, {"below", says.Below},
		{"above", says.Above}, {"proud", says.Proud}} {
		fd := f.Open("room."+q.id, f.suggested(q.open))
		g.More, g.Open = append(g.More, fd), g.Open || fd.Problem != nil
	}
	g.Tells = says.Says
	return g
}

func (f BoxForm) suggested(l measure.Length) string {
	shown := f.p.Step.Show(l)
	if shown.Unit != f.p.Units {
		return desk.Plainly(shown.Text + " " + string(shown.Unit))
	}
	return desk.Plainly(shown.Text)
}

func shapeChoices() (out []style.Choice) {
	for _, s := range contents.Shapes {
		out = append(out, style.Choice{ID: s.ID, Label: s.Title})
	}
	return out
}

func (f BoxForm) units() desk.Field {
	return f.Pick("units", []style.Choice{{ID: "in", Label: "Inches"}, {ID: "mm", Label: "Millimetres"}, {ID: "cm", Label: "Centimetres"}})
}

// name is the field for what the box is called: left alone, it follows what goes in.
func (f BoxForm) name() desk.Field {
	fd := f.Ask("name")
	fd.Label = "Name of the box"
	return fd
}

// notes is the field for what no other has room for.
func (f BoxForm) notes() desk.Field {
	fd := f.Ask("notes")
	fd.Kind = "notes"
	return fd
}
