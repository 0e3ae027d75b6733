package least

import (
	"cmp"
	"slices"

	"brevium/core/layout"
)

// namer gives each place the next copy of its kind.
type namer struct{ pins, rest int }

// sheets tells a state as sheets to cut.
func (p *problem) sheets(st *state) (out []layout.Sheet) {
	next := make([]namer, len(p.kinds))
	for _, t := range numbered(st.trees) {
		out = append(out, p.sheet(t, next))
	}
	return out
}

// numbered puts the sheets that a hand pinned something on where their numbers say, as far as there are so many.
func numbered(trees []*tree) (out []*tree) {
	for _, t := range trees {
		if !t.frozen {
			out = append(out, t)
		}
	}
	for _, t := range trees { // in the order of their numbers
		if t.frozen {
			out = slices.Insert(out, min(t.sheet, len(out)), t)
		}
	}
	return out
}

// sheet is one of them: the pieces where they lie, and the cuts in the order to make.
func (p *problem) sheet(t *tree, next []namer) layout.Sheet {
	on := p.Sheets[t.size]
	w := &walk{problem: p, t: t.clone(), next: next, margin: on.Margin,
		s: layout.Sheet{Stock: on.Stock, Title: on.Name, W: on.W, H: on.H, Offcut: on.Offcut, Of: t.size}}
	w.part(0, 0, 0, layout.Rect{W: on.W, H: on.H})
	slices.SortStableFunc(w.s.Offcuts, func(a, b layout.Rect) int { return cmp.Compare(b.Area(), a.Area()) })
	w.s.Cuts = layout.InOrder(w.s.Cuts)
	return w.s
}

// walk goes through a tree and notes what it comes to.
type walk struct {
	*problem
	t       *tree
	next    []namer
	margin  Length
	s       layout.Sheet
	unnamed bool
}

// part is a node at x, y; outer is the card it is cut from, with the margin where it lies along it.
func (w *walk) part(at int32, x, y int64, outer layout.Rect) {
	n := w.t.nodes[at]
	at0 := layout.Rect{X: Length(x*w.unit) + w.margin, Y: Length(y*w.unit) + w.margin, W: Length(n.w * w.unit),
		H: Length(n.h * w.unit)}
	switch {
	case n.kind >= 0:
		w.piece(n, at0, outer)
	case n.kind == free:
		if at0.W >= layout.Keep && at0.H >= layout.Keep {
			w.s.Offcuts = append(w.s.Offcuts, at0)
		}
	default:
		w.children(n, at, x, y, outer)
	}
}

func (w *walk) children(n node, at int32, x, y int64, outer layout.Rect) {
	list := w.t.inOrder(at)
	for i, c := range list {
		in := w.t.nodes[c]
		part := outer
		if i < len(list)-1 {
			if n.down {
				to := Length((x+in.w)*w.unit) + w.margin - outer.X
				w.s.Cuts = append(w.s.Cuts, layout.Cut{In: outer, Down: true, At: to})
				part.W, outer.X, outer.W = to, outer.X+to, outer.W-to
			} else {
				to := Length((y+in.h)*w.unit) + w.margin - outer.Y
				w.s.Cuts = append(w.s.Cuts, layout.Cut{In: outer, At: to})
				part.H, outer.Y, outer.H = to, outer.Y+to, outer.H-to
			}
		}
		w.part(c, x, y, part)
		if n.down {
			x += in.w
		} else {
			y += in.h
		}
	}
}

// inOrder lists the children of a part: as they lie where a hand pinned something, else
// the largest first, alike ones together, and what is left in one at the end.
func (t *tree) inOrder(at int32) (out []int32) {
	n := t.nodes[at]
	rest := none
	for c := n.first; c != none; c = t.nodes[c].next {
		if in := &t.nodes[c]; in.kind == free && !n.still {
			if rest == none {
				rest = c
			} else if n.down {
				t.nodes[rest].w += in.w
			} else {
				t.nodes[rest].h += in.h
			}
			continue
		}
		out = append(out, c)
	}
	if !n.still {
		slices.SortStableFunc(out, func(a, b int32) int {
			x, y := t.nodes[a], t.nodes[b]
			if n.down {
				return cmp.Compare(y.w, x.w)
			}
			return cmp.Compare(y.h, x.h)
		})
	}
	if rest != none {
		out = append(out, rest)
	}
	return out
}

// piece notes a piece, and the cuts that take the margin off it.
func (w *walk) piece(n node, at, outer layout.Rect) {
	if !w.unnamed {
		w.name(n, at)
	}
	sides := []func(){
		func() { outer = w.trim(outer, true, at.X-outer.X, true) },
		func() { outer = w.trim(outer, true, at.W, false) },
		func() { outer = w.trim(outer, false, at.Y-outer.Y, true) },
		func() { outer = w.trim(outer, false, at.H, false) },
	}
	if w.Longest > 0 && outer.H > w.Longest {
		sides[0], sides[1], sides[2], sides[3] = sides[2], sides[3], sides[0], sides[1]
	}
	for _, side := range sides {
		side()
	}
}

// name notes which piece it is.
func (w *walk) name(n node, at layout.Rect) {
	k, which := w.kinds[n.kind], &w.next[n.kind]
	i := 0
	if n.pinned {
		i = k.pins[which.pins]
		which.pins++
	} else {
		i = k.name[which.rest]
		which.rest++
	}
	turned := n.w != k.w || n.h != k.h || w.Pieces[i].Across
	w.s.Placed = append(w.s.Placed, layout.Placed{Piece: w.Pieces[i].Name, Rect: at, Turned: turned, Pinned: n.pinned, Of: i})
}

// trim cuts card at a length and keeps what is before it or after it.
func (w *walk) trim(in layout.Rect, down bool, to Length, after bool) layout.Rect {
	if to <= 0 || down && to >= in.W || !down && to >= in.H {
		return in
	}
	w.s.Cuts = append(w.s.Cuts, layout.Cut{In: in, Down: down, At: to})
	switch {
	case down && after:
		in.X, in.W = in.X+to, in.W-to
	case down:
		in.W = to
	case after:
		in.Y, in.H = in.Y+to, in.H-to
	default:
		in.H = to
	}
	return in
}
