package contents

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"
)

// Stack is some of one kind on each other. At is its left front lower corner,
// from the corner of the clear room.
type Stack struct {
	Thing  int
	At     Size
	Each   Size // of one thing as it rests
	Count  int
	Lying  bool // a cylinder on its side
	Turned bool
}

// Cell is a compartment, between the middles of dividers or the room's edge.
type Cell struct{ X, Y, L, W Length }

// Load is an arrangement: the things in their places and the clear room they
// want in all.
type Load struct {
	ID, Says string
	Things   []Thing
	Room     Room
	Stacks   []Stack
	Need     Size
	Layers   int // of the highest stack
	Aligned  bool
	// Across and Along are where dividers stand: Across at X, from front to
	// back; Along at Y, from left to right. Ragged rows have Short ones,
	// across one row only.
	Across, Along []Length
	Short         []Divider
	ByHand        bool

	rows [][]group // what it is laid out from
}

// Divider is one that spans a row only.
type Divider struct{ X, From, To Length }

// Request is what an arrangement must respect.
type Request struct {
	Things  []Thing
	Room    Room
	Divided bool   // a divider between neighbours, or between kinds
	Slotted bool   // dividers must run straight, right across
	Caliper Length // of the dividers
	// Of the arrangements, Most are laid out, and the one whose ID is Pin; 0
	// lays out all. Inside is a size that those to lay out should fit.
	Most   int
	Pin    string
	Inside *Size
}

// gap is the distance between neighbours.
func (q Request) gap() Length {
	if q.Divided {
		return 2*q.Room.Between + q.Caliper
	}
	return q.Room.Between
}

// Arrangements lists every sensible arrangement, the one that takes the least
// card of a plain tray first. There is always at least one. Those beyond the
// most that are asked for have their size and name and no stacks yet.
func Arrangements(q Request) []Load {
	var out []Load
	if len(q.Things) == 1 {
		t := q.Things[0]
		for _, g := range q.likely(groups(0, t, q.gap(), !q.Slotted)) {
			out = append(out, q.table([][]group{{g}}, true))
		}
	} else {
		out = q.tables()
	}
	seen := map[string]bool{}
	out = slices.DeleteFunc(out, func(l Load) bool {
		// Longer than deep sits better on a table; the other is the same, turned.
		dup := seen[l.ID] || len(q.Things) == 1 && l.Need.Length < l.Need.Width
		seen[l.ID] = true
		return dup
	})
	if len(out) == 0 {
		g := groups(0, q.Things[0], q.gap(), false)
		out = []Load{q.table([][]group{{g[0]}}, true)}
	}
	slices.SortStableFunc(out, func(a, b Load) int {
		return cmp.Or(cmp.Compare(a.Card(), b.Card()), cmp.Compare(a.Layers, b.Layers), cmp.Compare(a.ID, b.ID))
	})
	if q.Inside != nil {
		fits := slices.DeleteFunc(slices.Clone(out), func(l Load) bool { return !l.Fits(*q.Inside) })
		if len(fits) > 0 {
			out = fits
		}
	}
	named := map[string]int{}
	for i := range out {
		if q.Most > 0 && i >= q.Most && out[i].ID != q.Pin {
			continue
		}
		q.layOut(&out[i])
		// Two that are told alike are told apart.
		if named[out[i].Says]++; named[out[i].Says] > 1 {
			out[i].Says += fmt.Sprintf(" (%d)", named[out[i].Says])
		}
	}
	return out
}

// mostGroups is how many ways to lay one kind out are gone into.
const mostGroups = 120

// likely keeps, of very many ways to lay one kind out, those that take least
// card, those that go into a size that is given before the others, and the one
// that is pinned.
func (q Request) likely(all []group) []group {
	if len(all) <= mostGroups {
		return all
	}
	type ranked struct {
		group
		fits bool
		card float64
	}
	list := make([]ranked, len(all))
	for i, g := range all {
		h := 2 * (q.Room.Below + g.size.Height + q.Room.Above).MM()
		side := 2 * q.Room.side().MM()
		list[i] = ranked{g, false, (g.size.Length.MM() + side + h) * (g.size.Width.MM() + side + h)}
		if in := q.Inside; in != nil {
			list[i].fits = g.size.Length <= in.Length && g.size.Width <= in.Width && q.Room.Below+g.size.Height-q.Room.Proud <= in.Height
		}
	}
	slices.SortStableFunc(list, func(a, b ranked) int {
		if a.fits != b.fits {
			return map[bool]int{true: -1, false: 1}[a.fits]
		}
		return cmp.Compare(a.card, b.card)
	})
	out := make([]group, 0, mostGroups+1)
	for i, r := range list {
		if i < mostGroups || q.Pin != "" && fmt.Sprintf("0%s./", r.id()) == q.Pin {
			out = append(out, r.group)
		}
	}
	return out
}

