package least

import (
	"fmt"
	"slices"
)

// A frame is a sheet on which a hand has put pieces: cut so that each comes free, and
// what lies between is left for the rest.

// held is a pinned piece on its sheet.
type held struct {
	x, y, w, h int64
	kind       int32
}

// frames builds the sheets that hold pins, and takes what lies there off the counts.
func (p *problem) frames() ([]*tree, error) {
	bySheet := map[int][]held{}
	sizes, order := map[int]int{}, []int{}
	for i, pin := range p.Pins {
		k := slices.IndexFunc(p.kinds, func(k kind) bool { return slices.Contains(k.name, pin.Piece) })
		if k < 0 || pin.Size < 0 || pin.Size >= len(p.sizes) {
			return nil, fmt.Errorf("pin %d holds more of %s than there are to cut: take the pin off", i+1, p.called(pin.Piece))
		}
		if other, ok := sizes[pin.Sheet]; ok && other != pin.Size {
			return nil, fmt.Errorf("pin %d asks for another size of sheet than the pin before it on sheet %d", i+1, pin.Sheet+1)
		} else if !ok {
			order = append(order, pin.Sheet)
		}
		sizes[pin.Sheet] = pin.Size
		m := p.Sheets[pin.Size].Margin
		h := held{int64(pin.At.X-m) / p.unit, int64(pin.At.Y-m) / p.unit, p.kinds[k].w, p.kinds[k].h, int32(k)}
		if pin.Turned {
			h.w, h.h = h.h, h.w
		}
		if !slices.Contains(p.kinds[k].ways, [2]int64{h.w, h.h}) {
			return nil, fmt.Errorf("%s must not lie that way: turn it back, or take its pin off", p.called(pin.Piece))
		}
		if s := p.sizes[pin.Size]; h.x < 0 || h.y < 0 || h.x+h.w > s.w || h.y+h.h > s.h || !p.kinds[k].on[pin.Size] {
			return nil, fmt.Errorf("%s does not lie on %s where it is pinned: move it inwards", p.called(pin.Piece),
				p.Sheets[pin.Size].Name)
		}
		for _, o := range bySheet[pin.Sheet] {
			if h.x < o.x+o.w && o.x < h.x+h.w && h.y < o.y+o.h && o.y < h.y+h.h {
				return nil, fmt.Errorf("%s is pinned over another piece: move one of them", p.called(pin.Piece))
			}
		}
		p.take(k, pin.Piece)
		bySheet[pin.Sheet] = append(bySheet[pin.Sheet], h)
	}
	var out []*tree
	slices.Sort(order)
	for _, sheet := range order {
		size := sizes[sheet]
		t := newTree(size, p.sizes[size].w, p.sizes[size].h)
		if t.frozen, t.sheet = true, sheet; !p.frame(t, 0, 0, 0, bySheet[sheet]) {
			return nil, fmt.Errorf("the pieces pinned on sheet %d can't be freed by cuts that go right across%s: move one", sheet+1,
				map[bool]string{true: ", as long as the trimmer"}[p.reach > 0])
		}
		out = append(out, t)
	}
	return out, nil
}

func (p *problem) called(piece int) string {
	if piece < 0 || piece >= len(p.Pieces) {
		return fmt.Sprintf("piece %d", piece+1)
	}
	return p.Pieces[piece].Name
}

// take counts a copy of a piece of a kind as laid: it is among those pinned.
func (p *problem) take(k, piece int) {
	kind := &p.kinds[k]
	i := slices.Index(kind.name, piece)
	kind.name = slices.Delete(kind.name, i, i+1)
	kind.pins = append(kind.pins, piece)
	kind.n--
}

// frame cuts a leaf so that what is held comes free; false when it can't.
func (p *problem) frame(t *tree, at int32, x, y int64, on []held) bool {
	n := t.nodes[at]
	if len(on) == 0 {
		return true
	}
	if h := on[0]; len(on) == 1 && h.x == x && h.y == y && h.w == n.w && h.h == n.h {
		t.noRest(at)
		t.nodes[at].kind, t.nodes[at].pinned = h.kind, true
		t.used += p.kinds[h.kind].area
		return true
	}
	down, to, ok := p.parting(n, x, y, on, 2*int64(p.Sheets[t.size].Margin)/p.unit)
	if !ok {
		return false
	}
	var first, second []held
	for _, h := range on {
		if down && h.x < x+to || !down && h.y < y+to {
			first = append(first, h)
		} else {
			second = append(second, h)
		}
	}
	t.noRest(at)
	t.nodes[at].kind, t.nodes[at].down, t.nodes[at].still, t.nodes[at].first = split, down, true, none
	a, b := node{w: n.w, h: to, kind: free}, node{w: n.w, h: n.h - to, kind: free}
	dx, dy := int64(0), to
	if down {
		a, b = node{w: to, h: n.h, kind: free}, node{w: n.w - to, h: n.h, kind: free}
		dx, dy = to, 0
	}
	after := t.add(at, b)
	before := t.add(at, a)
	return p.frame(t, before, x, y, first) && p.frame(t, after, x+dx, y+dy, second)
}

// parting is the cut across a leaf that goes through nothing held and leaves the most
// on a side where nothing is held.
func (p *problem) parting(n node, x, y int64, on []held, m int64) (down bool, to int64, ok bool) {
	best := int64(-1)
	try := func(d bool, at int64) {
		side, across := n.h, n.w
		if d {
			side, across = n.w, n.h
		}
		if at <= 0 || at >= side || !p.goes(across+m, true) {
			return
		}
		before, after := 0, 0
		for _, h := range on {
			lo, hi := h.y-y, h.y-y+h.h
			if d {
				lo, hi = h.x-x, h.x-x+h.w
			}
			switch {
			case hi <= at:
				before++
			case lo >= at:
				after++
			default:
				return
			}
		}
		empty := int64(0)
		if before == 0 {
			empty = at * across
		} else if after == 0 {
			empty = (side - at) * across
		}
		if empty > best {
			best, down, to, ok = empty, d, at, true
		}
	}
	for _, h := range on {
		try(true, h.x-x)
		try(true, h.x-x+h.w)
		try(false, h.y-y)
		try(false, h.y-y+h.h)
	}
	return down, to, ok
}
