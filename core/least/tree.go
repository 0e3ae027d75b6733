package least

// A sheet that is being cut is a tree: a split part lies in children side by side (down) or one above the other,
// each as far across as the part itself, so any tree can be cut right across. The order of children is free, so all
// that is left over in a part lies in one child, and a piece that is taken out gives its place back to it.

const (
	free  = -1 // the kind of a leaf that nothing lies in
	split = -2
	gone  = -3
	none  = int32(-1)
)

// node is a part of a sheet, in units of the problem.
type node struct {
	w, h            int64
	up, first, next int32
	kind            int32 // of the piece that fills it, or free or split
	down            bool  // its children lie side by side
	still           bool  // its children keep their order: something lies where a hand put it
	pinned          bool
}

// tree is one sheet. nodes[0] is the whole.
type tree struct {
	nodes  []node
	spare  []int32 // unused nodes
	rests  []int32 // free leaves
	size   int     // which size of sheet
	used   int64   // area of its pieces
	frozen bool    // it begins with a hand's pins, and stays
	sheet  int     // which sheet that is, from 0
}

func newTree(size int, w, h int64) *tree {
	return &tree{nodes: []node{{w: w, h: h, up: none, first: none, next: none, kind: free}}, rests: []int32{0}, size: size}
}

func (t *tree) clone() *tree {
	c := *t
	n, r := len(t.nodes), len(t.rests)
	c.nodes, c.rests = make([]node, n, n+8), make([]int32, r, r+4)
	copy(c.nodes, t.nodes)
	copy(c.rests, t.rests)
	c.spare = append([]int32(nil), t.spare...)
	return &c
}

// add makes a node a child of another.
func (t *tree) add(up int32, n node) int32 {
	n.up, n.first, n.next = up, none, none
	if up != none {
		n.next = t.nodes[up].first
	}
	var at int32
	if k := len(t.spare); k > 0 {
		at, t.spare = t.spare[k-1], t.spare[:k-1]
		t.nodes[at] = n
	} else {
		at, t.nodes = int32(len(t.nodes)), append(t.nodes, n)
	}
	if up != none {
		t.nodes[up].first = at
	}
	if n.kind == free {
		t.rests = append(t.rests, at)
	}
	return at
}

func (t *tree) noRest(at int32) {
	for i, r := range t.rests {
		if r == at {
			last := len(t.rests) - 1
			t.rests[i], t.rests = t.rests[last], t.rests[:last]
			return
		}
	}
}

// drop takes a child out of its parent's list and forgets it.
func (t *tree) drop(at int32) {
	up := t.nodes[at].up
	for p := &t.nodes[up].first; *p != none; p = &t.nodes[*p].next {
		if *p == at {
			*p = t.nodes[at].next
			break
		}
	}
	if t.nodes[at].kind == free {
		t.noRest(at)
	}
	t.nodes[at].kind = gone
	t.spare = append(t.spare, at)
}

// place lays a piece into a corner of a free leaf: cut off down first, or across.
func (t *tree) place(at int32, kind int32, w, h int64, down bool) {
	for {
		f := t.nodes[at]
		if f.w == w && f.h == h {
			t.noRest(at)
			t.nodes[at].kind = kind
			return
		}
		if f.w == w {
			down = false
		} else if f.h == h {
			down = true
		}
		at, _ = t.slice(at, w, h, down)
	}
}

// slice cuts a strip for a piece off a free leaf and gives the strip and what is left, both free.
func (t *tree) slice(at int32, w, h int64, down bool) (strip, rest int32) {
	f := t.nodes[at]
	up := f.up
	if up == none || t.nodes[up].down != down || t.nodes[up].still {
		t.noRest(at)
		t.nodes[at].kind, t.nodes[at].down, t.nodes[at].first = split, down, none
		up = at
		at = t.add(up, node{w: f.w, h: f.h, kind: free})
	}
	cut := node{w: f.w, h: h, kind: free}
	if down {
		cut = node{w: w, h: f.h, kind: free}
		t.nodes[at].w -= w
	} else {
		t.nodes[at].h -= h
	}
	return t.add(up, cut), at
}

// clear empties a node and gives its room back: to the leaf beside it that is free,
// or to its parent when nothing else is left in that.
func (t *tree) clear(at int32) {
	for c := t.nodes[at].first; c != none; {
		next := t.nodes[c].next
		t.forget(c)
		c = next
	}
	t.nodes[at].first = none
	if t.nodes[at].kind != free {
		t.nodes[at].kind = free
		t.rests = append(t.rests, at)
	}
	up := t.nodes[at].up
	if up == none || t.nodes[up].still {
		return
	}
	for c := t.nodes[up].first; c != none; c = t.nodes[c].next {
		if c != at && t.nodes[c].kind == free {
			if t.nodes[up].down {
				t.nodes[at].w += t.nodes[c].w
			} else {
				t.nodes[at].h += t.nodes[c].h
			}
			t.drop(c)
			break
		}
	}
	if t.nodes[up].first == at && t.nodes[at].next == none {
		t.clear(up)
	}
}

// forget drops a node with all below it.
func (t *tree) forget(at int32) {
	for c := t.nodes[at].first; c != none; {
		next := t.nodes[c].next
		t.forget(c)
		c = next
	}
	if t.nodes[at].kind == free {
		t.noRest(at)
	}
	t.nodes[at].kind = gone
	t.spare = append(t.spare, at)
}

// each calls for every piece below a node.
func (t *tree) each(at int32, piece func(at int32)) {
	if t.nodes[at].kind >= 0 {
		piece(at)
	}
	for c := t.nodes[at].first; c != none; c = t.nodes[c].next {
		t.each(c, piece)
	}
}
