package dress_test

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/assembly"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/core/wish"
	"brevium/internal/tried"
)

// What names mean, on boxes whose panels have other names.
func TestPanelsByName(t *testing.T) {
	for _, c := range []struct{ style, on, want string }{
		{"tray-lid", "front", "base/front lid/back"}, // the lid is turned over: its back looks to the front
		{"tray-lid", "base front", "base/base base/front lid/back"},
		{"tray-lid", "Base/Front and LID/top", "base/front lid/top"},
		{"tray-lid", "lid", "lid/back lid/front lid/left lid/right lid/top"},
		{"tray-lid", "base/sides", "base/back base/front base/left base/right"},
		{"tray-lid", "underside; top", "base/base lid/top"},
		{"tray-lid", "outside", "base/back base/front base/left base/right lid/back lid/front lid/left lid/right lid/top"},
		{"carton", "sides", "carton/back carton/front carton/left carton/right"},
		{"carton", "lid", "carton/top"},
		{"flap-box", "flap, top", "box/flap box/top"},
		{"sleeve-drawer", "sleeve/all", "sleeve/back sleeve/bottom sleeve/front sleeve/top"},
		{"sleeve-drawer", "all", "drawer/left drawer/right sleeve/back sleeve/bottom sleeve/front sleeve/top"},
		{"gable-cap", "front roof", "cap/front-roof"},
		{"hinged-lid", "lid", "box/lid box/lid-front box/lid-left box/lid-right"},
	} {
		p := advice.Make(tried.Dressed(tried.Metric(c.style, 90, 70, 40), fmt.Sprintf(`{"layers": [{"on": %q, "border": "1 mm"}]}`, c.on)),
			request.Default)
		var on []string
		if p.Dressed != nil {
			for _, l := range p.Dressed.Laid {
				on = append(on, l.On...)
			}
		}
		slices.Sort(on)
		if got := strings.Join(slices.Compact(on), " "); got != c.want {
			t.Errorf("%s, %q: %s, want %s; %v", c.style, c.on, got, c.want, p.Problems)
		}
	}
}

// In every style, each way to hold it closed holds, its halves together, or is refused with
// a remedy; a seal lies half on what moves.
func TestClosuresOfEveryStyle(t *testing.T) {
	held := map[string]int{}
	for _, s := range style.Styles {
		for _, kind := range wish.Closures {
			b := tried.Dressed(tried.Metric(s.ID, 90, 70, 45), fmt.Sprintf(`{"closure": {"kind": %q}}`, kind))
			if bare := advice.Make(tried.Metric(s.ID, 90, 70, 45), request.Default); !bare.Holds() {
				continue
			}
			p := advice.Make(b, request.Default)
			if !p.OK() {
				if pr := p.Problems[0]; pr.Field != "dress.closure.kind" || pr.Fix == "" || len(pr.Set) == 0 {
					t.Errorf("%s by a %s: %+v", s.ID, kind, pr)
				}
				continue
			}
			held[kind]++
			if why := tried.Said(p); why != "" {
				t.Errorf("%s by a %s: %s", s.ID, kind, why)
			}
			if len(p.Dressed.Supplies)+len(p.Dressed.Laid) == 0 ||
				len(p.Dressed.Last)+len(p.Dressed.Flat)+len(p.Dressed.Supplies) == 0 {
				t.Errorf("%s by a %s: nothing is said of it", s.ID, kind)
			}
		}
	}
	for _, kind := range wish.Closures {
		if kind != "tuck" && held[kind] < 2 {
			t.Errorf("only %d boxes are held closed by a %s", held[kind], kind)
		}
	}
}

// Windows: the opening is as large as was said, in the middle, with film and a frame round
// it, and every layer leaves it free.
func TestWindows(t *testing.T) {
	for _, c := range []struct {
		shape      string
		w, h       int
		area       float64
		film, ring string
	}{
		{"square", 40, 30, 1200, "52 x 42", "50 x 40"},
		{"round", 36, 36, math.Pi * 18 * 18, "48 x 48", ""},
		{"rounded", 40, 30, 1200 - (4-math.Pi)*36, "52 x 42", "50 x 40"},
	} {
		p := advice.Make(tried.Dressed(tried.Metric("tray-lid", 100, 70, 40), fmt.Sprintf(
			`{"windows": [{"on": "lid/top", "shape": %q, "width": "%d mm",
			"height": "%d mm", "frame": "5 mm"}], "layers": [{"on": "top"}, {"on": "top"}]}`, c.shape, c.w, c.h)), request.Default)
		if !p.Holds() {
			t.Errorf("%s: %s", c.shape, tried.Said(p))
			continue
		}
		top := p.Box.Piece("lid").Face("top")
		lo, hi := top.Bounds()
		hole := (hi.X-lo.X).MM()*(hi.Y-lo.Y).MM() - top.Area()
		if math.Abs(hole-c.area) > c.area/60 || len(top.Holes) != 1 {
			t.Errorf("%s: a hole of %.0f, want %.0f", c.shape, hole, c.area)
		}
		s := p.Dressed.Supplies[0]
		if got := fmt.Sprintf("%.0f x %.0f", s.Width.MM(), s.Length.MM()); got != c.film || s.What != "film" {
			t.Errorf("%s: film of %s, want %s", c.shape, got, c.film)
		}
		if frame := p.Box.Piece("lid top frame"); c.ring != "" {
			if got := fmt.Sprintf("%.0f x %.0f", frame.Width.MM(), frame.Height.MM()); got != c.ring {
				t.Errorf("%s: a frame of %s, want %s", c.shape, got, c.ring)
			}
		}
		eye := p.Box.Proved.Of("lid").Find("top").Middle()
		for _, b := range p.Box.Proved.Bodies {
			for _, f := range b.Faces {
				open := func(h []net.Point) bool { return net.Inside(h, f.Under(eye)) }
				if b.Piece.Part == net.Layer && f.Level() && math.Abs(f.Middle().Z-eye.Z) < 3 &&
					!slices.ContainsFunc(f.Face.Holes, open) {
					t.Errorf("%s: the %s covers the window", c.shape, b.Name)
				}
			}
		}
	}
}

