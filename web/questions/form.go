// Package questions is what each stage asks about a box: its fields in groups, what few change behind a fold, and in a
// field left open what the plan takes for it.
package questions

import (
	"cmp"
	"strings"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/reader"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/core/words"
	"brevium/web/desk"
)

// Form asks about a box.
type Form struct {
	desk.Form
	b     *brief.Brief
	p     *plan.Plan // of b itself
	Shown *plan.Plan // what is on the table, for suggestions
	shop  request.Workshop
}

// Typed reports whether a box is a list of scores.
func Typed(b *brief.Brief) bool {
	own := style.Find(string(b.Box.Style))
	return own != nil && own.Typed
}

// Of asks about a box as it was planned, with what is on the table for suggestions.
func Of(b *brief.Brief, p, shown *plan.Plan, w request.Workshop) Form {
	return Form{desk.Form{Doc: b, At: brief.FieldAt, Placed: b.Placed, Report: p.Report}, b, p, shown, w}
}

// box asks which style, and the style's own questions.
func (f Form) box() []desk.Group {
	var styles []style.Choice
	for _, s := range style.Styles {
		styles = append(styles, style.Choice{ID: s.ID, Label: s.Title})
	}
	own := style.Find(string(f.b.Box.Style))
	if own != nil && own.Typed {
		styles = append(styles, style.Choice{ID: own.ID, Label: own.Title})
	}
	out := []desk.Group{{Fields: []desk.Field{f.Choice("select", "box.style", "Kind of box", "", styles)}, Gallery: true}}
	if own == nil {
		return out
	}
	out[0].Says = []string{own.About}
	shown := f.Shown != nil && f.Shown.Style == own
	if own.Typed {
		return append(out, f.typedPieces()...)
	}
	g := desk.Group{MoreSays: "More choices", ID: "style", MoreID: "style"}
	for _, o := range own.Asks {
		if !f.asked(own, o) {
			continue
		}
		path := "box.options." + o.ID
		if len(o.Choices) > 0 {
			fd := f.Choice("choice", path, o.Label, o.Help, o.Choices)
			if f.b.Get(path) == "" {
				fd.Value = cmp.Or(f.p.Answers.Choice[o.ID], o.Default) // of the house, or of the style
			}
			if o.More {
				g.More, g.Open = append(g.More, fd), g.Open || fd.Problem != nil
			} else {
				g.Fields = append(g.Fields, fd)
			}
			continue
		}
		fd := f.Field("length", path, o.Label, o.Help)
		if shown {
			if l, ok := f.Shown.Box.Settled[o.ID]; ok {
				fd.Open = f.suggested(l)
			}
		}
		if o.More {
			g.More = append(g.More, fd)
			g.Open = g.Open || fd.Problem != nil || fd.Value != ""
		} else {
			g.Fields = append(g.Fields, fd)
		}
	}
	return append(out, g)
}

// typedPieces asks for a list of scores, piece by piece.
func (f Form) typedPieces() (out []desk.Group) {
	for _, p := range f.b.Box.Pieces {
		path := "box.pieces.@" + p.ID + "."
		out = append(out, desk.Group{ID: p.ID, Title: desk.Called(string(p.Name), "this piece"), Remove: "remove-piece:" + p.ID,
			Fields: []desk.Field{
				f.Ask(path + "name"), f.roles(path, p), f.Ask(path + "width"), f.Ask(path + "height"),
				f.Open(path+"across", "none"), f.Open(path+"down", "none"), f.Open(path+"away", "none"),
			}, More: []desk.Field{f.leftOpen(path+"walls", reader.Walls), f.leftOpen(path+"tabs", reader.Tabs)},
			MoreSays: "How it is made"})
	}
	out = append(out, desk.Group{Add: "add-piece", AddSays: "Add another piece"})
	if f.b.Box.Stated != nil {
		out = append(out, desk.Group{Title: "Finished size, as claimed", Fields: []desk.Field{f.Open("box.stated.length", "not said"),
			f.Open("box.stated.width", "not said"), f.Open("box.stated.depth", "not said")}})
	}
	return out
}

// roles asks what a piece is, with what its scores make it as the answer left
// open.
func (f Form) roles(path string, p brief.Scored) desk.Field {
	fd := f.leftOpen(path+"is", reader.Roles)
	if f.Shown == nil {
		return fd
	}
	for i, s := range f.Shown.Scores {
		if s.Name == string(p.Name) {
			fd.Choices[0].Label = "from its scores: " + words.Small(reader.Label(reader.Role(f.Shown.Scores, i)))
		}
	}
	return fd
}

// leftOpen is a field of choices that may be left open.
func (f Form) leftOpen(path string, choices []style.Choice) desk.Field {
	return f.Pick(path, append([]style.Choice{{ID: "", Label: "left open"}}, choices...))
}

// asked reports whether an option makes sense with the others as they are, or has
// been answered all the same.
func (f Form) asked(own *style.Style, o style.Question) bool {
	answered := func(rule string) bool {
		id, want, _ := strings.Cut(rule, "=")
		got := f.b.Get("box.options." + id)
		for _, other := range own.Asks {
			if other.ID == id && got == "" {
				got = other.Default
			}
		}
		return got == want
	}
	return (o.When == "" || answered(o.When)) && (o.Unless == "" || !answered(o.Unless)) ||
		f.b.Get("box.options."+o.ID) != ""
}

// Groups are the questions of a stage, none where it asks none.
func (f Form) Groups(stage string) []desk.Group {
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
func (f Form) cutting() desk.Group {
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

func (f Form) Units() desk.Field {
	return f.Pick("units", []style.Choice{{ID: "in", Label: "Inches"}, {ID: "mm", Label: "Millimetres"}, {ID: "cm", Label: "Centimetres"}})
}

// Name is the field for what the box is called: left alone, it follows what goes in.
func (f Form) Name() desk.Field {
	fd := f.Ask("name")
	fd.Label = "Name of the box"
	return fd
}

// notes is the field for what no other has room for.
func (f Form) notes() desk.Field {
	fd := f.Ask("notes")
	fd.Kind = "notes"
	return fd
}
