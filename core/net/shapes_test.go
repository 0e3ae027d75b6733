package net

import (
	"math"
	"strings"
	"testing"
)

// Flaps of every shape: how much card stays, exactly reckoned.
func TestFlapShapes(t *testing.T) {
	const w, d = 60.0, 20.0
	for _, c := range []struct {
		name  string
		shape func(*Piece)
		want  float64
		trims int
	}{
		{"as it is", func(p *Piece) {}, w * d, 0},
		{"cut short", func(p *Piece) { p.Shorten("flap", "top", 12*mm) }, w * 12, 1},
		{"no shorter than it is", func(p *Piece) { p.Shorten("flap", "top", 30*mm) }, w * d, 0},
		{"a tab", func(p *Piece) { p.Tab("flap", "top", TabShape{Reach: 15 * mm, Mitre: 4 * mm, Relief: 2 * mm}) },
			(56 + 48) / 2 * 15, 1},
		{"pointed", func(p *Piece) { p.Pointed("flap", "top", 0, 5*mm) }, w*5 + w*15/2, 2},
		{"pointed, relieved", func(p *Piece) { p.Pointed("flap", "top", 3*mm, 5*mm) }, 54*5 + 54*15/2, 2},
		{"rounded", func(p *Piece) { p.Round("flap", "top", 0, 10*mm) }, w*d - 2*(1-math.Pi/4)*100, 2},
		{"rounded more than it is deep", func(p *Piece) { p.Round("flap", "top", 2*mm, 90*mm) }, 56*d - 2*(1-math.Pi/4)*400, 2},
	} {
		p := Grid("box", Cols(60*mm), Rows(20*mm, 40*mm), "flap\ntop")
		c.shape(p)
		p.Find()
		f := p.Face("flap")
		if f == nil || len(p.Faults) > 0 {
			t.Errorf("%s: %v", c.name, p.Faults)
			continue
		}
		exact := 1e-6
		if strings.HasPrefix(c.name, "rounded") {
			exact = 0.0095 * 2 * 400 // six facets for a quarter round
		}
		if math.Abs(f.Area()-c.want) > exact {
			t.Errorf("%s: %.1f mm², want %.1f", c.name, f.Area(), c.want)
		}
		trims := 0
		for _, g := range p.Faces {
			if g.Trim {
				trims++
			}
		}
		if trims != c.trims {
			t.Errorf("%s: %d slivers, want %d", c.name, trims, c.trims)
		}
	}
}

// What is said of a crease reaches the edges that are found between its faces,
// and a pass folds as most of it does.
func TestCreasesAsTheyFold(t *testing.T) {
	p := Grid("tube", Cols(20*mm, 30*mm), Rows(10*mm, 40*mm), "a b\nc d")
	k := p.Solved(25)
	p.Free(k, Valley, "a", "c")
	p.Turn(35, Mountain, "b", "e")
	p.Twice(90, 180, Valley, "a", "b")
	p.Split("d", Bend, p.Spot("d", 0, 0), p.Spot("d", 2, 2), "e")
	p.Turn(60, Mountain, "d", "e")
	p.Find()
	if len(p.Faults) > 0 {
		t.Fatal(p.Faults)
	}
	for _, c := range []struct {
		face, beyond string
		kind         Kind
		fold         Fold
		turn, via    float64
	}{
		{"a", "c", Score, Valley, 25, 0}, {"b", "e", Score, Mountain, 35, 0}, {"a", "b", Score, Valley, 180, 90},
		{"c", "d", Score, Valley, 90, 0}, {"d", "e", Bend, Mountain, 60, 0},
	} {
		found := false
		for _, e := range p.Face(c.face).Edges {
			if e.Beyond == p.Face(c.beyond) {
				found = e.Kind == c.kind && e.Fold == c.fold && e.Turn == c.turn && e.Via == c.via
			}
		}
		if !found {
			t.Errorf("between %s and %s: %+v", c.face, c.beyond, p.Face(c.face).Edges)
		}
	}
}

// A pass that only bends is scored by nobody; a crease there is not is told.
func TestBendsAndMissingCreases(t *testing.T) {
	p := Grid("tube", Cols(20*mm, 30*mm), Rows(10*mm, 40*mm), "a b\nc d")
	p.Bend("a", "c")
	p.Bend("b", "d")
	p.Turn(20, Valley, "a", "d")
	p.Find()
	if len(p.Slanted) != 1 || p.Slanted[0].Kind != Bend || len(p.Passes) != 1 {
		t.Errorf("%v, %v", p.Slanted, p.Passes)
	}
	if !strings.Contains(strings.Join(p.Faults, ""), "no crease between a and d") {
		t.Error(p.Faults)
	}
}

