package request

import (
	"fmt"
	"slices"

	"brevium/core/brief"
	"brevium/core/layout"
	"brevium/core/least"
	"brevium/core/measure"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/wish"
)

// readWish reads what goes on, in and round the box, and finds the cards it is cut from.
func (d *door) readWish() {
	d.Dressing = map[string]shop.Card{"ribbon": ribbon()}
	d.Wish = wish.Read(d.r, &d.Brief.Dress, wish.Shelf{
		Find: func(field, id string) (shop.Card, bool) {
			c, ok := d.stock(field, id)
			if ok {
				d.Dressing[c.ID] = c
			}
			return c, ok
		},
		Usual: func(part string) shop.Card {
			if c, ok := d.Stocks[part]; ok {
				return c
			}
			if part == "liner" || part == "band" || part == "strip" {
				return d.Card
			}
			return d.Layer
		},
	})
	s := style.Find(string(d.Brief.Box.Style))
	if d.Floor > 0 && s != nil && s.Tray && s.Rooms == nil {
		liner := d.Card
		if c, ok := d.Stocks["liner"]; ok {
			liner = c
		}
		d.Wish.Liners = append(d.Wish.Liners, wish.Liner{Entry: "floor", In: "floor", Less: measure.Inch / 8,
			Layers: d.Floor, Card: liner, Quiet: true})
	}
	for _, l := range d.Wish.Liners {
		if l.In == "floor" && !l.Quiet {
			d.Floor += l.Layers
		}
	}
	if c, ok := d.Dressing[string(d.Brief.Dress.Scheme.Accent)]; ok { // ribbon goes with the scheme
		r := ribbon()
		r.Colour, r.Inside = c.Colour, c.Colour
		d.Dressing["ribbon"] = r
	}
	d.Skin, d.Deep = d.Wish.Skin()
}

// lined is what liners take of the room inside.
func (q *Request) lined() [3]measure.Length {
	floor, wall, cover := q.Wish.Lined()
	return [3]measure.Length{floor, wall, cover}
}

// ribbon is ribbon as it is drawn: it is no card.
func ribbon() shop.Card {
	return shop.Card{ID: "ribbon", Title: "ribbon", Caliper: measure.Millimetre / 5, Colour: "#9c3b32", Inside: "#9c3b32"}
}

// AllCards lists every card that anything is cut from, the box's own first.
func (q *Cards) AllCards() (out []shop.Card) {
	out = append(out, q.Card)
	for _, m := range []map[string]shop.Card{q.Stocks, q.Dressing} {
		for _, c := range brief.Sorted(m) {
			if !slices.ContainsFunc(out, func(o shop.Card) bool { return o.ID == c.ID }) {
				out = append(out, c)
			}
		}
	}
	return out
}

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
			d.r.Problem("sheets.margin", "A margin of "+d.r.Say(c.Margin)+" is too wide.",
				"Make it smaller: most printers need "+d.r.Units.Either("1/8 to 1/4 in.", "3 to 6 mm."),
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
		r.Problem(field, fmt.Sprintf("%q isn't one of the choices.", text), "Choose "+of[0]+" or "+of[len(of)-1]+".", field, "")
	}
	return max(0, i)
}
