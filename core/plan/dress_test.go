package plan_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/style"
)

func TestTryDress(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	for _, s := range style.Styles {
		bad, held := map[string]int{}, 0
		for range 30 {
			b := brief.New("mm")
			b.Contents = nil
			b.Box.Style = brief.Text(s.ID)
			mm := func(lo, hi int) brief.Text { return brief.Text(fmt.Sprintf("%d mm", lo+r.IntN(hi-lo))) }
			b.Size = &brief.Size{Length: mm(60, 140), Width: mm(60, 140), Depth: mm(30, 90)}
			b.Card.Sheet = "600 x 600 mm"
			bare := plan.Make(b, plan.Default)
			if !bare.OK() || !bare.Holds() {
				continue
			}
			b.Dress.Layers = []brief.Layer{{On: "outside", Stock: "kraft-300"}, {On: "outside", Stock: "sprig-220"}}
			if s.Rooms == nil {
				b.Dress.Liners = []brief.Liner{{In: "all"}}
			}
			p := plan.Make(b, plan.Default)
			switch {
			case len(p.Problems) > 0:
				bad["P "+p.Problems[0].Field+p.Problems[0].Text]++
			case !p.Holds():
				bad["X "+assembly.Said(p.Checks)]++
			default:
				held++
			}
		}
		t.Log(s.ID, held)
		n := 0
		for k, v := range bad {
			if n++; n < 4 {
				t.Log("   ", v, k)
			}
		}
	}
}
