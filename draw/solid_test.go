package draw

import (
	"math"
	"testing"

	"brevium/core/box"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/plan"
)

// sizedPlan is a style's box of a given size.
func sizedPlan(t testing.TB, style string) *plan.Plan {
	t.Helper()
	b := brief.New("mm")
	b.Contents, b.Size = nil, &brief.Size{Length: "90 mm", Width: "70 mm", Depth: "60 mm"}
	b.Box = brief.Box{Style: brief.Text(style)}
	b.Set("tools.step", "1 mm")
	b.Set("card.sheet", "a3")
	b.Set("card.join", "yes")
	p := plan.Make(b, plan.Default)
	if !p.OK() {
		t.Fatal(style, p.Problems)
	}
	return p
}

// turn rotates v by a quaternion.
func turn(q []float64, v fold.Vec) fold.Vec {
	u := fold.Vec{X: q[0], Y: q[1], Z: q[2]}
	return v.Add(u.Cross(u.Cross(v).Add(v.Times(q[3]))).Times(2))
}

// What the turning view is sent, for every style: small enough, every triangle
// on the face, and at the closed frame every point where the proof has it.
func TestSolid(t *testing.T) {
	for _, style := range box.Styles {
		p := sizedPlan(t, style.ID)
		s := SolidOf(p)
		if n := len(s.JSON()); n > 100_000 {
			t.Errorf("%s: %d bytes", style.ID, n)
		}
		if len(s.Steps) < 3 || s.Closed <= s.Filled || s.Open <= s.Closed || s.Steps[len(s.Steps)-1].End != s.Closed {
			t.Errorf("%s: %d steps, filled %d, closed %d, open %d", style.ID, len(s.Steps), s.Filled, s.Closed, s.Open)
		}
		i := 0
		for _, body := range p.Box.Assemble(p.Card.Caliper, box.Closed).Bodies {
			for _, f := range body.Faces {
				face := s.Faces[i]
				shape := s.Shapes[face.Shape]
				area := 0.0
				at := func(k int) (x, y float64) { return shape.Points[2*k], shape.Points[2*k+1] }
				for k := 0; k < len(shape.Triangles); k += 3 {
					ax, ay := at(shape.Triangles[k])
					bx, by := at(shape.Triangles[k+1])
					cx, cy := at(shape.Triangles[k+2])
					area += math.Abs((bx-ax)*(cy-ay)-(cx-ax)*(by-ay)) / 2
				}
				if math.Abs(area-f.Area()) > 0.02*f.Area()+1 {
					t.Errorf("%s: %s is %.0f mm² in triangles and %.0f cut", style.ID, f.Name, area, f.Area())
				}
				var m []float64
				for k := 0; k < len(face.Moves); k += 8 {
					if int(face.Moves[k]) <= s.Closed {
						m = face.Moves[k+1 : k+8]
					}
				}
				for k, v := range f.Poly {
					x, y := at(shape.Rings[0][k])
					got := fold.Vec{X: m[0], Y: m[1], Z: m[2]}.Add(turn(m[3:], fold.Vec{X: x, Y: y}))
					if got.Sub(v).Len() > 0.1 {
						t.Fatalf("%s: %s stands %.2f mm off", style.ID, f.Name, got.Sub(v).Len())
					}
				}
				i++
			}
		}
	}
}

func BenchmarkSolid(b *testing.B) {
	p := sizedPlan(b, "gable-cap")
	for b.Loop() {
		b.SetBytes(int64(len(SolidOf(p).JSON())))
	}
}
