package plan

import (
	"cmp"
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

func (q *Request) readCutting(b brief.Brief, r *brief.Reader) {
	s, c := b.Sheets, &q.Cutting
	c.Asked = s.Asked()
	c.Aim, c.Tie = least.Aim(among(r, "sheets.aim", s.Aim, Aims)), least.Tie(among(r, "sheets.among-equals", s.Tie, Ties))
	c.Deep, c.Any = among(r, "sheets.look", s.Look, Looks) == 1, among(r, "sheets.sizes", s.Sizes, Sizes) == 1
	c.Offcuts = r.Flag("sheets.offcuts", s.Offcuts, false)
	if s.Margin != "" {
		if c.Margin, _ = r.LengthOrNone("sheets.margin", s.Margin); c.Margin > mostMargin {
			r.Problem("sheets.margin", "A margin of "+r.Say(c.Margin)+" is too wide.", "Most printers leave 3 to 6 mm.", "sheets.margin", "")
		}
	}
	for i, p := range s.Pins {
		field := fmt.Sprintf("sheets.pins.%d.", i)
		x, _ := r.LengthOrNone(field+"x", p.X)
		y, _ := r.LengthOrNone(field+"y", p.Y)
		n, _ := r.Count(field+"sheet", p.Sheet, MostPieces)
		c.Pins = append(c.Pins, Pin{string(p.Piece), n - 1, layout.Spot{X: x, Y: y}, r.Flag(field+"turned", p.Turned, false)})
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
		if i := slices.IndexFunc(t.Pieces, func(p least.Piece) bool { return p.Name == pin.Piece }); i >= 0 {
			t.Pins = append(t.Pins, least.Pin{Piece: i, Sheet: pin.Sheet, Size: len(t.Sheets) - len(sheets), At: pin.At,
				Turned: pin.Turned})
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
		if with, err := least.Solve(t.Task, watch); err == nil {
			r = with
		}
	}
	return r, says
}

// Found is the least of a card that was found.
type Found struct {
	Task
	least.Result
	Says string // why pins were left out
}

// Search looks for the least of every card. Done tells how far all of it is, from 0 to 1.
func (p *Plan) Search(watch func(done float64, found []Found) bool) (out []Found) {
	tasks := p.Tasks()
	for i, t := range tasks {
		r, says := t.Solve(func(at least.Progress) bool {
			if watch == nil {
				return true
			}
			now := out
			if at.Better != nil {
				now = append(slices.Clone(out), Found{t, *at.Better, ""})
			}
			return watch((float64(i)+float64(at.Done)/float64(max(at.Of, 1)))/float64(len(tasks)), now)
		})
		out = append(out, Found{t, r, says})
	}
	return out
}

// Take makes the plan one that is cut as was found.
func (p *Plan) Take(found []Found) {
	p.Found, p.Cuts, p.Cost = found, nil, 0
	p.Warnings = slices.DeleteFunc(p.Warnings, func(w brief.Warning) bool {
		return w.Code == "short-of-card" || w.Code == "long-cut" || w.Code == "pins-left-out"
	})
	for _, f := range found {
		p.Cuts = append(p.Cuts, f.cuts()...)
		if f.Says != "" {
			p.Warn(brief.Warning{Code: "pins-left-out", Text: "Pieces were held where they can't be: " + f.Says + ".",
				Fix: "Take all pins off.", Set: map[string]string{"act": "unpin-all"}})
		}
	}
	all := make([]layout.Layout, len(p.Cuts))
	for i, c := range p.Cuts {
		if all[i] = c.Layout; !c.Offcut {
			p.Cost += c.Card.Cost(c.Sheet, len(c.Sheets))
		}
	}
	p.Layout = layout.Join(all...)
	p.Layout.Bound = 0
	for _, f := range found {
		p.Layout.Bound += f.Layout.Bound
	}
	p.warnStock()
	p.Cards, p.Steps = p.bench()
}

// cuts tells what was found by size of sheet, in the order of the sheets.
func (f Found) cuts() (out []Cut) {
	for i, size := range f.sizes {
		c := Cut{Card: f.Card, Sheet: size, Offcut: f.Task.Sheets[i].Offcut, Kept: f.kept[i]}
		used, area := 0.0, 0.0
		for _, s := range f.Result.Sheets {
			if s.Title != f.Task.Sheets[i].Name || s.Offcut != c.Offcut {
				continue
			}
			s.Stock, s.Title = f.Card.ID, size.Title
			c.Sheets = append(c.Sheets, s)
			for _, p := range s.Placed {
				used += p.Rect.Area()
			}
			area += s.W.MM() * s.H.MM()
		}
		if len(c.Sheets) > 0 {
			c.Used = used / area
			out = append(out, c)
		}
	}
	if len(out) == 0 {
		out = []Cut{{Card: f.Card, Sheet: f.sizes[len(f.sizes)-1]}}
	}
	out[0].TooBig = append(slices.Clone(f.TooBig), f.Short...)
	slices.SortStableFunc(out, func(a, b Cut) int { return cmp.Compare(pinned1(b), pinned1(a)) })
	return out
}

// pinned1 is 1 of sheets that a hand pinned something on: they come first, so that
// their numbers stay.
func pinned1(c Cut) int {
	for _, s := range c.Sheets {
		if slices.ContainsFunc(s.Placed, func(p layout.Placed) bool { return p.Pinned }) {
			return 1
		}
	}
	return 0
}

// Proved says whether no arrangement takes less than what the plan takes.
func (p *Plan) Proved() bool {
	if p.Found == nil {
		return len(p.Layout.TooBig) == 0 && len(p.Layout.Sheets) == p.Layout.Bound
	}
	return !slices.ContainsFunc(p.Found, func(f Found) bool { return !f.Result.Proved })
}
