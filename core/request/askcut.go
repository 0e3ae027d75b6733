package request

import (
	"fmt"
	"slices"

	"brevium/core/brief"
	"brevium/core/layout"
	"brevium/core/least"
	"brevium/core/measure"
)

// Cutting is what a document says of its sheets.
type Cutting struct {
	Asked   bool
	Aim     least.Aim
	Tie     least.Tie
	Deep    bool
	Any     bool // of the sizes its card comes in
	Offcuts bool
	Margin  measure.Length
	Pins    []Pin
}

// Pin holds a piece on a sheet of its card, from 0.
type Pin struct {
	Piece  string
	Sheet  int
	Size   string // which sheet that is, the one chosen when it is not said
	At     layout.Spot
	Turned bool
}

// The answers to how sheets are cut, in the order of least's.
var (
	Aims  = []string{"sheets", "cost", "card"}
	Ties  = []string{"offcut", "stops"}
	Looks = []string{"quick", "deep"}
	Sizes = []string{"one", "any"}
)

// mostMargin is the widest margin a sheet may have.
const mostMargin = 50 * measure.Millimetre

// ReadCutting reads what a document says of its sheets; what can't be read is left out.
func ReadCutting(b brief.Brief) Cutting {
	d := &door{Request: &Request{Brief: b}, r: brief.NewReader(&b)}
	d.readCutting()
	return d.Cutting
}

func (d *door) readCutting() {
	s, c := d.Brief.Sheets, &d.Cutting
	c.Asked = s.Asked()
	c.Aim, c.Tie = least.Aim(among(d.r, "sheets.aim", s.Aim, Aims)), least.Tie(among(d.r, "sheets.among-equals", s.Tie, Ties))
	c.Deep, c.Any = among(d.r, "sheets.look", s.Look, Looks) == 1, among(d.r, "sheets.sizes", s.Sizes, Sizes) == 1
	c.Offcuts = d.r.Flag("sheets.offcuts", s.Offcuts, false)
	if s.Margin != "" {
		if c.Margin, _ = d.r.LengthOrNone("sheets.margin", s.Margin); c.Margin > mostMargin {
			d.r.Problem("sheets.margin", "A margin of "+d.r.Say(c.Margin)+" is too wide.", "Most printers leave 3 to 6 mm.",
				"sheets.margin", "")
		}
	}
	for i, p := range s.Pins {
		field := fmt.Sprintf("sheets.pins.%d.", i)
		x, _ := d.r.LengthOrNone(field+"x", p.X)
		y, _ := d.r.LengthOrNone(field+"y", p.Y)
		n, _ := d.r.Count(field+"sheet", p.Sheet, MostPieces)
		turned := d.r.Flag(field+"turned", p.Turned, false)
		c.Pins = append(c.Pins, Pin{string(p.Piece), n - 1, string(p.Size), layout.Spot{X: x, Y: y}, turned})
	}
}

// among reads an answer among few: its place, 0 when nothing is said.
func among(r *brief.Reader, field string, text brief.Text, of []string) int {
	i := slices.Index(of, string(text))
	if i < 0 && text != "" {
		r.Problem(field, fmt.Sprintf("%q is not among the answers.", text), "Choose "+of[0]+" or "+of[len(of)-1]+".", field, "")
	}
	return max(0, i)
}
