package drawings

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"brevium/core/sets"
)

// What a cutting machine does with a sheet: strokes of two tools, scores before cuts and what
// is within a piece before its rim, so that nothing moves while it is still worked on.

// Tool is a tool of the machine.
type Tool int

const (
	Scorer Tool = 1
	Knife  Tool = 2
)

// Stroke is one run of a tool with the tool down.
type Stroke struct {
	Tool   Tool
	Points []Point
	Within bool // a cut within a piece: a hole, a slit
}

// Strokes gives what the machine does with the nth sheet of a job, in order.
func Strokes(j sets.Job, n int) ([]Stroke, Drawing, error) {
	if warn := j.Warning(); warn != "" {
		return nil, Drawing{}, &Unproved{warn}
	}
	d, ok := OfSheet(j, n)
	if !ok {
		return nil, d, fmt.Errorf("there is no sheet %d", n+1)
	}
	return d.Strokes(), d, nil
}

// Unproved is a plan that is not handed to a machine because its proof does not hold.
type Unproved struct{ Why string }

func (u *Unproved) Error() string { return u.Why }

// segment is a straight piece of a cut or a score, with how it lies in its piece.
type segment struct {
	a, b   Point
	within bool
}

// Strokes orders all that the tools do on a sheet.
func (d Drawing) Strokes() []Stroke {
	var scores, inner, outer []Stroke
	var rims []segment
	for _, p := range d.Paths {
		switch p.Kind {
		case Valley, Mountain:
			scores = append(scores, Stroke{Scorer, p.Points, false})
		case Hole:
			inner = append(inner, Stroke{Knife, ring(p), true})
		case Cut:
			pts := p.Points
			if p.Closed {
				pts = append(slices.Clone(pts), pts[0])
			}
			for i := 1; i < len(pts); i++ {
				rims = append(rims, segment{pts[i-1], pts[i], p.Within})
			}
		}
	}
	for _, s := range d.once(rims) {
		st := Stroke{Knife, []Point{s.a, s.b}, s.within}
		if s.within {
			inner = append(inner, st)
		} else {
			outer = append(outer, st)
		}
	}
	at := Point{}
	out := make([]Stroke, 0, len(scores)+len(inner)+len(outer))
	for i, group := range [][]Stroke{scores, inner, outer} {
		var ordered []Stroke
		if group = linked(group); i < 2 {
			ordered = nearest(group, at)
		} else {
			ordered = d.freeing(group, inner, at)
		}
		if n := len(ordered); n > 0 {
			last := ordered[n-1].Points
			at = last[len(last)-1]
		}
		out = append(out, ordered...)
	}
	return out
}

// ring gives a hole as points to go round by.
func ring(p Path) []Point {
	if p.Round == 0 {
		return append(slices.Clone(p.Points), p.Points[0])
	}
	r := p.Round / 2
	n := max(16, int(math.Ceil(2*math.Pi/stepOf(r))))
	out := make([]Point, n+1)
	for i := range out {
		s, c := math.Sincos(2 * math.Pi * float64(i%n) / float64(n))
		out[i] = Point{p.Points[0].X + r*c, p.Points[0].Y + r*s}
	}
	return out
}

// once leaves of cuts that lie on each other one, and of those on the rim of the sheet none:
// where pieces lie side by side they share a cut.
func (d Drawing) once(all []segment) (out []segment) {
	type key struct {
		upright bool
		at      int64
	}
	spans := map[key][]segment{}
	var order []key
	for _, s := range all {
		switch {
		case same(s.a.X, s.b.X) && edgeOf(s.a.X, d.W), same(s.a.Y, s.b.Y) && edgeOf(s.a.Y, d.H):
			continue
		case !same(s.a.X, s.b.X) && !same(s.a.Y, s.b.Y):
			if !slices.ContainsFunc(out, func(o segment) bool { return o.isOn(s) }) {
				out = append(out, s)
			}
			continue
		}
		k := key{same(s.a.X, s.b.X), nanometres(s.a.Y)}
		if k.upright {
			k.at = nanometres(s.a.X)
		}
		if s.a.X+s.a.Y > s.b.X+s.b.Y {
			s.a, s.b = s.b, s.a
		}
		if spans[k] == nil {
			order = append(order, k)
		}
		spans[k] = append(spans[k], s)
	}
	for _, k := range order {
		out = append(out, joined(spans[k])...)
	}
	return out
}

// Lengths of the plan are whole nanometres, whatever way they came here: places that are one
// differ by far less, others by one at the least. Anything coarser has its halves.
func nanometres(mm float64) int64 { return int64(math.Round(mm * 1e6)) }

func same(a, b float64) bool { return math.Abs(a-b) < 4e-7 }

func (s segment) isOn(o segment) bool {
	on := func(a, b Point) bool { return same(a.X, b.X) && same(a.Y, b.Y) }
	return on(s.a, o.a) && on(s.b, o.b) || on(s.a, o.b) && on(s.b, o.a)
}

func edgeOf(at, size float64) bool { return at < 1e-6 || at > size-1e-6 }

// joined joins spans of one line that lap; what touches end to end stays two, so that a rim
// can be gone round.
func joined(all []segment) (out []segment) {
	along := func(p Point) float64 { return p.X + p.Y }
	slices.SortFunc(all, func(a, b segment) int { return cmp.Compare(along(a.a), along(b.a)) })
	for _, s := range all {
		n := len(out) - 1
		if n < 0 || along(s.a) >= along(out[n].b)-1e-6 {
			out = append(out, s)
			continue
		}
		out[n].within = out[n].within && s.within
		if along(s.b) > along(out[n].b) {
			out[n].b = s.b
		}
	}
	return out
}

