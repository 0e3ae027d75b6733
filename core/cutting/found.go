package cutting

import (
	"cmp"
	"slices"

	"brevium/core/layout"
	"brevium/core/least"
	"brevium/core/request"
	"brevium/core/shop"
)

// Found is the least of a card that was found.
type Found struct {
	Task
	least.Result
	Says string // why pins were left out
}

// Proved reports whether everything is laid and nothing takes less.
func (f Found) Proved() bool { return f.Result.Proved && len(f.TooBig)+len(f.Short) == 0 }

// Search looks for the least of every task: hastily at first, then, where that proved nothing, as long as the task
// says. Watch is told how far the whole is, from 0 to 1, and all that was found so far; it ends the search by
// returning false.
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
func Together(tables []*Table, names []string, ask request.Cutting) (out []Task) {
	at := map[string]int{}
	pieces := [][]layout.Piece{}
	of := []*Table{}
	sheets := [][]shop.Sheet{}
	for n, t := range tables {
		for _, all := range ByCard(t.ToLay(t.Box, t.Copies)) {
			card := t.CardOf(all[0].Stock)
			i, known := at[card.ID]
			if !known {
				i = len(of)
				at[card.ID], of, pieces, sheets = i, append(of, t), append(pieces, nil), append(sheets, nil)
			}
			if on := t.SheetOf(card); !slices.ContainsFunc(sheets[i], on.Same) {
				sheets[i] = append(sheets[i], on)
			}
			for _, piece := range all {
				piece.Name = names[n] + ": " + piece.Name
				pieces[i] = append(pieces[i], piece)
			}
		}
	}
	for i, t := range of {
		card := t.CardOf(pieces[i][0].Stock)
		if ask.Any {
			sheets[i] = t.Comes(card)
		}
		out = append(out, taskOf(t.Request, ask, card, sheets[i], pieces[i]))
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
	for i := range out {
		out[i].Proved = f.Proved()
	}
	out[0].Bound, out[0].TooBig = f.Layout.Bound, append(slices.Clone(f.TooBig), f.Short...)
	slices.SortStableFunc(out, func(a, b Cut) int { return cmp.Compare(pinned1(b), pinned1(a)) })
	return out
}

// listed are the colours in which sheets of a list are drawn.
var listed = []string{"#efe3c8", "#d9e4d4", "#e9d3c4", "#d5dde6", "#e6d6e2", "#e8e0b4"}

// pinned1 is 1 for sheets on which something was pinned by hand: they come first, so that their numbers stay.
func pinned1(c Cut) int {
	for _, s := range c.Sheets {
		if slices.ContainsFunc(s.Placed, func(p layout.Placed) bool { return p.Pinned }) {
			return 1
		}
	}
	return 0
}
