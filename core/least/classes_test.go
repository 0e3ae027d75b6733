package least

import (
	"fmt"
	"math/rand/v2"
	"os"
	"testing"

	"brevium/core/layout"
	"brevium/core/measure"
)

const mm = measure.Millimetre

// classes are the usual ten of random pieces on square sheets: four of one range, six
// of which four mix kinds.
type class struct {
	bin    int
	lo, hi int
	mostly int // which of wide, tall, large, small is 70 of 100
	isMix  bool
}

var classes = []class{{bin: 10, lo: 1, hi: 10}, {bin: 30, lo: 1, hi: 10}, {bin: 40, lo: 1, hi: 35}, {bin: 100, lo: 1, hi: 35},
	{bin: 100, lo: 1, hi: 100}, {bin: 300, lo: 1, hi: 100}, {bin: 100, mostly: 0, isMix: true}, {bin: 100, mostly: 1, isMix: true},
	{bin: 100, mostly: 2, isMix: true}, {bin: 100, mostly: 3, isMix: true}}

func (c class) task(n int, r *rand.Rand) Task {
	side := mm * Length(c.bin)
	t := Task{Sheets: []Size{{Name: "bin", W: side, H: side, Count: Unlimited}}, Seed: 1}
	between := func(lo, hi int) Length { return mm * Length(lo+r.IntN(hi-lo+1)) }
	ranges := [4][4]int{{67, 100, 1, 50}, {1, 50, 67, 100}, {50, 100, 50, 100}, {1, 50, 1, 50}}
	for i := range n {
		w, h := between(max(c.lo, 1), max(c.hi, 1)), between(max(c.lo, 1), max(c.hi, 1))
		if c.isMix {
			k := c.mostly
			if d := r.IntN(10); d > 6 {
				k = (c.mostly + d - 6) % 4
			}
			w, h = between(ranges[k][0], ranges[k][1]), between(ranges[k][2], ranges[k][3])
		}
		t.Pieces = append(t.Pieces, Piece{Piece: layout.Piece{Name: fmt.Sprint(i), W: w, H: h, Count: 1}})
	}
	return t
}

func TestZ(t *testing.T) {
	work := Quick
	fmt.Sscan(os.Getenv("WORK"), &work)
	var all, low int
	for ci, c := range classes {
		bins, bounds := 0, 0
		for n := 20; n <= 100; n += 20 {
			for k := range 10 {
				task := c.task(n, rand.New(rand.NewPCG(uint64(ci), uint64(n*10+k))))
				task.Work = work
				r, err := Solve(task, nil)
				if err != nil {
					t.Fatal(err)
				}
				best, lb := r.Count, int(r.Bound)
				bins += best
				bounds += lb
			}
		}
		fmt.Printf("class %d: %d %d %.4f\n", ci+1, bins, bounds, float64(bins)/float64(bounds))
		all, low = all+bins, low+bounds
	}
	fmt.Printf("all %d %d %.4f\n", all, low, float64(all)/float64(low))
}
