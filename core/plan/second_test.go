package plan_test

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
)

// The second set worked by hand: plain geometry, with the gains that plain numbers
// add where something goes round something.
func TestSecondSetExamples(t *testing.T) {
	for _, c := range []struct{ style, size, options, pieces string }{
		{"woven-basket", "90 70 60", "", "basket 210 x 190, handle 20 x 210"},
		{"woven-basket", "90 70 60", "strips=2,handle=none", "basket 210 x 190"},
		// Spine, base, top and lip each a mark longer: 222 and 4.
		{"fold-flat", "80 80 24", "lip=14 mm,overhang=3 mm,tools.allowances=plain", "tray 128 x 128, cover 86 x 226"},
		{"corner-shells", "70 70 25", "band=no,tools.allowances=plain", "tray 170 x 170, shell 172 x 99"},
		{"chamfer-foot", "100 50 70", "chamfer=20 mm,flaps=45 mm", "box 200 x 280"},
		{"pleat-pouch", "90 24 50", "pleat=16 mm", "pouch 138 x 188"},
		// Arc 62.8 and twice 25: 112.8, to the mark and a mark of gain; tabs of 8 on either side.
		{"arched-box", "40 60 45", "foot-tab=8 mm,closure=none,tools.adhesive=glue,tools.allowances=plain",
			"ends 52 x 150, cover 129 x 60"},
		{"book-wrap", "60 90 14", "border=4 mm,strap-lap=15 mm,closer=ribbon,tools.allowances=plain", "case 144 x 94, strap 14 x 227"},
		{"cross-fold", "40 40 40", "", "cross 220 x 138, box base 120 x 120, box lid 71 x 71, lid 169 x 87"},
		{"strip-column", "60 60 60", "", "cap 96 x 96, strip 252 x 122, foot box base 180 x 180, half box base 180 x 150"},
	} {
		p := tried.Second(t, c.style, c.size, c.options)
		var got []string
		for _, piece := range p.Box.Pieces() {
			mm := func(l measure.Length) string { return strings.TrimSuffix(l.Exact("mm"), " mm") }
			got = append(got, fmt.Sprintf("%s %s x %s", piece.Name, mm(piece.Width), mm(piece.Height)))
		}
		if s := strings.Join(got, ", "); s != c.pieces {
			t.Errorf("%s %s: %s, worked by hand %s", c.style, c.options, s, c.pieces)
		}
	}
	top := func(id, size, options, part, wall string) float64 {
		body := tried.Second(t, id, size, options).Box.Assemble(0, assembly.Closed).Of(part)
		_, hi := fold.Bounds(body)
		eave := 0.0
		for _, v := range body.Find(wall).Poly {
			eave = max(eave, v.Z)
		}
		return hi.Z - eave
	}
	if got := top("pleat-pouch", "90 24 50", "pleat=16 mm", "pouch", "front"); math.Abs(got-10.58-16) > 0.05 {
		t.Errorf("the pleats rise and stand %.2f mm over the walls, worked by hand 10.58 and 16", got)
	}
	facet := tried.Second(t, "chamfer-foot", "100 50 70", "chamfer=20 mm").Box.Piece("box").Face("left-facet")
	if lo, hi := facet.Bounds(); hi.X-lo.X != 28*measure.Millimetre {
		t.Errorf("a facet %v wide", hi.X-lo.X)
	}
	side := tried.Second(t, "arched-box", "40 60 45", "closure=none,tools.adhesive=glue")
	if got := side.Box.Settled["side"]; got != 25*measure.Millimetre {
		t.Errorf("the straight part is %v", got)
	}
}

