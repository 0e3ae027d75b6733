package least

import (
	"math"
	"math/rand/v2"
	"slices"
)

// Improving: some pieces are taken out, whole parts of sheets with them, and laid in
// again, the largest or longest first, each where it leaves least beside it. What has
// no place stays out. Sheets are given up until something stays out, and then the
// search goes on until all is in again, or the work is done. A change for the worse is
// taken when it is better than what stood a while ago.

// state is what lies where, and what is out. Trees are shared between states.
type state struct {
	bins  []*tree
	out   []int32 // kinds, a copy each
	area  int64   // of what is out
	cost  int64
	rest  float64 // how well what is left lies together
	opens []int   // sheets of each size
}

func (s *state) copyTo(c *state) {
	c.bins, c.out = append(c.bins[:0], s.bins...), append(c.out[:0], s.out...)
	c.opens = append(c.opens[:0], s.opens...)
	c.area, c.cost, c.rest = s.area, s.cost, s.rest
}

// search is the work on one problem.
type search struct {
	*problem
	r      *rand.Rand
	orders [][]int32 // the place of each kind in an order of laying
	own    map[*tree]bool
	order  []int32
	fit    int
	limit  int64 // a state must cost less
	large  float64
	tick   func() bool // tells that the work goes on, and whether to go on
}

const (
	memory = 60   // how long ago is a while
	often  = 1000 // changes between two words to who looks on
)

