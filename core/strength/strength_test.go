package strength

import (
	"math"
	"math/rand/v2"
	"testing"
)

func near(a, b, part float64) bool { return math.Abs(a-b) <= part*math.Abs(b) }

// Against numbers worked by hand for card of 0.27 mm and 216 gsm, 800 kg a cubic
// metre: E is 4.8 and 2.16 GPa along and across, D = E t³/10.92 is 8.65 and 3.89 mN m.
func TestByHand(t *testing.T) {
	card := Card{T: 0.27, GSM: 216, Layers: 1}
	p := Panel{card, 100, 100, "length"}
	if l, w := p.Young(); !near(l, 4.8e9, 1e-9) || !near(w, 2.16e9, 1e-9) {
		t.Errorf("E is %v and %v", l, w)
	}
	if l, w := p.Bends(); !near(l, 8.652e-3, 1e-3) || !near(w, 3.893e-3, 1e-3) {
		t.Errorf("D is %v and %v", l, w)
	}
	// A square of 100 mm under a hair of sag only bends: (Dx + 2 √(DxDy) + Dy) π⁶/16 w/a⁴
	// = 24.153e-3 × 60.087 × 1e-6 / 1e-4 = 14.51 mPa for a micrometre.
	if q := p.Pressure(1e-6); !near(q, 14.51e-3, 2e-3) {
		t.Errorf("%v Pa for a micrometre", q)
	}
	// Of 2.5 mm, its limit, it hangs: π⁶/256 t (Ex + Ey)/a⁴ w³ = 3.7554 × 0.27e-3 × 6.96e9 /
	// 1e-4 × 1.5625e-8 = 1102.7 Pa, and 36.3 Pa of bending: 1139 Pa on 0.01 m², halved for
	// handling, are 581 g.
	if g := Floor(p); !near(g, 580.6, 2e-3) {
		t.Errorf("the floor carries %.1f g", g)
	}
	// A wall 100 x 40 is as the middle of one 100 x 80: 4.8e9/1 + 2.16e9/0.4096 = 10.073e9 over
	// a⁴, 1596 Pa and bending 55; on 0.004 m², of which a fifth leans: 1683 g.
	if g := Wall(Panel{card, 100, 40, "length"}); !near(g, 1683, 5e-3) {
		t.Errorf("the wall holds %.1f g", g)
	}
	// Buckling: (0.4 + 2.5)² π² √(DxDy)/0.1 = 8.41 × 9.8696 × 5.804e-3 / 0.1 = 4.817 N a wall,
	// four of them, halved: 982 g.
	walls := Panel{card, 100, 40, "length"}
	if g := Stands(walls, walls); !near(g, 982, 3e-3) {
		t.Errorf("the walls bear %.1f g", g)
	}
}

// More card never bears less; a longer span at the same sag never more; across the
// grain is weaker; and layers that are glued stiffen more than they weigh.
func TestTrends(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 9))
	for range 2000 {
		p := Panel{Card{0.15 + r.Float64()/2, 120 + 300*r.Float64(), 1 + r.IntN(3)}, 30 + 200*r.Float64(), 20 + 150*r.Float64(),
			[]string{"", "length", "width"}[r.IntN(3)]}
		q := p
		q.Layers++
		if Floor(q) <= Floor(p) || Wall(q) <= Wall(p) || Stands(q, q) < 2*Stands(p, p)*float64(q.Layers)/float64(p.Layers)/2 {
			t.Fatalf("one layer more bears less: %+v", p)
		}
		if p.Pressure(0.002) <= p.Pressure(0.001) || p.Pressure(0) != 0 {
			t.Fatalf("it sags less under more: %+v", p)
		}
		short := p
		short.Length /= 2
		if short.Pressure(0.001) <= p.Pressure(0.001) {
			t.Fatalf("a shorter span gives more: %+v", p)
		}
		strip := Panel{p.Card, 1000, 40, "width"}
		weak := strip
		weak.Grain = "length"
		if Floor(weak) >= Floor(strip) { // the grain should run across the short span
			t.Fatalf("card is as strong across the grain: %+v", p.Card)
		}
	}
	if none := (Panel{Card{0.3, 200, 1}, 0, 10, ""}); Floor(none) != 0 || Stands(none) != 0 {
		t.Error("no panel bears something")
	}
}
