// Package cutting says what is cut: of each piece of a box its blanks (halves and a strip, where it is
// larger than its sheet; runs of layers; a spare where it is formed on the box), from which card, and on
// which sheets they lie, by quick rules or by a search for the least.
package cutting

import (
	"maps"
	"slices"

	"brevium/core/dress"
	"brevium/core/layout"
	"brevium/core/least"
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

// HasSheets reports whether every piece fits the sheet of its card, or all fit one of the sheets the box's card
// comes in.
func (t *Table) HasSheets(w request.Workshop) bool {
	return t.TakesAll(t.SheetOf(t.Card)) || slices.ContainsFunc(w.SheetsOf(t.Card), t.TakesAll)
}

// TakesAll reports whether every piece fits a sheet of that size, or the sheet of its own card.
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

// How the sheets are to be cut, and the search for the least of them. A plan is laid by
// quick rules; the search is a call of its own.

// Task is what of one card is to be cut. Offcuts come first among its sheets.
type Task struct {
	least.Task
	Card  shop.Card
	sizes []shop.Sheet // of each of its sheets
	kept  []string     // the offcut that each is, "" for none
}

// Tasks are what is to be cut, a card each, in the order of Cuts.
func (t *Table) Tasks() (out []Task) {
	for _, of := range ByCard(t.ToLay(t.Box, t.Copies)) {
		card := t.CardOf(of[0].Stock)
		sheets := []shop.Sheet{t.SheetOf(card)}
		if t.Cutting.Any || t.Least {
			sheets = t.Comes(card)
		}
		out = append(out, taskOf(t.Request, t.Cutting, card, sheets, of))
	}
	return out
}

// taskOf is what is to be cut of a card, from some of its sheets, as it is asked for.
func taskOf(q *request.Request, ask request.Cutting, card shop.Card, sheets []shop.Sheet, pieces []layout.Piece) Task {
	t := Task{Card: card}
	t.Aim, t.Tie, t.Work, t.Longest = ask.Aim, ask.Tie, least.Quick, q.Tools.Cuts
	if ask.Deep {
		t.Work = least.Deep
	}
	if ask.Offcuts {
		for _, o := range q.Kept() {
			if o.Card == card.ID {
				t.add(least.Size{Name: "offcut " + q.Say(o.Width) + " × " + q.Say(o.Height), W: o.Width, H: o.Height, Count: 1,
					Offcut: true}, shop.Sheet{Title: "a kept offcut", Width: o.Width, Height: o.Height}, o.ID)
			}
		}
	}
	for _, s := range sheets {
		t.add(least.Size{Name: s.Title, W: s.Width, H: s.Height, Margin: ask.Margin, Count: least.Unlimited,
			Price: card.Cost(s, 1)}, s, "")
	}
	if t.Aim == least.Cost && !slices.ContainsFunc(t.Sheets, func(s least.Size) bool { return s.Price > 0 }) {
		t.Aim = least.Card // nobody knows its price
	}
	for _, piece := range pieces {
		piece.Stock = ""
		t.Pieces = append(t.Pieces, least.Piece{Piece: piece})
	}
	for _, pin := range ask.Pins {
		i := slices.IndexFunc(t.Pieces, func(p least.Piece) bool { return p.Name == pin.Piece })
		size := slices.IndexFunc(t.sizes, func(s shop.Sheet) bool { return s.ID == pin.Size && pin.Size != "" })
		if size < 0 {
			size = len(t.Sheets) - len(sheets)
		}
		if i >= 0 {
			t.Pins = append(t.Pins, least.Pin{Piece: i, Sheet: pin.Sheet, Size: size, At: pin.At, Turned: pin.Turned})
		}
	}
	return t
}

func (t *Task) add(s least.Size, of shop.Sheet, kept string) {
	t.Sheets, t.sizes, t.kept = append(t.Sheets, s), append(t.sizes, of), append(t.kept, kept)
}

// Solve looks for the least of one card. It says so where a knife must do what the trimmer is too short for, and
// where pins that can't be were left out.
func (t Task) Solve(watch least.Watch) (r least.Result, says string) {
	r, err := least.Solve(t.Task, watch)
	if err != nil && len(t.Pins) > 0 {
		t.Pins, says = nil, err.Error()
		r, err = least.Solve(t.Task, watch)
	}
	if err != nil || len(r.TooBig) > 0 && t.Longest > 0 {
		t.Longest = 0
		with, fine := least.Solve(t.Task, watch)
		if fine == nil && (err != nil || len(with.TooBig) < len(r.TooBig)) {
			r = with
		}
	}
	return r, says
}
