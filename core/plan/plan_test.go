package plan_test

import (
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/request"
	"brevium/internal/tried"
)

func TestWorkedExamples(t *testing.T) {
	cases := []struct {
		name      string
		brief     brief.Brief
		base, lid string
	}{
		{"example 1, the lid grown", tried.Sized("5", "3 1/2", "2", "box.options.lid-height", "3/4"),
			"9 x 7 1/2 in: 2, 7; 2, 5 1/2", "6 9/16 x 5 1/16 in: 3/4, 5 13/16; 3/4, 4 5/16"},
		{"example 2, the scores shifted", tried.Sized("5", "3 1/2", "2", "box.options.lid-height", "3/4",
			"box.options.clearance", "shift-scores"),
			"9 x 7 1/2 in: 2, 7; 2, 5 1/2", "6 1/2 x 5 in: 23/32, 5 25/32; 23/32, 4 9/32"},
		{"the base trimmed", tried.Sized("5", "3 1/2", "2", "box.options.lid-height", "3/4", "box.options.clearance", "trim-base"),
			"8 15/16 x 7 7/16 in: 2, 6 15/16; 2, 5 7/16", "6 1/2 x 5 in: 3/4, 5 3/4; 3/4, 4 1/4"},
		{"a full lid", tried.Sized("4 in", "4 in", "1 in", "box.options.lid", "full"),
			"6 x 6 in: 1, 5; 1, 5", "6 1/16 x 6 1/16 in: 1, 5 1/16; 1, 5 1/16"},
		{"a reveal", tried.Sized("4 in", "4 in", "2 in", "box.options.reveal", "1/2"),
			"8 x 8 in: 2, 6; 2, 6", "7 1/16 x 7 1/16 in: 1 1/2, 5 9/16; 1 1/2, 5 9/16"},
		{"five bulbs' room", contentsBrief(), "7 1/16 x 5 13/16 in: 1 1/8, 5 15/16; 1 1/8, 4 11/16", ""},
	}
	for _, c := range cases {
		p := advice.Make(c.brief, request.Default)
		if !p.Holds() {
			t.Errorf("%s does not hold: %v %v", c.name, p.Problems, p.Checks)
			continue
		}
		if got := tried.Tell(p.Box.Piece("base")); got != c.base {
			t.Errorf("%s: base %s, want %s", c.name, got, c.base)
		}
		if got := tried.Tell(p.Box.Piece("lid")); c.lid != "" && got != c.lid {
			t.Errorf("%s: lid %s, want %s", c.name, got, c.lid)
		}
	}
}

// contentsBrief is four packets of 4 1/2 x 3 1/4 x 1/4 in a pile: 4 3/4 x 3 1/2
// x 1 1/16 of clear room; the card takes 0.27, 0.81 and 0.135 mm of it, so the
// next sixteenths are 4 13/16, 3 9/16 and 1 1/8.
func contentsBrief() brief.Brief { return brief.New("in") }

func TestInsideAndOutside(t *testing.T) {
	p := advice.Make(tried.Sized("5", "3 1/2", "2"), request.Default)
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

// Of thousands of random trays with lids, in both units and all options, every
// one that is planned is proved: it closes, holds its contents, and its lid
// clears its base on all sides by what the fit asks for.
func TestRandomTraysHold(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 8))
	planned := 0
	for range tried.Boxes(4000) {
		b := tried.Random(r)
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
	if planned < tried.Boxes(2000) {
		t.Errorf("only %d were planned", planned)
	}
}

// Every field's nonsense is told beside that field, with a remedy.
func TestBadFields(t *testing.T) {
	nonsense := []string{"", "words", "-3", "0", "1000000000000", "1/0", "5 3/", "99999999999999999999999999",
		"\x00", "NaN", strings.Repeat("9", 300)}
	for _, path := range []string{"size.length", "size.width", "size.depth", "box.options.lid-height"} {
		for _, text := range nonsense {
			b := tried.Sized("5", "3 1/2", "2")
			if text == "" && path == "box.options.lid-height" {
				continue // left open, the style settles it
			}
			b.Set(path, text)
			tried.WantProblem(t, b, path, text)
		}
	}
	for _, path := range []string{"contents.0.length", "contents.0.width", "contents.0.height", "contents.0.count"} {
		for _, text := range nonsense {
			b := brief.New("in")
			b.Set(path, text)
			tried.WantProblem(t, b, path, text)
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
		tried.WantProblem(t, b, c[0], c[1])
	}
	// What is impossible only together.
	for _, c := range []struct {
		brief brief.Brief
		field string
	}{
		{tried.Sized("5", "3", "1/4"), "size.depth"},    // walls under a tab's width
		{tried.Sized("3/4", "3", "1"), "size.length"},   // no room for two tabs
		{tried.Sized("5", "1/32", "1"), "size.width"},   // nothing between the walls
		{tried.Sized("20 in", "3", "1"), "size.length"}, // larger than every sheet
		{tried.Sized("3", "20 in", "1"), "size.width"},  //
		{tried.Sized("4", "4", "8 in"), "size.depth"},   //
		// deeper than the base
		{tried.Sized("5", "3", "1", "box.options.lid-height", "2 in"), "box.options.lid-height"},
		// under a tab's width
		{tried.Sized("5", "3", "1", "box.options.lid-height", "1/8"), "box.options.lid-height"},
		{tried.Sized("5", "3", "1", "box.options.reveal", "1 in"), "box.options.reveal"}, // leaves no lid
		// leaves too little lid
		{tried.Sized("5", "3", "1", "box.options.reveal", "15/16"), "box.options.reveal"},
		{tried.Sized("5", "3", "2", "box.options.reveal", "1", "box.options.lid-height", "3/4"), "box.options.reveal"}, // don't add up
		{tried.Sized("5", "3", "1", "box.options.tabs", "narrow", "box.options.tab-width", "1/8"), "box.options.tab-width"},
	} {
		tried.WantProblem(t, c.brief, c.field, "")
	}
	none := brief.New("in")
	none.Contents = nil
	tried.WantProblem(t, none, "contents", "")
}

// A piece too large for its sheet but not for another fails the proof and says
// which sheet would do; given contents that don't fit a given size fail it too.
func TestProofFails(t *testing.T) {
	big := tried.Sized("8", "8", "2")
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
