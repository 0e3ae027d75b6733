package plan_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/cutting"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/readings"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
)

// furnished is any box as a shop with tools of its own may make it: parts of other
// cards, layers, a floor lined, a board with grooves.
func furnished(r *rand.Rand, n int) brief.Brief {
	s := style.Styles[n%len(style.Styles)]
	b := tried.Random(r)
	b.Box = brief.Box{Style: brief.Text(s.ID)}
	tried.Answer(&b, s, r.IntN(tried.Combinations(s)))
	card := func() string { return request.Default.Cards[r.IntN(len(request.Default.Cards))].ID }
	for _, part := range []string{"lid", "band", "insert", "liner", "layer", "base"} {
		if r.IntN(3) == 0 {
			b.Set("card.stocks."+part, card())
		}
	}
	some := func(most int) string { return fmt.Sprint(r.IntN(most + 1)) }
	b.Set("dress.outside", some(2))
	b.Set("dress.inside", some(1))
	b.Set("dress.floor", some(2))
	b.Set("tools.adhesive", []string{"", "tape", "glue", "both"}[r.IntN(4)])
	b.Set("tools.grooves", []string{"", "1/8 in", "5 mm", "1 mm", "1/16 in, 10 mm"}[r.IntN(5)])
	b.Set("card.grain", []string{"", "keep"}[r.IntN(2)])
	return b
}

// Whatever the shop, a box that is planned is proved; every score lies in a groove,
// or says how it is made and comes out right; and every piece lies on a sheet of its
// own card, the way its grain runs.
func TestFurnishedBoxesHold(t *testing.T) {
	r := rand.New(rand.NewPCG(61, 62))
	planned, odd, mixed := 0, 0, 0
	for n := range tried.Boxes(4000) {
		b := furnished(r, n)
		p := advice.Make(b, request.Default)
		if !p.OK() {
			continue
		}
		planned++
		if !p.Holds() && len(p.Layout.TooBig) == 0 {
			t.Fatalf("%s, for %s", tried.Said(p), b.Encode())
		}
		for _, c := range p.Guide.Cards {
			for _, turn := range c.Turns {
				for _, m := range turn.At {
					odd += wantHow(t, p, c, turn, m)
				}
			}
		}
		for _, cut := range p.Cuts {
			for _, s := range cut.Sheets {
				for _, l := range s.Placed {
					piece := p.Box.Piece(l.Piece)
					if piece == nil || p.CardOf(piece.Stock).ID != s.Stock || s.W != cut.Sheet.Width {
						t.Fatalf("%s lies on %s: %s", l.Piece, s.Stock, b.Encode())
					}
					if runs := cut.Card.Runs(cut.Sheet); p.KeepGrain && runs != "" && !cut.Card.Directed() &&
						(runs == cutting.WantsGrain(piece)) == l.Turned {
						t.Fatalf("the grain of the %s runs the wrong way: %s", l.Piece, b.Encode())
					}
				}
			}
		}
		if len(p.Cuts) > 1 {
			mixed++
		}
	}
	if planned < tried.Boxes(1500) || odd < tried.Boxes(1000) || mixed < tried.Boxes(360) {
		t.Errorf("%d planned, %d odd scores, %d of several cards", planned, odd, mixed)
	}
}

// wantHow checks that a score is set by the board, or by the way round it tells.
func wantHow(t *testing.T, p *plan.Plan, c bench.ScoreCard, turn bench.Turn, m bench.Mark) (odd int) {
	t.Helper()
	how := m.How(p.Say)
	switch {
	case !m.Odd():
		if !p.Tools.Direct(m.At, p.Step.Size) || how != "" {
			t.Fatalf("%s: no groove at %s, and no word of it", c.Piece, p.Say(m.At))
		}
		return 0
	case how == "" || !m.Ruler && m.Groove-m.Spacer != m.At:
		t.Fatalf("%s: %s by the %s groove with %s: %q", c.Piece, p.Say(m.At), p.Say(m.Groove), p.Say(m.Spacer), how)
	case !strings.Contains(strings.Join(c.Says, " "), how):
		t.Fatalf("the card of the %s does not say %q: %v", c.Piece, how, c.Says)
	case len(p.Tools.Grooves) > 0 && !m.Ruler && !p.Tools.Direct(m.Groove, p.Step.Size):
		t.Fatalf("%s: there is no groove at %s", c.Piece, p.Say(m.Groove))
	}
	return 1
}

