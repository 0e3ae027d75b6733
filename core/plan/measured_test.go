package plan_test

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
)

// What is stated is what was measured: a block of exactly the inside goes in and
// the proof holds; one step larger in any direction and it does not. Outside is
// the box round the folded solid.
func TestMeasuredSizes(t *testing.T) {
	for i, s := range style.Styles {
		t.Run(s.ID, func(t *testing.T) {
			t.Parallel()
			r := rand.New(rand.NewPCG(81, uint64(i)))
			all, made := tried.Combinations(s), 0
			for n := range tried.Fewer(900) {
				b := tried.Random(r)
				b.Contents, b.Box = nil, brief.Box{Style: brief.Text(s.ID)}
				if b.Size == nil {
					b.Size = &brief.Size{Length: "3 1/2 in", Width: "2 3/4 in", Depth: "1 3/4 in"}
				}
				tried.Suit(&b, s)
				b.Set("card.join", "yes")
				b.Set("tools.allowances", []string{"card", "plain"}[r.IntN(2)])
				tried.Answer(&b, s, n%all)
				p := advice.Make(b, request.Default)
				if !p.OK() {
					continue
				}
				made++
				in, step := p.Box.Inside, p.Step.Size
				if q := tried.Stated(b, in); tried.Said(q) != "" {
					t.Fatalf("a block of the inside %v: %s, for %s", in, tried.Said(q), b.Encode())
				}
				for _, larger := range []style.Dims{
					{Length: in.Length + step, Width: in.Width, Depth: in.Depth},
					{Length: in.Length, Width: in.Width + step, Depth: in.Depth},
					{Length: in.Length, Width: in.Width, Depth: in.Depth + step},
				} {
					if q := tried.Stated(b, larger); q.Holds() {
						t.Fatalf("a block of %v goes into %v, for %s", larger, in, b.Encode())
					}
				}
				if far := solidBox(p); far > 0.01 {
					t.Fatalf("the outside is %.3f mm off, for %s", far, b.Encode())
				}
			}
			if made < tried.Fewer(200) {
				t.Errorf("only %d were made", made)
			}
		})
	}
}

// solidBox is how far the outside that is stated is from the box round the card
// itself, every face a slab.
func solidBox(p *plan.Plan) float64 {
	lo, hi := [3]float64{1e9, 1e9, 1e9}, [3]float64{-1e9, -1e9, -1e9}
	for _, body := range p.Box.Assemble(p.Card.Caliper, assembly.Closed).Bodies {
		for _, f := range body.Faces {
			for _, v := range f.Poly {
				for _, side := range []float64{-0.5, 0.5} {
					at := v.Add(f.In.Times(side * body.T))
					for k, x := range [3]float64{at.X, at.Y, at.Z} {
						lo[k], hi[k] = min(lo[k], x), max(hi[k], x)
					}
				}
			}
		}
	}
	o := p.Box.Outside
	return max(math.Abs(hi[0]-lo[0]-o.Length.MM()), math.Abs(hi[1]-lo[1]-o.Width.MM()), math.Abs(hi[2]-lo[2]-o.Depth.MM()))
}

// Who says that nothing shows, or that it opens like a book, or stores flat, has
// looked: at boxes whose seams makers know.
func TestWhatIsSeen(t *testing.T) {
	for _, c := range []struct {
		style, options      string
		clean, book, stores bool
		seams               string
	}{
		{"tray-lid", "", false, false, false, "4 on the base, seen from the left and the right; 4 on the lid"},
		{"tray-lid", "lid=full", false, false, false, "4 on the lid, seen from the left and the right."},
		{"hinged-lid", "", false, true, false, "seen from the left and the right."},
		{"flap-box", "", true, true, false, "2 on the box, seen from the back."},
		{"flap-box", "sides=from-base", false, true, false, "seen from the front and the back."},
		{"flap-box", "closure=band", true, false, false, "1 on the band, seen from the back."},
		{"sleeve-drawer", "", false, false, false, "1 on the sleeve, seen from below."},
		{"carton", "", false, true, true, "1 on the carton, seen from the left."},
		{"carton", "top=glued", false, false, true, "1 on the carton, seen from the left."},
		{"pinch-top", "", false, false, true, "1 on the tube, seen from the left."},
		{"gable-cap", "", false, false, false, "1 on the cap, seen from the left"},
		{"wrap-cover", "", false, true, false, "4 on the tray, seen from the left and the right."},
		{"fold-flat", "", true, true, true, "None."},
		{"fold-flat", "stuck=yes", true, true, false, "None."},
		{"pleat-pouch", "", true, false, false, "2 on the pouch, seen from the back."},
		{"chamfer-foot", "", true, true, false, "2 on the box, seen from the back."},
		{"book-wrap", "", true, true, false, "1 on the strap, seen from the back."},
		{"corner-shells", "band=no", false, false, false, "2 on the shell, seen from the left and the right."},
		{"woven-basket", "", false, false, false, "4 on the basket, seen from the left and the right."},
		{"cross-fold", "", false, false, false, "4 on the lid"},
		{"strip-column", "", false, false, false, "8 on the cap"},
	} {
		b := tried.Sized("120 mm", "90 mm", "60 mm", "units", "mm", "tools.step", "1 mm", "card.sheet", "a3", "card.join", "yes",
			"box.style", c.style)
		for o := range strings.FieldsSeq(c.options) {
			id, answer, _ := strings.Cut(o, "=")
			b.Set("box.options."+id, answer)
		}
		p := advice.Make(b, request.Default)
		if !p.Holds() {
			t.Errorf("%s %s: %s", c.style, c.options, tried.Said(p))
			continue
		}
		if x := p.Box; x.Clean() != c.clean || x.Book != c.book || x.Stores != c.stores ||
			!strings.Contains(x.SeamsSeen(), c.seams) {
			t.Errorf("%s %s: clean %v, a book %v, stores flat %v: %s", c.style, c.options, x.Clean(), x.Book, x.Stores,
				x.SeamsSeen())
		}
	}
}

