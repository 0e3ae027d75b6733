package least

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"brevium/core/layout"
	"brevium/core/measure"
)

const mm = measure.Millimetre

// class is one of the ten usual classes of random pieces on a square sheet: six of one
// range of sides, and four in which of ten pieces seven are of one kind.
type class struct {
	side, most int
	mostly     int // wide, tall, large or small, from 1
}

var classes = []class{{10, 10, 0}, {30, 10, 0}, {40, 35, 0}, {100, 35, 0}, {100, 100, 0}, {300, 100, 0}, {100, 0, 1},
	{100, 0, 2}, {100, 0, 3}, {100, 0, 4}}

// kindsOf are the ranges of width and height of the wide, tall, large and small.
var kindsOf = [4][4]int{{67, 100, 1, 50}, {1, 50, 67, 100}, {50, 100, 50, 100}, {1, 50, 1, 50}}

func (c class) task(n int, r *rand.Rand) Task {
	side := mm * Length(c.side)
	t := Task{Sheets: []Size{{Name: "A", W: side, H: side, Count: Unlimited}}}
	between := func(low, high int) Length { return mm * Length(low+r.IntN(high-low+1)) }
	for i := range n {
		of := [4]int{1, c.most, 1, c.most}
		if c.mostly > 0 {
			k := c.mostly - 1
			if other := r.IntN(10) - 6; other > 0 {
				k = (k + other) % 4
			}
			of = kindsOf[k]
		}
		t.Pieces = append(t.Pieces, Piece{Piece: layout.Piece{Name: fmt.Sprint(i), W: between(of[0], of[1]),
			H: between(of[2], of[3]), Count: 1}})
	}
	return t
}

// BenchmarkLeastClasses lays ten of each class and number of pieces, quickly and deeply,
// and tells the sheets over the proved bound, of each class and of all; and over what
// areas alone tell, stretched or not.
func BenchmarkLeastClasses(b *testing.B) {
	for _, work := range []struct {
		name string
		n    int
	}{{"quick", Quick}, {"deep", Deep}} {
		b.Run(work.name, func(b *testing.B) {
			for b.Loop() {
				all, low, area := 0, 0, 0
				for ci, c := range classes {
					sheets, bound := 0, 0
					for n := 20; n <= 100; n += 20 {
						for k := range 10 {
							t := c.task(n, rand.New(rand.NewPCG(uint64(ci), uint64(n*10+k))))
							t.Work = work.n
							got, err := Solve(t, nil)
							if err != nil {
								b.Fatal(err)
							}
							p := t.problem()
							sheets, bound, area = sheets+got.Count, bound+int(got.Bound), area+p.enclosed()
						}
					}
					b.Logf("class %2d: %4d sheets, at least %4d: %.4f", ci+1, sheets, bound, float64(sheets)/float64(bound))
					all, low = all+sheets, low+bound
				}
				b.Logf("all: %d sheets, at least %d", all, low)
				b.ReportMetric(float64(all)/float64(low), "of-bound")
				b.ReportMetric(float64(all)/float64(area), "of-area-bound")
			}
		})
	}
}

// BenchmarkLeastFew lays up to eight pieces and tells how often it is the least that
// looking at every way to cut finds.
func BenchmarkLeastFew(b *testing.B) {
	for b.Loop() {
		r := rand.New(rand.NewPCG(7, 8))
		least, all := 0, 0
		for i := range 400 {
			t, every := few(r, 1+i%8)
			got, err := Solve(t, nil)
			if err != nil {
				b.Fatal(err)
			}
			if all++; got.Least == int64(every.least(1<<len(t.Pieces)-1)) && got.Proved {
				least++
			}
		}
		b.ReportMetric(float64(least)/float64(all), "least-and-proved")
	}
}
