package schedule

import (
	"math"
	"slices"
)

// lots is a capacitated lot-sizing problem: how many minutes go, at the least, on setting up and on nothing at all when the
// work ends in the last of some sittings. A stage is set up in every sitting in which any of it is done.
//
// Its lower bound is a Lagrangian relaxation. That the stages share a sitting's minutes is relaxed: each minute has a price
// (a multiplier) instead, and each stage chooses its sittings by itself, exactly, by dynamic programming. The prices are
// raised by subgradient steps; any prices give a valid bound. Sittings of one length are alike, so they have one price.
type lots struct {
	kinds  []sitting // the last sitting is a kind of its own, and the last of them
	stages []lot
	cost   []float64 // of w minutes of a stage in full sittings
	by     []int32   // the kind of sitting taken last for them, -1 for none
}

// sitting is a kind of sitting: how many minutes it has, how many such there are, the price of a minute, and how many
// minutes the stages take of all of them together.
type sitting struct {
	long, many int
	price      float64
	taken      int
}

// lot is a stage: its minutes of work, and of setting up.
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
	l.kinds = append(l.kinds, sitting{long: sat[last], many: 1})
	return l
}

// The number of subgradient steps, and how many of them in a row may bring nothing before the next are half as long.
const (
	priceSteps = 150
	inVain     = 6
)

// least returns a lower bound in minutes, or most where the bound is no less.
func (l *lots) least(most int) int {
	best, scale, vain := 0.0, 1.0, 0
	prices := slices.Clone(l.kinds)
	for range priceSteps {
		bound := l.bound()
		if vain++; bound > best+1e-6 {
			best, vain = bound, 0
			copy(prices, l.kinds)
		} else if vain == inVain {
			scale, vain = scale/2, 0
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
		step := scale * (float64(most) - bound) / norm
		for i := range l.kinds {
			k := &l.kinds[i]
			unused := 1.0 // what a minute costs in which nothing is done
			if i == len(l.kinds)-1 {
				unused = 0 // the work is over then
			}
			k.price = max(-unused, k.price+step*float64(k.taken-k.many*k.long)/float64(k.many))
		}
	}
	return int(math.Ceil(best - 1e-6))
}

// bound returns the bound that the prices give, and notes the minutes that the stages take.
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

// choose returns the least that a stage costs by itself, and takes its minutes. The cost is linear in the minutes of each
// sitting, so all sittings but one are full.
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
