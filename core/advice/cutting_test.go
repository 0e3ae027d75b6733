package advice_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/cutting"
	"brevium/core/layout"
	"brevium/core/least"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/internal/tried"
)

// tubes are so many boxes of one typed piece: four walls so wide, and a seam beside.
func tubes(copies, wall, width, height int) brief.Brief {
	b, err := brief.Decode(fmt.Appendf(nil, `{"brevium":1,"units":"mm","copies":%d,"box":{"style":"score-list","pieces":[
		{"name":"tube","is":"tube","width":"%d mm","height":"%d mm","across":"%d, %d, %d, %d"}]},
		"card":{"stock":"cover-216","sheet":"a4"},"tools":{"step":"1 mm","fit":"snug"}}`, copies, width, height, wall, 2*wall,
		3*wall, 4*wall))
	if err != nil {
		panic(err)
	}
	return b
}

// Eight tubes of 214 x 121 mm take eight sheets of A4; four millimetres less halve them.
func TestNearMiss(t *testing.T) {
	p := advice.Make(tubes(8, 50, 214, 121), request.Default)
	if !p.OK() || len(p.Layout.Sheets) != 8 {
		t.Fatal(p.Problems, p.SheetsSaid())
	}
	i := slices.IndexFunc(advice.Nearly(p, request.Default), func(n advice.Near) bool { return n.Less == 4*measure.Millimetre })
	if i < 0 {
		t.Fatalf("%+v", advice.Nearly(p, request.Default))
	}
	n := advice.Nearly(p, request.Default)[i]
	if n.Sheets != 4 || n.Set.Get("box.pieces.0.width") != "210 mm" || !strings.Contains(n.Saves(), "4 instead of 8 sheets") {
		t.Errorf("%+v: %s", n, n.Saves())
	}
	if got := advice.Make(p.With(n.Set), request.Default); !got.Holds() || len(got.Layout.Sheets) != 4 {
		t.Errorf("%v %s", got.Problems, got.SheetsSaid())
	}
	near := advice.Nearly(advice.Make(tubes(1, 22, 100, 60), request.Default), request.Default)
	if slices.ContainsFunc(near, func(n advice.Near) bool {
		return n.Less > 0
	}) {
		t.Errorf("one small tube is to be made smaller: %+v", near)
	}
}

// What is said to save does, by plans that are made and proved anew; and a measure a
// mark less would not.
func TestNearMissesSave(t *testing.T) {
	r := rand.New(rand.NewPCG(31, 7))
	seen := 0
	for range tried.Boxes(1200) {
		b := tried.Random(r)
		b.Box = brief.Box{Style: brief.Text(style.Styles[r.IntN(len(style.Styles))].ID)}
		b.Copies = brief.Whole(fmt.Sprint(1 + r.IntN(6)))
		p := tried.Unmended(b)
		if !p.OK() {
			continue
		}
		now := advice.UsesOf(p)
		for _, n := range advice.Nearly(p, request.Default) {
			seen++
			got := tried.Unmended(p.With(n.Set))
			if u := advice.UsesOf(got); !got.Holds() || !u.Saves(now) || u.Sheets != n.Sheets || now.Sheets != n.Before {
				t.Fatalf("%s (%v): %+v for %+v: %s", n.Text, n.Set, u, now, b.Encode())
			}
		}
	}
	if seen < 10 {
		t.Errorf("only %d near misses", seen)
	}
}

// A plan that is cut as was searched has every piece once, keeps what must not be
// turned, uses no more than the quick rules, and tells of pins that can't be.
func TestTake(t *testing.T) {
	r := rand.New(rand.NewPCG(41, 7))
	cut := 0
	for range tried.Boxes(4000) {
		b := tried.Random(r)
		b.Box = brief.Box{Style: brief.Text(style.Styles[r.IntN(len(style.Styles))].ID)}
		b.Copies = brief.Whole(fmt.Sprint(1 + r.IntN(5)))
		b.Sheets.Aim = brief.Text(request.Aims[r.IntN(3)])
		b.Sheets.Sizes = brief.Text(request.Sizes[r.IntN(2)])
		p := tried.Unmended(b)
		if !p.OK() || len(p.Layout.TooBig) > 0 {
			continue
		}
		cut++
		quick, want := advice.UsesOf(p), map[string]int{}
		for _, l := range p.ToLay(p.Box, p.Copies) {
			want[l.Name] += l.Count
		}
		tasks := p.Tasks()
		for i := range tasks {
			tasks[i].Work = 100_000
		}
		p = advice.Cut(p, cutting.Search(tasks, nil), request.Default)
		for _, s := range p.Layout.Sheets {
			if err := s.Check(0); err != nil {
				t.Fatal(err, string(b.Encode()))
			}
			for _, it := range s.Placed {
				want[it.Piece]--
			}
		}
		for name, n := range want {
			if n != 0 {
				t.Fatalf("%d of %s are not laid: %s", n, name, b.Encode())
			}
		}
		if u := advice.UsesOf(p); b.Sheets.Aim == "sheets" && u.Sheets > quick.Sheets || p.Layout.Bound > len(p.Layout.Sheets) {
			t.Fatalf("%+v after %+v, at least %d: %s", u, quick, p.Layout.Bound, b.Encode())
		}
	}
	if cut < tried.Boxes(2400) {
		t.Errorf("only %d plans were cut", cut)
	}
}

