package plan_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
)

// Whatever kind of compartment, whatever things: what is planned is proved,
// dividers and all.
func TestRandomCompartmentsHold(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 12))
	planned := map[string]int{}
	why := map[string]int{}
	for range max(75, tried.Boxes(1500)) {
		b := tried.Random(r)
		b.Size = nil
		b.Contents = nil
		kind := []string{"none", "slotted", "partitions", "platform", "trays", "petals"}[r.IntN(6)]
		b.Arrange.Compartments = brief.Text(kind)
		shapes := []string{"block", "ball", "cylinder", "flat", "soft"}
		if kind == "platform" {
			shapes = []string{[]string{"ball", "cylinder"}[r.IntN(2)]}
		}
		mm := func(low, high int) brief.Text { return brief.Text(fmt.Sprintf("%d mm", low+r.IntN(high-low))) }
		kinds := 1 + r.IntN(3)
		if shapes[0] == "ball" {
			kinds = 1
		}
		for k := range kinds {
			b.Contents = append(b.Contents, brief.Item{Name: brief.Text(fmt.Sprint("thing ", k)),
				Shape:  brief.Text(shapes[r.IntN(len(shapes))]),
				Length: mm(25, 70), Width: mm(25, 60), Height: mm(15, 60), Thickness: mm(2, 8),
				Diameter: mm(25, 50), Count: brief.Whole(fmt.Sprint(1 + r.IntN(5)))})
		}
		p := tried.Unmended(b)
		if !p.OK() {
			for _, pr := range p.Problems {
				why[kind+": "+pr.Field]++
			}
			continue
		}
		planned[kind]++
		for _, c := range p.Checks {
			if !c.Holds && !strings.HasPrefix(c.Name, "every piece fits") {
				t.Fatalf("%s: %s: %s, for %s", kind, c.Name, c.Figure, b.Encode())
			}
		}
	}
	t.Log(planned, why)
	for _, kind := range []string{"none", "slotted", "partitions", "platform", "trays", "petals"} {
		if planned[kind] < tried.Boxes(60) {
			t.Errorf("only %d with %s were planned", planned[kind], kind)
		}
	}
}

// The first of the ranking is never beaten by another of its own list, the
// list is what the plan is made of, and every way can be picked.
func TestRankingIsHonest(t *testing.T) {
	r := rand.New(rand.NewPCG(31, 32))
	for range tried.Boxes(1400) {
		b := tried.Random(r)
		b.Size = nil
		b.Contents = []brief.Item{{Name: "thing", Shape: []brief.Text{"block", "ball", "cylinder"}[r.IntN(3)],
			Length: "40 mm", Width: "30 mm", Height: "20 mm", Diameter: "35 mm", Lie: "yes",
			Count: brief.Whole(fmt.Sprint(1 + r.IntN(9)))}}
		p := advice.Make(b, request.Default)
		if !p.OK() {
			continue
		}
		if len(p.Ways) == 0 || p.Load.ID != p.Ways[0].ID {
			t.Fatalf("the plan is not of its best way: %s", b.Encode())
		}
		for _, w := range p.Ways {
			if w.Reason == "" || plan.Better(w, p.Ways[0]) < 0 {
				t.Fatalf("%s beats the first, %s: %s", w.ID, p.Ways[0].ID, b.Encode())
			}
		}
		last := p.Ways[len(p.Ways)-1]
		b.Arrange.Way = brief.Text(last.ID)
		if q := advice.Make(b, request.Default); !q.OK() || q.Load.ID != last.ID || len(q.Warnings) > len(p.Warnings)+2 {
			t.Fatalf("%s can't be picked: %v", last.ID, q.Problems)
		}
	}
}

