package least

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/optimize/convex/lp"

	"brevium/core/layout"
)

// worthOf is the most that pieces in a rectangle are worth, by trying every cut.
func worthOf(known map[[2]int64]int64, p *problem, worth []int64, w, h int64) int64 {
	at := [2]int64{w, h}
	if v, ok := known[at]; ok {
		return v
	}
	best := int64(0)
	for k, kind := range p.kinds {
		for _, way := range kind.ways {
			if way[0] <= w && way[1] <= h {
				best = max(best, worth[k])
			}
		}
	}
	for x := int64(1); x <= w/2; x++ {
		best = max(best, worthOf(known, p, worth, x, h)+worthOf(known, p, worth, w-x, h))
	}
	for y := int64(1); y <= h/2; y++ {
		best = max(best, worthOf(known, p, worth, w, y)+worthOf(known, p, worth, w, h-y))
	}
	known[at] = best
	return best
}

// The table finds what trying every cut finds; the coarse one no more than that; and the
// pattern that is unfolded is worth it and lies on the sheet.
func TestTable(t *testing.T) {
	r := rand.New(rand.NewPCG(2, 2))
	for range 120 {
		task := Task{Sheets: []Size{{Name: "A", W: mm * Length(12+r.IntN(22)), H: mm * Length(12+r.IntN(22)), Count: Unlimited}}}
		for i := range 1 + r.IntN(4) {
			task.Pieces = append(task.Pieces, Piece{Piece: layout.Piece{Name: string(rune('a' + i)), W: mm * Length(2+r.IntN(14)),
				H: mm * Length(2+r.IntN(14)), Count: 1, Upright: r.IntN(2) == 0}})
		}
		task.Pieces = append(task.Pieces, Piece{Piece: layout.Piece{Name: "one", W: mm, H: mm, Count: 1}}) // so that a unit is a millimetre
		p := task.problem()
		s := p.sizes[0]
		worth, on := make([]int64, len(p.kinds)), make([]bool, len(p.kinds))
		for k := range worth {
			worth[k], on[k] = int64(r.IntN(100)), p.kinds[k].on[0]
		}
		want := worthOf(map[[2]int64]int64{}, p, worth, s.w, s.h)
		for _, tb := range []*table{p.newTable(s.w, s.h, on), p.coarseTable(s.w, s.h, on)} {
			tb.fill(worth)
			got := tb.most(s.w, s.h)
			if got > want || !tb.coarse && got != want {
				t.Fatalf("worth %d, by every cut %d (coarse: %v): %+v", got, want, tb.coarse, task)
			}
			tr := newTree(0, s.w, s.h)
			n := tb.pattern(s.w, s.h, worth, tr)
			sum, pieces := int64(0), 0
			for k := range n {
				sum, pieces = sum+int64(n[k])*worth[k], pieces+n[k]
			}
			if sum != got || filled(t, tr) != pieces {
				t.Fatalf("a pattern worth %d of %d, %d pieces", sum, got, pieces)
			}
		}
	}
}

// Of programmes that say how often each pattern is cut, the simplex finds what the
// package's finds, with duals that prove it.
func TestSimplex(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 3))
	for range 150 {
		m := 1 + r.IntN(7)
		n := m + r.IntN(20)
		cols, costs, want := make([][]float64, n), make([]float64, n), make([]float64, m)
		var s simplex
		s.begin(m)
		for i := range m {
			want[i] = float64(1 + r.IntN(60))
			col := make([]float64, m)
			col[i] = float64(1 + r.IntN(5))
			cols[i], costs[i] = col, float64(1+r.IntN(3))
			s.set(i, column{of: i}, costs[i], col[i], want[i])
		}
		for j := m; j < n; j++ {
			cols[j], costs[j] = make([]float64, m), float64(1+r.IntN(3))
			for i := range m {
				cols[j][i] = float64(r.IntN(4))
			}
			cols[j][r.IntN(m)]++
		}
		for range 1000 {
			y, best, at := s.duals(), -1e-9, -1
			for j := range n {
				c := costs[j]
				for i := range m {
					c -= y[i] * cols[j][i]
				}
				if c < best {
					best, at = c, j
				}
			}
			if at >= 0 && s.enter(column{of: at}, costs[at], cols[at]) {
				continue
			}
			i := slices.IndexFunc(y, func(v float64) bool { return v < -1e-9 })
			if i < 0 {
				break
			}
			col := make([]float64, m)
			col[i] = -1
			s.enter(column{of: slack, row: i}, 0, col)
		}
		got := 0.0
		for i, c := range s.costs {
			got += c * s.x[i]
		}
		if ref := reference(t, cols[:n], costs[:n], want); math.Abs(got-ref) > 1e-6*(1+ref) {
			t.Fatalf("%.6f, the package's %.6f", got, ref)
		}
	}
}

