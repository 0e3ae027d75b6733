package assembly

import (
	"math"
	"strings"
	"testing"

	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
)

const (
	mm = measure.Millimetre
	t3 = 3 * mm / 10
)

// tray is a tray of single walls, 10 mm tabs on its sides.
func tray(name string, l, w, h Length) *net.Piece {
	p := net.Grid(name, net.Cols(h, l, h), net.Rows(h, w, h), `
		back-left-tab  | back  | back-right-tab
		left             base    right
		front-left-tab | front | front-right-tab`)
	for _, end := range []string{"back", "front"} {
		for _, side := range []string{"left", "right"} {
			p.Corner(end+"-"+side+"-tab", side, end, net.TabShape{Reach: min(h, l/2-mm), Mitre: mm})
		}
	}
	p.Root = "base"
	p.FoldUp("left", "right")
	p.FoldUp("back-left-tab", "front-left-tab", "back-right-tab", "front-right-tab")
	p.FoldUp("back", "front")
	return p
}

// lidded is a tray with a lid, 2 mm larger, over it.
func lidded(l, w, h Length) *Tree {
	t := &Tree{}
	t.Add(tray("base", l, w, h))
	put := t.Add(tray("lid", l+2*mm, w+2*mm, h/2), Place{Face: "base", On: "base/base", Out: -(h + t3/2), Over: true})
	put.When, put.Off = net.Close, Up
	t.GoesOver("lid", "base", "left", "right", "front", "back")
	return t
}

func boxOf(t *Tree) *Box {
	b := &Box{Tree: *t}
	b.Find()
	s := b.Assemble(t3, Closed)
	b.MeasureRoom(s, Dims{})
	b.MeasureRest(s, t3)
	return b
}

func proof(b *Box, contents ...fold.Block) string {
	return Said(b.Prove(Means{T: t3, Width: 10 * mm}, contents))
}

// Every copy is placed, folded, proved and drawn; one that stands in another's
// place is found, by its name.
func TestEveryCopy(t *testing.T) {
	tree := &Tree{}
	tree.Add(tray("tray", 120*mm, 80*mm, 30*mm))
	inner := tray("cell", 50*mm, 60*mm, 15*mm)
	inner.Part = net.Insert
	at := func(x Length) Place { return Place{Face: "base", On: "tray/base", Right: x, Out: -t3} }
	tree.Add(inner, at(-28*mm), at(28*mm))
	b := boxOf(tree)
	s := b.Assemble(t3, Closed)
	if len(s.Bodies) != 3 || len(s.All("cell")) != 2 || b.Piece("cell").Count != 2 {
		t.Fatalf("%d bodies, %d cells, count %d", len(s.Bodies), len(s.All("cell")), b.Piece("cell").Count)
	}
	if said := proof(b); said != "" {
		t.Error(said)
	}
	b.Part("cell").At[1].Right = -20 * mm
	if said := proof(b); !strings.Contains(said, "of the cell") {
		t.Errorf("two cells in one place: %q", said)
	}
	b.Part("cell").At[1] = Place{Face: "base", On: "tray/nowhere"}
	if said := proof(b); !strings.Contains(said, "nowhere is not there") {
		t.Errorf("placed on nothing: %q", said)
	}
}

// A box within the box is the tree of a smaller one, its pieces named after it.
func TestBoxesWithinBoxes(t *testing.T) {
	tree := &Tree{}
	tree.Add(tray("tray", 130*mm, 70*mm, 34*mm))
	tree.Nest("sampler", lidded(50*mm, 50*mm, 24*mm),
		Place{Face: "base/base", On: "tray/base", Right: -30 * mm, Out: -t3},
		Place{Face: "base/base", On: "tray/base", Right: 30 * mm, Out: -t3, Quarters: 1}).Rests = true
	b := boxOf(tree)
	var names []string
	for _, p := range b.Pieces() {
		names = append(names, p.Name)
	}
	if got := strings.Join(names, ", "); got != "tray, sampler base, sampler lid" || b.Piece("sampler lid").Count != 2 {
		t.Fatalf("%s; %d lids", got, b.Piece("sampler lid").Count)
	}
	s := b.Assemble(t3, Closed)
	if len(s.Bodies) != 5 || len(s.All("sampler")) != 4 || s.Of("sampler/lid") == nil {
		t.Errorf("%d bodies, %d of the samplers", len(s.Bodies), len(s.All("sampler")))
	}
	if said := proof(b); said != "" {
		t.Error(said)
	}
	// The lid of an inner box must clear it too, in each copy.
	b.Part("sampler/lid").At[0].Right = 3 * mm
	if said := proof(b); !strings.Contains(said, "sampler/lid clears sampler/base") {
		t.Errorf("an inner lid beside its box: %q", said)
	}
	b.Part("sampler/lid").At[0].Right = 0
	// Too high for the outer box, it stands out of it.
	_, hi := fold.Extent(s.All("sampler")...)
	if math.Abs(hi.Z-(24.6+t3.MM()/2)) > 0.2 {
		t.Errorf("a box of 24 mm with a lid stands %.2f mm high", hi.Z)
	}
	course := b.Course() // its own lid goes on when it is filled
	if n := len(course); course[n-2].Does != "fill" || course[n-1].Does != "close" || course[n-1].Part != "sampler/lid" {
		t.Errorf("the course ends with %+v", course[n-2:])
	}
}

