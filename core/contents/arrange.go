package contents

import (
	"cmp"
	"slices"
)

// Arrange lays the things out in the way that takes the least card: each kind
// in rows, columns and layers, the kinds beside each other from left to right.
func (l Load) Arrange() Load {
	ways := l.ways()
	best := slices.MinFunc(ways, func(a, b Load) int {
		return cmp.Or(cmp.Compare(a.card(), b.card()), cmp.Compare(a.Layers, b.Layers), cmp.Compare(a.Rows, b.Rows))
	})
	return best
}

// ArrangeIn lays the things out for a box that is already sized: in the way
// that fits its inside, if any does.
func (l Load) ArrangeIn(inside Size) Load {
	for _, w := range l.ways() {
		bare := Size{w.Need.Length - 2*l.Around, w.Need.Width - 2*l.Around, w.Need.Height - l.Above}
		if bare.Length <= inside.Length && bare.Width <= inside.Width && bare.Height <= inside.Height {
			return w
		}
	}
	return l.Arrange()
}

// card is the area, in square millimetres, of the piece of a plain tray: what
// an arrangement costs.
func (l Load) card() float64 {
	h := 2 * l.Need.Height.MM()
	return (l.Need.Length.MM() + h) * (l.Need.Width.MM() + h)
}

// ways lists the arrangements of one kind, or the one of several kinds in a row.
func (l Load) ways() []Load {
	if len(l.Things) == 1 {
		return l.grids()
	}
	out := l
	var room Size
	for i, t := range l.Things {
		one := Load{Things: []Thing{t}}.Arrange()
		if i > 0 {
			room.Length += l.Around
		}
		for _, p := range one.Placed {
			p.Thing = i
			p.At.Length += room.Length
			out.Placed = append(out.Placed, p)
		}
		room.Length += one.Need.Length
		room.Width, room.Height = max(room.Width, one.Need.Width), max(room.Height, one.Need.Height)
	}
	out.Need = l.withRoom(room)
	out.Columns, out.Rows, out.Layers = len(l.Things), 1, 1
	return []Load{out}
}

func (l Load) withRoom(s Size) Size {
	return Size{s.Length + 2*l.Around, s.Width + 2*l.Around, s.Height + l.Above}
}

// grids lists rows, columns and layers that hold the count with no row,
// column or layer to spare, the thing as it stands or turned a quarter round.
func (l Load) grids() (ways []Load) {
	t := l.Things[0]
	turns := []Size{t.Size}
	if t.Size.Length != t.Size.Width {
		turns = append(turns, Size{t.Size.Width, t.Size.Length, t.Size.Height})
	}
	for _, s := range turns {
		for columns := 1; columns <= t.Count; columns++ {
			for rows := 1; rows <= ceil(t.Count, columns); rows++ {
				layers := ceil(t.Count, rows*columns)
				if ceil(t.Count, columns*layers) < rows || ceil(t.Count, rows*layers) < columns {
					continue
				}
				// Longer than deep sits better on a table; the other is the same turned.
				if Length(columns)*s.Length < Length(rows)*s.Width {
					continue
				}
				ways = append(ways, l.grid(s, columns, rows, layers))
			}
		}
	}
	return ways
}

func ceil(n, by int) int { return (n + by - 1) / by }

func (l Load) grid(s Size, columns, rows, layers int) Load {
	out := l
	out.Columns, out.Rows, out.Layers = columns, rows, layers
	out.Placed = make([]Placed, 0, l.Things[0].Count)
	for n := range l.Things[0].Count {
		layer, rest := n/(rows*columns), n%(rows*columns)
		out.Placed = append(out.Placed, Placed{Size: s, At: Size{
			Length(rest%columns) * s.Length, Length(rest/columns) * s.Width, Length(layer) * s.Height,
		}})
	}
	out.Need = l.withRoom(Size{Length(columns) * s.Length, Length(rows) * s.Width, Length(layers) * s.Height})
	return out
}