// Strips lie over and under each other in turn: of one height the left one first, of
// the next the right one; fanned, they lie on the wall they are stuck to.
func TestWeave(t *testing.T) {
	layer := func(p *plan.Plan, face string) int {
		for _, g := range p.Box.Piece("basket").Glues {
			if g.Face == face {
				return g.Layers
			}
		}
		return 0
	}
	p := tried.Second(t, "woven-basket", "90 70 60", "")
	for i, over := range []bool{true, false, true} {
		left, right := layer(p, fmt.Sprintf("left-front-%d", i+1)), layer(p, fmt.Sprintf("right-front-%d", i+1))
		if left == right || right > left != over {
			t.Errorf("strip %d: left %d, right %d", i+1, left, right)
		}
	}
	if p = tried.Second(t, "woven-basket", "130 70 40", ""); layer(p, "left-front-1") != 1 || layer(p, "right-front-1") != 1 {
		t.Error("strips that don't lap lie on each other")
	}
	// Drawn down: the upper edge of the top strip ends at the rim.
	p = tried.Second(t, "woven-basket", "130 70 60", "side-height=40 mm,handle=none")
	body := p.Box.Assemble(p.Card.Caliper, assembly.Closed).Of("basket")
	far := math.Inf(1)
	for _, v := range body.Find("left-front-3").Poly {
		if math.Abs(v.X-(-65+40)) < 0.5 {
			far = min(far, math.Abs(v.Z-40))
		}
	}
	if far > 0.01 {
		t.Errorf("the top strip ends %.2f mm from the rim", far)
	}
}

// States: put away flat, open, closed; the fold-out opened flat, its boxes standing.
func TestStates(t *testing.T) {
	for options, stores := range map[string]bool{"": true, "webs=outside": true, "stuck=yes": false} {
		p := tried.Second(t, "fold-flat", "80 80 24", options)
		flat, ok := p.Box.FlatPacked(p.Card.Caliper)
		if ok != stores || p.Box.Stores != stores {
			t.Errorf("fold-flat %s stores flat: %v", options, ok)
		}
		lo, hi := fold.Bounds(flat.Bodies...)
		if ok && (hi.Z-lo.Z > 4*p.Card.Caliper.MM() || p.Box.Stored.Width > 130*measure.Millimetre) {
			t.Errorf("fold-flat %s put away: %v", options, hi.Sub(lo))
		}
	}
	p := tried.Second(t, "cross-fold", "40 40 40", "boxes=4")
	open := p.Box.Assemble(p.Card.Caliper, assembly.Pose{Fold: 1, Lift: 1})
	for _, body := range open.All("box") {
		for _, f := range body.Faces {
			if f.Name == "base" && f.In.Z < 0.999 {
				t.Error("a small box does not stand when the cross is open")
			}
		}
	}
	cross := open.Of("cross")
	for _, side := range []string{"left", "right", "front", "back"} {
		if cross.Find(side).In.Z < 0.999 {
			t.Errorf("%s does not lie flat", side)
		}
	}
	if c := fold.Apart(nil, open.All("box")...); !c.Holds {
		t.Error("opened:", c.Figure)
	}
	// A wall is no face to stick a small box by: its lid stands out over it.
	p.Box.Part("box").At[0] = assembly.Place{Face: "base/left", On: "cross/left", Out: -p.Card.Caliper}
	if tried.Proved(p) == "" {
		t.Error("a small box stuck by its wall holds")
	}
}

// Rooms that are no block take things as they are: a ball wants less than the block
// round it, under an arch and over a chamfered foot; both lie inside.
func TestShapedRooms(t *testing.T) {
	for _, c := range []struct{ style, options string }{{"arched-box", "closure=none"}, {"chamfer-foot", ""}} {
		size := map[string]style.Dims{}
		for _, shape := range []brief.Text{"ball", "block"} {
			b := brief.New("mm")
			b.Contents = []brief.Item{{Name: "thing", Shape: shape, Diameter: "60 mm", Length: "60 mm", Width: "60 mm", Height: "60 mm",
				Count: "1"}}
			b.Box = brief.Box{Style: brief.Text(c.style)}
			b.Set("card.sheet", "a3")
			b.Set("card.join", "yes")
			p := advice.Make(b, request.Default)
			if !p.Holds() || !p.Box.Shaped {
				t.Fatal(c.style, shape, p.Problems, tried.Said(p))
			}
			size[string(shape)] = p.Box.Size
			// Moved to the side, a block meets the slope.
			p.Blocks[0].Lo.X, p.Blocks[0].Hi.X = p.Blocks[0].Lo.X+12, p.Blocks[0].Hi.X+12
			if shape == "block" && !strings.Contains(tried.Proved(p), "thing meets") {
				t.Errorf("%s: a block moved aside meets nothing", c.style)
			}
		}
		if a, b := size["ball"], size["block"]; a.Length+a.Depth >= b.Length+b.Depth {
			t.Errorf("%s: a ball wants %v, a block %v", c.style, a, b)
		}
	}
}

