package bench_test

import (
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/core/style"
	"brevium/internal/tried"
)

// familyCards are the score cards of a box of every family, 90 by 70 by 40 mm but where it says
// otherwise, reckoned by hand from its rows and columns.
var familyCards = []struct{ style, piece, says string }{
	{"tray-lid", "base", "Cut 170 × 150. Score 40 from all four edges, turning the piece a quarter each time."},
	{"tray-lid", "lid", "Cut 121 × 101. Score 15 from all four edges, turning the piece a quarter each time."},
	{"flap-box", "box", "Cut 230 × 237. Left edge against the fence: score at 70. Turn half round and score the same from the right " +
		"edge. Turn so that the top edge is against the fence: score at 16 and 87. Turn so that the bottom edge is against the fence: " +
		"score at 40 and 110."},
	{"hinged-lid", "box", "Cut 170 × 260.5. Left edge against the fence: score at 39.5 (the 40 groove, with a spacer of 0.5 against the " +
		"fence), only from 0 to 110.5; 40, only from 110.5 to 260.5 (ends counted from the top edge). Turn half round and score the " +
		"same from the right edge. Turn so that the top edge is against the fence: score at 39.5 (the 40 groove, with a spacer of 0.5 " +
		"against the fence) and 110.5 (the 111 groove, with a spacer of 0.5 against the fence). Turn so that the bottom edge is against " +
		"the fence: score at 40 and 110."},
	{"sleeve-drawer", "sleeve", "Cut 90 × 234. Turn so that the top edge is against the fence: score at 10 and 81. Turn so that the " +
		"bottom edge is against the fence: score at 41 and 112."},
	{"carton", "carton", "Cut 330 × 218. Turn so that the left edge is against the fence: score at 90 and 160. Top edge against the " +
		"fence: score at 19 and 89. Turn half round and score the same from the bottom edge. Turn so that the right edge is against " +
		"the fence: score at 10 and 80."},
	{"pinch-top", "tube", "Cut 330 × 168. Turn so that the left edge is against the fence: score at 90 and 160. Turn so that the right " +
		"edge is against the fence: score at 10 and 80. Turn so that the bottom edge is against the fence: score at " +
		"56. Don't score the lines drawn as bends. Bend the card there by hand."},
	{"gable-cap", "base", "Cut 170 × 150. Score 40 from all four edges, turning the piece a quarter each time."},
	{"wrap-cover", "tray", "Cut 248 × 228. Score 39 and 79 from all four edges, turning the piece a quarter each time."},
	{"wrap-cover", "lid cover", "Cut 100 × 133. Turn so that the top edge is against the fence: score at 20. Turn so that the bottom " +
		"edge is against the fence: score at 40."},
	{"fold-flat", "cover", "Cut 96 × 238. Turn so that the top edge is against the fence: score at 14 and 86. Turn so that the bottom " +
		"edge is against the fence: score at 40 and 111."},
	{"pleat-pouch", "pouch", "Cut 230 × 338. Left edge against the fence: score at 70. Turn half round and score the same from the " +
		"right edge. Top edge against the fence: score at 47, as a mountain fold, 94 and 134. Turn half round and score the same " +
		"from the bottom edge."},
	{"chamfer-foot", "box", "Cut 230 × 276. Left edge against the fence: score at 64, only from 88 to 188; 70, only from 0 to 103 and " +
		"from 173 to 276; 85, only from 103 to 173 (ends counted from the top edge). Turn half round and score the same from the " +
		"right edge. Top edge against the fence: score at 63 and 103. Turn half round and score the same from the bottom edge. Score " +
		"on the slant from 85 left, 103 down to 70 left, 88 down. Score on the slant from 70 left, 188 down to 85 left, 173 down. " +
		"Score on the slant from 160 left, 88 down to 145 left, 103 down. Score on the slant from 145 left, 173 down to 160 left, " +
		"188 down."},
	{"book-wrap", "case", "Cut 230 × 74. Left edge against the fence: score at 94. Turn half round and score the same from the right " +
		"edge."},
	{"corner-shells", "shell", "Cut 2 pieces 188 × 115. Left edge against the fence: score at 73. Turn half round and score the same " +
		"from the right edge. Turn so that the bottom edge is against the fence: score at 42."},
	{"woven-basket", "handle", "Cut 13 × 170. Bend the arch evenly, about 112 long, over something with a radius of " +
		"about 36. Don't score it. Don't score the lines drawn as bends. Bend the card there by hand."},
	{"arched-box", "ends", "Cut 124 × 210. Left edge against the fence: score at 17. Turn half round and score the same from the right " +
		"edge. Top edge against the fence: score at 70. Turn half round and score the same from the bottom edge."},
	{"cross-fold", "cross", "Cut 370 × 268. Score 96 from all four edges, turning the piece a quarter each time."},
	{"strip-column", "strip", "Cut 332 × 82. Turn so that the left edge is against the fence: score at 73 and 166. Turn so that the " +
		"right edge is against the fence: score at 93."},
}

// family plans a box of a family at the size of the table.
func family(t *testing.T, id string, options ...string) *plan.Plan {
	l, w, d := 90, 70, 40
	switch id {
	case "corner-shells":
		l = 70
	case "arched-box":
		d = 70
	}
	p := advice.Make(tried.Metric(id, l, w, d, options...), request.Default)
	if !p.OK() {
		t.Fatalf("%s: %v", id, p.Problems)
	}
	return p
}

