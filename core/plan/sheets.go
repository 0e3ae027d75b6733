package plan

import (
	"fmt"
	"strings"

	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/sheet"
	"brevium/core/shop"
	"brevium/core/words"
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
}

// Mark is the same for sheets of the same card that are cut alike.
func (c Cut) Mark(s layout.Sheet) string {
	return fmt.Sprint(c.Card.ID, c.Sheet.Title, c.Offcut, s.Cuts, s.Placed)
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

// onSheet is a piece as it may lie on its sheet: not turned where its pattern has a
// way up, and along the grain where that is to be kept.
func (p *Request) onSheet(piece *sheet.Piece, copies int) layout.Piece {
	c := p.CardOf(piece.Stock)
	l := layout.Piece{Name: piece.Name, W: piece.Width, H: piece.Height, Count: piece.Count * copies, Upright: c.Directed(),
		Stock: c.ID}
	if runs := c.Runs(p.SheetOf(c)); p.KeepGrain && runs != "" && !l.Upright {
		l.Upright, l.Across = runs == wantsGrain(piece), runs != wantsGrain(piece)
	}
	return l
}

// wantsGrain gives the way the grain of a piece should run, as it is drawn: along
// the longer of its scores taken together, which fold cleanly only with it; of a
// piece without scores along its longer side.
func wantsGrain(p *sheet.Piece) string {
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

// byCard parts pieces by the card they are cut from, in the order in which the
// cards come.
func (p *Request) byCard(pieces []layout.Piece) (out [][]layout.Piece) {
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

// onSheets lays pieces on the sheets of their cards. Where the sheet is left to the
// plan, it is the one of which least card is cut.
func (p *Request) onSheets(pieces []layout.Piece) (out []Cut) {
	for _, of := range p.byCard(pieces) {
		card := p.CardOf(of[0].Stock)
		sheets := []shop.Sheet{p.SheetOf(card)}
		if p.Least {
			sheets = p.Comes(card)
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
		out = append(out, best)
	}
	return out
}

// lessThan says whether less card is cut up, no piece left over.
func (c Cut) lessThan(o Cut) bool {
	if a, b := len(c.TooBig), len(o.TooBig); a != b {
		return a < b
	}
	a, b := c.Sheet.Area()*float64(len(c.Sheets)), o.Sheet.Area()*float64(len(o.Sheets))
	return a < b-1 || a < b+1 && len(c.Sheets) < len(o.Sheets)
}

// SheetsSaid tells how many sheets of what are cut up.
func (p *Plan) SheetsSaid() string {
	var out []string
	for _, c := range p.Cuts {
		says := fmt.Sprintf("%s of %s", words.Count(len(c.Sheets), "sheet"), c.Sheet.Title)
		if p.cards() > 1 {
			says += " of " + c.Card.Title
		}
		out = append(out, says)
	}
	return strings.Join(out, "; and ")
}

// SheetsShort tells it in a line: of one card the size, of several how many.
func (p *Plan) SheetsShort(n int) string {
	if len(p.Cuts) == 1 {
		return fmt.Sprintf("%d of %s", n, p.Cuts[0].Sheet.Title)
	}
	if cards := p.cards(); cards > 1 {
		return fmt.Sprintf("%d sheets of %d cards", n, cards)
	}
	return fmt.Sprintf("%d sheets of %d sizes", n, len(p.Cuts))
}

// cards counts the cards that are cut.
func (p *Plan) cards() int {
	seen := map[string]bool{}
	for _, c := range p.Cuts {
		seen[c.Card.ID] = true
	}
	return len(seen)
}
