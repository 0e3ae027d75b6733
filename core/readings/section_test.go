package readings_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/readings"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/internal/tried"
)

// rowOfSection writes a section as a row of thicknesses, the gap in brackets.
func rowOfSection(s readings.Section) string {
	var out []string
	for _, k := range s.Skins {
		text := strings.TrimSuffix(k.Thick.Exact("mm"), " mm")
		if k.Is == "gap" {
			text = "[" + text + "]"
		}
		out = append(out, text)
	}
	return strings.Join(out, " ")
}

// Corners by hand: oat cover is 0.27 mm, duplex 0.45, dots 0.15; 1/16 in is 1.5875.
func TestCornersByHand(t *testing.T) {
	for _, c := range []struct {
		name  string
		brief brief.Brief
		row   string
		says  string
	}{
		// 1.5875 - 2 x 0.27 = 1.0475, half of it on each side
		{"single in single", tried.Sized("5", "3 1/2", "2"), "0.27 [0.52375] 0.27", ""},
		// 4 x 0.27 + 0.5 = 1.58: 1/16 will do; 1.5875 - 1.08 = 0.5075
		{"single in rolled", tried.Sized("5", "3 1/2", "2", "box.options.lid-walls", "rolled"), "0.27 [0.25375] 0.27 0.27", ""},
		// 4 x 0.27 + 2 x 0.3 + 0.5 = 2.18 goes up to 3.175; 3.175 - 1.68 = 1.495
		{"two layers of dots under a pinwheel lid", tried.Sized("5", "3 1/2", "2", "box.options.lid-walls", "pinwheel",
			"box.options.walls",
			"rolled", "card.sheet", "a3", "dress.outside", "2", "card.stocks.layer", "dots-120"), "0.27 0.27 0.15 0.15 [0.7475] 0.27 0.27",
			"so the lid is 1/16 in larger"},
		// 0.27 + 0.45 + 2 x 0.45 + 1 = 2.62 mm goes up to 3; 3 - 1.62 = 1.38
		{"a lid of duplex lined with duplex", tried.Sized("120 mm", "80 mm", "40 mm", "units", "mm", "tools.step", "1 mm",
			"tools.fit", "easy",
			"card.stocks.lid", "duplex-350", "dress.inside", "1", "card.stocks.layer", "duplex-350"), "0.27 [0.69] 0.45 0.45",
			"so the lid is 1 mm larger"},
	} {
		p := advice.Make(c.brief, request.Default)
		if !p.Holds() || len(readings.Sections(p)) != 1 {
			t.Errorf("%s: %v %v %d sections", c.name, p.Problems, tried.Said(p), len(readings.Sections(p)))
			continue
		}
		if got := rowOfSection(readings.Sections(p)[0]); got != c.row {
			t.Errorf("%s: %s, want %s", c.name, got, c.row)
		}
		if s := readings.Sections(p)[0]; s.Play != 2*s.Gap || s.Verdict != "" {
			t.Errorf("%s: play %s, %q", c.name, s.Play.Exact("mm"), s.Verdict)
		}
		if c.says != "" && !slices.ContainsFunc(p.Box.Notes, func(n assembly.Note) bool {
			return strings.Contains(n.Text,
				c.says)
		}) {
			t.Errorf("%s: nothing says %q: %v", c.name, c.says, p.Box.Notes)
		}
	}
}

// A lid that would be too loose is told as much as one too tight.
func TestLooseAndTight(t *testing.T) {
	coarse := tried.Sized("5", "3 1/2", "2", "tools.step", "1/8 in")
	tight := tried.Sized("127 mm", "90 mm", "50 mm", "tools.slack", "0 mm", "units", "mm", "tools.step", "0.5 mm")
	for code, b := range map[string]brief.Brief{"loose-lid": coarse, "tight-lid": tight} {
		p := advice.Make(b, request.Default)
		i := slices.IndexFunc(p.Warnings, func(w brief.Warning) bool { return w.Code == code })
		if i < 0 || readings.Sections(p)[0].Verdict+"-lid" != code {
			t.Errorf("no %s: %+v %+v", code, readings.Sections(p), p.Warnings)
			continue
		}
		if set := p.Warnings[i].Set; set.Get("tools.step") != "" {
			t.Errorf("it offers marks that the tools don't have: %v", set)
		}
	}
}

