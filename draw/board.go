package draw

import (
	"fmt"
	"slices"

	"brevium/core/bench"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/sheet"
)

// Board draws a piece as it lies on the scoring board for one turn: the edge
// at the fence on the left, the grooves to score now, those scored before
// fainter.
func Board(p *plan.Plan, card bench.ScoreCard, turn int) string {
	const most, left = 230.0, 34.0
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
	c := &canvas{}
	c.rect("board", left-8, top-6, most+16, high-top)
	groove := p.Tools.Groove(p.Step.Size)
	for at := measure.Length(0); at.MM()*k <= most; at += groove {
		if groove.MM()*k >= 3 {
			c.line("board-groove", left+at.MM()*k, top-6, left+at.MM()*k, high-6)
		}
	}
	c.rect("fence", left-16, top-10, 10, high-top+4)
	piece := p.Box.Piece(card.Piece)
	c.rect("piece-edge", left, top, pw, ph, "fill", p.CardOf(piece.Stock).Inside)
	for i, before := range card.Turns[:turn+1] {
		for n, m := range before.At {
			x1, y1, x2, y2 := ends(piece, before.Lines[n], t.Edge)
			x1, x2, y1, y2 = left+x1*k, left+x2*k, top+y1*k, top+y2*k
			if i < turn {
				c.line("tick", x1, y1, x2, y2)
				continue
			}
			c.group("data-link", Link(piece, before.Lines[n]))
			c.line("groove", x1, y1, x2, y2)
			c.line("groove-floor", x1, y1, x2, y2)
			up := top - 12 - numberRow*float64(rows[m.At])
			if n == 0 || before.At[n-1].At != m.At { // a score in two parts has its number once
				if rows[m.At] > 0 {
					c.line("flag", x1, up+3, x1, top-6)
				}
				c.text(x1, up, "flag-text", "middle", p.Step.Show(m.At).Text)
			}
			c.end()
		}
	}
	says := fmt.Sprintf("%s on the board, %s edge against the fence", card.Piece, t.Edge)
	return picture("board-turn", left+most+20, high, says, c)
}

// numberRow is how much higher a number stands that has no room beside the one
// before it.
const numberRow = 16.0

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
		mid, half := left+l.MM()*k, wide(p.Step.Show(l).Text, 13)/2+3
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
func ends(p *sheet.Piece, pass sheet.Pass, edge string) (x1, y1, x2, y2 float64) {
	a, b := sheet.Point{X: pass.At, Y: pass.From}, sheet.Point{X: pass.At, Y: pass.To}
	if !pass.AlongWidth {
		a, b = sheet.Point{X: pass.From, Y: pass.At}, sheet.Point{X: pass.To, Y: pass.At}
	}
	turn := func(q sheet.Point) (x, y float64) {
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