// linked joins strokes that begin where another ends, so that the tool stays down.
func linked(all []Stroke) (out []Stroke) {
	type spot struct{ x, y int64 }
	of := func(p Point) spot { return spot{nanometres(p.X), nanometres(p.Y)} }
	ends := map[spot][]int{}
	for i, s := range all {
		ends[of(s.Points[0])] = append(ends[of(s.Points[0])], i)
		if last := of(s.Points[len(s.Points)-1]); last != of(s.Points[0]) {
			ends[last] = append(ends[last], i)
		}
	}
	used := make([]bool, len(all))
	for i, s := range all {
		if used[i] {
			continue
		}
		used[i] = true
		run := slices.Clone(s.Points)
		for _, back := range []bool{false, true} {
			for s.Tool == Knife && of(run[0]) != of(run[len(run)-1]) {
				k := slices.IndexFunc(ends[of(run[len(run)-1])], func(k int) bool { return !used[k] })
				if k < 0 {
					break
				}
				k = ends[of(run[len(run)-1])][k]
				used[k] = true
				next := all[k].Points
				if of(next[0]) != of(run[len(run)-1]) {
					next = slices.Clone(next)
					slices.Reverse(next)
				}
				run = append(run, next[1:]...)
			}
			if !back {
				slices.Reverse(run)
			}
		}
		out = append(out, Stroke{s.Tool, run, s.Within})
	}
	return out
}

// mostTurns bounds how long an order is bettered.
const mostTurns = 60

// takeNearest takes from strokes the one that may come next whose end is nearest, turned to begin
// there; the first where none may.
func takeNearest(left []Stroke, at Point, may func(Stroke) bool) (next Stroke, rest []Stroke) {
	best, back, least := 0, false, math.Inf(1)
	for i, s := range left {
		if !may(s) {
			continue
		}
		for _, b := range []bool{false, true} {
			if by := apartBy(at, end(s, b)); by < least-1e-9 {
				best, back, least = i, b, by
			}
		}
	}
	next = left[best]
	if back {
		next.Points = slices.Clone(next.Points)
		slices.Reverse(next.Points)
	}
	return next, slices.Delete(left, best, best+1)
}

// nearest orders strokes for little travel with the tool up: few by the least there is; more by
// going always to the nearest end, then bettered by turning stretches of the order round as
// long as that shortens the way.
func nearest(all []Stroke, at Point) (out []Stroke) {
	if len(all) <= fewStrokes {
		return shortestOrder(all, at)
	}
	left := slices.Clone(all)
	here := at
	for len(left) > 0 {
		var s Stroke
		s, left = takeNearest(left, here, func(Stroke) bool { return true })
		out = append(out, s)
		here = s.Points[len(s.Points)-1]
	}
	for range mostTurns {
		if !better(out, at) {
			break
		}
	}
	return out
}

// fewStrokes are ordered by the least travel of all orders.
const fewStrokes = 10

// shortestOrder is the order, and the way round for each, of least travel: the least of every
// set of strokes that are done is found from those of one fewer.
func shortestOrder(all []Stroke, at Point) []Stroke {
	n := len(all)
	type way struct {
		long float64
		from int // the last but one, twice and its way round
	}
	best := make([][]way, 1<<n) // by the set, and by the last: twice its number, and 1 if reversed
	for set := range best {
		best[set] = make([]way, 2*n)
		for last := range best[set] {
			i, back := last/2, last%2 == 1
			best[set][last] = way{math.Inf(1), -1}
			if rest := set &^ (1 << i); set&(1<<i) == 0 {
				continue
			} else if rest == 0 {
				best[set][last] = way{apartBy(at, end(all[i], back)), -1}
			} else {
				for before, w := range best[rest] {
					if long := w.long + apartBy(end(all[before/2], before%2 == 0), end(all[i], back)); long < best[set][last].long {
						best[set][last] = way{long, before}
					}
				}
			}
		}
	}
	out := make([]Stroke, n)
	set, last := 1<<n-1, 0
	for k := range 2 * n {
		if best[set][k].long < best[set][last].long {
			last = k
		}
	}
	for i := n - 1; i >= 0; i-- {
		out[i] = all[last/2]
		if last%2 == 1 {
			out[i].Points = slices.Clone(out[i].Points)
			slices.Reverse(out[i].Points)
		}
		set, last = set&^(1<<(last/2)), best[set][last].from
	}
	return out
}

// better turns stretches of the order round where that shortens the way and reports whether any
// did.
func better(all []Stroke, at Point) (did bool) {
	before := func(i int) Point {
		if i == 0 {
			return at
		}
		return end(all[i-1], true)
	}
	for i := range all {
		for k := i; k < len(all); k++ {
			now, then := apartBy(before(i), end(all[i], false)), apartBy(before(i), end(all[k], true))
			if k+1 < len(all) {
				now += apartBy(end(all[k], true), end(all[k+1], false))
				then += apartBy(end(all[i], false), end(all[k+1], false))
			}
			if then >= now-1e-9 {
				continue
			}
			did = true
			slices.Reverse(all[i : k+1])
			for n := i; n <= k; n++ {
				all[n].Points = slices.Clone(all[n].Points)
				slices.Reverse(all[n].Points)
			}
		}
	}
	return did
}

// end is where a stroke begins, or where it ends.
func end(s Stroke, last bool) Point {
	if last {
		return s.Points[len(s.Points)-1]
	}
	return s.Points[0]
}

func apartBy(a, b Point) float64 { return math.Hypot(a.X-b.X, a.Y-b.Y) }

// Travel is how far the tools go up in the air, from the corner of the sheet.
func Travel(all []Stroke) (sum float64) {
	at := Point{}
	for _, s := range all {
		sum += apartBy(at, s.Points[0])
		at = end(s, true)
	}
	return sum
}
