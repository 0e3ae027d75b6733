package dress_test

import (
	"cmp"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/cutting"
	"brevium/core/dress"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/readings"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/core/style"
	"brevium/internal/tried"
)

// cutList writes the pieces of the dressing as a maker lists them.
func cutList(p *plan.Plan) string {
	var out []string
	if p.Dressed != nil {
		for _, l := range p.Dressed.Laid {
			text := func(l measure.Length) string {
				return strings.TrimSuffix(strings.TrimSuffix(l.Exact(p.Units), " in"), " mm")
			}
			out = append(out, fmt.Sprintf("%d %s %s x %s", l.Piece.Count, l.Piece.Name, text(l.Piece.Width),
				text(l.Piece.Height)))
		}
	}
	return strings.Join(out, "; ")
}

// Layers worked by hand: what they lie on, less a border on each side.
func TestLayersByHand(t *testing.T) {
	for _, c := range []struct {
		brief       brief.Brief
		dress, want string
	}{
		// 5 x 3 1/2 x 2 with a lid of 3/4: 2 x 0.27 and 2 x 0.27 of layers and 0.5 mm are 1/16 just; with
		// two on a wall 1/8.
		{tried.Sized("5", "3 1/2", "2", "box.options.lid-height", "3/4"), `{"layers": [{"on": "all"}]}`,
			"1 base bottom layer 4 3/4 x 3 1/4; 2 base left and right layer 3 1/4 x 1 3/4; 2 base front and back layer 4 3/4 x 1 3/4; " +
				"1 lid top layer 4 13/16 x 3 5/16; 2 lid left and right layer 3 5/16 x 1/2; 2 lid front and back layer 4 13/16 x 1/2"},
		{tried.Sized("5", "3 1/2", "2", "box.options.lid-height", "3/4"),
			`{"layers": [{"on": "base/front", "border": "1/16 in"}, {"on": "base/front"}, {"on": "lid/top", "top": "1/2 in"}]}`,
			"1 base front layer 4 7/8 x 1 7/8; 1 base front layer 2 4 5/8 x 1 5/8; 1 lid top layer 4 7/8 x 3"},
		// A carton 90 x 40 x 120: four panels in a row, two and two alike.
		{tried.Metric("carton", 90, 40, 120), `{"layers": [{"on": "sides"}]}`,
			"2 front and back layer 84 x 114; 2 left and right layer 34 x 114"},
		// A sleeve of 100 x 60 x 30 gains a millimetre each way on its drawer.
		{tried.Metric("sleeve-drawer", 100, 60, 30), `{"layers": [{"on": "sleeve/sides, sleeve/top", "border": "2 mm"}]}`,
			"2 sleeve front and back layer 96 x 27; 1 sleeve top layer 96 x 57"},
		// The pointed flap's layer is pointed: what is left between the moved sides.
		{tried.Metric("flap-box", 90, 60, 30, "box.options.flap", "straight", "box.options.flap-depth", "20 mm"),
			`{"layers": [{"on": "flap"}]}`,
			"1 flap layer 84 x 14"},
		// Ends 60 wide and 90 high under a half round: 3 less all round, and the facets' hair.
		{tried.Metric("arched-box", 60, 60, 90), `{"layers": [{"on": "front"}]}`, "1 ends front layer 54 x 83.97"},
		// A shell's triangle keeps its corner square.
		{tried.Metric("corner-shells", 90, 90, 40), `{"layers": [{"on": "top"}]}`, "2 shell top layer 82.757359 x 82.757359"},
	} {
		p := advice.Make(tried.Dressed(c.brief, c.dress), request.Default)
		if got := cutList(p); !strings.HasPrefix(got, c.want) || !p.Holds() {
			t.Errorf("%s %s:\n got %s\nwant %s; %s", p.Brief.Box.Style, c.dress, got, c.want, tried.Said(p))
		}
	}
}

