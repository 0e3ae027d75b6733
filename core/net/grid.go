package net

import (
	"fmt"
	"slices"
	"strings"
)

// grid remembers the cells of a picture, for what is shaped within them.
type grid struct {
	xs, ys []Length   // boundaries, from 0 to the size of the piece
	cells  [][]string // by row, then column
	slitV  [][]bool   // [row][i]: the boundary right of column i is slit
	slitH  [][]bool   // [i][column]: the boundary below row i is slit
}

// Cols and Rows list the widths between boundaries, in order.
func Cols(l ...Length) []Length { return l }

// Rows is Cols for heights.
func Rows(l ...Length) []Length { return l }

// Grid makes a piece from a picture of its cells:
//
//	tab | back  | tab
//	left  base    right
//	tab | front | tab
//
// A blank between two cells is a score, "|" a slit, "." is card cut away, and neighbours of one name are one face.
// Between two rows of cells a line of "-" (slit) and "~" (score), one a column, says otherwise than all scores.
func Grid(name string, cols, rows []Length, picture string) *Piece {
	g := &grid{xs: edges(cols), ys: edges(rows)}
	p := New(name, g.xs[len(cols)], g.ys[len(rows)])
	p.grid = g
	g.slitH = make([][]bool, len(rows))
	for i := range g.slitH {
		g.slitH[i] = make([]bool, len(cols))
	}
	for line := range strings.SplitSeq(strings.TrimSpace(picture), "\n") {
		fields := strings.Fields(line)
		if strings.Trim(line, "-~ \t") == "" {
			for c, f := range fields {
				if c < len(cols) && len(g.cells) > 0 {
					g.slitH[len(g.cells)-1][c] = f == "-"
				}
			}
			continue
		}
		var row []string
		slits := make([]bool, len(cols))
		for _, f := range fields {
			if f != "|" {
				row = append(row, f)
			} else if n := len(row); n > 0 && n <= len(cols) {
				slits[n-1] = true
			}
		}
		if len(row) != len(cols) {
			p.fault("the picture of %s has a row of %d cells for %d columns", name, len(row), len(cols))
			return p
		}
		g.cells, g.slitV = append(g.cells, row), append(g.slitV, slits)
	}
	if len(g.cells) != len(rows) {
		p.fault("the picture of %s has %d rows of cells for %d rows", name, len(g.cells), len(rows))
		return p
	}
	g.dropEmpty()
	finder{p}.drawGrid()
	return p
}

// dropEmpty takes out columns and rows of no size, so that one picture serves where a measure may come to nothing.
func (g *grid) dropEmpty() {
	for c := len(g.xs) - 2; c >= 0; c-- {
		if g.xs[c] != g.xs[c+1] || len(g.xs) == 2 {
			continue
		}
		g.xs = slices.Delete(g.xs, c, c+1)
		for r := range g.cells {
			if c > 0 {
				g.slitV[r][c-1] = g.slitV[r][c-1] || g.slitV[r][c]
			}
			g.cells[r], g.slitV[r] = slices.Delete(g.cells[r], c, c+1), slices.Delete(g.slitV[r], c, c+1)
			g.slitH[r] = slices.Delete(g.slitH[r], c, c+1)
		}
	}
	for r := len(g.ys) - 2; r >= 0; r-- {
		if g.ys[r] == g.ys[r+1] && len(g.ys) > 2 {
			g.ys = slices.Delete(g.ys, r, r+1)
			g.cells, g.slitV, g.slitH = slices.Delete(g.cells, r, r+1), slices.Delete(g.slitV, r, r+1),
				slices.Delete(g.slitH, r, r+1)
		}
	}
}

func edges(sizes []Length) []Length {
	out := []Length{0}
	for _, s := range sizes {
		out = append(out, out[len(out)-1]+s)
	}
	return out
}

// drawGrid turns cells into passes, cuts and labels.
func (p finder) drawGrid() {
	g := p.grid
	rows, cols := len(g.cells), len(g.cells[0])
	p.labels, p.Lines = make([]label, 0, 2*rows*cols), make([]Line, 0, 5*rows*cols)
	for r, row := range g.cells {
		for c, name := range row {
			mid := Point{(g.xs[c] + g.xs[c+1]) / 2, (g.ys[r] + g.ys[r+1]) / 2}
			p.Label(mid, name)
		}
	}
	for c := 0; c+1 < cols; c++ {
		p.boundary(true, g.xs[c+1], g.ys, func(r int) (string, string, bool) {
			return g.cells[r][c], g.cells[r][c+1], g.slitV[r][c]
		})
	}
	for r := 0; r+1 < rows; r++ {
		p.boundary(false, g.ys[r+1], g.xs, func(c int) (string, string, bool) {
			return g.cells[r][c], g.cells[r+1][c], g.slitH[r][c]
		})
	}
}

