package reader

import (
	"slices"

	"brevium/core/style"
)

// Roles are what a typed piece may be.
var Roles = []style.Choice{
	{ID: "tray", Label: "A tray"}, {ID: "lid", Label: "A lid over the tray"}, {ID: "tube", Label: "A tube or sleeve"},
	{ID: "strip", Label: "A strip with a flap"}, {ID: "hinged", Label: "A box with a hinged lid"},
	{ID: "cap", Label: "A gable cap"}, {ID: "pinch", Label: "A pinch-top tube"},
	{ID: "wrapper", Label: "A cover wrapped round"}, {ID: "liner", Label: "A liner in the tray"},
	{ID: "band", Label: "A band"}, {ID: "panel", Label: "A loose panel"},
}

// Walls and Tabs are how a typed tray may be made.
var (
	Walls = []style.Choice{{ID: "single", Label: "Single"}, {ID: "rolled", Label: "Rolled"},
		{ID: "pinwheel", Label: "Pinwheel"}}
	Tabs = []style.Choice{{ID: "full", Label: "Full squares"}, {ID: "half", Label: "Half"},
		{ID: "narrow", Label: "Narrow strips"}, {ID: "trimmed", Label: "Trimmed already"}}
)

// Label is what a role is called.
func Label(role string) string {
	for _, r := range Roles {
		if r.ID == role {
			return r.Label
		}
	}
	return role
}

// typed is a piece with the role it was given or its scores decide.
type typed struct {
	style.Scored
	role string
}

// guess gives each piece a role where none was given: by its scores, and then by the other pieces.
func guess(list []style.Scored) []typed {
	out := make([]typed, len(list))
	for i, p := range list {
		out[i] = typed{p, p.Is}
		if p.Is == "" {
			out[i].role = byScores(p)
		}
	}
	trays := func() (n int) {
		for _, p := range out {
			if p.role == "tray" {
				n++
			}
		}
		return n
	}
	// Of two trays the one with the larger panel is the lid.
	if trays() == 2 && !slices.ContainsFunc(out, func(p typed) bool { return p.role == "lid" }) {
		lid := -1
		for i, p := range out {
			if p.role == "tray" && p.Is == "" && (lid < 0 || p.panel() > out[lid].panel() ||
				p.panel() == out[lid].panel() && p.Rows[0] < out[lid].Rows[0]) {
				lid = i
			}
		}
		if lid >= 0 {
			out[lid].role = "lid"
		}
	}
	if trays() == 0 {
		for i := range out {
			if out[i].role == "liner" && out[i].Is == "" {
				out[i].role = "panel"
			}
		}
	}
	return out
}

// Role is what a piece of a list is, as it was said or its scores make it.
func Role(list []style.Scored, i int) string { return guess(list)[i].role }

// panel is the area of a tray's middle, in square micrometres.
func (p typed) panel() Length { return p.Cols[len(p.Cols)/2] / 1000 * (p.Rows[len(p.Rows)/2] / 1000) }

// byScores is what the scores of one piece make it, taken by itself.
func byScores(p style.Scored) string {
	c, r := len(p.Cols), len(p.Rows)
	switch {
	case c == 1 && r == 1:
		return "liner"
	case c == 3 && r == 3, c == 5 && r == 5:
		return "tray"
	case c == 3 && r == 5:
		return folder(p.Cols, p.Rows)
	case c == 5 && r == 3 && !loop(p.Cols):
		return folder(p.Rows, p.Cols)
	case c == 1 && r == 3, c == 3 && r == 1:
		return "wrapper"
	}
	return "tube"
}

// loop reports whether five segments are four walls, opposite ones equal, and a seam.
func loop(s []Length) bool {
	return s[0] == s[2] && s[1] == s[3] && s[4] < max(s[0], s[1]) || s[1] == s[3] && s[2] == s[4] && s[0] < max(s[1], s[2])
}

// folder tells a box with a hinged lid from a strip with a flap: of the first
// every other row is a wall as high as the columns beside.
func folder(cols, rows []Length) string {
	if rows[0] == rows[2] && rows[2] == rows[4] && cols[0] == rows[0] && cols[2] == rows[0] {
		return "hinged"
	}
	return "strip"
}

// turned gives the piece with its sides exchanged, flipped with its top below.
func (p typed) turned() typed {
	q := p
	q.Cols, q.Rows, q.Away = p.Rows, p.Cols, map[[2]int]bool{}
	for at := range p.Away {
		q.Away[[2]int{at[1], at[0]}] = true
	}
	return q
}

func (p typed) flipped() typed {
	q := p
	q.Rows, q.Away = slices.Clone(p.Rows), map[[2]int]bool{}
	slices.Reverse(q.Rows)
	for at := range p.Away {
		q.Away[[2]int{at[0], len(p.Rows) - 1 - at[1]}] = true
	}
	return q
}
