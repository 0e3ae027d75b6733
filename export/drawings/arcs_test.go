package drawings

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"brevium/core/brief"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/internal/drawn"
)

// offRound is how far a run of lines leaves the circle it stands for, anywhere.
func offRound(pts []Point, mid Point, r float64) (most float64) {
	for i, p := range pts {
		most = max(most, math.Abs(apartBy(p, mid)-r))
		if i > 0 {
			q := pts[i-1]
			most = max(most, math.Abs(apartBy(Point{(p.X + q.X) / 2, (p.Y + q.Y) / 2}, mid)-r))
		}
	}
	return most
}

// Arcs of any size, side and length come within a hundredth of a millimetre of the round; the
// straight lines before and after stay, and so does what only turns.
func TestRoundsAreRound(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 8))
	for range 300 {
		radius, parts, turn := 2+60*r.Float64(), 3+r.IntN(22), (1-2*float64(r.IntN(2)))*math.Pi/12
		from, mid := 6*r.Float64(), Point{200, 200}
		var arc []Point
		for i := range parts + 1 {
			s, c := math.Sincos(from + turn*float64(i))
			arc = append(arc, Point{mid.X + radius*c, mid.Y + radius*s})
		}
		before, after := Point{-40, 7}, Point{3, -90}
		closed := parts == 24
		pts := append(append([]Point{before}, arc...), after)
		if closed {
			pts = arc[:24]
		}
		got := smooth(slices.Clone(pts), closed)
		if !closed {
			if got[0] != before || got[len(got)-1] != after {
				t.Fatalf("the lines before and after have moved: %v", got)
			}
			got = got[1 : len(got)-1]
		}
		if off := offRound(got, mid, radius); off > drawn.Near {
			t.Fatalf("radius %g in %d parts, closed %v: %g off, in %d points", radius, parts, closed, off, len(got))
		}
		for _, p := range arc {
			if !slices.ContainsFunc(got, func(q Point) bool { return apartBy(p, q) < 1e-9 }) {
				t.Fatalf("%v is lost", p)
			}
		}
	}
	for n := 3; n <= 12; n++ { // these are corners
		var ring []Point
		for i := range n {
			s, c := math.Sincos(2 * math.Pi * float64(i) / float64(n))
			ring = append(ring, Point{30 * c, 30 * s})
		}
		if got := smooth(ring, true); len(got) != n {
			t.Errorf("of %d corners there are %d points", n, len(got))
		}
	}
}

// What a box has of notches, rounded flaps and holes with a scoop is as round in its files.
func TestFilesAreRound(t *testing.T) {
	notches, scoops := 0, 0
	b := brief.New("mm")
	b.Contents = []brief.Item{{ID: "1", Name: "pot", Shape: "cylinder", Diameter: "44 mm", Height: "30 mm", Count: "2"}}
	for field, says := range map[string]string{"card.sheet": "a3", "arrange.compartments": "platform", "room.around": "12 mm",
		"room.between": "16 mm"} {
		b.Set(field, says)
	}
	pots := plan.Make(b, request.Default)
	if !pots.OK() {
		t.Fatal(pots.Problems)
	}
	for _, j := range []sets.Job{drawn.Job(t, "sleeve-drawer", "90 mm", "60 mm", "30 mm"), sets.JobOf(pots)} {
		piecesOf(j, func(p *plan.Plan, _ string, piece *net.Piece) {
			d := OfPiece(j, p, piece, false)
			for _, h := range piece.Notches {
				notches++
				d.isRound(t, Cut, h, func(float64) float64 { return h.Diameter.MM() / 2 })
			}
			for _, h := range piece.Punches {
				if h.Scoop > 0 {
					scoops++
					d.isRound(t, Hole, h, h.Wide)
				}
			}
		})
	}
	if notches == 0 || scoops == 0 {
		t.Errorf("%d notches and %d scoops", notches, scoops)
	}
}

// isRound looks at the lines of a kind that lie about the rim of a hole.
func (d Drawing) isRound(t *testing.T, kind Kind, h net.Punch, wide func(angle float64) float64) {
	t.Helper()
	lines, mid := 0, at(h.Mid)
	for _, p := range d.Paths {
		for i := 1; i < len(p.Points) && p.Kind == kind; i++ {
			off := func(q Point) float64 { return apartBy(q, mid) - wide(math.Atan2(q.Y-mid.Y, q.X-mid.X)) }
			a, b := p.Points[i-1], p.Points[i]
			if math.Abs(off(a)) > 0.05 || math.Abs(off(b)) > 0.05 {
				continue
			}
			lines++
			if m := off(Point{(a.X + b.X) / 2, (a.Y + b.Y) / 2}); math.Abs(m) > drawn.Near || math.Abs(off(a)) > drawn.Near {
				t.Errorf("%s: %g and %g off the rim of %s", d.Says, off(a), m, mm(h.Diameter.MM()))
			}
		}
	}
	if lines < 20 {
		t.Errorf("%s: only %d lines on the rim of %s", d.Says, lines, mm(h.Diameter.MM()))
	}
}

// Names are read beside the dots of glue, not through them, wherever there is room.
func TestNamesBesideDots(t *testing.T) {
	names, through := 0, 0
	everyPiece(t, func(_ string, _ sets.Job, d Drawing) {
		for _, n := range d.Paths {
			if n.Kind != Name {
				continue
			}
			names++
			for _, o := range d.Paths {
				x, y := math.Abs(o.Points[0].X-n.Points[0].X), math.Abs(o.Points[0].Y-n.Points[0].Y)
				if o.Kind == Name && (x > 0 || y > 0) && y < 3 && x < 0.85*float64(len(n.Text)+len(o.Text)) {
					t.Errorf("%s: “%s” lies on “%s”", d.Name, n.Text, o.Text)
				}
			}
			for _, dot := range d.Paths {
				x, y := dot.Points[0].X-n.Points[0].X, dot.Points[0].Y-n.Points[0].Y
				if (dot.Kind == GlueIn || dot.Kind == GlueOut) && math.Abs(x) < 4 && y > -2.6 && y < 1 {
					through++
					break
				}
			}
		}
	})
	if names == 0 || through > 0 {
		t.Errorf("dots lie in %d of %d names", through, names)
	}
}