// boundary scores one line of the grid, wherever cells differ, and cuts along
// its slits and beside what is cut away.
func (p finder) boundary(alongWidth bool, at Length, ends []Length, cell func(int) (string, string, bool)) {
	from, scored := -1, false
	flush := func(to int) {
		if from >= 0 && scored {
			p.pass(alongWidth, at, ends[from], ends[to], Valley)
		}
		from, scored = -1, false
	}
	for i := 0; i+1 < len(ends); i++ {
		a, b, slit := cell(i)
		if a == b && !slit && a != waste {
			flush(i)
			continue
		}
		if from < 0 {
			from = i
		}
		if slit || (a == waste) != (b == waste) {
			p.CutAlong(on(alongWidth, at, ends[i]), on(alongWidth, at, ends[i+1]))
			if slit && a != waste && b != waste {
				p.Slits = append(p.Slits, p.Lines[len(p.Lines)-1])
			}
		} else if a != waste {
			scored = true
		}
	}
	flush(len(ends) - 1)
}

// pass scores a straight line and names it.
func (d *Drawing) pass(alongWidth bool, at, from, to Length, fold Fold) {
	letter := "h"
	if alongWidth {
		letter = "v"
	}
	names := map[string]bool{}
	name := ""
	for _, q := range d.Passes {
		if q.AlongWidth == alongWidth {
			if names[q.Name] = true; q.At == at {
				name = q.Name // a score in two parts
			}
		}
	}
	if name == "" {
		name = fmt.Sprintf("%s%d", letter, len(names)+1)
	}
	d.Passes = append(d.Passes, Pass{alongWidth, at, from, to, fold, name})
	d.Lines = append(d.Lines, Line{Kind: Score, Fold: fold, A: on(alongWidth, at, from), B: on(alongWidth, at, to), Turn: 90})
}

func on(alongWidth bool, at, along Length) Point {
	if alongWidth {
		return Point{at, along}
	}
	return Point{along, at}
}

// cell finds the cells of a face by its name: the first, and the one past the last, row and column.
func (p *Piece) cell(name string) (r, c, rows, cols int, ok bool) {
	if p.grid != nil {
		for i, row := range p.grid.cells {
			for k, n := range row {
				if n != name {
					continue
				}
				if !ok {
					r, c, ok = i, k, true
				}
				c, rows, cols = min(c, k), i+1, max(cols, k+1)
			}
		}
	}
	if !ok {
		p.fault("%s has no cell %q", p.Name, name)
	}
	return r, c, rows, cols, ok
}

// Loop is a strip round four sides, so deep and so high, its lap out of sight under
// the first. Its sides follow each other down the drawing or, level, to the right.
func Loop(name string, round [4]string, wide, deep, high, lap, t Length, level bool) *Piece {
	p := loop(name, round, wide, [5]Length{deep, high, deep, high, lap}, t, level)
	p.Seam("lap", round[3], round[0])
	return p
}

// LoopMiddle is Loop with its lap in the middle of the first side, of which the strip's two ends cover a
// part each: it gives how far the first end reaches, from where it hangs on the second side.
func LoopMiddle(name string, round [4]string, wide, deep, high, lap, t, step Length, level bool) (p *Piece, reach Length) {
	reach = ((deep + lap) / 2).Up(step)
	p = loop(name, round, wide, [5]Length{reach, high, deep, high, deep + lap - reach}, t, level)
	p.GlueLapped("lap", round[0], 1)
	return p, reach
}

func loop(name string, round [4]string, wide Length, sides [5]Length, t Length, level bool) *Piece {
	p := Grid(name, []Length{wide}, sides[:], strings.Join(round[:], "\n")+"\nlap")
	if level {
		p = Grid(name, sides[:], []Length{wide}, strings.Join(round[:], " ")+" lap")
	}
	p.Part, p.Root = Band, round[0]
	p.Tab("lap", round[3], TabShape{Reach: sides[4], Relief: t})
	p.Role("lap", "lap")
	p.FoldUp(round[1], round[2], round[3], "lap")
	return p
}
