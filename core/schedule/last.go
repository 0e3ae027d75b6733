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
