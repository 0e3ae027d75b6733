package web

import (
	"sync"
	"testing"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
)

// A plan is made once for a document and a shop, however many ask at once; a change of the shop makes anew only what uses
// what changed.
func TestPlansAreKept(t *testing.T) {
	a := newApp(t)
	made := map[string]int{}
	look := func() {
		w := a.server.Workshop(t.Context())
		var all sync.WaitGroup
		for _, card := range []string{"cover-216", "kraft-300"} {
			b := brief.New("mm")
			b.Card.Stock = brief.Text(card)
			for range 4 {
				all.Go(func() {
					a.server.Plans.Advised.Get(card, w, func(w request.Workshop) *plan.Plan {
						made[card]++ // nobody else is making it
						return plan.Make(b, w)
					})
				})
			}
			all.Wait()
		}
	}
	for _, c := range []struct {
		field, text  string
		cover, kraft int
	}{{"", "", 1, 1}, {"cards.@kraft-300.hand", "7", 1, 2}, {"prices.wage", "12", 1, 2}, {"cards.@cover-216.caliper", "0.4 mm", 2, 2},
		{"habits.walls", "rolled", 3, 3}} {
		if c.field != "" {
			a.post("/shop/change", c.field, c.text)
		}
		if look(); made["cover-216"] != c.cover || made["kraft-300"] != c.kraft {
			t.Errorf("after %s: %v", c.field, made)
		}
	}
}
