package fold

import (
	"math"
	"slices"

	"brevium/core/net"
)

// Some angles no maker would state: how far roof slopes lean until they meet follows from their lengths. A recipe
// calls such an angle an unknown, shared by all creases that turn alike; here the unknowns are found at which the
// piece closes: creases that close loops come together, what is glued or tucked lies in the plane of what it lies
// on, walls that meet do.

// Solve finds the unknown angles of a found piece and writes them on its edges.
// What can't be closed is left as near as it came, for the proof to tell.
func Solve(whole *net.Piece) {
	p := whole.Facetted()
	n := len(p.Unknown)
	root := rootOf(p)
	if n == 0 || root == nil {
		return
	}
	tree, loops := hangings(p, root)
	angles := make([]float64, n)
	for i, guess := range p.Unknown {
		angles[i] = guess * math.Pi / 180
	}
	s := &solving{p: p, root: root, tree: tree, loops: loops}
	const fine = 1e-6
	miss := s.miss(angles)
	for range 40 {
		if length(miss) < 1e-9 {
			break
		}
		slopes := make([][]float64, len(miss))
		for i := range slopes {
			slopes[i] = make([]float64, n)
		}
		for k := range angles {
			moved := slices.Clone(angles)
			moved[k] += fine
			for i, m := range s.miss(moved) {
				slopes[i][k] = (m - miss[i]) / fine
			}
		}
		next := slices.Clone(angles)
		for k, d := range leastSquares(slopes, miss) {
			next[k] -= max(-0.3, min(0.3, d))
		}
		angles, miss = next, s.miss(next)
	}
	for _, f := range slices.Concat(whole.Faces, p.Faces) {
		for i := range f.Edges {
			if e := &f.Edges[i]; e.Free > 0 {
				e.Turn = angles[e.Free-1] * 180 / math.Pi
			}
		}
	}
}

// solving is a piece whose angles are looked for.
type solving struct {
	p           *net.Piece
	root        *net.Face
	tree, loops []hanging
}

// miss folds the piece by the angles and measures, in millimetres, what does not come together.
func (s *solving) miss(angles []float64) (out []float64) {
	at := func(e net.Edge) float64 {
		if e.Free > 0 {
			return angles[e.Free-1] * sign(e.Fold)
		}
		return Angle(e.Line)
	}
	frames := make([]Frame, len(s.p.Faces))
	frames[s.root.Number] = flat
	for _, h := range s.tree {
		frames[h.face.Number] = hinge(frames[h.on.Number], h.edge, at(h.edge))
	}
	for _, l := range s.loops {
		for _, pt := range []net.Point{l.edge.A, l.edge.B} {
			d := frames[l.face.Number].place(pt).Sub(frames[l.on.Number].place(pt))
			out = append(out, d.X, d.Y, d.Z)
		}
	}
	for _, g := range slices.Concat(s.p.Glues, s.p.Tucks) {
		face, on := s.p.Face(g.Face), s.p.Face(g.On)
		if face == nil || on == nil {
			continue
		}
		f, o := frames[face.Number], frames[on.Number]
		for _, pt := range face.Points[:3] {
			out = append(out, f.place(pt).Sub(o.At).Dot(o.In))
		}
	}
	for _, m := range s.p.Meets {
		if a, b := s.p.Face(m[0]), s.p.Face(m[1]); a != nil && b != nil {
			p := &Placed{Face: a, Frame: frames[a.Number]}
			q := &Placed{Face: b, Frame: frames[b.Number]}
			p.lay()
			q.lay()
			out = append(out, edgeGap(p, q))
		}
	}
	return out
}

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

// leastChange solves rows·d = miss for the shortest d, gently where rows nearly depend on each other.
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
