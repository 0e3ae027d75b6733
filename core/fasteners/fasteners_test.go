package fasteners_test

import (
	"strings"
	"testing"

	"brevium/core/assembly"
	"brevium/core/fasteners"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/wish"
)

// Whoever closes a box by a fastener, a style or the dressing, asks for one that there is, and each has one price.
func TestEveryClosureIsToldOnce(t *testing.T) {
	asked := append([]string{}, wish.Closures...)
	for _, s := range style.Styles {
		if q, ok := s.For(style.Closing); ok {
			for _, c := range q.Choices {
				asked = append(asked, c.ID)
			}
		}
	}
	used := map[string]bool{}
	for _, answer := range asked {
		if k, ok := fasteners.Chosen(answer); ok {
			used[k.Name] = true
		}
	}
	for _, k := range fasteners.Kinds {
		if again, ok := fasteners.Called(k.Name); !used[k.Name] || !ok || again.Radius != k.Radius {
			t.Errorf("nobody closes anything by a %s", k.Name)
		}
		if _, ok := shop.PriceOf(k.Name); !ok {
			t.Errorf("a %s has no price", k.Name)
		}
		if k.Through == (k.Flat() > 0) || k.Through && k.Hidden {
			t.Errorf("a %s lies on card or goes through it: %+v", k.Name, k)
		}
	}
}

// What is bought names both faces, what goes through has its step, and care is said once.
func TestHold(t *testing.T) {
	for _, c := range []struct{ answer, bought, step, care string }{
		{"magnet", "2 magnet: a pair of thin disc magnets, one inside the lap and one inside the front", "", "Small magnets"},
		{"dot", "1 hook dot: one hook dot, both halves: one on the lap, one on the front where it comes to lie", "", ""},
		{"restick", "1 glue dot: one removable glue dot: on the lap", "", ""},
		{"brad", "1 brad: one brad: pierce the lap and the front together", "Close: Push the brad through the lap and the front", ""},
		{"ribbon", "1 ribbon: a ribbon of 300 mm, through the lap and the front",
			"Put together: Thread the ribbon through the hole in the front", "Ribbon and cord"},
	} {
		k, _ := fasteners.Chosen(c.answer)
		b, long := &assembly.Box{}, ""
		if k.Long > 0 {
			long = k.Long.Exact("mm")
		}
		for range 2 {
			s := k.Hold(b, assembly.Pair{A: "cover/lap", B: "cover/front", Radius: k.Radius}, "lap", "front", long)
			if got := string(rune('0'+s.Count)) + " " + s.What + ": " + s.Text; !strings.HasPrefix(got, c.bought) {
				t.Errorf("bought %q", got)
			}
		}
		steps := ""
		for _, e := range b.Errands {
			steps += e.Title + ": " + e.Says + " "
		}
		if !strings.Contains(steps, c.step) || (c.step == "") != (steps == "") || len(b.Pairs) != 2 || b.Pairs[0].What != k.Name {
			t.Errorf("%s: %q, %v", c.answer, steps, b.Pairs)
		}
		if care := strings.Join(b.Cautions, "|"); !strings.HasPrefix(care, c.care) || len(b.Cautions) > 1 || (c.care == "") != (care == "") {
			t.Errorf("%s: cautions %q", c.answer, care)
		}
	}
}
