package least

import "slices"

// The exact search: of every part of the pieces, told by how many of each kind, the smallest rectangles that cuts
// right across can free it from (each is two smaller ones side by side or one above the other); then the cheapest
// way to share the pieces out among sheets. It looks at all there is, so it is for few pieces.

// Of so many pairs of parts at the most, and of so many parts.
const (
	mostPairs = 700_000
	mostParts = 5_000
)

// shape is a rectangle a part can be cut from, and how.
type shape struct {
	w, h   int64
	kind   int32 // a piece alone
	of     [2]int32
	shape  [2]int32 // which of their shapes
	beside bool     // the two lie side by side
}

// exact is that search.
type exact struct {
	*problem
	step  []int // what one more of a kind adds to the number of a part
	parts int
	of    [][]shape
	cost  []int64 // the least a part costs
	first []int   // the part on its first sheet
	alone []int   // the cheapest size a part lies on, -1 for none
}

// small reports whether everything can be looked at.
func (p *problem) small() bool {
	parts, pairs := 1, 1
	for _, k := range p.kinds {
		parts, pairs = parts*(k.n+1), pairs*(k.n+1)*(k.n+2)/2
		if k.at != nil || parts > mostParts || pairs > mostPairs {
			return false
		}
	}
	for i, s := range p.sizes {
		if long := max(s.w, s.h) + 2*int64(p.Sheets[i].Margin)/p.unit; p.reach > 0 && long > p.reach {
			return false
		}
	}
	return len(p.Pins) == 0 && p.total > 0
}

// exactly finds the least, nil when it takes more of a size than there is.
func (p *problem) exactly() (st *state, ok bool) {
	e := &exact{problem: p, parts: 1}
	for _, k := range p.kinds {
		e.step = append(e.step, e.parts)
		e.parts *= k.n + 1
	}
	e.of, e.alone = make([][]shape, e.parts), make([]int, e.parts)
	e.alone[0] = -1
	for part := 1; part < e.parts; part++ {
		e.shapes(part)
		e.alone[part] = e.cheapest(part)
	}
	e.share()
	if e.cost[e.parts-1] >= dear {
		return nil, false
	}
	return e.state()
}

// counts tells a part by how many of each kind it has.
func (e *exact) counts(part int) []int {
	out := make([]int, len(e.kinds))
	for i := range out {
		out[i] = part / e.step[i] % (e.kinds[i].n + 1)
	}
	return out
}

// within calls for every part of a part, from nothing to all of it.
func (e *exact) within(part int, each func(sub int)) {
	n := e.counts(part)
	at := make([]int, len(n))
	for sub := 0; ; {
		each(sub)
		i := 0
		for ; i < len(n); i++ {
			if at[i] < n[i] {
				at[i]++
				sub += e.step[i]
				break
			}
			sub -= at[i] * e.step[i]
			at[i] = 0
		}
		if i == len(n) {
			return
		}
	}
}

func (e *exact) fits(w, h int64) bool {
	return slices.ContainsFunc(e.sizes, func(s size) bool { return w <= s.w && h <= s.h })
}

// shapes finds the smallest rectangles of a part.
func (e *exact) shapes(part int) {
	area, pieces, one := int64(0), 0, 0
	for i, n := range e.counts(part) {
		area += e.kinds[i].area * int64(n)
		if pieces += n; n > 0 {
			one = i
		}
	}
	if !slices.ContainsFunc(e.sizes, func(s size) bool { return area <= s.area }) {
		return
	}
	if pieces == 1 {
		for _, way := range e.kinds[one].ways {
			if e.fits(way[0], way[1]) {
				e.keep(part, shape{w: way[0], h: way[1], kind: int32(one)})
			}
		}
		return
	}
	e.within(part, func(a int) {
		if b := part - a; a > 0 && a <= b {
			for i, x := range e.of[a] {
				for j, y := range e.of[b] {
					of, at := [2]int32{int32(a), int32(b)}, [2]int32{int32(i), int32(j)}
					e.keep(part, shape{x.w + y.w, max(x.h, y.h), free, of, at, true})
					e.keep(part, shape{max(x.w, y.w), x.h + y.h, free, of, at, false})
				}
			}
		}
	})
}

// keep adds a rectangle unless one that is known is no larger either way.
func (e *exact) keep(part int, s shape) {
	if !e.fits(s.w, s.h) {
		return
	}
	e.work--
	all := e.of[part]
	for _, o := range all {
		if o.w <= s.w && o.h <= s.h {
			return
		}
	}
	e.of[part] = append(slices.DeleteFunc(all, func(o shape) bool { return s.w <= o.w && s.h <= o.h }), s)
}

// cheapest is the cheapest size that a part lies on.
func (e *exact) cheapest(part int) int {
	best := -1
	for i, s := range e.sizes {
		if best >= 0 && s.cost >= e.sizes[best].cost || e.lying(part, i) < 0 {
			continue
		}
		best = i
	}
	return best
}

// lying is the shape in which a part lies on a size, -1 when it doesn't.
func (e *exact) lying(part, size int) int {
	for i, n := range e.counts(part) {
		if n > 0 && !e.kinds[i].on[size] {
			return -1
		}
	}
	return slices.IndexFunc(e.of[part], func(s shape) bool { return s.w <= e.sizes[size].w && s.h <= e.sizes[size].h })
}

const dear = int64(1) << 60

// share finds the cheapest sharing out: the first piece of a part is on some sheet.
func (e *exact) share() {
	e.cost, e.first = make([]int64, e.parts), make([]int, e.parts)
	for part := 1; part < e.parts; part++ {
		e.cost[part] = dear
		must := 0
		for i, n := range e.counts(part) {
			if n > 0 {
				must = i
			}
		}
		e.within(part, func(a int) {
			if a < e.step[must] || e.alone[a] < 0 {
				return
			}
			if c := e.sizes[e.alone[a]].cost + e.cost[part-a]; c < e.cost[part] {
				e.cost[part], e.first[part] = c, a
			}
		})
	}
}

// state lays the answer out.
func (e *exact) state() (*state, bool) {
	st := &state{opens: make([]int, len(e.sizes)), cost: e.cost[e.parts-1]}
	for part := e.parts - 1; part > 0; part -= e.first[part] {
		a := e.first[part]
		on := e.alone[a]
		if st.opens[on]++; e.sizes[on].count != Unlimited && st.opens[on] > e.sizes[on].count {
			return nil, false
		}
		t := newTree(on, e.sizes[on].w, e.sizes[on].h)
		e.lay(t, 0, a, e.lying(a, on))
		st.trees = append(st.trees, t)
	}
	return st, true
}

// lay lays a part into a free leaf in one of its shapes.
func (e *exact) lay(t *tree, at int32, part, which int) {
	s := e.of[part][which]
	if s.kind >= 0 {
		t.place(at, s.kind, s.w, s.h, true)
		t.used += e.kinds[s.kind].area
		return
	}
	x, y := e.of[s.of[0]][s.shape[0]], e.of[s.of[1]][s.shape[1]]
	for k, in := range []shape{x, y} {
		strip, rest := at, at
		if f := t.nodes[at]; s.beside && in.w < f.w {
			strip, rest = t.slice(at, in.w, f.h, true)
		} else if !s.beside && in.h < f.h {
			strip, rest = t.slice(at, f.w, in.h, false)
		}
		e.lay(t, strip, int(s.of[k]), int(s.shape[k]))
		at = rest
	}
}
