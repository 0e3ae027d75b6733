package style_test

import (
	"flag"
	"fmt"
	"math"
	"slices"
	"testing"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
)

var long = flag.Bool("long", false, "spoil every style with every answer")

// What harms: a box that is spoilt in one thing comes out another one. It is larger or smaller,
// outside or inside; what was stuck is not, or lies elsewhere; card folds the other way; what
// holds it closed or is tied through no longer meets. Two things harm nothing, and are all that
// may go unnoticed: a wall a step lower under what covers it, and a hole a step higher or lower in
// its face. Everything else, the proof must notice.

// spoilable are plans over all styles, plain, with closures, inserts and layers and, when that is
// asked, with every answer to every question.
func spoilable(t *testing.T) (out []*plan.Plan) {
	t.Helper()
	add := func(family string, options ...string) {
		if p := tried(family, options...); p != nil {
			out = append(out, p)
		}
	}
	for _, s := range style.Styles {
		if s.ID == "score-list" {
			continue
		}
		out = append(out, planned(t, s.ID))
		for _, q := range s.Asks {
			for _, c := range q.Choices {
				if closes := q.ID == "closure" && c.ID == "ribbon" || c.ID == "magnet"; c.ID != q.Default && (*long || closes) {
					add(s.ID, "box.options."+q.ID, c.ID)
				}
			}
		}
	}
	for _, insert := range []string{"platform", "grid", "trays"} {
		b := brief.New("mm")
		b.Contents = []brief.Item{{ID: "1", Name: "thumb pot", Shape: "cylinder", Diameter: "44 mm", Height: "30 mm", Count: "2"}}
		b.Set("card.sheet", "a3")
		b.Set("tools.step", "1 mm")
		b.Set("arrange.compartments", insert)
		if p := plan.Make(b, request.Default); p.Holds() {
			out = append(out, p)
		}
	}
	b := brief.New("mm")
	b.Contents, b.Size = nil, &brief.Size{Length: "90 mm", Width: "70 mm", Depth: "40 mm"}
	b.Set("card.sheet", "a3")
	b.Set("tools.step", "1 mm")
	b.Dress.Layers = []brief.Layer{{On: "all", Border: "3 mm", Stock: "sprig-220"}}
	if p := plan.Make(b, request.Default); p.Holds() {
		out = append(out, p)
	}
	if len(out) < 40 && *long || len(out) < 24 {
		t.Fatalf("only %d plans", len(out))
	}
	return out
}

// tried plans a style with answers; nil where they don't go together.
func tried(family string, options ...string) *plan.Plan {
	b := brief.New("mm")
	b.Contents, b.Box = nil, brief.Box{Style: brief.Text(family)}
	size := suits(family)
	for i, set := 0, append([]string{"size.length", size[0], "size.width", size[1], "size.depth", size[2], "tools.step",
		"1 mm", "card.sheet", "a3", "card.join", "yes"}, options...); i < len(set); i += 2 {
		b.Set(set[i], set[i+1])
	}
	if p := plan.Make(b, request.Default); p.Holds() {
		return p
	}
	return nil
}

// spoiler spoils one plan, in one thing at a time, and notes what the proof lets pass.
type spoiler struct {
	*plan.Plan
	tried  map[string]int
	missed map[string]bool
	size   [2]fold.Vec
}

func (s *spoiler) notice(kind, what string) {
	s.tried[kind]++
	says := assembly.Said(s.Box.Prove(assembly.Means{T: s.Card.Caliper, Width: s.Adhesive.Width, Proud: s.Room.Proud}, s.Blocks))
	if says == "" && !s.harmless(kind) {
		s.missed[fmt.Sprintf("%s %v: %s %s", s.Style.ID, s.Brief.Box.Options, kind, what)] = true
	}
}

