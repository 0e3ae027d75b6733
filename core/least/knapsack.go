package least

import "slices"

// table tells, for every rectangle that cuts right across can leave, the most that pieces in it can be worth, each
// as often as it likes. Sides count only where sums of pieces' sides end, so there are few.
type table struct {
	*problem
	on     []bool // kinds of this stock
	xs, ys []int64
	dx, dy [][]int32 // the place of what is left of a side
	worth  []int64
	coarse bool // sides are rounded up to a few ends
}

// mostSpots is how many ends a side may have; where there are more, the bound of the programme is not looked for.
const mostSpots = 320

// newTable prepares for the kinds that lie on a size, on sheets up to so large; nil
// where sides end in too many places.
func (p *problem) newTable(w, h int64, on []bool) *table {
	t := &table{problem: p, on: on}
	t.xs, t.ys = t.ends(w, 0), t.ends(h, 1)
	if t.xs == nil || t.ys == nil {
		return nil
	}
	t.dx, t.dy = lefts(t.xs), lefts(t.ys)
	t.worth = make([]int64, len(t.xs)*len(t.ys))
	return t
}

// cells is how many ends a side has in a coarse table.
const cells = 90

// coarseTable is a table of few ends, to which sides are rounded up: what it finds can be
// cut, and there may be better.
func (p *problem) coarseTable(w, h int64, on []bool) *table {
	t := &table{problem: p, on: on, coarse: true}
	ends := func(side int64) (out []int64) {
		cell := max(1, (side+cells-1)/cells)
		for at := int64(0); at <= side; at += cell {
			out = append(out, at)
		}
		return out
	}
	t.xs, t.ys = ends(w), ends(h)
	t.dx, t.dy = lefts(t.xs), lefts(t.ys)
	t.worth = make([]int64, len(t.xs)*len(t.ys))
	return t
}

// within is the place of the first end that a side lies within, -1 for none.
func within(ends []int64, length int64) int {
	i, _ := slices.BinarySearch(ends, length)
	if i == len(ends) {
		return -1
	}
	return i
}

// ends are the sums of pieces' sides up to a side.
func (t *table) ends(side int64, which int) []int64 {
	var lengths []int64
	for k, kind := range t.kinds {
		for _, way := range kind.ways {
			if t.on[k] && way[which] <= side {
				lengths = append(lengths, way[which])
			}
		}
	}
	slices.Sort(lengths)
	lengths = slices.Compact(lengths)
	seen := map[int64]bool{0: true}
	todo := []int64{0}
	for len(todo) > 0 {
		at := todo[len(todo)-1]
		todo = todo[:len(todo)-1]
		for _, l := range lengths {
			if to := at + l; to <= side && !seen[to] {
				if len(seen) > mostSpots {
					return nil
				}
				seen[to], todo = true, append(todo, to)
			}
		}
	}
	out := make([]int64, 0, len(seen))
	for at := range seen {
		out = append(out, at)
	}
	slices.Sort(out)
	return out
}

// lefts gives, for each end and each smaller one, the place of what is left.
func lefts(ends []int64) [][]int32 {
	out := make([][]int32, len(ends))
	for i, end := range ends {
		out[i] = make([]int32, i+1)
		for j := range i + 1 {
			out[i][j] = int32(place(ends, end-ends[j]))
		}
	}
	return out
}

// place is that of the last end within a length.
func place(ends []int64, length int64) int {
	i, found := slices.BinarySearch(ends, length)
	if !found {
		i--
	}
	return i
}

// fill works out what rectangles are worth when pieces are worth so much.
func (t *table) fill(worth []int64) {
	n := len(t.ys)
	clear(t.worth)
	for k, kind := range t.kinds {
		for _, way := range kind.ways {
			if x, y := within(t.xs, way[0]), within(t.ys, way[1]); t.on[k] && x >= 0 && y >= 0 {
				t.worth[x*n+y] = max(t.worth[x*n+y], worth[k])
			}
		}
	}
	for x := range t.xs {
		row := t.worth[x*n : x*n+n]
		if x > 0 {
			for y, v := range t.worth[(x-1)*n : x*n] {
				row[y] = max(row[y], v)
			}
		}
		for a, left := range t.dx[x][:(x+2)/2] {
			one, other := t.worth[a*n:a*n+n], t.worth[int(left)*n:int(left)*n+n]
			if a == 0 {
				continue // the whole of it
			}
			for y := range row {
				row[y] = max(row[y], one[y]+other[y])
			}
		}
		for y := range row {
			v := row[y]
			if y > 0 {
				v = max(v, row[y-1])
			}
			for a, left := range t.dy[y][:(y+2)/2] {
				if a > 0 {
					v = max(v, row[a]+row[left])
				}
			}
			row[y] = v
		}
		t.work -= n * (n + 2*x) / 300
	}
}

// most is what a sheet can be worth.
func (t *table) most(w, h int64) int64 { return t.worth[place(t.xs, w)*len(t.ys)+place(t.ys, h)] }

// pattern lays a sheet that is worth the most, and counts its pieces of each kind.
func (t *table) pattern(w, h int64, worth []int64, on *tree) []int {
	out := make([]int, len(t.kinds))
	t.unfold(place(t.xs, w), place(t.ys, h), worth, out, on, 0)
	return out
}

// unfold finds a way to be worth as much, and lays it into a leaf.
func (t *table) unfold(x, y int, worth []int64, out []int, on *tree, at int32) {
	n := len(t.ys)
	v := t.worth[x*n+y]
	if v == 0 {
		return
	}
	for k, kind := range t.kinds {
		for _, way := range kind.ways {
			if t.on[k] && worth[k] == v && way[0] <= t.xs[x] && way[1] <= t.ys[y] {
				out[k]++
				on.place(at, int32(k), way[0], way[1], true)
				on.used += kind.area
				return
			}
		}
	}
	for a := 1; a <= x/2+1 && a < x; a++ {
		if left := int(t.dx[x][a]); t.worth[a*n+y]+t.worth[left*n+y] == v && left < x {
			strip, rest := at, at
			if t.xs[a] < on.nodes[at].w {
				strip, rest = on.slice(at, t.xs[a], on.nodes[at].h, true)
			}
			t.unfold(a, y, worth, out, on, strip)
			t.unfold(left, y, worth, out, on, rest)
			return
		}
	}
	for a := 1; a <= y/2+1 && a < y; a++ {
		if left := int(t.dy[y][a]); t.worth[x*n+a]+t.worth[x*n+left] == v && left < y {
			strip, rest := at, at
			if t.ys[a] < on.nodes[at].h {
				strip, rest = on.slice(at, on.nodes[at].w, t.ys[a], false)
			}
			t.unfold(x, a, worth, out, on, strip)
			t.unfold(x, left, worth, out, on, rest)
			return
		}
	}
	if x > 0 && t.worth[(x-1)*n+y] == v {
		t.unfold(x-1, y, worth, out, on, at)
	} else if y > 0 && t.worth[x*n+y-1] == v {
		t.unfold(x, y-1, worth, out, on, at)
	}
}
