// Package layout fits pieces on to sheets with cuts that go right across, as a trimmer makes them.
//
// A sheet is one free rectangle. Placing a piece in a corner of a free rectangle takes two cuts at the most and
// leaves two smaller ones. Many orders and rules of choice are tried, and the best whole plan is kept: the fewest
// sheets, then the largest single offcut, then the fewest cuts.
package layout

import (
	"cmp"
	"math"
	"slices"

	"brevium/core/measure"
)

type Length = measure.Length

// Rect is a place on a sheet, from its top left corner.
type Rect struct{ X, Y, W, H Length }

// Area is in square millimetres.
func (r Rect) Area() float64 { return r.W.MM() * r.H.MM() }

// Piece is what is to be cut: so many, that may be turned or not.
type Piece struct {
	Name    string
	W, H    Length
	Count   int
	Upright bool   // it must lie as it is drawn
	Across  bool   // it must lie turned
	Stock   string // the card it is cut from
	At      *Spot  // where on a sheet it must lie, each copy on one of its own
}

// Spot is a place on a sheet, from its top left corner.
type Spot struct{ X, Y Length }

// Lies reports whether the piece can lie on a sheet.
func (p Piece) Lies(w, h Length) bool {
	if p.At != nil {
		return p.At.X >= 0 && p.At.Y >= 0 && p.At.X+p.W <= w && p.At.Y+p.H <= h
	}
	return !p.Across && p.W <= w && p.H <= h || !p.Upright && p.H <= w && p.W <= h
}

// Placed is one piece in its place; W and H are as it lies.
type Placed struct {
	Piece  string
	Rect   Rect
	Turned bool
	Pinned bool // a hand put it there
	Of     int  // which of the pieces that were to be laid
}

// Cut goes right across In: at X from its left edge if Down, else at Y from its top.
type Cut struct {
	In   Rect
	Down bool
	At   Length
}

// Sheet is one sheet with its pieces, its cuts in the order to make them, and what is left.
type Sheet struct {
	Stock   string // its card
	Title   string // what the sheet is called
	Offcut  bool   // it was in hand
	Of      int    // which of the sizes that there were to cut from
	W, H    Length
	Placed  []Placed
	Cuts    []Cut
	Offcuts []Rect
}

// Layout is the whole.
type Layout struct {
	Sheets []Sheet
	Bound  int     // no arrangement can need fewer sheets
	Used   float64 // share of the sheets' area that is pieces
	TooBig []Piece // larger than the sheet either way
}

// Keep is the least side of an offcut worth keeping.
const Keep = measure.Inch / 2

type rule struct {
	order func(a, b Piece) int
	fit   func(free Rect, w, h Length) float64
	split func(free Rect, w, h Length) bool // cut across first
}

var orders = []func(a, b Piece) int{
	func(a, b Piece) int { return cmp.Compare(b.W.MM()*b.H.MM(), a.W.MM()*a.H.MM()) },
	func(a, b Piece) int { return cmp.Compare(max(b.W, b.H), max(a.W, a.H)) },
	func(a, b Piece) int { return cmp.Compare(min(b.W, b.H), min(a.W, a.H)) },
}

var fits = []func(free Rect, w, h Length) float64{
	func(f Rect, w, h Length) float64 { return f.Area() - w.MM()*h.MM() },
	func(f Rect, w, h Length) float64 { return min(f.W-w, f.H-h).MM() },
	func(f Rect, w, h Length) float64 { return max(f.W-w, f.H-h).MM() },
}

var splits = []func(free Rect, w, h Length) bool{
	func(f Rect, w, h Length) bool { return f.W-w < f.H-h },
	func(f Rect, w, h Length) bool { return f.W-w >= f.H-h },
	func(f Rect, w, h Length) bool { return (f.W-w).MM()*h.MM() < w.MM()*(f.H-h).MM() },
	func(Rect, Length, Length) bool { return true },
	func(Rect, Length, Length) bool { return false },
}

