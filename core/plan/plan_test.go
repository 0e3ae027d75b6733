package plan_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/request"
)

// sized is a brief of given size on 0.27 mm card, snug, in sixteenths.
func sized(l, w, d string, options ...string) brief.Brief {
	b := brief.New("in")
	b.Contents = nil
	b.Size = &brief.Size{Length: brief.Text(l), Width: brief.Text(w), Depth: brief.Text(d)}
	for i := 0; i+1 < len(options); i += 2 {
		b.Set(options[i], options[i+1])
	}
	return b
}

// tell writes a piece as makers do: size, scores across, scores down.
func tell(p *net.Piece) string {
	var across, down []string
	for _, s := range p.Passes {
		at := strings.TrimSuffix(s.At.Exact(measure.Inches), " in")
		if s.AlongWidth {
			across = append(across, at)
		} else {
			down = append(down, at)
		}
	}
	return fmt.Sprintf("%s x %s: %s; %s", strings.TrimSuffix(p.Width.Exact("in"), " in"), p.Height.Exact("in"),
		strings.Join(across, ", "), strings.Join(down, ", "))
}

func TestWorkedExamples(t *testing.T) {
	cases := []struct {
		name      string
		brief     brief.Brief
		base, lid string
	}{
		{"example 1, the lid grown", sized("5", "3 1/2", "2", "box.options.lid-height", "3/4"),
			"9 x 7 1/2 in: 2, 7; 2, 5 1/2", "6 9/16 x 5 1/16 in: 3/4, 5 13/16; 3/4, 4 5/16"},
		{"example 2, the scores shifted", sized("5", "3 1/2", "2", "box.options.lid-height", "3/4",
			"box.options.clearance", "shift-scores"),
			"9 x 7 1/2 in: 2, 7; 2, 5 1/2", "6 1/2 x 5 in: 23/32, 5 25/32; 23/32, 4 9/32"},
		{"the base trimmed", sized("5", "3 1/2", "2", "box.options.lid-height", "3/4", "box.options.clearance", "trim-base"),
			"8 15/16 x 7 7/16 in: 2, 6 15/16; 2, 5 7/16", "6 1/2 x 5 in: 3/4, 5 3/4; 3/4, 4 1/4"},
		{"a full lid", sized("4 in", "4 in", "1 in", "box.options.lid", "full"),
			"6 x 6 in: 1, 5; 1, 5", "6 1/16 x 6 1/16 in: 1, 5 1/16; 1, 5 1/16"},
		{"a reveal", sized("4 in", "4 in", "2 in", "box.options.reveal", "1/2"),
			"8 x 8 in: 2, 6; 2, 6", "7 1/16 x 7 1/16 in: 1 1/2, 5 9/16; 1 1/2, 5 9/16"},
		{"five bulbs' room", contentsBrief(), "7 1/16 x 5 13/16 in: 1 1/8, 5 15/16; 1 1/8, 4 11/16", ""},
	}
	for _, c := range cases {
		p := advice.Make(c.brief, request.Default)
		if !p.Holds() {
			t.Errorf("%s does not hold: %v %v", c.name, p.Problems, p.Checks)
			continue
		}
		if got := tell(p.Box.Piece("base")); got != c.base {
			t.Errorf("%s: base %s, want %s", c.name, got, c.base)
		}
		if got := tell(p.Box.Piece("lid")); c.lid != "" && got != c.lid {
			t.Errorf("%s: lid %s, want %s", c.name, got, c.lid)
		}
	}
}

// contentsBrief is four packets of 4 1/2 x 3 1/4 x 1/4 in a pile: 4 3/4 x 3 1/2
// x 1 1/16 of clear room; the card takes 0.27, 0.81 and 0.135 mm of it, so the
// next sixteenths are 4 13/16, 3 9/16 and 1 1/8.
func contentsBrief() brief.Brief { return brief.New("in") }

func TestInsideAndOutside(t *testing.T) {
	p := advice.Make(sized("5", "3 1/2", "2"), request.Default)
	const um = measure.Millimetre / 1000
	in, out := p.Box.Inside, p.Box.Outside
	if in.Length != 127000*um-270*um || in.Width != 88900*um-810*um || in.Depth != 50800*um-135*um {
		t.Errorf("inside %+v", in)
	}
	c := measure.Inch / 16
	if out.Length != 5*measure.Inch+c+270*um || out.Depth != 2*measure.Inch+405*um {
		t.Errorf("outside %+v", out)
	}
}

