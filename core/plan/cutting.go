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

// Search looks for the least of every task: first hastily of all of them, then of each
// that is not proved as long as it says. Watch is told how far all of it is, from 0 to
// 1, and what was found so far, whole; it ends the search by saying false.
func Search(tasks []Task, watch func(done float64, found []Found, better bool) bool) []Found {
	if watch == nil {
		watch = func(float64, []Found, bool) bool { return true }
	}
	out := make([]Found, len(tasks))
	for i, t := range tasks {
		hasty := t
		hasty.Work = min(t.Work, least.Hasty)
		r, says := hasty.Solve(nil)
		out[i] = Found{t, r, says}
	}
	if !watch(0, slices.Clone(out), true) {
		return out
	}
	for i, t := range tasks {
		if out[i].Result.Proved || t.Work <= least.Hasty {
			continue
		}
		r, says := t.Solve(func(at least.Progress) bool {
			better := at.Better != nil && at.Better.Least < out[i].Result.Least
			if better {
				out[i] = Found{t, *at.Better, out[i].Says}
			}
			return watch((float64(i)+float64(at.Done)/float64(max(at.Of, 1)))/float64(len(tasks)), slices.Clone(out), better)
		})
		out[i] = Found{t, r, says}
	}
	return out
}

// Together are the tasks of several boxes cut at once, by card: each may be cut from
// the sheet that any of them was to be cut from.
func Together(plans []*Plan, names []string, ask Cutting) (out []Task) {
	at := map[string]int{}
	pieces := [][]layout.Piece{}
	of := []*Plan{}
	sheets := [][]shop.Sheet{}
	for n, p := range plans {
		for _, all := range p.byCard(p.toLay(p.Box, p.Copies)) {
			card := p.CardOf(all[0].Stock)
			i, known := at[card.ID]
			if !known {
				i = len(of)
				at[card.ID], of, pieces, sheets = i, append(of, p), append(pieces, nil), append(sheets, nil)
			}
			if on := p.SheetOf(card); !slices.ContainsFunc(sheets[i], on.Same) {
				sheets[i] = append(sheets[i], on)
			}
			for _, piece := range all {
				piece.Name = names[n] + ": " + piece.Name
				pieces[i] = append(pieces[i], piece)
			}
		}
	}
	for i, p := range of {
		q := *p.Request
		q.Cutting = ask
		comes := q.Comes
		q.Comes = func(c shop.Card) []shop.Sheet {
			if ask.Any {
				return comes(c)
			}
			return sheets[i]
		}
		q.Cutting.Any = true
		out = append(out, q.task(p.CardOf(pieces[i][0].Stock), pieces[i]))
	}
	return out
}

// Cuts tells what was found by card and size of sheet.
func Cuts(found []Found) (out []Cut) {
	for _, f := range found {
		out = append(out, f.cuts()...)
	}
	return out
}

// CutAsAsked lays the sheets as the document asks, however long that takes; where it asks
// for nothing they lie as they do.
func (p *Plan) CutAsAsked() {
	if p.OK() && p.Cutting.Asked && len(p.Layout.TooBig) == 0 {
		p.Take(Search(p.Tasks(), nil))
	}
}

// Tasks are what of all boxes of a set is to be cut, a card each.
func (s *Set) Tasks() []Task { return Together(s.Plans, s.Names, s.Plans[0].Cutting) }

// Asked says whether the set's document says how its sheets are to be cut, and it can be.
func (s *Set) Asked() bool {
	return s.OK() && s.Plans[0].Cutting.Asked && !slices.ContainsFunc(s.Layouts, func(l Laid) bool { return len(l.TooBig) > 0 })
}

// CutAsAsked lays the sheets of a set as its document asks.
func (s *Set) CutAsAsked() {
	if s.Asked() {
		s.Take(Search(s.Tasks(), nil))
	}
}

// Take makes the set one that is cut as was found.
func (s *Set) Take(found []Found) {
	of := map[string]*Plan{}
	for _, l := range s.Layouts {
		of[l.Card.ID] = l.Of
	}
	s.Found, s.Layouts, s.Cost = found, nil, 0
	for _, c := range Cuts(found) {
		s.Layouts, s.Cost = append(s.Layouts, Laid{c, of[c.Card.ID]}), s.Cost+c.Cost()
	}
}

// Take makes the plan one that is cut as was found.
func (p *Plan) Take(found []Found) {
	p.Found, p.Cuts, p.Cost = found, nil, 0
	p.Warnings = slices.DeleteFunc(p.Warnings, func(w brief.Warning) bool {
		return w.Code == "short-of-card" || w.Code == "long-cut" || w.Code == "pins-left-out"
	})
	p.Cuts = Cuts(found)
	for _, f := range found {
		if f.Says != "" {
			p.Warn(brief.Warning{Code: "pins-left-out", Text: "Pieces were held where they can't be: " + f.Says + ".",
				Fix: "Take all pins off.", Set: map[string]string{"act": "unpin-all"}})
		}
	}
	all := make([]layout.Layout, len(p.Cuts))
	for i, c := range p.Cuts {
		all[i] = c.Layout
		p.Cost += c.Cost()
	}
	p.Layout = layout.Join(all...)
	p.warnStock()
	p.Cards, p.Steps = p.bench()
}

// TaskOf is a task of a list: of no card of the shop.
func TaskOf(t least.Task) Task {
	out := Task{Task: t}
	for _, s := range t.Sheets {
		out.sizes = append(out.sizes, shop.Sheet{ID: s.Name, Title: s.Name, Width: s.W, Height: s.H})
	}
	out.kept = make([]string, len(t.Sheets))
	return out
}

// each is the price of a sheet of a size, where no card tells it.
func (t Task) each(size int) int64 {
	if t.Card.ID != "" {
		return 0
	}
	return t.Sheets[size].Price
}

// cuts tells what was found by size of sheet, in the order of the sheets.
func (f Found) cuts() (out []Cut) {
	for i, size := range f.sizes {
		card := f.Card
		if card.ID == "" {
			card.Title, card.Colour = f.Task.Sheets[i].Stock, listed[i%len(listed)]
		}
		c := Cut{Card: card, Sheet: size, Offcut: f.Task.Sheets[i].Offcut, Kept: f.kept[i], Each: f.each(i)}
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
	out[0].Bound, out[0].TooBig = f.Layout.Bound, append(slices.Clone(f.TooBig), f.Short...)
	slices.SortStableFunc(out, func(a, b Cut) int { return cmp.Compare(pinned1(b), pinned1(a)) })
	return out
}

// listed are the colours in which sheets of a list are drawn.
var listed = []string{"#efe3c8", "#d9e4d4", "#e9d3c4", "#d5dde6", "#e6d6e2", "#e8e0b4"}

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
func (p *Plan) Proved() bool { return allProved(p.Found, p.Cuts) }

// Proved says whether no arrangement of all boxes takes less.
func (s *Set) Proved() bool {
	var cuts []Cut
	for _, l := range s.Layouts {
		cuts = append(cuts, l.Cut)
	}
	return allProved(s.Found, cuts)
}

// allProved goes by the search, or where the quick rules laid all, by each card's bound.
func allProved(found []Found, cuts []Cut) bool {
	if found != nil {
		return !slices.ContainsFunc(found, func(f Found) bool { return !f.Result.Proved })
	}
	return !slices.ContainsFunc(cuts, func(c Cut) bool { return len(c.TooBig) > 0 || len(c.Sheets) > c.Bound })
}