// A lid that was found too tight is followed by one that is not called too loose, on whatever marks; and the
// school that cuts the base smaller gives other numbers than the one that cuts the lid larger.
func TestRemediesFollowWhatWasLearnt(t *testing.T) {
	for _, step := range []string{"1/8 in", "1/16 in", "1/32 in", "1 mm", "0.5 mm"} {
		b := tried.Sized("5", "3 1/2", "2", "tools.step", step)
		made := advice.Make(b, request.Default)
		had := made.Box.Clearance - readings.Sections(made)[0].Bulk
		learnt := shop.Learn([]shop.Record{{Usual: made.Usual, Had: had, Verdict: "tight"}, {Usual: made.Usual, Had: had, Verdict: "tight"}})
		b.Set("tools.slack", (made.Usual + learnt.More).Exact(measure.Millimetres))
		next := advice.Make(b, request.Default)
		if next.Box.Clearance < made.Box.Clearance || next.Box.Clearance == made.Box.Clearance && step != "1/8 in" {
			t.Errorf("%s: a tight lid of %s is followed by one of %s", step, made.Say(made.Box.Clearance), next.Say(next.Box.Clearance))
		}
		for _, w := range next.Warnings {
			if w.Code == "loose-lid" {
				t.Errorf("%s: found too tight, and now %q", step, w.Text)
			}
		}
	}
	grown := advice.Make(tried.Sized("5", "3 1/2", "2", "box.options.clearance", "grow-lid"), request.Default)
	trimmed := advice.Make(tried.Sized("5", "3 1/2", "2", "box.options.clearance", "trim-base"), request.Default)
	if tried.Tell(grown.Box.Piece("base")) == tried.Tell(trimmed.Box.Piece("base")) ||
		tried.Tell(grown.Box.Piece("lid")) == tried.Tell(trimmed.Box.Piece("lid")) {
		t.Error("the two schools give the same numbers")
	}
	jars := brief.New("in")
	jars.Contents = []brief.Item{{ID: "1", Name: "jar", Shape: "cylinder", Diameter: "2", Height: "2", Count: "2"}}
	for style, trim := range map[string]string{"tray-lid": "trim-base", "sleeve-drawer": "trim-drawer"} {
		jars.Set("box.style", style)
		jars.Set("box.options.clearance", trim)
		p := advice.Make(jars, request.Default)
		if p.Box == nil {
			t.Fatal(style, p.Problems)
		}
		told := func(n assembly.Note) bool { return strings.Contains(n.Text, "keeps its size") }
		if !slices.ContainsFunc(p.Box.Notes, told) {
			t.Errorf("%s: nothing says why %s changes no number: %+v", style, trim, p.Box.Notes)
		}
	}
}

// What would make a box bear its load does: of each remedy the check holds, and they
// come by the card they take.
func TestRemediesKeepTheirWord(t *testing.T) {
	r := rand.New(rand.NewPCG(8, 8))
	tries := map[string]int{}
	for n := range tried.Boxes(900) {
		b := tried.Random(r)
		b.Size = nil
		b.Box = brief.Box{Style: brief.Text([]string{"tray-lid", "sleeve-drawer", "hinged-lid", "carton"}[n%4])}
		b.Contents = []brief.Item{{Name: "honey jar", Shape: "cylinder",
			Diameter: brief.Text(fmt.Sprintf("%d mm", 30+r.IntN(50))),
			Height:   brief.Text(fmt.Sprintf("%d mm", 30+r.IntN(60))), Count: brief.Whole(fmt.Sprint(1 + r.IntN(4))),
			Mass: brief.Text(fmt.Sprintf("%d g", 60+r.IntN(700)))}}
		p := advice.Make(b, request.Default)
		for _, c := range readings.Carries(p) {
			if c.Holds != (c.Load <= c.Limit) || c.Limit <= 0 {
				t.Fatalf("%+v", c)
			}
			before := 0.0
			for _, f := range c.Remedies {
				q := advice.Make(tried.Taken(b, f.Set), request.Default)
				i := slices.IndexFunc(readings.Carries(q), func(o readings.Carry) bool { return o.Code == c.Code })
				if !q.Holds() || i < 0 || !readings.Carries(q)[i].Holds {
					t.Fatalf("%s does not help: %s, for %s", f.Text, tried.Said(q), b.Encode())
				}
				if g := advice.Grams(q); g < before-1e-9 {
					t.Fatalf("%s takes less card than the one before it", f.Text)
				} else {
					before = g
				}
				tries[strings.Fields(f.Text)[0]]++
			}
		}
	}
	for _, kind := range []string{"Roll", "Glue", "Cut", "Add"} {
		if tries[kind] == 0 {
			t.Errorf("never offered: %s (%v)", kind, tries)
		}
	}
}

// furnishedShop is a shop with tools, habits and something learnt.
func furnishedShop(t *testing.T) request.Workshop {
	d := shop.Shipped()
	for path, text := range map[string]string{"tools.grooves": "1/8 in, 5 mm", "tools.trimmer.reads": "1/16 in",
		"tools.punches": "hole 3 mm reach 20 mm",
		"habits.walls":  "rolled", "habits.adhesive": "both", "habits.clearance": "choose", "habits.burnish": "before", "habits.first": "short"} {
		if !d.Set(path, text) {
			t.Fatal(path)
		}
	}
	d.Fits = []shop.Fit{{ID: "1", Card: "cover-216", Walls: "single", Layers: "0", Usual: "0.5 mm", Had: "1.05 mm",
		Verdict: "tight"}}
	s, r := shop.Read(d)
	if len(r.Problems) > 0 {
		t.Fatal(r.Problems)
	}
	return request.Workshop{Shop: *s}
}

