package drawings

import (
	"slices"
	"testing"

	"brevium/core/net"
	"brevium/core/plan"
	styles "brevium/core/style"
	"brevium/internal/drawn"
)

// A drawing of which any line is moved by a 64th of an inch, left out, folded the other way or is
// one too many is not given out; nor is a hole of another size, in another place, or none. Tried
// with every line of every style.
func TestDrawingsAreTheProvedNets(t *testing.T) {
	const off = 25.4 / 64
	tried := map[string]int{}
	for _, s := range styles.Styles {
		depth := map[bool]string{true: "60 mm", false: "34 mm"}[s.ID == "arched-box"]
		j := drawn.Job(t, s.ID, "70 mm", "70 mm", depth)
		piecesOf(j, func(p *plan.Plan, _ string, piece *net.Piece) {
			whole := paths(p, piece)
			if err := trueTo(piece, whole); err != nil {
				t.Fatalf("%s: %v", s.ID, err)
			}
			try := func(what string, i int, change func(p *Path)) {
				bad := slices.Clone(whole)
				bad[i].Points = slices.Clone(bad[i].Points)
				change(&bad[i])
				if tried[what]++; trueTo(piece, bad) == nil {
					t.Errorf("%s: a line of the %s, %s of %d points, is %s and given out", s.ID, piece.Name, bad[i].Kind, len(bad[i].Points), what)
				}
			}
			for i, path := range whole {
				switch path.Kind {
				case Valley, Mountain:
					try("folded the other way", i, func(p *Path) { p.Kind = map[Kind]Kind{Valley: Mountain, Mountain: Valley}[p.Kind] })
					fallthrough
				case Cut, Hole:
					try("left out", i, func(p *Path) { p.Kind = Name })
					if path.Round > 0 {
						try("another size", i, func(p *Path) { p.Round += 2 * off })
						try("moved", i, func(p *Path) { p.Points[0].X += off })
						continue
					}
					for k := range path.Points {
						if to := (Point{path.Points[k].X + off, path.Points[k].Y - 0.37*off}); k%5 == 0 && path.from(to) > onNet { // not along it
							try("moved", i, func(p *Path) { p.Points[k].X, p.Points[k].Y = p.Points[k].X+off, p.Points[k].Y-0.37*off })
						}
					}
				}
			}
			more := append(slices.Clone(whole), Path{Kind: Cut, Points: []Point{{piece.Width.MM() * 0.311, 1}, {piece.Width.MM() * 0.311, 5}}})
			if trueTo(piece, more) == nil && piece.Height.MM() > 8 {
				t.Errorf("%s: a cut too many in the %s is given out", s.ID, piece.Name)
			}
		})
	}
	t.Log(tried)
}
