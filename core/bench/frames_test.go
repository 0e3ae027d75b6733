package bench_test

import (
	"fmt"
	"slices"
	"testing"

	"brevium/core/advice"
	"brevium/core/assembly"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
)

// jobsToMake are boxes of every family, plain and dressed.
func jobsToMake(t *testing.T, dressed bool) (out []*plan.Plan) {
	for _, s := range style.Styles {
		if s.ID == "score-list" {
			continue
		}
		out = append(out, family(t, s.ID))
		if !dressed {
			continue
		}
		if p := advice.Make(dressedBrief(s.ID), request.Default); p.OK() {
			out = append(out, p)
		}
	}
	return out
}

func dressedBrief(id string) brief.Brief {
	return tried.Dressed(tried.Metric(id, 96, 74, 44, "tools.adhesive", "glue"), `{"level": "keepsake",
		"layers": [{"on": "all", "stock": "sprig-220"}], "bands": [{"stock": "kraft-300"}]}`)
}

// The pictures of the steps never show a face that is not folded yet as folded, nor a piece that
// is not made: checked by the angles of the faces themselves, against what
// the steps before have lit.
func TestStepPicturesAreTrue(t *testing.T) {
	gift := advice.Make(tried.Dressed(tried.Metric("tray-lid", 96, 74, 44),
		`{"toppers": [{"on": "lid/top", "shape": "round", "stock": "sprig-220"}]}`),
		request.Default)
	for _, p := range append(jobsToMake(t, true), gift) {
		m := handMade{t: t, p: p, cut: map[string]bool{}, folded: map[string][]string{}}
		for _, step := range p.Guide.Steps {
			if step.Title == "Stick" {
				m.folded[step.Piece] = nil // opened again after it was tried dry
			}
			for n, f := range step.Frames {
				m.where = fmt.Sprintf("%s %s, picture %d", p.Style.ID, step.ID, n+1)
				switch f.Look {
				case bench.Standing:
					m.stands(step, f)
				case bench.Cutting:
					piece := p.Box.Piece(f.Piece)
					rounded := len(piece.Tips) > 0 && len(step.Frames) == 1 && f.N == len(bench.CutsOf(piece))
					if c := bench.CutsOf(piece); !rounded && f.N >= len(c) || !rounded && c[f.N].Trim != (step.Title == "Mitre") {
						t.Errorf("%s: cut %d of %d", m.where, f.N, len(c))
					}
				}
			}
			if step.Title == "Fold and burnish" || step.Title == "Mitre" || step.Title == "Cut" {
				for _, piece := range p.Box.Pieces() {
					m.cut[piece.Name] = true
				}
			}
		}
	}
}

// handMade is how far the steps have come: what is cut, what is folded, what is in its place.
type handMade struct {
	t      *testing.T
	p      *plan.Plan
	where  string
	cut    map[string]bool
	folded map[string][]string
}

func (m handMade) stands(step bench.Step, f bench.Frame) {
	a := bench.Stands(m.p.Box, m.p.Card.Caliper, f)
	if len(a.Bodies) == 0 {
		m.t.Fatalf("%s: nothing is shown", m.where)
	}
	if a.Filled != !f.Empty || a.Filled && step.Title != "Fill" && step.Title != "Close" {
		m.t.Errorf("%s: filled: %v", m.where, a.Filled)
	}
	if on := slices.ContainsFunc(a.Bodies, func(b *fold.Body) bool { return m.p.Box.Part(b.Name).Last }); on && !f.Late {
		m.t.Errorf("%s: what is stuck on last is on", m.where)
	}
	m.folded[f.Piece] = append(m.folded[f.Piece], f.Lit...)
	for _, move := range m.p.Box.Course() {
		if move.Piece == nil {
			continue
		}
		dry := step.Title == "Fold it dry" && move.Does == "fold"
		all := step.Title == "Dry-fit" // closed to try it
		if dry || all {
			of := move.Piece.Name
			m.folded[of] = append(m.folded[of], move.Faces...)
		}
	}
	for _, b := range a.Bodies {
		if !m.cut[b.Piece.Name] {
			m.t.Errorf("%s: the %s is shown and is not cut", m.where, b.Piece.Name)
		}
		for _, move := range b.Piece.Order {
			for _, face := range move.Faces {
				if !slices.Contains(m.folded[b.Piece.Name], face) && a.Rides(b) == "" && !liesFlat(b, face) {
					m.t.Errorf("%s: the %s of the %s is folded before its time", m.where, face, b.Piece.Name)
				}
			}
		}
	}
}

