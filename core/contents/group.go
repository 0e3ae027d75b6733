package contents

import (
	"fmt"
	"math"

	"brevium/core/measure"
)

// group is one kind laid out: columns and rows of stacks.
type group struct {
	thing                 int
	way                   Way
	columns, rows, layers int
	stagger               bool
	size                  Size // without room round it
}

type spot struct{ x, y Length }

// groups lists every sensible way to lay one kind out: each way it may rest, in every number of layers it allows,
// in rows and columns with none to spare, and staggered where that saves room. gap is left between stacks.
func groups(i int, t Thing, gap Length, staggering bool) (out []group) {
	for _, way := range t.Ways() {
		turns := []Way{way}
		if way.Size.Length != way.Size.Width {
			turned := way
			turned.ID += "t"
			turned.Size.Length, turned.Size.Width = way.Size.Width, way.Size.Length
			turns = append(turns, turned)
		}
		for _, w := range turns {
			last := 0
			for layers := 1; layers <= min(t.Stack, t.Count); layers++ {
				stacks := ceil(t.Count, layers)
				if stacks == last {
					continue // more layers, as many stacks: higher for nothing
				}
				last = stacks
				out = grids(out, i, w, stacks, layers, gap)
				if staggering && t.Round() && way.ID == "h" {
					out = append(out, staggers(i, w, stacks, layers, gap)...)
				}
			}
		}
	}
	return out
}

func ceil(n, by int) int { return (n + by - 1) / by }

// grids adds the grids there are of so many stacks.
func grids(out []group, i int, w Way, stacks, layers int, gap Length) []group {
	for columns := 1; columns <= stacks; columns++ {
		rows := ceil(stacks, columns)
		if ceil(stacks, rows) != columns {
			continue
		}
		out = append(out, group{thing: i, way: w, columns: columns, rows: rows, layers: layers, size: Size{
			Length(columns)*(w.Size.Length+gap) - gap, Length(rows)*(w.Size.Width+gap) - gap, Length(layers) * w.Size.Height,
		}})
	}
	return out
}

// staggers sets each row of round things into the gaps of the row before. A row's pitch is half the root of three
// times the diameter, snapped up to a hundredth of a millimetre so that neighbours never press.
func staggers(i int, w Way, stacks, layers int, gap Length) (out []group) {
	d := w.Size.Length + gap
	pitch := measure.FromMM(d.MM() * math.Sqrt(3) / 2).Up(measure.Millimetre / 100)
	var last [2]int // rows of the narrower, even and not
	for columns := 2; columns <= stacks; columns++ {
		for k, even := range []bool{true, false} {
			g := group{thing: i, way: w, columns: columns, layers: layers, stagger: true}
			for n := 0; n < stacks; g.rows++ {
				inRow := columns
				if g.rows%2 == 1 && !even {
					inRow--
				}
				n += inRow
			}
			if g.rows < 2 || g.rows == last[k] {
				continue // no fewer rows: wider for nothing
			}
			last[k] = g.rows
			g.size = Size{Length(columns)*d - gap, Length(g.rows-1)*pitch + w.Size.Width, Length(layers) * w.Size.Height}
			if even {
				g.size.Length += d / 2
			}
			out = append(out, g)
		}
	}
	return out
}

// place works out the spots, left on their own until an arrangement is drawn.
func (g group) place(stacks int, gap Length) (spots []spot) {
	l, w := g.way.Size.Length+gap, g.way.Size.Width+gap
	if !g.stagger {
		for n := range stacks {
			spots = append(spots, spot{Length(n%g.columns) * l, Length(n/g.columns) * w})
		}
		return spots
	}
	even := g.size.Length > Length(g.columns)*l-gap
	pitch := measure.FromMM(l.MM() * math.Sqrt(3) / 2).Up(measure.Millimetre / 100)
	for row := 0; len(spots) < stacks; row++ {
		inRow, shift := g.columns, Length(0)
		if row%2 == 1 {
			shift = l / 2
			if !even {
				inRow--
			}
		}
		for c := 0; c < inRow && len(spots) < stacks; c++ {
			spots = append(spots, spot{Length(c)*l + shift, Length(row) * pitch})
		}
	}
	return spots
}

// id names the group for a pinned arrangement.
func (g group) id() string {
	s := fmt.Sprintf("%s%dx%dx%d", g.way.ID, g.columns, g.rows, g.layers)
	if g.stagger {
		s += "s"
		if g.size.Length > Length(g.columns)*g.way.Size.Length {
			s += "e"
		}
	}
	return s
}

func (g group) says(t Thing) string {
	s := fmt.Sprintf("%d by %d", g.columns, g.rows)
	switch {
	case t.Count == 1:
		s = "one"
	case g.columns*g.rows == 1:
		s = fmt.Sprintf("a pile of %d", g.layers)
	case g.layers > 1:
		s += fmt.Sprintf(", %d high", g.layers)
	}
	if g.stagger {
		s += ", staggered"
	}
	if g.way.Says != "" && g.way.Says != "as measured" {
		s += ", " + g.way.Says
	}
	return s
}
