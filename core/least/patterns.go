package least

// Patterns: where many are alike, a sheet is cut by one of few patterns, and a linear programme (simplex.go) says
// how many of each. A pattern that would better its answer is one worth more than a sheet costs, when each piece is
// worth what the programme says: the table's (knapsack.go) is worth the most. What pieces are worth, over the most
// that a sheet can be worth, bounds the cost from below at every step of it.

import "slices"

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
	top    float64 // the dearest size, by which costs are told
	bound  int64
	simplex
	scarce []int // sizes that are
	row    []int // the row of each, -1 of one there is always more of
}

const (
	mostKinds  = 120
	mostRounds = 1500
	grain      = 1e6 // of a piece's worth, for whole numbers
)

// programme works the patterns out, as far as the work allows; nil where the kinds are too many.
func (p *problem) programme() *patterns {
	if len(p.kinds) > mostKinds || len(p.Pins) > 0 {
		return nil
	}
	g := &patterns{problem: p}
	for i := range p.Sheets {
		g.simple(i)
	}
	for _, s := range g.sizes {
		g.top = max(g.top, float64(s.cost))
	}
	g.top = max(g.top, 1)
	g.begin()
	// Roughly first, as long as that betters it, and then by every end of a side.
	for _, coarse := range []bool{true, false} {
		if !g.stockTables(coarse) {
			break
		}
		for round := 0; round < mostRounds && p.work > 0; round++ {
			if !g.enterSlack() && !g.enterPattern() {
				break
			}
		}
	}
	return g
}

// stockTables are the tables of each size's stock; false where sides end in too many places.
func (g *patterns) stockTables(coarse bool) bool {
	g.tables = nil
	byStock := map[string]*table{}
	for _, s := range g.Sheets {
		t := byStock[s.Stock]
		if t == nil {
			if t = g.stockTable(s.Stock, coarse); t == nil {
				return false
			}
			byStock[s.Stock] = t
		}
		g.tables = append(g.tables, t)
	}
	return true
}

// stockTable is the table of all sheets of a stock.
func (p *problem) stockTable(stock string, coarse bool) *table {
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
	if coarse {
		return p.coarseTable(w, h, on)
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
				pat.how.used += kind.area
			}
			at = below
		}
		g.all = append(g.all, pat)
	}
}

// cost is what a sheet of a size costs, the dearest being 1.
func (g *patterns) cost(size int) float64 { return float64(g.sizes[size].cost) / g.top }

// begin takes, of each kind, sheets of it alone for as many as there are; of a kind that
// lies only on sizes that are scarce, it is as if it could be left out, dearly.
func (g *patterns) begin() {
	m := len(g.kinds)
	for i, s := range g.sizes {
		g.row = append(g.row, -1)
		if s.count != Unlimited {
			g.row[i] = m + len(g.scarce)
			g.scarce = append(g.scarce, i)
		}
	}
	g.simplex.begin(m + len(g.scarce))
	for k, kind := range g.kinds {
		use, each := -1, 1.0
		for j, pat := range slices.Clip(g.all) {
			if n := pat.n[k]; n > 0 && g.row[pat.size] < 0 && (use < 0 || g.cost(pat.size)/float64(n) <
				g.cost(g.all[use].size)/each) {
				use, each = j, float64(n)
			}
		}
		if use < 0 {
			g.set(k, column{of: leftOut}, left, 1, float64(kind.n))
			continue
		}
		g.set(k, column{of: use}, g.cost(g.all[use].size), each, float64(kind.n))
	}
	for i, size := range g.scarce {
		g.set(m+i, column{of: slack, row: m + i}, 0, 1, float64(g.sizes[size].count))
	}
}

// left is what it costs to leave a piece out: more than any sheet for it.
const left = 3.0

// entries are a pattern as a column of the programme.
func (g *patterns) entries(pat pattern) []float64 {
	col := make([]float64, g.m)
	for k, n := range pat.n {
		col[k] = float64(n)
	}
	if row := g.row[pat.size]; row >= 0 {
		col[row] = 1
	}
	return col
}

// enterSlack lets a piece be cut too often, or a sheet be left, where that pays.
func (g *patterns) enterSlack() bool {
	y := g.duals()
	best, at := -1e-7, -1
	for r, v := range y {
		if r >= len(g.kinds) {
			v = -v // of a sheet that is scarce: it is worth nothing or more to have another
		}
		if v < best {
			best, at = v, r
		}
	}
	if at < 0 {
		return false
	}
	col := make([]float64, g.m)
	col[at] = -1
	if at >= len(g.kinds) {
		col[at] = 1
	}
	return g.enter(column{of: slack, row: at}, 0, col)
}

// enterPattern looks for the pattern that pays best, and for a better bound.
func (g *patterns) enterPattern() bool {
	y := g.duals()
	worth := make([]int64, len(g.kinds))
	for k := range worth {
		worth[k] = max(0, int64(y[k]*grain))
	}
	most, filled := make([]int64, len(g.sizes)), map[*table]bool{}
	best, at := 1e-6, -1
	for i, t := range g.tables {
		if !filled[t] {
			t.fill(worth)
			filled[t] = true
		}
		s := g.sizes[i]
		most[i] = t.most(s.w, s.h)
		gain := float64(most[i])/grain - g.cost(i)
		if row := g.row[i]; row >= 0 {
			gain += y[row]
		}
		if gain > best {
			best, at = gain, i
		}
	}
	if !g.tables[0].coarse {
		g.bound = max(g.bound, g.cover(worth, most))
	}
	if at < 0 {
		return false
	}
	s, on := g.sizes[at], newTree(at, g.sizes[at].w, g.sizes[at].h)
	g.all = append(g.all, pattern{size: at, n: g.tables[at].pattern(s.w, s.h, worth, on), how: on})
	return g.enter(column{of: len(g.all) - 1}, g.cost(at), g.entries(g.all[len(g.all)-1]))
}

// shares is how many sheets of each pattern the programme would cut, in parts of one.
func (g *patterns) shares() []float64 {
	x := make([]float64, len(g.all))
	for r, c := range g.basis {
		if c.of >= 0 {
			x[c.of] += max(0, g.x[r])
		}
	}
	return x
}
