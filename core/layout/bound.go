package layout

import (
	"cmp"
	"math"
	"slices"
)

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