// Liners are cut to what was measured: 0.27 mm of card at either side, and tabs of
// another at front and back; in plain numbers to the scores.
func TestLinersByHand(t *testing.T) {
	for _, c := range []struct{ options, dress, want string }{
		// 120 - 0.27 and 90 - 3 x 0.27, less 3, down to the millimetre
		{"", `{"liners": [{"in": "floor", "less": "3 mm"}]}`, "1 floor liner 116 x 86"},
		{"plain", `{"liners": [{"in": "floor", "less": "3 mm"}]}`, "1 floor liner 117 x 87"},
		{"", `{"liners": [{"in": "floor", "layers": 2}, {"in": "walls"}]}`,
			"2 floor liner 116 x 86; 2 left and right wall liner 86 x 56; 2 front and back wall liner 116 x 56"},
		{"", `{"liners": [{"in": "tabs"}]}`, "2 front and back wall liner 116 x 56"},
		{"", `{"liners": [{"in": "lid"}]}`, "1 lid liner 116 x 86"},
	} {
		b := tried.Metric("tray-lid", 120, 90, 60)
		b.Set("tools.allowances", c.options)
		bare := advice.Make(b, request.Default)
		p := advice.Make(tried.Dressed(b, c.dress), request.Default)
		if got := cutList(p); got != c.want || !p.Holds() {
			t.Errorf("%s %s: got %s, want %s; %s", c.options, c.dress, got, c.want, tried.Said(p))
		}
		if p.Box.Inside == bare.Box.Inside || p.Box.Outside.Length != bare.Box.Outside.Length {
			t.Errorf("%s: inside %v, bare %v", c.dress, p.Box.Inside, bare.Box.Inside)
		}
	}
}

// A wall liner is cut out round a magnet behind it, and only that wall's.
func TestLinersRoundMagnets(t *testing.T) {
	p := advice.Make(tried.Dressed(tried.Metric("flap-box", 120, 80, 40), `{"liners": [{"in": "walls"}]}`), request.Default)
	if got := cutList(p); !strings.Contains(got, "1 front wall liner") || !strings.Contains(got,
		"1 back wall liner") || !p.Holds() {
		t.Fatalf("%s; %s", got, tried.Said(p))
	}
	if p.Box.Piece("back wall liner").Shaped() {
		t.Error("the back is cut round nothing")
	}
	liner, box := p.Box.Proved.Of("front wall liner"), p.Box.Proved.Of("box")
	own := liner.Find("liner")
	at, ok := box.MarkOn(box.Find("front"), "magnet")
	if !ok || net.Inside(own.Face.Points, own.Under(at)) {
		t.Fatal("there is no magnet on the front, or the liner lies over it")
	}
	for _, v := range own.Poly {
		if off := v.Sub(at); math.Hypot(off.X, off.Z) < box.Piece.Marks[0].Radius.MM()+0.9 {
			t.Errorf("the liner lies %.1f mm from the middle of the magnet", math.Hypot(off.X, off.Z))
		}
	}
}

// What lies under a lid makes its clearance, and nothing else does.
func TestClearanceFollowsLayers(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 3))
	for range tried.Boxes(400) {
		b := tried.Metric("tray-lid", 60+r.IntN(90), 60+r.IntN(90), 30+r.IntN(50))
		b.Tools.Step, b.Card.Sheet = "0.5 mm", "a3"
		bare := advice.Make(b, request.Default)
		n := 1 + r.IntN(3)
		layers := make([]string, n)
		for i := range layers {
			layers[i] = `{"on": "base/sides", "border": "1 mm", "stock": "kraft-300"}`
		}
		kraft, _ := request.Default.Card("kraft-300")
		p := advice.Make(tried.Dressed(b, `{"layers": [`+strings.Join(layers, ",")+`]}`), request.Default)
		lids := advice.Make(tried.Dressed(b, `{"layers": [{"on": "lid"}, {"on": "underside"}], "liners": [{"in": "floor"}]}`), request.Default)
		if !bare.OK() || !p.OK() || !lids.OK() {
			t.Fatal(tried.Said(bare), tried.Said(p), tried.Said(lids))
		}
		if p.FitKey.Layers != n || bare.FitKey.Layers != 0 || lids.FitKey.Layers != 0 {
			t.Fatalf("what is learnt of it is learnt of %d layers, not %d", p.FitKey.Layers, n)
		}
		want := (2*p.Card.Caliper + 2*measure.Length(n)*kraft.Caliper + p.Slack).Up(p.Step.Size)
		if got := p.Box.Clearance; got != want && got != want-p.Step.Size || !p.Holds() {
			t.Fatalf("%d layers: %v, want %v; %s", n, got, want, tried.Said(p))
		}
		if lids.Box.Clearance != bare.Box.Clearance || !lids.Holds() {
			t.Fatalf("layers on the lid change the clearance: %v, %v; %s", lids.Box.Clearance, bare.Box.Clearance, tried.Said(lids))
		}
	}
}