func TestPins(t *testing.T) {
	b := tubes(3, 42, 180, 121)
	b.Sheets.Pins = []brief.Pin{{Piece: "tube", Sheet: "2", X: "20 mm", Y: "150 mm"}}
	p := advice.Make(b, request.Default)
	p = advice.Cut(p, cutting.Search(p.Tasks(), nil), request.Default)
	if len(p.Layout.Sheets) != 2 || tried.Warned(p, "pins-left-out") != "" {
		t.Fatal(p.SheetsSaid(), p.Warnings)
	}
	at := slices.IndexFunc(p.Layout.Sheets[1].Placed, func(it layout.Placed) bool { return it.Pinned })
	if at < 0 || p.Layout.Sheets[1].Placed[at].Rect.Y != 150*measure.Millimetre {
		t.Errorf("%+v", p.Layout.Sheets)
	}
	for _, pins := range [][]brief.Pin{
		{{Piece: "tube", Sheet: "1", X: "40 mm", Y: "0 mm"}}, // over the edge
		{{Piece: "tube", Sheet: "1", X: "0 mm", Y: "0 mm"}, {Piece: "tube", Sheet: "1", X: "0 mm", Y: "100 mm"}},
		{{Piece: "tube", Sheet: "1", X: "0", Y: "0"}, {Piece: "tube", Sheet: "2", X: "0", Y: "0"}, {Piece: "tube", Sheet: "3", X: "0",
			Y: "0"}, {Piece: "tube", Sheet: "4", X: "0", Y: "0"}},
	} {
		b.Sheets.Pins = pins
		p := advice.Make(b, request.Default)
		p = advice.Cut(p, cutting.Search(p.Tasks(), nil), request.Default)
		if tried.Warned(p, "pins-left-out") == "" || len(p.Layout.Sheets) != 2 {
			t.Errorf("%+v: %s", pins, p.SheetsSaid())
		}
	}
}

// keeping is the shop that ships, with offcuts in it.
func keeping(offcuts ...shop.Offcut) request.Workshop {
	d := shop.Shipped()
	d.Offcuts = offcuts
	s, _ := shop.Read(d)
	return request.Workshop{Shop: *s}
}

// Several boxes are laid together by their cards; offcuts in hand come first.
func TestTogether(t *testing.T) {
	a, b := advice.Make(tubes(1, 42, 180, 121), request.Default), advice.Make(tubes(1, 34, 148, 121), request.Default)
	found := cutting.Search(cutting.Together(plan.Tables([]*plan.Plan{a, b}), []string{"one", "two"}, request.Cutting{}), nil)
	if cuts := cutting.Cuts(found); len(cuts) != 1 || len(cuts[0].Sheets) != 1 ||
		len(cuts[0].Sheets[0].Placed) != 2 || !strings.HasSuffix(cuts[0].Sheets[0].Placed[0].Piece, ": tube") {
		t.Errorf("%+v", cuts)
	}
	w := keeping(shop.Offcut{ID: "k", Card: "cover-216", Width: "200 mm", Height: "130 mm"})
	c := tubes(1, 42, 180, 121)
	c.Sheets.Offcuts = "yes"
	p := advice.Make(c, w)
	p = advice.Cut(p, cutting.Search(p.Tasks(), nil), request.Default)
	if len(p.Cuts) != 1 || !p.Cuts[0].Offcut || p.Cuts[0].Kept != "k" || p.Cost != 0 {
		t.Errorf("%+v costs %d", p.Cuts, p.Cost)
	}
}