// reference is the package's answer, with what is cut too often as columns of its own.
func reference(t *testing.T, cols [][]float64, costs, want []float64) float64 {
	t.Helper()
	m, n := len(want), len(cols)
	a := mat.NewDense(m, n+m, nil)
	for j, col := range cols {
		a.SetCol(j, col)
	}
	for i := range m {
		a.Set(i, n+i, -1)
	}
	best, _, err := lp.Simplex(append(slices.Clone(costs), make([]float64, m)...), a, want, 1e-10, nil)
	if err != nil {
		t.Fatal(err)
	}
	return best
}

// The cheapest sheets that cover so much are what counting up every choice finds.
func TestCover(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 4))
	for range 400 {
		p := &problem{kinds: []kind{{n: 1 + r.IntN(40)}}}
		worth, most := []int64{int64(1 + r.IntN(9))}, []int64{}
		for range 1 + r.IntN(3) {
			count := Unlimited
			if r.IntN(3) == 0 {
				count = r.IntN(4)
			}
			p.sizes = append(p.sizes, size{cost: int64(r.IntN(12)), count: count})
			most = append(most, int64(r.IntN(30)))
		}
		want := worth[0] * int64(p.kinds[0].n)
		least := dear
		var count func(i int, left, cost int64)
		count = func(i int, left, cost int64) {
			if left <= 0 {
				least = min(least, cost)
				return
			}
			if i == len(most) {
				return
			}
			for n := int64(0); n <= 400 && (p.sizes[i].count == Unlimited || n <= int64(p.sizes[i].count)); n++ {
				count(i+1, left-n*most[i], cost+n*p.sizes[i].cost)
				if left-n*most[i] <= 0 || most[i] == 0 {
					break
				}
			}
		}
		count(0, want, 0)
		if got := p.cover(worth, most); got != least {
			t.Fatalf("%d, by counting %d: %v of %v, %+v", got, least, want, most, p.sizes)
		}
	}
}

// What stretches sides never makes sides that lie within a sheet overfill it.
func TestStretches(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 5))
	for range 60 {
		side := int64(10 + r.IntN(300))
		var lengths []int64
		for range 12 {
			lengths = append(lengths, 1+r.Int64N(side/2))
		}
		all := stretches(side, lengths)
		for range 200 {
			left, sums := side, make([]float64, len(all))
			for left > 0 && r.IntN(12) > 0 {
				x := 1 + r.Int64N(left)
				if r.IntN(3) == 0 {
					x = min(left, lengths[r.IntN(len(lengths))])
				}
				left -= x
				for i, f := range all {
					if sums[i] += f(x); sums[i] > 1+1e-9 || f(x) < 0 {
						t.Fatalf("function %d of side %d gives %.4f", i, side, sums[i])
					}
				}
			}
		}
		for i, f := range all {
			if math.Abs(f(side)-1) > 1e-9 {
				t.Fatalf("function %d gives the whole side %.4f", i, f(side))
			}
		}
	}
}

// Where there are too many choices to count, what is reckoned in parts of a sheet is no
// more than the least.
func TestCoarseCover(t *testing.T) {
	r := rand.New(rand.NewPCG(6, 6))
	for range 400 {
		p := &problem{kinds: []kind{{n: 1 + r.IntN(30)}}}
		var most []int64
		var sizes []int
		for i := range 1 + r.IntN(3) {
			p.sizes = append(p.sizes, size{cost: int64(1 + r.IntN(12)), count: Unlimited})
			most, sizes = append(most, int64(1+r.IntN(20))), append(sizes, i)
		}
		slices.SortFunc(sizes, func(a, b int) int {
			return cmp.Compare(float64(p.sizes[a].cost)/float64(most[a]), float64(p.sizes[b].cost)/float64(most[b]))
		})
		least := p.cover([]int64{3}, most)
		c := &covering{p: p, most: most, sizes: sizes}
		if got := c.coarse(3 * int64(p.kinds[0].n)); got > least {
			t.Fatalf("%d, the least is %d: %v, %+v", got, least, most, p.sizes)
		}
	}
}