// A run goes round in order, each layer as far along as its panel is round the box, the
// seam at the back.
func TestRunsGoRound(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 9))
	for range tried.Boxes(200) {
		l, w := 50+r.IntN(80), 40+r.IntN(80)
		p := advice.Make(tried.Dressed(tried.Metric("tray-lid", l, w, 30+r.IntN(40), "box.options.lid", "none"),
			`{"layers": [{"on": "sides", "run": true, "border": "2 mm", "stock": "sprig-220"}]}`), request.Default)
		if !p.Holds() || len(p.Dressed.Runs) != 1 {
			t.Fatal(tried.Said(p))
		}
		run, at := p.Dressed.Runs[0], []int{0, w, w + l, w + l + w}
		for i, c := range run.Cuts {
			side := []string{"left", "front", "right", "back"}[i]
			if c.On != "base/"+side || c.X != measure.Length(at[i])*measure.Millimetre {
				t.Fatalf("%s lies at %v, want %s at %d", c.On, c.X, side, at[i])
			}
		}
		if run.W != measure.Length(2*(l+w)-4)*measure.Millimetre {
			t.Fatalf("the strip is %v", run.W)
		}
		for _, s := range p.Layout.Sheets {
			for _, one := range s.Placed {
				if s.Stock == "sprig-220" && (one.Turned || !strings.HasPrefix(one.Piece, "run round the base")) {
					t.Fatalf("%s lies on the sheet, turned %v", one.Piece, one.Turned)
				}
			}
		}
	}
}

// A motif comes to the middle of the front: the piece lies round its spot on the sheet,
// on one sheet a box.
func TestMotifs(t *testing.T) {
	b := tried.Dressed(tried.Metric("tray-lid", 100, 70, 40),
		`{"layers": [{"on": "front", "stock": "sprig-220", "motif": {"x": "120 mm", "y": "90 mm"}}]}`)
	b.Copies = "3"
	p := advice.Make(b, request.Default)
	if !p.Holds() {
		t.Fatal(tried.Said(p))
	}
	found := 0
	for _, s := range p.Layout.Sheets {
		for _, one := range s.Placed {
			if one.Piece == "base front layer" {
				found++
				if one.Rect.X+one.Rect.W/2 != 120*measure.Millimetre || one.Rect.Y+one.Rect.H/2 != 90*measure.Millimetre {
					t.Errorf("it lies at %v", one.Rect)
				}
			}
		}
	}
	if found != 3 {
		t.Errorf("%d are laid round the motif", found)
	}
}

// Ribbon by hand: twice round what was measured, crosswise, and a bow of 4 x 50 and two
// tails of 75 over a knot of 40 and two widths.
func TestRibbonByHand(t *testing.T) {
	for _, c := range []struct {
		dress string
		more  int // beside the girths, in millimetres
		wide  int // girths over length and height, and over width and height
		deep  int
	}{
		{`{"ribbon": {"way": "across", "width": "10 mm"}}`, 40 + 20 + 200 + 150, 0, 1},
		{`{"ribbon": {"way": "cross", "width": "10 mm", "bow": "double"}}`, 2*60 + 400 + 150, 1, 1},
		{`{"ribbon": {"way": "along", "width": "10 mm", "turns": 3, "bow": "none"}}`, 25, 3, 0},
		{`{"ribbon": {"way": "across", "width": "10 mm", "bow": "knot", "tails": "100 mm"}}`, 60 + 200, 0, 1},
	} {
		p := advice.Make(tried.Dressed(tried.Metric("tray-lid", 120, 90, 60), c.dress), request.Default)
		if !p.Holds() || len(p.Dressed.Supplies) != 1 {
			t.Errorf("%s: %s %v", c.dress, tried.Said(p), p.Dressed)
			continue
		}
		bare := advice.Make(tried.Metric("tray-lid", 120, 90, 60), request.Default)
		o := bare.Box.Outside
		girths := measure.Length(c.wide)*2*(o.Length+o.Depth) + measure.Length(c.deep)*2*(o.Width+o.Depth)
		want := girths + measure.Length(c.more)*measure.Millimetre
		if got := p.Dressed.Supplies[0].Length; got < want-6*measure.Millimetre || got > want+10*measure.Millimetre {
			t.Errorf("%s: %v, want about %v", c.dress, got.MM(), want.MM())
		}
	}
}