// What comes in halves meets when the box is closed, and lies on card with card
// round it; where there is no room for it the box is refused, and the change that
// is offered makes it.
func TestClosuresHaveCard(t *testing.T) {
	for _, set := range [][]string{
		{"5", "1 1/2", "4", "box.options.front", "3 in", "box.options.flap-depth", "1 1/4 in"},
		{"5", "1", "3", "box.options.front", "2 in", "box.options.flap", "pointed", "box.options.flap-depth", "1 1/8 in"},
		{"5", "2", "3", "box.options.flap-depth", "1/4 in"},
		{"5", "2", "3", "box.options.flap-depth", "1/4 in", "box.options.closure", "dot"},
	} {
		b := tried.Sized(set[0], set[1], set[2], append(set[3:], "box.style", "flap-box", "card.sheet", "a3", "card.join", "yes")...)
		p := advice.Make(b, request.Default)
		if p.OK() || len(p.Problems[0].Set) == 0 {
			t.Errorf("%v: %v %s", set, p.Problems, tried.Said(p))
			continue
		}
		for range 3 {
			for _, pr := range p.Problems {
				for field, text := range pr.Set.All() {
					b.Set(field, text)
				}
			}
			p = advice.Make(b, request.Default)
		}
		if !p.Holds() {
			t.Errorf("%v, mended: %s", set, tried.Said(p))
		}
	}
	// Moved to where it has no card, a mark fails the proof.
	p := advice.Make(tried.Sized("5", "3", "3", "box.style", "flap-box", "card.sheet", "a3", "card.join", "yes"), request.Default)
	marks := p.Box.Parts[0].Piece.Marks
	if len(marks) != 2 || tried.Proved(p) != "" {
		t.Fatalf("%v, %s", marks, tried.Proved(p))
	}
	marks[0].At.Y += 9 * measure.Millimetre
	if got := tried.Proved(p); !strings.Contains(got, "two halves of the magnet meet") {
		t.Errorf("a magnet beside its other half: %q", got)
	}
	marks[0].At.Y = 2 * measure.Millimetre
	if got := tried.Proved(p); !strings.Contains(got, "of card around it") {
		t.Errorf("a magnet over the edge: %q", got)
	}
}

// Half the clearance is half: a hinged lid is as loose as was asked, no looser.
func TestHingedLidIsAsLooseAsAsked(t *testing.T) {
	p := advice.Make(tried.Sized("5", "4", "1 1/2", "box.style", "hinged-lid"), request.Default)
	if c := p.Box.Clearance; c != measure.Inch/16 {
		t.Errorf("the lid is %s larger", c.Exact("in"))
	}
	s := p.Box.Assemble(p.Card.Caliper, assembly.Closed)
	lid, base := s.Of("box").Find("lid-left"), s.Of("box").Find("left")
	if gap := base.Poly[0].Sub(lid.Poly[0]).Dot(lid.In); math.Abs(gap-25.4/32) > 0.01 {
		t.Errorf("its side stands %.2f mm from the base's", gap)
	}
}

// Answers to questions that are not asked are told.
func TestIdleAnswersAreTold(t *testing.T) {
	b := tried.Sized("90 mm", "70 mm", "120 mm", "units", "mm", "tools.step", "1 mm", "card.sheet", "a3", "box.style", "carton",
		"box.options.top", "glued", "box.options.pull", "yes", "box.options.slot", "20 mm")
	p := advice.Make(b, request.Default)
	idle := 0
	for _, w := range p.Warnings {
		if w.Code == "idle-option" && len(w.Set) == 1 {
			idle++
		}
	}
	if idle != 2 {
		t.Errorf("%+v", p.Warnings)
	}
}
