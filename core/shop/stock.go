// Package shop is what this maker owns and knows: card by weight and caliper, the
// sheets it is sold in, what it is stuck with, and how a lid is liked to fit.
// The makes and prices are made up.
package shop

import (
	"brevium/core/measure"
)

// Card is a kind of card. Price is for a square metre, in hundredths of the
// maker's coin.
type Card struct {
	ID, Title string
	GSM       int
	Caliper   measure.Length
	Colour    string // of the outside, as #rrggbb
	Inside    string // of the inside
	Pattern   string // printed on the outside: "" for plain, "sprigs" or "stripes"
	Ink       string // the colour it is printed in
	Price     int64
}

// Directed says whether the card is printed with something that has an up and a
// down, so that its pieces must not be turned on the sheet.
func (c Card) Directed() bool { return c.Pattern != "" }

// Sheet is a size card comes in.
type Sheet struct {
	ID, Title     string
	Width, Height measure.Length
}

const micron = measure.Millimetre / 1000

// Shelf is what a workshop has to cut from.
type Shelf struct {
	Cards  []Card
	Sheets []Sheet
}

// Default is the shelf Brevium comes with.
var Default = Shelf{
	Cards: []Card{
		{ID: "cover-216", Title: "Cover, oat, 216 gsm (80 lb)", GSM: 216, Caliper: 270 * micron,
			Colour: "#e9dcc0", Inside: "#f3ead6", Price: 190},
		{ID: "light-160", Title: "Light, fog, 160 gsm", GSM: 160, Caliper: 200 * micron, Colour: "#cfd8d6",
			Inside: "#dde4e2", Price: 140},
		{ID: "cover-270", Title: "Heavy cover, tansy, 270 gsm (100 lb)", GSM: 270, Caliper: 340 * micron,
			Colour: "#e8c24a", Inside: "#f4e7b8", Price: 260},
		{ID: "kraft-300", Title: "Kraft, 300 gsm", GSM: 300, Caliper: 400 * micron, Colour: "#b98f62", Inside: "#c7a077",
			Price: 170},
		{ID: "duplex-350", Title: "Duplex, moss and cream, 350 gsm", GSM: 350, Caliper: 450 * micron,
			Colour: "#7d8f5a", Inside: "#f2ecd9", Price: 340},
		{ID: "sprig-220", Title: "Sprigs on linen, 220 gsm", GSM: 220, Caliper: 280 * micron, Colour: "#efe6d2",
			Inside: "#f7f2e6", Pattern: "sprigs", Ink: "#7a8f4e", Price: 310},
		{ID: "stripe-220", Title: "Shed stripes, 220 gsm", GSM: 220, Caliper: 280 * micron, Colour: "#e8e3da",
			Inside: "#f4f1ea", Pattern: "stripes", Ink: "#8a4b3a", Price: 310},
	},
	Sheets: []Sheet{
		{"12x12", "12 × 12 in", 12 * measure.Inch, 12 * measure.Inch},
		{"8.5x11", "8½ × 11 in", 17 * measure.Inch / 2, 11 * measure.Inch},
		{"a4", "A4, 210 × 297 mm", 210 * measure.Millimetre, 297 * measure.Millimetre},
		{"a3", "A3, 297 × 420 mm", 297 * measure.Millimetre, 420 * measure.Millimetre},
		{"8x8", "8 × 8 in pad", 8 * measure.Inch, 8 * measure.Inch},
		{"6x6", "6 × 6 in pad", 6 * measure.Inch, 6 * measure.Inch},
	},
}

// Card finds a card by its name.
func (s Shelf) Card(id string) (Card, bool) {
	for _, c := range s.Cards {
		if c.ID == id {
			return c, true
		}
	}
	return Card{}, false
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

// Takes says whether a piece lies within the sheet, turned if need be and if it
// need not stay upright.
func (t Sheet) Takes(w, h measure.Length, upright bool) bool {
	return w <= t.Width && h <= t.Height || !upright && h <= t.Width && w <= t.Height
}

// Cost gives the price of sheets of a size, in hundredths.
func (c Card) Cost(t Sheet, sheets int) int64 {
	area := t.Width.MM() * t.Height.MM() / 1e6
	return int64(area*float64(c.Price)*float64(sheets) + 0.5)
}
