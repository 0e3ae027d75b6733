package least

import (
	"math/rand/v2"
	"testing"
)

// filled looks through a tree: children fill their parent, leaves are as they are listed,
// and the pieces' areas add up. It gives how many pieces there are.
func filled(t *testing.T, tr *tree) (pieces int) {
	t.Helper()
	rests, used := map[int32]bool{}, int64(0)
	var look func(at int32)
	look = func(at int32) {
		n := tr.nodes[at]
		switch {
		case n.kind >= 0:
			pieces, used = pieces+1, used+n.w*n.h
		case n.kind == free:
			rests[at] = true
		default:
			along, count := int64(0), 0
			for c := n.first; c != none; c = tr.nodes[c].next {
				in := tr.nodes[c]
				if count++; in.up != at || n.down && in.h != n.h || !n.down && in.w != n.w {
					t.Fatalf("%+v stands in %+v", in, n)
				}
				if along += in.h; n.down {
					along += in.w - in.h
				}
				look(c)
			}
			if side := map[bool]int64{true: n.w, false: n.h}[n.down]; along != side || count < 2 {
				t.Fatalf("%d children fill %d of %d", count, along, side)
			}
		}
	}
	look(0)
	if used != tr.used || len(rests) != len(tr.rests) {
		t.Fatalf("%d used of %d, %d rests of %d", used, tr.used, len(rests), len(tr.rests))
	}
	for _, r := range tr.rests {
		if !rests[r] {
			t.Fatalf("%d is no rest", r)
		}
	}
	return pieces
}

// Whatever is laid and taken out, in whatever order, the parts fill the sheet; a copy is
// changed without its original; and of a sheet that is emptied one rest is left.
func TestTreeHolds(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 1))
	for range 400 {
		tr := newTree(0, 60+r.Int64N(60), 60+r.Int64N(60))
		pieces := 0
		for range 60 {
			before := tr.clone()
			if r.IntN(3) > 0 && len(tr.rests) > 0 {
				at := tr.rests[r.IntN(len(tr.rests))]
				f := tr.nodes[at]
				w, h := 1+r.Int64N(f.w), 1+r.Int64N(f.h)
				tr.place(at, 0, w, h, r.IntN(2) == 0)
				tr.used += w * h
				pieces++
			} else if pieces > 0 {
				var all []int32
				tr.each(0, func(at int32) { all = append(all, at) })
				at := all[r.IntN(len(all))]
				for up := tr.nodes[at].up; up != none && r.IntN(3) == 0; up = tr.nodes[at].up {
					at = up
				}
				tr.each(at, func(i int32) {
					tr.used -= tr.nodes[i].w * tr.nodes[i].h
					pieces--
				})
				tr.clear(at)
			}
			if filled(t, tr) != pieces {
				t.Fatalf("%d pieces are counted", pieces)
			}
			filled(t, before)
		}
		for pieces > 0 {
			var one int32
			tr.each(0, func(at int32) { one = at })
			tr.used -= tr.nodes[one].w * tr.nodes[one].h
			tr.clear(one)
			pieces--
		}
		if filled(t, tr); len(tr.rests) != 1 || tr.rests[0] != 0 {
			t.Fatalf("an emptied sheet is in %d rests", len(tr.rests))
		}
	}
}
