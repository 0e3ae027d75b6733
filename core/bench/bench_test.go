package bench

import (
	"strings"
	"testing"

	"brevium/core/assembly"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/shop"
)

const in = measure.Inch

func say(l Length) string { return strings.TrimSuffix(l.Exact(measure.Inches), " in") }

func TestScoreCards(t *testing.T) {
	const tray = "a | back | b\nleft base right\nc | front | d"
	cases := []struct {
		name  string
		piece *net.Piece
		says  []string
		turns int
	}{
		{"alike on all four", net.Grid("base", net.Cols(2*in, 5*in, 2*in), net.Rows(2*in, 4*in, 2*in), tray),
			[]string{"Cut 9 × 8.", "Score 2 from all four edges, turning the piece a quarter each time."}, 4},
		{"a spacer", net.Grid("lid", net.Cols(23*in/32, 5*in, 23*in/32), net.Rows(23*in/32, 4*in, 23*in/32), tray),
			[]string{"Cut 6 7/16 × 5 7/16.", "Score 23/32 (the 3/4 groove, with a spacer of 1/32 against the fence) from all four " +
				"edges, turning the piece a quarter each time."}, 4},
		{"two by two", net.Grid("sleeve", net.Cols(2*in, 5*in, 2*in), net.Rows(in, 4*in, in), tray),
			[]string{"Cut 9 × 6.", "Left edge against the fence: score at 2. Turn half round and score the same from the right " +
				"edge.", "Top edge against the fence: score at 1. Turn half round and score the same from the bottom edge."}, 4},
		{"uneven", net.Grid("strip", net.Cols(in, 2*in, 5*in), net.Rows(3*in), "a b c"),
			[]string{"Cut 8 × 3.", "Turn so that the left edge is against the fence: score at 1 and 3."}, 1},
		{"part of the way", net.Grid("strip", net.Cols(in, 5*in), net.Rows(3*in, in), "a b\n- ~\nc c"),
			[]string{"Cut 6 × 4.", "Turn so that the left edge is against the fence: score at 1, only from 0 to 3 (ends counted " +
				"from the top edge).",
				"Turn so that the bottom edge is against the fence: score at 1."}, 2},
	}
	for _, c := range cases {
		c.piece.Role("tab", "a", "b", "c", "d")
		c.piece.Find()
		got := ScoreCardOf(c.piece, say, in/16, shop.Tools{}, "")
		if strings.Join(got.Says, "|") != strings.Join(c.says, "|") || len(got.Turns) != c.turns {
			t.Errorf("%s: %d turns, %q", c.name, len(got.Turns), got.Says)
		}
	}
}

func TestStepsReadTheRecipe(t *testing.T) {
	p := net.Grid("base", net.Cols(2*in, 5*in, 2*in), net.Rows(2*in, 4*in, 2*in),
		"a-tab | back | .\nleft base right\n. | front | d-tab")
	p.Corner("a-tab", "left", "back", net.TabShape{Reach: 2 * in, Mitre: in / 4})
	p.Glue("d-tab", "front")
	p.Role("tab", "d-tab")
	p.FoldUp("left", "right")
	p.FoldUp("a-tab", "d-tab")
	p.FoldUp("back", "front")
	p.Find()
	card := ScoreCardOf(p, say, in/16, shop.Tools{}, "")
	steps := Work{Box: &assembly.Box{}, found: found{pieces: []*net.Piece{p}, lids: []string{"lid"}},
		Cards: []ScoreCard{card}, From: "1 of A4",
		Sticks: Sticks{ID: "tape", Title: "double-sided tape"}, Copies: 3,
		Contents: []string{"2 × tin"}, Say: say}.steps()
	var all []string
	for _, s := range steps {
		all = append(all, s.Title+": "+strings.Join(s.Says, " "))
	}
	text := strings.Join(all, "\n")
	for _, part := range []string{
		"Take 1 of A4. Cut out", "Make 3 of everything",
		"Base: make 2 slits, each to the score and no further (in from the top edge, along the " +
			"score 2 from the left edge, 2 deep; in from the bottom edge, along the score 2 from the right edge, 2 deep)",
		"cut away the 2 parts", "mitre their ends (2 slivers", "on the outside of the tabs",
		"left and right; then tabs; then back and front",
		"Set the back and front on the tabs", "Try the lid", "put in 2 × tin",
	} {
		if !strings.Contains(text, part) {
			t.Errorf("the steps don't say %q:\n%s", part, text)
		}
	}
	if strings.Contains(text, "Let wet glue dry") {
		t.Error("tape need not dry")
	}
}

// What is bent round evenly is told with its length and radius, and what is cut
// for the other hand is told too.
func TestBendsAndHands(t *testing.T) {
	p := net.Grid("cover", net.Cols(4*in), net.Rows(in, 3*in, in), "tab\narch\nend")
	p.Curve("arch", false, 180, net.Valley)
	p.Find()
	p.Count, p.Handed = 2, 1
	card := ScoreCardOf(p, say, in/16, shop.Tools{}, "")
	text := strings.Join(card.Says, " ")
	for _, part := range []string{"Bend the arch evenly, 3 long", "Don't score it", "1 of them are mirror images"} {
		if !strings.Contains(text, part) {
			t.Errorf("the card does not say %q: %s", part, text)
		}
	}
	if len(card.Bends) != 1 || len(card.Turns) != 0 || card.Bends[0].Link != "cover-arch" {
		t.Errorf("%+v", card)
	}
}

// Slits are told by the edge they begin at and the score they run along, several in one go only
// where each of the scores has one from each of the edges.
func TestSlitPlaces(t *testing.T) {
	for _, c := range []struct{ picture, want string }{
		{"a | b c\nd e f\ng h i", "in from the top edge, along the score 2 from the left edge, 1 deep"},
		{"a | b | c\nd e f\ng h i", "in from the top edge, along the score 2 from the left and right edges, 1 deep"},
		{"a b | c\nd e f\ng h | i", "in from the top and bottom edges, along the score 2 from the right edge, 1 deep"},
		{"a b c\n- ~ -\nd e f\ng h i", "in from the left and right edges, along the score 1 from the top edge, 2 deep"},
		{"a b c\n- ~ ~\nd e f\n~ ~ -\ng h i", "in from the left edge, along the score 1 from the top edge, 2 deep; " +
			"in from the right edge, along the score 1 from the bottom edge, 2 deep"},
		{"a b c\nd e | f\ng h i", "along the score 2 from the right edge, from 1 to 4, counted from the top edge"},
	} {
		p := net.Grid("it", net.Cols(2*in, 4*in, 2*in), net.Rows(in, 3*in, in), c.picture)
		if got := slitPlaces(SlitsOf(p), say); got != c.want {
			t.Errorf("%q: %q, want %q", c.picture, got, c.want)
		}
	}
}