func newSearch(p *problem) *search {
	s := &search{problem: p, r: rand.New(rand.NewPCG(p.Seed, 0x5eed)), own: map[*tree]bool{}}
	for _, size := range p.sizes {
		s.large = max(s.large, float64(size.area))
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
	if t := st.bins[i]; s.own[t] {
		return t
	}
	t := st.bins[i].clone()
	s.own[t] = true
	st.bins[i] = t
	return t
}

// spot is where a piece could go.
type spot struct {
	bin, rest int
	w, h      int64
	down      bool
}

// lay lays what is out, as far as there is room.
func (s *search) lay(st *state) {
	slices.SortFunc(st.out, func(a, b int32) int { return int(s.order[a]) - int(s.order[b]) })
	left := st.out[:0]
	last, stuck := int32(-1), false
	for _, k := range st.out {
		if k == last && stuck {
			left = append(left, k)
			continue
		}
		at, ok := s.find(st, k)
		if !ok {
			at, ok = s.opened(st, k)
		}
		if last, stuck = k, !ok; stuck {
			left = append(left, k)
			continue
		}
		t := s.mine(st, at.bin)
		t.place(t.rests[at.rest], k, at.w, at.h, at.down)
		st.area -= s.kinds[k].area
	}
	st.out = left
}

// find looks for the best place for a kind on the sheets that are open.
func (s *search) find(st *state, k int32) (at spot, ok bool) {
	kind := &s.kinds[k]
	best := math.Inf(1)
	for b, t := range st.bins {
		if !kind.on[t.size] || s.sizes[t.size].area-t.used < kind.area {
			continue
		}
		s.work -= len(t.rests)
		for i, rest := range t.rests {
			f := &t.nodes[rest]
			for _, way := range kind.ways {
				if way[0] > f.w || way[1] > f.h {
					continue
				}
				v := s.beside(f.w-way[0], f.h-way[1], f, way)
				if v < best && s.r.Uint32()&127 != 0 {
					if down, goes := s.cutFirst(t, f, way); goes {
						best, at, ok = v, spot{b, i, way[0], way[1], down}, true
					}
				}
			}
		}
	}
	return at, ok
}

// beside is how badly a piece would lie in a rest.
func (s *search) beside(dw, dh int64, f *node, way [2]int64) float64 {
	switch s.fit {
	case 0:
		return float64(min(dw, dh))
	case 1:
		return float64(f.w)*float64(f.h) - float64(way[0])*float64(way[1])
	}
	return float64(max(dw, dh))
}

// cutFirst chooses the way to cut a piece off a rest: the one that leaves the larger
// rests, as long as the trimmer reaches across.
func (s *search) cutFirst(t *tree, f *node, way [2]int64) (down, goes bool) {
	dw, dh := float64(f.w-way[0]), float64(f.h-way[1])
	beside, below := float64(dw*float64(f.h)), float64(float64(way[0])*dh)
	right, under := float64(dw*float64(way[1])), float64(float64(f.w)*dh)
	down = float64(beside*beside)+float64(below*below) > float64(right*right)+float64(under*under)
	if s.r.Uint32()&15 == 0 {
		down = !down
	}
	if s.tall == 0 {
		return down, true
	}
	m := 2 * int64(s.Sheets[t.size].Margin) / s.unit
	whole := s.sizes[t.size]
	goes = s.reaches(f, way, down, m, whole)
	if !goes {
		down = !down
		goes = s.reaches(f, way, down, m, whole)
	}
	return down, goes
}

func (s *search) reaches(f *node, way [2]int64, down bool, m int64, whole size) bool {
	toX, toY := way[0] < f.w || m > 0, way[1] < f.h || m > 0
	if down {
		return s.goes(f.h+m, toX) && s.goes(min(way[0]+m, whole.w+m), toY)
	}
	return s.goes(f.w+m, toY) && s.goes(min(way[1]+m, whole.h+m), toX)
}

// opened opens a sheet for a kind, if one may be.
func (s *search) opened(st *state, k int32) (at spot, ok bool) {
	best := math.Inf(1)
	size := 0
	for i, in := range s.sizes {
		if !s.kinds[k].on[i] || in.count != Unlimited && st.opens[i] >= in.count || st.cost+in.cost >= s.limit {
			continue
		}
		// The dearest of card that is used least is put off; chance lets others in.
		v := float64(in.cost) / float64(in.area) * (1 + float64(s.r.Uint32()&255)/256)
		if v < best {
			best, size, ok = v, i, true
		}
	}
	if !ok {
		return at, false
	}
	s.open(st, size)
	b := len(st.bins) - 1
	for _, way := range s.kinds[k].ways {
		f := &st.bins[b].nodes[0]
		if way[0] > f.w || way[1] > f.h {
			continue
		}
		if down, goes := s.cutFirst(st.bins[b], f, way); goes {
			return spot{b, 0, way[0], way[1], down}, true
		}
	}
	return at, false
}

func (s *search) open(st *state, size int) {
	t := newTree(size, s.sizes[size].w, s.sizes[size].h)
	s.own[t] = true
	st.bins = append(st.bins, t)
	st.opens[size]++
	st.cost += s.sizes[size].cost
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
	t := st.bins[b]
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
	st.bins = slices.Delete(st.bins, b, b+1)
}

// worth is what a state is measured by: what is out, and then how well together lies
// what is left over.
func (s *search) worth(st *state) float64 {
	rest := 0.0
	for _, t := range st.bins {
		for _, r := range t.rests {
			a := float64(t.nodes[r].w) * float64(t.nodes[r].h) / s.large
			rest += float64(a * a)
		}
	}
	return float64(float64(st.area)/s.large*4) - rest
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
			if now.cost <= least || len(now.bins) == 0 {
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
		v := s.worth(next)
		if w := s.worth(now); v <= w || v <= past[i%memory] {
			now, next = next, now
			w = v
			past[i%memory] = w
		}
	}
}

// lower gives up sheets until less is paid.
func (s *search) lower(st *state) {
	for st.cost >= s.limit && len(st.bins) > 0 {
		b, least := -1, math.Inf(1)
		for i, t := range st.bins {
			if v := float64(t.used) / s.large; !t.frozen && s.sizes[t.size].cost > 0 && v < least {
				b, least = i, v
			}
		}
		if b < 0 {
			return
		}
		s.giveUp(st, b)
	}
}

// disturb takes out a few parts, from sheets near each other in the list or anywhere;
// seldom a whole sheet.
func (s *search) disturb(st *state) {
	if len(st.bins) == 0 {
		return
	}
	if len(s.sizes) > 1 && s.r.Uint32()&15 == 0 {
		s.giveUp(st, s.r.IntN(len(st.bins)))
		return
	}
	n := 1 + s.r.IntN(4)
	for range n {
		s.takeOut(st, s.r.IntN(len(st.bins)))
	}
}
