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
	var lie, tooBig []Piece
	n := 0
	for _, p := range pieces {
		if !p.Lies(w, h) {
			tooBig = append(tooBig, p)
			continue
		}
		lie, n = append(lie, p), n+p.Count
	}
	all := make([]Piece, 0, n)
	for _, p := range lie {
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
	in := fillings.Get().(*filling)
	defer fillings.Put(in)
	sorted := make([]Piece, len(all))
	for i, order := range orders {
		if i > 0 && len(all) > many {
			break
		}
		copy(sorted, all)
		slices.SortStableFunc(sorted, order)
		for k, fit := range fits {
			for s, split := range splits {
				if len(all) > many && (i > 0 || k > 1 || s > 2) || best.Sheets != nil && placed+len(all) > placing &&
					len(all) > many {
					continue
				}
				placed += len(all)
				if got := in.pack(sorted, w, h, rule{order, fit, split}); best.Sheets == nil || got.better(best) {
					if best = got.copied(); enough(best) {
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
