package schedule

// Orders with neighbouring dates are done together in batches, stage by stage. Large batches are set up seldom; the dates
// keep them small.

// mostTogether is the largest number of orders in a batch.
const mostTogether = 40

// batches cuts the orders, sorted by date, into batches by dynamic programming: the best course up to each order is the best
// course up to an earlier one and a batch after it.
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

// together returns the state after a batch of orders is done, stage by stage.
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
