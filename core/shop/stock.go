// Package shop is what this maker owns and knows: card and paper, offcuts, tools
// and what they can set, adhesives, house habits, and how lids were found to fit.
// A shop is a document like a box's, read once; what ships is made up.
package shop

import (
	"fmt"
	"io"
	"math"
	"strings"

	"brevium/core/lists"
	"brevium/core/measure"
	"brevium/core/words"
)

type Length = measure.Length

// Card is a kind of card or paper. Each is the price, in hundredths of the maker's
// coin, of a sheet of so many square millimetres.
type Card struct {
	ID, Title string
	Kind      string // card, paper or specialty
	GSM       int
	Caliper   Length
	Estimated bool    // nothing was measured: of weight and bulk
	Grain     string  // long or short, "" when nobody knows
	Colour    string  // of the outside, as #rrggbb
	Inside    string  // of the inside
	Pattern   string  // printed on the outside: "" for plain, or a motif
	Motif     string  // that it would be
	Up        bool    // it has a way up
	Ink       string  // the colour it is printed in
	Repeat    Length  // of the pattern; 0 is 24 mm
	Sheets    []Sheet // it comes in; none for all on the shelf
	Bought
}

// Bought is what a card costs, and what of it is there.
type Bought struct {
	Each    int64
	Per     float64
	Hand    int // sheets of the first size in hand; -1 when not counted
	Pack    int // sheets in a pack; 0 when nobody knows
	Retired bool
}

// Directed reports whether the card is printed with something that has an up and a
// down, so that its pieces must not be turned on the sheet.
func (c Card) Directed() bool { return c.Up && c.Pattern != "" }

// Runs gives the side of a sheet the grain runs along: "height", "width", or "".
func (c Card) Runs(s Sheet) string {
	switch {
	case c.Grain == "":
		return ""
	case (c.Grain == "long") == (s.Height >= s.Width):
		return "height"
	}
	return "width"
}

// Sheet is a size card comes in.
type Sheet struct {
	ID, Title     string
	Width, Height Length
}

// Same reports whether two sheets are of one size.
func (t Sheet) Same(o Sheet) bool { return t.Width == o.Width && t.Height == o.Height }

// Area is in square millimetres.
func (t Sheet) Area() float64 { return t.Width.MM() * t.Height.MM() }

// Shelf is what a workshop has to cut from.
type Shelf struct {
	Cards  []Card
	Sheets []Sheet
	looked *Looked // notes what is looked at; nil where nobody asks
}

// Sheets are the sizes card is sold in.
var Sheets = []Sheet{
	{"12x12", "12 × 12 in", 12 * measure.Inch, 12 * measure.Inch},
	{"8.5x11", "8½ × 11 in", 17 * measure.Inch / 2, 11 * measure.Inch},
	{"a4", "A4, 210 × 297 mm", 210 * measure.Millimetre, 297 * measure.Millimetre},
	{"a3", "A3, 297 × 420 mm", 297 * measure.Millimetre, 420 * measure.Millimetre},
	{"8x8", "8 × 8 in pad", 8 * measure.Inch, 8 * measure.Inch},
	{"6x6", "6 × 6 in pad", 6 * measure.Inch, 6 * measure.Inch},
	{"30x30", "30 × 30 cm", 300 * measure.Millimetre, 300 * measure.Millimetre},
}

// Card finds a card by its name.
func (s Shelf) Card(id string) (Card, bool) {
	s.looked.note(oneCard + gap + id)
	for i := range s.Cards {
		if s.Cards[i].ID == id {
			return s.Cards[i], true
		}
	}
	return Card{}, false
}

// Offered are the cards to choose from: those that are not retired.
func (s Shelf) Offered() (out []Card) {
	s.looked.note(allCards)
	for _, c := range s.Cards {
		if !c.Retired {
			out = append(out, c)
		}
	}
	return out
}