// harmless reports whether what was spoilt is a wall under what covers it: outside the box is as
// it was, and so is the room within.
func (s *spoiler) harmless(kind string) bool {
	lo, hi := fold.Extent(s.Box.Assemble(s.Card.Caliper, assembly.Closed).Box()...)
	return kind == "score moved" && math.Abs(hi.Sub(lo).Sub(s.size[1].Sub(s.size[0])).Len()) < 0.01 &&
		slices.ContainsFunc(s.Box.Parts, func(p *assembly.Part) bool { return p.Name == "shell" })
}

// spoil puts a piece in place of a part's own for one look.
func (s *spoiler) spoil(part *assembly.Part, kind, what string, bad *net.Piece) {
	was := part.Piece
	part.Piece = bad
	s.notice(kind, was.Name+": "+what)
	part.Piece = was
}

// changed is a piece with what its recipe lists changed, its lines as they are.
func changed(p *net.Piece, change func(q *net.Piece)) *net.Piece {
	q := recut(p, stay, same)
	change(q)
	return q
}

func (s *spoiler) scores(part *assembly.Part) {
	p := part.Piece
	for _, pass := range p.Passes {
		on := func(at net.Point) bool {
			if pass.AlongWidth {
				return at.X == pass.At && at.Y >= pass.From && at.Y <= pass.To
			}
			return at.Y == pass.At && at.X >= pass.From && at.X <= pass.To
		}
		creased := slices.ContainsFunc(p.Outline(), func(l net.Line) bool {
			return l.Kind == net.Score && on(l.A) && on(l.B) && l.Turn != 0
		})
		if !creased {
			continue
		}
		what := fmt.Sprint(pass)
		for _, by := range []measure.Length{mm, -mm} {
			s.spoil(part, "score moved", what, recut(p, func(at net.Point) net.Point {
				switch {
				case on(at) && pass.AlongWidth:
					at.X += by
				case on(at):
					at.Y += by
				}
				return at
			}, same))
		}
		s.spoil(part, "fold reversed", what, recut(p, stay, func(_ *net.Face, e net.Edge) (net.Line, bool) {
			l := e.Line
			if !l.Kind.Open() && on(l.A) && on(l.B) {
				l.Fold = 1 - l.Fold
			}
			return l, true
		}))
		s.spoil(part, "score dropped", what, recut(p, stay, func(_ *net.Face, e net.Edge) (net.Line, bool) {
			return e.Line, e.Kind.Open() || !on(e.A) || !on(e.B)
		}))
	}
}

func (s *spoiler) faces(part *assembly.Part) {
	p := part.Piece
	for _, f := range p.Kept() {
		for _, e := range f.Edges {
			if e.Kind == net.Cut && e.Beyond != nil && !e.Beyond.Waste && e.Beyond.Number > f.Number {
				s.spoil(part, "slit dropped", f.Name+" and "+e.Beyond.Name, recut(p, stay, func(on *net.Face, x net.Edge) (net.Line, bool) {
					l := x.Line
					if on == f && x.Beyond == e.Beyond || on == e.Beyond && x.Beyond == f {
						l.Kind, l.Turn = net.Score, 0 // it holds together, flat
					}
					return l, true
				}))
			}
		}
		if f.Name == p.Root {
			continue
		}
		bad := recut(p, stay, same)
		for _, q := range slices.Concat(bad.Faces, bad.Facetted().Faces) {
			if q.Name == f.Name {
				q.Waste = true
			}
		}
		slices.SortStableFunc(bad.Faces, func(a, b *net.Face) int {
			switch {
			case a.Waste == b.Waste:
				return 0
			case a.Waste:
				return 1
			}
			return -1
		})
		if held(p, f.Name) {
			s.spoil(part, "face cut off", f.Name, bad)
		}
	}
	for i, g := range p.Glues {
		s.spoil(part, "glue dropped", fmt.Sprint(g), changed(p, func(q *net.Piece) { q.Glues = slices.Delete(slices.Clone(p.Glues), i, i+1) }))
	}
}

// held reports whether the recipe says anything of a face but its place.
func held(p *net.Piece, face string) bool {
	of := func(g net.Glue) bool { return g.Face == face || g.On == face }
	return slices.ContainsFunc(p.Glues, of) || slices.ContainsFunc(p.Tucks, of) ||
		slices.ContainsFunc(p.Meets, func(m [2]string) bool { return m[0] == face || m[1] == face })
}

