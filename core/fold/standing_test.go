package fold

import (
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/net"
)

// open is a tray of four walls without tabs, so large from score to score, folded.
func open(name string, l, w, h measure.Length, t float64) *Body {
	p := net.Grid(name, net.Cols(h, l, h), net.Rows(h, w, h), ". back .\nleft base right\n. front .")
	p.Root = "base"
	p.FoldUp("left", "right", "back", "front")
	p.Meet("back", "left")
	p.Find()
	return Folded(p, t)
}

// sized are random sizes of a tray, and a caliper.
func sized(r *rand.Rand) (l, w, h measure.Length, t float64) {
	size := func(lo, hi int) measure.Length { return measure.Length(lo+r.IntN(hi-lo)) * mm }
	return size(40, 120), size(30, 90), size(12, 60), 0.2 + 0.3*r.Float64()
}

// A tray measures a caliper more outside than from score to score and one less inside, its rim is its walls, nothing is
// above it, and a lid that is larger by so much clears it by half of that on each side, less the card.
func TestMeasures(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 10))
	for n := range 200 {
		l, w, h, cal := sized(r)
		base := open("base", l, w, h, cal)
		lo, hi := Extent(base)
		if out := hi.Sub(lo).Sub(Vec{l.MM() + cal, w.MM() + cal, h.MM() + cal/2}); out.Len() > 1e-6 {
			t.Fatalf("%d: outside it is off by %v", n, out)
		}
		if rim := base.Rim(); math.Abs(rim-h.MM()) > 1e-6 {
			t.Fatalf("%d: its rim is at %.3f, of %.3f", n, rim, h.MM())
		}
		in := Room(Vec{-200, -200, -1}, Vec{200, 200, h.MM()}, Vec{0, 0, h.MM() / 2}, Vec{}, base)
		if less := in.Out.Sub(in.In).Sub(Vec{l.MM() - cal, w.MM() - cal, h.MM() - cal/2}); in.Shaped || less.Len() > 1e-6 {
			t.Fatalf("%d: inside it is off by %v", n, less)
		}
		if Covered(Vec{}, h.MM()/2, base) != Open {
			t.Fatalf("%d: an open tray is covered", n)
		}
		gap := measure.Length(1+r.IntN(40)) * mm / 10
		lid := open("lid", l+gap, w+gap, h/2, cal)
		lid.Turn(Vec{X: 1}, math.Pi)
		lid.Move(Vec{Z: h.MM() + cal})
		if Covered(Vec{}, h.MM()/2, base, lid) != Flat {
			t.Fatalf("%d: a lid does not cover it", n)
		}
		clears := Clears(lid, base, 0, func(string) float64 { return 0 }, "left", "right", "front", "back")
		if want := gap.MM()/2 - cal; clears.Holds != (want > tolerance) && math.Abs(want-tolerance) > 1e-6 {
			t.Fatalf("%d: with %.2f mm a side it clears: %v (%s)", n, want, clears.Holds, clears.Figure)
		}
		for _, side := range Clearances(lid, base) {
			if math.Abs(side.Walls-(gap.MM()/2-cal)) > 1e-6 && side.Side != "above" {
				t.Fatalf("%d: %s clears by %.3f mm, of %.3f", n, side.Side, side.Walls, gap.MM()/2-cal)
			}
		}
		if skinned := Clears(lid, base, 0, func(string) float64 { return gap.MM() }, "left"); skinned.Holds {
			t.Fatalf("%d: what is stuck between has room: %s", n, skinned.Figure)
		}
	}
}

// A block of just the inside goes in and touches nothing; a hair larger, moved a hair, or higher than the lid, it does
// not; and what would make a box large enough for what stands out is what it stands out by.
func TestGoesIn(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 11))
	const hair = 0.06 // more than places may lie apart and be one
	for n := range 200 {
		l, w, h, cal := sized(r)
		b := open("tray", l, w, h, cal)
		half := Vec{(l.MM() - cal) / 2, (w.MM() - cal) / 2, 0}
		whole := Block{Name: "tin", Lo: Vec{-half.X, -half.Y, cal / 2}, Hi: Vec{half.X, half.Y, h.MM()}}
		if c := Holds([]Block{whole}, []string{"above"}, b); !c.Holds {
			t.Fatalf("%d: %s", n, c.Figure)
		}
		for _, off := range []Vec{{X: hair}, {X: -hair}, {Y: hair}, {Y: -hair}, {Z: -hair}} {
			moved := whole
			moved.Lo, moved.Hi = moved.Lo.Add(off), moved.Hi.Add(off)
			if c := Holds([]Block{moved}, []string{"above"}, b); c.Holds {
				t.Fatalf("%d: moved by %v it still goes in: %s", n, off, c.Figure)
			}
		}
		round := whole
		round.Shape = Upright
		if c := Holds([]Block{round}, []string{"above"}, b); !c.Holds {
			t.Fatalf("%d: a can within the block touches card: %s", n, c.Figure)
		}
	}
}

