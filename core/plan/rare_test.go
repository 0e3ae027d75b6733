package plan

import "testing"

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
		p := Make(dressed(metric(c.style, c.size[0], c.size[1], c.size[2], c.answers...), c.dress), Default)
		if why := said(p); why != "" || !p.OK() {
			t.Errorf("%s: %s %+v", c.why, why, p.Problems)
		}
	}
}

// What is said of two things alike is said once.
func TestWarnsOnce(t *testing.T) {
	b := sized("4 11/16", "3/4", "3/4", "box.style", "corner-shells", "box.options.shells", "one stuck", "tools.allowances", "plain",
		"tools.fit", "easy", "card.stock", "cover-270", "box.options.band-place", "1")
	loose := 0
	for _, w := range Make(b, Default).Warnings {
		if w.Code == "loose-lid" {
			loose++
			if len(w.Set) > 0 {
				t.Errorf("the band is no snugger for %v", w.Set)
			}
		}
	}
	if loose != 1 {
		t.Errorf("said %d times", loose)
	}
}