// Of many pieces only the rules that serve best are tried, and of very many as few as so many placings allow.
const (
	many    = 120
	placing = 6000
)

// Join puts what was laid on sheets of several kinds together.
func Join(all ...Layout) (out Layout) {
	area, used := 0.0, 0.0
	for _, l := range all {
		whole := 0.0
		for _, s := range l.Sheets {
			whole += s.W.MM() * s.H.MM()
		}
		area, used = area+whole, used+whole*l.Used
		out.Sheets, out.TooBig = append(out.Sheets, l.Sheets...), append(out.TooBig, l.TooBig...)
		out.Bound += l.Bound
	}
	switch {
	case len(all) == 1:
		out.Used = all[0].Used
	case area > 0:
		out.Used = used / area
	}
	return out
}

// Fit lays the pieces on sheets of one size.
func Fit(pieces []Piece, w, h Length) Layout { return fit(pieces, w, h, false) }

// Count gives how many sheets Fit would take, and how many of the pieces fit no sheet. It stops as soon as fewer
// is impossible.
func Count(pieces []Piece, w, h Length) (sheets, tooBig int) {
	got := fit(pieces, w, h, true)
	return len(got.Sheets), len(got.TooBig)
}

func fit(pieces []Piece, w, h Length, count bool) Layout {
	var all, lie, tooBig []Piece
	for _, p := range pieces {
		if !p.Lies(w, h) {
			tooBig = append(tooBig, p)
			continue
		}
		lie = append(lie, p)
		for range p.Count {
			all = append(all, p)
		}
	}
	least := Bound(lie, w, h)
	best := search(all, w, h, func(l Layout) bool { return count && len(l.Sheets) == least })
	best.TooBig, best.Bound = tooBig, least
	return best
}

// search tries the rules, until one is good enough, and gives the best.
func search(all []Piece, w, h Length, enough func(Layout) bool) (best Layout) {
	placed := 0
	for i, order := range orders {
		if i > 0 && len(all) > many {
			break
		}
		sorted := slices.Clone(all)
		slices.SortStableFunc(sorted, order)
		for k, fit := range fits {
			for s, split := range splits {
				if len(all) > many && (i > 0 || k > 1 || s > 2) || best.Sheets != nil && placed+len(all) > placing &&
					len(all) > many {
					continue
				}
				placed += len(all)
				if got := pack(sorted, w, h, rule{order, fit, split}); best.Sheets == nil || got.better(best) {
					if best = got; enough(best) {
						return best
					}
				}
			}
		}
	}
	return best
}

func (a Layout) better(b Layout) bool {
	if len(a.Sheets) != len(b.Sheets) {
		return len(a.Sheets) < len(b.Sheets)
	}
	if x, y := a.largest(), b.largest(); math.Abs(x-y) > 1 {
		return x > y
	}
	return a.cuts() < b.cuts()
}

func (a Layout) largest() (area float64) {
	for _, s := range a.Sheets {
		for _, o := range s.Offcuts {
			area = max(area, o.Area())
		}
	}
	return area
}

func (a Layout) cuts() (n int) {
	for _, s := range a.Sheets {
		n += len(s.Cuts)
	}
	return n
}

// open is a sheet being filled.
type open struct {
	Sheet
	free []Rect
}