// random gives any brief a maker might ask for, in either unit.
func random(r *rand.Rand) brief.Brief {
	units := []string{"in", "mm"}[r.IntN(2)]
	b := brief.New(units)
	pick := func(words ...string) brief.Text { return brief.Text(words[r.IntN(len(words))]) }
	// Half of all sizes are near the least there may be, where boxes begin to be
	// refused.
	length := func(low, high float64) brief.Text {
		share := r.Float64()
		if r.IntN(2) == 0 {
			share *= share * share
		}
		mm := low + share*(high-low)
		if units == "in" {
			return brief.Text(measure.FromMM(mm).Near(measure.Inch / 32).Exact("in"))
		}
		return brief.Text(measure.FromMM(mm).Near(measure.Millimetre / 2).Exact("mm"))
	}
	b.Tools = brief.Tools{Step: pick("1/8 in", "1/16 in", "1/32 in", "1 mm", "0.5 mm"),
		Fit: pick("snug", "easy", "loose"), Adhesive: pick("", "tape", "glue")}
	b.Card = brief.Card{Stock: brief.Text(request.Default.Cards[r.IntN(len(request.Default.Cards))].ID), Sheet: "a3"}
	if r.IntN(2) == 0 {
		b.Contents, b.Size = nil, &brief.Size{Length: length(24, 160), Width: length(8, 140), Depth: length(10, 70)}
	} else {
		b.Contents = []brief.Item{{Name: "thing", Shape: pick("block", "ball", "cylinder"),
			Length: length(10, 120), Width: length(10, 90), Height: length(2, 40),
			Diameter: length(10, 45), Count: brief.Whole(fmt.Sprint(1 + r.IntN(6)))}}
	}
	set := func(id string, words ...string) { b.Set("box.options."+id, string(pick(words...))) }
	set("tabs", "", "full", "half", "narrow")
	set("lid", "", "short", "full")
	set("clearance", "grow-lid", "trim-base", "shift-scores")
	if r.IntN(3) == 0 {
		b.Set("box.options.lid-height", string(length(12, 40)))
	}
	return b
}

// Of thousands of random trays with lids, in both units and all options, every
// one that is planned is proved: it closes, holds its contents, and its lid
// clears its base on all sides by what the fit asks for.
func TestRandomTraysHold(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 8))
	planned := 0
	for range boxes(4000) {
		b := random(r)
		p := advice.Make(b, request.Default)
		if !p.OK() {
			if len(p.Problems) == 0 {
				t.Fatalf("no plan and no problem for %s", b.Encode())
			}
			continue
		}
		planned++
		if len(p.Layout.TooBig) > 0 && !p.Card.Directed() { // printed card isn't turned on the sheet
			t.Fatalf("larger than the sheet, yet planned: %s", b.Encode())
		}
		for _, c := range p.Checks {
			if !c.Holds && len(p.Layout.TooBig) == 0 {
				t.Fatalf("%s: %s, for %s", c.Name, c.Figure, b.Encode())
			}
		}
		base, lid := p.Box.Piece("base").Face("base"), p.Box.Piece("lid").Face("top")
		bl, bh := base.Bounds()
		ll, lh := lid.Bounds()
		if c := p.Box.Clearance; lh.X-ll.X != bh.X-bl.X+c || lh.Y-ll.Y != bh.Y-bl.Y+c {
			t.Fatalf("the lid is not larger by %d: %s", c, b.Encode())
		}
		if in, need := p.Box.Inside, p.Load.Need; b.Size == nil &&
			(in.Length < need.Length || in.Width < need.Width || in.Depth < need.Height) {
			t.Fatalf("inside %+v holds no %+v: %s", in, need, b.Encode())
		}
	}
	if planned < boxes(2000) {
		t.Errorf("only %d were planned", planned)
	}
}

