package sheet

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
		{"a tab", func(p *Piece) { p.Tab("flap", "top", TabShape{Reach: 15 * mm, Mitre: 4 * mm, Relief: 2 * mm}) }, (56 + 48) / 2 * 15, 1},
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

// What is said of a line reaches the edges that are found on it.
func TestLinesAsTheyFold(t *testing.T) {
	p := Grid("tube", Cols(20*mm, 30*mm), Rows(10*mm, 40*mm), "a b\nc d")
	p.Turn(false, 10*mm, 35, Mountain)
	p.Refold(Point{0, 10 * mm}, Point{20 * mm, 10 * mm}, 20, Valley)
	p.FoldTwice(Point{20 * mm, 0}, Point{20 * mm, 10 * mm}, 90, 180, Valley)
	p.Slant(Bend, Point{20 * mm, 10 * mm}, Point{50 * mm, 50 * mm}, 60, Mountain)
	p.Rename("d", Point{45 * mm, 15 * mm})
	p.Label(Point{25 * mm, 45 * mm}, "e")
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
		{"a", "c", Score, Valley, 20, 0}, {"b", "d", Score, Mountain, 35, 0}, {"a", "b", Score, Valley, 180, 90},
		{"c", "e", Score, Valley, 90, 0}, {"d", "e", Bend, Mountain, 60, 0},
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
	if len(p.Slanted) != 1 || p.Slanted[0].Name != "s1" || len(p.Passes) != 2 || p.Passes[1].Fold != Mountain {
		t.Errorf("%v, %v", p.Slanted, p.Passes)
	}
	p.Bent(false, 10*mm)
	if len(p.Slanted) != 2 || len(p.Passes) != 1 {
		t.Errorf("bent: %v, %v", p.Slanted, p.Passes)
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
	p.Mark("magnet", Point{10 * mm, 10 * mm})
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
