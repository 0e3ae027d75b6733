package contents

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/brief"
)

// tables sets several kinds in rows: each kind in the shapes that suit a row,
// the kinds sorted so that rows are even, heavy ones in the middle of a row.
func (q Request) tables() (out []Load) {
	all := make([][]group, len(q.Things))
	for i, t := range q.Things {
		// Within a compartment things of one kind stand without dividers.
		all[i] = groups(i, t, q.Room.Between, true)
	}
	for _, taste := range tastes {
		chosen := make([]group, len(q.Things))
		for i := range q.Things {
			chosen[i] = slices.MinFunc(all[i], func(a, b group) int { return cmp.Compare(taste(a), taste(b)) })
		}
		slices.SortStableFunc(chosen, func(a, b group) int { return cmp.Compare(b.size.Width, a.size.Width) })
		// Beyond twice as many rows as a square has, a box is a corridor.
		for rows := 1; rows <= len(chosen) && rows*rows <= 4*len(chosen)+4; rows++ {
			table := split(chosen, rows)
			for _, row := range table {
				q.heavyInMiddle(row)
			}
			// In one row, or with one kind to a row, columns can't be ragged.
			if ragged := rows > 1 && rows < len(chosen); ragged && !q.Slotted {
				out = append(out, q.table(table, false))
			}
			out = append(out, q.table(table, true))
		}
	}
	return out
}

// tastes are what a kind's shape may be chosen for, less being better.
var tastes = []func(group) float64{
	func(g group) float64 { // nearly square, low
		return math.Abs(math.Log(g.size.Length.MM()/g.size.Width.MM())) + 0.2*float64(g.layers)
	},
	// smallest on the floor
	func(g group) float64 { return g.size.Length.MM() * g.size.Width.MM() },
	func(g group) float64 { return float64(g.rows)*1e3 + float64(g.layers) + g.size.Height.MM()/1e6 },  // one row, low
	func(g group) float64 { return g.size.Height.MM()*1e3 + g.size.Length.MM()*g.size.Width.MM()/1e3 }, // lowest
	func(g group) float64 {
		return (g.size.Length.MM() + 2*g.size.Height.MM()) * (g.size.Width.MM() + 2*g.size.Height.MM())
	}, // least card
}

// split cuts the kinds into rows of nearly equal length.
func split(all []group, rows int) [][]group {
	total := 0.0
	for _, g := range all {
		total += g.size.Length.MM()
	}
	var out [][]group
	sum := 0.0
	for i, g := range all {
		left := len(all) - i
		if len(out) == 0 || len(out) < rows && (sum+g.size.Length.MM()/2 > total*float64(len(out))/float64(rows) ||
			left <= rows-len(out)) {
			out = append(out, nil)
		}
		out[len(out)-1] = append(out[len(out)-1], g)
		sum += g.size.Length.MM()
	}
	return out
}

func (q Request) heavyInMiddle(row []group) {
	mass := func(g group) float64 { t := q.Things[g.thing]; return t.Grams * float64(t.Count) }
	slices.SortStableFunc(row, func(a, b group) int { return cmp.Compare(mass(a), mass(b)) })
	out := make([]group, len(row))
	lo, hi := 0, len(row)-1
	for i, g := range row {
		if i%2 == 0 {
			out[lo], lo = g, lo+1
		} else {
			out[hi], hi = g, hi-1
		}
	}
	copy(row, out)
}

// table measures rows of groups. Aligned, columns stand under each other and
// dividers run straight both ways; else each row has its own columns.
func (q Request) table(rows [][]group, aligned bool) Load {
	l := Load{Things: q.Things, Room: q.Room, Aligned: aligned, rows: rows}
	gap, side := q.gap(), q.Room.side()
	wide := widest(rows)
	var ids []string
	y, length, height := side, Length(0), Length(0)
	for r, row := range rows {
		if r > 0 {
			y += gap
		}
		x, deep := Length(0), Length(0)
		for c, g := range row {
			if c > 0 {
				x += gap
			}
			if aligned {
				x += wide[c]
			} else {
				x += g.size.Length
			}
			deep, height, l.Layers = max(deep, g.size.Width), max(height, g.size.Height), max(l.Layers, g.layers)
			ids = append(ids, q.mark(g.thing)+g.id())
		}
		length = max(length, x)
		y += deep
		ids = append(ids, "/")
	}
	l.ID = strings.Join(ids, ".")
	if !aligned {
		l.ID += "r"
	}
	l.Says = q.says(rows, aligned, l.Layers)
	l.Need = Size{length + 2*side, y + side, q.Room.Below + height + q.Room.Above}
	l.Need.Height = max(l.Need.Height-q.Room.Proud, 0)
	return l
}

// widest gives the width of each column of aligned rows.
func widest(rows [][]group) (wide []Length) {
	for _, row := range rows {
		for c, g := range row {
			if c == len(wide) {
				wide = append(wide, 0)
			}
			wide[c] = max(wide[c], g.size.Length)
		}
	}
	return wide
}

