package dress_test

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"brevium/core/advice"
	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/wish"
	"brevium/internal/tried"
)

// A stack of shapes lies on the middle of its panel, each within the one below by its
// border; what the shop has a cutter for is cut by it.
func TestToppersStack(t *testing.T) {
	for _, shape := range wish.Shapes {
		p := advice.Make(tried.Dressed(tried.Metric("tray-lid", 120, 90, 40), fmt.Sprintf(
			`{"toppers": [{"shape": %q, "width": "60 mm", "height": "60 mm", "layers": 3, "border": "2 mm", "raised": true}]}`,
			shape)), request.Default)
		if !p.Holds() {
			t.Errorf("%s: %s", shape, tried.Said(p))
			continue
		}
		below := p.Box.Proved.Of("lid").Find("top")
		for i, name := range []string{"", ", layer 2", ", layer 3"} {
			body := p.Box.Proved.Of(shape + " topper" + name)
			f := body.Find("topper")
			least := math.Inf(1)
			for _, v := range f.Poly {
				least = min(least, below.Body.RoomRound(below, below.Under(v)))
			}
			if i > 0 && (least < 1.99 || least > 2.6) {
				t.Errorf("%s: shape %d leaves %.2f mm", shape, i+1, least)
			}
			if rise := f.Middle().Z - below.Middle().Z; i > 0 && math.Abs(rise-2.27) > 1e-6 || i == 0 &&
				math.Abs(rise-0.27) > 1e-6 {
				t.Errorf("%s: shape %d lies %.2f mm over the one below", shape, i+1, rise)
			}
			below = f
		}
	}
	p := advice.Make(tried.Dressed(tried.Metric("tray-lid", 120, 90, 40, "tools.punches", "circle 50 mm, circle 40 mm"),
		`{"toppers": [{"shape": "round", "width": "55 mm", "border": "5 mm"}]}`), request.Default)
	if got := cutList(p); got != "1 round topper 50 x 50; 1 round topper, layer 2 40 x 40" {
		t.Errorf("with cutters of 50 and 40: %s; %s", got, tried.Said(p))
	}
}

// Handles and bows by hand.
func TestHandlesAndBowsByHand(t *testing.T) {
	tray := tried.Metric("tray-lid", 100, 70, 40, "box.options.lid", "none")
	// Half a round over 100.54, 157.9, and two ends of 25, up to the mark.
	p := advice.Make(tried.Dressed(tray, `{"handle": {"kind": "strip", "width": "15 mm"}}`), request.Default)
	if got := cutList(p); got != "1 handle 15 x 208" || !p.Holds() {
		t.Errorf("%s; %s", got, tried.Said(p))
	}
	arch := p.Box.Proved.Of("handle")
	if lo, hi := fold.Bounds(arch); math.Abs(hi.X+lo.X) > 0.2 || hi.Z < 40+50 {
		t.Errorf("the handle reaches from %v to %v", lo, hi)
	}
	p = advice.Make(tried.Dressed(tray, `{"handle": {"kind": "cord"}}`), request.Default)
	if n := len(p.Box.Piece("base").Punches); n != 4 || !p.Holds() {
		t.Errorf("%d holes; %s", n, tried.Said(p))
	}
	p = advice.Make(tried.Dressed(tried.Metric("tray-lid", 100, 70, 60), `{"handle": {"kind": "cord"}}`), request.Default)
	low, _ := fold.Reach(p.Box.Proved.Of("lid").Find("left"))
	for _, h := range p.Box.Piece("base").Punches { // the lid doesn't come over the cord
		for _, f := range p.Box.Proved.Of("base").Faces {
			if net.Inside(f.Face.Points, h.Mid) && f.Place(h.Mid).Z+h.Diameter.MM()/2 > low.Z {
				t.Errorf("the lid comes over the hole in the %s", f.Name)
			}
		}
	}
	if len(p.Box.Piece("base").Punches) != 4 || !p.Holds() {
		t.Errorf("cord under a lid: %s", tried.Said(p))
	}
	heavy := tray.Clone()
	heavy.Contents = nil
	p = advice.Make(tried.Dressed(tried.Metric("tray-lid", 100, 70, 40), `{"handle": {"kind": "swing"}}`), request.Default)
	if brads := p.Dressed.Supplies; len(brads) != 1 || brads[0].What != "brad" || brads[0].Count != 2 || !p.Holds() {
		t.Errorf("%+v; %s", brads, tried.Said(p))
	}
	// Loops of 40 x 2.3 and a lap of 10; two tiers, the upper three quarters as large; a centre
	// of 10 pi and a lap; curls three times round 6.27.
	p = advice.Make(tried.Dressed(tray,
		`{"bow": {"loops": 5, "size": "80 mm", "width": "12 mm", "tiers": 2, "tails": true, "curls": 4}}`), request.Default)
	want := "5 bow loop 12 x 102; 5 bow loop, tier 2 12 x 79; 1 bow centre 12 x 42; 2 bow tail 12 x 48; 4 curl 4 x 60"
	if got := cutList(p); got != want || !p.Holds() {
		t.Errorf("got  %s\nwant %s; %s", got, want, tried.Said(p))
	}
	if p.Box.Proved.Of("bow loop") != nil {
		t.Error("a loop of the bow stands on the box")
	}
}