func pack(pieces []Piece, w, h Length, r rule) Layout {
	var sheets []*open
	used := 0.0
	// A sheet that has no room for a size has none later.
	type size struct {
		w, h            Length
		upright, across bool
	}
	from := map[size]int{}
	for _, p := range pieces {
		if p.At != nil { // what has its place comes first
			sheets = append(sheets, spotted(p, w, h))
			used += p.W.MM() * p.H.MM()
		}
	}
	for _, p := range pieces {
		if p.At != nil {
			continue
		}
		of := size{p.W, p.H, p.Upright, p.Across}
		s, at, turned, skip := choose(sheets[from[of]:], p, r)
		from[of] += skip
		if s == nil {
			s = &open{Sheet: Sheet{W: w, H: h}, free: []Rect{{0, 0, w, h}}}
			sheets = append(sheets, s)
			_, at, turned, _ = choose([]*open{s}, p, r)
		}
		s.place(p, at, turned, r)
		used += p.W.MM() * p.H.MM()
	}
	var out Layout
	for _, s := range sheets {
		for _, f := range s.free {
			if f.W >= Keep && f.H >= Keep {
				s.Offcuts = append(s.Offcuts, f)
			}
		}
		slices.SortFunc(s.Offcuts, func(a, b Rect) int { return cmp.Compare(b.Area(), a.Area()) })
		out.Sheets = append(out.Sheets, s.Sheet)
	}
	if n := float64(len(sheets)); n > 0 {
		out.Used = used / (n * w.MM() * h.MM())
	}
	return out
}

// spotted begins a sheet with a piece in a place of its own: four cuts right across free it, and leave four rests.
func spotted(p Piece, w, h Length) *open {
	x, y := p.At.X, p.At.Y
	s := &open{Sheet: Sheet{W: w, H: h}}
	row := Rect{0, y, w, h - y}
	s.cut(Rect{0, 0, w, h}, false, y)
	s.cut(row, false, p.H)
	row.H = p.H
	s.cut(row, true, x)
	s.cut(Rect{x, y, w - x, p.H}, true, p.W)
	s.Placed = append(s.Placed, Placed{Piece: p.Name, Rect: Rect{x, y, p.W, p.H}})
	for _, rest := range []Rect{{0, 0, w, y}, {0, y + p.H, w, h - y - p.H}, {0, y, x, p.H}, {x + p.W, y, w - x - p.W, p.H}} {
		if rest.W > 0 && rest.H > 0 {
			s.free = append(s.free, rest)
		}
	}
	return s
}

// choose finds the free rectangle that suits a piece best, on the first sheet that takes it, and gives how many
// sheets before that have no room for it.
func choose(sheets []*open, p Piece, r rule) (s *open, at int, turned bool, skip int) {
	for i, s := range sheets {
		at, turned, best := -1, false, math.Inf(1)
		for i, f := range s.free {
			if !p.Across && p.W <= f.W && p.H <= f.H {
				if v := r.fit(f, p.W, p.H); v < best {
					at, turned, best = i, false, v
				}
			}
			if !p.Upright && p.H <= f.W && p.W <= f.H {
				if v := r.fit(f, p.H, p.W); v < best {
					at, turned, best = i, true, v
				}
			}
		}
		if at >= 0 {
			return s, at, turned, i
		}
	}
	return nil, 0, false, len(sheets)
}

func (s *open) place(p Piece, at int, turned bool, r rule) {
	f := s.free[at]
	w, h := p.W, p.H
	if turned {
		w, h = h, w
	}
	s.Placed = append(s.Placed, Placed{Piece: p.Name, Rect: Rect{f.X, f.Y, w, h}, Turned: turned})
	s.free = slices.Delete(s.free, at, at+1)
	right, below := Rect{f.X + w, f.Y, f.W - w, h}, Rect{f.X, f.Y + h, f.W, f.H - h}
	if !r.split(f, w, h) {
		right.H, below.W = f.H, w
		s.cut(f, true, w)
		s.cut(Rect{f.X, f.Y, w, f.H}, false, h)
	} else {
		s.cut(f, false, h)
		s.cut(Rect{f.X, f.Y, f.W, h}, true, w)
	}
	for _, rest := range []Rect{right, below} {
		if rest.W > 0 && rest.H > 0 {
			s.free = append(s.free, rest)
		}
	}
}

// cut notes a cut, unless the card ends there.
func (s *open) cut(in Rect, down bool, at Length) {
	if at > 0 && (down && at < in.W || !down && at < in.H) {
		s.Cuts = append(s.Cuts, Cut{in, down, at})
	}
}
