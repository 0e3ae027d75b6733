package fold

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

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
	tree, loops := hangings(root, len(p.Faces))
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

func length(v []float64) float64 { return mat.Norm(mat.NewVecDense(len(v), v), 2) }

// leastSquares gives the change that brings slopes·change nearest to miss.
func leastSquares(slopes [][]float64, miss []float64) []float64 {
	a := dense(slopes)
	var normal mat.Dense
	normal.Mul(a.T(), a)
	var right, out mat.VecDense
	right.MulVec(a.T(), mat.NewVecDense(len(miss), miss))
	return solved(&normal, 1e-9, &right, &out)
}

// leastChange solves rows·d = miss for the shortest d, gently where rows nearly depend on each other.
func leastChange(rows [][]float64, miss []float64) []float64 {
	if len(rows) == 0 {
		return nil
	}
	a := dense(rows)
	var square mat.Dense
	square.Mul(a, a.T())
	var y, out mat.VecDense
	solved(&square, 1e-6, mat.NewVecDense(len(miss), miss), &y)
	out.MulVec(a.T(), &y)
	return out.RawVector().Data
}

func dense(rows [][]float64) *mat.Dense {
	a := mat.NewDense(len(rows), len(rows[0]), nil)
	for i, row := range rows {
		a.SetRow(i, row)
	}
	return a
}

// solved solves a square system, so much added to its diagonal to keep it from being singular.
func solved(a *mat.Dense, gentle float64, right, out *mat.VecDense) []float64 {
	n, _ := a.Dims()
	for i := range n {
		a.Set(i, i, a.At(i, i)+gentle)
	}
	_ = out.SolveVec(a, right) // a poor condition is all it could say
	return out.RawVector().Data
}
