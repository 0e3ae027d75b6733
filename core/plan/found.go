package plan

import (
	"cmp"
	"slices"

	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/layout"
	"brevium/core/least"
	"brevium/core/shop"
)

// Found is the least of a card that was found.
type Found struct {
	Task
	least.Result
	Says string // why pins were left out
}

// Proved says that all is laid, and less can't be done.
func (f Found) Proved() bool { return f.Result.Proved && len(f.TooBig)+len(f.Short) == 0 }

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
		if out[i].Proved() || t.Work <= least.Hasty {
			continue
		}
		r, says := t.Solve(func(at least.Progress) bool {
			better := at.Better != nil && at.Better.Least < out[i].Result.Least
			if better {
				out[i] = Found{t, *at.Better, out[i].Says}
			}
			return watch((float64(i)+float64(at.Done)/float64(max(at.Of, 1)))/float64(len(tasks)), slices.Clone(out), better)
		})
		if had := out[i].Result; len(r.Short) < len(had.Short) || r.Least <= had.Least {
			out[i] = Found{t, r, says}
		} else { // it was told to stop before it came as far
			out[i].Result.Bound = max(had.Bound, r.Bound)
		}
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
	if p.Asked() {
		p.Take(Search(p.Tasks(), nil))
	}
}

// Asked says whether the document says how the sheets are to be cut, and they can be: a
// piece that is too large for its sheet may do on another size.
func (p *Plan) Asked() bool {
	return p.OK() && p.Cutting.Asked && (p.Cutting.Any || len(p.Layout.TooBig) == 0)
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
		return slices.Contains([]string{"short-of-card", "long-cut", "pins-left-out", "sheet-too-small"}, w.Code)
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
	p.Layout, p.Fixes = layout.Join(all...), nil
	p.Checks = slices.DeleteFunc(p.Checks, func(c fold.Check) bool { return c.Name == onItsSheet })
	p.checkSheets()
	p.warnStock()
	p.Cards, p.Steps = p.bench(p.Say)
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
			if s.Of != i {
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
		return !slices.ContainsFunc(found, func(f Found) bool { return !f.Proved() })
	}
	return !slices.ContainsFunc(cuts, func(c Cut) bool { return len(c.TooBig) > 0 || len(c.Sheets) > c.Bound })
}
