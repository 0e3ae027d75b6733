package questions

import (
	"fmt"
	"html/template"

	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/insert"
	"brevium/core/measure"
	"brevium/core/sets"
	"brevium/core/style"
	"brevium/draw"
	"brevium/web/desk"
)

func (f Form) Contents() []desk.Group {
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
	if alone && (f.b.Size == nil || Typed(f.b)) {
		return out
	}
	apart := f.compartments(alone)
	if alone {
		return append(out, apart)
	}
	return append(out, apart, f.room())
}

// compartments asks how things are kept apart.
func (f Form) compartments(alone bool) desk.Group {
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
func (f Form) thing(item brief.Item) desk.Group {
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
func (f Form) room() desk.Group {
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

func (f Form) suggested(l measure.Length) string {
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

// setGroup asks how the boxes of a set belong together.
func (f Form) setGroup() desk.Group {
	kinds := make([]style.Choice, 0, len(sets.Kinds))
	for _, k := range sets.Kinds {
		kinds = append(kinds, style.Choice{ID: k.ID, Label: k.Title, Why: k.Why})
	}
	g := desk.Group{Title: "The set", Fields: []desk.Field{f.Ask("set.name"), f.Buttons("set.kind", kinds)}}
	if f.b.Get("set.kind") == "stack" {
		g.Fields = append(g.Fields, f.Open("set.step", ""))
	}
	named := f.Ask("name")
	named.Label = "Name of this box"
	g.Fields = append(g.Fields, f.Open("set.copies", "1"), named)
	return g
}
