package insert_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/insert"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/internal/tried"
)

const mm = measure.Millimetre

// made plans things in compartments, in millimetres.
func made(t *testing.T, kind string, items ...brief.Item) *plan.Plan {
	t.Helper()
	b := brief.New("mm")
	b.Card.Sheet, b.Contents = "a3", items
	b.Arrange.Compartments = brief.Text(kind)
	p := plan.Make(b, request.Default)
	if !p.Holds() {
		t.Fatalf("%s: %v %v", kind, p.Problems, p.Checks)
	}
	return p
}

func ball(d, n brief.Text) brief.Item {
	return brief.Item{Name: "bulb", Shape: "ball", Diameter: d, Count: brief.Whole(n)}
}

// Six bulbs of 40 mm in three columns and two rows, on 0.27 mm card: the pitch
// is 40 + 2 + 0.27, so the strips along are slotted 42.27 apart, evenly about
// their middle, half their height from above, and the ones across once, in the
// middle, from below.
func TestSlottedDividers(t *testing.T) {
	p := made(t, "slotted", ball("40 mm", "6"))
	along, across := p.Box.Piece("divider along"), p.Box.Piece("divider across")
	if along.Count != 1 || across.Count != 2 || len(along.Slots) != 2 || len(across.Slots) != 1 {
		t.Fatalf("%d with %d slots, %d with %d", along.Count, len(along.Slots), across.Count, len(across.Slots))
	}
	a, b, c := along.Slots[0], along.Slots[1], across.Slots[0]
	if b.X-a.X != 4227*mm/100 || a.X+b.X != along.Width || 2*c.X != across.Width {
		t.Errorf("slots at %s, %s of %s and %s of %s", a.X.Exact("mm"), b.X.Exact("mm"),
			along.Width.Exact("mm"), c.X.Exact("mm"), across.Width.Exact("mm"))
	}
	if a.FromBottom || !c.FromBottom || a.Depth+c.Depth < along.Height || a.Width <= p.Card.Caliper ||
		along.Height != across.Height {
		t.Errorf("the slots don't meet half way: %+v %+v of %d", a, c, along.Height)
	}
	if n := len(p.Box.Part("divider along").At) + len(p.Box.Part("divider across").At); n != 3 {
		t.Errorf("%d strips stand", n)
	}
}

// Strips that all run one way have nothing to cross and get feet.
func TestOneWayDividersGetFeet(t *testing.T) {
	p := made(t, "slotted", ball("40 mm", "2"))
	var names []string
	for _, piece := range p.Box.Pieces() {
		if piece.Part == net.Insert {
			names = append(names, piece.Name)
			if len(piece.Slots) > 0 || piece.Face("foot") == nil {
				t.Errorf("%s has no foot", piece.Name)
			}
		}
	}
	if len(names) != 1 || len(p.Box.Joins) != 1 {
		t.Errorf("%v, %v", names, p.Box.Joins)
	}
}

// A ball sits in a hole of four fifths; a tin passes through one a millimetre
// wider, low enough not to hide it.
func TestPlatforms(t *testing.T) {
	p := made(t, "platform", ball("50 mm", "3"))
	top := p.Box.Piece("platform")
	if len(top.Punches) != 3 || top.Punches[0].Diameter != 40*mm {
		t.Errorf("%+v", top.Punches)
	}
	// 12 mm is the least height; a fifth of the ball hangs through: lifted by 2.
	if lift := insert.Lift(p.Load.Things, mm); lift != 2*mm {
		t.Errorf("lifted by %s", lift.Exact("mm"))
	}
	p = made(t, "platform", brief.Item{Name: "tin", Shape: "cylinder", Diameter: "60 mm", Height: "66 mm", Count: "2"})
	if top = p.Box.Piece("platform"); top.Punches[0].Diameter != 61*mm || insert.PlatformHeight(p.Load.Things, mm) != 22*mm {
		t.Errorf("%+v, %s high", top.Punches[0], insert.PlatformHeight(p.Load.Things, mm).Exact("mm"))
	}
	for _, s := range p.Box.Piece("platform").Passes {
		if s.Fold != net.Mountain {
			t.Error("the legs fold up")
		}
	}
}

