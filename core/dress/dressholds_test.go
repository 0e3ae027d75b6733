package dress_test

import (
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
)

// Every style, over sizes, cards and answers, with layers, liners and what goes round:
// what is planned is proved, every layer even within its panel; the rest is refused at a
// field of the dressing, or was refused bare.
func TestDressedBoxesHold(t *testing.T) {
	for i, s := range style.Styles {
		t.Run(s.ID, func(t *testing.T) {
			t.Parallel()
			r := rand.New(rand.NewPCG(81, uint64(i)))
			all, planned := tried.Combinations(s), 0
			for n := range tried.Fewer(1000) {
				b := tried.Random(r)
				b.Box = brief.Box{Style: brief.Text(s.ID)}
				tried.Answer(&b, s, (n*7)%all)
				if bare := tried.Unmended(b); !bare.OK() || !bare.Holds() {
					continue
				}
				b.Dress = anyDressing(r)
				p := tried.Unmended(b)
				if !p.OK() {
					if f := p.Problems[0].Field; !strings.HasPrefix(f, "dress.") && f != "size.length" && f != "tools.allowances" &&
						!strings.HasPrefix(f, "size.") && !strings.HasPrefix(f, "contents") && !strings.HasPrefix(f, "box.") {
						t.Fatalf("refused at %s: %s, for %s", f, p.Problems[0].Text, b.Encode())
					}
					continue
				}
				if why := tried.Said(p); why != "" {
					t.Fatalf("%s, for %s", why, b.Encode())
				}
				planned++
			}
			if planned < tried.Fewer(40) {
				t.Errorf("only %d were planned", planned)
			}
		})
	}
}

// anyDressing is a dressing of chance.
func anyDressing(r *rand.Rand) (d brief.Dress) {
	pick := func(words ...string) brief.Text { return brief.Text(words[r.IntN(len(words))]) }
	card := func() brief.Text { return pick("", "kraft-300", "sprig-220", "dots-120", "light-160") }
	for range r.IntN(3) {
		d.Layers = append(d.Layers, brief.Layer{On: pick("all", "outside", "sides", "top", "front", "lid"), Stock: card(),
			Border: pick("", "1/16 in", "3 mm", "0"), Run: brief.Flag(pick("", "yes"))})
	}
	if r.IntN(3) == 0 {
		d.Liners = []brief.Liner{{In: pick("floor", "all", "walls", "lid"), Stock: card()}}
	}
	if r.IntN(3) == 0 {
		d.Toppers = []brief.Topper{{Shape: pick("round", "heart", "banner", "tag"), Raised: brief.Flag(pick("", "yes")),
			On: pick("", "", "band", "hanging")}}
	}
	if r.IntN(4) == 0 {
		d.Windows = []brief.Opening{{On: pick("top", "front", "sides"), Shape: pick("square", "rounded", "round"),
			Frame: pick("", "4 mm")}}
		d.Grips = []brief.Grip{{Kind: pick("notch", "pull"), On: pick("front", "lid", "left")}}
	}
	if r.IntN(4) == 0 {
		d.Closure = brief.Fastening{Kind: pick("magnet", "dot", "brad", "seal", "button", "ribbon")}
		d.Handle = brief.Handle{Kind: pick("", "", "strip", "swing", "cord")}
		d.Bow = brief.Bow{Loops: brief.Whole(pick("", "5")), Curls: brief.Whole(pick("", "3"))}
	}
	switch r.IntN(5) {
	case 0:
		d.Ribbon = brief.Ribbon{Way: pick("across", "level", "cross")}
	case 1:
		d.Band = brief.Belt{Way: pick("across", "along", "level"), Stock: card(), Seam: pick("", "above")}
	}
	return d
}

