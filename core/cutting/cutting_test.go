package cutting_test

import (
	"math/rand/v2"
	"testing"

	"brevium/core/cutting"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/internal/tried"
)

// table is a random box on the cutting table; nil where there is none.
func table(r *rand.Rand, set ...string) *cutting.Table {
	b := tried.Random(r)
	b.Set("copies", []string{"1", "3", "8"}[r.IntN(3)])
	b.Set("card.sheet", []string{"a3", "a4", "12x12", "least"}[r.IntN(4)])
	b.Set("card.join", []string{"", "yes"}[r.IntN(2)])
	b.Set("sheets.sizes", []string{"", "any"}[r.IntN(2)])
	if r.IntN(3) == 0 {
		b = tried.Dressed(b, `{"layers": [{"on": "sides", "run": true}], "band": {"way": "across"}, "liners": [{"in": "floor"}]}`)
	}
	for i := 0; i+1 < len(set); i += 2 {
		b.Set(set[i], set[i+1])
	}
	if p := plan.Make(b, request.Default); p.Box != nil {
		return &p.Table
	}
	return nil
}

// laid counts what lies on the sheets of some cuts and what could not be laid, by name.
func laid(cuts []cutting.Cut) map[string]int {
	n := map[string]int{}
	for _, c := range cuts {
		for _, s := range c.Sheets {
			for _, p := range s.Placed {
				n[p.Piece]++
			}
		}
		for _, p := range c.TooBig {
			n[p.Name] += p.Count
		}
	}
	return n
}

// Whatever is laid, by the quick rules or by a search, is each blank as often as it is wanted; every sheet can be cut; and
// the search never has more than the quick rules had, stopped or not.
func TestEverythingIsCut(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 5))
	for n := range tried.Fewer(1200) {
		box := table(r)
		if box == nil {
			continue
		}
		want := map[string]int{}
		blanks := box.ToLay(box.Box, box.Copies)
		for _, l := range blanks {
			want[l.Name] += l.Count
		}
		quick := box.OnSheets(blanks)
		tasks := box.Tasks()
		stopped := cutting.Search(tasks, func(float64, []cutting.Found, bool) bool { return r.IntN(3) > 0 })
		for how, cuts := range map[string][]cutting.Cut{"quick": quick, "searched": cutting.Cuts(cutting.Search(tasks, nil)),
			"stopped": cutting.Cuts(stopped)} {
			got, sheets, had := laid(cuts), 0, 0
			for name, count := range want {
				if got[name] != count {
					t.Fatalf("%d, %s: %d of %d %s are laid", n, how, got[name], count, name)
				}
			}
			for _, c := range cuts {
				sheets += len(c.Sheets)
				for _, s := range c.Sheets {
					if err := s.Check(0); err != nil {
						t.Fatalf("%d, %s: %v", n, how, err)
					}
				}
			}
			for _, c := range quick {
				had += len(c.Sheets)
			}
			if !box.Cutting.Any && !box.Least && sheets > had {
				t.Fatalf("%d, %s: %d sheets, and the quick rules have %d", n, how, sheets, had)
			}
		}
	}
}

// A piece too large is cut in two on a mark, its halves and the strip behind the joint as long as it, the joint no nearer
// to a score than the strip is wide.
func TestJoints(t *testing.T) {
	r, joined := rand.New(rand.NewPCG(26, 6)), 0
	for range 120 {
		box := table(r, "card.join", "yes", "card.sheet", "130 x 90 mm", "copies", "1")
		if box == nil {
			continue
		}
		for _, piece := range box.Box.Pieces() {
			if !box.Joined(piece) {
				continue
			}
			joined++
			j := box.Joint(piece)
			long := piece.Height
			if j.AlongWidth {
				long = piece.Width
			}
			if j.At <= 0 || j.At >= long || j.At%box.Step.Size != 0 {
				t.Fatalf("%s is joined at %v of %v", piece.Name, j.At, long)
			}
			halves := box.Blanks(piece, 1)
			sum, high := halves[0].H+halves[1].H, halves[0].W
			if j.AlongWidth {
				sum, high = halves[0].W+halves[1].W, halves[0].H
			}
			if sum != long || halves[2].H != high || halves[2].W < 2*box.Adhesive.Width {
				t.Fatalf("%s, %v × %v: %+v", piece.Name, piece.Width, piece.Height, halves)
			}
		}
	}
	if joined < 30 {
		t.Errorf("only %d pieces are joined: this proves little", joined)
	}
}
