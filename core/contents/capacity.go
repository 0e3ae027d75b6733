package contents

import (
	"math"

	"brevium/core/measure"
)

// Capacity is how many of a thing an inside takes with room round them, and
// how they lie.
func Capacity(t Thing, room Room, inside Size) (most int, says string) {
	side, gap := room.side(), room.Between
	l, w := inside.Length-2*side, inside.Width-2*side
	h := inside.Height - room.Below - room.Above + room.Proud
	for _, way := range t.Ways() {
		for range 2 {
			layers := min(int(max(h, 0)/way.Size.Height), t.Stack)
			g := group{way: way, columns: across(l, way.Size.Length, gap), rows: across(w, way.Size.Width, gap), layers: layers}
			n := g.columns * g.rows * layers
			if t.Round() && way.ID == "h" {
				if s, count := staggered(l, w, way, gap); count*layers > n {
					g, n = s, count*layers
					g.layers = layers
				}
			}
			if n > most {
				t.Count = n
				most, says = n, g.says(t)
			}
			way.Size.Length, way.Size.Width = way.Size.Width, way.Size.Length
		}
	}
	return most, says
}

// across is how many of a size stand in a row.
func across(room, size, gap Length) int {
	if room < size {
		return 0
	}
	return int((room + gap) / (size + gap))
}

// staggered is the best staggered set of round things on a floor.
func staggered(l, w Length, way Way, gap Length) (group, int) {
	d := way.Size.Length + gap
	columns := across(l, way.Size.Length, gap)
	if columns == 0 || w < way.Size.Width {
		return group{}, 0
	}
	pitch := measure.FromMM(d.MM() * math.Sqrt(3) / 2).Up(measure.Millimetre / 100)
	rows := int((w-way.Size.Width)/pitch) + 1
	inOdd := columns
	if Length(columns)*d-gap+d/2 > l {
		inOdd--
	}
	return group{way: way, columns: columns, rows: rows, stagger: true}, (rows+1)/2*columns + rows/2*inOdd
}
