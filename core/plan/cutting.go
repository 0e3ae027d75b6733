package plan

import (
	"fmt"
	"slices"

	"brevium/core/brief"
	"brevium/core/layout"
	"brevium/core/least"
	"brevium/core/measure"
	"brevium/core/shop"
)

// How the sheets are to be cut, and the search for the least of them. A plan is laid by
// quick rules; the search is a call of its own.

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
	q := &Request{}
	q.readCutting(b, brief.NewReader(&b))
	return q.Cutting
}

func (q *Request) readCutting(b brief.Brief, r *brief.Reader) {
	s, c := b.Sheets, &q.Cutting
	c.Asked = s.Asked()
	c.Aim, c.Tie = least.Aim(among(r, "sheets.aim", s.Aim, Aims)), least.Tie(among(r, "sheets.among-equals", s.Tie, Ties))
	c.Deep, c.Any = among(r, "sheets.look", s.Look, Looks) == 1, among(r, "sheets.sizes", s.Sizes, Sizes) == 1
	c.Offcuts = r.Flag("sheets.offcuts", s.Offcuts, false)
	if s.Margin != "" {
		if c.Margin, _ = r.LengthOrNone("sheets.margin", s.Margin); c.Margin > mostMargin {
			r.Problem("sheets.margin", "A margin of "+r.Say(c.Margin)+" is too wide.", "Most printers leave 3 to 6 mm.",
				"sheets.margin", "")
		}
	}
	for i, p := range s.Pins {
		field := fmt.Sprintf("sheets.pins.%d.", i)
		x, _ := r.LengthOrNone(field+"x", p.X)
		y, _ := r.LengthOrNone(field+"y", p.Y)
		n, _ := r.Count(field+"sheet", p.Sheet, MostPieces)
		turned := r.Flag(field+"turned", p.Turned, false)
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

// Task is what of one card is to be cut. Offcuts come first among its sheets.
type Task struct {
	least.Task
	Card  shop.Card
	sizes []shop.Sheet // of each of its sheets
	kept  []string     // the offcut that each is, "" for none
}

// Tasks are what is to be cut, a card each, in the order of Cuts.
func (p *Plan) Tasks() (out []Task) {
	for _, of := range p.byCard(p.toLay(p.Box, p.Copies)) {
		out = append(out, p.task(p.CardOf(of[0].Stock), of))
	}
	return out
}

func (q *Request) task(card shop.Card, pieces []layout.Piece) Task {
	t := Task{Card: card}
	t.Aim, t.Tie, t.Work, t.Longest = q.Cutting.Aim, q.Cutting.Tie, least.Quick, q.Tools.Cuts
	if q.Cutting.Deep {
		t.Work = least.Deep
	}
	if q.Cutting.Offcuts {
		for _, o := range q.Offcuts {
			if o.Card == card.ID {
				t.add(least.Size{Name: "offcut " + q.Say(o.Width) + " × " + q.Say(o.Height), W: o.Width, H: o.Height, Count: 1,
					Offcut: true}, shop.Sheet{Title: "a kept offcut", Width: o.Width, Height: o.Height}, o.ID)
			}
		}
	}
	sheets := []shop.Sheet{q.SheetOf(card)}
	if q.Cutting.Any || q.Least {
		sheets = q.Comes(card)
	}
	for _, s := range sheets {
		t.add(least.Size{Name: s.Title, W: s.Width, H: s.Height, Margin: q.Cutting.Margin, Count: least.Unlimited,
			Price: card.Cost(s, 1)}, s, "")
	}
	if t.Aim == least.Cost && !slices.ContainsFunc(t.Sheets, func(s least.Size) bool { return s.Price > 0 }) {
		t.Aim = least.Card // nobody knows its price
	}
	for _, piece := range pieces {
		piece.Stock = ""
		t.Pieces = append(t.Pieces, least.Piece{Piece: piece})
	}
	for _, pin := range q.Cutting.Pins {
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

// Solve looks for the least of a card. Where the trimmer is too short for a piece a
// knife does, and pins that can't be are left out; both are said.
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
