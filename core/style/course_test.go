package style_test

import (
	"fmt"
	"math"
	"testing"

	"brevium/core/assembly"
	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/style"
)

// All the way from flat to closed, card does not stretch, tear or jump: a
// crease has the same two ends seen from either of its faces, and no corner of
// a face moves far in a small step.
func TestCourseIsSmooth(t *testing.T) {
	for _, s := range style.Styles {
		p := planned(t, s.ID)
		steps := p.Box.Course()
		const parts = 12
		var before map[string]fold.Vec
		lo, hi := fold.Bounds(p.Box.After(p.Card.Caliper, 0).Bodies...)
		far := max(75, (hi.X-lo.X)/10) // what is put on comes from where it lies
		for i := 0; i <= parts*len(steps); i++ {
			at := float64(i) / parts
			a := p.Box.After(p.Card.Caliper, at)
			corners := map[string]fold.Vec{}
			for n, body := range a.Bodies {
				if gap, where := tear(body); gap > 0.6 {
					t.Errorf("%s at %.2f of %d: %s of %s is torn by %.2f mm", s.ID, at, len(steps), where, body.Piece.Name, gap)
				}
				for _, f := range body.Faces {
					for k, v := range f.Poly {
						corners[fmt.Sprint(n, f.Name, k)] = v
					}
				}
			}
			for key, v := range corners {
				if d := v.Sub(before[key]).Len(); before != nil && d > far {
					t.Errorf("%s at %.2f: %s jumps %.0f mm", s.ID, at, key, d)
				}
			}
			before = corners
		}
	}
}

// tear is how far apart the two sides of a crease are, at most. Pressed faces
// are moved aside by the card under them, which is no tear.
func tear(b *fold.Body) (worst float64, where string) {
	at := map[*net.Face]*fold.Placed{}
	for _, f := range b.Faces {
		at[f.Face] = f
	}
	for _, f := range b.Faces {
		for i, e := range f.Edges {
			other := at[e.Beyond]
			if e.Kind.Open() || other == nil || f.Layer != 0 || other.Layer != 0 {
				continue
			}
			mine := f.Poly[i]
			best := math.Inf(1)
			for _, v := range other.Poly {
				best = min(best, v.Sub(mine).Len())
			}
			if best > worst {
				worst, where = best, f.Name+" and "+other.Name
			}
		}
	}
	return worst, where
}

// Everything is flat at first, and the last moment is the finished box.
func TestCourseEnds(t *testing.T) {
	for _, s := range style.Styles {
		var options []string
		if s.ID == "carton" {
			options = []string{"box.options.pull", "yes"}
		}
		p := planned(t, s.ID, options...)
		start, end := p.Box.After(p.Card.Caliper, 0), p.Box.After(p.Card.Caliper, float64(len(p.Box.Course())))
		for i, goal := range p.Box.Assemble(p.Card.Caliper, assembly.Closed).Bodies {
			for k, f := range goal.Faces {
				if start.Bodies[i].Faces[k].In.Z < 0.999 {
					t.Errorf("%s: %s is not flat at first", s.ID, f.Name)
				}
				if d := end.Bodies[i].Faces[k].Poly[0].Sub(f.Poly[0]).Len(); d > 0.01 {
					t.Errorf("%s: %s ends %.2f mm from its place", s.ID, f.Name, d)
				}
			}
		}
		for i, one := range start.Bodies {
			for _, other := range start.Bodies[i+1:] {
				_, right := fold.Bounds(one)
				left, _ := fold.Bounds(other)
				if left.X < right.X {
					t.Errorf("%s: the %s lies on the %s at first", s.ID, other.Piece.Name, one.Piece.Name)
				}
			}
		}
		if start.Filled || !end.Filled {
			t.Errorf("%s is filled too soon or never", s.ID)
		}
	}
}

// Heights worked by hand: slopes 2 in over 3 in, and 55 mm over 70 mm.
func TestRoofRise(t *testing.T) {
	const in = 254 * mm / 10
	for _, c := range []struct {
		slope, width style.Length
		want         float64
	}{{2 * in, 3 * in, 1.3229 * 25.4}, {55 * mm, 70 * mm, 42.426}, {35 * mm, 70 * mm, 0}, {30 * mm, 70 * mm, 0}} {
		if got := style.RoofRise(c.slope, c.width).MM(); math.Abs(got-c.want) > 0.001 {
			t.Errorf("%v over %v rises %.3f mm, not %.3f", c.slope, c.width, got, c.want)
		}
	}
}