// A heavy thing is not lifted by a strip that would give.
func TestHandlesBear(t *testing.T) {
	for _, c := range []struct {
		mass string
		can  bool
	}{{"200 g", true}, {"900 g", false}} {
		b := tried.Metric("tray-lid", 100, 70, 40, "box.options.lid", "none")
		b.Size = nil
		b.Contents = withThing("90 mm", "60 mm", "30 mm", c.mass)
		p := advice.Make(tried.Dressed(b, `{"handle": {"kind": "strip", "width": "15 mm"}}`), request.Default)
		if refused := slices.ContainsFunc(p.Problems, isAt("dress.handle.kind")); refused == c.can {
			t.Errorf("%s: %+v", c.mass, p.Problems)
		}
	}
}

// A band goes round what stands there, its ease on all sides, and the lap is stuck.
func TestBandsLie(t *testing.T) {
	for _, way := range []string{"across", "along", "level"} {
		for _, seam := range []string{"below", "above"} {
			for _, at := range []string{"edge", "middle"} {
				bandLies(t, way, seam, at)
			}
		}
	}
}

func bandLies(t *testing.T, way, seam, at string) {
	p := advice.Make(tried.Dressed(tried.Metric("tray-lid", 120, 90, 60), fmt.Sprintf(
		`{"band": {"way": %q, "seam": %q, "lap-at": %q, "width": "20 mm", "second": "12 mm"}, "layers": [{"on": "outside"}]}`, way,
		seam, at)), request.Default)
	if !p.Holds() {
		t.Errorf("%s, %s, %s: %s", way, seam, at, tried.Said(p))
		return
	}
	s := p.Box.Assemble(p.Card.Caliper, assembly.Closed)
	lo, hi := fold.Extent(s.Of("base"), s.Of("lid"))
	blo, bhi := fold.Bounds(s.Of("paper band"))
	nlo, nhi := fold.Bounds(s.Of("narrow band"))
	for _, room := range []fold.Vec{lo.Sub(blo), bhi.Sub(hi), blo.Sub(nlo), nhi.Sub(bhi)} {
		for _, side := range map[string][2]float64{"across": {room.Y, room.Z}, "along": {room.X, room.Z},
			"level": {room.X, room.Y}}[way] {
			if side < 0.1 || side > 2.5 {
				t.Errorf("%s, %s, %s: %.2f mm between box and band, or band and band", way, seam, at, side)
			}
		}
	}
	lap := s.Of("paper band").Find("lap")
	llo, lhi := fold.Reach(lap)
	off := lhi.Add(llo).Times(0.5)
	if wide := max(math.Abs(off.X), math.Abs(off.Y)); at == "middle" && lhi.Sub(llo).Len() < 40 || at == "edge" && wide < 20 {
		t.Errorf("%s, %s: the lap lies about %v, at the %s", way, seam, off, at)
	}
}

