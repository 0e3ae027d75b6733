package net

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/measure"
)

const mm = measure.Millimetre

func found(p *Piece) *Piece { p.Find(); return p }

// tray is the plainest box: five faces and four corner squares.
func tray(picture string) *Piece {
	return found(Grid("tray", Cols(20*mm, 50*mm, 20*mm), Rows(20*mm, 30*mm, 20*mm), picture))
}

func TestGridFaces(t *testing.T) {
	cases := []struct {
		name, picture string
		faces, waste  int
		passes        int
		fault         string
	}{
		{"slit corners", "a | back | b\nleft base right\nc | front | d", 9, 0, 4, ""},
		{"corners away", ". back .\nleft base right\n. front .", 5, 4, 4, ""},
		{"pinwheel", "a back | b\n- ~ ~\nleft base right\n~ ~ -\nc | front d", 9, 0, 4, ""},
		{"one face over two cells", "a a b\nc d e\nf g h", 8, 0, 4, ""},
		{"one name for two faces", "a b a\nc d e\nf g h", 9, 0, 4, "two faces"},
		{"a row too short", "a b\nc d e\nf g h", 1, 0, 0, "2 cells for 3"},
		{"a row too few", "a b c\nd e f", 1, 0, 0, "2 rows of cells for 3"},
	}
	for _, c := range cases {
		p := tray(c.picture)
		if got := len(p.Kept()); got != c.faces || len(p.Faces)-got != c.waste || len(p.Passes) != c.passes {
			t.Errorf("%s: %d faces, %d waste, %d passes", c.name, got, len(p.Faces)-got, len(p.Passes))
		}
		if faults := strings.Join(p.Faults, "; "); !strings.Contains(faults, c.fault) || c.fault == "" && faults != "" {
			t.Errorf("%s: faults %q", c.name, faults)
		}
	}
}

// A line left out joins two faces, and that is told by their names.
func TestMissingLines(t *testing.T) {
	p := Grid("tray", Cols(20*mm, 50*mm), Rows(30*mm), "left base")
	p.Lines = nil
	if p.Find(); !strings.Contains(strings.Join(p.Faults, ""), "left and base") {
		t.Errorf("a missing score: %v", p.Faults)
	}
	p = New("card", 40*mm, 40*mm)
	p.Lines = append(p.Lines, Line{Kind: Score, A: Point{0, 20 * mm}, B: Point{30 * mm, 20 * mm}})
	if p.Find(); !strings.Contains(strings.Join(p.Faults, ""), "ends inside") || len(p.Faces) != 1 {
		t.Errorf("a score that stops short: %v", p.Faults)
	}
	p = New("card", 40*mm, 40*mm)
	p.Label(Point{50 * mm, 0}, "off")
	if p.Find(); !strings.Contains(strings.Join(p.Faults, ""), "no card") {
		t.Errorf("a name off the card: %v", p.Faults)
	}
}

func TestDiagonalsAndHoles(t *testing.T) {
	p := New("card", 40*mm, 40*mm)
	p.Lines = append(p.Lines,
		Line{Kind: Score, A: Point{0, 0}, B: Point{40 * mm, 40 * mm}},
		Line{Kind: Score, A: Point{40 * mm, 0}, B: Point{0, 40 * mm}})
	// A square punched out of the upper triangle.
	sq := []Point{{18 * mm, 4 * mm}, {22 * mm, 4 * mm}, {22 * mm, 8 * mm}, {18 * mm, 8 * mm}}
	for i := range sq {
		p.Lines = append(p.Lines, Line{Kind: Hole, A: sq[i], B: sq[(i+1)%4]})
	}
	p.Label(Point{20 * mm, 2 * mm}, "top")
	p.Find()
	if len(p.Kept()) != 4 || len(p.Faces) != 5 || len(p.Faults) > 0 {
		t.Fatalf("%d faces, %d kept, %v", len(p.Faces), len(p.Kept()), p.Faults)
	}
	top := p.Face("top")
	if len(top.Holes) != 1 || math.Abs(top.Area()-(400-16)) > 1e-6 {
		t.Errorf("the punched face has %d holes and %.2f mm²", len(top.Holes), top.Area())
	}
}

// However a sheet is scored right across, the faces make up the sheet, every
// edge between two faces is known to both, and the outline has no line twice.
func TestFacesMakeUpTheSheet(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 9))
	for range 300 {
		w, h := Length(20+r.IntN(200))*mm, Length(20+r.IntN(200))*mm
		p := New("card", w, h)
		for range r.IntN(7) {
			a := Point{Length(r.Int64N(int64(w))), 0}
			b := Point{Length(r.Int64N(int64(w))), h}
			if r.IntN(2) == 0 {
				a, b = Point{0, Length(r.Int64N(int64(h)))}, Point{w, Length(r.Int64N(int64(h)))}
			}
			p.Lines = append(p.Lines, Line{Kind: Kind(r.IntN(3)), A: a, B: b})
		}
		p.Find()
		sum := 0.0
		for _, f := range p.Faces {
			sum += f.Area()
			for _, e := range f.Edges {
				if e.Beyond == nil {
					continue
				}
				back := false
				for _, o := range e.Beyond.Edges {
					back = back || o.A == e.B && o.B == e.A && o.Beyond == f
				}
				if !back {
					t.Fatalf("an edge is known to one face alone: %+v", e.Line)
				}
			}
		}
		if whole := w.MM() * h.MM(); math.Abs(sum-whole) > 1e-3*whole {
			t.Fatalf("faces of %.2f mm² on a sheet of %.2f", sum, whole)
		}
	}
}

func TestTab(t *testing.T) {
	p := Grid("tray", Cols(20*mm, 50*mm, 20*mm), Rows(20*mm, 30*mm, 20*mm), "a | back | b\nleft base right\nc | front | d")
	p.Tab("a", "left", TabShape{Reach: 15 * mm, Mitre: 3 * mm, Relief: mm})
	p.Tab("nowhere", "left", TabShape{})
	p.Tab("b", "left", TabShape{})
	p.Find()
	a := p.Face("a")
	if a == nil || math.Abs(a.Area()-15*(18+12)/2) > 1e-6 {
		t.Errorf("the tab has %v", a)
	}
	if faults := strings.Join(p.Faults, ";"); !strings.Contains(faults, `no cell "nowhere"`) ||
		!strings.Contains(faults, "does not touch left") {
		t.Errorf("faults %q", faults)
	}
}
