package advice_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/insert"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
)

// someThing is a thing that lies, stands or rolls, flat, tall or neither.
func someThing(r *rand.Rand) brief.Item {
	mm := func(least, most int) brief.Text { return brief.Text(fmt.Sprintf("%d mm", least+r.IntN(most-least))) }
	it := brief.Item{ID: "1", Name: "thing", Count: "1", Stack: brief.Whole(fmt.Sprint(1 + r.IntN(3)))}
	switch r.IntN(5) {
	case 0:
		it.Shape, it.Length, it.Width, it.Thickness = "flat", mm(40, 110), mm(30, 90), mm(2, 9)
	case 1:
		it.Shape, it.Diameter, it.Height = "cylinder", mm(20, 40), mm(50, 130)
	case 2:
		it.Shape, it.Diameter, it.Height = "cylinder", mm(30, 70), mm(8, 25)
	case 3:
		it.Shape, it.Diameter = "ball", mm(22, 50)
	default:
		it.Shape, it.Length, it.Width, it.Height = "block", mm(20, 70), mm(15, 50), mm(10, 90)
	}
	return it
}

// How many fit is the true most: of every style, in a given size and off a given sheet, it is what counting up
// comes to when each number is planned.
func TestHowManyIsTheMost(t *testing.T) {
	r := rand.New(rand.NewPCG(25, 1))
	tries := 0
	for n := range tried.Fewer(700) {
		s := style.Styles[n%len(style.Styles)]
		if s.Typed {
			continue
		}
		b := brief.New("mm")
		b.Box.Style, b.Card.Sheet = brief.Text(s.ID), brief.Text([]string{"a4", "a3", "12x12"}[r.IntN(3)])
		b.Contents = []brief.Item{someThing(r)}
		mm := func() brief.Text { return brief.Text(fmt.Sprintf("%d mm", 45+r.IntN(70))) }
		b.Size = &brief.Size{Length: mm(), Width: mm(), Depth: mm()}
		got := advice.Most(t.Context(), b, request.Default, 0)
		count := func(sized bool, holds func(*plan.Plan) bool) (most int) {
			b := b.Clone()
			if !sized {
				b.Size = nil
			}
			for n := 1; (most == 0 || n <= most+20) && n <= 60; n++ { // a few flat things may make no wall high enough
				b.Contents[0].Count = brief.Whole(fmt.Sprint(n))
				if holds(plan.Make(b, request.Default)) {
					most = n
				}
			}
			return most
		}
		inBox := count(true, func(p *plan.Plan) bool { return p.Holds() })
		onSheet := count(false, func(p *plan.Plan) bool { return p.Holds() && p.Layout.TooBig == nil && len(p.Layout.Sheets) == 1 })
		if got.More || got.InBox != inBox && inBox < 60 || got.OnSheet != onSheet && onSheet < 60 {
			t.Errorf("%s: said %d in the size and %d off a sheet, truly %d and %d, of %s", s.ID, got.InBox, got.OnSheet, inBox,
				onSheet, b.Encode())
		}
		tries++
	}
	if tries == 0 {
		t.Error("nothing was tried")
	}
}

// A few flat things make no wall that a seam holds on; more of them do, and are counted.
func TestHowManyFromMore(t *testing.T) {
	for _, c := range []struct {
		style, length, width, thickness string
		least                           int
	}{
		{"sleeve-drawer", "59 mm", "40 mm", "2 mm", 40}, {"wrap-cover", "85 mm", "70 mm", "2 mm", 10},
		{"sleeve-drawer", "60 mm", "45 mm", "0.3 mm", 60},
	} {
		b := brief.New("mm")
		b.Box.Style, b.Card.Sheet = brief.Text(c.style), "a4"
		b.Contents = []brief.Item{{ID: "1", Name: "card", Shape: "flat", Length: brief.Text(c.length), Width: brief.Text(c.width),
			Thickness: brief.Text(c.thickness), Count: "1"}}
		got := advice.Most(t.Context(), b, request.Default, 0)
		b.Contents[0].Count = brief.Whole(fmt.Sprint(got.OnSheet))
		if got.OnSheet < c.least || !advice.Make(b, request.Default).Holds() {
			t.Errorf("%+v: %d", c, got.OnSheet)
		}
	}
}

// Compartments asked for with a size alone are built, or refused with what would help; never left out.
func TestCompartmentsOfASize(t *testing.T) {
	for _, s := range style.Styles {
		for _, kind := range insert.Kinds[1:] {
			b := tried.Sized("4", "4", "2 1/2", "box.style", s.ID, "card.sheet", "1000 x 1000 mm", "arrange.compartments", kind.ID)
			p := advice.Make(b, request.Default)
			if p.OK() {
				if !slices.ContainsFunc(p.Box.Pieces(), func(p *net.Piece) bool { return p.Part == net.Insert }) {
					t.Errorf("%s: no %s, and nothing is said", s.ID, kind.ID)
				}
				if !p.Holds() {
					t.Errorf("%s with %s: %s", s.ID, kind.ID, tried.Said(p))
				}
				continue
			}
			if len(p.Problems[0].Set) == 0 || p.Problems[0].Field == "" {
				t.Errorf("%s with %s: %+v", s.ID, kind.ID, p.Problems)
			}
		}
	}
}

// Compartments of a size are as many as are asked for, evenly; what can't be read is told.
func TestCells(t *testing.T) {
	for text, want := range map[string]int{"": 2, "3 x 2": 3, "2×4": 4, "4 by 1": 3, "1 x 1": -1, "many": -1, "13 x 2": -1, "3": -1} {
		b := tried.Sized("6", "4", "2", "arrange.compartments", "slotted", "arrange.cells", text)
		p := advice.Make(b, request.Default)
		if want < 0 {
			if p.OK() || p.Problems[0].Field != "arrange.cells" || !advice.Make(tried.Taken(b, p.Problems[0].Set), request.Default).Holds() {
				t.Errorf("%q: %v", text, p.Problems)
			}
			continue
		}
		n := 0
		if p.OK() {
			for _, part := range p.Box.Parts {
				if part.Piece.Part == net.Insert {
					n += len(part.At)
				}
			}
		}
		if !p.Holds() || n != want {
			t.Errorf("%q: %d dividers, %s %v", text, n, tried.Said(p), p.Problems)
		}
	}
}
