package fold

import (
	"cmp"
	"math"
	"slices"

	"brevium/core/net"
)

// A corner where creases meet inside the card can't be folded crease by crease: turn one and the others must
// follow. Halfway, the recipe says only how far each crease has come if it moved evenly; settle finds the angles
// nearest to those at which every such corner closes. Fully folded, nothing is mended: there the recipe's own
// angles are proved.

// crease is a score between two faces that both stay.
type crease struct {
	line  net.Line
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
func settle(p *net.Piece, tree, loops []hanging, done func(string) float64) func(hanging) float64 {
	s := &settling{p: p, tree: tree, loops: loops, twice: foldedTwice(p)}
	all := s.even(done)
	if len(loops) > 0 && slices.ContainsFunc(tree, func(h hanging) bool { return moves(done(h.face.Name)) }) {
		relax(corners(p, all))
		if off := s.astray(all, done); off > far {
			if again := s.back(done); s.astray(again, done) < off {
				all = again
			}
		}
	}
	return func(h hanging) float64 { return all[pair(h.face, h.on)].angle }
}

// settling is a piece whose folding angles are looked for.
type settling struct {
	p           *net.Piece
	tree, loops []hanging
	twice       map[string]bool
}

type creases map[facePair]*crease

func moves(done float64) bool { return done > 0 && done < 1 }

// even returns the angle of each crease if all of them turned at an even pace.
func (s *settling) even(done func(string) float64) creases {
	part := func(name string, via float64) float64 {
		d := done(name)
		if via == 0 && s.twice[name] {
			return max(0, 2*d-1)
		}
		return d
	}
	all := creases{}
	for _, h := range s.tree {
		angle := AngleAt(h.edge.Line, part(h.face.Name, h.edge.Via))
		if d := done(h.face.Name); d > 0.5 && d < 1 {
			if deg, ok := s.p.OnItsWay(h.face.Name, h.on.Name, 2*d-1); ok {
				angle = deg * math.Pi / 180
			}
		}
		all[pair(h.face, h.on)] = &crease{h.edge.Line, angle, moves(done(h.face.Name)) || moves(done(h.on.Name))}
	}
	for _, l := range s.loops {
		a, b := part(l.face.Name, l.edge.Via), part(l.on.Name, l.edge.Via)
		d := min(a, b)
		if l.edge.Via != 0 {
			d = max(a, b)
		}
		all[pair(l.face, l.on)] = &crease{l.edge.Line, AngleAt(l.edge.Line, d), moves(done(l.face.Name)) || moves(done(l.on.Name))}
	}
	return all
}

// far is the angle, in radians, between a crease and its even pace beyond which the corners have
// probably closed in a way the piece never folds: rolled up, say, with its gussets flat.
const far = 1

// astray returns the greatest angle, in radians, between a crease and its even pace.
func (s *settling) astray(all creases, done func(string) float64) (worst float64) {
	for at, even := range s.even(done) {
		worst = max(worst, math.Abs(all[at].angle-even.angle))
	}
	return worst
}

// back starts with the folded piece, whose angles are known, and unfolds it in small steps. Each
// step starts from the angles of the one before, so the creases stay on the way the piece folds.
func (s *settling) back(done func(string) float64) creases {
	const steps = 12
	left := func(k int) func(string) float64 {
		return func(name string) float64 {
			d := done(name)
			if !moves(d) {
				return d
			}
			end := 1.0
			if s.twice[name] && d <= 0.5 {
				end = 0.5
			}
			return end + (d-end)*float64(k)/steps
		}
	}
	before := s.even(left(0))
	settled := before
	for k := 1; k <= steps; k++ {
		even := s.even(left(k))
		now := creases{}
		for at, c := range even {
			now[at] = &crease{c.line, settled[at].angle + c.angle - before[at].angle, c.moves}
		}
		relax(corners(s.p, now))
		before, settled = even, now
	}
	return settled
}

func foldedTwice(p *net.Piece) map[string]bool {
	times, twice := map[string]int{}, map[string]bool{}
	for _, m := range p.Order {
		for _, name := range m.Faces {
			times[name]++
			twice[name] = times[name] > 1
		}
	}
	return twice
}

type facePair [2]*net.Face

func pair(a, b *net.Face) facePair {
	if a.Number > b.Number {
		a, b = b, a
	}
	return facePair{a, b}
}

// corners lists the places inside the card that creases close round.
func corners(p *net.Piece, all creases) (out []corner) {
	at := map[net.Point]map[*crease]bool{}
	rim := map[net.Point]bool{}
	for _, f := range p.Kept() {
		for _, e := range f.Edges {
			for _, pt := range []net.Point{e.A, e.B} {
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
