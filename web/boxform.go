package web

import (
	"cmp"
	"strings"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/reader"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/core/words"
)

// boxForm asks about a box.
type boxForm struct {
	form
	b     *brief.Brief
	p     *plan.Plan // of b itself
	shown *plan.Plan // what is on the table, for suggestions
	shop  request.Workshop
}

func formOf(st *state, w request.Workshop) boxForm {
	return boxForm{form{doc: &st.Brief, at: brief.FieldAt, placed: st.Brief.Placed, report: st.Plan.Report}, &st.Brief,
		st.Plan, st.Shown, w}
}

// box asks which style, and the style's own questions.
func (f boxForm) box() []group {
	var styles []style.Choice
	for _, s := range style.Styles {
		styles = append(styles, style.Choice{ID: s.ID, Label: s.Title})
	}
	own := style.Find(string(f.b.Box.Style))
	if own != nil && own.Typed {
		styles = append(styles, style.Choice{ID: own.ID, Label: own.Title})
	}
	out := []group{{Fields: []field{f.choice("select", "box.style", "Style", "", styles)}, Gallery: true}}
	if own == nil {
		return out
	}
	out[0].Says = []string{own.About}
	shown := f.shown != nil && f.shown.Style == own
	if shown {
		out[0].Says = append(out[0].Says, "Seams seen: "+words.Small(f.shown.Box.SeamsSeen()))
	}
	if own.Typed {
		return append(out, f.typedPieces()...)
	}
	g := group{Title: "How it is made", MoreSays: "More", ID: "style"}
	for _, o := range own.Asks {
		if !f.asked(own, o) {
			continue
		}
		path := "box.options." + o.ID
		if len(o.Choices) > 0 {
			fd := f.choice("choice", path, o.Label, o.Help, o.Choices)
			if f.b.Get(path) == "" {
				fd.Value = cmp.Or(f.p.Answers.Choice[o.ID], o.Default) // of the house, or of the style
			}
			g.Fields = append(g.Fields, fd)
			continue
		}
		fd := f.field("length", path, o.Label, o.Help)
		if shown {
			if l, ok := f.shown.Box.Settled[o.ID]; ok {
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
func (f boxForm) typedPieces() (out []group) {
	for _, p := range f.b.Box.Pieces {
		path := "box.pieces.@" + p.ID + "."
		out = append(out, group{ID: p.ID, Title: called(string(p.Name), "this piece"), Remove: "remove-piece:" + p.ID,
			Fields: []field{
				f.ask(path + "name"), f.roles(path, p), f.ask(path + "width"), f.ask(path + "height"),
				f.open(path+"across", "none"), f.open(path+"down", "none"), f.open(path+"away", "none"),
			}, More: []field{f.leftOpen(path+"walls", reader.Walls), f.leftOpen(path+"tabs", reader.Tabs)},
			MoreSays: "How it is made"})
	}
	out = append(out, group{Add: "add-piece", AddSays: "Add another piece"})
	if f.b.Box.Stated != nil {
		out = append(out, group{Title: "The finished size it claims", Fields: []field{f.open("box.stated.length", "not said"),
			f.open("box.stated.width", "not said"), f.open("box.stated.depth", "not said")}})
	}
	return out
}

// roles asks what a piece is, with what its scores make it as the answer left
// open.
func (f boxForm) roles(path string, p brief.Scored) field {
	fd := f.leftOpen(path+"is", reader.Roles)
	if f.shown == nil {
		return fd
	}
	for i, s := range f.shown.Scores {
		if s.Name == string(p.Name) {
			fd.Choices[0].Label = "as its scores say: " + words.Small(reader.Label(reader.Role(f.shown.Scores, i)))
		}
	}
	return fd
}

// leftOpen is a field of choices that may be left open.
func (f boxForm) leftOpen(path string, choices []style.Choice) field {
	return f.pick(path, append([]style.Choice{{ID: "", Label: "left open"}}, choices...))
}

// asked reports whether an option makes sense with the others as they are, or has
// been answered all the same.
func (f boxForm) asked(own *style.Style, o style.Question) bool {
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
