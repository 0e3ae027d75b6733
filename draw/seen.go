package draw

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
	covered := make([]bool, wide*high)
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
// half a pixel of it that were free: a sliver or an edge counts as seen.
func cover(covered []bool, wide, high int, xs, ys []float64) (free int) {
	lo, hi := math.Inf(1), math.Inf(-1)
	for _, y := range ys {
		lo, hi = min(lo, y), max(hi, y)
	}
	for row := max(0, int(lo-0.5)); row < high && float64(row) <= hi+0.5; row++ {
		y := min(max(float64(row)+0.5, lo), hi)
		left, right := math.Inf(1), math.Inf(-1)
		for i := range xs {
			k := (i + 1) % len(xs)
			a, b := ys[i], ys[k]
			if (a > y) == (b > y) && a != y && b != y {
				continue
			}
			x := xs[i]
			if a != b {
				x += (xs[k] - xs[i]) * (y - a) / (b - a)
			} else {
				left, right = min(left, xs[k]), max(right, xs[k])
			}
			left, right = min(left, x), max(right, x)
		}
		if left > right {
			continue
		}
		inside := float64(row)+0.5 >= lo && float64(row)+0.5 <= hi
		line := covered[row*wide : (row+1)*wide]
		for x := max(0, int(left-0.5)); x < wide && float64(x) <= right; x++ {
			if line[x] {
				continue
			}
			free++
			if at := float64(x) + 0.5; inside && at >= left && at <= right {
				line[x] = true
			}
		}
	}
	return free
}
