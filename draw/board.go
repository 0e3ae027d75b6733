package draw

import (
	"fmt"
	"slices"

	"brevium/core/bench"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/draw/pen"
)

// Board draws a piece as it lies on the scoring board for one turn: the edge at the fence,
// which stands at the left or, where the board is numbered from the right, there; a ruler
// along it; the grooves to score now, those scored before fainter.
func Board(p *plan.Plan, card bench.ScoreCard, turn int) pen.Picture {
	const most, left, ruler = 230.0, 34.0, 24.0
	t := card.Turns[turn]
	w, h := card.W, card.H
	if t.Edge == "top" || t.Edge == "bottom" {
		w, h = h, w
	}
	k := most / max(card.W, card.H).MM()
	pw, ph := w.MM()*k, h.MM()*k
	rows, highest := numberRows(t, left, k, p)
	top := 30 + numberRow*float64(highest)
	high := max(card.W, card.H).MM()*k + top + 14
	b := board{Canvas: &pen.Canvas{}, left: left, wide: most, right: p.Tools.FromRight}
	b.upright("board", -8, top-6, most+16, high-top)
	b.grooves(p, top-6, high-6, k)
	b.ruler(p, high-6, ruler, k)
	b.upright("fence", -16, top-10, 10, high-top+4)
	piece := p.Box.Piece(card.Piece)
	b.upright("piece-edge", 0, top, pw, ph, "fill", p.CardOf(piece.Stock).Inside)
	for i, before := range card.Turns[:turn+1] {
		for n, m := range before.At {
			x1, y1, x2, y2 := ends(piece, before.Lines[n], t.Edge)
			if b.right { // turned half round, so that the edge lies there
				y1, y2 = h.MM()-y1, h.MM()-y2
			}
			x1, x2, y1, y2 = b.x(x1*k), b.x(x2*k), top+y1*k, top+y2*k
			if i < turn {
				b.Line("tick", x1, y1, x2, y2)
				continue
			}
			b.Group("data-link", Link(piece, before.Lines[n]))
			b.Line("groove", x1, y1, x2, y2)
			b.Line("groove-floor", x1, y1, x2, y2)
			up := top - 12 - numberRow*float64(rows[m.At])
			if n == 0 || before.At[n-1].At != m.At { // a score in two parts has its number once
				if rows[m.At] > 0 {
					b.Line("flag", x1, up+3, x1, top-6)
				}
				b.Text(x1, up, "flag-text", "middle", p.Step.Show(m.At).Text)
			}
			b.End()
		}
	}
	says := fmt.Sprintf("%s on the board, %s edge against the fence", card.Piece, t.Edge)
	return b.Canvas.Picture("board-turn", left+most+20, high+ruler, says)
}

// board is drawn from its fence, which may stand at either hand.
type board struct {
	*pen.Canvas
	left, wide float64
	right      bool
}

// x is how far from the left of the picture something so far from the fence is.
func (b board) x(from float64) float64 {
	if b.right {
		return b.left + b.wide - from
	}
	return b.left + from
}

func (b board) upright(class string, from, y, w, h float64, more ...any) {
	b.Rect(class, min(b.x(from), b.x(from+w)), y, w, h, more...)
}

func (b board) grooves(p *plan.Plan, top, bottom, k float64) {
	groove := p.Tools.Groove(p.Step.Size)
	for at := measure.Length(0); at.MM()*k <= b.wide; at += groove {
		if groove.MM()*k >= 3 {
			b.Line("board-groove", b.x(at.MM()*k), top, b.x(at.MM()*k), bottom)
		}
	}
}

// ruler is numbered from the fence, in the unit of the plan.
func (b board) ruler(p *plan.Plan, y, high, k float64) {
	b.upright("ruler", 0, y, b.wide, high-4)
	step, number := ticksAt(k, p.Step.Unit)
	for at := measure.Length(0); at.MM()*k <= b.wide; at += step {
		x, long := b.x(at.MM()*k), 4.0
		if at%number == 0 {
			long = 7
			if at > 0 && at.MM()*k < b.wide-8 {
				b.Text(x, y+17, "ruler-text", "middle", rulerNumber(at, p.Step.Unit))
			}
		}
		b.Line("tick", x, y, x, y+long)
	}
}

// numberRow is how much higher a number stands that has no room beside the one
// before it.
const numberRow = 20.0

// numberRows sets the numbers of a turn in rows, so that none stands on another.
func numberRows(t bench.Turn, left, k float64, p *plan.Plan) (rows map[measure.Length]int, highest int) {
	rows = map[measure.Length]int{}
	var ends []float64 // how far each row is taken
	at := make([]measure.Length, 0, len(t.At))
	for _, m := range t.At {
		at = append(at, m.At)
	}
	slices.Sort(at)
	for _, l := range slices.Compact(at) {
		mid, half := left+l.MM()*k, pen.Wide(p.Step.Show(l).Text, pen.SizeOf("flag-text"))/2+3
		row := 0
		for row < len(ends) && ends[row] > mid-half {
			row++
		}
		if row == len(ends) {
			ends = append(ends, 0)
		}
		ends[row] = mid + half
		rows[l], highest = row, max(highest, row)
	}
	return rows, highest
}

// ends gives a pass, in millimetres, on the piece turned so that an edge lies
// on the left.
func ends(p *net.Piece, pass net.Pass, edge string) (x1, y1, x2, y2 float64) {
	a, b := net.Point{X: pass.At, Y: pass.From}, net.Point{X: pass.At, Y: pass.To}
	if !pass.AlongWidth {
		a, b = net.Point{X: pass.From, Y: pass.At}, net.Point{X: pass.To, Y: pass.At}
	}
	turn := func(q net.Point) (x, y float64) {
		switch edge {
		case "top":
			return q.Y.MM(), (p.Width - q.X).MM()
		case "right":
			return (p.Width - q.X).MM(), (p.Height - q.Y).MM()
		case "bottom":
			return (p.Height - q.Y).MM(), q.X.MM()
		}
		return q.X.MM(), q.Y.MM()
	}
	x1, y1 = turn(a)
	x2, y2 = turn(b)
	return
}