// What can't be is refused at its field, in words that name it.
func TestWrongDressings(t *testing.T) {
	for _, c := range []struct{ style, dress, field, says string }{
		{"tray-lid", `{"layers": [{"on": "wheel"}]}`, "dress.layers.0.on", "no visible panel called “wheel”"},
		{"tray-lid", `{"layers": [{"on": " "}]}`, "dress.layers.0.on", "isn't on any panel"},
		{"tray-lid", `{"layers": [{"on": "all"}, {"on": "front", "border": "wide"}]}`, "dress.layers.1.border", "Border"},
		{"tray-lid", `{"layers": [{"on": "base/front", "border": "30 mm"}]}`, "dress.layers.0.border", "leaves no layer"},
		{"tray-lid", `{"layers": [{"on": "all", "stock": "gold"}]}`, "dress.layers.0.stock", "no card called \"gold\""},
		{"tray-lid", `{"layers": [{"on": "all", "corners": "wavy"}]}`, "dress.layers.0.corners", "can't be \"wavy\""},
		{"tray-lid", `{"layers": [{"on": "front", "motif": {"x": "10 mm", "y": "10 mm"}}]}`, "dress.layers.0.motif.x",
			"over the edge"},
		{"tray-lid", `{"liners": [{"in": "attic"}]}`, "dress.liners.0.in", "can't be \"attic\""},
		{"tray-lid", `{"liners": [{"in": "floor", "less": "90 mm"}]}`, "dress.liners.0.less", "leaves no liner"},
		{"chamfer-foot", `{"liners": [{"in": "walls"}]}`, "dress.liners.0.in", "aren't all upright rectangles"},
		{"cross-fold", `{"liners": [{"in": "floor"}]}`, "dress.liners.0.in", "several small boxes"},
		{"carton", `{"liners": [{"in": "lid"}]}`, "dress.liners.0.in", "Flaps lie under"},
		{"tray-lid", `{"windows": [{"on": "lid/top", "width": "118 mm"}]}`, "dress.windows.0.width", "leaves less than"},
		{"tray-lid", `{"windows": [{"on": "base/front", "width": "100 mm", "height": "20 mm"}]}`, "dress.windows.0.on",
			"lies behind"},
		{"tray-lid", `{"windows": [{"on": "lid/top"}, {"on": "lid/top"}]}`, "dress.windows.1.on", "already has a window there"},
		{"tray-lid", `{"grips": [{"kind": "notch", "on": "lid/top"}]}`, "dress.grips.0.on", "no cut edge"},
		{"tray-lid", `{"toppers": [{"shape": "blob"}]}`, "dress.toppers.0.shape", "can't be \"blob\""},
		{"tray-lid", `{"toppers": [{"shape": "round", "width": "150 mm"}]}`, "dress.toppers.0.width",
			"reaches past the lid top"},
		{"tray-lid", `{"toppers": [{"shape": "star", "border": "40 mm"}]}`, "dress.toppers.0.border", "leaves nothing"},
		{"tray-lid", `{"toppers": [{"shape": "round", "on": "band"}]}`, "dress.toppers.0.on", "no band"},
		{"tray-lid", `{"toppers": [{"shape": "round", "ink": "blue"}]}`, "dress.toppers.0.ink", "isn't a colour"},
		{"tray-lid", `{"band": {"width": "4 mm"}}`, "dress.band.width", "too narrow"},
		{"tray-lid", `{"band": {"lap": "2 mm"}}`, "dress.band.lap", "too short"},
		{"tray-lid", `{"band": {"width": "300 mm"}}`, "dress.band.width", "doesn't fit"},
		{"tray-lid", `{"band": {"way": "sideways"}}`, "dress.band.way", "can't be \"sideways\""},
		{"tray-lid", `{"ribbon": {"reel": "20 cm"}}`, "dress.ribbon.reel", "the reel has 200 mm"},
		{"tray-lid", `{"ribbon": {"turns": "many"}}`, "dress.ribbon.turns", "not a whole number"},
		{"tray-lid", `{"handle": {"kind": "strip"}}`, "dress.handle.kind", "keep the lid on"},
		{"carton", `{"handle": {"kind": "strip", "on": "front left"}}`, "dress.handle.on", "two opposite panels"},
		{"tray-lid", `{"toppers": [{"shape": "rectangle", "on": "base/front", "width": "60 mm", "height": "50 mm", "raised": true}]}`,
			"dress.toppers.0.on", "in the way"},
		{"pleat-pouch", `{"handle": {"kind": "strip"}}`, "dress.handle.kind", "would touch it"},
		{"tray-lid", `{"bow": {"size": "20 mm"}}`, "dress.bow.size", "too small"},
		{"tray-lid", `{"closure": {"kind": "dot"}}`, "dress.closure.kind", "keep the lid off"},
		{"carton", `{"closure": {"kind": "magnet"}}`, "dress.closure.kind", "no panel that closes over"},
		{"flap-box", `{"closure": {"kind": "tuck"}}`, "dress.closure.kind", "You choose under Box"},
	} {
		p := advice.Make(tried.Dressed(tried.Metric(c.style, 120, 90, 60), c.dress), request.Default)
		if i := slices.IndexFunc(p.Problems, func(pr brief.Problem) bool { return pr.Field == c.field }); i < 0 ||
			!strings.Contains(p.Problems[i].Text, c.says) || p.Problems[i].Fix == "" || p.OK() {
			t.Errorf("%s %s: %+v", c.style, c.dress, p.Problems)
		}
	}
}

