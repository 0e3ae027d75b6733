package contents

import (
	"cmp"
	"slices"
)

// Share shares things out among rooms, each of which takes such a part of them:
// whole kinds, the bulkiest first, to the room that has most left, when there are
// as many kinds as rooms; else some of each kind to every room. It gives for each
// room how many of each kind go in.
func Share(things []Thing, parts []float64) [][]int {
	out := make([][]int, len(parts))
	filled := make([]float64, len(parts))
	for r := range out {
		out[r] = make([]int, len(things))
	}
	emptiest := func() (best int) {
		for r := range parts {
			if filled[r]/parts[r] < filled[best]/parts[best]-1e-9 {
				best = r
			}
		}
		return best
	}
	order := make([]int, len(things))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(things[b].bulk(), things[a].bulk()) })
	for _, i := range order {
		t := things[i]
		step := t.Count
		if len(things) < len(parts) {
			step = 1
		}
		for n := 0; n < t.Count; n += step {
			r := emptiest()
			out[r][i] += step
			filled[r] += float64(step) * t.Size.Length.MM() * t.Size.Width.MM() * t.Size.Height.MM()
		}
	}
	return out
}

// bulk is how much room all of a kind takes, in cubic millimetres.
func (t Thing) bulk() float64 {
	return float64(t.Count) * t.Size.Length.MM() * t.Size.Width.MM() * t.Size.Height.MM()
}
