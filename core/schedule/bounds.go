package schedule

import "slices"

// bounds returns lower bounds on how late any course is and on when it ends: all work that is not done last, and the
// least setting up that so many sittings take.
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
		if gone, sat = gone+m, append(sat, m); gone < end {
			continue
		}
		// A bound beyond these sittings says only that the work goes on after them.
		if end = max(end, work+p.lots(sat, stages, of).least(gone+1-work)); end <= gone {
			break
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
