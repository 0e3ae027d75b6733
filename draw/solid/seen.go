package solid

import (
	"math"
	"slices"

	"brevium/core/fold"
)

// seen gives, of polygons in the order they are painted, those of which
// something shows at the picture's size; when they are more than the most, those
// of which most shows. It goes from the nearest to the farthest over the points
// of the picture, a point to a pixel.
func seen(painted []poly, place func(fold.Vec) (x, y float64), w, h float64, most int) []poly {
	wide, high := int(math.Ceil(w)), int(math.Ceil(h))
	covered := make([]int32, wide*high)
	shows := make([]int, len(painted))
	var xs, ys []float64
	n := 0
	for i := len(painted) - 1; i >= 0; i-- {
		xs, ys = xs[:0], ys[:0]
		for _, p := range painted[i].points {
			x, y := place(p)
			xs, ys = append(xs, x), append(ys, y)
		}
		if shows[i] = cover(covered, wide, high, xs, ys); shows[i] > 0 {
			n++
		}
	}
	least := 1
	if n > most {
		sorted := slices.Sorted(slices.Values(shows))
		least = sorted[len(sorted)-most]
	}
	out := make([]poly, 0, min(n, most))
	for i, p := range painted {
		if shows[i] >= least && len(out) < most {
			out = append(out, p)
		}
	}
	return out
}

// cover marks the points that a convex outline holds, and counts those within
// half a pixel of it that were free: a sliver or an edge counts as seen. A point that is
// covered says how far on the next may be free, so that what lies behind is not gone over
// point by point.
func cover(covered []int32, wide, high int, xs, ys []float64) (free int) {
	lo, hi := math.Inf(1), math.Inf(-1)
	for _, y := range ys {
		lo, hi = min(lo, y), max(hi, y)
	}
	first, last := max(0, int(lo-0.5)), min(high-1, int(math.Floor(hi+0.5)))
	if first > last {
		return 0
	}
	ends := make([][2]float64, last-first+1)
	for i := range ends {
		ends[i] = [2]float64{math.Inf(1), math.Inf(-1)}
	}
	for i := range xs {
		k := (i + 1) % len(xs)
		side(ends, first, lo, hi, xs[i], ys[i], xs[k], ys[k])
	}
	for i, e := range ends {
		row, left, right := first+i, e[0], e[1]
		if left > right {
			continue
		}
		inside := float64(row)+0.5 >= lo && float64(row)+0.5 <= hi
		line := covered[row*wide : (row+1)*wide]
		for x := nextFree(line, max(0, int(left-0.5))); x < wide && float64(x) <= right; x = nextFree(line, x+1) {
			free++
			if at := float64(x) + 0.5; inside && at >= left && at <= right {
				line[x] = 1
			}
		}
	}
	return free
}

// nextFree is the first free point of a row from a place on; those on the way learn of it.
func nextFree(line []int32, from int) int {
	x := from
	for x < len(line) && line[x] > 0 {
		x += int(line[x])
	}
	for p := from; p < x && p < len(line); {
		by := int(line[p])
		line[p] = int32(x - p)
		p += by
	}
	return x
}

// side widens the rows that one side of an outline crosses, which runs from lo to hi: a row is
// looked at in its middle, the first and the last at the outline's end where that is nearer.
func side(ends [][2]float64, first int, lo, hi, xa, ya, xb, yb float64) {
	if ya > yb {
		xa, ya, xb, yb = xb, yb, xa, ya
	}
	from, to := int(math.Ceil(ya-0.5)), int(math.Floor(yb-0.5))
	if ya == lo { // the rows above are looked at there
		from = first
	}
	if yb == hi {
		to = first + len(ends) - 1
	}
	for row := max(from, first); row <= min(to, first+len(ends)-1); row++ {
		y := min(max(float64(row)+0.5, lo), hi)
		if y < ya || y > yb {
			continue
		}
		e := &ends[row-first]
		x := xb
		if ya != yb {
			x = xa + (xb-xa)*(y-ya)/(yb-ya)
		} else {
			e[0], e[1] = min(e[0], xa), max(e[1], xa)
		}
		e[0], e[1] = min(e[0], x), max(e[1], x)
	}
}
