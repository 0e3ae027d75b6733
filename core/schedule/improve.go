package schedule

import (
	"math/rand/v2"
	"slices"
)

// The work budget of improve, in works done again: for each work of the course, and in all.
const (
	movesEach = 15_000
	mostMoves = 3_000_000
)

// noted is how many works lie between two noted states: a changed course is done again from the last before the change.
const noted = 16

// improving is a course on its way through improve.
type improving struct {
	*run
	chance    *rand.Rand
	course    []item
	late, end int
	best      []item // the best so far
	bestLate  int
	bestEnd   int
	slack     float64  // how many minutes worse the next may be, on average
	states    []*state // every noted works
	own       []bool   // the orders whose works are moved
}

// improve is simulated annealing from the course found so far, with a fixed seed. It moves works and whole blocks of a
// stage, mostly next to others of their stage.
func (r *run) improve(best Result, l *last, proved func(late, end int) bool) Result {
	m := &improving{run: r, chance: rand.New(rand.NewPCG(1, uint64(len(best.course)))), course: slices.Clone(best.course),
		late: best.Late - l.late, end: best.End, own: make([]bool, len(r.Orders))}
	if len(m.course) < 2 {
		return r.follow(m.course, l)
	}
	m.note(m.course, 0)
	m.best, m.bestLate, m.bestEnd = slices.Clone(m.course), m.late, m.end
	next := make([]item, len(m.course))
	moves := min(mostMoves, movesEach*len(m.course))
	for left, try := moves, 0; left > 0 && !proved(m.bestLate+l.late, m.bestEnd); try++ {
		m.slack = warm * float64(left) / float64(moves)
		left -= noted
		copy(next, m.course)
		if at, changed := m.change(next, try); changed {
			left -= m.take(next, at)
		}
	}
	return r.follow(m.best, l)
}

// warm is the temperature at the start: how many minutes worse a course may become, on average.
const warm = 2.0

// change makes one move, and returns the first place at which the course is changed.
func (m *improving) change(course []item, try int) (at int, changed bool) {
	from := m.chance.IntN(len(course))
	if try%3 == 0 {
		lo, hi := m.window(course, from)
		if hi <= lo {
			return 0, false
		}
		to := lo + m.chance.IntN(hi-lo+1)
		move(course, from, to)
		return min(from, to), from != to
	}
	lo, hi := from, from+1 // a block, or what of it comes before or after a work
	part := m.chance.IntN(3)
	for part != 1 && lo > 0 && m.stage(course[lo-1]) == m.stage(course[from]) {
		lo--
	}
	for part != 2 && hi < len(course) && m.stage(course[hi]) == m.stage(course[from]) {
		hi++
	}
	to := m.beside(course, lo, hi)
	if to < 0 || !m.free(course, lo, hi, to) {
		return 0, false
	}
	if to < lo { // after what stands there
		rotate(course[to+1:hi], lo-to-1)
		return to + 1, lo > to+1
	}
	rotate(course[lo:to], hi-lo) // before what stands there
	return lo, to > hi
}

// take does the course again from its first change, accepts it or not, and returns how many works were done.
func (m *improving) take(course []item, at int) (did int) {
	s := m.states[at/noted].copied()
	for _, it := range course[at/noted*noted:] {
		m.do(s, it, nil)
		if did++; s.late > m.late {
			return did
		}
	}
	if gone := m.gone(s); s.late < m.late || float64(gone) <= float64(m.end)+m.slack*m.chance.ExpFloat64() {
		m.late, m.end = s.late, gone
		copy(m.course, course)
		m.note(m.course, at)
		did *= 2
		if m.late < m.bestLate || m.late == m.bestLate && m.end < m.bestEnd {
			m.bestLate, m.bestEnd = m.late, m.end
			copy(m.best, m.course)
		}
	}
	return did
}

// note notes the states of a course again, from a place on.
func (m *improving) note(course []item, at int) {
	if m.states = m.states[:min(len(m.states), at/noted+1)]; len(m.states) == 0 {
		m.states = append(m.states, m.begin())
	}
	s := m.states[len(m.states)-1].copied()
	for i := (len(m.states) - 1) * noted; i < len(course); i++ {
		if i%noted == 0 && i/noted == len(m.states) {
			m.states = append(m.states, s.copied())
		}
		m.do(s, course[i], nil)
	}
}

func (s *state) copied() *state {
	n := *s
	n.ready = slices.Clone(s.ready)
	return &n
}

func (r *run) stage(it item) int { return r.Orders[it.order].Work[it.n].Stage }

// beside gives a place of a work of the same stage outside a block, -1 when there is none: the block's nearest on either
// side, or any.
func (m *improving) beside(course []item, lo, hi int) int {
	stage, near := m.stage(course[lo]), m.chance.IntN(3)
	places := 0
	at := -1
	for k := lo - 1; k >= 0 && near != 1; k-- {
		if m.stage(course[k]) == stage {
			if places++; near == 0 {
				return k
			}
			if m.chance.IntN(places) == 0 {
				at = k
			}
		}
	}
	for k := hi; k < len(course); k++ {
		if m.stage(course[k]) == stage {
			if places++; near == 1 {
				return k
			}
			if m.chance.IntN(places) == 0 {
				at = k
			}
		}
	}
	return at
}

// free reports whether a block may go to a place: nothing of its orders lies between.
func (m *improving) free(course []item, lo, hi, to int) bool {
	for _, it := range course[lo:hi] {
		m.own[it.order] = true
	}
	between := course[hi:max(hi, to)]
	if to < lo {
		between = course[to+1 : lo]
	}
	ok := !slices.ContainsFunc(between, func(it item) bool { return m.own[it.order] })
	for _, it := range course[lo:hi] {
		m.own[it.order] = false
	}
	return ok
}

// rotate brings the first so many works of a stretch to its end.
func rotate(course []item, by int) {
	slices.Reverse(course[:by])
	slices.Reverse(course[by:])
	slices.Reverse(course)
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