// Mirror images fold to mirror images.
func TestMirrorImages(t *testing.T) {
	wing := net.Grid("wing", net.Cols(10*mm, 30*mm), net.Rows(20*mm, 12*mm), "flap wall\n. foot")
	wing.Root = "foot"
	tree := &Tree{}
	tree.Add(net.Grid("floor", net.Cols(120*mm), net.Rows(60*mm), "floor"))
	tree.Add(wing, Place{Face: "foot", On: "floor/floor", Right: -40 * mm, Out: -t3},
		Place{Face: "foot", On: "floor/floor", Right: 40 * mm, Out: -t3, Mirror: true})
	tree.Stick("wing/foot", "floor/floor", false)
	b := boxOf(tree)
	s := b.Assemble(t3, Closed)
	a, m := s.All("wing")[0], s.All("wing")[1]
	for _, f := range a.Faces {
		g := m.Find(f.Name)
		if math.Abs(f.Middle().X+g.Middle().X) > 1e-6 || f.Middle().Sub(g.Middle()).Len() < 1 ||
			math.Abs(f.In.X+g.In.X) > 1e-6 || math.Abs(f.In.Z-g.In.Z) > 1e-6 {
			t.Errorf("%s lies at %v and %v, looking %v and %v", f.Name, f.Middle(), g.Middle(), f.In, g.In)
		}
	}
	if p := b.Piece("wing"); p.Count != 2 || p.Handed != 1 {
		t.Errorf("%d wings, %d of them mirrored", p.Count, p.Handed)
	}
	if said := proof(b); said != "" {
		t.Error(said)
	}
}

// Strips that lie over and under each other touch by their joins: that is no
// collision, and a join that does not hold is told.
func TestInterleavedStrips(t *testing.T) {
	strip := func(name string) *net.Piece {
		p := net.Grid(name, net.Cols(60*mm), net.Rows(12*mm), name)
		p.Root = name
		return p
	}
	weave := func(over Length) *Box {
		tree := &Tree{}
		tree.Add(strip("warp"))
		tree.Add(strip("weft"), Place{Face: "weft", On: "warp/warp", Out: over, Quarters: 1})
		tree.Joins = append(tree.Joins, Join{A: "weft/weft", B: "warp/warp", Layers: 1, Lapped: true})
		return boxOf(tree)
	}
	if said := proof(weave(-t3)); said != "" {
		t.Errorf("over: %s", said)
	}
	if said := proof(weave(t3)); said != "" {
		t.Errorf("under: %s", said)
	}
	if said := proof(weave(0)); !strings.Contains(said, "weft lies on warp: weft lies 0.3 mm off") {
		t.Errorf("through each other: %q", said)
	}
	b := weave(0)
	b.Joins = nil
	if said := proof(b); !strings.Contains(said, "runs into another") {
		t.Errorf("not joined: %q", said)
	}
}

// What it measures is read off: inside of the walls and tabs, outside with the
// card, whatever is stuck on included.
func TestMeasured(t *testing.T) {
	tree := lidded(90*mm, 70*mm, 40*mm)
	b := boxOf(tree)
	want := Dims{Length: 90*mm - t3, Width: 70*mm - 3*t3, Depth: 40*mm - t3/2}
	if b.Inside != want {
		t.Errorf("inside %v, want %v", b.Inside, want)
	}
	if o := (Dims{Length: 92*mm + t3, Width: 72*mm + t3, Depth: 40*mm + t3*3/2}); b.Outside != o {
		t.Errorf("outside %v, want %v", b.Outside, o)
	}
	topper := net.Grid("topper", net.Cols(110*mm), net.Rows(20*mm), "topper")
	tree.Add(topper, Place{Face: "topper", On: "lid/base", Out: t3})
	if b = boxOf(tree); b.Outside.Length != 110*mm || b.Inside != want {
		t.Errorf("with a topper outside %v, inside %v", b.Outside, b.Inside)
	}
	if b.Above != fold.Flat || b.Book || len(b.Seams) != 8 {
		t.Errorf("closed by %v, %v, %v", b.Above, b.Book, b.Seams)
	}
}