// A curve is one face, in facets for folding alone, that turn by what it turns.
func TestCurves(t *testing.T) {
	p := Grid("arch", Cols(40*mm), Rows(20*mm, 60*mm, 20*mm), "tab\narch\nend")
	p.Curve("arch", false, 180, Valley)
	p.Find()
	f := p.Face("arch")
	if len(p.Faults) > 0 || len(p.Kept()) != 3 || len(p.Passes) != 0 ||
		math.Abs(p.Curves[0].Radius(f).MM()-60/math.Pi) > 0.001 {
		t.Fatalf("%v, %d faces, %v, radius %v", p.Faults, len(p.Kept()), p.Passes, p.Curves[0].Radius(f))
	}
	q, facets, turn := p.Facetted(), 0, 0.0
	for _, f := range q.Kept() {
		if f.Name == "arch" {
			facets++
		}
		for _, e := range f.Edges {
			if e.Kind == Bend && e.Beyond != nil {
				turn += e.Turn / 2 // each is seen from both its faces
			}
		}
	}
	if facets < 20 || math.Abs(turn-180) > 1e-9 {
		t.Errorf("%d facets turn by %.3f", facets, turn)
	}
}

// A mirror image has the same faces, left for right, and folds alike.
func TestMirrored(t *testing.T) {
	p := found(Grid("box", Cols(20*mm, 30*mm), Rows(10*mm, 40*mm), "a b\nc | d"))
	q := p.Mirrored()
	if again := q.Mirrored(); again.Face("a").Points[0] != p.Face("a").Points[0] {
		t.Error("mirrored twice, it is another piece")
	}
	for _, f := range p.Faces {
		g := q.Face(f.Name)
		lo, hi := f.Bounds()
		mlo, mhi := g.Bounds()
		if mlo.X != p.Width-hi.X || mhi.X != p.Width-lo.X || g.Area() != f.Area() || len(g.Edges) != len(f.Edges) {
			t.Errorf("%s lies at %v to %v", f.Name, mlo, mhi)
		}
		for i, e := range g.Edges {
			if e.A != g.Points[i] || e.B != g.Points[(i+1)%len(g.Points)] {
				t.Errorf("the edges of %s don't run around it", f.Name)
			}
		}
	}
}

// Columns and rows of no size fall out of a picture, with what is in them;
// slits beside them stay.
func TestNothingFallsOut(t *testing.T) {
	p := found(Grid("box", Cols(0, 20*mm, 0, 30*mm, 0), Rows(0, 10*mm, 25*mm), "v w x y z\na b c | d e\nf g h i j"))
	var names []string
	for _, f := range p.Kept() {
		names = append(names, f.Name)
	}
	if got := strings.Join(names, " "); len(p.Faults) > 0 || got != "b d g i" && len(names) != 4 || len(p.Slits) != 1 {
		t.Errorf("%s, %d slits, %v", got, len(p.Slits), p.Faults)
	}
	if lo, hi := p.Cell("i"); lo != (Point{20 * mm, 10 * mm}) || hi != (Point{50 * mm, 35 * mm}) {
		t.Errorf("i lies at %v to %v", lo, hi)
	}
	if p.Cell("z"); !strings.Contains(strings.Join(p.Faults, ""), `no cell "z"`) {
		t.Errorf("a cell that fell out: %v", p.Faults)
	}
}

// Windows and marks are kept for who cuts and sticks, and cut nothing else.
func TestWindowsAndMarks(t *testing.T) {
	p := Grid("panel", Cols(80*mm), Rows(50*mm), "panel")
	p.Window(Point{20 * mm, 15 * mm}, Point{60 * mm, 35 * mm})
	p.Rename("panel", Point{5 * mm, 5 * mm})
	p.Mark("magnet", Point{10 * mm, 10 * mm}, 4*mm)
	p.Find()
	if f := p.Face("panel"); f == nil || math.Abs(f.Area()-(80*50-40*20)) > 1e-6 || len(p.Faces) != 2 || len(p.Faults) > 0 {
		t.Errorf("%v, %v", p.Faces, p.Faults)
	}
	holes := 0
	for _, l := range p.Outline() {
		if l.Kind == Hole {
			holes++
		}
	}
	if holes != 4 || len(p.Marks) != 1 || len(p.Windows) != 1 {
		t.Errorf("%d sides of a window, %v, %v", holes, p.Marks, p.Windows)
	}
}
