// Package reader makes a box of a list of scores that a person was given: cut sizes, scores and squares cut away.
// It builds what the numbers say, right or wrong, and leaves it to the proof to tell what cannot be. What a maker
// would do unasked (trim a sliver off a tab) it does too, and says so.
package reader

import (
	"fmt"
	"strings"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/style"
)

type Length = measure.Length

// mostTyped is how many pieces a list may have.
const mostTyped = 8

// Read reads every piece of a list and the size it claims, or notes what can't be read.
func Read(r *brief.Reader, b *brief.Brief) ([]style.Scored, *style.Dims) {
	list := b.Box.Pieces
	if len(list) == 0 {
		r.Problem("box.pieces", "There are no pieces yet.", "Add the first piece: its cut size and its scores.")
	}
	if len(list) > mostTyped {
		r.Problem("box.pieces", fmt.Sprintf("%d pieces are too many for one box.", len(list)),
			fmt.Sprintf("List at most %d.", mostTyped))
		return nil, nil
	}
	var out []style.Scored
	names := map[string]bool{}
	for i, t := range list {
		field := fmt.Sprintf("box.pieces.%d.", i)
		p := style.Scored{Field: field, Name: r.Name(field+"name", t.Name, "A piece")}
		if names[p.Name] {
			r.Problem(field+"name", fmt.Sprintf("Two pieces are called %q.", p.Name), "Give each its own name.", field+"name",
				p.Name+" 2")
		}
		names[p.Name] = true
		p.Is = oneOf(r, field+"is", t.Is, "A piece", Roles)
		p.Walls = oneOf(r, field+"walls", t.Walls, "Its walls", Walls)
		p.Tabs = oneOf(r, field+"tabs", t.Tabs, "Its tabs", Tabs)
		w, okW := r.Length(field+"width", t.Width)
		h, okH := r.Length(field+"height", t.Height)
		if !okW || !okH {
			continue
		}
		var okA, okD bool
		p.At[0], okA = r.Lengths(field+"across", t.Across, w)
		p.At[1], okD = r.Lengths(field+"down", t.Down, h)
		p.Read = okA && okD
		p.Cols = segments(r, field+"across", p.At[0], w, "wide")
		p.Rows = segments(r, field+"down", p.At[1], h, "high")
		p.Away = cells(r, field+"away", t.Away, len(p.Cols), len(p.Rows))
		out = append(out, p)
	}
	return out, stated(r, b.Box.Stated)
}

// oneOf reads one of several words, or nothing.
func oneOf(r *brief.Reader, field string, text brief.Text, what string, of []style.Choice) string {
	word := strings.TrimSpace(string(text))
	var known []string
	for _, c := range of {
		if c.ID == word || word == "" {
			return word
		}
		known = append(known, c.ID)
	}
	r.Problem(field, fmt.Sprintf("%s can't be %q.", what, word),
		"Choose one of "+strings.Join(known, ", ")+", or leave it open.", field, "")
	return ""
}

// segments gives the distances between scores, of none the whole.
func segments(r *brief.Reader, field string, scores []Length, size Length, way string) (out []Length) {
	last := Length(0)
	for i, at := range append(scores, size) {
		switch gap := at - last; {
		case i < len(scores) && (at >= size || at <= 0):
			r.Problem(field, fmt.Sprintf("A score at %s is off the piece, which is %s %s.", r.Say(at), r.Say(size), way),
				"Check the cut size, and from which edge the score was measured.")
			return []Length{size}
		case gap < measure.Millimetre:
			r.Problem(field, fmt.Sprintf("There is no card to fold between %s and %s.", r.Say(last), r.Say(at)),
				"Check the scores: each is measured from the same edge.")
			return []Length{size}
		}
		out = append(out, at-last)
		last = at
	}
	return out
}

// cells reads which squares are cut away: "corners", or places as column-row from the top left, such as 1-1.
func cells(r *brief.Reader, field string, list brief.Text, cols, rows int) map[[2]int]bool {
	away := map[[2]int]bool{}
	parts := strings.FieldsFunc(strings.ToLower(string(list)), func(r rune) bool { return r == ',' || r == ';' || r == ' ' })
	for _, word := range parts {
		var c, d int
		switch n, err := fmt.Sscanf(word, "%d-%d", &c, &d); {
		case word == "none" || word == "and":
		case word == "corners":
			for _, at := range [][2]int{{0, 0}, {cols - 1, 0}, {0, rows - 1}, {cols - 1, rows - 1}} {
				away[at] = true
			}
		case err != nil || n != 2:
			r.Problem(field, fmt.Sprintf("%q isn't a square of this piece.", word),
				"Write corners, or squares as column-row from the top left, such as 1-1, 3-1.")
		case c < 1 || c > cols || d < 1 || d > rows:
			r.Problem(field, fmt.Sprintf("There is no square %s. The scores make %d columns and %d rows.", word, cols, rows),
				"Count columns from the left and rows from the top.")
		default:
			away[[2]int{c - 1, d - 1}] = true
		}
	}
	return away
}

// stated reads the finished size that a list claims; what it does not say is 0.
func stated(r *brief.Reader, s *brief.Size) *style.Dims {
	if s == nil {
		return nil
	}
	read := func(dim string, text brief.Text) Length {
		if strings.TrimSpace(string(text)) == "" {
			return 0
		}
		l, _ := r.LengthOrNone("box.stated."+dim, text)
		return l
	}
	d := style.Dims{Length: read("length", s.Length), Width: read("width", s.Width), Depth: read("depth", s.Depth)}
	if d == (style.Dims{}) {
		return nil
	}
	return &d
}