// Two offcuts of one size are two: each is counted once, and only what is cut is used.
func TestEqualOffcuts(t *testing.T) {
	var three []shop.Offcut
	for _, id := range []string{"k1", "k2", "k3"} {
		three = append(three, shop.Offcut{ID: id, Card: "cover-216", Width: "190 mm", Height: "130 mm"})
	}
	w := keeping(three...)
	b := tubes(2, 42, 180, 121)
	b.Sheets.Offcuts = "yes"
	p := advice.Make(b, w)
	p = advice.Cut(p, cutting.Search(p.Tasks(), nil), request.Default)
	kept := map[string]bool{}
	for _, c := range p.Cuts {
		kept[c.Kept] = true
		if !c.Offcut || len(c.Sheets) != 1 {
			t.Errorf("%+v", c)
		}
	}
	if len(kept) != 2 || len(p.Layout.Sheets) != 2 {
		t.Errorf("%v: %d sheets", kept, len(p.Layout.Sheets))
	}
}

// The proof tells of the sheets as they are cut: how many, and that a piece lies on none
// any more; where any size does, one that is too large for the chosen sheet lies.
func TestTakenIsProved(t *testing.T) {
	lies := func(p *plan.Plan) (figure string, holds bool) {
		n := 0
		for _, c := range p.Checks {
			if strings.HasPrefix(c.Name, "every piece fits its sheet") {
				n, figure, holds = n+1, c.Figure, c.Holds
			}
		}
		if n != 1 {
			t.Fatalf("%d checks of the sheets", n)
		}
		return figure, holds
	}
	b := tubes(8, 50, 214, 121)
	b.Sheets.Sizes = "any"
	p := advice.Make(b, request.Default)
	p = advice.CutAsAsked(p, request.Default)
	if figure, holds := lies(p); !holds || figure != p.SheetsSaid() || len(p.Layout.Sheets) > 3 {
		t.Errorf("%s: %v, cut from %s", figure, holds, p.SheetsSaid())
	}
	b = tubes(1, 46, 206, 200)
	b.Sheets.Margin = "9 mm"
	p = advice.Make(b, request.Default)
	if p = advice.CutAsAsked(p, request.Default); p.Holds() || tried.Warned(p, "sheet-too-small") == "" {
		t.Errorf("a piece that lies on no sheet is proved: %+v", p.Layout.TooBig)
	}
	b = tubes(1, 60, 250, 230)
	p = advice.Make(b, request.Default)
	if p.Holds() {
		t.Fatal("it lies on A4")
	}
	b.Sheets.Sizes = "any"
	p = advice.Make(b, request.Default)
	if p = advice.CutAsAsked(p, request.Default); !p.Holds() || tried.Warned(p, "sheet-too-small") != "" || len(p.Advice.Fixes) > 0 {
		t.Errorf("it lies on no sheet of any size: %v", p.Warnings)
	}
}

// BenchmarkLeastBoxes tells how often what a box is cut from is proved to be the least:
// of each style fifty boxes, of 1, 12 and 60 copies, on 12 x 12 in, letter and A4.
func BenchmarkLeastBoxes(b *testing.B) {
	for b.Loop() {
		all, proved := map[int]int{}, map[int]int{}
		for i, st := range style.Styles {
			r := rand.New(rand.NewPCG(51, uint64(i)))
			for n := 0; n < 50; {
				doc := tried.Random(r)
				doc.Box = brief.Box{Style: brief.Text(st.ID)}
				p := tried.Unmended(doc)
				if !p.OK() || len(p.Layout.TooBig) > 0 {
					continue
				}
				n++
				for _, copies := range []int{1, 12, 60} {
					for _, on := range shop.Sheets[:3] {
						if task, lies := boxesOn(p, copies, on); lies {
							got, err := least.Solve(task, nil)
							if err != nil {
								b.Fatal(err)
							}
							if all[copies]++; got.Proved {
								proved[copies]++
							}
						}
					}
				}
			}
		}
		for _, copies := range []int{1, 12, 60} {
			b.ReportMetric(float64(proved[copies])/float64(all[copies]), fmt.Sprintf("proved-of-%d", copies))
		}
	}
}

// boxesOn is so many of a box to be cut from one size of sheet.
func boxesOn(p *plan.Plan, copies int, on shop.Sheet) (t least.Task, lies bool) {
	t = least.Task{Sheets: []least.Size{{Name: on.Title, W: on.Width, H: on.Height, Count: least.Unlimited}}, Work: least.Quick}
	for _, l := range p.ToLay(p.Box, copies) {
		if l.Stock = ""; !l.Lies(on.Width, on.Height) {
			return t, false
		}
		t.Pieces = append(t.Pieces, least.Piece{Piece: l})
	}
	return t, true
}