func (q Request) says(rows [][]group, aligned bool, layers int) string {
	if len(q.Things) == 1 {
		return rows[0][0].says(q.Things[0])
	}
	out := fmt.Sprintf("%d kinds in %s", len(q.Things), plural(len(rows), "row"))
	if !aligned {
		out += ", each with its own columns"
	}
	if layers > 1 {
		out += ", piled"
	}
	return out
}

// layOut stands every stack of a table in its place, with dividers between.
func (q Request) layOut(l *Load) {
	gap, inner, alone := q.gap(), q.Room.Between, len(q.Things) == 1
	if alone {
		inner = gap
	}
	wide := widest(l.rows)
	y := q.Room.side()
	for r, row := range l.rows {
		if r > 0 && q.Divided {
			l.Along = append(l.Along, y+gap/2)
		}
		if r > 0 {
			y += gap
		}
		x, deep := q.Room.side(), Length(0)
		for _, g := range row {
			deep = max(deep, g.size.Width)
		}
		for c, g := range row {
			if c > 0 && q.Divided && !l.Aligned {
				l.Short = append(l.Short, Divider{x + gap/2, y - gap/2, y + deep + gap/2})
			} else if c > 0 && q.Divided && len(l.Across) < c {
				l.Across = append(l.Across, x+gap/2)
			}
			if c > 0 {
				x += gap
			}
			room := g.size.Length
			if l.Aligned {
				room = wide[c]
			}
			l.stand(g, x+(room-g.size.Length)/2, y+(deep-g.size.Width)/2, inner, alone && q.Divided)
			x += room
		}
		y += deep
	}
}

func plural(n int, what string) string {
	if n == 1 {
		return "one " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

// stand puts a group's stacks in place, with dividers between them if each has its own compartment.
func (l *Load) stand(g group, x, y, gap Length, divided bool) {
	t := l.Things[g.thing]
	stacks := ceil(t.Count, g.layers)
	left := t.Count
	l.Stacks = slices.Grow(l.Stacks, stacks)
	for _, s := range g.place(stacks, gap) {
		n := min(g.layers, left)
		left -= n
		l.Stacks = append(l.Stacks, Stack{Thing: g.thing, Each: g.way.Size, Count: n, At: Size{x + s.x, y + s.y, l.Room.Below},
			Lying: t.Shape == "cylinder" && !strings.HasPrefix(g.way.ID, "h"), Turned: strings.HasSuffix(g.way.ID, "t")})
	}
	if !divided || g.stagger {
		return
	}
	for c := 1; c < g.columns; c++ {
		l.Across = append(l.Across, x+Length(c)*(g.way.Size.Length+gap)-gap/2)
	}
	for r := 1; r < g.rows; r++ {
		l.Along = append(l.Along, y+Length(r)*(g.way.Size.Width+gap)-gap/2)
	}
}

// Usual is the library of usual things, with made-up, plausible sizes to start from. Measure your own.
var Usual = []brief.Item{
	{Name: "seed packet", Shape: "flat", Length: "4 1/2 in", Width: "3 1/4 in", Thickness: "1/8 in",
		Decorated: "1/4 in", Count: "6", Mass: "8 g"},
	{Name: "tulip bulb", Shape: "ball", Diameter: "1 3/4 in", Count: "6", Mass: "30 g"},
	{Name: "wooden plant marker", Shape: "block", Length: "5 3/4 in", Width: "5/8 in", Height: "1/8 in",
		Stack: "8", Lie: "yes", Count: "12", Mass: "6 g"},
	{Name: "round tea tin", Shape: "cylinder", Diameter: "85 mm", Height: "62 mm", Count: "1", Mass: "140 g", Food: "yes"},
	{Name: "honey jar", Shape: "cylinder", Diameter: "54 mm", Height: "68 mm", NeckDiameter: "48 mm",
		NeckHeight: "14 mm", Count: "1", Mass: "180 g", Food: "yes", Fragile: "yes", Liquid: "yes"},
	{Name: "beeswax votive", Shape: "cylinder", Diameter: "48 mm", Height: "40 mm", Count: "2", Mass: "60 g", Flame: "yes"},
	{Name: "terracotta thumb pot", Shape: "cylinder", Diameter: "60 mm", Height: "55 mm", Count: "1",
		Mass: "110 g", Fragile: "yes"},
	{Name: "ball of jute", Shape: "ball", Diameter: "70 mm", Count: "1", Mass: "90 g"},
	{Name: "folded tea towel", Shape: "soft", Length: "5 in", Width: "4 in", Height: "1 1/2 in",
		Press: "1/2 in", Count: "1", Mass: "70 g"},
	{Name: "greeting card", Shape: "flat", Length: "5 1/2 in", Width: "4 1/4 in", Thickness: "1/32 in",
		Decorated: "1/8 in", Envelope: "yes", Count: "4", Mass: "12 g"},
	{Name: "shortbread round", Shape: "cylinder", Diameter: "65 mm", Height: "12 mm", Stack: "6", Count: "12",
		Mass: "22 g", Food: "yes"},
}
