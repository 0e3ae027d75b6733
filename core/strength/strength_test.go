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
	card := Ply{T: 0.27, GSM: 216}
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
	// Buckling: (0.4 + 2.5)² π² √(DxDy)/0.1 = 8.41 × 9.8696 × 5.804e-3 / 0.1 = 4.817 N a wall,
	// four of them, halved: 982 g.
	walls := Panel{card, 100, 40, "length"}
	if g := Stands(walls, walls, walls, walls); !near(g, 982, 3e-3) {
		t.Errorf("the walls bear %.1f g", g)
	}
}

// More card never bears less; a longer span at the same sag never more; across the
// grain is weaker; and layers that are glued stiffen more than they weigh.
func TestTrends(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 9))
	for range 2000 {
		p := Panel{Ply{0.15 + r.Float64(), 120 + 600*r.Float64()}, 20 + 600*r.Float64(), 15 + 150*r.Float64(),
			[]string{"", "length", "width"}[r.IntN(3)]}
		q := p
		q.Ply = Glued(p.Ply, Ply{0.1 + r.Float64()/2, 80 + 200*r.Float64()})
		q.GSM = p.GSM / p.T * q.T // as dense
		for _, held := range []bool{false, true} {
			longer := p
			longer.Length *= 1 + 2*r.Float64()
			if Wall(longer, held) > Wall(p, held)*(1+1e-9) {
				t.Fatalf("a wall %.0f mm long holds more than one of %.0f mm: %+v", longer.Length, p.Length, p)
			}
			if Wall(q, held) <= Wall(p, held) || Wall(p, held) <= 0 {
				t.Fatalf("one layer more holds less: %+v", p)
			}
		}
		if Floor(q) <= Floor(p) || Stands(q) <= Stands(p)*q.T/p.T {
			t.Fatalf("one layer more bears less: %+v", p)
		}
		if Wall(p, true) < Wall(p, false) {
			t.Fatalf("a wall holds less when its rim is held: %+v", p)
		}
		if p.Pressure(0.002) <= p.Pressure(0.001) || p.Pressure(0) != 0 {
			t.Fatalf("it sags less under more: %+v", p)
		}
		short := p
		short.Length /= 2
		if short.Pressure(0.001) <= p.Pressure(0.001) {
			t.Fatalf("a shorter span gives more: %+v", p)
		}
		band := Belt{Ply{0.2, 160}, 5 + 20*r.Float64(), p.Width * r.Float64(), 4 * p.Length}
		higher := band
		higher.Up, higher.Wide = (band.Up+p.Width)/2, band.Wide*1.5
		if band.Helps(short) < band.Helps(p) || higher.Helps(p) <= band.Helps(p) {
			t.Fatalf("a band helps a longer wall more, or less when it is higher and wider: %+v", band)
		}
		strip := Panel{p.Ply, 1000, 40, "width"}
		weak := strip
		weak.Grain = "length"
		if Floor(weak) >= Floor(strip) { // the grain should run across the short span
			t.Fatalf("card is as strong across the grain: %+v", p.Ply)
		}
	}
	if none := (Panel{Ply{0.3, 200}, 0, 10, ""}); Floor(none) != 0 || Stands(none) != 0 || Wall(none, true) != 0 {
		t.Error("no panel bears something")
	}
}

// Walls of many lengths, heights and cards against the second reckoning, which knows no table: within 15 %,
// for a long wall whose rim is held never more than that.
func TestWallsAsReckonedTwice(t *testing.T) {
	worst := 0.0
	for _, c := range []Ply{{0.2, 160}, {0.81, 648}} {
		for _, high := range []float64{18, 70} {
			for i, long := range []float64{40, 80, 170, 300, 600} {
				for _, held := range []bool{false, true} {
					p := Panel{c, long, high, []string{"", "length", "width"}[i%3]}
					// the plate of the same card and the same size, its grain taken out by making it shorter
					along, up := p.Young()
					r := ritz{long / 1000 * math.Pow(up/along, 0.25), high / 1000, c.T / 1000, held, 3, 5}
					q := r.solve(min(high/12, 2)/1000) * up
					want := q * long * high / 1e6 / gravity / Margin / pushes * 1000
					off := Wall(p, held)/want - 1
					if held && long > 3*high {
						off = max(off, 0)
					}
					worst = max(worst, math.Abs(off))
					if math.Abs(off) > 0.15 {
						t.Errorf("%v x %v mm of %v, held %v: %.0f g, by the second reckoning %.0f g", long, high, c, held,
							Wall(p, held), want)
					}
				}
			}
		}
	}
	t.Logf("at worst %.1f %% apart", 100*worst)
}
