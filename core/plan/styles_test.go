package plan_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
)

// Every style, over random sizes, cards and steps, and every combination of
// answers to the questions it asks: what is planned is proved.
func TestEveryStyleHolds(t *testing.T) {
	for i, style := range style.Styles {
		t.Run(style.ID, func(t *testing.T) {
			t.Parallel()
			r := rand.New(rand.NewPCG(51, uint64(i)))
			all, planned := tried.Combinations(style), 0
			made := map[int]int{}
			for n := 0; n < 12000 && (planned < tried.Fewer(2000) || len(made) < all); n++ {
				if planned >= tried.Fewer(2000) && made[n%all] > 0 {
					continue // what is left is to try every combination once
				}
				b := tried.Random(r)
				b.Box = brief.Box{Style: brief.Text(style.ID)}
				tried.Answer(&b, style, n%all)
				p := tried.Unmended(b)
				if !p.OK() {
					continue
				}
				planned++
				made[n%all]++
				for _, c := range p.Checks {
					if !c.Holds && !strings.HasPrefix(c.Name, "every piece fits") {
						t.Fatalf("%s: %s, for %s", c.Name, c.Figure, b.Encode())
					}
				}
			}
			if planned < tried.Fewer(2000) || len(made) < all {
				t.Errorf("only %d were planned, of %d of %d combinations", planned, len(made), all)
			}
		})
	}
}

// Lengths typed for a style's questions, sensible or not: the box is refused
// with the reason or it holds.
func TestTypedLengthsHoldOrAreRefused(t *testing.T) {
	for i, style := range style.Styles {
		t.Run(style.ID, func(t *testing.T) {
			t.Parallel()
			r := rand.New(rand.NewPCG(61, uint64(i)))
			all, planned, refused := tried.Combinations(style), 0, 0
			for n := range tried.Boxes(1200) {
				b := tried.Random(r)
				b.Box = brief.Box{Style: brief.Text(style.ID)}
				tried.Answer(&b, style, n%all)
				for _, o := range style.Asks {
					if len(o.Choices) == 0 && r.IntN(2) == 0 {
						b.Set("box.options."+o.ID, fmt.Sprintf("%d mm", 4+r.IntN(30+r.IntN(60))))
					}
				}
				p := tried.Unmended(b)
				if !p.OK() {
					refused++
					continue
				}
				planned++
				for _, c := range p.Checks {
					if !c.Holds && !strings.HasPrefix(c.Name, "every piece fits") {
						t.Fatalf("%s: %s, for %s", c.Name, c.Figure, b.Encode())
					}
				}
			}
			if planned < tried.Boxes(50) {
				t.Errorf("%d planned, %d refused", planned, refused)
			}
		})
	}
}

// Compartments of every kind, and things that stand proud, in every style: what
// is planned holds, and the rest is refused with the reason.
func TestInsidesOfEveryStyle(t *testing.T) {
	kinds := []string{"slotted", "partitions", "platform", "trays", "none"}
	for i, style := range style.Styles {
		t.Run(style.ID, func(t *testing.T) {
			t.Parallel()
			r := rand.New(rand.NewPCG(71, uint64(i)))
			planned := map[string]int{}
			for n := range max(70, tried.Boxes(1400)) {
				mm := func(lo, hi int) brief.Text { return brief.Text(fmt.Sprintf("%d mm", lo+r.IntN(hi-lo))) }
				b := brief.New("mm")
				b.Contents = []brief.Item{{Name: "thing", Shape: []brief.Text{"cylinder", "block", "ball"}[r.IntN(3)],
					Diameter: mm(24, 50), Length: mm(30, 60), Width: mm(24, 40),
					Height: mm(20, 50), Count: brief.Whole(fmt.Sprint(1 + r.IntN(6)))}}
				b.Arrange.Compartments = brief.Text(kinds[n%5])
				if n%4 == 0 {
					b.Room.Proud = mm(1, 20)
				}
				b.Set("card.sheet", "a3")
				b.Set("card.join", "yes")
				b.Box = brief.Box{Style: brief.Text(style.ID)}
				tried.Answer(&b, style, r.IntN(tried.Combinations(style)))
				p := tried.Unmended(b)
				if !p.OK() {
					continue
				}
				planned[kinds[n%5]]++
				for _, c := range p.Checks {
					if !c.Holds && !strings.HasPrefix(c.Name, "every piece fits") {
						t.Fatalf("%s: %s, for %s", c.Name, c.Figure, b.Encode())
					}
				}
			}
			divided := style.Rooms != nil || planned["slotted"] > 0 && planned["trays"] > 0
			if planned["none"] < tried.Boxes(30) || !divided {
				t.Errorf("planned %v", planned)
			}
		})
	}
}

