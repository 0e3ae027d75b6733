package cutting

import (
	"fmt"
	"strconv"

	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/shop"
)

// What is cut from which card, and from which of its sheets.

// Cut is what is cut of one card.
type Cut struct {
	layout.Layout
	Card   shop.Card
	Sheet  shop.Sheet
	Offcut bool   // it was in hand
	Kept   string // which of the shop's
	Each   int64  // the price of a sheet, where no card tells it
	Proved bool   // no arrangement takes less
}

// Mark is the same for sheets of the same card that are cut alike.
func (c Cut) Mark(s layout.Sheet) string {
	b := fmt.Appendf(make([]byte, 0, 128+64*len(s.Cuts)+96*len(s.Placed)), "%q %q %v", c.Card.ID, c.Sheet.Title, c.Offcut)
	add := func(r layout.Rect, more ...layout.Length) {
		for _, l := range append(more, r.X, r.Y, r.W, r.H) {
			b = strconv.AppendInt(append(b, ' '), int64(l), 10)
		}
	}
	for _, cut := range s.Cuts {
		b = strconv.AppendBool(append(b, ' '), cut.Down)
		add(cut.In, cut.At)
	}
	for _, p := range s.Placed {
		b = fmt.Appendf(b, " %q %v %v %d", p.Piece, p.Turned, p.Pinned, p.Of)
		add(p.Rect)
	}
	return string(b)
}

// Cost is what the sheets cost that are bought for it, in hundredths.
func (c Cut) Cost() int64 {
	switch {
	case c.Offcut:
		return 0
	case c.Each > 0:
		return c.Each * int64(len(c.Sheets))
	}
	return c.Card.Cost(c.Sheet, len(c.Sheets))
}

// OnSheet is a piece as it may lie on its sheet: not turned where its pattern has a
// way up, and along the grain where that is to be kept.
func (t *Table) OnSheet(piece *net.Piece, copies int) layout.Piece {
	c := t.CardOf(piece.Stock)
	l := layout.Piece{Name: piece.Name, W: piece.Width, H: piece.Height, Count: piece.Count * copies, Upright: c.Directed(),
		Stock: c.ID}
	if runs := c.Runs(t.SheetOf(c)); t.KeepGrain && runs != "" && !l.Upright {
		l.Upright, l.Across = runs == WantsGrain(piece), runs != WantsGrain(piece)
	}
	return l
}

// WantsGrain gives the way the grain of a piece should run, as it is drawn: along the longer of its scores taken
// together, which fold cleanly only with it; of a piece without scores along its longer side.
func WantsGrain(p *net.Piece) string {
	down, across := measure.Length(0), measure.Length(0)
	for _, s := range p.Passes {
		if s.AlongWidth {
			down += s.To - s.From
		} else {
			across += s.To - s.From
		}
	}
	if down == across {
		down, across = p.Height, p.Width
	}
	if down >= across {
		return "height"
	}
	return "width"
}

// ByCard parts pieces by the card they are cut from, in the order in which the cards come.
func ByCard(pieces []layout.Piece) (out [][]layout.Piece) {
	at := map[string]int{}
	for _, l := range pieces {
		i, known := at[l.Stock]
		if !known {
			i, at[l.Stock], out = len(out), len(out), append(out, nil)
		}
		out[i] = append(out[i], l)
	}
	return out
}

// OnSheets lays pieces on the sheets of their cards. Where the sheet is left to the
// plan, it is the one of which least card is cut.
func (t *Table) OnSheets(pieces []layout.Piece) (out []Cut) {
	for _, of := range ByCard(pieces) {
		card := t.CardOf(of[0].Stock)
		sheets := []shop.Sheet{t.SheetOf(card)}
		if t.Least {
			sheets = t.Comes(card)
		}
		var best Cut
		for i, s := range sheets {
			c := Cut{Layout: layout.Fit(of, s.Width, s.Height), Card: card, Sheet: s}
			if i == 0 || c.lessThan(best) {
				best = c
			}
		}
		for i := range best.Sheets {
			best.Sheets[i].Stock, best.Sheets[i].Title = card.ID, best.Sheet.Title
		}
		best.Proved = len(best.TooBig) == 0 && len(best.Sheets) <= best.Bound
		out = append(out, best)
	}
	return out
}

// lessThan reports whether less card is cut up, no piece left over.
func (c Cut) lessThan(o Cut) bool {
	if a, b := len(c.TooBig), len(o.TooBig); a != b {
		return a < b
	}
	a, b := c.Sheet.Area()*float64(len(c.Sheets)), o.Sheet.Area()*float64(len(o.Sheets))
	return a < b-1 || a < b+1 && len(c.Sheets) < len(o.Sheets)
}
