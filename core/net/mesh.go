package net

import (
	"math"
	"slices"
	"sync"
)

// mesh is the piece as a map: points, and edges between them that meet only
// at points. Faces are walked off it by turning the same way at every point.
type mesh struct {
	points []Point
	edges  []meshEdge
	latest []int               // of each point, the last edge joined to a later point, -1 for none
	cells  map[[2]Length][]int // the points by where they lie, when there are many
	workings
}

// workings is scratch memory. No face may point into it.
type workings struct {
	lines  []Line
	stops  [][]Point
	places []Point
	boxes  []upright
	pairs  []int
	walks  []half
	around [][]int
	turns  []int
}

var meshes = sync.Pool{New: func() any { return &mesh{} }}

// newMesh gives an empty mesh. Put it back into meshes when it is done with.
func newMesh() *mesh {
	m := meshes.Get().(*mesh)
	m.points, m.edges, m.latest, m.cells = m.points[:0], m.edges[:0], m.latest[:0], nil
	return m
}

// long returns of with length n, grown where it must be. Its old contents remain.
func long[T any](of []T, n int) []T { return slices.Grow(of[:0], n)[:n] }

type meshEdge struct {
	from, to int
	line     Line
	before   int // the edge joined before it at the same point
	gone     bool
}

// split breaks lines wherever one meets another and joins what coincides. A
// cut along a score wins: the maker scores the whole length, then cuts.
func (m *mesh) split(lines []Line) {
	// Few lines are met more than four times: one piece of memory serves most.
	m.stops, m.places = long(m.stops, len(lines)), long(m.places, 6*len(lines))
	stops := m.stops
	for i, l := range lines {
		stops[i] = append(m.places[6*i:6*i:6*i+6], l.A, l.B)
	}
	m.meeting(lines)
	for _, pair := range m.pairs {
		i, j := pair/len(lines), pair%len(lines)
		a, b := lines[i], lines[j]
		for _, e := range [...]Point{b.A, b.B} {
			if onLine(a, e) {
				stops[i] = append(stops[i], e)
			}
		}
		for _, e := range [...]Point{a.A, a.B} {
			if onLine(b, e) {
				stops[j] = append(stops[j], e)
			}
		}
		if x, ok := crossing(a, b); ok {
			stops[i], stops[j] = append(stops[i], x), append(stops[j], x)
		}
	}
	m.edges = slices.Grow(m.edges, 2*len(lines))
	for i, l := range lines {
		slices.SortFunc(stops[i], func(p, q Point) int {
			d := (p.X-q.X)*sign(l.B.X-l.A.X) + (p.Y-q.Y)*sign(l.B.Y-l.A.Y)
			return int(sign(d))
		})
		for k := 1; k < len(stops[i]); k++ {
			m.join(m.point(stops[i][k-1]), m.point(stops[i][k]), l)
		}
	}
}

func (m *mesh) join(from, to int, l Line) {
	if from == to {
		return
	}
	for len(m.latest) < len(m.points) {
		m.latest = append(m.latest, -1)
	}
	latest := &m.latest[min(from, to)]
	for k := *latest; k >= 0; k = m.edges[k].before {
		if e := &m.edges[k]; max(e.from, e.to) == max(from, to) {
			if l.Kind > e.line.Kind {
				e.line = l
			}
			return
		}
	}
	m.edges = append(m.edges, meshEdge{from: from, to: to, line: l, before: *latest})
	*latest = len(m.edges) - 1
}

// few is up to how many points are looked through one by one; of more, only those that lie near are.
const few = 96

// point gives the number of a point, which may be there already.
func (m *mesh) point(p Point) int {
	same := func(q Point) bool {
		dx, dy := p.X-q.X, p.Y-q.Y
		return -near <= dx && dx <= near && -near <= dy && dy <= near
	}
	if len(m.points) < few {
		for i, q := range m.points {
			if same(q) {
				return i
			}
		}
		m.points = append(m.points, p)
		return len(m.points) - 1
	}
	if m.cells == nil {
		m.cells = map[[2]Length][]int{}
		for i, q := range m.points {
			at := cellOf(q)
			m.cells[at] = append(m.cells[at], i)
		}
	}
	found, at := -1, cellOf(p)
	for dx := Length(-1); dx <= 1; dx++ {
		for dy := Length(-1); dy <= 1; dy++ {
			for _, i := range m.cells[[2]Length{at[0] + dx, at[1] + dy}] {
				if same(m.points[i]) && (found < 0 || i < found) {
					found = i
				}
			}
		}
	}
	if found >= 0 {
		return found
	}
	m.points = append(m.points, p)
	m.cells[at] = append(m.cells[at], len(m.points)-1)
	return len(m.points) - 1
}

