package nets_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/nets"
)

const mm = measure.Millimetre

// Every picture, at random sizes and with squares cut away, makes faces without a fault and folds: what stays of the
// walls stands up round the floor.
func TestPicturesFold(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 2))
	tab := func() net.TabShape { return net.TabShape{Reach: 8 * mm, Mitre: mm} }
	for n := range 200 {
		size := func(lo, hi int) measure.Length { return measure.Length(lo+r.IntN(hi-lo)) * mm }
		h, l, w := size(14, 40), size(70, 140), size(60, 120)
		s := nets.Sizes{Name: "tray", Cols: net.Cols(h, l, h), Rows: net.Rows(h, w, h), T: mm / 4, Away: map[[2]int]bool{}}
		for range r.IntN(3) { // corners only: without a wall nothing holds
			s.Away[[2]int{2 * r.IntN(2), 2 * r.IntN(2)}] = true
		}
		rolled := s
		rolled.Cols, rolled.Rows, rolled.Away = net.Cols(h, h, l, h, h), net.Rows(h, h, w, h, h), nil
		strip := nets.Strip{Sizes: nets.Sizes{Name: "strip", Cols: net.Cols(h, l, h), Rows: net.Rows(12*mm, w, h, w, h), T: mm / 4,
			Away: map[[2]int]bool{{0, 0}: true, {2, 0}: true}}, Tab: tab, Dust: tab}
		hinged := nets.Sizes{Name: "hinged", Cols: net.Cols(mm, h-mm, mm, l, mm, h-mm, mm), Rows: net.Rows(h-mm, w+mm, h, w, h), T: mm / 4}
		walls := strip
		walls.Cols = net.Cols(w, l, w)
		for what, p := range map[string]nets.Net{"single": s.Single("base", tab), "pinwheel": s.Pinwheel("base"),
			"rolled": rolled.Rolled("base", tab), "hinged": hinged.Hinged(tab, tab),
			"from base": strip.FromBase(), "from walls": walls.FromWalls("front", "back", w-mm, false)} {
			if p.Root == "" {
				p.Root = "bottom"
				p.FoldUp("top", "flap")
			}
			p.Forget(func(face string) bool { return p.Gone[face] })
			p.Find()
			b := fold.Up(p.Piece, 0.25, func(string) float64 { return 1 })
			if len(p.Faults) > 0 || len(b.Missing()) > 0 {
				t.Fatalf("%s, %d: %v %v", what, n, p.Faults, b.Missing())
			}
			if lo, hi := fold.Extent(b); hi.Z-lo.Z < h.MM()-1 || hi.X-lo.X > l.MM()+4 {
				t.Fatalf("%s, %d: stands %.1f mm high and %.1f mm long, of %s", what, n, hi.Z-lo.Z, hi.X-lo.X, fmt.Sprint(l, w, h))
			}
		}
	}
}
