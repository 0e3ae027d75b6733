package least

import "slices"

// Stretching: a function that gives each side of a piece a share of the sheet's side, so that sides that lie side
// by side within the sheet have shares of no more than the whole (a dual-feasible function), keeps what can be cut
// from a sheet cuttable from it. So the areas of stretched pieces are a bound too, and often a far better one:
// pieces of more than half a side count whole, slivers not at all.
//
// Of a piece that may be turned the lesser of its two areas counts; on a square sheet
// the mean of both, since a layout turned over its diagonal is a layout too.

// stretches are the functions tried on a side of a sheet: for each, the share of a length. The three families are
// the usual ones: slivers are left out and what they lie beside counts whole; lengths are rounded to a multiple of
// a part of the side; a side is filled by multiples of a length.
func stretches(side int64, lengths []int64) (out []func(x int64) float64) {
	whole := float64(side)
	out = append(out, func(x int64) float64 { return float64(x) / whole })
	for _, k := range lengths {
		if k <= side/2 && k > 0 {
			out = append(out, func(x int64) float64 {
				switch {
				case x > side-k:
					return 1
				case x < k:
					return 0
				}
				return float64(x) / whole
			})
		}
	}
	for p := int64(1); p <= 12; p++ {
		out = append(out, func(x int64) float64 {
			if (p+1)*x%side == 0 {
				return float64(x) / whole
			}
			return float64((p+1)*x/side) / float64(p)
		})
	}
	for _, c := range lengths {
		if c <= 0 || c > side/2 {
			continue
		}
		n := side / c
		out = append(out, func(x int64) float64 {
			switch {
			case 2*x > side:
				return float64(n-(side-x)/c) / float64(n)
			case 2*x == side:
				return 0.5
			}
			return float64(x/c) / float64(n)
		})
	}
	return out
}

// mostLengths is how many of the lengths that occur the functions are made of.
const mostLengths = 60

// lengths are the sides that occur, and what is left of a sheet's side beside them.
func (p *problem) lengths(side int64) (out []int64) {
	for _, k := range p.kinds {
		for _, l := range []int64{k.w, k.h} {
			out = append(out, l, side-l, side-l+1)
		}
	}
	out = slices.DeleteFunc(out, func(l int64) bool { return l <= 0 || l > side/2 })
	slices.Sort(out)
	out = slices.Compact(out)
	if n := len(out); n > mostLengths {
		for i := range mostLengths {
			out[i] = out[i*n/mostLengths]
		}
		out = out[:mostLengths]
	}
	return out
}

// stretched is the most sheets of one size that stretched areas ask for.
func (p *problem) stretched(s size) (most float64) {
	fx := stretches(s.w, p.lengths(s.w))
	fy := fx
	square := s.w == s.h
	if !square {
		fy = stretches(s.h, p.lengths(s.h))
	}
	values := func(f func(int64) float64, side int) []float64 {
		var out []float64
		for _, k := range p.kinds {
			a, b := k.ways[0], k.ways[len(k.ways)-1]
			out = append(out, f(a[side]), f(b[side]))
		}
		return out
	}
	var xs, ys [][]float64
	for _, f := range fx {
		xs = append(xs, values(f, 0))
		if square {
			ys = append(ys, values(f, 1))
		}
	}
	if !square {
		for _, f := range fy {
			ys = append(ys, values(f, 1))
		}
	}
	for i, x := range xs {
		for j, y := range ys {
			if square && j < i {
				continue
			}
			sum := 0.0
			for k := range p.kinds {
				a, b := x[2*k]*y[2*k], x[2*k+1]*y[2*k+1]
				v := min(a, b)
				if square {
					v = (x[2*k]*y[2*k] + ys[i][2*k]*xs[j][2*k]) / 2
				}
				sum += v * float64(p.kinds[k].all())
			}
			most = max(most, sum)
		}
	}
	return most
}
