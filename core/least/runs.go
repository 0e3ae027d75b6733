package least

import (
	"fmt"
	"slices"

	"brevium/core/layout"
)

// Runs: pieces that stay beside each other in their order, so that a pattern goes on
// from one to the next, are cut as one strip, and parted at the end.

// joined is a task whose runs are single pieces, and what each of its pieces stands for.
type joined struct {
	Task
	of    [][]int // pieces of the task as it was given
	given []Piece
}

// join makes one piece of each run.
func (t Task) join() (joined, error) {
	j := joined{Task: t, given: t.Pieces}
	j.Pieces = nil
	at := map[string]int{}
	place := make([]int, len(t.Pieces))
	for i, p := range t.Pieces {
		n, known := at[p.Run]
		if p.Run == "" || !known {
			place[i], at[p.Run] = len(j.Pieces), len(j.Pieces)
			j.Pieces, j.of = append(j.Pieces, p), append(j.of, []int{i})
			continue
		}
		run := &j.Pieces[n]
		if run.Count != p.Count || run.Upright != p.Upright || run.Across != p.Across || run.Stock != p.Stock {
			return j, fmt.Errorf("%s can't stay in a run with %s: pieces of a run are as many, of one card, and lie the same way",
				p.Name, run.Name)
		}
		run.Stocks = slices.DeleteFunc(slices.Clone(run.Stocks), func(s string) bool { return !p.On(s) })
		run.W, run.H = run.W+p.W, max(run.H, p.H)
		j.of[n], place[i] = append(j.of[n], i), n
	}
	j.Pins = slices.Clone(t.Pins)
	for i, pin := range j.Pins {
		if pin.Piece < 0 || pin.Piece >= len(place) {
			return j, fmt.Errorf("pin %d holds a piece that is not on the list: take the pin off", i+1)
		}
		j.Pins[i].Piece = place[pin.Piece]
	}
	for n, of := range j.of {
		if len(of) > 1 {
			p := &j.Pieces[n]
			p.Name = "run of " + p.Run
		}
	}
	return j, nil
}

// part parts the runs on the sheets.
func (j joined) part(sheets []layout.Sheet) {
	for s := range sheets {
		sheet := &sheets[s]
		var placed []layout.Placed
		runs := false
		for _, p := range sheet.Placed {
			of := j.of[p.Of]
			if len(of) == 1 {
				p.Of = of[0]
				placed = append(placed, p)
				continue
			}
			runs = true
			placed = append(placed, j.parted(sheet, p)...)
		}
		if sheet.Placed = placed; runs {
			sheet.Cuts = layout.InOrder(sheet.Cuts)
		}
	}
}

// parted cuts a run: its pieces from left to right, or of one that was turned from top
// to bottom, and then what they stand short of the highest.
func (j joined) parted(sheet *layout.Sheet, run layout.Placed) (out []layout.Placed) {
	left := run.Rect
	for i, of := range j.of[run.Of] {
		p, in := j.given[of], left
		w, h := p.W, p.H
		if run.Turned {
			w, h = h, w
		}
		in.W, in.H = min(in.W, w), min(in.H, h)
		if last := i == len(j.of[run.Of])-1; !last {
			c := layout.Cut{In: left, Down: !run.Turned, At: w}
			if run.Turned {
				c.At = h
			}
			sheet.Cuts = append(sheet.Cuts, c)
			var part layout.Rect
			part, left = c.Parts()
			j.short(sheet, part, in, run.Turned)
		} else {
			j.short(sheet, left, in, run.Turned)
		}
		out = append(out, layout.Placed{Piece: p.Name, Rect: in, Turned: run.Turned, Pinned: run.Pinned, Of: of})
	}
	return out
}

// short cuts off what a piece stands short.
func (j joined) short(sheet *layout.Sheet, part, in layout.Rect, down bool) {
	c := layout.Cut{In: part, Down: down, At: in.H}
	if down {
		c.At = in.W
	}
	if part == in {
		return
	}
	sheet.Cuts = append(sheet.Cuts, c)
	if _, rest := c.Parts(); min(rest.W, rest.H) >= layout.Keep {
		sheet.Offcuts = append(sheet.Offcuts, rest)
	}
}

// told tells pieces that are not laid as they were given, of a run each of its own.
func (j joined) told(all []lack) (out []layout.Piece) {
	for _, l := range all {
		for _, of := range j.of[l.piece] {
			p := j.given[of].Piece
			p.Count = l.n
			out = append(out, p)
		}
	}
	return out
}
