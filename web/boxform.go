package web

import (
	"strings"

	"brevium/core/box"
	"brevium/core/words"
)

// box asks which style, and the style's own questions.
func (f form) box() []group {
	var styles []box.Choice
	for _, s := range box.Styles {
		styles = append(styles, box.Choice{ID: s.ID, Label: s.Title})
	}
	style := box.Find(string(f.b.Box.Style))
	if style != nil && style.Typed {
		styles = append(styles, box.Choice{ID: style.ID, Label: style.Title})
	}
	out := []group{{Fields: []field{f.choice("select", "box.style", "Style", "", styles)}, Gallery: true}}
	if style == nil {
		return out
	}
	out[0].Says = []string{style.About}
	if f.shown != nil && f.shown.Box.Style == style && f.shown.Box.Seams != "" {
		out[0].Says = append(out[0].Says, "Seams seen: "+words.Small(f.shown.Box.Seams))
	}
	if style.Typed {
		return append(out, f.typedPieces()...)
	}
	g := group{Title: "How it is made"}
	for _, o := range style.Options {
		if !f.asked(style, o) {
			continue
		}
		path := "box.options." + o.ID
		if len(o.Choices) > 0 {
			fd := f.choice("choice", path, o.Label, o.Help, o.Choices)
			if f.b.Get(path) == "" {
				fd.Value = o.Default
			}
			g.Fields = append(g.Fields, fd)
			continue
		}
		fd := f.field("length", path, o.Label, o.Help)
		if f.shown != nil && f.shown.Box.Style == style {
			if l, ok := f.shown.Box.Settled[o.ID]; ok {
				fd.Open = f.suggested(l)
			}
		}
		g.Fields = append(g.Fields, fd)
	}
	return append(out, g)
}

// typedPieces asks for a list of scores, piece by piece.
func (f form) typedPieces() (out []group) {
	for _, p := range f.b.Box.Pieces {
		path := "box.pieces.@" + p.ID + "."
		out = append(out, group{ID: p.ID, Title: called(string(p.Name), "this piece"), Remove: "remove-piece:" + p.ID, Fields: []field{
			f.field("text", path+"name", "Piece", ""),
			f.choice("select", path+"is", "It is", "", box.Roles),
			f.field("length", path+"width", "Cut", "wide"),
			f.field("length", path+"height", "and", "high"),
			f.open("text", path+"across", "Scores from the left edge", "with commas; “both” takes one from the far edge too", "none"),
			f.open("text", path+"down", "Scores from the top edge", "", "none"),
			f.open("text", path+"away", "Squares cut away", "corners, or column-row: 1-1, 3-1", "none"),
		}})
	}
	out = append(out, group{Add: "add-piece", AddSays: "Add another piece"})
	if f.b.Box.Stated != nil {
		out = append(out, group{Title: "The finished size it claims", Fields: []field{
			f.open("length", "box.stated.length", "Length", "", "not said"),
			f.open("length", "box.stated.width", "Width", "", "not said"),
			f.open("length", "box.stated.depth", "Depth", "", "not said"),
		}})
	}
	return out
}

// open is a field that may be left empty, and what that means.
func (f form) open(kind, path, label, help, empty string) field {
	fd := f.field(kind, path, label, help)
	fd.Open = empty
	return fd
}

// asked says whether an option makes sense with the others as they are, or has
// been answered all the same.
func (f form) asked(style *box.Style, o box.Option) bool {
	answered := func(rule string) bool {
		id, want, _ := strings.Cut(rule, "=")
		got := f.b.Get("box.options." + id)
		for _, other := range style.Options {
			if other.ID == id && got == "" {
				got = other.Default
			}
		}
		return got == want
	}
	return (o.When == "" || answered(o.When)) && (o.Unless == "" || !answered(o.Unless)) || f.b.Get("box.options."+o.ID) != ""
}
