package fold

import (
	"math"
	"math/rand/v2"
	"testing"

	"brevium/core/net"
)

// star is a simple outline round a middle, of n corners at random distances from it, in millimetres.
func star(r *rand.Rand, n int, mid [2]float64, lo, hi float64) (out [][2]float64) {
	for i := range n {
		s, c := math.Sincos(2 * math.Pi * (float64(i) + r.Float64()*0.5) / float64(n))
		d := lo + r.Float64()*(hi-lo)
		out = append(out, [2]float64{mid[0] + d*c, mid[1] + d*s})
	}
	return out
}

// placed is a face of an outline with holes, as it stands in a frame.
func placed(f Frame, rings ...[][2]float64) *Placed {
	points := func(ring [][2]float64) (out []net.Point) {
		for _, p := range ring {
			out = append(out, net.Point{X: net.Length(p[0] * 1e6), Y: net.Length(p[1] * 1e6)})
		}
		return out
	}
	face := &net.Face{Points: points(rings[0])}
	for _, h := range rings[1:] {
		face.Holes = append(face.Holes, points(h))
	}
	face.Edges = make([]net.Edge, len(face.Points))
	b := &Body{T: 0.3, Piece: &net.Piece{}}
	return b.add(face, f)
}

// frames are some in which a face may stand.
func frames(r *rand.Rand) Frame {
	axis := Vec{r.Float64() - 0.5, r.Float64() - 0.5, r.Float64() - 0.5}.unit()
	return flat.turn(Vec{1, 2, 3}, axis, 6*r.Float64()).move(Vec{50 * r.Float64(), -20 * r.Float64(), 9})
}

// However a face with a hole stands: its triangles and its convex parts are as large as its card, share nothing, and have
// its edges; a place is on the card when it is on one of them, and its distance from the rim is what it is drawn with.
func TestOutlines(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 7))
	for n := range 300 {
		rings := [][][2]float64{star(r, 7+r.IntN(9), [2]float64{60, 60}, 30, 55)}
		if n%2 == 0 {
			rings = append(rings, star(r, 3+r.IntN(5), [2]float64{60, 60}, 4, 12))
		}
		p := placed(frames(r), rings...)
		want := math.Abs(area(rings[0]))
		if len(rings) > 1 {
			want -= math.Abs(area(rings[1]))
		}
		sum, edges := 0.0, 0
		var all [][3][2]float64
		for _, c := range p.Convex(Cuts{}) {
			flat := p.flatten(c.Points)
			if !isConvex(flat) {
				t.Fatalf("%d: a part is not convex: %v", n, flat)
			}
			sum += math.Abs(area(flat))
			for _, real := range c.Real {
				if real {
					edges++
				}
			}
			if len(flat) == 3 {
				all = append(all, [3][2]float64{flat[0], flat[1], flat[2]})
			}
		}
		corners := len(rings[0])
		if len(rings) > 1 {
			corners += len(rings[1])
		}
		if math.Abs(sum-want) > 0.01 || edges != corners {
			t.Fatalf("%d: parts of %.3f mm² with %d edges, of %.3f with %d", n, sum, edges, want, corners)
		}
		if own := overlap(p, p); math.Abs(own-want) > 0.05 {
			t.Fatalf("%d: it shares %.3f mm² of %.3f with itself", n, own, want)
		}
		for range 30 {
			at := [2]float64{5 + 110*r.Float64(), 5 + 110*r.Float64()}
			space, in := p.At.Add(p.X.Times(at[0])).Add(p.Y.Times(at[1])), inside(rings[0], at)
			from := math.Inf(1)
			for i, ring := range rings {
				in = in && (i == 0 || !inside(ring, at))
				for k, a := range ring {
					b := ring[(k+1)%len(ring)]
					from = min(from, fromLine(Vec{at[0], at[1], 0}, Vec{a[0], a[1], 0}, Vec{b[0], b[1], 0}))
				}
			}
			if p.Has(space) != in || math.Abs(p.fromRim(space)-from) > 1e-3 {
				t.Fatalf("%d: at %v: on the card %v, want %v; %.4f mm from the rim, want %.4f", n, at, p.Has(space), in,
					p.fromRim(space), from)
			}
		}
		if len(all) > 1 {
			var room [2][8][2]float64
			for i, a := range all {
				for _, b := range all[i+1:] {
					if both := math.Abs(area(clip(a[:], b, &room))); both > 0.01 {
						t.Fatalf("%d: two triangles share %.3f mm²", n, both)
					}
				}
			}
		}
	}
}

// Two outlines share as much whichever is cut to the other, and as much as chance finds on both.
func TestSharedArea(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 8))
	for n := range 60 {
		f := frames(r)
		a, b := star(r, 7, [2]float64{50, 50}, 15, 45), star(r, 5, [2]float64{50 + 40*r.Float64(), 60}, 10, 40)
		p, q := placed(f, a), placed(f, b)
		pq, qp := overlap(p, q), overlap(q, p)
		hits, tries := 0, 20000
		for range tries {
			if at := [2]float64{140 * r.Float64(), 140 * r.Float64()}; inside(a, at) && inside(b, at) {
				hits++
			}
		}
		chance := float64(hits) / float64(tries) * 140 * 140
		if math.Abs(pq-qp) > 0.01 || math.Abs(pq-chance) > 25+0.06*chance {
			t.Fatalf("%d: %.2f and %.2f mm², by chance %.0f", n, pq, qp, chance)
		}
	}
}

// Two strips that go through each other are found, however they stand; moved clear, or slotted half and half, they are not,
// and neither is a thing of the same piece that only touches across its crease.
func TestPassesThrough(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 14))
	strip := func(name string, slot float64) *Body {
		p := net.Grid(name, net.Cols(60*mm), net.Rows(20*mm), "strip")
		p.Root = "strip"
		if slot != 0 {
			p.Slot(30*mm, mm, 10*mm+mm/2, slot < 0)
			p.Rename("strip", net.Point{X: 5 * mm, Y: 5 * mm})
		}
		p.Find()
		return Folded(p, 0.3)
	}
	stand := func(b *Body, quarter bool) *Body {
		b.Turn(Vec{X: 1}, math.Pi/2)
		if quarter {
			b.Turn(Vec{Z: 1}, math.Pi/2)
		}
		return b
	}
	for n := range 100 {
		axis, angle := Vec{r.Float64(), r.Float64(), r.Float64()}.unit(), 6*r.Float64()
		for _, c := range []struct {
			slots [2]float64
			off   float64
			apart bool
		}{{[2]float64{}, 0, false}, {[2]float64{1, -1}, 0, true}, {[2]float64{}, 31, true}, {[2]float64{}, 25, false}} {
			a, b := stand(strip("a", c.slots[0]), false), stand(strip("b", c.slots[1]), true)
			b.Move(Vec{X: c.off})
			for _, body := range []*Body{a, b} {
				body.Turn(axis, angle)
			}
			if got := Apart(nil, a, b); got.Holds != c.apart {
				t.Fatalf("%d: slots %v, %.0f mm off: apart %v (%s)", n, c.slots, c.off, got.Holds, got.Figure)
			}
		}
	}
}
