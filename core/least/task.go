// Package least looks for the least that pieces can be cut from, with cuts that go
// right across, and for the proof that less can't be done.
//
// A Task is laid quickly by rules, then improved by taking out and laying in anew (improve.go), searched to the end
// where it is small (exact.go), and where there are many alike cut by patterns that a linear programme chooses
// (patterns.go). What no arrangement can go below is told by the same programme and by what stretches pieces
// without making them overfill a sheet (bound.go). All work is counted, not timed: the same task has the same
// answer on any machine.
package least

import (
	"cmp"
	"slices"

	"brevium/core/layout"
	"brevium/core/measure"
)

type Length = measure.Length

// Aim is aim for.
type Aim int

const (
	Sheets Aim = iota // sheets that are bought, whatever their size
	Cost              // their price
	Card              // their area
)

// Tie is what is wanted among equals.
type Tie int

const (
	Offcut Tie = iota // the largest single rest
	Stops             // the fewest settings of the trimmer
)

// Unlimited is the Count of a size there is always more of.
const Unlimited = -1

// Size is a size of sheet, or an offcut: nothing is counted or paid for offcuts.
type Size struct {
	Name, Stock string
	W, H        Length
	Margin      Length // along each edge, keep pieces this far from the edge
	Price       int64
	Count       int // in hand, or Unlimited
	Offcut      bool
}

// Pin holds a copy of a piece in a place: on the sheet of that number, from 0.
type Pin struct {
	Piece  int // among the pieces
	Sheet  int
	Size   int // of which size that sheet is
	At     layout.Spot
	Turned bool
}

// Task is what is to be cut, and from what. Work is how much may be tried: Quick or Deep, or any number of steps.
type Task struct {
	Sheets  []Size
	Pieces  []Piece
	Pins    []Pin
	Longest Length // that the trimmer cuts; 0 for any
	Aim     Aim
	Tie     Tie
	Work    int
	Seed    uint64
}

// Piece is a layout.Piece that may be cut from any of several stocks, its own or these too. Pieces of one Run stay
// beside each other, in the order in which they are listed.
type Piece struct {
	layout.Piece
	Stocks []string
	Run    string
}

// On reports whether the piece may be cut from a stock.
func (p Piece) On(stock string) bool { return p.Stock == stock || slices.Contains(p.Stocks, stock) }

// Work is counted in looks at a place for a piece; a core of today looks some twenty million times a second.
const (
	Hasty = 300_000
	Quick = 2_000_000
	Deep  = 20_000_000
)

// mostArea is how large the area of a sheet is told: millions of them can be added. Of
// sides with odd fractions a square unit is too small for that; then pieces' areas are
// rounded down, and sheets' up, which keeps every bound true.
const mostArea = 1 << 40

// problem is a task in whole units, alike pieces together.
type problem struct {
	Task
	unit  int64 // nanometres
	kinds []kind
	sizes []size
	shift uint  // areas are told in so many times doubled square units, or they grew too large to add
	total int   // pieces
	reach int64 // the longest cut, in units; 0 for any
	work  int   // left
}

// kind is pieces that are alike.
type kind struct {
	w, h int64
	n    int
	ways [][2]int64 // as it may lie
	on   []bool     // sizes it lies on
	area int64
	name []int // the piece of each copy
	pins []int // of each copy that is pinned
	at   *layout.Spot
}

// size is a size of sheet, without its margin.
type size struct {
	w, h, area int64
	cost       int64
	count      int
}

func (t Task) problem() *problem {
	p := &problem{Task: t, unit: t.unit(), work: t.Work}
	for _, s := range t.Sheets {
		for a := int64(s.W) / p.unit * (int64(s.H) / p.unit) >> p.shift; a > mostArea; a >>= 1 {
			p.shift++
		}
	}
	for _, s := range t.Sheets {
		w, h := max(0, s.W-2*s.Margin), max(0, s.H-2*s.Margin)
		in := size{w: int64(w) / p.unit, h: int64(h) / p.unit, count: s.Count, cost: 1}
		in.area = (in.w*in.h + 1<<p.shift - 1) >> p.shift
		switch {
		case s.Offcut:
			in.cost = 0
		case t.Aim == Cost:
			in.cost = s.Price
		case t.Aim == Card:
			in.cost = int64(s.W/10000) * int64(s.H/10000) / 100 // in hundredths of a square millimetre
		}
		p.sizes = append(p.sizes, in)
	}
	p.reach = int64(t.Longest) / p.unit
	for i, piece := range t.Pieces {
		p.gather(i, piece)
	}
	slices.SortStableFunc(p.kinds, func(a, b kind) int { return cmp.Compare(b.area, a.area) })
	return p
}

