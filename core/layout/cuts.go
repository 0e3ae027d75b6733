package layout

import (
	"cmp"
	"fmt"
	"math"
	"slices"
)

// InOrder puts cuts in an order in which they can be made, with few changes of the trimmer's stop: what can be cut
// at the setting that stands is cut before it is moved, and then it goes where most can be cut.
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

// kind is pieces that are alike.
type kind struct {
	Piece
	n int
}

// Bound is a number of sheets that no arrangement can go below: by area, and by
// pieces of which no two can share a sheet, however they are turned.
func Bound(pieces []Piece, w, h Length) int {
	area := 0.0
	var kinds []kind
	for _, p := range pieces {
		area += p.W.MM() * p.H.MM() * float64(p.Count)
		i := slices.IndexFunc(kinds, func(k kind) bool {
			return k.W == p.W && k.H == p.H && k.Upright == p.Upright &&
				k.Across == p.Across
		})
		if i < 0 {
			i, kinds = len(kinds), append(kinds, kind{p, 0})
		}
		kinds[i].n += p.Count
	}
	slices.SortStableFunc(kinds, func(a, b kind) int { return cmp.Compare(b.W.MM()*b.H.MM(), a.W.MM()*a.H.MM()) })
	lone := 0
	for i := range kinds[:min(len(kinds), mostStarts)] {
		lone = max(lone, apart(kinds[i:], w, h))
	}
	return max(lone, int(math.Ceil(area/(w.MM()*h.MM())-1e-9)))
}

// mostStarts is from how many kinds pieces that lie apart are gathered.
const mostStarts = 12

// apart gathers kinds, from the first on, of which no two pieces can share a
// sheet, and counts their pieces: of a kind that can share with itself, one.
func apart(kinds []kind, w, h Length) (n int) {
	var chosen []kind
	for _, k := range kinds {
		if slices.ContainsFunc(chosen, func(c kind) bool { return share(c.Piece, k.Piece, w, h) }) {
			continue
		}
		chosen = append(chosen, k)
		if share(k.Piece, k.Piece, w, h) {
			n++
		} else {
			n += k.n
		}
	}
	return n
}

// share reports whether two pieces can lie on one sheet.
func share(a, b Piece, w, h Length) bool {
	for _, p := range lies(a) {
		for _, q := range lies(b) {
			if p.W+q.W <= w && max(p.H, q.H) <= h || p.H+q.H <= h && max(p.W, q.W) <= w {
				return true
			}
		}
	}
	return false
}

// lies gives the ways a piece may lie.
func lies(p Piece) []Rect {
	if p.Across {
		return []Rect{{W: p.H, H: p.W}}
	}
	if p.Upright || p.W == p.H {
		return []Rect{{W: p.W, H: p.H}}
	}
	return []Rect{{W: p.W, H: p.H}, {W: p.H, H: p.W}}
}
