package shop

import (
	"fmt"
	"io"

	"brevium/core/lists"
	"brevium/core/measure"
	"brevium/core/words"
)

// Need is so many sheets of a size that are to be cut up.
type Need struct {
	Card  Card
	Sheet Sheet
	Count int
}

// Buy is what is missing for it: sheets, and packs where the card is sold by the pack.
type Buy struct {
	Need
	Hand  int // of these sheets, as far as they were counted
	Short int
	Packs int   // 0 where it is sold by the sheet
	Over  int   // sheets of the packs that are left
	Price int64 // in hundredths, 0 when it is not known
}

// Shopping lists what is needed, with what of it is missing.
func Shopping(needs []Need) (out []Buy) {
	for _, n := range needs {
		b := Buy{Need: n, Short: n.Count}
		if n.Card.Hand > 0 && n.Card.First().Same(n.Sheet) {
			b.Hand = n.Card.Hand
			b.Short = max(0, n.Count-b.Hand)
		}
		buys := b.Short
		if p := n.Card.Pack; p > 0 {
			b.Packs = (b.Short + p - 1) / p
			buys = b.Packs * p
			b.Over = buys - b.Short
		}
		b.Price = n.Card.Cost(n.Sheet, buys)
		out = append(out, b)
	}
	return out
}

// First is the size of which the sheets in hand are counted.
func (c Card) First() Sheet {
	if len(c.Sheets) > 0 {
		return c.Sheets[0]
	}
	return Sheets[0]
}

// BuyColumns are the headings of a shopping list.
var BuyColumns = []string{"card", "sheet", "needed", "in hand", "missing", "packs", "left of the packs", "price"}

// WriteShopping writes a shopping list as CSV.
func WriteShopping(w io.Writer, all []Buy) error {
	var rows [][]string
	for _, b := range all {
		price := ""
		if b.Price > 0 {
			price = words.Coins(b.Price)
		}
		rows = append(rows, []string{b.Card.Title, b.Sheet.Title, fmt.Sprint(b.Count), fmt.Sprint(b.Hand), fmt.Sprint(b.Short),
			fmt.Sprint(b.Packs), fmt.Sprint(b.Over), price})
	}
	return lists.Write(w, BuyColumns, rows)
}

// KeptColumns are the headings of the list of what is in hand.
var KeptColumns = []string{"card", "width", "height", "count", "from"}

// WriteStash writes what is in hand as CSV: counted sheets, and kept offcuts.
func (s *Shop) WriteStash(w io.Writer, unit measure.Unit) error {
	var rows [][]string
	for _, c := range s.Cards {
		if c.Hand > 0 {
			on := c.First()
			rows = append(rows, []string{c.Title, on.Width.Exact(unit), on.Height.Exact(unit), fmt.Sprint(c.Hand), "whole sheets"})
		}
	}
	for _, o := range s.Offcuts {
		title := o.Card
		if c, ok := s.Card(o.Card); ok {
			title = c.Title
		}
		rows = append(rows, []string{title, o.Width.Exact(unit), o.Height.Exact(unit), "1", o.From})
	}
	return lists.Write(w, KeptColumns, rows)
}