// gather counts a piece to its kind.
func (p *problem) gather(i int, piece Piece) {
	up := func(l Length) int64 { return (int64(l) + p.unit - 1) / p.unit }
	k := kind{w: up(piece.W), h: up(piece.H), at: piece.At}
	k.area = k.w * k.h >> p.shift
	if !piece.Across {
		k.ways = append(k.ways, [2]int64{k.w, k.h})
	}
	if !piece.Upright && piece.At == nil && (k.w != k.h || piece.Across) {
		k.ways = append(k.ways, [2]int64{k.h, k.w})
	}
	for s, size := range p.sizes {
		lies := piece.On(p.Sheets[s].Stock) && slices.ContainsFunc(k.ways, func(w [2]int64) bool { return p.cuttable(w, size, s) })
		if in, at := p.Sheets[s], piece.At; at != nil {
			lies = lies && min(at.X, at.Y) >= in.Margin && at.X+piece.W <= in.W-in.Margin && at.Y+piece.H <= in.H-in.Margin
		}
		k.on = append(k.on, lies)
	}
	at := slices.IndexFunc(p.kinds, func(o kind) bool {
		return o.w == k.w && o.h == k.h && len(o.ways) == len(k.ways) && o.ways[0] == k.ways[0] && slices.Equal(o.on, k.on) &&
			(o.at == nil && k.at == nil || o.at != nil && k.at != nil && *o.at == *k.at)
	})
	if at < 0 {
		at, p.kinds = len(p.kinds), append(p.kinds, k)
	}
	for range piece.Count {
		p.kinds[at].name = append(p.kinds[at].name, i)
	}
	p.kinds[at].n += piece.Count
	p.total += piece.Count
}

// cuttable reports whether a piece can be cut out of a sheet of a size alone: it lies on
// it, and the trimmer is long enough for one of the two orders of cuts.
func (p *problem) cuttable(way [2]int64, s size, of int) bool {
	if way[0] > s.w || way[1] > s.h {
		return false
	}
	m := 2 * int64(p.Sheets[of].Margin) / p.unit
	down, across := way[0] < s.w || m > 0, way[1] < s.h || m > 0
	return p.reach == 0 || !down && !across || p.goes(s.h+m, down) && p.goes(min(way[0]+m, s.w+m), across) ||
		p.goes(s.w+m, across) && p.goes(min(way[1]+m, s.h+m), down)
}

// goes reports whether a cut so long can be made, if it is wanted.
func (p *problem) goes(long int64, wanted bool) bool {
	return !wanted || p.reach == 0 || long <= p.reach
}

// mostUnits is how many units a side may have: their square is a whole number still.
const mostUnits = 2_000_000_000

// unit is the largest length of which every side is a multiple. Of sheets of metres with
// odd fractions it is a few nanometres, to which pieces are rounded up.
func (t Task) unit() int64 {
	long := int64(0)
	unit := int64(0)
	gcd := func(l Length) {
		a, b := unit, int64(l)
		for b != 0 {
			a, b = b, a%b
		}
		unit = max(a, -a)
	}
	for _, s := range t.Sheets {
		long = max(long, int64(s.W), int64(s.H))
		gcd(s.W)
		gcd(s.H)
		gcd(s.Margin)
	}
	for _, p := range t.Pieces {
		gcd(p.W)
		gcd(p.H)
		if p.At != nil {
			gcd(p.At.X)
			gcd(p.At.Y)
		}
	}
	for _, p := range t.Pins {
		gcd(p.At.X)
		gcd(p.At.Y)
	}
	return max(unit, 1, (long+mostUnits-1)/mostUnits)
}

// all counts the copies of a kind, pinned ones too.
func (k kind) all() int { return k.n + len(k.pins) }
