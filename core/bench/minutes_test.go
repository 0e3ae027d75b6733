package bench_test

import (
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
)

// Minutes follow the work: ten boxes take longer than one and each of them less, for the table is
// set up once; what has more pieces, layers, loops or stuck places never takes less.
func TestMinutesFollowTheWork(t *testing.T) {
	for _, s := range style.Styles {
		l, w, d := 90, 70, 40
		switch s.ID {
		case "corner-shells":
			l = 70
		case "arched-box":
			d = 70
		}
		one := advice.Make(tried.Metric(s.ID, l, w, d), request.Default)
		ten := advice.Make(tried.Metric(s.ID, l, w, d, "copies", "10"), request.Default)
		if !one.OK() || !ten.OK() {
			t.Fatalf("%s: %v %v", s.ID, one.Problems, ten.Problems)
		}
		if a, b := one.Minutes(), ten.Minutes(); b <= a || b >= 10*a {
			t.Errorf("%s: one takes %d minutes, ten %d", s.ID, a, b)
		}
	}
	base := func(change func(b *brief.Brief)) int {
		b := tried.Metric("tray-lid", 90, 70, 40)
		change(&b)
		p := advice.Make(b, request.Default)
		if !p.OK() {
			t.Fatal(p.Problems)
		}
		return p.Minutes()
	}
	before := base(func(*brief.Brief) {})
	for name, more := range map[string][]func(b *brief.Brief){
		"layers": {func(b *brief.Brief) { b.Dress.Layers = []brief.Layer{{On: "lid", Border: "3 mm"}} },
			func(b *brief.Brief) { b.Dress.Layers = []brief.Layer{{On: "all", Border: "3 mm"}} },
			func(b *brief.Brief) {
				b.Dress.Layers = []brief.Layer{{On: "all", Border: "3 mm"}, {On: "all", Border: "3 mm"}}
			}},
		"bow": {func(b *brief.Brief) { b.Set("dress.bow.loops", "4") }, func(b *brief.Brief) { b.Set("dress.bow.loops", "9") }},
		"walls": {func(b *brief.Brief) { b.Set("box.options.walls", "rolled") },
			func(b *brief.Brief) { b.Set("box.options.walls", "rolled"); b.Set("box.options.lid-walls", "rolled") }},
		"band": {func(b *brief.Brief) { b.Set("dress.band.width", "20 mm") }},
	} {
		last := before
		for i, change := range more {
			now := base(change)
			if now < last || i == 0 && now == last {
				t.Errorf("%s: %d minutes, after %d with less", name, now, last)
			}
			last = now
		}
	}
}
