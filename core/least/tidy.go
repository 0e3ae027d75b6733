package least

import (
	"cmp"
	"slices"

	"brevium/core/layout"
)

// Tidying: what costs as little may still be better to cut. Sheets are changed for smaller ones where all fits, and
// pieces moved about until the largest rest is as large, or the stop of the trimmer is set as seldom, as it comes.

// trimmings is how much of the work tidying may take beside the search.
const trimmings = 8

func (s *solving) tidy() {
	if s.stop || len(s.best.trees) == 0 {
		return
	}
	s.problem.work = max(s.problem.work, s.Work/trimmings)
	s.problem.work = min(s.problem.work, max(s.Work/trimmings, 20_000))
	s.smaller()
	last := s.last()
	if s.Tie == Stops {
		s.polish(last, s.stops, 4000)
		s.byRules()
		return
	}
	s.polish(last, s.largest, 0)
	s.byRules()
}

// smaller exchanges sheets for cheaper or smaller ones that hold all that lies on them.
func (s *solving) smaller() {
	if len(s.sizes) < 2 {
		return
	}
	now := &state{}
	s.best.copyTo(now)
	for b, t := range now.trees {
		if t.frozen {
			continue
		}
		for _, i := range s.lesser(t.size) {
			if in := s.sizes[i]; in.area < t.used || in.count != Unlimited && now.opens[i] >= in.count {
				continue
			}
			if u := s.refit(t, i); u != nil {
				now.opens[t.size]--
				now.opens[i]++
				now.cost += s.sizes[i].cost - s.sizes[t.size].cost
				now.trees[b] = u
				break
			}
		}
	}
	s.best = now
}

// lesser lists the sizes that are better than one to take the same: free ones, then
// those that cost less of what is aimed at, then the cheaper, then the smaller.
func (s *solving) lesser(size int) (out []int) {
	order := func(a, b int) int {
		x, y := s.Task.Sheets[a], s.Task.Sheets[b]
		return cmp.Or(cmp.Compare(s.sizes[a].cost, s.sizes[b].cost), cmp.Compare(x.Price, y.Price),
			cmp.Compare(s.sizes[a].area, s.sizes[b].area))
	}
	for i := range s.sizes {
		if order(i, size) < 0 {
			out = append(out, i)
		}
	}
	slices.SortStableFunc(out, order)
	return out
}

// refit lays what is on a sheet on another; nil when the rules find no way.
func (s *solving) refit(t *tree, size int) *tree {
	var kinds []int32
	t.each(0, func(at int32) { kinds = append(kinds, t.nodes[at].kind) })
	for _, k := range kinds {
		if !s.kinds[k].on[size] {
			return nil
		}
	}
	for _, order := range s.search.orders {
		for fit := range 2 {
			st := &state{opens: make([]int, len(s.sizes)), out: slices.Clone(kinds), area: t.used}
			clear(s.search.own)
			s.search.order, s.search.fit, s.search.limit = order, fit, dear
			s.search.open(st, size)
			s.search.limit = 0 // no other
			if s.search.lay(st); len(st.out) == 0 {
				return st.trees[0]
			}
		}
	}
	return nil
}

// last are the sheets worth polishing: a few that are filled least.
func (s *solving) last() (at []int) {
	for i, t := range s.best.trees {
		if !t.frozen {
			at = append(at, i)
		}
	}
	slices.SortStableFunc(at, func(a, b int) int {
		return cmp.Compare(s.share(s.best.trees[a]), s.share(s.best.trees[b]))
	})
	return at[:min(len(at), 12)]
}

// polish moves pieces about on some sheets as long as it is no worse by a measure, of which less is better.
func (s *solving) polish(on []int, measure func(*state) float64, dearly int) {
	if len(on) == 0 || len(s.best.out) > 0 {
		return
	}
	now, next := &state{opens: make([]int, len(s.sizes))}, &state{}
	for _, i := range on {
		now.trees = append(now.trees, s.best.trees[i])
		now.opens[s.best.trees[i].size]++
	}
	value := measure(now)
	s.search.limit = 0
	for s.problem.work > 0 {
		now.copyTo(next)
		clear(s.search.own)
		for range 1 + s.search.r.IntN(3) {
			s.search.takeOut(next, s.search.r.IntN(len(next.trees)))
		}
		s.search.order, s.search.fit = s.search.orders[s.search.r.IntN(len(s.search.orders))], s.search.r.IntN(2)
		s.search.lay(next)
		s.problem.work -= 40 + dearly
		if len(next.out) > 0 {
			next.out, next.area = next.out[:0], 0
			continue
		}
		if v := measure(next); v <= value {
			now, next, value = next, now, v
		}
	}
	best := &state{}
	s.best.copyTo(best)
	for i, b := range on {
		best.trees[b] = now.trees[i]
	}
	s.best = best
}

// largest measures a state by its largest rest, and a little by the others.
func (s *solving) largest(st *state) float64 {
	most, all := 0.0, 0.0
	for _, t := range st.trees {
		for _, r := range t.rests {
			a := float64(t.nodes[r].w) * float64(t.nodes[r].h) / s.search.large
			most, all = max(most, a), all+float64(a*a)
		}
	}
	return -(most + all/1000)
}

// stops measures a state by how often the stop is set.
func (s *solving) stops(st *state) float64 {
	l := layout.Layout{Sheets: s.problem.plain(st)}
	return float64(l.Settings())
}

// byRules lays each sheet anew by the quick rules where that leaves as much in one and takes fewer settings.
func (s *solving) byRules() {
	now := &state{}
	s.best.copyTo(now)
	for b, t := range now.trees {
		if t.frozen {
			continue
		}
		one := func(t *tree) (most, stops float64) {
			st := &state{trees: []*tree{t}}
			return -s.largest(st), s.stops(st)
		}
		most, stops := one(t)
		if u := s.refit(t, t.size); u != nil {
			if m, n := one(u); n < stops && (m >= most || s.Tie == Stops) || n == stops && m > most {
				now.trees[b] = u
			}
		}
		if s.problem.work -= 500; s.problem.work < -s.Work {
			break
		}
	}
	s.best = now
}

// plain tells a state as sheets of unnamed pieces.
func (p *problem) plain(st *state) (out []layout.Sheet) {
	for _, t := range st.trees {
		w := &walk{problem: p, t: t.clone(), margin: p.Sheets[t.size].Margin, unnamed: true}
		w.part(0, 0, 0, layout.Rect{W: p.Sheets[t.size].W, H: p.Sheets[t.size].H})
		out = append(out, layout.Sheet{Cuts: layout.InOrder(w.s.Cuts)})
	}
	return out
}
