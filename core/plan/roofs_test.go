package plan_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/request"
	"brevium/internal/tried"
)

// Contents that stand above the eaves lie inside the roof at every height, or
// it is told that no roof will do; and a roof as steep as is allowed still folds.
func TestRoofsOverContents(t *testing.T) {
	r := rand.New(rand.NewPCG(12, 12))
	made, refused := 0, 0
	for n := range tried.Boxes(7000) {
		b := brief.New("mm")
		mm := func(lo, hi int) brief.Text { return brief.Text(fmt.Sprintf("%d mm", lo+r.IntN(hi-lo))) }
		b.Contents = []brief.Item{{Name: "tin", Shape: []brief.Text{"cylinder", "block", "ball"}[r.IntN(3)],
			Diameter: mm(35, 80), Length: mm(35, 80), Width: mm(35, 60), Height: mm(45, 90), Count: "1"}}
		b.Room = brief.Room{Around: mm(0, 30), Proud: mm(0, 25)}
		b.Box = brief.Box{Style: []brief.Text{"gable-cap", "pinch-top"}[n%2]}
		b.Set("card.stock", []string{"light-160", "cover-216", "duplex-350"}[r.IntN(3)])
		b.Set("card.sheet", "a3")
		b.Set("card.join", "yes")
		p := tried.Unmended(b)
		if !p.OK() {
			refused++
			continue
		}
		made++
		for _, c := range p.Checks {
			if !c.Holds && !strings.HasPrefix(c.Name, "every piece fits") {
				t.Fatalf("%s: %s, for %s", c.Name, c.Figure, b.Encode())
			}
		}
	}
	if made < tried.Boxes(5000) || refused < tried.Boxes(500) {
		t.Errorf("%d made, %d refused", made, refused)
	}
	for _, step := range []int{11, 15, 20, 30} { // tenths of the width
		for _, style := range []string{"gable-cap:roof", "pinch-top:pinch"} {
			id, option, _ := strings.Cut(style, ":")
			b := tried.Sized("90 mm", "70 mm", "40 mm", "units", "mm", "tools.step", "1 mm", "card.sheet", "a3",
				"card.join", "yes", "box.style", id, "box.options."+option, fmt.Sprintf("%d mm", 7*step))
			if p := advice.Make(b, request.Default); !p.Holds() {
				t.Errorf("%s %d mm over 70 mm: %v %v", style, 7*step, p.Problems, p.Checks)
			}
		}
	}
}
