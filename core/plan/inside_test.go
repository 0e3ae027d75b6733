package plan

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/brief"
)

// Whatever kind of compartment, whatever things: what is planned is proved,
// dividers and all.
func TestRandomCompartmentsHold(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 12))
	planned := map[string]int{}
	why := map[string]int{}
	for range 1500 {
		b := random(r)
		b.Size = nil
		b.Contents = nil
		kind := []string{"none", "slotted", "partitions", "platform", "trays"}[r.IntN(5)]
		b.Arrange.Compartments = brief.Text(kind)
		shapes := []string{"block", "ball", "cylinder", "flat", "soft"}
		if kind == "platform" {
			shapes = []string{[]string{"ball", "cylinder"}[r.IntN(2)]}
		}
		mm := func(low, high int) brief.Text { return brief.Text(fmt.Sprintf("%d mm", low+r.IntN(high-low))) }
		kinds := 1 + r.IntN(3)
		if shapes[0] == "ball" {
			kinds = 1
		}
		for k := range kinds {
			b.Contents = append(b.Contents, brief.Item{Name: brief.Text(fmt.Sprint("thing ", k)), Shape: brief.Text(shapes[r.IntN(len(shapes))]),
				Length: mm(25, 70), Width: mm(25, 60), Height: mm(15, 60), Thickness: mm(2, 8), Diameter: mm(25, 50), Count: brief.Whole(fmt.Sprint(1 + r.IntN(5)))})
		}
		p := Make(b, Default)
		if !p.OK() {
			for _, pr := range p.Problems {
				why[kind+": "+pr.Field]++
			}
			continue
		}
		planned[kind]++
		for _, c := range p.Checks {
			if !c.Holds && !strings.HasPrefix(c.Name, "every piece lies") {
				t.Fatalf("%s: %s: %s, for %s", kind, c.Name, c.Figure, b.Encode())
			}
		}
	}
	t.Log(planned, why)
	for _, kind := range []string{"none", "slotted", "partitions", "platform", "trays"} {
		if planned[kind] < 100 {
			t.Errorf("only %d with %s were planned", planned[kind], kind)
		}
	}
}
