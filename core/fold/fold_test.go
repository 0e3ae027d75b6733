package fold

import (
	"math"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/net"
)

const mm = measure.Millimetre

// tray is a good tray of 50 x 30 x 20 with 20 mm tabs; a test spoils it.
func tray(picture string) *net.Piece {
	p := net.Grid("tray", net.Cols(20*mm, 50*mm, 20*mm), net.Rows(20*mm, 30*mm, 20*mm), picture)
	p.Root = "base"
	for _, m := range [][2]string{{"back", "left"}, {"back", "right"}, {"front", "left"}, {"front", "right"}} {
		p.Meet(m[0], m[1])
	}
	p.Glue("a", "back")
	p.Glue("b", "back")
	p.Glue("c", "front")
	p.Glue("d", "front")
	return p
}

const good = "a | back | b\nleft base right\nc | front | d"

func prove(p *net.Piece, width float64) (broken []string) {
	p.Find()
	b := Folded(p, 0.3)
	checks := b.Closed()
	b.Press(nil)
	for _, c := range append(append(checks, b.Stuck(width)...), Apart(nil, b)) {
		if !c.Holds {
			broken = append(broken, c.Name+": "+c.Figure)
		}
	}
	return broken
}

func TestWrongNetsFail(t *testing.T) {
	if broken := prove(tray(good), 10); len(broken) > 0 {
		t.Fatalf("a good tray fails: %v", broken)
	}
	cases := []struct {
		name  string
		piece func() *net.Piece
		says  string
	}{
		{"a slit forgotten", func() *net.Piece { return tray("a back | b\nleft base right\nc | front | d") },
			"can't be folded together"},
		{"a tab cut off whole", func() *net.Piece { return tray("a | back | b\n- ~ ~\nleft base right\nc | front | d") },
			"a of tray hangs on nothing"},
		{"the wrong corner cut away", func() *net.Piece { return tray(". back | b\nleft base right\nc | front | d") },
			"a or back is not there"},
		{"a tab stuck to the wrong wall", func() *net.Piece {
			p := tray(good)
			p.Glues[0].On = "front"
			return p
		}, "lies 30.0 mm off front"},
		{"a wall too short", func() *net.Piece {
			p := net.Grid("tray", net.Cols(20*mm, 50*mm, 20*mm), net.Rows(20*mm, 30*mm, 20*mm), good)
			p.Meet("back", "front")
			return p
		}, "30.0 mm apart"},
		{"tabs too long", func() *net.Piece {
			p := net.Grid("tray", net.Cols(20*mm, 15*mm, 20*mm), net.Rows(20*mm, 30*mm, 20*mm), good)
			p.Root = "base"
			return p
		}, "runs into another"},
		{"a tab under the tape's width", func() *net.Piece {
			p := tray(good)
			p.Tab("a", "left", net.TabShape{Reach: 8 * mm})
			return p
		}, "needs 10.0 mm"},
		{"folded the wrong way", func() *net.Piece {
			p := tray(good)
			for i := range p.Lines {
				if p.Lines[i].Kind == net.Score && p.Lines[i].A.X == p.Lines[i].B.X && p.Lines[i].A.X == 20*mm {
					p.Lines[i].Fold = net.Mountain
				}
			}
			return p
		}, "apart"},
	}
	for _, c := range cases {
		if broken := strings.Join(prove(c.piece(), 10), "; "); !strings.Contains(broken, c.says) {
			t.Errorf("%s: %q, want %q in it", c.name, broken, c.says)
		}
	}
}

// Folding moves no card: every face keeps its area and edges keep their
// lengths at every stage, and at the start all lies flat.
func TestFoldingKeepsFaces(t *testing.T) {
	p := tray(good)
	p.FoldUp("left", "right")
	p.FoldUp("a", "b", "c", "d")
	p.FoldUp("back", "front")
	p.Find()
	for _, at := range []float64{0, 0.2, 0.5, 0.77, 1} {
		b := Up(p, 0.3, Stage(p, at))
		for _, f := range b.Faces {
			for i, v := range f.Poly {
				w := f.Poly[(i+1)%len(f.Poly)]
				q, r := f.Points[i], f.Points[(i+1)%len(f.Points)]
				want := math.Hypot((q.X - r.X).MM(), (q.Y - r.Y).MM())
				if got := v.Sub(w).Len(); math.Abs(got-want) > 1e-9 {
					t.Fatalf("at %.2f an edge of %s is %.6f long, was %.6f", at, f.Name, got, want)
				}
				if at == 0 && math.Abs(v.Z) > 1e-9 {
					t.Fatalf("%s does not lie flat", f.Name)
				}
			}
		}
	}
	lo, hi := Bounds(Folded(p, 0.3))
	if size := hi.Sub(lo); size.Sub(Vec{50, 30, 20}).Len() > 1e-9 {
		t.Errorf("the tray folds to %v", size)
	}
}

func TestHolds(t *testing.T) {
	p := tray(good)
	p.Find()
	b := Folded(p, 0.3)
	b.Press(nil)
	lid := Folded(func() *net.Piece { q := net.New("lid", 52*mm, 32*mm); q.Find(); return q }(), 0.3)
	lid.Move(Vec{Z: 20.15})
	thing := func(l, w, h, dx float64) []Block {
		return []Block{{Name: "tin", Lo: Vec{-l/2 + dx, -w / 2, 0.15}, Hi: Vec{l/2 + dx, w / 2, 0.15 + h}}}
	}
	cases := []struct {
		things []Block
		holds  bool
		says   string
	}{
		{thing(40, 25, 15, 0), true, "left 4.8 mm, right 4.8 mm, front 2.0 mm, back 2.0 mm, above 4.8 mm"},
		{thing(49.7, 29, 19, 0), true, "left 0.0"},
		{thing(50.5, 25, 15, 0), false, "tin meets left of the tray"},
		{thing(40, 25, 15, 6), false, "tin meets right of the tray"},
		{thing(40, 25, 21, 0), false, "tin meets panel 1 of the lid"},
		{thing(60, 25, 15, 0), false, "stand out"},
		{nil, true, "nothing was listed"},
	}
	for _, c := range cases {
		if got := Holds(c.things, nil, b, lid); got.Holds != c.holds || !strings.Contains(got.Figure, c.says) {
			t.Errorf("%v: %v %s; want %v, %s", c.things, got.Holds, got.Figure, c.holds, c.says)
		}
	}
}

// Overlap is right for shapes that are not convex.
func TestOverlap(t *testing.T) {
	l := net.New("l", 40*mm, 40*mm)
	l.CutAlong(net.Point{X: 20 * mm, Y: 0}, net.Point{X: 20 * mm, Y: 20 * mm}, net.Point{X: 40 * mm, Y: 20 * mm})
	l.Label(net.Point{X: 5 * mm, Y: 5 * mm}, "l")
	l.Discard(net.Point{X: 30 * mm, Y: 5 * mm})
	l.Root = "l"
	l.Find()
	q := net.New("square", 40*mm, 40*mm)
	q.Find()
	a, b := Folded(l, 0.3), Folded(q, 0.3)
	if got := overlap(a.Faces[0], b.Faces[0]); math.Abs(got-1200) > 1e-6 {
		t.Errorf("an L of 1200 mm² shares %.3f with the square around it", got)
	}
	b.Move(Vec{X: 30, Y: 30})
	if got := overlap(a.Faces[0], b.Faces[0]); got > 1e-6 {
		t.Errorf("moved over the part that is gone, it shares %.3f", got)
	}
}