func TestScoreCardsOfEveryFamily(t *testing.T) {
	seen := map[string]bool{}
	for _, f := range familyCards {
		p, said := family(t, f.style), ""
		seen[f.style] = true
		for _, c := range p.Guide.Cards {
			if c.Piece == f.piece {
				said = strings.ReplaceAll(strings.Join(c.Says, " "), " mm", "")
			}
		}
		if said != f.says {
			t.Errorf("%s, %s:\n%s\nnot\n%s", f.style, f.piece, said, f.says)
		}
	}
	for _, s := range style.Styles {
		if s.ID != "score-list" && !seen[s.ID] {
			t.Errorf("no card of %s in the table", s.ID)
		}
	}
}

// Of every family: each pass of the scoring tool is told once, at its distance from the edge
// at the fence; each cut lies in one place, to be cut once.
func TestCardsAndCutsAreWhole(t *testing.T) {
	for _, s := range style.Styles {
		if s.ID == "score-list" {
			continue
		}
		p := family(t, s.ID)
		for _, c := range p.Guide.Cards {
			piece, told := p.Box.Piece(c.Piece), map[net.Pass]int{}
			for _, turn := range c.Turns {
				for i, line := range turn.Lines {
					told[line]++
					size := piece.Width
					if !line.AlongWidth {
						size = piece.Height
					}
					if at := turn.At[i].At; at != line.At && at != size-line.At {
						t.Errorf("%s %s: %v is told at %v", s.ID, c.Piece, line, at)
					}
				}
			}
			for _, pass := range piece.Passes {
				if told[pass] != 1 {
					t.Errorf("%s %s: %v is told %d times", s.ID, c.Piece, pass, told[pass])
				}
			}
			slits, away := 0, 0
			for _, cut := range bench.CutsOf(piece) {
				slits, away = slits+len(cut.Slits), away+len(cut.Away)
			}
			if slits != len(piece.Slits) || away != len(piece.Faces)-len(piece.Kept()) {
				t.Errorf("%s %s: %d of %d slits, %d of %d parts", s.ID, c.Piece, slits, len(piece.Slits), away,
					len(piece.Faces)-len(piece.Kept()))
			}
		}
	}
}

// A card tells what the house asks for: a board numbered from the right, both units, burnishing
// first, glue with its waits, a whole batch.
func TestStepsFollowTheHouse(t *testing.T) {
	b := tried.Metric("tray-lid", 90, 70, 40, "copies", "4", "tools.burnish", "before", "tools.adhesive", "glue")
	w := request.Default
	w.Tools.FromRight, w.Tools.Grooves = true, []measure.Length{measure.Millimetre}
	p := advice.Make(b, w)
	titles, text := []string{}, ""
	for _, s := range p.Guide.Steps {
		if n := len(titles); n == 0 || titles[n-1] != s.Title {
			titles = append(titles, s.Title)
		}
		text += strings.Join(s.Says, " ") + " "
		if s.Check == "" || len(s.Fails) == 0 || len(s.Says) == 0 || s.Count < 1 {
			t.Errorf("%s has no check, nothing for when it fails, or no copies: %+v", s.ID, s)
		}
		if s.Title == "Stick" && (s.Count != 4 || len(s.Waits) != 1 || s.Waits[0].Seconds != 30) {
			t.Errorf("%s: %d copies, waits %v", s.ID, s.Count, s.Waits)
		}
	}
	want := "Trim, Score, Fold and burnish, Cut, Mitre, Fold it dry, Stick, Dry-fit, Stick what goes over, Let it dry, Fill, Close"
	if got := strings.Join(titles, ", "); got != want {
		t.Errorf("%s, not %s", got, want)
	}
	if strap := strings.Join(tried.StepOf(family(t, "book-wrap"), "score:strap").Says, " "); !strings.Contains(strap, "mark the top edge") ||
		strings.Contains(text, "mark the top edge") {
		t.Errorf("which piece has its top marked: %s", strap)
	}
	for _, says := range []string{"numbered from the right", "Make 4 of everything", "Make the marked cuts one by one"} {
		if !strings.Contains(text, says) {
			t.Errorf("it is not said: %s", says)
		}
	}
	cards := p.InBoth().Cards
	if says := strings.Join(cards[0].Says, " "); !strings.Contains(says, "170 mm (6 11/16 in)") {
		t.Errorf("not in both units: %s", says)
	}
}

// The work on a set goes title by title; each box is filled and closed by itself, and of a nest
// the inner is closed and put in before the next is closed. Habits hold there too.
func TestWorkOnSets(t *testing.T) {
	order := func(kind string, burnish string) map[string]int {
		b := tried.ASet(kind, "20 mm", brief.Member{ID: "2"})
		b.Set("tools.burnish", burnish)
		j, at := sets.Make(b, request.Default).Job(), map[string]int{}
		for i, s := range j.Steps {
			if _, twice := at[s.ID]; twice {
				t.Errorf("%s: %s is there twice", kind, s.ID)
			}
			at[s.ID] = i + 1
		}
		return at
	}
	for _, c := range []struct {
		kind, burnish string
		ids           []string // in this order
	}{
		{"nest", "", []string{"trim:1", "1/score:base", "2/score:base", "1/cut:base", "1/burnish", "1/fill", "1/close", "set:1", "2/close"}},
		{"stack", "before", []string{"2/score:base", "1/burnish", "2/burnish", "1/cut:base", "1/fill", "1/close", "2/fill", "2/close",
			"set:1"}},
	} {
		at, last := order(c.kind, c.burnish), 0
		for _, id := range c.ids {
			if at[id] <= last {
				t.Errorf("%s: %s comes at %d, after %d", c.kind, id, at[id], last)
			}
			last = at[id]
		}
		if c.kind == "nest" && at["2/fill"] > 0 {
			t.Error("a nest is filled with what is put in by itself")
		}
	}
}
