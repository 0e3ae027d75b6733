package plan

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"brevium/core/brief"
	"brevium/core/style"
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
	tried := 0
	for n := range boxes(700) {
		s := style.Styles[n%len(style.Styles)]
		if s.Typed {
			continue
		}
		b := brief.New("mm")
		b.Box.Style, b.Card.Sheet = brief.Text(s.ID), brief.Text([]string{"a4", "a3", "12x12"}[r.IntN(3)])
		b.Contents = []brief.Item{someThing(r)}
		mm := func() brief.Text { return brief.Text(fmt.Sprintf("%d mm", 45+r.IntN(70))) }
		b.Size = &brief.Size{Length: mm(), Width: mm(), Depth: mm()}
		got := Most(t.Context(), b, Default, 0)
		count := func(sized bool, holds func(*Plan) bool) (most int) {
			b := b.Clone()
			if !sized {
				b.Size = nil
			}
			for n := 1; n <= most+past && n <= 60; n++ {
				b.Contents[0].Count = brief.Whole(fmt.Sprint(n))
				if holds(Make(b, Default)) {
					most = n
				}
			}
			return most
		}
		inBox := count(true, func(p *Plan) bool { return p.Holds() })
		onSheet := count(false, func(p *Plan) bool { return p.Holds() && p.Layout.TooBig == nil && len(p.Layout.Sheets) == 1 })
		if got.More || got.InBox != inBox && inBox < 60 || got.OnSheet != onSheet && onSheet < 60 {
			t.Errorf("%s: said %d in the size and %d off a sheet, truly %d and %d, of %s", s.ID, got.InBox, got.OnSheet, inBox,
				onSheet, b.Encode())
		}
		tried++
	}
	if tried == 0 {
		t.Error("nothing was tried")
	}
}
