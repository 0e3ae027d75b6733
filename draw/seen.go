package draw

import (
	"math"

	"brevium/core/fold"
)

// seen gives, of polygons in the order they are painted, those of which
// something shows at the picture's size. It goes from the nearest to the
// farthest over the points of the picture, a point to a pixel.
func seen(painted []poly, place func(fold.Vec) (x, y float64), w, h float64) []poly {
	wide, high := int(math.Ceil(w)), int(math.Ceil(h))
	covered := make([]bool, wide*high)
	keep := make([]bool, len(painted))
	var xs, ys []float64
	for i := len(painted) - 1; i >= 0; i-- {
		xs, ys = xs[:0], ys[:0]
		for _, p := range painted[i].points {
			x, y := place(p)
			xs, ys = append(xs, x), append(ys, y)
		}
		keep[i] = cover(covered, wide, high, xs, ys)
	}
	out := painted[:0]
	for i, p := range painted {
		if keep[i] {
			out = append(out, p)
		}
	}
	return out
}

// cover marks the points that a convex outline holds, and says whether any
// within half a pixel of it was free: a sliver or an edge counts as seen.
func cover(covered []bool, wide, high int, xs, ys []float64) (free bool) {
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
			free = true
			if at := float64(x) + 0.5; inside && at >= left && at <= right {
				line[x] = true
			}
		}
	}
	return free
}
