package schedule

// Orders that follow each other by their dates are done together, stage by stage, in batches: that sets up seldom, and how
// many go together is limited by the dates.

// mostTogether is how many orders are done together at the most.
const mostTogether = 40

// batches shares the orders, by their dates, out into batches: of all ways to part them, the one that ends best when each
// batch goes on from the best that there is of those before it.
func (r *run) batches(l *last) Result {
	order := r.byDate(false)
	best := make([]*state, len(order)+1)
	best[0] = r.begin()
	for from := range order {
		for to := from + 1; to <= len(order) && to-from <= mostTogether; to++ {
			if s := r.together(best[from], order[from:to]); best[to] == nil || s.compare(best[to]) < 0 {
				best[to] = s
			}
		}
	}
	var course []item
	for s := best[len(order)]; s != nil; s = s.before {
		course = append(s.did[:len(s.did):len(s.did)], course...)
	}
	return r.follow(course, l)
}

// together goes on from a state with some orders, stage by stage.
func (r *run) together(from *state, orders []int) *state {
	s := *from
	s.ready, s.before, s.did = append([]moment(nil), from.ready...), from, nil
	for stage := range r.Setup {
		for _, i := range orders {
			for n, w := range r.Orders[i].Work {
				if w.Stage == stage {
					s.did = append(s.did, item{order: i, n: n})
				}
			}
		}
	}
	for _, it := range s.did {
		r.do(&s, it, nil)
	}
	return &s
}