func TestPinsAndHands(t *testing.T) {
	b := brief.New("mm")
	b.Contents = []brief.Item{{Name: "tin", Shape: "cylinder", Diameter: "40 mm", Height: "30 mm", Count: "2"}}
	b.Arrange.Way = "nonsense"
	if p := advice.Make(b, request.Default); !p.OK() || len(p.Warnings) == 0 || p.Warnings[0].Code != "pin-gone" {
		t.Errorf("a pin that is gone: %+v", p.Warnings)
	}
	b.Arrange.Way = ""
	b.Arrange.Places = []brief.StackAt{{X: "0 mm", Y: "0 mm"}, {X: "50 mm", Y: "20 mm"}}
	p := advice.Make(b, request.Default)
	// 90 by 60 mm of things, 3 mm round them.
	if !p.Holds() || p.Load.Need.Length.MM() != 96 || p.Load.Need.Width.MM() != 66 {
		t.Errorf("by hand: %+v %+v", p.Problems, p.Load.Need)
	}
	b.Arrange.Places[1] = brief.StackAt{X: "20 mm", Y: "0 mm"}
	tried.WantProblem(t, b, "arrange", "in each other")
	b.Arrange.Places = b.Arrange.Places[:1]
	if p = advice.Make(b, request.Default); !p.OK() || p.Warnings[0].Code != "by-hand-gone" {
		t.Errorf("too few places: %+v", p.Warnings)
	}
	b.Arrange.Places = nil
	b.Room.Proud = "10 mm"
	tried.WantProblem(t, b, "room.proud", "")
	if b.Set("box.options.lid", "none"); !advice.Make(b, request.Default).Holds() {
		t.Error("an open tray holds no things that stand proud")
	}
	for _, c := range [][2]string{{"arrange.compartments", "magic"}, {"arrange.dividers", "-1"}} {
		bad := brief.New("in")
		bad.Set(c[0], c[1])
		tried.WantProblem(t, bad, c[0], c[1])
	}
	bad := brief.New("in") // blocks on a platform
	bad.Set("arrange.compartments", "platform")
	tried.WantProblem(t, bad, "arrange.compartments", "")
	bad.Set("arrange.compartments", "slotted")
	bad.Contents = []brief.Item{{Name: "bulb", Shape: "ball", Diameter: "2 in", Count: "4"}}
	bad.Set("arrange.dividers", "9 in")
	tried.WantProblem(t, bad, "arrange.dividers", "9 in")
}

// Dividers that would not interlock, or a thing in their way, fail the proof.
func TestWrongInsertsFail(t *testing.T) {
	b := brief.New("mm")
	b.Contents = []brief.Item{{Name: "bulb", Shape: "ball", Diameter: "40 mm", Count: "6"}}
	b.Arrange.Compartments = "slotted"
	spoil := func(how func(*plan.Plan)) string {
		p := advice.Make(b, request.Default)
		if !p.Holds() {
			t.Fatal(p.Checks)
		}
		how(p)
		p.Box.Find()
		return tried.Proved(p)
	}
	for name, c := range map[string]struct {
		how  func(*plan.Plan)
		says string
	}{
		"no slots": {func(p *plan.Plan) {
			for _, n := range []string{"divider along", "divider across"} {
				s := p.Box.Piece(n)
				s.Lines, s.Slots = nil, nil
				*s = *cleanStrip(s)
			}
		}, "divider along of divider along"},
		"a divider moved":   {func(p *plan.Plan) { p.Box.Part("divider across").At[0].Right += 9_000_000 }, "bulb meets"},
		"dividers too high": {func(p *plan.Plan) { p.Box.Hi.Z -= 30 }, "above it"},
		"a thing moved":     {func(p *plan.Plan) { p.Blocks[0].Lo.X -= 6; p.Blocks[0].Hi.X -= 6 }, "meets left of the base"},
	} {
		if got := spoil(c.how); !strings.Contains(got, c.says) &&
			!(name == "no slots" && strings.Contains(got, "runs into another")) {
			t.Errorf("%s: %q", name, got)
		}
	}
}

// What is too large for its sheet is helped: every fix that is offered does it.
func TestFixesFix(t *testing.T) {
	b := brief.New("in")
	b.Contents = []brief.Item{{Name: "tin", Shape: "block", Length: "4 in", Width: "4 in", Height: "1 7/8 in", Count: "1"}}
	b.Card.Sheet = "8.5x11"
	b.Room.Around = "3/8 in"
	p := advice.Make(b, request.Default)
	if !p.OK() || p.Holds() || len(p.Advice.Fixes) < 3 {
		t.Fatalf("%v %+v", p.Problems, p.Advice.Fixes)
	}
	joined := false
	for _, f := range p.Advice.Fixes {
		fixed := b.Clone()
		for field, text := range f.Set.All() {
			fixed.Set(field, text)
		}
		q := advice.Make(fixed, request.Default)
		if !q.Holds() {
			t.Errorf("%s does not: %v %v", f.Text, q.Problems, q.Checks)
		}
		if slices.ContainsFunc(q.Box.Pieces(), q.Joined) {
			joined = true
		}
	}
	if !joined {
		t.Error("no joint was offered")
	}
}

func BenchmarkGallery24(b *testing.B) {
	d := tried.Many()
	for b.Loop() {
		if len(advice.Each(b.Context(), d, request.Default)) != len(style.Styles) {
			b.Fatal("a style is missing")
		}
	}
}

func BenchmarkCompare24(b *testing.B) {
	d := tried.Many()
	for b.Loop() {
		if rows, _ := advice.Compare(b.Context(), d, request.Default); len(rows) == 0 {
			b.Fatal("nothing to compare")
		}
	}
}
