package contents

import (
	"cmp"
	"fmt"
	"math"
	"slices"
)

// Stack is some of one kind on each other. At is its left front lower corner, from the corner of the clear room.
type Stack struct {
	Thing  int
	At     Size
	Each   Size // of one thing as it rests
	Count  int
	Lying  bool // a cylinder on its side
	Turned bool
}

// Load is an arrangement: the things in their places and the clear room they want in all.
type Load struct {
	ID, Says string
	Things   []Thing
	Room     Room
	Stacks   []Stack
	Need     Size
	Layers   int // of the highest stack
	Aligned  bool
	// Across and Along are where dividers stand: Across at X, from front to back; Along at Y, from left to right.
	// Ragged rows have Short ones, across one row only.
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
	Turned bool // those that are deeper than long too
}

// mark is what a thing is known by in the name of an arrangement: another thing
// in its place makes it another arrangement.
func (q Request) mark(i int) string {
	if id := q.Things[i].ID; id != "" {
		return id
	}
	return fmt.Sprint(i)
}

// gap is the distance between neighbours.
func (q Request) gap() Length {
	if q.Divided {
		return 2*q.Room.Between + q.Caliper
	}
	return q.Room.Between
}

// Arrangements lists every sensible arrangement, the one that takes the least card of a plain tray first. There is
// always at least one. Those beyond the most that are asked for have their size and name and no stacks yet.
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
		deep := len(q.Things) == 1 && l.Need.Length < l.Need.Width && l.ID != q.Pin
		dup := seen[l.ID] || deep && q.Inside == nil && !q.Turned
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

// likely keeps, where there are very many ways to lay one kind out, those that take least card: first those that
// go into a given size, and always the pinned one.
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
			list[i].fits = g.size.Length <= in.Length && g.size.Width <= in.Width &&
				q.Room.Below+g.size.Height-q.Room.Proud <= in.Height
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
		if i < mostGroups || q.Pin != "" && q.mark(0)+r.id()+"./" == q.Pin {
			out = append(out, r.group)
		}
	}
	return out
}

// Card is the area, in square millimetres, of the piece of a plain tray: about what an arrangement costs.
func (l Load) Card() float64 {
	h := 2 * l.Need.Height.MM()
	return (l.Need.Length.MM() + h) * (l.Need.Width.MM() + h)
}

// Fits reports whether the things, bare of room round them, fit an inside.
func (l Load) Fits(inside Size) bool {
	s := l.Room.side()
	return l.Need.Length-2*s <= inside.Length && l.Need.Width-2*s <= inside.Width &&
		l.Need.Height-l.Room.Above <= inside.Height
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

// Overlap finds two stacks that stand in each other. Round ones may come as near as their rounds allow.
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
