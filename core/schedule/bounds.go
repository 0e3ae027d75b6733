package schedule

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/optimize/convex/lp"
)

// bounds gives the least that any course of the work is late by, and how early one can end: with all that is not done last,
// and with the least of setting up that so many sittings take.
func (p Problem) bounds(r *run) (late, end int) {
	work, of := 0, map[int]int{}
	var stages []int
	for i, o := range p.Orders {
		for n, w := range o.Work {
			if r.took[i][n] > 0 {
				work, stages = work+r.took[i][n], append(stages, w.Stage)
				of[w.Stage] += r.took[i][n]
			}
		}
		late = max(late, p.lateBy(o.By))
	}
	slices.Sort(stages)
	stages = slices.Compact(stages)
	if end = work + p.setups(stages); len(stages) == 0 {
		return late, end
	}
	gone, sat := 0, []int(nil)
	for _, m := range r.free {
		if m == 0 {
			continue
		}
		if gone+m < end { // it must go on after this sitting
			gone, sat = gone+m, append(sat, m)
			continue
		}
		end = max(end, work+p.leastOfSitting(append(sat, m), stages, of))
		if end <= gone+m {
			break
		}
		gone, sat = gone+m, append(sat, m)
	}
	return late, end
}

// leastOfSitting is the least of setting up that work takes which does not end before the last of some sittings. In each
// something is set up, or it goes by unused; each stage is set up anew in every sitting, for all of its minutes, and so at
// least as often as the longest sittings hold them. How often each stage is set up in sittings of each length may
// otherwise be any fraction: that is solved as a linear programme, so that it is no more than any course takes.
func (p Problem) leastOfSitting(sat, stages []int, of map[int]int) int {
	lengths := map[int]int{}
	for _, m := range sat {
		lengths[m]++
	}
	var classes []int
	for m := range lengths {
		classes = append(classes, m)
	}
	slices.Sort(classes)
	// The unknowns: of each stage how often in sittings of each length; how many of each length are unused; what is over.
	k, s := len(classes), len(stages)
	rows, own := k+2*s, s*k+k
	cost, a, b := make([]float64, own+rows), mat.NewDense(rows, own+rows, nil), make([]float64, rows)
	for c, m := range classes {
		for i, stage := range stages {
			cost[i*k+c] = float64(p.setup(stage))
			if m > p.setup(stage) {
				a.Set(c, i*k+c, 1)
				a.Set(k+i, i*k+c, float64(m-p.setup(stage)))
				a.Set(k+s+i, i*k+c, 1)
			}
		}
		cost[s*k+c] = float64(m)
		a.Set(c, s*k+c, 1)
		b[c] = float64(lengths[m])
	}
	for i, stage := range stages {
		b[k+i], b[k+s+i] = float64(of[stage]), 1
		if longest := classes[k-1] - p.setup(stage); longest > 0 { // it is set up a whole number of times
			b[k+s+i] = math.Ceil(float64(of[stage]) / float64(longest))
		}
	}
	for row := range rows {
		a.Set(row, own+row, -1)
	}
	least, _, err := lp.Simplex(cost, a, b, 1e-9, nil)
	if err != nil || math.IsNaN(least) {
		return p.setups(stages)
	}
	return max(p.setups(stages), int(math.Ceil(least-1e-6)))
}

func (p Problem) setups(stages []int) (sum int) {
	for _, s := range stages {
		sum += p.setup(s)
	}
	return sum
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
