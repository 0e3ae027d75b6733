package readings_test

import (
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/readings"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
)

// bears gives what the plan says that a floor or walls bear, and its words.
func bears(t *testing.T, p *plan.Plan, code string) (grams float64, text string) {
	t.Helper()
	i := slices.IndexFunc(readings.Carries(p), func(c readings.Carry) bool { return c.Code == code })
	if i < 0 {
		t.Fatalf("nothing is said of the %s: %s, %v", code, tried.Said(p), p.Problems)
	}
	return readings.Carries(p)[i].Limit, readings.Carries(p)[i].Text
}

// Of every style, a longer box never holds more against its walls.
func TestLongerWallsHoldNoMore(t *testing.T) {
	for _, s := range style.Styles {
		before := 0.0
		for _, length := range []int{60, 75, 110, 160, 230, 330} {
			p := advice.Make(tried.Weighing(length, "box.style", s.ID), request.Default)
			if !p.OK() {
				continue
			}
			grams, says := bears(t, p, "walls")
			if before > 0 && grams > before*1.001 {
				t.Errorf("%s, %d mm: %.0f g where a shorter one holds %.0f g: %s", s.ID, length, grams, before, says)
			}
			before = grams
		}
	}
}

// Whatever is glued to a floor or to walls counts, and so does what holds the rims of the closed box.
func TestWhatIsGluedBears(t *testing.T) {
	layers := func(b *brief.Brief) { b.Dress = brief.Dress{Layers: []brief.Layer{{On: "all"}}} }
	liners := func(b *brief.Brief) { b.Dress = brief.Dress{Liners: []brief.Liner{{In: "all"}}} }
	for _, c := range []struct {
		code        string
		plain, more []string
		dressed     func(*brief.Brief)
		says        string
	}{
		{"walls", nil, []string{"box.options.walls", "rolled"}, nil, "closed, with the lid to help"},
		{"walls", nil, []string{"box.options.walls", "pinwheel"}, nil, "lid"},
		{"walls", []string{"box.style", "woven-basket"}, nil, layers, ""},
		{"floor", nil, nil, layers, ""},
		{"walls", nil, nil, layers, "lid"},
		{"walls", []string{"box.options.lid", "none"}, []string{"dress.outside", "1"}, nil, ""},
		{"walls", nil, nil, liners, "lid"},
		{"floor", nil, nil, liners, ""},
		{"floor", []string{"box.style", "sleeve-drawer"}, []string{"box.style", "wrap-cover"}, nil, ""},
		{"walls", nil, nil,
			func(b *brief.Brief) { b.Dress = brief.Dress{Band: brief.Belt{Way: "level"}} }, "closed, with the lid and paper band to help"},
	} {
		p := advice.Make(tried.Weighing(80, c.plain...), request.Default)
		b := tried.Weighing(80, append(slices.Clone(c.plain), c.more...)...)
		if c.dressed != nil {
			c.dressed(&b)
		}
		q := advice.Make(b, request.Default)
		less, _ := bears(t, p, c.code)
		more, text := bears(t, q, c.code)
		if more <= less*1.02 || !strings.Contains(text, c.says) {
			t.Errorf("%v, the %s: %.0f g, without %.0f g: %s", c.more, c.code, more, less, text)
		}
	}
}
