package advice_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
)

// What misses its sheet by a sixteenth comes off it by a click, in plain numbers.
func TestPlainNumbersSaveTheSheet(t *testing.T) {
	flap := tried.Sized("7", "3", "2 1/2", "box.style", "flap-box", "box.options.sides", "from-base", "box.options.flap-depth", "1",
		"box.options.closure", "band")
	hinged := tried.Sized("9 1/2", "4 1/8", "1 1/4", "box.style", "hinged-lid")
	for name, b := range map[string]brief.Brief{"flap box": flap, "hinged box": hinged} {
		p := advice.Make(b, request.Default)
		var set brief.Changes
		switch {
		case len(p.Problems) > 0:
			set = p.Problems[0].Set
		case len(p.Advice.Fixes) > 0:
			set = p.Advice.Fixes[0].Set
		}
		if p.Holds() || set.Get("tools.allowances") != "plain" {
			t.Errorf("%s: %v, %v", name, p.Problems, p.Advice.Fixes)
			continue
		}
		q := advice.Make(tried.Taken(b, set), request.Default)
		if !q.Holds() || q.Box.Parts[0].Piece.Width != q.Sheet.Width || q.Box.Parts[0].Piece.Height != q.Sheet.Height {
			t.Errorf("%s in plain numbers: %s, %v", name, tried.Said(q), q.Box.Pieces()[0].Height.Exact("in"))
			continue
		}
		// The box takes its sheet whole; its band comes off the next scrap.
		if len(q.Layout.Sheets) != len(q.Box.Pieces()) || len(q.Box.Notes) == 0 {
			t.Errorf("%s: %d sheets for %d pieces, %v", name, len(q.Layout.Sheets), len(q.Box.Pieces()), q.Box.Notes)
		}
	}
}

// Card with a direction is never turned on its sheet.
func TestPatternsStandUpright(t *testing.T) {
	r := rand.New(rand.NewPCG(14, 14))
	placed := 0
	for range tried.Boxes(2000) {
		b := tried.Random(r)
		b.Card.Stock, b.Card.Sheet = brief.Text([]string{"sprig-220", "stripe-220"}[r.IntN(2)]), "a3"
		b.Copies = "3"
		for _, s := range advice.Make(b, request.Default).Layout.Sheets {
			for _, p := range s.Placed {
				if placed++; p.Turned {
					t.Fatalf("the %s is turned: %s", p.Piece, b.Encode())
				}
			}
		}
	}
	if placed < 100 {
		t.Errorf("only %d were placed", placed)
	}
}

// What a warning offers does away with it, and what would make it fit does: every
// piece has its sheet and the proof holds.
func TestOffersKeepTheirWord(t *testing.T) {
	r := rand.New(rand.NewPCG(16, 16))
	warned, fitted := 0, 0
	for n := range tried.Boxes(3600) {
		s := style.Styles[n%len(style.Styles)]
		b := tried.Random(r)
		b.Box = brief.Box{Style: brief.Text(s.ID)}
		tried.Answer(&b, s, r.IntN(tried.Combinations(s)))
		b.Set("card.sheet", []string{"a4", "a3", "12x12", "8.5x11"}[r.IntN(4)])
		b.Set("tools.allowances", []string{"card", "plain"}[r.IntN(2)])
		for _, q := range s.Asks {
			if len(q.Choices) == 0 && r.IntN(8) == 0 {
				b.Set("box.options."+q.ID, fmt.Sprintf("%d mm", 1+r.IntN(60)))
			}
		}
		p := advice.Make(b, request.Default)
		for _, w := range p.Warnings {
			if p.Box == nil || len(w.Set) == 0 || w.Set.Get("act") != "" {
				continue
			}
			warned++
			for _, still := range advice.Make(tried.Taken(b, w.Set), request.Default).Warnings {
				if still.Code == w.Code && still.Text == w.Text {
					t.Fatalf("%q: %v leaves it, for %s", w.Text, w.Set, b.Encode())
				}
			}
		}
		for _, f := range p.Advice.Fixes {
			fitted++
			if q := advice.Make(tried.Taken(b, f.Set), request.Default); !q.Holds() || len(q.Layout.TooBig) > 0 {
				t.Fatalf("%q: %v %s, for %s", f.Text, f.Set, tried.Said(q), b.Encode())
			}
		}
	}
	if warned < tried.Boxes(1500) || fitted < tried.Boxes(440) {
		t.Errorf("%d warnings and %d fits tried", warned, fitted)
	}
}

// Every problem names a field there is, and where it offers a change, one click
// mends it: nothing is left but what was wrong before, and sheets too small.
func TestProblemsMend(t *testing.T) {
	r := rand.New(rand.NewPCG(15, 15))
	mended, kinds := 0, map[string]bool{}
	for n := range tried.Boxes(3000) {
		s := style.Styles[n%len(style.Styles)]
		b := tried.Random(r)
		b.Box = brief.Box{Style: brief.Text(s.ID)}
		tried.Answer(&b, s, r.IntN(tried.Combinations(s)))
		if b.Size != nil && r.IntN(2) == 0 {
			b.Set([]string{"size.length", "size.width", "size.depth"}[r.IntN(3)], fmt.Sprintf("%d mm", 2+r.IntN(20)))
		}
		for _, q := range s.Asks {
			if len(q.Choices) == 0 && r.IntN(4) == 0 {
				b.Set("box.options."+q.ID, fmt.Sprintf("%d mm", 1+r.IntN(90)))
			}
		}
		for click := 0; ; click++ {
			problems := advice.Make(b, request.Default).Problems
			for _, pr := range problems {
				if !b.Has(pr.Field) {
					t.Fatalf("%q blames %q, for %s", pr.Text, pr.Field, b.Encode())
				}
			}
			if len(problems) == 0 || len(problems[0].Set) == 0 {
				break
			}
			first := problems[0]
			if click == 20 {
				t.Fatalf("clicking goes on: %v, for %s", problems, b.Encode())
			}
			again := tried.Taken(b, first.Set)
			for _, still := range advice.Make(again, request.Default).Problems {
				before := slices.ContainsFunc(problems[1:], func(pr brief.Problem) bool { return pr.Field == still.Field })
				if !before && !strings.Contains(still.Text, "sheet on the shelf") {
					t.Fatalf("%q: %v leads to %q, for %s", first.Text, first.Set, still.Text, b.Encode())
				}
			}
			mended++
			kinds[s.ID+strings.Join(strings.Fields(first.Text)[:3], " ")] = true
			b = again
		}
	}
	if mended < tried.Boxes(500) || len(kinds) < 20 {
		t.Errorf("only %d were mended, of %d kinds", mended, len(kinds))
	}
}
