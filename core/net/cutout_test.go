package net

import (
	"math"
	"testing"

	"brevium/core/measure"
)

// What is cut to an outline is one face with its holes, whichever way round these were
// said, and its outline is drawn once.
func TestShape(t *testing.T) {
	const mm = measure.Millimetre
	at := func(x, y Length) Point { return Point{x * mm, y * mm} }
	outline := []Point{at(0, 0), at(40, 0), at(60, 15), at(40, 30), at(0, 30)}
	hole := []Point{at(10, 10), at(20, 10), at(20, 20), at(10, 20)}
	flip := func(r []Point) (out []Point) {
		for i := range r {
			out = append(out, r[len(r)-1-i])
		}
		return out
	}
	for i, ring := range [][]Point{outline, flip(outline)} {
		p := New("tag", 60*mm, 30*mm)
		p.Shape("tag", ring, [][]Point{[][]Point{hole, flip(hole)}[i]})
		p.Find()
		f := p.Face("tag")
		if f == nil || len(p.Kept()) != 1 || len(p.Faults) != 0 || !p.Shaped() {
			t.Fatalf("%v %v", p.Faces, p.Faults)
		}
		if want := 40*30 + 20*30/2 - 100.0; math.Abs(f.Area()-want) > 1e-6 {
			t.Errorf("%f, want %f", f.Area(), want)
		}
		cuts, holes := 0, 0
		for _, l := range p.Outline() {
			if l.Kind == Hole {
				holes++
			} else if l.Kind == Cut {
				cuts++
			}
		}
		if cuts != 5 || holes != 4 {
			t.Errorf("%d cuts, %d sides of holes", cuts, holes)
		}
	}
	plain := New("card", 60*mm, 30*mm)
	plain.Shape("card", []Point{at(0, 0), at(60, 0), at(60, 30), at(0, 30)}, nil)
	if plain.Find(); plain.Shaped() || plain.Face("card") == nil {
		t.Error("a rectangle is no shape")
	}
}
