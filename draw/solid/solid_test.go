package solid

import (
	"math"
	"testing"

	"brevium/internal/drawn"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
)

// turn rotates v by a quaternion.
func turn(q []float64, v fold.Vec) fold.Vec {
	u := fold.Vec{X: q[0], Y: q[1], Z: q[2]}
	return v.Add(u.Cross(u.Cross(v).Add(v.Times(q[3]))).Times(2))
}

// What the turning view is sent, for every style: small enough, every triangle
// on the face, and at the closed frame every point where the proof has it.
func TestSolid(t *testing.T) {
	for _, style := range style.Styles {
		p := drawn.Sized(t, style.ID)
		s := SolidOf(p)
		if n := len(s.JSON()); n > 100_000 {
			t.Errorf("%s: %d bytes", style.ID, n)
		}
		if len(s.Steps) < 3 || s.Closed < s.Filled || s.Open <= s.Closed || s.Steps[len(s.Steps)-1].End != s.Closed {
			t.Errorf("%s: %d steps, filled %d, closed %d, open %d", style.ID, len(s.Steps), s.Filled, s.Closed, s.Open)
		}
		i := 0
		for _, body := range p.Box.Assemble(p.Card.Caliper, assembly.Closed).Bodies {
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

// However much goes inside, what is sent stays small.
func TestSolidOfManyPieces(t *testing.T) {
	for _, kind := range []string{"slotted", "partitions", "platform", "trays"} {
		b := brief.New("mm")
		b.Contents = []brief.Item{{Name: "ball", Shape: "ball", Diameter: "30 mm", Count: "24"}}
		b.Arrange.Compartments = brief.Text(kind)
		b.Set("card.sheet", "a3")
		b.Set("card.join", "yes")
		b.Set("box.options.walls", "rolled")
		p := plan.Make(b, request.Default)
		if !p.OK() {
			t.Fatal(kind, p.Problems)
		}
		s := SolidOf(p)
		if n := len(s.JSON()); n > 100_000 || len(s.Things) != 24 {
			t.Errorf("%s: %d bytes, %d faces, %d things", kind, n, len(s.Faces), len(s.Things))
		}
	}
}

func BenchmarkSolid(b *testing.B) {
	p := drawn.Sized(b, "gable-cap")
	for b.Loop() {
		b.SetBytes(int64(len(SolidOf(p).JSON())))
	}
}

// The picture of a run goes on from panel to panel: where two meet at a corner, the
// print is as far on as what lies between them is wide.
func TestRunsGoOnInPictures(t *testing.T) {
	p := drawn.Sized(t, "tray-lid")
	b := p.Brief.Clone()
	b.Set("box.options.lid", "none")
	b.Dress.Layers = []brief.Layer{{On: "sides", Border: "3 mm", Run: "yes", Stock: "sprig-220"}}
	p = plan.Make(b, request.Default)
	s := SolidOf(p)
	ends := map[string][2]float64{} // of each side, where its print begins and ends, from the printed side
	for _, f := range s.Faces {
		if f.On == "" {
			continue
		}
		shape := s.Shapes[f.Shape]
		half := 0.0
		for i := 0; i < len(shape.Points); i += 2 {
			half = max(half, shape.Points[i])
		}
		ends[f.On] = [2]float64{-(shape.Mid[0] + half), -(shape.Mid[0] - half)}
	}
	for _, pair := range [][2]string{{"base/left", "base/front"}, {"base/front", "base/right"}, {"base/right", "base/back"}} {
		if gap := ends[pair[1]][0] - ends[pair[0]][1]; math.Abs(gap-6) > 0.05 {
			t.Errorf("from %s to %s the print jumps %.2f mm", pair[0], pair[1], gap)
		}
	}
}
