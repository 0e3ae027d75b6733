package plan

import (
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/box"
	"brevium/core/brief"
)

// Every style, over random sizes, cards, steps and every answer to every
// question it asks: what is planned is proved.
func TestEveryStyleHolds(t *testing.T) {
	for i, style := range box.Styles {
		t.Run(style.ID, func(t *testing.T) {
			t.Parallel()
			r := rand.New(rand.NewPCG(51, uint64(i)))
			planned := 0
			answered := map[string]int{}
			for n := 0; n < 6000 && planned < 2000; n++ {
				b := random(r)
				b.Box = brief.Box{Style: brief.Text(style.ID)}
				for _, o := range style.Options {
					if len(o.Choices) > 0 {
						b.Set("box.options."+o.ID, o.Choices[r.IntN(len(o.Choices))].ID)
					}
				}
				p := Make(b, Default)
				if !p.OK() {
					continue
				}
				planned++
				for id, answer := range b.Box.Options {
					answered[id+"="+string(answer)]++
				}
				for _, c := range p.Checks {
					if !c.Holds && !strings.HasPrefix(c.Name, "every piece lies") {
						t.Fatalf("%s: %s, for %s", c.Name, c.Figure, b.Encode())
					}
				}
			}
			if planned < 2000 {
				t.Errorf("only %d were planned", planned)
			}
			for _, o := range style.Options {
				for _, c := range o.Choices {
					if answered[o.ID+"="+c.ID] < 50 {
						t.Errorf("%s=%s was planned %d times", o.ID, c.ID, answered[o.ID+"="+c.ID])
					}
				}
			}
		})
	}
}
