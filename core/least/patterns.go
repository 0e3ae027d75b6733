package least

import (
	"math"

	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/optimize/convex/lp"
)

// Patterns: where many are alike, a sheet is cut by one of few patterns, and a linear
// programme says how many of each. A pattern that would better its answer is one worth
// more than a sheet costs, when each piece is worth what the programme says: the
// table's (knapsack.go) is worth the most. What pieces are worth, over the most that a
// sheet can be worth, bounds the cost from below at every step of it.

// pattern is a way to cut a size: how many of each kind.
type pattern struct {
	size int
	n    []int
	how  *tree
}

// patterns is the programme.
type patterns struct {
	*problem
	tables []*table // of each size
	all    []pattern
	worth  []float64 // of a piece of each kind
	scarce []float64 // of a sheet of each size that is scarce
	bound  int64
}

const (
	mostKinds  = 60
	mostRounds = 60
	grain      = 1e6 // of a piece's worth, for whole numbers
)

// programme works the patterns out, as far as the work allows; nil where sides end in
// too many places or the kinds are too many.
func (p *problem) programme() *patterns {
	if len(p.kinds) > mostKinds || len(p.Pins) > 0 {
		return nil
	}
	g := &patterns{problem: p}
	byStock := map[string]*table{}
	for i, s := range p.Sheets {
		t := byStock[s.Stock]
		if t == nil {
			if t = p.stockTable(s.Stock); t == nil {
				return nil
			}
			byStock[s.Stock] = t
		}
		g.tables = append(g.tables, t)
		g.simple(i)
	}
	for range mostRounds {
		if p.work < 0 || !g.solve() || !g.better() {
			break
		}
	}
	return g
}

// stockTable is the table of all sheets of a stock.
func (p *problem) stockTable(stock string) *table {
	on := make([]bool, len(p.kinds))
	w, h := int64(0), int64(0)
	for i, s := range p.Sheets {
		if s.Stock != stock {
			continue
		}
		w, h = max(w, p.sizes[i].w), max(h, p.sizes[i].h)
		for k := range on {
			on[k] = on[k] || p.kinds[k].on[i]
		}
	}
	return p.newTable(w, h, on)
}

// simple begins with sheets of one kind each, all lying one way.
func (g *patterns) simple(size int) {
	for k, kind := range g.kinds {
		if !kind.on[size] {
			continue
		}
		in, best := g.sizes[size], [2]int64{}
		way := best
		for _, w := range kind.ways {
			if x, y := in.w/w[0], in.h/w[1]; x*y > best[0]*best[1] {
				best, way = [2]int64{x, y}, w
			}
		}
		pat := pattern{size: size, n: make([]int, len(g.kinds)), how: newTree(size, in.w, in.h)}
		pat.n[k] = int(best[0] * best[1])
		at := int32(0)
		for range best[1] {
			row, below := at, at
			if h := pat.how.nodes[at].h; way[1] < h {
				row, below = pat.how.slice(at, in.w, way[1], false)
			}
			for range best[0] {
				next := row
				if pat.how.nodes[row].w > way[0] {
					next, row = pat.how.slice(row, way[0], way[1], true)
				}
				pat.how.place(next, int32(k), way[0], way[1], true)
			}
			at = below
		}
		g.all = append(g.all, pat)
	}
}

// solve finds what pieces are worth: as much as may be, no pattern worth more than its
// sheet costs. Of a size that is scarce, a sheet is worth something by itself.
func (g *patterns) solve() bool {
	m, scarce := len(g.kinds), []int{}
	for i, s := range g.sizes {
		if s.count != Unlimited {
			scarce = append(scarce, i)
		}
	}
	rows, worthy := len(g.all), m+len(scarce)
	c, b := make([]float64, worthy+rows+m), make([]float64, rows+m)
	a := mat.NewDense(rows+m, worthy+rows+m, nil)
	top := 0.0
	for _, s := range g.sizes {
		top = max(top, float64(s.cost))
	}
	for k, kind := range g.kinds {
		c[k] = -float64(kind.all())
		a.Set(rows+k, k, 1) // no piece is worth more than a few sheets
		b[rows+k] = 4
	}
	for j, i := range scarce {
		c[m+j] = float64(g.sizes[i].count)
	}
	basic := make([]int, 0, rows+m)
	for r, pat := range g.all {
		for k, n := range pat.n {
			a.Set(r, k, float64(n))
		}
		for j, i := range scarce {
			if pat.size == i {
				a.Set(r, m+j, -1)
			}
		}
		b[r] = float64(g.sizes[pat.size].cost) / max(top, 1)
	}
	for r := range rows + m {
		a.Set(r, worthy+r, 1)
		basic = append(basic, worthy+r)
	}
	x, ok := simplex(c, a, b, basic)
	if !ok {
		return false
	}
	g.work -= (rows + m) * (rows + m) * 4
	g.worth, g.scarce = make([]float64, m), make([]float64, len(g.sizes))
	copy(g.worth, x)
	for j, i := range scarce {
		g.scarce[i] = x[m+j]
	}
	return true
}

// simplex is the package's, which gives up by a panic where numbers go badly.
func simplex(c []float64, a mat.Matrix, b []float64, basic []int) (x []float64, ok bool) {
	defer func() {
		if recover() != nil {
			x, ok = nil, false
		}
	}()
	_, x, err := lp.Simplex(c, a, b, 1e-9, basic)
	return x, err == nil
}

// better looks for patterns worth more than they cost, and for a better bound.
func (g *patterns) better() bool {
	top := 0.0
	for _, s := range g.sizes {
		top = max(top, float64(s.cost))
	}
	worth := make([]int64, len(g.kinds))
	for k, w := range g.worth {
		worth[k] = max(0, int64(math.Floor(w*grain)))
	}
	filled := map[*table]bool{}
	found := false
	most := make([]int64, len(g.sizes))
	for i, t := range g.tables {
		if !filled[t] {
			t.fill(worth)
			filled[t] = true
		}
		s := g.sizes[i]
		most[i] = t.most(s.w, s.h)
		if float64(most[i])/grain > float64(s.cost)/max(top, 1)+g.scarce[i]+1e-5 {
			on := newTree(i, s.w, s.h)
			g.all, found = append(g.all, pattern{size: i, n: t.pattern(s.w, s.h, worth, on), how: on}), true
		}
	}
	g.bound = max(g.bound, g.cover(worth, most))
	return found
}
