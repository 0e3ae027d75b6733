package fold

import "math"

func length(v []float64) float64 {
	sum := 0.0
	for _, x := range v {
		sum += x * x
	}
	return math.Sqrt(sum)
}

// leastSquares gives the change that brings slopes·change nearest to miss.
func leastSquares(slopes [][]float64, miss []float64) []float64 {
	n := len(slopes[0])
	m := make([][]float64, n)
	for i := range m {
		m[i] = make([]float64, n+1)
		for r, row := range slopes {
			for k := range n {
				m[i][k] += row[i] * row[k]
			}
			m[i][n] += row[i] * miss[r]
		}
		m[i][i] += 1e-9
	}
	return eliminate(m)
}

// leastChange solves rows·d = miss for the shortest d, gently where rows
// nearly depend on each other.
func leastChange(rows [][]float64, miss []float64) []float64 {
	n := len(rows)
	m := make([][]float64, n)
	for i := range rows {
		m[i] = make([]float64, n+1)
		for k := range rows {
			for j := range rows[i] {
				m[i][k] += rows[i][j] * rows[k][j]
			}
		}
		m[i][i] += 1e-6
		m[i][n] = miss[i]
	}
	y := eliminate(m)
	var out []float64
	if n > 0 {
		out = make([]float64, len(rows[0]))
	}
	for j := range out {
		for i := range rows {
			out[j] += rows[i][j] * y[i]
		}
	}
	return out
}

// eliminate solves a square system whose last column is its right side.
func eliminate(m [][]float64) []float64 {
	n := len(m)
	for c := range n {
		best := c
		for r := c; r < n; r++ {
			if math.Abs(m[r][c]) > math.Abs(m[best][c]) {
				best = r
			}
		}
		m[c], m[best] = m[best], m[c]
		for r := c + 1; r < n; r++ {
			by := m[r][c] / m[c][c]
			for k := c; k <= n; k++ {
				m[r][k] -= by * m[c][k]
			}
		}
	}
	y := make([]float64, n)
	for r := n - 1; r >= 0; r-- {
		y[r] = m[r][n]
		for k := r + 1; k < n; k++ {
			y[r] -= m[r][k] * y[k]
		}
		y[r] /= m[r][r]
	}
	return y
}