// What is put on or punched has as much card round it as it is drawn with; under the margin it fails by its name.
func TestCardRound(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 12))
	for n := range 300 {
		l, w, h, _ := sized(r)
		radius := measure.Length(2+r.IntN(4)) * mm
		at := net.Point{X: h + measure.Length(r.Int64N(int64(l))), Y: h + measure.Length(r.Int64N(int64(w)))}
		edge := min(at.X-h, h+l-at.X, at.Y-h, h+w-at.Y).MM()
		for what, put := range map[string]func(p *net.Piece){
			"magnet": func(p *net.Piece) { p.Mark("magnet", at, radius) }, "hole": func(p *net.Piece) { p.Punch(at, radius, 0, 0) }} {
			if what == "hole" && edge < radius.MM()+0.1 {
				continue // it would cut through the crease
			}
			p := net.Grid("tray", net.Cols(h, l, h), net.Rows(h, w, h), ". back .\nleft base right\n. front .")
			p.Root = "base"
			put(p)
			if what == "hole" {
				p.Rename("base", net.Point{X: h + mm/10, Y: h + mm/10})
			}
			p.Find()
			b := Folded(p, 0.3)
			kept := b.Kept()[0]
			if want := edge-radius.MM() >= margin-tolerance; kept.Holds != want && math.Abs(edge-radius.MM()-margin) > 0.1 ||
				!kept.Holds && !strings.Contains(kept.Figure, what) {
				t.Fatalf("%d: a %s %.2f mm from the edge: %v, %s", n, what, edge-radius.MM(), kept.Holds, kept.Figure)
			}
			if base := b.Find("base"); what == "magnet" {
				if room := b.RoomRound(base, at); math.Abs(room-edge) > 1e-6 {
					t.Fatalf("%d: %.3f mm of card around it, of %.3f", n, room, edge)
				}
				if back := base.Under(base.Place(at)); back != at {
					t.Fatalf("%d: over %v lies %v", n, at, back)
				}
			}
		}
	}
}

// Two slopes that are told only to meet lean by what their length and the width between them give, from a guess about
// as good as a recipe's.
func TestSolvesTheLean(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 13))
	for n := range 100 {
		_, w, h, _ := sized(r)
		slope := w*11/20 + measure.Length(r.Int64N(int64(w)))
		p := net.Grid("roof", net.Cols(40*mm), net.Rows(slope, h, w, h, slope), "upper\nback\nbase\nfront\nlower")
		p.Root = "base"
		lean := p.Solved(math.Asin(w.MM()/2/slope.MM())*180/math.Pi + float64(r.IntN(30)-15))
		p.Free(lean, net.Valley, "back", "upper")
		p.Free(lean, net.Valley, "front", "lower")
		p.Meet("upper", "lower")
		p.FoldUp("back", "front", "upper", "lower")
		p.Find()
		Solve(p)
		b := Folded(p, 0.3)
		if c := b.walls(); !c.Holds {
			t.Fatalf("%d: %s", n, c.Figure)
		}
		_, hi := Bounds(b)
		rise := math.Sqrt(slope.MM()*slope.MM() - w.MM()*w.MM()/4)
		if math.Abs(hi.Z-h.MM()-rise) > 1e-4 {
			t.Fatalf("%d: slopes of %v over %v rise %.4f mm, want %.4f", n, slope, w, hi.Z-h.MM(), rise)
		}
	}
}

// A raw edge in a corner is seen from the side it looks to, until card lies before it; a strip folded to and fro lies
// flat, and one whose faces stand does not.
func TestSeamsAndStacks(t *testing.T) {
	b := open("tray", 60*mm, 40*mm, 20*mm, 0.3)
	seen := fmt.Sprint(b.Seams(b))
	if !strings.Contains(seen, "left") && !strings.Contains(seen, "back") {
		t.Errorf("a bare corner shows no seam: %s", seen)
	}
	cover := open("cover", 64*mm, 44*mm, 20*mm, 0.3)
	if hidden := b.Seams(b, cover); len(hidden) > 0 && fmt.Sprint(hidden) == seen {
		t.Errorf("behind a cover it shows as before: %v", hidden)
	}
	strip := net.Grid("strip", net.Cols(20*mm), net.Rows(30*mm, 30*mm, 30*mm), "one\ntwo\nthree")
	strip.Root = "two"
	strip.FoldUp("one", "three")
	strip.Find()
	for degrees, lies := range map[float64]bool{0: true, 180: true, 90: false, 170: false} {
		if Stacked(strip, func(string, string) (float64, bool) { return degrees, true }) != lies {
			t.Errorf("folded by %.0f degrees, a strip lies flat: %v", degrees, !lies)
		}
	}
	if c := Below(19, b); c.Holds {
		t.Errorf("20 mm stay below 19: %s", c.Figure)
	}
	if c := Below(21, b); !c.Holds {
		t.Errorf("20 mm do not stay below 21: %s", c.Figure)
	}
}
