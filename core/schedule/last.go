package schedule

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"
)

// What is done last is put at the ends of the days first, and the rest before it.

// ready takes what is done last off the ends of the days, the farthest date first.
func (p Problem) ready() (*run, *last) {
	r := &run{Problem: p, free: slices.Clone(p.Days), by: make([]deadline, len(p.Orders)), took: make([][]int, len(p.Orders)),
		few: few}
	l := &last{}
	for i, o := range p.Orders {
		for _, w := range o.Work {
			r.took[i] = append(r.took[i], p.clock(w.Minutes))
		}
		r.by[i] = deadline{o.By, math.MaxInt}
	}
	for _, i := range p.byDate(true) {
		if p.Orders[i].Last != nil {
			l.put(r, i)
		}
	}
	l.inTurn()
	for _, c := range slices.Backward(l.chunks) {
		if c.Day <= p.Orders[c.Order].By {
			r.by[c.Order] = deadline{c.Day, c.At}
		}
	}
	return r, l
}

// inTurn has what is done last on a day done stage by stage, each set up once, before the first of it: it was put there
// from the end of the day on.
func (l *last) inTurn() {
	slices.SortStableFunc(l.chunks, func(a, b Chunk) int {
		return cmp.Or(cmp.Compare(a.Day, b.Day), cmp.Compare(a.Stage, b.Stage), cmp.Compare(a.At, b.At))
	})
	for i := 0; i < len(l.chunks); {
		day, end, at := l.chunks[i].Day, i, l.chunks[i].At
		setups := map[int]int{}
		for ; end < len(l.chunks) && l.chunks[end].Day == day; end++ {
			c := &l.chunks[end]
			at, setups[c.Stage] = min(at, c.At), setups[c.Stage]+c.Setup
		}
		for ; i < end; i++ {
			c := &l.chunks[i]
			c.At, c.Setup = at, setups[c.Stage]
			setups[c.Stage] = 0
			at += c.Setup + c.Minutes
		}
	}
}

func (p Problem) byDate(backwards bool) []int {
	out := make([]int, len(p.Orders))
	for i := range out {
		out[i] = i
	}
	slices.SortStableFunc(out, func(a, b int) int {
		c := cmp.Compare(p.Orders[a].By, p.Orders[b].By)
		if backwards {
			return -c
		}
		return c
	})
	return out
}

// last is the work that is done as late as can be, at the ends of days.
type last struct {
	chunks []Chunk
	spent  int
	late   int
	left   int
	set    map[[2]int]bool // day and stage that are set up
}

// put takes the latest free minutes by an order's date, and later ones when there are too few.
func (l *last) put(r *run, i int) {
	o := r.Orders[i]
	need := r.clock(o.Last.Minutes)
	if l.set == nil {
		l.set = map[[2]int]bool{}
	}
	take := func(day int) {
		setup := 0
		if !l.set[[2]int{day, o.Last.Stage}] {
			setup = r.setup(o.Last.Stage)
		}
		if r.free[day] <= setup || need == 0 {
			return
		}
		m := min(need, r.free[day]-setup)
		r.free[day] -= m + setup
		l.set[[2]int{day, o.Last.Stage}] = true
		l.chunks = append(l.chunks, Chunk{Day: day, At: r.free[day], Order: i, Stage: o.Last.Stage, Setup: setup, Minutes: m,
			Last: true})
		l.spent, need = l.spent+m+setup, need-m
		if day > o.By {
			l.late += m
		}
	}
	for day := min(o.By, len(r.free)-1); day >= 0; day-- {
		take(day)
	}
	for day := max(0, o.By+1); day < len(r.free); day++ {
		take(day)
	}
	l.late, l.left = l.late+need, l.left+need
}

// moves is how often a course is tried to be bettered.
const moves = 1000

// improve betters a course that was found by looking at few: works are taken out in a fixed random order and put
// elsewhere in their order, half of the time beside others of their stage.
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

// bounds gives the least that any course of the work is late by, and how early one can end: all that is not done
// last, with each of its stages set up once at the least, and something set up in every sitting that it must take.
func (p Problem) bounds(r *run) (late, end int) {
	var stages []int
	for i, o := range p.Orders {
		for n, w := range o.Work {
			if r.took[i][n] > 0 {
				end, stages = end+r.took[i][n], append(stages, w.Stage)
			}
		}
		late = max(late, p.lateBy(o.By))
	}
	slices.Sort(stages)
	stages = slices.Compact(stages)
	end += p.setups(stages)
	least, sat, gone := p.leastSetup(stages), 0, 0
	for _, m := range r.free {
		if gone+m >= end {
			break
		}
		if gone += m; m > 0 {
			if sat++; sat >= len(stages) {
				end += min(least, m) // one more sitting than there are stages sets something up twice
			}
		}
	}
	return late, end
}

func (p Problem) setups(stages []int) (sum int) {
	for _, s := range stages {
		sum += p.setup(s)
	}
	return sum
}

func (p Problem) leastSetup(stages []int) (least int) {
	for i, s := range stages {
		if i == 0 || p.setup(s) < least {
			least = p.setup(s)
		}
	}
	return least
}

// lateBy is how much of the work that is due by a day can't be done by then: what there is of it
// over the minutes there are; a minute at the least where only the setups don't fit.
func (p Problem) lateBy(day int) int {
	work, free := 0, 0
	var stages []int
	for _, o := range p.Orders {
		if o.By > day {
			continue
		}
		for _, w := range o.Work {
			if w.Minutes > 0 {
				work, stages = work+p.clock(w.Minutes), append(stages, w.Stage)
			}
		}
		if o.Last != nil && o.Last.Minutes > 0 {
			work, stages = work+p.clock(o.Last.Minutes), append(stages, o.Last.Stage)
		}
	}
	for i := 0; i <= day && i < len(p.Days); i++ {
		free += p.Days[i]
	}
	slices.Sort(stages)
	switch over := work - free; {
	case over > 0:
		return over
	case over+p.setups(slices.Compact(stages)) > 0:
		return 1
	}
	return 0
}
