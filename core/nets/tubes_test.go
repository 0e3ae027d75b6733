package nets_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/nets"
)

// wrong proves a piece by itself: what does not close, meet or stick.
func wrong(p *net.Piece, width float64) (out []string) {
	p.Find()
	fold.Solve(p)
	b := fold.Folded(p, 0.2)
	checks := b.Closed()
	b.Press(nil)
	for _, c := range append(append(checks, b.Stuck(width)...), b.Tucked()...) {
		if !c.Holds {
			out = append(out, c.Name+": "+c.Figure)
		}
	}
	return out
}

// A carton with any ends, its seam on either side, closes square round what it is said to stand round, and its seam lies
// behind the wall at the other end of the row; a sleeve does so either way.
func TestTubesClose(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 18))
	size := func(lo, hi int) measure.Length { return measure.Length(lo+r.IntN(hi-lo)) * mm }
	for n := range 120 {
		l, w, h, seam := size(40, 90), size(30, 40), size(50, 120), size(9, 16)
		tube := nets.Tube{Sizes: nets.Sizes{Name: "carton", T: mm / 5}, SeamFirst: n%2 == 0, Mitre: mm,
			Top: nets.TubeEnd(r.IntN(4)), Bottom: nets.TubeEnd(r.IntN(4)), Closes: []string{"", "back-"}[r.IntN(2)]}
		walls := net.Cols(l, w, l, w)
		tube.Cols = append(walls[:4:4], seam)
		if tube.SeamFirst {
			tube.Cols = append(net.Cols(seam), walls...)
		}
		rows := map[nets.TubeEnd][]measure.Length{nets.Flaps: {9 * mm}, nets.Panel: {w}, nets.Lip: {8 * mm, w}}
		tube.Rows = append(append(append([]measure.Length{}, rows[tube.Top]...), h), rows[tube.Bottom]...)
		if k := len(tube.Rows); tube.Bottom == nets.Lip {
			tube.Rows[k-2], tube.Rows[k-1] = w, 8*mm
		}
		c := tube.Carton(l, w)
		if bad := wrong(c.Piece, 8); len(bad) > 0 {
			t.Fatalf("%d, %+v: %v", n, tube, bad)
		}
		lo, hi := fold.Extent(fold.Folded(c.Piece, 0.2).Part("walls", func(f string) bool {
			return f == "back" || f == "front" || f == "left" || f == "right"
		}))
		got := hi.Sub(lo)
		if tube.Bottom == nets.Open { // it lies on its back
			got.Y, got.Z = got.Z, got.Y
		}
		if math.Abs(got.X-l.MM()-0.2) > 0.25 || math.Abs(got.Y-w.MM()-0.2) > 0.25 || math.Abs(got.Z-h.MM()) > 0.25 {
			t.Fatalf("%d, %+v: its walls stand %v, of %v × %v × %v", n, tube, got, l, w, h)
		}
		order := []string{"bottom", "front", "top", "back"}
		sleeve := nets.Tube{Sizes: nets.Sizes{Name: "sleeve", Cols: net.Cols(h), Rows: net.Cols(w, l, w, l, seam), T: mm / 5}, Mitre: mm}
		s := sleeve.Sleeve(order, false)
		s.FoldUp("front", "top", "back", "seam")
		if bad := wrong(s.Piece, 8); len(bad) > 0 || s.Glues[0].On != "bottom" {
			t.Fatalf("%d: a sleeve: %v %v", n, bad, s.Glues)
		}
	}
}

// A gable and a pinched top close at every size for which their slopes meet: the slopes lean by what their length gives,
// the gussets fold between them.
func TestSlopesClose(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 19))
	size := func(lo, hi int) measure.Length { return measure.Length(lo+r.IntN(hi-lo)) * mm }
	for n := range 25 {
		w := size(40, 70)
		s := nets.Slopes{Name: "cap", Length: w + size(1, 40), Width: w, Seam: 10 * mm, T: mm / 5, Mark: mm}
		s.Slope = w*11/20 + size(4, 30)
		rise := math.Sqrt(s.Slope.MM()*s.Slope.MM() - w.MM()*w.MM()/4)
		h := size(20, 60)
		gable := s.Gable(12*mm, h, net.Score)
		if bad := wrong(gable, 8); len(bad) > 0 {
			t.Fatalf("%d, %+v: %v", n, s, bad)
		}
		_, top := fold.Bounds(fold.Folded(gable, 0.2).Part("slopes", func(f string) bool { return f == "back-roof" || f == "front-roof" }))
		lo, _ := fold.Bounds(fold.Folded(gable, 0.2).Part("walls", func(f string) bool { return f == "back" || f == "front" }))
		if up := fmt.Sprintf("%.2f", rise); fmt.Sprintf("%.2f", top.Y-lo.Y-h.MM()) != up && fmt.Sprintf("%.2f", top.Z-lo.Z-h.MM()) != up {
			t.Fatalf("%d, %+v: the ridge stands %v over %v, want %s above %v", n, s, top, lo, up, h)
		}
		reach := func(side measure.Length) measure.Length { return side/2 + 7*mm }
		deep := min(reach(s.Width), s.Length-mm)
		p := s.Pinched(h, max(reach(s.Width), reach(s.Length)), deep, reach(s.Length), 8*mm)
		if bad := wrong(p, 6); len(bad) > 0 {
			t.Fatalf("%d, %+v: pinched: %v", n, s, bad)
		}
	}
}
