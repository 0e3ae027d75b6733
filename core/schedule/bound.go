package schedule

import "slices"

// bounds gives the least that any course of the work is late by, and how early one can end: all
// that is not done last, with each of its stages set up once at the least, and something set up
// in every sitting that it must take.
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