// cellOf is the square of a net of squares, much wider than points are near, in which a point lies.
func cellOf(p Point) [2]Length {
	const wide = 16 * near
	return [2]Length{p.X.Down(wide) / wide, p.Y.Down(wide) / wide}
}

// prune takes out edges that end in the middle of card, and returns them.
func (m *mesh) prune() (loose []meshEdge) {
	for {
		degree := make([]int, len(m.points))
		for _, e := range m.edges {
			if !e.gone {
				degree[e.from]++
				degree[e.to]++
			}
		}
		found := false
		for i := range m.edges {
			e := &m.edges[i]
			if !e.gone && (degree[e.from] == 1 || degree[e.to] == 1) {
				e.gone, found = true, true
				loose = append(loose, *e)
			}
		}
		if !found {
			return loose
		}
	}
}

// half is an edge walked one way.
type half struct {
	edge     int
	from, to int
	angle    float64
	next     int
	loop     int
}

func (m *mesh) halves() []half {
	hs := slices.Grow(m.walks[:0], 2*len(m.edges))
	for i, e := range m.edges {
		if e.gone {
			continue
		}
		hs = append(hs, half{edge: i, from: e.from, to: e.to, loop: -1}, half{edge: i, from: e.to, to: e.from, loop: -1})
	}
	// Few points have more than four edges: one piece of memory serves most.
	m.walks, m.around, m.turns = hs, long(m.around, len(m.points)), long(m.turns, 4*len(m.points))
	around := m.around
	for i := range around {
		around[i] = m.turns[4*i : 4*i : 4*i+4]
	}
	for i := range hs {
		a, b := m.points[hs[i].from], m.points[hs[i].to]
		hs[i].angle = math.Atan2(float64(b.Y-a.Y), float64(b.X-a.X))
		around[hs[i].from] = append(around[hs[i].from], i)
	}
	for _, out := range around {
		slices.SortFunc(out, func(i, j int) int {
			if hs[i].angle < hs[j].angle {
				return -1
			}
			return 1
		})
		for k, i := range out {
			// Coming in along i's twin, turn on to the neighbour of i.
			hs[i^1].next = out[(k+len(out)-1)%len(out)]
		}
	}
	return hs
}

// faces walks the loops. A loop that runs the one way round bounds a face, the other way round is the rim of a
// whole component: the outside of the piece, or of something that lies in a hole of a face.
func (m *mesh) faces() []*Face {
	hs := m.halves()
	var faces []*Face
	var rims [][]Point
	points, edges := make([]Point, len(hs)), make([]Edge, len(hs)) // of all of them
	for i := range hs {
		if hs[i].loop >= 0 {
			continue
		}
		n := 0
		for k := i; n == 0 || k != i; k = hs[k].next {
			n++
		}
		f := &Face{Points: points[:0:n], Edges: edges[:0:n]}
		points, edges = points[n:], edges[n:]
		for k := i; hs[k].loop < 0; k = hs[k].next {
			hs[k].loop = len(faces)
			f.Points = append(f.Points, m.points[hs[k].from])
			l := m.edges[hs[k].edge].line
			l.A, l.B = m.points[hs[k].from], m.points[hs[k].to]
			f.Edges = append(f.Edges, Edge{Line: l})
		}
		if area(f.Points) <= 0 {
			rims = append(rims, f.Points)
			f.Points = nil
		}
		faces = append(faces, f)
	}
	m.link(hs, faces)
	faces = slices.DeleteFunc(faces, func(f *Face) bool { return f.Points == nil })
	areas := make([]float64, len(faces))
	for i, f := range faces {
		areas[i] = math.Abs(area(f.Points))
	}
	for _, rim := range rims {
		if f := around(faces, areas, rim); f != nil {
			f.Holes = append(f.Holes, rim)
		}
	}
	return faces
}

func (m *mesh) link(hs []half, faces []*Face) {
	for i := range hs {
		f := faces[hs[i].loop]
		if other := faces[hs[i^1].loop]; other.Points != nil && other != f {
			for k := range f.Edges {
				if f.Edges[k].A == m.points[hs[i].from] && f.Edges[k].B == m.points[hs[i].to] {
					f.Edges[k].Beyond = other
				}
			}
		}
	}
}

// around finds the smallest face that wholly holds a rim.
func around(faces []*Face, areas []float64, rim []Point) *Face {
	best, size := -1, math.Abs(area(rim))+1e-6
	for i, f := range faces {
		if areas[i] > size && (best < 0 || areas[i] < areas[best]) && Inside(f.Points, rim[0]) {
			best = i
		}
	}
	if best < 0 {
		return nil
	}
	return faces[best]
}
