// Package schedule shares work out over the days on which one has time for it.
//
// An order is a chain of work: a stage after the other, trimming before scoring, with a wait after some. What is
// set up for a stage serves every order that comes to it in the same sitting, so it pays to do one stage of many
// orders; but then all of them are done late. What is wanted is, in this turn: no work after its date, then to be
// done with all of it as early as can be, which setting up again and waiting put off.
//
// The best course of the work is looked for by going through how far each order has come, keeping of the courses
// that came equally far those that no other beats: the result is exact, for who is earlier can do whatever the
// other can and is never later for it. Where there are too many orders for that, those of one date are done
// together, stage by stage, of two dates the nearer is never behind, and on each level the most promising courses
// are kept; Gap then tells how far from the best it can be at the most.
package schedule

import (
	"cmp"
	"slices"
)

// Work is one stage of an order.
type Work struct {
	Stage   int // its place among the stages; it rises along an order
	Minutes int // of one pair of hands
	Wait    int // minutes by the clock before the order's next may begin
}

// Order is a chain of work that must be done by the end of a day. Last, when there is any, is
// done as late as can be: the filling of what is food.
type Order struct {
	By   int // the last day, from 0; before 0 it is late whatever one does
	Work []Work
	Last *Work
}

// Problem is what is to be shared out: for each day the minutes that can be worked, rests
// taken off; for each stage the minutes it takes to set up for it.
type Problem struct {
	Days   []int
	Orders []Order
	Setup  []int
	Hands  int // that work at once; they share a setup
}

// Chunk is work on one stage of one order in a row, within a day.
type Chunk struct {
	Day, At      int // minutes of work from the beginning of the day
	Order, Stage int
	Setup        int // minutes before it, 0 where all is set up
	Minutes      int // by the clock
	Idle         int // minutes before it with nothing to do but wait
	Last         bool
}

// Result is how the work is shared out.
type Result struct {
	Chunks []Chunk
	Late   int // minutes of work after their dates, or that found no day
	Left   int // minutes of work that found no day
	Spent  int // minutes by the clock, with setups and idle ones
	End    int // minutes of all sittings that go by until all is done but what is done last
	Least  int // no course of the work is late by less
	Bound  int // no course of the work ends earlier
	Exact  bool
	Spared int // minutes of only waiting that are let go: the work then goes on in a later sitting
	Start  int // the last day on which it may be begun so that nothing is late, -1 when it is late anyhow
	course []item
	run    *run
	last   *last
}

// Gap is how many minutes earlier it might end at the most.
func (r Result) Gap() int {
	if r.Exact {
		return 0
	}
	return max(0, r.End-r.Bound)
}

// item is a stage of an order: its nth work, maybe only in the next sitting.
type item struct {
	order, n int
	pause    bool
}

// run is a problem made ready: minutes by the clock, what is done last taken from the days.
type run struct {
	Problem
	free []int // what is left of each day
	by   []deadline
	took [][]int
	few  int
}

// deadline is when the work before the last must be done: on a day, so far into it, and so
// many minutes before that its last wait must have begun.
type deadline struct{ day, at int }

// Fits reports whether some course makes nothing late. It searches less than Solve.
func Fits(p Problem) bool {
	for _, o := range p.Orders {
		if p.lateBy(o.By) > 0 {
			return false
		}
	}
	if Simple(p).Late == 0 {
		return true
	}
	return p.solve((*run).looked).Late == 0 || p.filled() && p.unfilled().solve((*run).looked).Late == 0
}

// Simple is the order in which most begin: one order after the other, the nearest date first,
// each from its first stage to its last.
func Simple(p Problem) Result { return p.solve((*run).simple) }

// solve looks for a course. What is done last is put at the ends of days; where that comes before the rest of its order, it
// follows the rest like any other work.
func (p Problem) solve(by func(*run, *last) Result) Result {
	for {
		r, l := p.ready()
		best := by(r, l)
		early := r.early(best)
		if len(early) == 0 {
			best.run, best.last = r, l
			return best
		}
		for _, i := range early {
			p = p.following(i)
		}
	}
}

// following is the problem with what an order does last done after the rest of it, like any other work.
func (p Problem) following(i int) Problem {
	p.Orders = slices.Clone(p.Orders)
	o := &p.Orders[i]
	o.Work, o.Last = append(slices.Clone(o.Work), *o.Last), nil
	return p
}

// filled reports whether anything is done last.
func (p Problem) filled() bool {
	return slices.ContainsFunc(p.Orders, func(o Order) bool { return o.Last != nil })
}

// unfilled is the problem with nothing done last: every course that there is, is one of its.
func (p Problem) unfilled() Problem {
	for i, o := range p.Orders {
		if o.Last != nil {
			p = p.following(i)
		}
	}
	return p
}

// Solve shares the work out. What is done last is done at the ends of days, as far as nothing is late for it.
func Solve(p Problem) Result {
	best := p.solve((*run).best)
	if p.filled() && best.Late > 0 {
		if free := p.refilled().solve((*run).best); free.Late < best.Late {
			best = free
		}
		// What is filled may be interrupted, which no course that was gone through has.
		best.Exact = best.Late == best.Least
	}
	best.Start = p.start(best)
	return best.run.unhurried(best, best.last)
}