// A mend that is offered for a wrong dressing leads to a plan, or away from that problem.
func TestDressingMends(t *testing.T) {
	low, narrow := `{"handle": {"kind": "cord"}}`, `{"ribbon": {"way": "holes"}}`
	for _, dress := range []string{low, narrow, `{"grips": [{"kind": "notch", "on": "base/left", "width": "110 mm"}]}`,
		`{"toppers": [{"shape": "round", "width": "150 mm"}]}`, `{"band": {"width": "4 mm"}}`, `{"band": {"lap": "2 mm"}}`,
		`{"handle": {"kind": "strip"}}`, `{"bow": {"size": "20 mm"}}`, `{"closure": {"kind": "dot"}}`,
		`{"layers": [{"on": "wheel"}]}`, `{"toppers": [{"shape": "heart", "width": "40 mm", "right": "-50 mm"}]}`,
		`{"toppers": [{"shape": "star", "width": "130 mm", "down": "40 mm"}]}`,
		`{"toppers": [{"shape": "heart", "width": "10 mm", "border": "1 mm", "layers": "4"}]}`,
		`{"windows": [{"on": "lid/top", "width": "40 mm", "right": "60 mm"}]}`} {
		size := [3]int{120, 90, 60}
		switch dress {
		case low: // no wall is left below the lid
			size[2] = 15
		case narrow: // no two holes lie side by side
			size[0] = 22
		}
		b := tried.Dressed(tried.Metric("tray-lid", size[0], size[1], size[2]), dress)
		p := advice.Make(b, request.Default)
		if p.OK() || len(p.Problems[0].Set) == 0 {
			t.Errorf("%s: %+v", dress, p.Problems)
			continue
		}
		for path, text := range p.Problems[0].Set.All() {
			b.Set(path, text)
		}
		if again := advice.Make(b, request.Default); !again.Holds() {
			t.Errorf("%s mended: %+v %s", dress, again.Problems, tried.Said(again))
		}
	}
}

// withThing is one block to put in.
func withThing(l, w, h, mass string) []brief.Item {
	text := func(s string) brief.Text { return brief.Text(s) }
	return []brief.Item{{ID: "1", Name: "pot", Shape: "block", Length: text(l), Width: text(w), Height: text(h), Mass: text(mass), Count: "1"}}
}

// isAt says of a problem whether it is at a field.
func isAt(field string) func(brief.Problem) bool {
	return func(p brief.Problem) bool { return p.Field == field }
}