// Of printed card the pattern's top is where the front stands upright, and layers are
// drawn as they stand: a copy of the box's front in space grows upwards.
func TestPatternStandsUpright(t *testing.T) {
	for _, s := range style.Styles {
		b := tried.Metric(s.ID, 90, 90, 45, "card.stock", "sprig-220")
		b.Box.Style = brief.Text(s.ID)
		p := advice.Make(tried.Dressed(b, `{"layers": [{"on": "outside", "stock": "stripe-220"}]}`), request.Default)
		if !p.OK() {
			continue
		}
		for _, body := range p.Box.Proved.Bodies {
			f := body.Faces[0]
			if body.Piece.Part != net.Layer || !p.CardOf(body.Piece.Stock).Directed() || f.Level() {
				continue
			}
			if f.Y.Z > 1e-6 { // what is down on the drawing goes down, or level
				t.Errorf("%s: the %s stands head down", s.ID, body.Name)
			}
		}
		for _, piece := range p.Box.Pieces() {
			top := p.PatternTop(piece)
			fronts := slices.DeleteFunc(slices.Clone(dress.Upright(p.Box, p.Card.Caliper)[piece.Name]),
				func(u dress.Stands) bool { return u.Looks != "front" })
			slices.SortStableFunc(fronts, func(a, b dress.Stands) int { return cmp.Compare(b.Area, a.Area) })
			if len(fronts) > 0 && cutting.Edges[fronts[0].Up] != top {
				t.Errorf("%s: of the %s the %s grows to the %s edge, the pattern to the %s", s.ID, piece.Name, fronts[0].Face,
					cutting.Edges[fronts[0].Up], top)
			}
		}
	}
}

// Levels go from bare to keepsake, each with more pieces, and all of them hold.
func TestLevels(t *testing.T) {
	for _, s := range style.Styles {
		p := advice.Make(tried.Metric(s.ID, 90, 90, 45), request.Default)
		if !p.OK() {
			continue
		}
		pieces := 0
		for _, l := range advice.Levels(p, request.Default) {
			if !l.Can || l.Pieces < pieces || l.Now != (l.ID == "bare") {
				t.Errorf("%s, %s: %+v", s.ID, l.ID, l)
				continue
			}
			b := p.Brief.Clone()
			b.Dress = l.Dress
			if q := advice.Make(b, request.Default); !q.Holds() {
				t.Errorf("%s, %s: %s", s.ID, l.ID, tried.Said(q))
			}
			pieces = l.Pieces
		}
	}
}

// In a set each box has its own dressing; all is laid out together. Boxes that are
// compared are bare.
func TestDressedSets(t *testing.T) {
	b := tried.Dressed(tried.Metric("tray-lid", 120, 120, 40),
		`{"layers": [{"on": "outside", "stock": "sprig-220", "run": true}], "band": {"width": "20 mm"}}`)
	b.AddMember()
	b.Several.Kind, b.Several.Step = "stack", "20 mm"
	set := sets.Make(b, request.Default)
	if !set.OK() {
		t.Fatal(set.Problems)
	}
	for i, p := range set.Plans {
		if !p.Holds() || p.Dressed == nil || len(p.Dressed.Runs) != 2 {
			t.Errorf("box %d: %s", i, tried.Said(p))
		}
	}
	strips := 0
	for _, l := range set.Layouts {
		for _, s := range l.Sheets {
			for _, one := range s.Placed {
				if strings.Contains(one.Piece, "run round the") {
					strips++
				}
			}
		}
	}
	if strips < 4 {
		t.Errorf("%d strips are laid out", strips)
	}
	for _, s := range advice.Each(t.Context(), set.Plans[0].Brief, request.Default) {
		if s.Plan.Dressed != nil {
			t.Errorf("%s is compared dressed", s.Style.ID)
		}
	}
}

// What is left serves for what it is as large as.
func TestLeft(t *testing.T) {
	p := advice.Make(tried.Dressed(tried.Metric("chamfer-foot", 90, 50, 60),
		`{"toppers": [{"shape": "round", "width": "20 mm"}]}`), request.Default)
	left := readings.LeftOver(p, nil)
	if !p.Holds() || len(left) == 0 {
		t.Fatal(tried.Said(p), left)
	}
	corners := false
	for i, l := range left {
		if i > 0 && l.W.MM()*l.H.MM() > left[i-1].W.MM()*left[i-1].H.MM()+1 || l.H < readings.LeastLeft {
			t.Errorf("%+v after %+v", l, left[i-1])
		}
		corners = corners || strings.HasPrefix(l.From, "corners") && len(l.Serves) > 0
	}
	if !corners {
		t.Errorf("no corner serves for anything: %+v", left)
	}
}

// A fully dressed tray and lid: 20 layer pieces, a band and a topper.
func BenchmarkDressed(b *testing.B) {
	full := tried.Dressed(tried.Sized("5", "3 1/2", "2"), `{"layers": [{"on": "all"}, {"on": "all", "stock": "sprig-220"}],
		"band": {"width": "1 in"}, "toppers": [{"shape": "scalloped"}]}`)
	if p := advice.Make(full, request.Default); !p.Holds() {
		b.Fatal(tried.Said(p))
	}
	for b.Loop() {
		advice.Make(full, request.Default)
	}
}