func (s *spoiler) marks(part *assembly.Part) {
	p := part.Piece
	for i, m := range p.Marks {
		s.spoil(part, "mark dropped", m.What, changed(p, func(q *net.Piece) { q.Marks = slices.Delete(slices.Clone(p.Marks), i, i+1) }))
		s.spoil(part, "mark moved", m.What, changed(p, func(q *net.Piece) {
			q.Marks = slices.Clone(p.Marks)
			q.Marks[i].At.X += 2 * mm
		}))
	}
	for i, h := range p.Punches {
		near := func(at net.Point) bool {
			return math.Hypot((at.X-h.Mid.X).MM(), (at.Y-h.Mid.Y).MM()) < 0.7*(h.Diameter+h.Scoop).MM() // its middle too
		}
		dropped := recut(p, stay, func(_ *net.Face, e net.Edge) (net.Line, bool) {
			return e.Line, e.Kind != net.Hole || !near(e.A)
		})
		dropped.Punches = slices.Delete(slices.Clone(p.Punches), i, i+1)
		s.spoil(part, "hole dropped", fmt.Sprint(h.Mid), dropped)
		by := 2 * mm
		moved := recut(p, func(at net.Point) net.Point {
			if near(at) {
				at.X += by
			}
			return at
		}, same)
		s.spoil(part, "hole moved", fmt.Sprint(h.Mid), moved)
	}
}

func (s *spoiler) joins(tree *assembly.Tree) {
	for _, p := range tree.Parts {
		if p.Within != nil {
			s.joins(p.Within)
		}
		if !p.Rides || p.Piece.Part != net.Layer {
			continue
		}
		for i, at := range p.At {
			for what, place := range map[string]func(*assembly.Place){
				"right": func(a *assembly.Place) { a.Right += mm }, "down": func(a *assembly.Place) { a.Down -= mm },
				"turned": func(a *assembly.Place) { a.Quarters++ }} {
				if lo, hi := p.Piece.Kept()[0].Bounds(); what == "turned" && hi.X-lo.X == hi.Y-lo.Y {
					continue // a square
				}
				place(&p.At[i])
				s.notice("layer "+what, p.Name)
				p.At[i] = at
			}
		}
	}
	all := tree.Joins
	for i, j := range all {
		tree.Joins = slices.Delete(slices.Clone(all), i, i+1)
		s.notice("join dropped", fmt.Sprint(j))
	}
	tree.Joins = all
}

// Of 24 plans over all styles, and of 90 when that is asked, each score, fold, slit, wall, tab,
// glue, join, mark, hole and layer is moved by a step, dropped or turned round, one at a time; the
// proof notices all that harms.
func TestWhatHarmsIsNoticed(t *testing.T) {
	tried, missed := map[string]int{}, map[string]bool{}
	total := 0
	for _, p := range spoilable(t) {
		s := spoiler{Plan: p, tried: tried, missed: missed}
		s.size[0], s.size[1] = fold.Extent(p.Box.Assemble(p.Card.Caliper, assembly.Closed).Box()...)
		for _, part := range everyPart(&p.Box.Tree) {
			if part.Rides || part.Loose || part.Piece.Shaped() {
				continue
			}
			s.scores(part)
			s.faces(part)
			s.marks(part)
		}
		s.joins(&p.Box.Tree)
	}
	for _, n := range tried {
		total += n
	}
	t.Logf("%d tried: %v", total, tried)
	for what := range missed {
		t.Errorf("not noticed: %s", what)
	}
	for _, kind := range []string{"score moved", "fold reversed", "score dropped", "slit dropped", "face cut off", "glue dropped",
		"join dropped",
		"mark moved", "mark dropped", "hole moved", "hole dropped", "layer right", "layer turned"} {
		if tried[kind] == 0 {
			t.Errorf("%s was never tried", kind)
		}
	}
}