// Sheet finds a sheet by its name.
func (s Shelf) Sheet(id string) (Sheet, bool) {
	for _, t := range s.Sheets {
		if t.ID == id {
			return t, true
		}
	}
	return Sheet{}, false
}

// The smallest and the largest side of a sheet.
const leastSheet, mostSheet = 50 * measure.Millimetre, 1200 * measure.Millimetre

// AnySheet is Sheet for a size of the maker's own too: "300 x 400 mm".
func (s Shelf) AnySheet(text string, unit measure.Unit) (Sheet, error) {
	if t, ok := s.Sheet(strings.ToLower(strings.TrimSpace(text))); ok {
		return t, nil
	}
	if t, ok := paper(text); ok {
		return t, nil
	}
	if side, square := strings.CutSuffix(strings.ToLower(strings.TrimSpace(text)), " square"); square {
		text = side + " x " + side
	}
	w, h, own, err := measure.ParsePair(text, unit)
	if bare := err == nil && measure.Suffix(text) == ""; bare && min(w, h) < leastSheet && unit.Metric() {
		w, h, own, err = measure.ParsePair(text, measure.Inches) // 8 1/2 x 11 is nothing in millimetres
	}
	if err != nil {
		return Sheet{}, fmt.Errorf("%q isn't a sheet size. Write it like 12x12, A4, 30 x 30 cm or 300 x 400 mm", text)
	}
	for _, side := range []Length{w, h} {
		if side < leastSheet || side > mostSheet {
			return Sheet{}, fmt.Errorf("%s isn't a usual sheet. Sheets are 6 x 6 to 12 x 12 in, A4 or A3, and each "+
				"side is 50 to 1200 mm", strings.TrimSpace(text))
		}
	}
	size := func(l Length) string { return strings.TrimSuffix(l.Exact(own), " "+string(own)) }
	return Sheet{ID: fmt.Sprintf("%s x %s", size(w), h.Exact(own)), Title: fmt.Sprintf("%s × %s", size(w), h.Exact(own)),
		Width: w, Height: h}, nil
}

// paper finds letter paper and a sheet of the A sizes by its name: each is half the one before, A0 being 841 by
// 1189 mm.
func paper(name string) (Sheet, bool) {
	name = strings.ToUpper(strings.Join(strings.Fields(name), ""))
	if name == "LETTER" {
		return Shelf{Sheets: Sheets}.Sheet("8.5x11")
	}
	if len(name) != 2 || name[0] != 'A' || name[1] < '1' || name[1] > '6' {
		return Sheet{}, false
	}
	w, h := 841*measure.Millimetre, 1189*measure.Millimetre
	for range name[1] - '0' {
		w, h = (h / 2).Down(measure.Millimetre), w
	}
	return Sheet{ID: strings.ToLower(name), Title: fmt.Sprintf("%s, %d × %d mm", name, w/measure.Millimetre, h/measure.Millimetre),
		Width: w, Height: h}, true
}

// Comes lists the sheets a card comes in.
func (s Shelf) Comes(c Card) []Sheet {
	if len(c.Sheets) > 0 {
		return c.Sheets
	}
	return s.Sheets
}

// Cost gives the price of sheets of a size, in hundredths: as much more or less as
// they are larger or smaller than those the price is for.
func (c Card) Cost(t Sheet, sheets int) int64 {
	if c.Per <= 0 {
		return 0
	}
	return int64(math.Floor(float64(c.Each)*t.Area()/c.Per*float64(sheets) + 0.5))
}

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
var BuyColumns = []string{"card", "sheet", "needed", "in hand", "missing", "packs", "left in packs", "price"}

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
	for _, o := range s.offcuts {
		title := o.Card
		if c, ok := s.Card(o.Card); ok {
			title = c.Title
		}
		rows = append(rows, []string{title, o.Width.Exact(unit), o.Height.Exact(unit), "1", o.From})
	}
	return lists.Write(w, KeptColumns, rows)
}