// liesFlat reports whether a face lies in one plane with a face it hangs on.
func liesFlat(b *fold.Body, name string) bool {
	f := b.Find(name)
	if f == nil {
		return true // bent: shown in facets
	}
	return slices.ContainsFunc(f.Edges, func(e net.Edge) bool {
		if e.Beyond == nil || e.Beyond.Waste || e.Kind.Open() {
			return false
		}
		next := b.Find(e.Beyond.Name)
		return next != nil && next.In.Dot(f.In) > 0.9999
	})
}

// The glue map: dots lie on their face and where the other face covers it, and every face that
// is stuck has some.
func TestGlueMap(t *testing.T) {
	for _, p := range jobsToMake(t, false) {
		for _, piece := range p.Box.Pieces() {
			spreads := p.Glue().Spreads(piece)
			for _, g := range piece.Glues {
				a, on := faceOf(p, piece, g.Face), faceOf(p, piece, g.On)
				outside := a == nil || on == nil || on.Middle().Sub(a.Middle()).Dot(a.In) < 0 // where the other lies
				if !slices.ContainsFunc(spreads, func(s bench.Spread) bool { return s.Face == g.Face && s.Outside == outside }) {
					t.Errorf("%s %s: the %s is stuck and not on the map", p.Style.ID, piece.Name, g.Face)
				}
			}
			for _, s := range spreads {
				f := piece.Face(s.Face)
				if len(s.Dots) == 0 || slices.ContainsFunc(s.Dots, func(d net.Point) bool { return !net.Inside(f.Points, d) }) {
					t.Errorf("%s %s, %s: %d dots, not all on it", p.Style.ID, piece.Name, s.Face, len(s.Dots))
				}
			}
		}
		for _, body := range p.Box.Proved.Bodies {
			for _, g := range body.Piece.Glues {
				hides(t, p, body.Find(g.Face), body.Find(g.On), body.Piece)
			}
		}
		for _, j := range p.Box.Joins {
			part, face := assembly.Ref(j.A)
			other, on := assembly.Ref(j.B)
			a, b := p.Box.Proved.Of(part), p.Box.Proved.Of(other)
			if !j.Stuck || a == nil || b == nil || a.Find(face) == nil || b.Find(on) == nil {
				continue
			}
			if a.Piece.Face(face).Area() <= b.Piece.Face(on).Area() {
				hides(t, p, a.Find(face), b.Find(on), a.Piece)
			} else {
				hides(t, p, b.Find(on), a.Find(face), b.Piece)
			}
		}
	}
}

// hides sees that a face that is stuck by its dots has none beside what lies over it.
func hides(t *testing.T, p *plan.Plan, face, on *fold.Placed, piece *net.Piece) {
	t.Helper()
	if face == nil || on == nil {
		return
	}
	spreads := p.Glue().Spreads(piece)
	i := slices.IndexFunc(spreads, func(s bench.Spread) bool { return s.Face == face.Name })
	if i < 0 {
		t.Fatalf("%s: the %s of the %s is not on the map", p.Style.ID, face.Name, piece.Name)
	}
	for _, d := range spreads[i].Dots {
		if !net.Inside(on.Points, on.Under(face.Place(d))) {
			t.Errorf("%s: glue on the %s of the %s, at %v, shows beside the %s", p.Style.ID, face.Name, piece.Name, d, on.Name)
		}
	}
}

// What is stuck on last is seen in the last picture, and there alone.
func TestToppersComeLast(t *testing.T) {
	p := advice.Make(tried.Dressed(tried.Metric("tray-lid", 96, 74, 44),
		`{"toppers": [{"on": "lid/top", "shape": "round", "stock": "sprig-220"}]}`), request.Default)
	if !p.OK() {
		t.Fatal(p.Problems)
	}
	frames := tried.StepOf(p, "close").Frames
	last := bench.Stands(p.Box, p.Card.Caliper, frames[len(frames)-1])
	if n := slices.IndexFunc(last.Bodies, func(b *fold.Body) bool { return p.Box.Part(b.Name).Last }); n < 0 {
		t.Error("the topper is never on")
	}
}

// faceOf finds a face of a piece as it stands in the closed box.
func faceOf(p *plan.Plan, piece *net.Piece, face string) *fold.Placed {
	for _, b := range p.Box.Proved.Bodies {
		if b.Piece == piece {
			return b.Find(face)
		}
	}
	return nil
}
