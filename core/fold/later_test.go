package fold

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/net"
)

// gusseted is a tray whose back left corner is not cut but scored on the slant
// and folded in on itself, behind the back.
func gusseted(slantAt measure.Length) *net.Piece {
	const h = 20 * mm
	p := net.Grid("tray", net.Cols(h, 50*mm, h), net.Rows(h, 30*mm, h), `
		corner  back  .
		left    base  right
		.       front .`)
	p.Split("corner", net.Score, net.Point{X: h, Y: h}, net.Point{X: 0, Y: slantAt}, "fold")
	p.Turn(180, net.Mountain, "corner", "fold")
	p.Turn(180, net.Valley, "corner", "back")
	p.Root = "base"
	p.FoldUp("right", "front")
	p.FoldUp("left", "back", "corner", "fold")
	p.Find()
	return p
}

// A corner of four creases closes when its slant halves it, all the way; where
// the slant is off, the proof says which faces don't come together.
func TestCornerOfFourCreases(t *testing.T) {
	p := gusseted(0)
	for _, c := range Folded(p, 0.3).Closed() {
		if !c.Holds {
			t.Errorf("%s: %s", c.Name, c.Figure)
		}
	}
	for i := range 20 {
		b := Up(p, 0.3, Stage(p, float64(i)/20))
		for _, s := range b.seams {
			if gap := max(s.a.place(s.edge.A).Sub(s.b.place(s.edge.A)).Len(),
				s.a.place(s.edge.B).Sub(s.b.place(s.edge.B)).Len()); gap > 0.01 {
				t.Errorf("at %d of 20, %s and %s are %.2f mm apart", i, s.a.Name, s.b.Name, gap)
			}
		}
	}
	wrong := ""
	for _, c := range Folded(gusseted(6*mm), 0.3).Closed() {
		if !c.Holds {
			wrong += c.Figure
		}
	}
	if !strings.Contains(wrong, "can't be folded together") {
		t.Errorf("a slant that does not halve its corner: %q", wrong)
	}
}

// An arch is one face, folded in facets: over a half round its ends stand a
// diameter apart and look at each other.
func TestArch(t *testing.T) {
	const r = 30.0
	p := net.Grid("arch", net.Cols(40*mm), net.Rows(25*mm, measure.FromMM(math.Pi*r), 25*mm), "near\narch\nfar")
	p.Curve("arch", false, 180, net.Valley)
	p.Root = "near"
	p.Find()
	b := Folded(p, 0.2)
	for _, c := range append(b.Closed(), Apart(nil, b)) {
		if !c.Holds {
			t.Error(c)
		}
	}
	near, far := b.Find("near"), b.Find("far")
	if d := far.Poly[0].Sub(near.Poly[0]).Dot(near.In); math.Abs(d-2*r) > 0.1 || near.In.Dot(far.In) > -0.9999 {
		t.Errorf("the ends stand %.2f mm apart, not %.0f, and look %.3f", d, 2*r, near.In.Dot(far.In))
	}
	if len(b.Missing()) > 0 || len(p.Kept()) != 3 {
		t.Errorf("%v hang on nothing, %d faces", b.Missing(), len(p.Kept()))
	}
}

// Cut into triangles, a face with holes is as large as it is cut, and what two
// faces share is what is common to both.
func TestFacesWithHoles(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 4))
	for range 300 {
		w, h := measure.Length(60+r.IntN(80))*mm, measure.Length(40+r.IntN(60))*mm
		p := net.Grid("card", net.Cols(w), net.Rows(h), "card")
		cut := measure.Length(5+r.IntN(10)) * mm
		p.Window(net.Point{X: 5 * mm, Y: 5 * mm}, net.Point{X: 5*mm + cut, Y: 15 * mm})
		p.Punch(net.Point{X: w - 15*mm, Y: h - 15*mm}, measure.Length(2+r.IntN(8))*mm, 0, 0)
		p.Rename("card", net.Point{X: w / 2, Y: mm})
		p.Find()
		f := Folded(p, 0.3).Faces[0]
		sum := 0.0
		for _, part := range f.Convex(Cuts{}) {
			sum += math.Abs(area(f.flatten(part.Points)))
		}
		if math.Abs(sum-f.Area()) > 1e-3*f.Area() || len(f.Face.Holes) != 2 {
			t.Fatalf("%.2f mm² of %.2f in parts, %d holes", sum, f.Area(), len(f.Face.Holes))
		}
		if shared, _ := lap(f, f); math.Abs(shared-f.Area()) > 1e-3*f.Area() {
			t.Fatalf("it shares %.2f mm² of %.2f with itself", shared, f.Area())
		}
	}
}

