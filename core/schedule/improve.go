package schedule

import (
	"math/rand/v2"
	"slices"
)

// moves is how often a course is tried to be bettered.
const moves = 1000

// improve betters a course that was found among few: one work after another is taken out by
// chance, always the same, and put where its order lets it, before or after works of its kind
// as often as anywhere.
func (r *run) improve(best Result, l *last, proved func(late, end int) bool) Result {
	chance := rand.New(rand.NewPCG(1, uint64(len(best.course))))
	course, late, end := slices.Clone(best.course), best.Late-l.late, best.End
	next := make([]item, len(course))
	for try := 0; try < moves && len(course) > 1 && !proved(late+l.late, end); try++ {
		from := chance.IntN(len(course))
		lo, hi := r.window(course, from)
		if hi <= lo {
			continue
		}
		to := lo + chance.IntN(hi-lo+1)
		if try%2 == 0 {
			to = r.alike(course, from, lo, hi, chance)
		}
		if to == from {
			continue
		}
		copy(next, course)
		move(next, from, to)
		s := r.begin()
		for _, it := range next {
			r.do(s, it, nil)
		}
		if gone := r.gone(s); s.late < late || s.late == late && gone <= end {
			late, end = s.late, gone
			course, next = next, course
		}
	}
	return r.follow(course, l)
}

// move takes the work at a place out and puts it at another.
func move(course []item, from, to int) {
	it := course[from]
	if from < to {
		copy(course[from:], course[from+1:to+1])
	} else {
		copy(course[to+1:], course[to:from])
	}
	course[to] = it
}

// window gives the places that the work at a place may be put in: after the one before it of its
// order, and before the one after it.
func (r *run) window(course []item, at int) (lo, hi int) {
	it := course[at]
	hi = len(course) - 1
	for i, o := range course {
		if o.order == it.order && i < at {
			lo = i + 1
		}
		if o.order == it.order && i > at {
			return lo, i - 1
		}
	}
	return lo, hi
}

// alike gives a place beside a work of the same stage in another order.
func (r *run) alike(course []item, at, lo, hi int, chance *rand.Rand) int {
	stage := func(it item) int { return r.Orders[it.order].Work[it.n].Stage }
	var places []int
	for i := lo; i <= hi; i++ {
		if i != at && stage(course[i]) == stage(course[at]) {
			places = append(places, i)
		}
	}
	if len(places) == 0 {
		return at
	}
	return places[chance.IntN(len(places))]
}
