package fold

import (
	"cmp"
	"math"
	"slices"

	"brevium/core/sheet"
)

// A corner where creases meet inside the card can't be folded crease by
// crease: turn one and the others must follow. Halfway, the recipe says only
// how far each crease has come if it moved evenly; settle finds the angles
// nearest to those at which every such corner closes. Fully folded, nothing
// is mended: there the recipe's own angles are proved.

// crease is a score between two faces that both stay.
type crease struct {
	line  sheet.Line
	angle float64
	moves bool
}

// corner is a place inside the card: the creases that meet there, in turn, and
// the directions they run in on the flat card.
type corner struct {
	creases []*crease
	dirs    []Vec
}

// settle gives the angle of each crease when faces are folded so far.
func settle(p *sheet.Piece, tree, loops []hanging, done func(string) float64) func(hanging) float64 {
	twice := foldedTwice(p)
	part := func(name string, via float64) float64 {
		d := done(name)
		if via == 0 && twice[name] {
			return max(0, 2*d-1)
		}
		return d
	}
	plain := func(h hanging) float64 {
		if d := done(h.face.Name); d > 0.5 && d < 1 {
			if deg, ok := p.OnItsWay(h.face.Name, h.on.Name, 2*d-1); ok {
				return deg * math.Pi / 180
			}
		}
		return AngleAt(h.edge.Line, part(h.face.Name, h.edge.Via))
	}
	moving := func(f *sheet.Face) bool { d := done(f.Name); return d > 0 && d < 1 }
	if len(loops) == 0 || !slices.ContainsFunc(tree, func(h hanging) bool { return moving(h.face) }) {
		return plain
	}
	all := map[facePair]*crease{}
	for _, h := range tree {
		all[pair(h.face, h.on)] = &crease{h.edge.Line, plain(h), moving(h.face) || moving(h.on)}
	}
	for _, l := range loops {
		a, b := part(l.face.Name, l.edge.Via), part(l.on.Name, l.edge.Via)
		d := min(a, b)
		if l.edge.Via != 0 {
			d = max(a, b)
		}
		all[pair(l.face, l.on)] = &crease{l.edge.Line, AngleAt(l.edge.Line, d), moving(l.face) || moving(l.on)}
	}
	relax(corners(p, all))
	return func(h hanging) float64 { return all[pair(h.face, h.on)].angle }
}

func foldedTwice(p *sheet.Piece) map[string]bool {
	times, twice := map[string]int{}, map[string]bool{}
	for _, m := range p.Order {
		for _, name := range m.Faces {
			times[name]++
			twice[name] = times[name] > 1
		}
	}
	return twice
}

type facePair [2]*sheet.Face

func pair(a, b *sheet.Face) facePair {
	if a.Number > b.Number {
		a, b = b, a
	}
	return facePair{a, b}
}

// corners lists the places inside the card that creases close round.
func corners(p *sheet.Piece, all map[facePair]*crease) (out []corner) {
	at := map[sheet.Point]map[*crease]bool{}
	rim := map[sheet.Point]bool{}
	for _, f := range p.Kept() {
		for _, e := range f.Edges {
			for _, pt := range []sheet.Point{e.A, e.B} {
				if e.Kind.Open() || e.Beyond == nil || e.Beyond.Waste {
					rim[pt] = true
					continue
				}
				if at[pt] == nil {
					at[pt] = map[*crease]bool{}
				}
				at[pt][all[pair(f, e.Beyond)]] = true
			}
		}
	}
	for pt, meet := range at {
		c := corner{}
		moves := false
		for cr := range meet {
			to := cr.line.B
			if to == pt {
				to = cr.line.A
			}
			c.creases = append(c.creases, cr)
			c.dirs = append(c.dirs, Vec{(to.X - pt.X).MM(), -(to.Y - pt.Y).MM(), 0}.unit())
			moves = moves || cr.moves
		}
		if rim[pt] || !moves || len(c.creases) < 4 {
			continue
		}
		c.sort()
		out = append(out, c)
	}
	slices.SortFunc(out, func(a, b corner) int { // maps have no order, answers must
		return cmp.Or(cmp.Compare(a.creases[0].line.A.X, b.creases[0].line.A.X),
			cmp.Compare(a.creases[0].line.A.Y, b.creases[0].line.A.Y), cmp.Compare(a.dirs[0].X, b.dirs[0].X))
	})
	return out
}

// sort puts the creases in turn round the corner.
func (c *corner) sort() {
	turn := func(i int) float64 { return math.Atan2(c.dirs[i].Y, c.dirs[i].X) }
	for i := range c.dirs {
		for k := i; k > 0 && turn(k) < turn(k-1); k-- {
			c.dirs[k], c.dirs[k-1] = c.dirs[k-1], c.dirs[k]
			c.creases[k], c.creases[k-1] = c.creases[k-1], c.creases[k]
		}
	}
}

// relax moves the creases that move, as little as it can, until every corner
// closes: Newton's method with the least change.
func relax(corners []corner) {
	var free []*crease
	index := map[*crease]int{}
	for _, c := range corners {
		for _, cr := range c.creases {
			if _, known := index[cr]; cr.moves && !known {
				index[cr] = len(free)
				free = append(free, cr)
			}
		}
	}
	for range 30 {
		rows := make([][]float64, 0, 3*len(corners))
		var miss []float64
		worst := 0.0
		for _, c := range corners {
			open, axes := c.closure()
			for k := range 3 {
				row := make([]float64, len(free))
				for i, cr := range c.creases {
					if cr.moves {
						row[index[cr]] += axes[i].part(k)
					}
				}
				rows, miss = append(rows, row), append(miss, open.part(k))
				worst = max(worst, math.Abs(open.part(k)))
			}
		}
		if worst < 1e-7 {
			return
		}
		for i, d := range leastChange(rows, miss) {
			free[i].angle -= max(-0.3, min(0.3, d))
		}
	}
}

// closure follows the card once round the corner: what turn is left over, as
// an axis times an angle, and the axis of each crease as it stands in space.
func (c corner) closure() (open Vec, axes []Vec) {
	x, y, z := Vec{X: 1}, Vec{Y: 1}, Vec{Z: 1}
	place := func(d Vec) Vec { return x.Times(d.X).Add(y.Times(d.Y)).Add(z.Times(d.Z)) }
	for i, cr := range c.creases {
		axis := place(c.dirs[i])
		axes = append(axes, axis)
		x, y, z = x.turn(axis, cr.angle), y.turn(axis, cr.angle), z.turn(axis, cr.angle)
	}
	twist := Vec{y.Z - z.Y, z.X - x.Z, x.Y - y.X}
	angle := math.Acos(max(-1, min(1, (x.X+y.Y+z.Z-1)/2)))
	if s := twist.Len(); s > 1e-12 {
		return twist.Times(angle / s), axes
	}
	return Vec{}, axes
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