// What goes in each of several small boxes: all of it, once, and whole kinds where
// there are enough of them.
func TestSharingOut(t *testing.T) {
	things := func(counts ...int) (out []contents.Thing) {
		for i, n := range counts {
			s := measure.Length(20+5*i) * measure.Millimetre
			out = append(out, contents.Thing{Name: fmt.Sprint("thing ", i), Count: n, Size: contents.Size{Length: s, Width: s, Height: s}})
		}
		return out
	}
	for _, c := range []struct {
		counts []int
		parts  []float64
	}{{[]int{6}, []float64{1, 1, 1}}, {[]int{1, 1, 1}, []float64{1, 1, 1}}, {[]int{2, 7, 3, 4}, []float64{1, 1, 1}},
		{[]int{1}, []float64{2, 1, 1}}, {[]int{5, 2}, []float64{2, 1, 1}}} {
		got := contents.Share(things(c.counts...), c.parts)
		for i, n := range c.counts {
			sum, rooms := 0, 0
			for _, r := range got {
				if sum += r[i]; r[i] > 0 {
					rooms++
				}
			}
			if sum != n || len(c.counts) >= len(c.parts) && rooms != 1 {
				t.Errorf("%v into %v: %v", c.counts, c.parts, got)
			}
		}
	}
	b := brief.New("mm")
	b.Contents = []brief.Item{{Name: "tin", Shape: "block", Length: "30 mm", Width: "30 mm", Height: "24 mm", Count: "3"}}
	b.Box = brief.Box{Style: "cross-fold"}
	b.Set("card.sheet", "a3")
	p := advice.Make(b, request.Default)
	if !p.Holds() || len(p.Rooms) != 3 || !p.Laid() || slices.ContainsFunc(p.Rooms, func(r plan.Room) bool { return len(r.Blocks) != 1 }) {
		t.Fatalf("three tins: %v %+v", p.Problems, p.Rooms)
	}
	p.Box.Rooms[1].Things[0].Hi.Z += 20
	if got := tried.Proved(p); !strings.Contains(got, "right box") {
		t.Errorf("a tin too high for its small box: %q", got)
	}
	b.Contents[0].Upright = "yes"
	if p = advice.Make(b, request.Default); !slices.ContainsFunc(p.Warnings, func(w brief.Warning) bool { return w.Code == "on-its-side" }) {
		t.Error("nobody says that it lies on its side")
	}
	b.Arrange.Compartments = "trays"
	tried.WantProblem(t, b, "arrange.compartments", "trays")
}

// A root or an arc is off by what the marks make of it, and no more: what was
// rounded is pulled to its place, what is wrong is not.
func TestRoundingIsNoLicence(t *testing.T) {
	p := tried.Second(t, "chamfer-foot", "100 50 70", "chamfer=20 mm")
	box := p.Box.Piece("box")
	if box.Rounded == 0 || box.Rounded > measure.Millimetre/2 {
		t.Errorf("rounded by %v", box.Rounded)
	}
	box.Rounded = 0
	if got := tried.Proved(p); !strings.Contains(got, "left side") {
		t.Errorf("a facet that is off, unsaid: %q", got)
	}
	p = tried.Second(t, "arched-box", "70 90 60", "")
	cover := p.Box.Piece("cover")
	cover.Curves[0].Turn = 170
	p.Box.Find()
	if got := tried.Proved(p); !strings.Contains(got, "cover") {
		t.Errorf("an arch bent too little: %q", got)
	}
}