// refilled is the problem in which only that is done last for which nothing is later than it must be: order by order, from
// the farthest date on.
func (p Problem) refilled() Problem {
	now := p.unfilled()
	least := now.solve((*run).looked).Late
	for _, i := range p.byDate(true) {
		if p.Orders[i].Last == nil {
			continue
		}
		try := now
		try.Orders = slices.Clone(now.Orders)
		try.Orders[i] = p.Orders[i]
		if late := try.solve((*run).looked).Late; late <= least {
			now, least = try, late
		}
	}
	return now
}

// looked is the best course that is found at once.
func (r *run) looked(l *last) Result {
	found, exact := r.search(l)
	if exact {
		return found
	}
	for _, other := range []Result{r.simple(l), r.batches(l)} {
		if better(other, found) {
			found = other
		}
	}
	return found
}

// longWait is from how many minutes on nobody sits and waits when nothing hangs on it.
const longWait = 10

// unhurried ends a sitting in which one would only wait, where nothing is late for it. What a
// result says of its end holds for the course as it was.
func (r *run) unhurried(best Result, l *last) Result {
	for tries := len(best.course); tries > 0; tries-- {
		i := r.waits(best)
		if i < 0 {
			return best
		}
		course := slices.Clone(best.course)
		course[i].pause = true
		next := r.follow(course, l)
		if next.Late > best.Late || next.Left > best.Left || len(r.early(next)) > 0 {
			return best
		}
		best.course, best.Chunks, best.Spared, best.Spent = course, next.Chunks, best.Spared+best.Spent-next.Spent, next.Spent
	}
	return best
}

// waits gives the first work of a course that one would sit and wait for, -1 when there is none.
func (r *run) waits(res Result) int {
	for _, c := range res.Chunks {
		if c.Idle < longWait || c.Last {
			continue
		}
		for i, it := range res.course {
			if it.order == c.Order && r.Orders[it.order].Work[it.n].Stage == c.Stage && !it.pause {
				return i
			}
		}
	}
	return -1
}

// early lists the orders whose last work comes before another of theirs is done.
func (r *run) early(res Result) (out []int) {
	first := map[int]moment{}
	for _, c := range res.Chunks {
		if _, known := first[c.Order]; c.Last && !known {
			first[c.Order] = moment{c.Day, c.At + c.Setup}
		}
	}
	done, left := map[int]moment{}, map[int]int{}
	for i := range r.Orders {
		for _, m := range r.took[i] {
			left[i] += m
		}
	}
	for _, c := range res.Chunks {
		if !c.Last {
			done[c.Order] = moment{c.Day, c.At + c.Setup + c.Minutes}
			left[c.Order] -= c.Minutes
		}
	}
	for i, o := range r.Orders {
		fills, filled := first[i]
		if n := len(o.Work); filled && n > 0 {
			if end := done[i]; (moment{end.day, end.at + o.Work[n-1].Wait}).compare(fills) > 0 || left[i] > 0 {
				out = append(out, i)
			}
		}
	}
	return out
}

// best looks for the best course of the work, and for what bounds it.
func (r *run) best(l *last) Result {
	best := r.simple(l)
	found, exact := r.search(l)
	if better(found, best) {
		best = found
	}
	least, bound := r.bounds(r)
	proved := func(late, end int) bool { return late == least && end <= bound }
	if !exact {
		if found = r.batches(l); better(found, best) {
			best = found
		}
		best = r.improve(best, l, proved)
	}
	best.Least, best.Bound, best.Exact = least, bound, exact || proved(best.Late, best.End)
	return best
}

func better(a, b Result) bool {
	return cmp.Or(cmp.Compare(a.Late, b.Late), cmp.Compare(a.End, b.End)) < 0
}

func (p Problem) clock(minutes int) int {
	k := max(1, p.Hands)
	return (max(0, minutes) + k - 1) / k
}

func (p Problem) setup(stage int) int {
	if stage < len(p.Setup) {
		return p.Setup[stage]
	}
	return 0
}

// start is the last day on which the work may be begun so that nothing is late: the day of its course as far as that can be
// begun later, and beyond it as far as any course is found.
func (p Problem) start(of Result) int {
	if of.Late > 0 {
		return -1
	}
	from := func(day int) Problem {
		later := p
		later.Days = slices.Clone(p.Days)
		clear(later.Days[:day])
		return later
	}
	var with []int // days that have hours
	for day, minutes := range p.Days {
		if minutes > 0 {
			with = append(with, day)
		}
	}
	if len(with) == 0 {
		return 0
	}
	lo, hi := 0, len(with) // lo fits, hi does not
	for hi-lo > 1 {
		if mid := (lo + hi) / 2; Fits(from(with[mid])) {
			lo = mid
		} else {
			hi = mid
		}
	}
	return with[lo]
}