// The carton worked by hand: 90 x 40 x 120 mm, seam 10, both ends tucked with
// lips of 15.
func TestCartonExample(t *testing.T) {
	b := tried.Sized("90 mm", "40 mm", "120 mm", "units", "mm", "tools.step", "1 mm", "card.sheet", "a3", "box.style",
		"carton", "box.options.tuck", "15 mm", "box.options.tab-width", "10 mm")
	p := advice.Make(b, request.Default)
	if !p.Holds() {
		t.Fatal(p.Problems, p.Checks)
	}
	piece := p.Box.Pieces()[0]
	at := map[bool][]string{}
	for _, s := range piece.Passes {
		at[s.AlongWidth] = append(at[s.AlongWidth], strings.TrimSuffix(s.At.Exact("mm"), " mm"))
	}
	if piece.Width.Exact("mm") != "270 mm" || piece.Height.Exact("mm") != "230 mm" ||
		strings.Join(at[true], " ") != "90 130 220 260" || strings.Join(at[false], " ") != "15 55 175 215" {
		t.Errorf("%s x %s: %v", piece.Width.Exact("mm"), piece.Height.Exact("mm"), at)
	}
	// Seen in space, the walls stand where their names say.
	body := p.Box.Assemble(p.Card.Caliper, assembly.Closed).Of("carton")
	for name, in := range map[string]fold.Vec{"left": {X: 1}, "right": {X: -1}, "front": {Y: 1}, "back": {Y: -1},
		"bottom": {Z: 1}, "top": {Z: -1}} {
		if f := body.Find(name); f == nil || f.In.Dot(in) < 0.999 {
			t.Errorf("%s looks the wrong way", name)
		}
	}
}

// The gable cap worked by hand: w = 3, s = 2, e = 1/2 in stand 1.823 in above the
// skirt; and the pinch-top: 55 mm over 70 mm rise 42.4 mm.
func TestRoofExamples(t *testing.T) {
	cap := tried.Sized("2 15/16 in", "2 15/16 in", "2 in", "card.sheet", "a3", "box.style", "gable-cap",
		"box.options.roof", "2 in", "box.options.seal", "1/2 in")
	pinch := tried.Sized("70 mm", "70 mm", "60 mm", "units", "mm", "tools.step", "1 mm", "card.sheet", "a3",
		"box.style", "pinch-top", "box.options.pinch", "55 mm")
	for _, c := range []struct {
		b     brief.Brief
		piece string
		foot  string // the face whose upper edge the roof stands on
		want  float64
	}{{cap, "cap", "front", 1.823 * 25.4}, {pinch, "tube", "front", 42.43}} {
		p := advice.Make(c.b, request.Default)
		if !p.Holds() {
			t.Fatal(p.Problems, p.Checks)
		}
		body := p.Box.Assemble(p.Card.Caliper, assembly.Closed).Of(c.piece)
		_, top := fold.Bounds(body)
		eave := 0.0
		for _, v := range body.Find(c.foot).Poly {
			eave = max(eave, v.Z)
		}
		if got := top.Z - eave; got < c.want-0.02 || got > c.want+0.02 {
			t.Errorf("%s: %.3f mm above the eaves, worked by hand %.3f", c.piece, got, c.want)
		}
	}
	if w := advice.Make(cap, request.Default).Box.Piece("cap"); w.Width.Exact("in") != "12 7/16 in" || w.Face("front").Area() < 3*25.4*25.4 {
		t.Errorf("four walls of 3 in and a seam of 7/16: %s", w.Width.Exact("in"))
	}
}
