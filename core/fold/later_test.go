package fold

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/sheet"
)

// gusseted is a tray whose back left corner is not cut but scored on the slant
// and folded in on itself, behind the back.
func gusseted(slantAt measure.Length) *sheet.Piece {
	const h = 20 * mm
	p := sheet.Grid("tray", sheet.Cols(h, 50*mm, h), sheet.Rows(h, 30*mm, h), `
		corner  back  .
		left    base  right
		.       front .`)
	p.Slant(sheet.Score, sheet.Point{X: 0, Y: slantAt}, sheet.Point{X: h, Y: h}, 180, sheet.Mountain)
	p.Rename("corner", sheet.Point{X: h * 3 / 4, Y: h / 4})
	p.Label(sheet.Point{X: h / 4, Y: h * 3 / 4}, "fold")
	p.Refold(sheet.Point{X: h, Y: 0}, sheet.Point{X: h, Y: h}, 180, sheet.Valley)
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
			if gap := max(s.a.place(s.edge.A).Sub(s.b.place(s.edge.A)).Len(), s.a.place(s.edge.B).Sub(s.b.place(s.edge.B)).Len()); gap > 0.01 {
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

// An arch is a run of narrow facets: over a half round their ends stand a
// diameter apart and their tops touch one circle.
func TestArchOfFacets(t *testing.T) {
	const n, r = 24, 30.0
	wide := measure.FromMM(2 * r * math.Sin(math.Pi/2/n))
	cols := make([]measure.Length, n)
	names := make([]string, n)
	for i := range cols {
		cols[i], names[i] = wide, "f"+string(rune('a'+i))
	}
	p := sheet.Grid("arch", cols, sheet.Rows(40*mm), strings.Join(names, " "))
	for x := wide; x < p.Width; x += wide {
		p.Turn(true, x, 180.0/n, sheet.Valley)
		p.Bent(true, x)
	}
	p.Root = "fa"
	p.Find()
	b := Folded(p, 0.2)
	for _, c := range b.Closed() {
		if !c.Holds {
			t.Error(c)
		}
	}
	first, last := b.Find(names[0]), b.Find(names[n-1])
	span := math.Inf(-1)
	for _, u := range first.Poly {
		for _, v := range last.Poly {
			if math.Abs(u.Y-v.Y) < 1e-6 {
				span = max(span, u.Sub(v).Len())
			}
		}
	}
	if math.Abs(span-2*r) > 0.1 || len(p.Passes) != 0 || len(p.Slanted) != n-1 {
		t.Errorf("the arch spans %.2f mm, not %.0f; %d scores, %d bends", span, 2*r, len(p.Passes), len(p.Slanted))
	}
}

// Cut into triangles, a face with holes is as large as it is cut, and what two
// faces share is what is common to both.
func TestFacesWithHoles(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 4))
	for range 300 {
		w, h := measure.Length(60+r.IntN(80))*mm, measure.Length(40+r.IntN(60))*mm
		p := sheet.Grid("card", sheet.Cols(w), sheet.Rows(h), "card")
		cut := measure.Length(5+r.IntN(10)) * mm
		p.Window(sheet.Point{X: 5 * mm, Y: 5 * mm}, sheet.Point{X: 5*mm + cut, Y: 15 * mm})
		p.Punch(sheet.Point{X: w - 15*mm, Y: h - 15*mm}, measure.Length(2+r.IntN(8))*mm, 0, 0)
		p.Rename("card", sheet.Point{X: w / 2, Y: mm})
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

// A face laid along another looks its way, middle on middle, as far out as said.
func TestOnto(t *testing.T) {
	a, b := Folded(gusseted(0), 0.3), Folded(gusseted(0), 0.3)
	for _, wall := range []string{"base", "left", "right", "front", "back"} {
		body := a.Copy()
		body.Carry(Onto(body.Find("right"), b.Find(wall), 3, 0, 7), 1, 0)
		f, on := body.Find("right"), b.Find(wall)
		d := f.Middle().Sub(on.Middle())
		if f.In.Dot(on.In) < 0.9999 || math.Abs(d.Dot(on.In)+7) > 1e-6 || math.Abs(d.Dot(on.X)-3) > 1e-6 || math.Abs(d.Dot(on.Y)) > 1e-6 {
			t.Errorf("along %s: %v from its middle", wall, d)
		}
	}
}
