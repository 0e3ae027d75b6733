package layout

import "fmt"

// InOrder puts cuts in an order in which they can be made, with few changes of the
// trimmer's stop: what can be cut at the setting that stands is cut before it is moved,
// and then it goes where most can be cut.
func InOrder(cuts []Cut) []Cut {
	// A cut waits for the one that makes the part it goes across.
	waits := make([]int, len(cuts))
	made := map[Rect]int{}
	for i, c := range cuts {
		waits[i] = -1
		if by, ok := made[c.In]; ok {
			waits[i] = by
		}
		a, b := c.Parts()
		made[a], made[b] = i, i
	}
	done := make([]bool, len(cuts))
	out := make([]Cut, 0, len(cuts))
	var stop Length
	for len(out) < len(cuts) {
		ready := map[Length]int{}
		next := -1
		for i := range cuts {
			if done[i] || waits[i] >= 0 && !done[waits[i]] {
				continue
			}
			if at := cuts[i].At; at == stop && (next < 0 || cuts[next].At != stop) {
				next = i
			} else if ready[at]++; next < 0 || cuts[next].At != stop && ready[at] > ready[cuts[next].At] {
				next = i
			}
		}
		done[next], stop = true, cuts[next].At
		out = append(out, cuts[next])
	}
	if stops(out) > stops(cuts) {
		return cuts
	}
	return out
}

// stops counts how often the stop is set for cuts in their order.
func stops(cuts []Cut) (n int) {
	var stop Length
	for _, c := range cuts {
		if c.At != stop {
			n, stop = n+1, c.At
		}
	}
	return n
}

// Parts are the two parts a cut leaves: the one that lies against the stop, and the rest.
func (c Cut) Parts() (kept, rest Rect) {
	kept, rest = c.In, c.In
	if c.Down {
		kept.W, rest.X, rest.W = c.At, c.In.X+c.At, c.In.W-c.At
	} else {
		kept.H, rest.Y, rest.H = c.At, c.In.Y+c.At, c.In.H-c.At
	}
	return kept, rest
}

// Long is how long the cut is.
func (c Cut) Long() Length {
	if c.Down {
		return c.In.H
	}
	return c.In.W
}

// Settings counts how often the stop is set for all cuts, sheet after sheet; sheets that
// are cut alike are cut together.
func (a Layout) Settings() (n int) {
	var stop Length
	seen := map[string]bool{}
	for _, s := range a.Sheets {
		mark := fmt.Sprint(s.Cuts)
		if seen[mark] {
			continue
		}
		seen[mark] = true
		for _, c := range s.Cuts {
			if c.At != stop {
				n, stop = n+1, c.At
			}
		}
	}
	return n
}