func TestTrays(t *testing.T) {
	p := made(t, "trays", brief.Item{Name: "round", Shape: "cylinder", Diameter: "50 mm", Height: "14 mm", Stack: "3",
		Count: "9"})
	tray := p.Box.Piece("inner tray")
	if tray.Count != p.Load.Layers || tray.Count < 2 || len(tray.Notches) != 2 ||
		len(p.Box.Part("inner tray").At) != tray.Count {
		t.Errorf("%d trays for %d layers, %d notches", tray.Count, p.Load.Layers, len(tray.Notches))
	}
}

func TestSuits(t *testing.T) {
	thing := func(shape string) contents.Thing { return contents.Thing{Name: shape, Shape: shape} }
	lying := thing("cylinder")
	lying.Lie = contents.May
	for _, c := range []struct {
		kind   string
		things []contents.Thing
		says   string
	}{
		{"slotted", []contents.Thing{thing("block")}, ""}, {"platform", []contents.Thing{thing("ball")}, ""},
		{"platform", []contents.Thing{thing("cylinder"), thing("cylinder")}, ""},
		{"platform", []contents.Thing{thing("block")}, "isn't round"}, {"platform", []contents.Thing{lying}, "lies down"},
		{"platform", []contents.Thing{thing("ball"), thing("cylinder")}, "both balls"},
		{"platform", []contents.Thing{thing("ball"), thing("ball")}, "one size"},
	} {
		got := ""
		if k := insert.Find(c.kind); k.Suits != nil {
			got = k.Suits(c.things)
		}
		if !strings.Contains(got, c.says) || c.says == "" && got != "" {
			t.Errorf("%s for %v: %q", c.kind, c.things, got)
		}
	}
}

// Whatever is asked for, at any size: either the box is proved and each compartment has its walls and each pile its hole,
// or the compartments are refused, with a change that gives a box.
func TestAnyCompartments(t *testing.T) {
	r, built := rand.New(rand.NewPCG(26, 20)), map[string]int{}
	for range tried.Fewer(4000) {
		kind := insert.Kinds[1+r.IntN(len(insert.Kinds)-1)].ID
		size := func(lo, hi int) brief.Text { return brief.Text(fmt.Sprintf("%d mm", lo+r.IntN(hi-lo))) }
		item := brief.Item{Name: "thing", Shape: brief.Text([]string{"block", "ball", "cylinder"}[r.IntN(3)]), Length: size(15, 70),
			Width: size(15, 60), Height: size(12, 60), Diameter: size(15, 60), Count: brief.Whole(fmt.Sprint(1 + r.IntN(12)))}
		b := brief.New("mm")
		b.Card.Sheet, b.Card.Join, b.Contents, b.Arrange.Compartments = "a3", "yes", []brief.Item{item}, brief.Text(kind)
		p := plan.Make(b, request.Default)
		if p.Box == nil {
			for _, pr := range p.Problems {
				if pr.Field == "arrange.compartments" && len(pr.Set) > 0 && plan.Make(b.With(pr.Set), request.Default).Box == nil {
					t.Fatalf("%s for %+v: %q is offered, and there is no box", kind, item, pr.Set)
				}
			}
			continue
		}
		built[kind]++
		if c := assembly.Said(p.Checks); c != "" && len(p.Layout.TooBig) == 0 {
			t.Fatalf("%s for %+v: %s", kind, item, c)
		}
		stand := map[string]int{}
		for _, part := range p.Box.Parts {
			if part.Piece.Part == net.Insert {
				stand[strings.Fields(part.Name)[0]] += len(part.At)
			}
		}
		along, across := len(p.Load.Along), len(p.Load.Across)
		feet := along + across*(along+1) + len(p.Load.Short) // each across stops at those along
		want := map[string]int{"slotted": feet, "partitions": feet, "trays": p.Load.Layers}[kind]
		if kind == "slotted" && along > 0 && across > 0 {
			want = along + across // they cross
		}
		got := map[string]int{"slotted": stand["divider"] + stand["partition"], "partitions": stand["partition"],
			"trays": stand["inner"]}[kind]
		if got != want && kind != "platform" && kind != "petals" {
			t.Fatalf("%s for %+v: %d stand, of %d along and %d across in %d layers: %v", kind, item, got, along, across, p.Load.Layers, stand)
		}
		if kind == "platform" {
			if holes := len(p.Box.Piece("platform").Punches); holes != len(p.Load.Stacks) {
				t.Fatalf("%d holes for %d piles", holes, len(p.Load.Stacks))
			}
		}
	}
	if len(built) < len(insert.Kinds)-2 {
		t.Errorf("only %v were built: this proves little", built)
	}
}
