package schedule

import (
	"cmp"
	"math"
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
			r.by[i] = l.put(r, i)
		}
	}
	return r, l
}

// byDate gives the orders by their dates.
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
// It gives when what comes before must be done.
func (l *last) put(r *run, i int) deadline {
	o := r.Orders[i]
	need := r.clock(o.Last.Minutes)
	first := deadline{o.By, math.MaxInt}
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
		} else {
			first = deadline{day, r.free[day]}
		}
	}
	for day := min(o.By, len(r.free)-1); day >= 0; day-- {
		take(day)
	}
	for day := max(0, o.By+1); day < len(r.free); day++ {
		take(day)
	}
	l.late, l.left = l.late+need, l.left+need
	return first
}
