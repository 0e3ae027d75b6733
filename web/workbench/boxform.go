package workbench

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

// BoxForm asks about a box.
type BoxForm struct {
	desk.Form
	b     *brief.Brief
	p     *plan.Plan // of b itself
	Shown *plan.Plan // what is on the table, for suggestions
	shop  request.Workshop
}

// FormOf asks about a box as it was planned, with what is on the table for suggestions.
func FormOf(b *brief.Brief, p, shown *plan.Plan, w request.Workshop) BoxForm {
	return BoxForm{desk.Form{Doc: b, At: brief.FieldAt, Placed: b.Placed, Report: p.Report}, b, p, shown, w}
}

// box asks which style, and the style's own questions.
func (f BoxForm) box() []desk.Group {
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
func (f BoxForm) typedPieces() (out []desk.Group) {
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
func (f BoxForm) roles(path string, p brief.Scored) desk.Field {
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
func (f BoxForm) leftOpen(path string, choices []style.Choice) desk.Field {
	return f.Pick(path, append([]style.Choice{{ID: "", Label: "left open"}}, choices...))
}

// asked reports whether an option makes sense with the others as they are, or has
// been answered all the same.
func (f BoxForm) asked(own *style.Style, o style.Question) bool {
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
