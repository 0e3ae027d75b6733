package bench

import (
	"strings"
	"testing"

	"brevium/core/sheet"
)

func TestNames(t *testing.T) {
	for faces, want := range map[string]string{
		"":                                "",
		"left":                            "left",
		"left right":                      "left and right",
		"back front left":                 "back, front and left",
		"a-tab":                           "tab",
		"a-tab b-tab":                     "tabs",
		"left a-tab b-tab":                "left and tabs",
		"left-roll right-roll":            "rolled flaps",
		"left-dust":                       "dust flap",
		"back-roof left-gusset b-gusset":  "roof slope and gussets",
		"lid-left lid-right":              "lid left and lid right",
		"top top-lip":                     "top and top lip",
		"back-seal a-wing b-wing c-wrap":  "ridge strip, wings and wrapped corner",
		"seam right-top left-top top-lip": "seam, right top, left top and top lip",
	} {
		if got := Names(strings.Fields(faces)); got != want {
			t.Errorf("%q: %q, want %q", faces, got, want)
		}
	}
}

// What closes the box is not folded with the rest, words of one's own are
// used, and what is put on is put on first.
func TestOrderOfFolding(t *testing.T) {
	p := sheet.Grid("tube", sheet.Cols(3*in, in), sheet.Rows(in, 2*in), "top .\nwall seam")
	p.FoldUp("wall", "seam")
	p.Tell("wrap it round")
	p.FoldUp("top")
	p.Mark("magnet", sheet.Point{X: in, Y: in / 2})
	p.Window(sheet.Point{X: in, Y: 2 * in}, sheet.Point{X: 2 * in, Y: 5 * in / 2})
	p.Slant(sheet.Bend, sheet.Point{X: 0, Y: in}, sheet.Point{X: in, Y: 0}, 30, sheet.Valley)
	p.Slant(sheet.Score, sheet.Point{X: 3 * in, Y: in}, sheet.Point{X: 2 * in, Y: 0}, 30, sheet.Valley)
	p.Glue("seam", "wall")
	p.Find()
	card := Card(p, say, in/16)
	w := Work{Pieces: []*sheet.Piece{p}, Cards: []ScoreCard{card}, Sheets: 2, SheetIs: "A4",
		Adhesive: "wet glue", Copies: 1, Opens: []string{"top"},
		Together: []string{"Stick the one on the other."}, Closing: []string{"Close the top."}, Caution: "Mind it.", Say: say}
	at := map[string]string{}
	for _, s := range Steps(w) {
		at[s.Title] = strings.Join(s.Says, " ") + " " + s.Caution
	}
	for step, parts := range map[string][]string{
		"Score": {"Score on the slant from 3 left, 1 down to 2 left, 0 down.", "Don't score the lines drawn as bends"},
		"Cut":   {"cut a window 1 × 1/2, its corner 1 from the left and 2 from the top"},
		"Stick": {"still flat: stick the magnet on 1 from the left and 1/2 from the top", "outside of the seam",
			"in this order: wrap it round. Set edges level", "Stick the one on the other.", "Mind it."},
		"Close": {"Close the top."},
		"Trim":  {"2 sheets of A4"},
	} {
		for _, part := range parts {
			if !strings.Contains(at[step], part) {
				t.Errorf("%s does not say %q: %s", step, part, at[step])
			}
		}
	}
	if len(card.Slants) != 2 || card.Slants[0].Link != "tube-s1" || strings.Contains(at["Stick"], "; then top") {
		t.Errorf("%v; %s", card.Slants, at["Stick"])
	}
}
