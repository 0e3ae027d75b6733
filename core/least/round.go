package least

import (
	"math"
	"slices"
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
	x := g.shares()
	for _, add := range []float64{0, 0.5, 0.25} {
		st := g.round(s.search, x, add)
		if s.take(st); s.proved() || s.stop {
			return
		}
	}
}

// uncut reports whether the trimmer is long enough for every cut there can be.
func (s *solving) uncut() bool {
	return s.Longest == 0 || !slices.ContainsFunc(s.Task.Sheets, func(in Size) bool { return max(in.W, in.H) > s.Longest })
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
			st.trees = append(st.trees, g.cut(pat, left))
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

// wanted reports whether a sheet more of a pattern is of use: when it was rounded down any
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
