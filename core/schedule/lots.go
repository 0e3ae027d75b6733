package schedule

import (
	"math"
	"slices"
)

// lots is the question what setting up, and minutes that go by unused, take at the least when the work goes on to the last
// of some sittings.
//
// A stage is set up anew in every sitting in which any of it is done. Each minute of a sitting has a price; by these prices
// each stage by itself chooses its sittings, whole ones and one in part, exactly. That they all share the minutes there are
// is told by the prices, which are bettered step by step (a Lagrangian relaxation): whatever they are, what comes of them is
// no more than any course takes. Sittings of one length are alike, and so have one price.
type lots struct {
	kinds  []sitting
	stages []lot
	cost   []float64 // of so many minutes of a stage in whole sittings
	by     []int32   // the kind of sitting that was taken last for it, -1 for none
}

// sitting is a kind of sitting: how long, how many, what a minute of it costs, and how many minutes are taken.
type sitting struct {
	long, many int
	price      float64
	taken      int
}

// lot is a stage: its minutes, and those of setting up for it.
type lot struct{ minutes, setup int }

func (p Problem) lots(sat, stages []int, of map[int]int) *lots {
	l := &lots{}
	longest := 0
	for _, s := range stages {
		l.stages, longest = append(l.stages, lot{of[s], p.setup(s)}), max(longest, of[s])
	}
	l.cost, l.by = make([]float64, longest+1), make([]int32, longest+1)
	last := len(sat) - 1
	for _, long := range sat[:last] {
		i := slices.IndexFunc(l.kinds, func(k sitting) bool { return k.long == long })
		if i < 0 {
			i, l.kinds = len(l.kinds), append(l.kinds, sitting{long: long})
		}
		l.kinds[i].many++
	}
	l.kinds = append(l.kinds, sitting{long: sat[last], many: 1}) // of its minutes it may leave some, for nothing
	return l
}

// How often prices are bettered, and after how many times in vain by half as much.
const (
	betterings = 150
	inVain     = 6
)

// least is the least there is, as far as it is no more than most.
func (l *lots) least(most int) int {
	best, bold, vain := 0.0, 1.0, 0
	prices := slices.Clone(l.kinds)
	for range betterings {
		bound := l.bound()
		if vain++; bound > best+1e-6 {
			best, vain = bound, 0
			copy(prices, l.kinds)
		} else if vain == inVain {
			bold, vain = bold/2, 0
			copy(l.kinds, prices)
		}
		if math.Ceil(best-1e-6) >= float64(most) {
			return most
		}
		norm := 0.0
		for _, k := range l.kinds {
			norm += math.Pow(float64(k.taken-k.many*k.long), 2) / float64(k.many)
		}
		if norm == 0 {
			break
		}
		step := bold * (float64(most) - bound) / norm
		for i := range l.kinds {
			k := &l.kinds[i]
			free := -1.0 // a minute that goes by unused costs itself
			if i == len(l.kinds)-1 {
				free = 0
			}
			k.price = max(free, k.price+step*float64(k.taken-k.many*k.long)/float64(k.many))
		}
	}
	return int(math.Ceil(best - 1e-6))
}

// bound is what comes of the prices.
func (l *lots) bound() (sum float64) {
	for i := range l.kinds {
		l.kinds[i].taken = 0
		sum -= l.kinds[i].price * float64(l.kinds[i].many*l.kinds[i].long)
	}
	for _, s := range l.stages {
		sum += l.choose(s)
	}
	return sum
}

// choose is what a stage costs at the least by itself. It takes the minutes from the sittings.
func (l *lots) choose(s lot) float64 {
	l.cost[0], l.by[0] = 0, -1
	for w := 1; w <= s.minutes; w++ {
		l.cost[w], l.by[w] = math.Inf(1), -1
		for i, k := range l.kinds {
			if room := k.long - s.setup; room > 0 && room <= w {
				if c := l.cost[w-room] + k.price*float64(k.long) + float64(s.setup); c < l.cost[w] {
					l.cost[w], l.by[w] = c, int32(i)
				}
			}
		}
	}
	best, part, in := l.cost[s.minutes], 0, -1
	for i, k := range l.kinds {
		for x := 1; x <= min(k.long-s.setup, s.minutes); x++ {
			if c := l.cost[s.minutes-x] + k.price*float64(x+s.setup) + float64(s.setup); c < best {
				best, part, in = c, x, i
			}
		}
	}
	w := s.minutes - part
	if in >= 0 {
		l.kinds[in].taken += part + s.setup
	}
	for w > 0 && l.by[w] >= 0 {
		k := &l.kinds[l.by[w]]
		k.taken, w = k.taken+k.long, w-(k.long-s.setup)
	}
	return best
}