// Carrying a body keeps its shape and ends where it should; halfway it is as
// far from both ends as its middle says.
func TestCarry(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 5))
	for range 200 {
		b := Folded(gusseted(0), 0.3)
		goal := b.Copy()
		for _, axis := range []Vec{{X: 1}, {Y: 1}, {Z: 1}} {
			goal.Turn(axis, math.Pi*float64(r.IntN(9)-4)/4)
		}
		goal.Move(Vec{r.Float64() * 99, r.Float64() * 99, r.Float64() * 99})
		way := Way(b, goal)
		there, half := b.Copy(), b.Copy()
		there.Carry(way, 1, 50)
		half.Carry(way, 0.5, 0)
		for i, f := range there.Faces {
			for k, v := range f.Poly {
				if v.Sub(goal.Faces[i].Poly[k]).Len() > 1e-6 {
					t.Fatalf("%s ends %.3f mm off", f.Name, v.Sub(goal.Faces[i].Poly[k]).Len())
				}
				d := half.Faces[i].Poly[k].Sub(half.Faces[0].Poly[0]).Len()
				if want := b.Faces[i].Poly[k].Sub(b.Faces[0].Poly[0]).Len(); math.Abs(d-want) > 1e-6 {
					t.Fatalf("%s is stretched on the way", f.Name)
				}
			}
		}
	}
}

// A face laid along another looks its way, middle on middle, as far out as said;
// turned over it looks back; stood it rises from the other's inside.
func TestOnto(t *testing.T) {
	a, b := Folded(gusseted(0), 0.3), Folded(gusseted(0), 0.3)
	for _, wall := range []string{"base", "left", "right", "front", "back"} {
		for quarters := range 4 {
			on := b.Find(wall)
			body := a.Copy()
			body.Carry(Onto(body.Find("right"), on, Place{Right: 3, Out: 7, Quarters: quarters}), 1, 0)
			f := body.Find("right")
			d := f.Middle().Sub(on.Middle())
			if f.In.Dot(on.In) < 0.9999 || math.Abs(d.Dot(on.In)+7) > 1e-6 || math.Abs(d.Dot(on.X)-3) > 1e-6 ||
				math.Abs(d.Dot(on.Y)) > 1e-6 {
				t.Errorf("along %s: %v from its middle", wall, d)
			}
			over, stood := a.Copy(), a.Copy()
			over.Carry(Onto(over.Find("right"), on, Place{Over: true, Quarters: quarters}), 1, 0)
			stood.Carry(Onto(stood.Find("right"), on, Place{Stood: true, Quarters: quarters}), 1, 0)
			if over.Find("right").In.Dot(on.In) > -0.9999 || over.Find("right").Middle().Sub(on.Middle()).Len() > 1e-6 {
				t.Errorf("over %s it looks the wrong way", wall)
			}
			low := math.Inf(1)
			for _, v := range stood.Find("right").Poly {
				low = min(low, v.Sub(on.Middle()).Dot(on.In))
			}
			if math.Abs(low) > 1e-6 || math.Abs(stood.Find("right").In.Dot(on.In)) > 1e-6 {
				t.Errorf("it stands %.3f mm above %s", low, wall)
			}
		}
	}
}
