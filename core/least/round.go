package least

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"
)

// byPatterns bounds the cost by the programme, and rounds its answer: as many whole
// sheets of each pattern as it says, the rest laid piece by piece.
func (s *solving) byPatterns() {
	g := s.problem.programme()
	if g == nil {
		return
	}
	if g.bound < dear {
		s.bound = max(s.bound, g.bound)
	}
	if s.proved() || !s.uncut() || !s.tell(false) {
		return
	}
	x, ok := g.shares()
	if !ok {
		return
	}
	for _, add := range []float64{0, 0.5, 0.25} {
		st := g.round(s.search, x, add)
		if s.take(st); s.proved() || s.stop {
			return
		}
	}
}

// uncut says whether the trimmer is long enough for every cut there can be.
func (s *solving) uncut() bool {
	return s.Longest == 0 || !slices.ContainsFunc(s.Task.Sheets, func(in Size) bool { return max(in.W, in.H) > s.Longest })
}

// shares is how many sheets of each pattern the programme would cut, in parts of one.
func (g *patterns) shares() ([]float64, bool) {
	m := len(g.kinds)
	scarce := []int{}
	for i, s := range g.sizes {
		if s.count != Unlimited {
			scarce = append(scarce, i)
		}
	}
	// Columns: patterns, pieces cut too many, pieces not cut, sheets not taken.
	n := len(g.all)
	rows := m + len(scarce)
	c, b := make([]float64, n+2*m+len(scarce)), make([]float64, rows)
	a := mat.NewDense(rows, len(c), nil)
	basic := make([]int, 0, rows)
	top := 0.0
	for j, pat := range g.all {
		c[j] = float64(g.sizes[pat.size].cost)
		top = max(top, c[j])
		for k, count := range pat.n {
			a.Set(k, j, float64(count))
		}
		if i := slices.Index(scarce, pat.size); i >= 0 {
			a.Set(m+i, j, 1)
		}
	}
	for k, kind := range g.kinds {
		a.Set(k, n+k, -1)
		a.Set(k, n+m+k, 1)
		c[n+m+k] = 4 * max(top, 1)
		b[k] = float64(kind.n)
		basic = append(basic, n+m+k)
	}
	for i, size := range scarce {
		a.Set(m+i, n+2*m+i, 1)
		b[m+i] = float64(g.sizes[size].count)
		basic = append(basic, n+2*m+i)
	}
	x, ok := simplex(c, a, b, basic)
	return x, ok
}

// round takes so many whole sheets of each pattern, and a sheet more where the part of
// one is at least 1 - add; what is left is laid by rules.
func (g *patterns) round(s *search, x []float64, add float64) *state {
	st := s.first(nil)
	left := make([]int, len(g.kinds))
	for k, kind := range g.kinds {
		left[k] = kind.n
	}
	for j, pat := range g.all {
		for range int(math.Floor(x[j] + add + 1e-6)) {
			in := g.sizes[pat.size]
			if in.count != Unlimited && st.opens[pat.size] >= in.count || !g.wanted(pat, left, add) {
				break
			}
			st.bins = append(st.bins, g.cut(pat, left))
			st.opens[pat.size]++
			st.cost += in.cost
		}
	}
	st.out, st.area = st.out[:0], 0
	for k, n := range left {
		for range n {
			st.out = append(st.out, int32(k))
		}
		st.area += int64(n) * g.kinds[k].area
	}
	clear(s.own)
	s.order, s.fit = s.orders[0], 0
	s.lay(st)
	return st
}

// wanted says whether a sheet more of a pattern is of use: when it was rounded down any
// is, when up it must be used whole.
func (g *patterns) wanted(pat pattern, left []int, add float64) bool {
	some := false
	for k, n := range pat.n {
		if n > left[k] && add > 0 {
			return false
		}
		some = some || n > 0 && left[k] > 0
	}
	return some
}

// cut lays a pattern on a sheet, less what is not wanted any more.
func (g *patterns) cut(pat pattern, left []int) *tree {
	t := pat.how.clone()
	over := map[int32]int{}
	for k, n := range pat.n {
		if n > left[k] {
			over[int32(k)] = n - left[k]
		}
		left[k] = max(0, left[k]-n)
	}
	for i := 0; i < len(t.nodes); i++ {
		if k := t.nodes[i].kind; k >= 0 && over[k] > 0 {
			over[k]--
			t.used -= g.kinds[k].area
			t.clear(int32(i))
		}
	}
	return t
}
