// Package cutting says what is cut: of each piece of a box its blanks (halves and a strip, where it is
// larger than its sheet; runs of layers; a spare where it is formed on the box), from which card, and on
// which sheets they lie, by quick rules or by a search for the least.
package cutting

import (
	"maps"
	"slices"

	"brevium/core/dress"
	"brevium/core/layout"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/core/style"
)

// Table is a box on the cutting table: what was asked for, and what was built. A box that is only drafted has no
// faces yet and is not dressed.
type Table struct {
	*request.Request
	Box     *style.Box
	Dressed *dress.Dressed            // what goes on, in and round it; nil when that is nothing
	usual   map[string][]dress.Stands // how the panels of each piece stand, where the card has a way up
}

// NewTable begins with what was asked for.
func NewTable(q *request.Request) Table {
	t := Table{Request: q}
	if q.Card.Directed() || slices.ContainsFunc(slices.Collect(maps.Values(q.Stocks)), shop.Card.Directed) {
		t.usual = t.sample()
	}
	return t
}

// Pieces counts what is cut for one box.
func (t *Table) Pieces() (n int) {
	for _, piece := range t.ToLay(t.Box, 1) {
		n += piece.Count
	}
	return n
}

// HasSheets reports whether every piece lies on the sheet of its card, or all on one of those the
// box's card comes in.
func (t *Table) HasSheets(w request.Workshop) bool {
	return t.TakesAll(t.SheetOf(t.Card)) || slices.ContainsFunc(w.SheetsOf(t.Card), t.TakesAll)
}

// TakesAll reports whether every piece lies on a sheet of a size, or on its own card's.
func (t *Table) TakesAll(s shop.Sheet) bool {
	long := map[string]bool{} // what may be made of two, if need be
	for _, piece := range t.Box.Pieces() {
		long[piece.Name] = t.joins(piece)
	}
	return !slices.ContainsFunc(t.ToLay(t.Box, 1), func(l layout.Piece) bool {
		if long[l.Name] {
			return false
		}
		on := s
		if c := t.CardOf(l.Stock); c.ID != t.Card.ID && len(c.Sheets) > 0 {
			on = t.SheetOf(c)
		}
		return !l.Lies(on.Width, on.Height)
	})
}
