package plan

import (
	"testing"

	"brevium/core/measure"
)

// What makers ask for by a question of its own: each holds, over sizes, and is as large as it was asked for.
func TestAskedFor(t *testing.T) {
	for _, c := range []struct {
		set         []string
		piece       string
		wide, long  string
		closedRound string // of what holds it closed
	}{
		{[]string{"box.style", "woven-basket", "box.options.handle-width", "32 mm"}, "handle", "32 mm", "", ""},
		{[]string{"box.style", "woven-basket", "box.options.handle-width", "32 mm", "box.options.handle", "brad"}, "handle", "32 mm", "", "brad"},
		{[]string{"box.style", "sleeve-drawer", "box.options.sleeve-length", "120 mm"}, "sleeve", "120 mm", "", ""},
		{[]string{"box.style", "arched-box", "box.options.cover", "rolled", "box.options.cover-lap", "20 mm"}, "cover", "", "80 mm", "hook dot"},
		{[]string{"box.style", "arched-box", "box.options.closure", "glue-dot"}, "cover", "", "80 mm", "glue dot"},
		{[]string{"box.style", "flap-box", "box.options.closure", "glue-dot"}, "box", "", "", "glue dot"},
		{[]string{"box.style", "fold-flat", "box.options.closure", "glue-dot"}, "tray", "", "", "glue dot"},
		{[]string{"box.style", "pleat-pouch", "box.options.closure", "glue-dot"}, "pouch", "", "", "glue dot"},
		{[]string{"box.style", "book-wrap", "box.options.closer", "glue-dot"}, "case", "", "", "glue dot"},
		{[]string{"box.style", "strip-column", "box.options.join", "caps and glue dot"}, "strip", "", "", "glue dot"},
	} {
		for _, allowances := range []string{"card", "plain"} {
			b := sized("70 mm", "80 mm", "75 mm", append(c.set, "units", "mm", "tools.step", "1 mm", "card.sheet", "600 x 600 mm",
				"tools.allowances", allowances)...)
			p := Make(b, Default)
			if !p.Holds() {
				t.Errorf("%v, %s: %s %v", c.set, allowances, said(p), p.Problems)
				continue
			}
			piece := p.Box.Piece(c.piece)
			for got, want := range map[measure.Length]string{piece.Width: c.wide, piece.Height: c.long} {
				if want != "" && got.Exact(p.Units) != want {
					t.Errorf("%v: the %s is %s × %s", c.set, c.piece, p.Say(piece.Width), p.Say(piece.Height))
				}
			}
			if c.closedRound != "" && (len(p.Box.Pairs) == 0 || p.Box.Pairs[0].What != c.closedRound) {
				t.Errorf("%v: closed by %+v", c.set, p.Box.Pairs)
			}
		}
	}
}