// Left to the plan, each card is cut from the sheet that takes least of it.
func TestLeastSheet(t *testing.T) {
	r := rand.New(rand.NewPCG(12, 12))
	sheets := map[string]bool{}
	for n := range tried.Boxes(900) {
		b := furnished(r, n)
		b.Set("card.sheet", request.Least)
		b.Copies = brief.Whole(fmt.Sprint(1 + r.IntN(5)))
		p := advice.Make(b, request.Default)
		if !p.OK() {
			continue
		}
		if !p.Holds() {
			t.Fatalf("%s, for %s", tried.Said(p), b.Encode())
		}
		for i, pieces := range cutting.ByCard(p.ToLay(p.Box, p.Copies)) {
			cut := p.Cuts[i]
			sheets[cut.Sheet.ID] = true
			for _, s := range request.Default.Comes(cut.Card) {
				if n, big := layout.Count(pieces, s.Width, s.Height); big == 0 &&
					float64(n)*s.Area() < cut.Sheet.Area()*float64(len(cut.Sheets))-1 {
					t.Fatalf("%s would take less than %s: %s", s.ID, cut.Sheet.ID, b.Encode())
				}
			}
		}
	}
	if len(sheets) < 4 {
		t.Errorf("only %v are ever taken", sheets)
	}
}

// At the bench: holes of one's own punch, or the way round where it does not reach;
// glue on corners and tape on seams; strips of tape laid over several pieces; strips for
// the fence, and from which offcut; folds before cuts, where the house does it so.
func TestWorkOfTheShop(t *testing.T) {
	wrap := tried.Sized("5", "3 1/2", "2", "box.style", "wrap-cover", "card.sheet", "a3", "tools.punches", "hole 6 mm reach 3 mm")
	sleeves := tried.Sized("3", "2", "1", "box.style", "sleeve-drawer", "card.sheet", "a3", "copies", "12", "tools.adhesive",
		"both")
	odd := tried.Sized("5", "3 1/2", "1 7/16", "tools.grooves", "1/8 in", "tools.burnish", "before", "tools.numbers", "right")
	near := wrap.Clone()
	near.Set("tools.punches", "hole 6 mm")
	for _, c := range []struct {
		brief brief.Brief
		says  []string
	}{
		{wrap, []string{"your punch reaches", "screw punch"}}, {near, []string{"punch a round hole", "with your 6 mm punch"}},
		{sleeves, []string{"put tape on the", "put glue on the", "Lay one strip of tape over the seam of all of them before you cut",
			"of tape in"}},
		{odd, []string{"groove, with a spacer of 5/16 in",
			"Cut a strip of card 5/16 in wide to lay against the fence, from what is left of sheet",
			"numbered from the right"}},
	} {
		p := advice.Make(c.brief, request.Default)
		var all []string
		for _, s := range p.Guide.Steps {
			all = append(append(all, s.Title), s.Says...)
		}
		text := strings.Join(append(all, readings.Supplies(p)...), " ")
		for _, say := range c.says {
			if !strings.Contains(text, say) {
				t.Errorf("nothing says %q: %s", say, text)
			}
		}
		title := func(is string) int {
			return slices.IndexFunc(p.Guide.Steps, func(s bench.Step) bool { return s.Title == is })
		}
		if (title("Fold and burnish") < title("Cut")) != (c.brief.Tools.Burnish == "before") {
			t.Errorf("folded and cut in the wrong order: %s", text)
		}
	}
	p := advice.Make(sleeves, request.Default)
	if p.Guide.Tape.Saved == 0 || p.Guide.Tape.Pieces() <= 0 || p.Guide.Tape.Long() < 12*29*measure.Inch/10 {
		t.Errorf("%+v", p.Guide.Tape)
	}
	rounded := tried.Sized("5", "3", "1", "box.style", "book-wrap", "card.sheet", "a3", "tools.punches", "corner 5 mm")
	if tips := fmt.Sprint(advice.Make(rounded, request.Default).Box.Pieces()[0].Tips); !strings.Contains(tips, "corner punch") {
		t.Errorf("the corner punch is not used: %s", tips)
	}
}
