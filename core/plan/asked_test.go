package plan_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
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
			b := tried.Sized("70 mm", "80 mm", "75 mm", append(c.set, "units", "mm", "tools.step", "1 mm", "card.sheet", "600 x 600 mm",
				"tools.allowances", allowances)...)
			p := advice.Make(b, request.Default)
			if !p.Holds() {
				t.Errorf("%v, %s: %s %v", c.set, allowances, tried.Said(p), p.Problems)
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

// Every strip of a basket, both covers of a book wrap and the petals over what is in a tray can be dressed.
func TestDressesAll(t *testing.T) {
	for _, c := range []struct {
		on    string
		part  string
		count int // of layers on it
		set   []string
	}{
		{"all", "basket", 12 + 3, []string{"box.style", "woven-basket"}},
		{"all", "case", 3, []string{"box.style", "book-wrap"}},
		{"petals", "petals", 8, []string{"arrange.compartments", "petals"}},
		{"all petals", "petals", 8, []string{"arrange.compartments", "petals"}},
		{"all", "carton", 6, []string{"box.style", "carton", "box.options.pull", "yes"}},
	} {
		b := tried.Sized("90 mm", "90 mm", "60 mm", append(c.set, "units", "mm", "card.sheet", "600 x 600 mm")...)
		b.Dress = brief.Dress{Layers: []brief.Layer{{On: brief.Text(c.on)}}}
		p := advice.Make(b, request.Default)
		if !p.Holds() {
			t.Errorf("%v: %s %v", c.set, tried.Said(p), p.Problems)
			continue
		}
		n := 0
		for _, part := range p.Box.Parts {
			for _, at := range part.At {
				if part.Piece.Part == net.Layer && strings.HasPrefix(at.On, c.part+"/") {
					n++
				}
			}
		}
		if n != c.count {
			t.Errorf("%v: %d layers on the %s, want %d", c.set, n, c.part, c.count)
		}
	}
}

// A tab to pull goes on whatever opens by an edge, below too; what has none is told which has. What hangs over
// from a flap moves along with it, and is refused only where it would stand on the table.
func TestPullsAndOrnaments(t *testing.T) {
	for _, c := range []struct {
		style string
		dress brief.Dress
		says  string // of the refusal, "" where it holds
	}{
		{"carton", brief.Dress{Grips: []brief.Grip{{Kind: "pull", On: "top"}}}, ""},
		{"carton", brief.Dress{Grips: []brief.Grip{{Kind: "pull", On: "bottom"}}}, ""},
		{"arched-box", brief.Dress{Grips: []brief.Grip{{Kind: "pull", On: "front"}}}, ""},
		{"flap-box", brief.Dress{Grips: []brief.Grip{{Kind: "pull", On: "flap"}}}, ""},
		{"tray-lid", brief.Dress{Grips: []brief.Grip{{Kind: "pull", On: "lid/top"}}}, "folded along every edge"},
		{"flap-box", brief.Dress{Toppers: []brief.Topper{{On: "flap", Width: "30 mm", Height: "40 mm", Down: "8 mm"}}}, ""},
		{"flap-box", brief.Dress{Toppers: []brief.Topper{{On: "flap", Width: "30 mm", Height: "70 mm", Down: "30 mm"}}}, "below the foot"},
		{"flap-box", brief.Dress{Toppers: []brief.Topper{{On: "back", Width: "30 mm", Height: "95 mm"}}}, "reaches past the back"},
	} {
		b := tried.Sized("90 mm", "70 mm", "80 mm", "units", "mm", "box.style", c.style, "card.sheet", "600 x 600 mm")
		b.Dress = c.dress
		p := advice.Make(b, request.Default)
		if c.says == "" && !p.Holds() || c.says != "" && (p.OK() || !strings.Contains(p.Problems[0].Text, c.says)) {
			t.Errorf("%s %+v: %s %v", c.style, c.dress, tried.Said(p), p.Problems)
		} else if c.says != "" && len(p.Problems[0].Set) == 0 {
			t.Errorf("%s: nothing mends %q", c.style, p.Problems[0].Text)
		}
	}
	for _, set := range [][]string{{"box.options.bottom-pull", "yes"}, {"box.options.bottom-pull", "yes", "box.options.pull", "yes"}} {
		b := tried.Sized("90 mm", "70 mm", "80 mm", append(set, "units", "mm", "box.style", "carton", "card.sheet", "a3")...)
		p := advice.Make(b, request.Default)
		if !p.Holds() || p.Box.Piece("bottom pull tab") == nil {
			t.Errorf("%v: %s %v", set, tried.Said(p), p.Problems)
		}
	}
}

// What a style answers for itself lies on the marks of the tools, of every style with every answer, in boxes of
// any size on the marks.
func TestOwnAnswersOnMarks(t *testing.T) {
	r, planned := rand.New(rand.NewPCG(25, 5)), 0
	for _, s := range style.Styles {
		for _, step := range []string{"1/16 in", "1 mm", "0.5 mm"} {
			for n := range tried.Fewer(1800) {
				mark, unit, _ := strings.Cut(step, " ")
				side := func() string { return fmt.Sprintf("%d %s", 20+r.IntN(30+n%3*40), unit) }
				if mark == "1/16" {
					side = func() string { return fmt.Sprintf("%d/16 in", 12+r.IntN(20+n%3*20)) }
				}
				l, w := side(), side()
				if n%2 == 0 {
					w = l // some styles are square
				}
				b := tried.Sized(l, w, side(), "box.style", s.ID, "card.sheet", "600 x 600 mm", "tools.step", step, "units", unit)
				tried.Answer(&b, s, r.IntN(tried.Combinations(s)))
				p := plan.Make(b, request.Default)
				if !p.OK() {
					continue
				}
				planned++
				for id, l := range p.Box.Settled {
					if typed := b.Box.Options[id]; typed == "" && l%(p.Step.Size/2) != 0 && id != "hole" && id != "notch-width" { // as the punch is
						t.Errorf("%s, %s: %s is %s", s.ID, step, id, l.Exact(p.Step.Unit))
					}
				}
			}
		}
	}
	if planned < 300 {
		t.Errorf("only %d boxes were planned", planned)
	}
}
