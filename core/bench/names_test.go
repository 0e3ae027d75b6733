package bench

import (
	"strings"
	"testing"

	"brevium/core/assembly"
	"brevium/core/net"
	"brevium/core/shop"
)

// What closes the box is not folded with the rest, words of one's own are
// used, and what is put on is put on first.
func TestOrderOfFolding(t *testing.T) {
	p := net.Grid("tube", net.Cols(3*in, in), net.Rows(in, 2*in), "top .\nwall seam")
	p.FoldUp("wall", "seam")
	p.Tell("wrap it round")
	p.Closing("top")
	p.Mark("magnet", net.Point{X: in, Y: in / 2}, in/8)
	p.Window(net.Point{X: in, Y: 2 * in}, net.Point{X: 2 * in, Y: 5 * in / 2})
	p.Slant(net.Bend, net.Point{X: 0, Y: in}, net.Point{X: in, Y: 0}, 30, net.Valley)
	p.Slant(net.Score, net.Point{X: 3 * in, Y: in}, net.Point{X: 2 * in, Y: 0}, 30, net.Valley)
	p.Glue("seam", "wall")
	p.Find()
	card := ScoreCardOf(p, say, in/16, shop.Tools{}, "")
	w := Work{found: found{pieces: []*net.Piece{p}}, Cards: []ScoreCard{card}, From: "2 of A4",
		Sticks: Sticks{ID: "glue", Title: "wet glue"}, Copies: 1,
		Box: &assembly.Box{Told: assembly.Told{
			Errands: []assembly.Errand{{Title: "Close", Says: "Tie it."}}, Cautions: []string{"Mind it."}}},
		Dressing: Dressing{Before: []string{"Knot the handle inside."}}, Say: say}
	at := map[string]string{}
	for _, s := range w.steps() {
		at[s.Title] = strings.Join(s.Says, " ") + " " + s.Caution()
	}
	for step, parts := range map[string][]string{
		"Score":        {"Score on the slant from 3 left, 1 down to 2 left, 0 down.", "Don't score the lines drawn as bends"},
		"Cut":          {"cut a window 1 × 1/2, its corner 1 from the left and 2 from the top"},
		"Closures":     {"Stick a magnet on the inside of the tube: 1 from the left and 1/2 from the top", "Let the two magnets snap together"},
		"Stick":        {"outside of the seam", "Wrap it round. Set edges level", "Mind it."},
		"Put together": {"Knot the handle inside."},
		"Close":        {"Tie it."},
		"Trim":         {"2 of A4"},
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

// What helps when a closure is off is told of the closures there are.
func TestClosureFails(t *testing.T) {
	for what, says := range map[string]string{"magnet": "They push apart|They don't meet", "hook dot": "They don't meet",
		"brad": "The marks are off", "ribbon": "The marks are off"} {
		p := net.New("box", 3*in, 2*in)
		p.Mark(what, net.Point{X: in, Y: in}, in/8)
		s := Step{Title: "Closures"}.checked(Work{found: found{pieces: []*net.Piece{p}}})
		var when []string
		for _, f := range s.Fails {
			when = append(when, f.When)
		}
		if got := strings.Join(when, "|"); got != says || s.Check == "" {
			t.Errorf("%s: %q, %q", what, got, s.Check)
		}
	}
}
