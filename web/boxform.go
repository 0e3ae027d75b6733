package web

import (
	"strings"

	"brevium/core/reader"
	"brevium/core/style"
	"brevium/core/words"
)

// box asks which style, and the style's own questions.
func (f form) box() []group {
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
				fd.Value = o.Default
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
func (f form) typedPieces() (out []group) {
	for _, p := range f.b.Box.Pieces {
		path := "box.pieces.@" + p.ID + "."
		out = append(out, group{ID: p.ID, Title: called(string(p.Name), "this piece"), Remove: "remove-piece:" + p.ID, Fields: []field{
			f.field("text", path+"name", "Piece", ""),
			f.choice("select", path+"is", "It is", "", reader.Roles),
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
func (f form) asked(own *style.Style, o style.Question) bool {
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
	return (o.When == "" || answered(o.When)) && (o.Unless == "" || !answered(o.Unless)) || f.b.Get("box.options."+o.ID) != ""
}
