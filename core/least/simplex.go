package least

import (
	"math"

	"gonum.org/v1/gonum/mat"
)

// The programme's own simplex: as many rows as kinds, and columns that are made as they
// are wanted. It keeps the inverse of its basis, so a step costs what one pivot does. (The
// package's simplex works a whole programme out anew, and tells no duals.)

// column is what stands in the basis: a pattern by its number, or what takes up a rest.
type column struct{ of, row int }

const (
	slack   = -1
	leftOut = -2
)

// simplex is a basis with its inverse.
type simplex struct {
	m       int
	basis   []column
	costs   []float64 // of the basis
	b       []float64 // what is wanted
	x       []float64 // how much of each column
	inverse []float64 // m by m
	cols    [][]float64
	pivots  int
}

func (s *simplex) begin(m int) {
	s.m = m
	s.basis, s.costs, s.b, s.x = make([]column, m), make([]float64, m), make([]float64, m), make([]float64, m)
	s.inverse, s.cols = make([]float64, m*m), make([][]float64, m)
}

// set puts a column into the first basis that has an entry in its own row alone.
func (s *simplex) set(row int, c column, cost, entry, want float64) {
	s.basis[row], s.costs[row], s.b[row], s.x[row] = c, cost, want, want/entry
	s.inverse[row*s.m+row] = 1 / entry
	s.cols[row] = make([]float64, s.m)
	s.cols[row][row] = entry
}

// duals are what a unit of each row is worth.
func (s *simplex) duals() []float64 {
	y := make([]float64, s.m)
	for r, cost := range s.costs {
		if cost == 0 {
			continue
		}
		for j, v := range s.inverse[r*s.m : r*s.m+s.m] {
			y[j] += float64(cost * v)
		}
	}
	return y
}

// enter brings a column into the basis in place of the one that it uses up first; false when it can't.
func (s *simplex) enter(c column, cost float64, col []float64) bool {
	m := s.m
	d := make([]float64, m)
	for r := range m {
		for j, v := range s.inverse[r*m : r*m+m] {
			d[r] += float64(v * col[j])
		}
	}
	out, ratio := -1, math.Inf(1)
	for r, v := range d {
		if v > 1e-9 {
			if q := max(0, s.x[r]) / v; q < ratio-1e-12 || q < ratio+1e-12 && out >= 0 && v > d[out] {
				out, ratio = r, q
			}
		}
	}
	if out < 0 {
		return false
	}
	s.basis[out], s.costs[out], s.cols[out] = c, cost, col
	pivot := s.inverse[out*m : out*m+m]
	for j := range pivot {
		pivot[j] /= d[out]
	}
	for r := range m {
		if r == out || d[r] == 0 {
			continue
		}
		row := s.inverse[r*m : r*m+m]
		for j := range row {
			row[j] -= float64(d[r] * pivot[j])
		}
		s.x[r] -= float64(d[r] * ratio)
	}
	s.x[out] = ratio
	if s.pivots++; s.pivots%50 == 0 {
		return s.anew()
	}
	return true
}

// anew works the inverse out again, so that what rounding adds does not gather.
func (s *simplex) anew() bool {
	a := mat.NewDense(s.m, s.m, nil)
	for r, col := range s.cols {
		a.SetCol(r, col)
	}
	var inv mat.Dense
	if err := inv.Inverse(a); err != nil {
		return false
	}
	for r := range s.m {
		s.x[r] = 0
		for j := range s.m {
			v := inv.At(r, j)
			s.inverse[r*s.m+j] = v
			s.x[r] += float64(v * s.b[j])
		}
	}
	return true
}