// A plan tells what it took from the shop; written into the document, it plans alike
// in a shop that has nothing of it.
func TestWrittenDocumentsPlanAlike(t *testing.T) {
	w := furnishedShop(t)
	for _, s := range style.Styles {
		b := brief.New("in")
		b.Box = brief.Box{Style: brief.Text(s.ID)}
		p := advice.Make(b, w)
		kinds := map[string]bool{}
		out := b.Clone()
		for _, u := range p.Used {
			kinds[u.Kind] = true
			for path, text := range u.Set.All() {
				if id, own := strings.CutPrefix(path, "card.own.@"); own && len(out.Card.Own) == 0 {
					out.Card.Own = []brief.Stock{{ID: strings.Split(id, ".")[0]}}
				}
				if !out.Set(path, text) {
					t.Fatalf("%s can't be written", path)
				}
			}
		}
		if !kinds["tools"] || !kinds["habit"] || !kinds["learnt"] || !kinds["card"] {
			t.Errorf("%s: only %v are told", s.ID, kinds)
		}
		empty, _ := shop.Read(shop.Document{Brevium: shop.Version})
		q := advice.Make(out, request.Workshop{Shop: *empty})
		if tellAll(p) != tellAll(q) {
			t.Errorf("%s plans another way elsewhere:\n%s\n%s %v", s.ID, tellAll(p), tellAll(q), q.Problems)
		}
		if len(q.Used) > 0 {
			t.Errorf("%s still takes from the shop: %+v", s.ID, q.Used)
		}
	}
}

func tellAll(p *plan.Plan) string {
	if !p.OK() {
		return fmt.Sprint(p.Problems)
	}
	var out []string
	for _, piece := range p.Box.Pieces() {
		out = append(out, piece.Name+" "+tried.Tell(piece))
	}
	for _, s := range p.Guide.Steps {
		out = append(out, s.Title+": "+strings.Join(s.Says, " "))
	}
	return strings.Join(out, "\n")
}

// Left to the plan, the clearance comes from where it leaves fewest odd scores, and the
// plan says which and why.
func TestClearanceChosen(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 4))
	w := request.Default
	w.Tools = shop.Tools{Grooves: []style.Length{25_400_000 / 8}}
	won := map[string]int{}
	for n := range tried.Boxes(900) {
		b := tried.Random(r)
		b.Units, b.Tools.Step, b.Box = "in", "1/16 in", brief.Box{Style: brief.Text([]string{"tray-lid", "sleeve-drawer"}[n%2])}
		b.Box.Options = brief.Options{"clearance": "choose"}
		p := advice.Make(b, w)
		if !p.OK() {
			continue
		}
		if p.Chosen == "" || !p.Holds() && len(p.Layout.TooBig) == 0 {
			t.Fatalf("chosen %q, %s", p.Chosen, tried.Said(p))
		}
		won[p.Answers.Choice["clearance"]]++
		for _, c := range []string{"grow-lid", "trim-base", "shift-scores", "grow-sleeve", "trim-drawer"} {
			if q := advice.Make(tried.Taken(b, brief.To("box.options.clearance", c)), w); q.OK() && q.Odd() < p.Odd() &&
				q.Load.ID == p.Load.ID {
				t.Fatalf("%s leaves %d odd scores, and %s was chosen with %d: %s", c, q.Odd(), p.Answers.Choice["clearance"],
					p.Odd(), b.Encode())
			}
		}
	}
	if len(won) < 2 {
		t.Errorf("always the same: %v", won)
	}
}

// What is learnt of a lid belongs to the card of the part that goes over, as its walls
// are made; a card for a part this style does not have changes nothing.
func TestWhatGoesOver(t *testing.T) {
	for _, c := range []struct{ style, part, walls, card, made string }{
		{"tray-lid", "lid", "rolled", "light-160", "rolled"}, {"tray-lid", "sleeve", "single", "cover-216", "single"},
		{"sleeve-drawer", "sleeve", "", "light-160", "single"}, {"sleeve-drawer", "lid", "", "cover-216", "single"},
	} {
		b := tried.Sized("5", "3 1/2", "2", "box.style", c.style, "card.stock", "cover-216", "card.sheet", "a3",
			"card.stocks."+c.part, "light-160", "dress.outside", "1")
		if c.walls != "" {
			b.Set("box.options.lid-walls", c.walls)
		}
		p := advice.Make(b, request.Default)
		if want := (shop.Key{Card: c.card, Walls: c.made, Layers: 1}); p.FitKey != want {
			t.Errorf("%+v: %+v %v", c, p.FitKey, p.Problems)
		}
	}
}
