package machine

import "slices"

import "math"

// What was cut free moves: nothing may be worked on within it any more. What is free is found on
// a grid. Cuts wall its cells off from each other, in however many strokes a rim was cut and
// where the sheet's own edge is a part of it; the part that has most of the sheet's edge is held,
// and what no longer hangs together with it is free. The strokes are gone through from the last to the first, so that
// walls are only taken down and parts only grow together: all of it takes time by the size of
// the sheet and the length of the path.

// cell is how fine the grid is, in millimetres.
const cell = 0.5

// grid is the sheet in cells.
type grid struct {
	w, h  int
	walls []int32 // of each cell, how many cuts wall it off
	root  []int32 // of each cell, the next on the way to the one that stands for its part
	size  []int32 // how many cells a part has
	edge  []int32 // how many of them lie at the edge of the sheet
	held  int32   // the part with most of the edge
}

func newGrid(bed Bed) *grid {
	cells := func(size float64) int { return max(1, int(math.Ceil(size/cell-1e-9))) }
	g := &grid{w: cells(bed.W), h: cells(bed.H)} // what goes beyond the edge is cut along it
	n := g.w * g.h
	g.walls, g.root, g.size, g.edge = make([]int32, n), make([]int32, n), make([]int32, n), make([]int32, n)
	for i := range g.root {
		g.root[i], g.size[i] = int32(i), 1
		if x, y := i%g.w, i/g.w; x == 0 || y == 0 || x == g.w-1 || y == g.h-1 {
			g.edge[i] = 1
		}
	}
	return g
}

func (g *grid) at(p Point) int32 {
	x, y := min(max(0, int(p.X/cell)), g.w-1), min(max(0, int(p.Y/cell)), g.h-1)
	return int32(y*g.w + x)
}

// along gives the cells that a stroke goes through, one beside the other, never corner to corner.
func (g *grid) along(s Stroke, visit func(i int32)) {
	for k := 1; k < len(s.Points); k++ {
		a, b := s.Points[k-1], s.Points[k]
		n := int(math.Ceil(a.from(b)/(cell/4))) + 1
		last := g.at(a)
		visit(last)
		for i := 1; i <= n; i++ {
			t := float64(i) / float64(n)
			now := g.at(Point{a.X + t*(b.X-a.X), a.Y + t*(b.Y-a.Y)})
			if d := now - last; d != 0 && d != 1 && d != -1 && d != int32(g.w) && d != -int32(g.w) {
				visit(last/int32(g.w)*int32(g.w) + now%int32(g.w)) // the cell beside both
			}
			if now != last {
				visit(now)
			}
			last = now
		}
	}
}

func (g *grid) part(i int32) int32 {
	for g.root[i] != i {
		g.root[i] = g.root[g.root[i]]
		i = g.root[i]
	}
	return i
}

// open joins a cell that no cut walls off with those beside it.
func (g *grid) open(i int32) {
	w := int32(g.w)
	for _, o := range [4]int32{i - 1, i + 1, i - w, i + w} {
		if o < 0 || int(o) >= len(g.root) || (o == i-1 && i%w == 0) || (o == i+1 && o%w == 0) || g.walls[o] > 0 {
			continue
		}
		a, b := g.part(i), g.part(o)
		if a == b {
			continue
		}
		if g.size[a] < g.size[b] {
			a, b = b, a
		}
		g.root[b] = a
		g.size[a] += g.size[b]
		if g.edge[a] += g.edge[b]; g.edge[a] > g.edge[g.part(g.held)] {
			g.held = a
		}
	}
}

// loose finds a stroke that lies within what was cut free before it, and hangs together with
// none of its rim.
func (p Program) loose(bed Bed) (stroke int, found bool) {
	g := newGrid(bed)
	for _, s := range p.Strokes {
		if s.Tool == Knife {
			g.along(s, func(i int32) { g.walls[i]++ })
		}
	}
	for i := range g.root {
		if g.walls[i] == 0 {
			g.open(int32(i))
		}
	}
	for n, s := range slices.Backward(p.Strokes) {

		if s.Tool != Knife {
			continue
		}
		g.along(s, func(i int32) {
			if g.walls[i]--; g.walls[i] == 0 {
				g.open(i)
			}
		})
		if g.within(s) {
			stroke, found = n, true
		}
	}
	return stroke, found
}

// within reports whether all of a stroke lies in one part of the sheet that is not held,
// away from every cut. Slivers that two cuts leave between them are no part.
func (g *grid) within(s Stroke) bool {
	const sliver = 64
	in, free := int32(-1), true
	g.along(s, func(i int32) {
		of := g.part(i)
		if g.walls[i] > 0 || of == g.part(g.held) || g.size[of] < sliver || in >= 0 && in != of {
			free = false
		}
		in = of
	})
	return free && in >= 0
}
