package plan_test

import (
	"testing"

	"brevium/core/advice"
	"brevium/core/measure"
	"brevium/core/readings"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/internal/tried"
)

// Boxes that are rare, each of a kind that once was planned and did not hold.
func TestRareBoxesHold(t *testing.T) {
	for _, c := range []struct {
		why, dress string
		style      string
		size       [3]int
		answers    []string
	}{
		{"a notch beside what is cut away", `{"grips": [{"kind": "notch", "on": "left"}]}`, "corner-shells", [3]int{60, 60, 40}, nil},
		{"a band round shells of thicker card than the tray", `{}`, "corner-shells", [3]int{38, 32, 30}, []string{"card.stock",
			"dots-120", "card.stocks.lid", "duplex-350", "card.stocks.band", "cover-270", "tools.step", "0.5 mm", "tools.fit", "snug"}},
		{"layers on a wall that webs lie over", `{"layers": [{"on": "sides", "border": "3 mm", "stock": "kraft-300"}, {"on": "sides"}]}`,
			"fold-flat", [3]int{64, 41, 35}, []string{"box.options.webs", "outside", "box.options.stuck", "no", "card.stock", "dots-120"}},
		{"low sides of thick card, in plain numbers", `{}`, "arched-box", [3]int{29, 33, 27}, []string{"card.stock", "duplex-350",
			"box.options.closure", "pull", "box.options.cover", "rolled", "tools.allowances", "plain", "tools.step", "0.5 mm"}},
	} {
		p := advice.Make(tried.Dressed(tried.Metric(c.style, c.size[0], c.size[1], c.size[2], c.answers...), c.dress), request.Default)
		if why := tried.Said(p); why != "" || !p.OK() {
			t.Errorf("%s: %s %+v", c.why, why, p.Problems)
		}
	}
}

// The play of a band round shells is its own, not that of the shells on their tray: the ease of the fit and
// what the marks rounded up.
func TestBandsPlay(t *testing.T) {
	for fit, ease := range shop.Slack {
		for long := 30; long < 60; long++ {
			p := advice.Make(tried.Metric("corner-shells", long, 36, 19, "box.options.shells", "one stuck", "tools.fit", fit), request.Default)
			read := 0
			for _, s := range readings.Sections(p) {
				if s.Outer != "band" {
					continue
				}
				if read++; s.Play < ease-measure.Millimetre/100 || s.Play > ease+measure.Millimetre {
					t.Errorf("%s, %d long: %s over the %s", fit, long, s.Play.Exact(measure.Millimetres), s.Inner)
				}
			}
			if read != 2 {
				t.Fatalf("%d bands: %+v", read, p.Problems)
			}
		}
	}
}

// What is said of two things alike is said once.
func TestWarnsOnce(t *testing.T) {
	b := tried.Metric("corner-shells", 33, 136, 19, "box.options.shells", "one stuck", "tools.step", "1/16 in", "tools.fit", "loose")
	loose := 0
	for _, w := range advice.Make(b, request.Default).Warnings {
		if w.Code == "loose-lid" {
			loose++
		}
	}
	if loose != 1 {
		t.Errorf("said %d times", loose)
	}
}