// Card is the area, in square millimetres, of the piece of a plain tray: about
// what an arrangement costs.
func (l Load) Card() float64 {
	h := 2 * l.Need.Height.MM()
	return (l.Need.Length.MM() + h) * (l.Need.Width.MM() + h)
}

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
	func(g group) float64 { return g.size.Length.MM() * g.size.Width.MM() },                            // smallest on the floor
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
		if len(out) == 0 || len(out) < rows && (sum+g.size.Length.MM()/2 > total*float64(len(out))/float64(rows) || left <= rows-len(out)) {
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
			ids = append(ids, fmt.Sprint(g.thing)+g.id())
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

// stand puts a group's stacks in place, with dividers between them if each has
// its own compartment.
func (l *Load) stand(g group, x, y, gap Length, divided bool) {
	t := l.Things[g.thing]
	stacks := ceil(t.Count, g.layers)
	left := t.Count
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

// Fits says whether the things, bare of room round them, fit an inside.
func (l Load) Fits(inside Size) bool {
	s := l.Room.side()
	return l.Need.Length-2*s <= inside.Length && l.Need.Width-2*s <= inside.Width && l.Need.Height-l.Room.Above <= inside.Height
}

// Unit is one thing in its place.
type Unit struct {
	Thing    int
	At, Size Size
	Layer    int
	Lying    bool
}

// Units lists every single thing.
func (l Load) Units() (out []Unit) {
	for _, s := range l.Stacks {
		for n := range s.Count {
			at := s.At
			at.Height += Length(n) * s.Each.Height
			out = append(out, Unit{s.Thing, at, s.Each, n, s.Lying})
		}
	}
	return out
}

// Grams is the mass of all that is known to weigh something.
func (l Load) Grams() (sum float64) {
	for _, t := range l.Things {
		sum += t.Grams * float64(t.Count)
	}
	return sum
}

// Overlap finds two stacks that stand in each other. Round ones may come as
// near as their rounds allow.
func (l Load) Overlap() (a, b int, found bool) {
	for i, p := range l.Stacks {
		for _, q := range l.Stacks[i+1:] {
			if l.meet(p, q) {
				return p.Thing, q.Thing, true
			}
		}
	}
	return 0, 0, false
}

func (l Load) meet(p, q Stack) bool {
	if p.At.Length >= q.At.Length+q.Each.Length || q.At.Length >= p.At.Length+p.Each.Length ||
		p.At.Width >= q.At.Width+q.Each.Width || q.At.Width >= p.At.Width+p.Each.Width {
		return false
	}
	round := func(s Stack) bool { return l.Things[s.Thing].Round() && !s.Lying }
	if !round(p) || !round(q) {
		return true
	}
	dx := (p.At.Length + p.Each.Length/2 - q.At.Length - q.Each.Length/2).MM()
	dy := (p.At.Width + p.Each.Width/2 - q.At.Width - q.Each.Width/2).MM()
	return math.Hypot(dx, dy) < (p.Each.Length+q.Each.Length).MM()/2-1e-4
}

// Settle fits the clear room round stacks that were put in place by hand, with
// room on every side. Dividers stay only where there were none to move.
func (l Load) Settle() Load {
	lo := l.Stacks[0].At
	for _, s := range l.Stacks {
		lo.Length, lo.Width = min(lo.Length, s.At.Length), min(lo.Width, s.At.Width)
	}
	side := l.Room.side()
	height := Length(0)
	l.Need.Length, l.Need.Width = 0, 0
	for i := range l.Stacks {
		s := &l.Stacks[i]
		s.At.Length += side - lo.Length
		s.At.Width += side - lo.Width
		l.Need.Length = max(l.Need.Length, s.At.Length+s.Each.Length+side)
		l.Need.Width = max(l.Need.Width, s.At.Width+s.Each.Width+side)
		height = max(height, Length(s.Count)*s.Each.Height)
	}
	l.Need.Height = max(l.Room.Below+height+l.Room.Above-l.Room.Proud, 0)
	l.Across, l.Along, l.Short = nil, nil, nil
	l.ByHand, l.Says = true, "arranged by hand"
	return l
}