// Every field's nonsense is told beside that field, with a remedy.
func TestBadFields(t *testing.T) {
	nonsense := []string{"", "words", "-3", "0", "1000000000000", "1/0", "5 3/", "99999999999999999999999999",
		"\x00", "NaN", strings.Repeat("9", 300)}
	for _, path := range []string{"size.length", "size.width", "size.depth", "box.options.lid-height"} {
		for _, text := range nonsense {
			b := sized("5", "3 1/2", "2")
			if text == "" && path == "box.options.lid-height" {
				continue // left open, the style settles it
			}
			b.Set(path, text)
			wantProblem(t, b, path, text)
		}
	}
	for _, path := range []string{"contents.0.length", "contents.0.width", "contents.0.height", "contents.0.count"} {
		for _, text := range nonsense {
			b := brief.New("in")
			b.Set(path, text)
			wantProblem(t, b, path, text)
		}
	}
	for _, c := range [][2]string{
		{"name", ""}, {"name", strings.Repeat("long ", 40)}, {"units", "ells"}, {"units", ""}, {"copies", "0"},
		{"copies", "many"}, {"copies", "1000000000000"},
		{"box.style", "sphere"}, {"box.options.tabs", "huge"}, {"box.options.lid", "two"},
		{"box.options.frills", "yes"}, {"card.stock", "lead"}, {"card.sheet", "door"},
		{"tools.step", "1/7 in"}, {"tools.fit", "perfect"}, {"tools.adhesive", "hope"},
		{"contents.0.shape", "heart"}, {"contents.0.name", " "},
		{"room.around", "wide"}, {"room.above", "-1"}, {"contents.0.length", "4 m"}, {"contents.0.length", "30 in"},
	} {
		b := brief.New("in")
		b.Set(c[0], c[1])
		wantProblem(t, b, c[0], c[1])
	}
	// What is impossible only together.
	for _, c := range []struct {
		brief brief.Brief
		field string
	}{
		{sized("5", "3", "1/4"), "size.depth"},    // walls under a tab's width
		{sized("3/4", "3", "1"), "size.length"},   // no room for two tabs
		{sized("5", "1/32", "1"), "size.width"},   // nothing between the walls
		{sized("20 in", "3", "1"), "size.length"}, // larger than every sheet
		{sized("3", "20 in", "1"), "size.width"},  //
		{sized("4", "4", "8 in"), "size.depth"},   //
		// deeper than the base
		{sized("5", "3", "1", "box.options.lid-height", "2 in"), "box.options.lid-height"},
		// under a tab's width
		{sized("5", "3", "1", "box.options.lid-height", "1/8"), "box.options.lid-height"},
		{sized("5", "3", "1", "box.options.reveal", "1 in"), "box.options.reveal"}, // leaves no lid
		// leaves too little lid
		{sized("5", "3", "1", "box.options.reveal", "15/16"), "box.options.reveal"},
		{sized("5", "3", "2", "box.options.reveal", "1", "box.options.lid-height", "3/4"), "box.options.reveal"}, // don't add up
		{sized("5", "3", "1", "box.options.tabs", "narrow", "box.options.tab-width", "1/8"), "box.options.tab-width"},
	} {
		wantProblem(t, c.brief, c.field, "")
	}
	none := brief.New("in")
	none.Contents = nil
	wantProblem(t, none, "contents", "")
}

func wantProblem(t *testing.T, b brief.Brief, field, text string) {
	t.Helper()
	p := advice.Make(b, request.Default)
	for _, pr := range p.Problems {
		if pr.Field == field && pr.Text != "" && pr.Fix != "" {
			if p.OK() || p.Holds() || p.Box != nil {
				t.Errorf("%s = %q has a problem and a plan all the same", field, text)
			}
			return
		}
	}
	t.Errorf("%s = %q gives %+v", field, text, p.Problems)
}

// A piece too large for its sheet but not for another fails the proof and says
// which sheet would do; given contents that don't fit a given size fail it too.
func TestProofFails(t *testing.T) {
	big := sized("8", "8", "2")
	big.Set("card.sheet", "8.5x11")
	p := advice.Make(big, request.Default)
	if !p.OK() || p.Holds() || len(p.Warnings) == 0 || len(p.Advice.Fixes) == 0 {
		t.Errorf("a piece larger than its sheet: %+v %+v", p.Checks, p.Warnings)
	}
	tight := brief.New("in")
	tight.Size = &brief.Size{Length: "4", Width: "3", Depth: "2"}
	if p = advice.Make(tight, request.Default); !p.OK() || p.Holds() {
		t.Errorf("packets of 4 1/2 in hold in 4 in: %+v", p.Checks)
	}
	tight.Size.Length, tight.Size.Width = "5", "3 1/2"
	if p = advice.Make(tight, request.Default); !p.Holds() {
		t.Errorf("packets that fit a given size fail: %+v %+v", p.Problems, p.Checks)
	}
}

func BenchmarkMake(b *testing.B) {
	d := brief.New("in")
	for b.Loop() {
		advice.Make(d, request.Default)
	}
}
