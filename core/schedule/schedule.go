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

// Solve shares the work out. Where what is to be done last would come before the rest of its
// order, which is late, it follows that like any other stage.
func Solve(p Problem) Result { return p.solve((*run).best) }

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
	return p.solve(func(r *run, l *last) Result {
		found, _ := r.search(l)
		return found
	}).Late == 0
}

// Simple is the order in which most begin: one order after the other, the nearest date first,
// each from its first stage to its last.
func Simple(p Problem) Result { return p.solve((*run).simple) }

func (p Problem) solve(by func(*run, *last) Result) Result {
	for {
		r, l := p.ready()
		best := by(r, l)
		early := r.early(best)
		if len(early) == 0 {
			best.Start = r.start(best, l)
			return r.unhurried(best, l)
		}
		p.Orders = slices.Clone(p.Orders)
		for _, i := range early {
			o := &p.Orders[i]
			o.Work, o.Last = append(slices.Clone(o.Work), *o.Last), nil
		}
	}
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
		if next.Late > best.Late || len(r.early(next)) > 0 {
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

// start is the last day on which the course of a result may be begun without being late.
func (r *run) start(of Result, l *last) int {
	if of.Late > 0 {
		return -1
	}
	start := 0
	for day := 1; day < len(r.Days); day++ {
		later := *r
		later.free = slices.Clone(r.free)
		for i := range day {
			later.free[i] = 0
		}
		if slices.ContainsFunc(l.chunks, func(c Chunk) bool { return c.Day < day }) || later.follow(of.course, l).Late > 0 {
			break
		}
		if r.Days[day] > 0 {
			start = day
		}
	}
	for start < len(r.Days)-1 && r.Days[start] == 0 {
		start++
	}
	return start
}
