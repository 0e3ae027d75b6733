package draw

import (
	"cmp"
	"math"
	"slices"

	"brevium/core/measure"
	"brevium/core/net"
	"brevium/draw/pen"
)

// Every score and slot has its figure beside the rulers, on a leader. Where there is no room for all in one row, they
// stand in several; the leaders of the outer rows go between the figures of the inner ones.

const (
	flagRow  = 20.0            // a row of figures above a piece
	flagUp   = rulerHigh + 6.0 // from a piece to the figures above it
	flagAway = rulerWide + 6.0 // and to those at its left
	flagPass = 6.0             // what a leader takes between two figures
	flagFar  = 36.0            // how far a figure stands aside before another row is better
	mostRows = 4
)

// flag is what has a figure beside a ruler: how far along it, and the mark that ties it to its line.
type flag struct {
	at         measure.Length
	text, link string
}

// flagsOf are those of a piece along its width or its height, from near to far.
func flagsOf(step measure.Step, p *net.Piece, alongWidth bool) (out []flag) {
	for _, pass := range sorted(p.Passes) {
		if pass.AlongWidth == alongWidth {
			out = append(out, flag{pass.At, step.Show(pass.At).Text, Link(p, pass)})
		}
	}
	if alongWidth {
		for _, s := range p.Slots {
			out = append(out, flag{s.X, step.Show(s.X).Text, ""})
		}
	}
	slices.SortStableFunc(out, func(a, b flag) int { return cmp.Compare(a.at, b.at) })
	return slices.CompactFunc(out, func(a, b flag) bool { return a.at == b.at && (a.link == b.link || b.link == "") })
}

// rowed are figures in their rows: where each stands along the ruler, and where its leader goes through the rows
// within its own.
type rowed struct {
	flag
	row  int
	at   float64 // its middle
	pass []float64
}

// inRows sets figures in rows so long, at k pixels a millimetre; each takes its room of the row.
func inRows(all []flag, rows int, k, low, high float64, takes func(flag) float64) (out []rowed, ok bool) {
	at, fits, moved := make([]float64, len(all)), true, 0.0
	out = make([]rowed, len(all))
	for i, f := range all {
		out[i] = rowed{flag: f, row: i % rows}
		at[i] = f.at.MM() * k
	}
	for row := range rows {
		var here []int
		var want, size []float64
		for i, f := range out {
			if f.row < row {
				continue
			}
			here, want = append(here, i), append(want, at[i])
			if f.row == row {
				size = append(size, takes(f.flag))
			} else {
				size = append(size, flagPass)
			}
		}
		set, ok := pen.Spread(want, size, low, high)
		fits = fits && ok
		for n, i := range here {
			moved = max(moved, math.Abs(set[n]-at[i]))
			if at[i] = set[n]; out[i].row > row {
				out[i].pass = append(out[i].pass, at[i])
			}
			out[i].at = at[i]
		}
	}
	return out, fits && moved <= flagFar
}

func figureWide(f flag) float64 { return pen.Wide(f.text, pen.SizeOf("flag-text")) + 6 }
func figureHigh(flag) float64   { return pen.SizeOf("flag-text") + 3 }

// margins are the room round every piece of a picture: rulers and rows of figures above and left, sizes below and right.
type margins struct {
	left, right, top float64
	above, beside    int     // rows of figures
	column           float64 // how wide a row beside the pieces is
}

const marginBottom = 40.0

// marginsFor finds the fewest rows in which the figures of all pieces fit, at the scale that those rows leave.
func marginsFor(step measure.Step, pieces []*net.Piece, w, h float64) (m margins, k float64, columns int) {
	m.above, m.beside = 1, 1
	for _, p := range pieces {
		m.right = max(m.right, pen.Wide(step.Show(p.Height).Text, pen.SizeOf("figure"))+26)
		for _, f := range flagsOf(step, p, false) {
			m.column = max(m.column, figureWide(f))
		}
	}
	for {
		m.top = flagUp + flagRow*float64(m.above) + 22
		m.left = flagAway + max(24, m.column*float64(m.beside)) + 4
		k, columns = m.arrange(pieces, w, h)
		tight := func(flags func(measure.Step, *net.Piece, float64) ([]rowed, bool)) bool {
			return slices.ContainsFunc(pieces, func(p *net.Piece) bool { _, ok := flags(step, p, k); return !ok })
		}
		switch {
		case m.above < mostRows && tight(m.flagsAbove):
			m.above++
		case m.beside < mostRows && tight(m.flagsBeside):
			m.beside++
		default:
			return m, k, columns
		}
	}
}

// flagsAbove are the figures above a piece, measured from its left edge; they may stand over the margins.
func (m margins) flagsAbove(step measure.Step, p *net.Piece, k float64) ([]rowed, bool) {
	return inRows(flagsOf(step, p, true), m.above, k, 4-m.left, p.Width.MM()*k+m.right-4, figureWide)
}

// flagsBeside are those at its left, measured from its top edge.
func (m margins) flagsBeside(step measure.Step, p *net.Piece, k float64) ([]rowed, bool) {
	return inRows(flagsOf(step, p, false), m.beside, k, -flagUp, p.Height.MM()*k+marginBottom-4, figureHigh)
}

// flags writes the figures and draws their leaders.
func (f flat) flags() {
	above, _ := f.flagsAbove(f.p.Step, f.piece, f.k)
	for _, g := range above {
		row := func(n int) float64 { return f.y - flagUp - flagRow*float64(n) } // where it begins, from below
		x := f.x + g.flag.at.MM()*f.k
		f.Group("data-link", g.link, "class", "flags")
		way := [][2]float64{{x, f.y}, {x, row(0) + 2}}
		for n, at := range g.pass {
			way = append(way, [2]float64{f.x + at, row(n) - 1}, [2]float64{f.x + at, row(n+1) + 2})
		}
		f.leader(append(way, [2]float64{f.x + g.at, row(g.row) - 1}))
		f.Place(g.text, "flag-text", pen.At(f.x+g.at, row(g.row)-4, "middle", false))
		f.End()
	}
	beside, _ := f.flagsBeside(f.p.Step, f.piece, f.k)
	for _, g := range beside {
		row := func(n int) float64 { return f.x - flagAway - f.column*float64(n) }
		y := f.y + g.flag.at.MM()*f.k
		f.Group("data-link", g.link, "class", "flags")
		way := [][2]float64{{f.x, y}, {row(0) + 2, y}}
		for n, at := range g.pass {
			way = append(way, [2]float64{row(n) - 1, f.y + at}, [2]float64{row(n+1) + 2, f.y + at})
		}
		f.leader(append(way, [2]float64{row(g.row) - 1, f.y + g.at}))
		f.Place(g.text, "flag-text", pen.At(row(g.row)-4, f.y+g.at+5.5, "end", false))
		f.End()
	}
}

// leader draws a line through points, from the first on.
func (f flat) leader(through [][2]float64) {
	var way pen.Path
	for _, at := range through {
		way = append(way, pen.Seg{Do: 'L', X: at[0], Y: at[1]})
	}
	way[0].Do = 'M'
	f.Tag("path", "class", "flag", "d", way)
}

// sorted gives the scores from near to far, one in two parts once.
func sorted(passes []net.Pass) []net.Pass {
	out := slices.Clone(passes)
	slices.SortStableFunc(out, func(a, b net.Pass) int { return cmp.Compare(a.At, b.At) })
	return slices.CompactFunc(out, func(a, b net.Pass) bool { return a.Name == b.Name })
}
