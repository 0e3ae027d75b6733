package least

import (
	"math"
	"math/rand/v2"
	"slices"
)

// Improving: some pieces are taken out, whole parts of sheets with them, and laid in again, the largest or longest
// first, each where it leaves least beside it. What has no place stays out. Sheets are given up until something
// stays out, and then the search goes on until all is in again, or the work is done. A change for the worse is
// taken when it is better than what stood a while ago.

// state is what lies where, and what is out. Trees are shared between states.
type state struct {
	trees []*tree
	out   []int32 // kinds, a copy each
	area  int64   // of what is out
	cost  int64
	opens []int // sheets of each size
}

func (s *state) copyTo(c *state) {
	c.trees, c.out = append(c.trees[:0], s.trees...), append(c.out[:0], s.out...)
	c.opens = append(c.opens[:0], s.opens...)
	c.area, c.cost = s.area, s.cost
}

// search is the work on one problem.
type search struct {
	*problem
	r      *rand.Rand
	orders [][]int32 // the place of each kind in an order of laying
	own    map[*tree]bool
	order  []int32
	fit    int
	limit  int64       // a state must cost less
	large  float64     // of the largest sheet, in square units
	whole  float64     // the same, as areas are told
	steady bool        // it begins: nothing is left to chance
	tick   func() bool // tells that the work goes on, and whether to go on
}

const (
	memory = 60   // how long ago is a while
	often  = 1000 // changes between two words to who looks on
)

func newSearch(p *problem) *search {
	s := &search{problem: p, r: rand.New(rand.NewPCG(p.Seed, 0x5eed)), own: map[*tree]bool{}}
	for _, size := range p.sizes {
		s.whole = max(s.whole, float64(size.area))
		s.large = max(s.large, float64(size.w)*float64(size.h))
	}
	for _, by := range []func(k kind) int64{
		func(k kind) int64 { return k.area },
		func(k kind) int64 { return max(k.w, k.h) },
		func(k kind) int64 { return min(k.w, k.h) },
		func(k kind) int64 { return k.w + k.h },
	} {
		at := make([]int32, len(p.kinds))
		for i := range at {
			at[i] = int32(i)
		}
		slices.SortStableFunc(at, func(a, b int32) int {
			x, y := by(p.kinds[a]), by(p.kinds[b])
			switch {
			case x > y:
				return -1
			case x < y:
				return 1
			}
			return 0
		})
		place := make([]int32, len(at))
		for i, k := range at {
			place[k] = int32(i)
		}
		s.orders = append(s.orders, place)
	}
	return s
}

// mine gives a tree of the state that may be changed.
func (s *search) mine(st *state, i int) *tree {
	if t := st.trees[i]; s.own[t] {
		return t
	}
	t := st.trees[i].clone()
	s.own[t] = true
	st.trees[i] = t
	return t
}

// takeOut takes out a part of a sheet at random: a piece, or what lies round it too.
func (s *search) takeOut(st *state, b int) {
	t := s.mine(st, b)
	n := 0
	var at int32
	for i := range t.nodes {
		if t.nodes[i].kind >= 0 && !t.nodes[i].pinned {
			if n++; s.r.IntN(n) == 0 {
				at = int32(i)
			}
		}
	}
	if n == 0 {
		return
	}
	for up := t.nodes[at].up; up != none && !t.nodes[up].still && s.r.Uint32()&3 == 0; up = t.nodes[at].up {
		at = up
	}
	s.empty(st, t, at)
}

func (s *search) empty(st *state, t *tree, at int32) {
	t.each(at, func(i int32) {
		k := t.nodes[i].kind
		st.out = append(st.out, k)
		st.area += s.kinds[k].area
		t.used -= s.kinds[k].area
	})
	t.clear(at)
}

// giveUp takes a whole sheet away.
func (s *search) giveUp(st *state, b int) {
	t := st.trees[b]
	if t.frozen {
		return
	}
	t.each(0, func(i int32) {
		k := t.nodes[i].kind
		st.out = append(st.out, k)
		st.area += s.kinds[k].area
	})
	st.opens[t.size]--
	st.cost -= s.sizes[t.size].cost
	st.trees = slices.Delete(st.trees, b, b+1)
}

// worth is what a state is measured by: what is out, and then how well together lies what is left over.
func (s *search) worth(st *state) float64 {
	rest := 0.0
	for _, t := range st.trees {
		for _, r := range t.rests {
			a := float64(t.nodes[r].w) * float64(t.nodes[r].h) / s.large
			rest += float64(a * a)
		}
	}
	return float64(float64(st.area)/s.whole*4) - rest
}

// improve works on until nothing can be better, the work is done, or it is told to
// stop. Each better state is handed over.
func (s *search) improve(from *state, least int64, found func(*state) bool) {
	now, next := &state{}, &state{}
	from.copyTo(now)
	var past [memory]float64
	begin := true
	for i := 0; s.work > 0; i++ {
		if i%often == often-1 && !s.tick() {
			return
		}
		if len(now.out) == 0 {
			if begin || now.cost < s.limit {
				s.limit = now.cost
				if !begin && !found(now) {
					return
				}
				begin = false
			}
			if now.cost <= least || len(now.trees) == 0 {
				return
			}
			s.lower(now)
			v := s.worth(now)
			for j := range past {
				past[j] = v
			}
		}
		now.copyTo(next)
		clear(s.own)
		s.disturb(next)
		s.order, s.fit = s.orders[s.r.IntN(len(s.orders))], s.r.IntN(2)
		s.lay(next)
		s.work -= 20
		if v := s.worth(next); v <= s.worth(now) || v <= past[i%memory] {
			now, next = next, now
			past[i%memory] = v
		}
	}
}

// lower gives sheets up until what is paid is less.
func (s *search) lower(st *state) {
	for st.cost >= s.limit && len(st.trees) > 0 {
		b, least := -1, math.Inf(1)
		for i, t := range st.trees {
			if v := float64(t.used) / s.whole; !t.frozen && s.sizes[t.size].cost > 0 && v < least {
				b, least = i, v
			}
		}
		if b < 0 {
			return
		}
		s.giveUp(st, b)
	}
}

// disturb takes out a few parts, from sheets near each other in the list or anywhere; seldom a whole sheet.
func (s *search) disturb(st *state) {
	if len(st.trees) == 0 {
		return
	}
	if len(s.sizes) > 1 && s.r.Uint32()&15 == 0 {
		s.giveUp(st, s.r.IntN(len(st.trees)))
		return
	}
	n := 1 + s.r.IntN(4)
	for range n {
		s.takeOut(st, s.r.IntN(len(st.trees)))
	}
}
