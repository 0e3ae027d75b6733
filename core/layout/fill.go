package layout

import (
	"cmp"
	"math"
	"slices"
	"sync"
)

// open is a sheet being filled.
type open struct {
	Sheet
	free []Rect
}

// filling is memory to lay pieces out in, by one rule after another.
type filling struct {
	sheets []*open
	n      int // of them are in use
	from   map[size]int
	out    []Sheet
}

// fillings holds those not in use. A layout that lasts is copied first.
var fillings = sync.Pool{New: func() any { return &filling{from: map[size]int{}} }}

// size is what tells pieces apart that are laid out.
type size struct {
	w, h            Length
	upright, across bool
}

// begin takes an empty sheet.
func (in *filling) begin(w, h Length) *open {
	if in.n == len(in.sheets) {
		in.sheets = append(in.sheets, &open{})
	}
	s := in.sheets[in.n]
	in.n++
	s.Sheet = Sheet{W: w, H: h, Placed: s.Placed[:0], Cuts: s.Cuts[:0], Offcuts: s.Offcuts[:0]}
	s.free = s.free[:0]
	return s
}

// pack lays pieces out by a rule. The layout is valid until pack is called again.
func (in *filling) pack(pieces []Piece, w, h Length, r rule) Layout {
	clear(in.from) // a sheet that has no room for a size has none later
	in.n, in.out = 0, in.out[:0]
	used := 0.0
	for _, p := range pieces {
		if p.At != nil { // what has its place comes first
			in.begin(w, h).spotted(p)
			used += p.W.MM() * p.H.MM()
		}
	}
	for _, p := range pieces {
		if p.At != nil {
			continue
		}
		of := size{p.W, p.H, p.Upright, p.Across}
		from := in.from[of]
		s, at, turned, skip := choose(in.sheets[from:in.n], p, r)
		if in.from[of] = from + skip; s == nil {
			s = in.begin(w, h)
			s.free = append(s.free, Rect{0, 0, w, h})
			_, at, turned, _ = choose(in.sheets[in.n-1:in.n], p, r)
		}
		s.place(p, at, turned, r)
		used += p.W.MM() * p.H.MM()
	}
	for _, s := range in.sheets[:in.n] {
		for _, f := range s.free {
			if f.W >= Keep && f.H >= Keep {
				s.Offcuts = append(s.Offcuts, f)
			}
		}
		slices.SortFunc(s.Offcuts, func(a, b Rect) int { return cmp.Compare(b.Area(), a.Area()) })
		in.out = append(in.out, s.Sheet)
	}
	out := Layout{Sheets: in.out}
	if n := float64(in.n); n > 0 {
		out.Used = used / (n * w.MM() * h.MM())
	}
	return out
}

// copied returns a layout that shares no memory with a.
func (a Layout) copied() Layout {
	a.Sheets = kept(a.Sheets)
	for i := range a.Sheets {
		s := &a.Sheets[i]
		s.Placed, s.Cuts, s.Offcuts = kept(s.Placed), kept(s.Cuts), kept(s.Offcuts)
	}
	return a
}

func kept[T any](all []T) []T { return append([]T(nil), all...) }

// spotted begins a sheet with a piece in a place of its own: four cuts right across free it, and leave four rests.
func (s *open) spotted(p Piece) {
	x, y, w, h := p.At.X, p.At.Y, s.W, s.H
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