// What is put off the middle lies there as one looks at the panel.
func TestOffTheMiddle(t *testing.T) {
	for _, c := range []struct {
		on, right, down string
		at              fold.Vec // from the panel's middle
	}{
		{"base/front", "20 mm", "-5 mm", fold.Vec{X: 20, Z: 5}}, {"base/back", "20 mm", "5 mm", fold.Vec{X: -20, Z: -5}},
		{"base/left", "10 mm", "0", fold.Vec{Y: -10}}, {"base/right", "-10 mm", "4 mm", fold.Vec{Y: -10, Z: -4}},
		{"base/base", "10 mm", "0", fold.Vec{X: -10}},
	} {
		p := advice.Make(tried.Dressed(tried.Metric("tray-lid", 120, 90, 60, "box.options.lid", "none"), fmt.Sprintf(
			`{"toppers": [{"shape": "round", "on": %q, "width": "14 mm", "right": %q, "down": %q}]}`, c.on, c.right,
			c.down)), request.Default)
		if !p.Holds() {
			t.Errorf("%s: %s", c.on, tried.Said(p))
			continue
		}
		_, name := assembly.Ref(c.on)
		panel := p.Box.Proved.Of("base").Find(name)
		off := p.Box.Proved.Of("round topper").Find("topper").Middle().Sub(panel.Middle())
		if off = off.Sub(panel.In.Times(off.Dot(panel.In))); off.Sub(c.at).Len() > 0.01 {
			t.Errorf("%s: it lies %v off the middle, want %v", c.on, off, c.at)
		}
	}
	p := advice.Make(tried.Dressed(tried.Metric("tray-lid", 120, 90, 60),
		`{"toppers": [{"shape": "round", "on": "base/front", "width": "30 mm", "right": "50 mm"}]}`),
		request.Default)
	if !slices.ContainsFunc(p.Problems, isAt("dress.toppers.0.right")) {
		t.Errorf("over the edge: %+v", p.Problems)
	}
}

// Notches are cut in the middle of the raw edge that fingers come to, pull tabs stand half
// out of it.
func TestGrips(t *testing.T) {
	p := advice.Make(tried.Dressed(tried.Metric("tray-lid", 100, 70, 40, "box.options.lid", "none", "box.options.tabs", "half"),
		`{"grips": [{"kind": "notch", "on": "left", "width": "18 mm"}], "layers": [{"on": "left"}]}`), request.Default)
	if !p.Holds() {
		t.Fatal(tried.Said(p))
	}
	base := p.Box.Piece("base")
	if n := base.Notches; len(n) != 1 || n[0].Mid.X != 0 || n[0].Mid.Y != base.Height/2 ||
		n[0].Diameter != 18*measure.Millimetre {
		t.Errorf("%+v", base.Notches)
	}
	if layer := p.Box.Piece("left layer"); !layer.Shaped() {
		t.Error("the layer is not cut round the notch")
	}
	p = advice.Make(tried.Dressed(tried.Metric("tray-lid", 60, 60, 90),
		`{"grips": [{"kind": "pull", "on": "lid/top", "width": "16 mm"}]}`), request.Default)
	if p.OK() || !strings.Contains(p.Problems[0].Text, "folded along every edge") {
		t.Errorf("the top of a lid has none: %+v", p.Problems)
	}
	p = advice.Make(tried.Dressed(tried.Metric("flap-box", 100, 60, 30), `{"grips": [{"kind": "pull", "on": "flap", "width": "16 mm"}]}`),
		request.Default)
	if !p.Holds() {
		t.Fatal(tried.Said(p))
	}
	tab, flap := p.Box.Proved.Of("pull tab").Find("tab"), p.Box.Proved.Of("box").Find("flap")
	lo, hi := fold.Reach(tab)
	flo, _ := fold.Reach(flap)
	if math.Abs((lo.Z+hi.Z)/2-flo.Z) > 0.1 || math.Abs(lo.X+hi.X) > 0.1 {
		t.Errorf("the tab stands from %v to %v, the flap from %v", lo, hi, flo)
	}
}