// All of the dressing draws on the scheme, unless a thing names its own card; another card
// in the scheme moves all that draw on it, and words that can't be read on theirs are told.
func TestSchemes(t *testing.T) {
	b := tried.Dressed(tried.Metric("tray-lid", 120, 90, 50), `{"scheme": {"main": "kraft-300", "second": "sprig-220", "accent": "duplex-350",
		"plain": "light-160"}, "layers": [{"on": "sides"}, {"on": "top", "stock": "accent"}, {"on": "underside", "stock": "cover-270"}],
		"liners": [{"in": "floor"}], "band": {"width": "20 mm"}, "toppers": [{"shape": "round", "words": "Ann"}], "ribbon": {"way": "along"}}`)
	stocks := func(p *plan.Plan) map[string]string {
		out := map[string]string{}
		for _, l := range p.Dressed.Laid {
			out[l.Piece.Name] = p.CardOf(l.Piece.Stock).ID
		}
		return out
	}
	p := advice.Make(b, request.Default)
	if !p.Holds() {
		t.Fatal(tried.Said(p))
	}
	first := stocks(p)
	for name, want := range map[string]string{"base left and right layer": "sprig-220", "lid top layer": "duplex-350",
		"base bottom layer": "cover-270", "floor liner": "light-160", "paper band": "duplex-350", "round topper": "duplex-350",
		"round topper, layer 2": "light-160"} {
		if first[name] != want {
			t.Errorf("the %s is of %s, want %s", name, first[name], want)
		}
	}
	duplex, _ := request.Default.Card("duplex-350")
	if ribbon := p.CardOf("ribbon"); ribbon.Colour != duplex.Colour {
		t.Errorf("the ribbon is %s", ribbon.Colour)
	}
	b.Set("dress.scheme.second", "stripe-220")
	for name, was := range first {
		if now := stocks(advice.Make(b, request.Default))[name]; now != was && was != "sprig-220" || now == "sprig-220" {
			t.Errorf("the %s went from %s to %s", name, was, now)
		}
	}
	b.Set("dress.scheme.second", "no-such")
	if p := advice.Make(b, request.Default); !slices.ContainsFunc(p.Problems, isAt("dress.scheme.second")) {
		t.Errorf("%+v", p.Problems)
	}
	b.Set("dress.scheme.second", "")
	b.Set("dress.toppers.0.ink", "#f0f0f0")
	p = advice.Make(b, request.Default)
	i := slices.IndexFunc(p.Warnings, func(w brief.Warning) bool { return w.Code == "faint-words" })
	if i < 0 || len(p.Warnings[i].Set) != 1 {
		t.Fatalf("pale ink on light card: %+v", p.Warnings)
	}
	for path, text := range p.Warnings[i].Set.All() {
		b.Set(path, text)
	}
	if p = advice.Make(b, request.Default); slices.ContainsFunc(p.Warnings, func(w brief.Warning) bool { return w.Code == "faint-words" }) {
		t.Errorf("mended: %+v", p.Warnings)
	}
	for _, s := range advice.Schemes(advice.Make(tried.Metric("tray-lid", 120, 90, 50), request.Default), request.Default) {
		if len(s.Cards) != 4 || s.Title == "" || s.Scheme.Main != "cover-216" || s.Scheme.Second == s.Scheme.Accent {
			t.Errorf("%+v", s)
		}
	}
}

// Whatever shape hangs by a string, the hole for it goes through every card of it, with
// card all round, above where it balances; or that is told.
func TestHangingShapesHaveAHole(t *testing.T) {
	const far = 2 * measure.Millimetre
	for _, shape := range wish.Shapes {
		p := advice.Make(tried.Dressed(tried.Metric("tray-lid", 120, 90, 60),
			fmt.Sprintf(`{"toppers": [{"shape": %q, "on": "hanging", "layers": "3", "width": "50 mm"}]}`, shape)), request.Default)
		if !p.OK() {
			t.Errorf("%s: %+v", shape, p.Problems)
			continue
		}
		for _, l := range p.Dressed.Laid {
			f := l.Piece.Faces[0]
			if len(f.Holes) != 1 {
				t.Errorf("the %s has %d holes", l.Piece.Name, len(f.Holes))
				continue
			}
			if lo, hi := net.Bounds(f.Holes[0]); (lo.Y+hi.Y)/2 > f.Centre().Y {
				t.Errorf("the %s would hang upside down", l.Piece.Name)
			}
			for _, q := range f.Holes[0] {
				for _, by := range []net.Point{{X: far}, {X: -far}, {Y: far}, {Y: -far}} {
					if !net.Inside(f.Points, q.Add(by)) {
						t.Fatalf("the hole of the %s lies too near its edge, at %v", l.Piece.Name, q)
					}
				}
			}
		}
		tiny := tried.Dressed(tried.Metric("tray-lid", 120, 90, 60),
			fmt.Sprintf(`{"toppers": [{"shape": %q, "on": "hanging", "layers": "2", "width": "12 mm", "border": "0.6 mm"}]}`, shape))
		p = advice.Make(tiny, request.Default)
		if p.OK() || p.Problems[0].Field != "dress.toppers.0.width" {
			t.Errorf("a %s with no room for a hole: %+v", shape, p.Problems)
		} else if again := advice.Make(tried.Taken(tiny, p.Problems[0].Set), request.Default); !again.OK() {
			t.Errorf("a larger %s: %+v", shape, again.Problems)
		}
	}
	heart := func(more string) brief.Brief {
		return tried.Dressed(tried.Metric("tray-lid", 120, 90, 60), `{"toppers": [{"shape": "heart", "on": "hanging"`+more+`}]}`)
	}
	const code = "hangs-over"
	small := heart(`, "width": "32 mm"`)
	p := advice.Make(small, request.Default)
	i := slices.IndexFunc(p.Warnings, func(w brief.Warning) bool { return w.Code == code })
	if i < 0 || tried.Warned(advice.Make(tried.Taken(small, p.Warnings[i].Set), request.Default), code) != "" {
		t.Errorf("a heart that turns over: %+v", p.Warnings)
	}
	if says := tried.Warned(advice.Make(heart(""), request.Default), code); says != "" {
		t.Errorf("a heart of the usual size: %s", says)
	}
}
