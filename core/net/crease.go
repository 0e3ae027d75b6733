package net

import (
	"cmp"
	"slices"

	"brevium/core/measure"
)

// rule is what is said of a crease, which goes by the two faces it lies between. Rules are laid on the edges once
// the faces are found.
type rule struct {
	a, b string
	line Line // Turn, Via, Free, Fold; Kind Bend for what is not scored
}

// Turn says how far, in degrees, and which way the creases between a face and
// others are folded. Scores that nothing is said of are valleys of 90 degrees.
func (o *Folding) Turn(degrees float64, way Fold, face string, others ...string) {
	o.rule(Line{Turn: degrees, Fold: way}, face, others)
}

// Twice says that creases are folded so far first and, when their faces are folded again, to another angle.
func (o *Folding) Twice(first, then float64, way Fold, face string, others ...string) {
	o.rule(Line{Via: first, Turn: then, Fold: way}, face, others)
}

// Solved begins an angle that folding settles, near a guess in degrees.
func (o *Folding) Solved(guess float64) (unknown int) {
	o.Unknown = append(o.Unknown, guess)
	return len(o.Unknown)
}

// Free says that the angle of creases is an unknown: it is as much as closes
// the piece, and all creases of one unknown turn alike.
func (o *Folding) Free(unknown int, way Fold, face string, others ...string) {
	o.rule(Line{Free: unknown, Turn: o.Unknown[unknown-1], Fold: way}, face, others)
}

// Bend says that the creases between a face and others are not scored: the card only bends there.
func (o *Folding) Bend(face string, others ...string) { o.rule(Line{Kind: Bend}, face, others) }

func (o *Folding) rule(l Line, face string, others []string) {
	for _, other := range others {
		o.rules = append(o.rules, rule{face, other, l})
	}
}

// Curve says that a face is bent evenly from one edge to the edge across.
func (o *Folding) Curve(face string, acrossWidth bool, degrees float64, way Fold) {
	o.Curves = append(o.Curves, Curve{face, acrossWidth, degrees, way})
}

// follow lays the rules on the edges that were found, later ones over earlier,
// and then takes the passes as their edges fold.
func (p finder) follow() {
	for _, r := range p.rules {
		met := false
		for _, f := range p.Faces {
			for i := range f.Edges {
				e := &f.Edges[i]
				if e.Beyond == nil || e.Kind.Open() ||
					!(f.Name == r.a && e.Beyond.Name == r.b || f.Name == r.b && e.Beyond.Name == r.a) {
					continue
				}
				met = true
				if r.line.Kind == Bend {
					e.Kind = Bend
					continue
				}
				e.Turn, e.Via, e.Free, e.Fold = r.line.Turn, r.line.Via, r.line.Free, r.line.Fold
			}
		}
		if !met {
			p.fault("%s has no crease between %s and %s", p.Name, plainName(r.a), plainName(r.b))
		}
	}
	p.curveEnds()
	p.Passes = slices.DeleteFunc(p.Passes, func(s Pass) bool { return p.bent(s) })
	var passes []Pass
	for _, s := range p.Passes {
		passes = append(passes, p.byFold(s)...)
	}
	p.Passes = passes
	p.slitUntold()
	for i, s := range p.Slanted { // as its crease folds, which a rule may have said since
		for _, f := range p.Faces {
			for _, e := range f.Edges {
				if e.Name == s.Name && e.Kind == s.Kind && e.Beyond != nil {
					p.Slanted[i].Fold = e.Fold
				}
			}
		}
	}
}

// slitUntold adds to the slits every cut between two faces that stay which the recipe did not call
// one: whoever cuts it must be told.
func (p finder) slitUntold() {
	var more []Line
	for i, f := range p.Faces {
		for _, e := range f.Edges {
			told := func(l Line) bool { return e.Line.Within(l) }
			if e.Kind == Cut && !f.Waste && e.Beyond != nil && !e.Beyond.Waste && slices.Index(p.Faces, e.Beyond) > i &&
				!slices.ContainsFunc(p.Slits, told) {
				more = append(more, Line{Kind: Cut, A: e.A, B: e.B})
			}
		}
	}
	p.Slits = append(p.Slits, joinUp(more)...)
}

// edgesOn gives the edges between faces that lie along a pass, each once.
func (p finder) edgesOn(s Pass) (out []*Edge) {
	for _, f := range p.Faces {
		for i := range f.Edges {
			e := &f.Edges[i]
			if f.Waste {
				continue
			}
			lies := s.AlongWidth && e.A.X == s.At && e.B.X == s.At && min(e.A.Y, e.B.Y) < s.To && max(e.A.Y, e.B.Y) > s.From ||
				!s.AlongWidth && e.A.Y == s.At && e.B.Y == s.At && min(e.A.X, e.B.X) < s.To && max(e.A.X, e.B.X) > s.From
			if lies && !e.Kind.Open() && e.Beyond != nil {
				out = append(out, e)
			}
		}
	}
	return out
}

// bent takes a pass of which every part only bends among the bends.
func (p finder) bent(s Pass) bool {
	edges := p.edgesOn(s)
	if len(edges) == 0 || slices.ContainsFunc(edges, func(e *Edge) bool { return e.Kind != Bend }) {
		return false
	}
	name := p.nextSlanted()
	for _, e := range edges {
		e.Name = name
	}
	l := edges[0].Line
	l.A, l.B = on(s.AlongWidth, s.At, s.From), on(s.AlongWidth, s.At, s.To)
	p.Slanted = append(p.Slanted, l)
	return true
}

// byFold parts a pass where the way it folds changes: each part is scored its own way, however
// short it is. Where nothing folds, the part before runs on.
func (p finder) byFold(s Pass) []Pass {
	along := func(q Point) Length {
		if s.AlongWidth {
			return q.Y
		}
		return q.X
	}
	edges := slices.DeleteFunc(p.edgesOn(s), func(e *Edge) bool { return e.Beyond.Waste || e.Turn == 0 && e.Free == 0 })
	slices.SortFunc(edges, func(a, b *Edge) int {
		return cmp.Compare(min(along(a.A), along(a.B)), min(along(b.A), along(b.B)))
	})
	s.Fold = Valley
	if len(edges) > 0 {
		s.Fold = edges[0].Fold
	}
	out := []Pass{s}
	for _, e := range edges {
		if from := min(along(e.A), along(e.B)); e.Fold != out[len(out)-1].Fold {
			part := s
			part.From, part.Fold = from, e.Fold
			out[len(out)-1].To = from
			out = append(out, part)
		}
	}
	return out
}

// Seam sticks a strip behind a wall, its own wall's edge meeting that one's: the
// one joint of a tube, which stays when the tube is put away flat.
func (s *Sticking) Seam(strip, from, wall string) {
	s.Glue(strip, wall)
	s.Meet(from, wall)
	s.Role("seam", strip)
}

// Stored reports whether what is glued so stays stuck when the piece is put away flat.
func (s *Sticking) Stored(g Glue) bool { return s.RoleOf(g.Face) == "seam" }

// Over lays a face on the outside of another, layers of card away, without sticking it.
func (s *Sticking) Over(face, on string, layers int) {
	s.Tucks = append(s.Tucks, Glue{Face: face, On: on, Outside: true, Layers: layers})
}

// Forget takes out what the recipe says of faces that were cut away.
func (p *Piece) Forget(gone func(face string) bool) {
	lost := func(g Glue) bool { return gone(g.Face) || gone(g.On) }
	p.Glues, p.Tucks = slices.DeleteFunc(p.Glues, lost), slices.DeleteFunc(p.Tucks, lost)
	p.Meets = slices.DeleteFunc(p.Meets, func(m [2]string) bool { return gone(m[0]) || gone(m[1]) })
	p.rules = slices.DeleteFunc(p.rules, func(r rule) bool { return gone(r.a) || gone(r.b) })
	for i := range p.Order {
		p.Order[i].Faces = slices.DeleteFunc(p.Order[i].Faces, gone)
	}
	p.Order = slices.DeleteFunc(p.Order, func(m Move) bool { return len(m.Faces) == 0 })
}

// Spot is a place on a cell, in halves of it: 0, 0 is its top left corner, 1, 2 the middle of its lower edge.
func (p *Piece) Spot(cell string, across, down int) Point {
	lo, hi := p.Cell(cell)
	part := func(a, b Length, k int) Length { return a + (b-a)*Length(k)/2 }
	return Point{part(lo.X, hi.X, across), part(lo.Y, hi.Y, down)}
}

// Stand says that the piece stands on a cell which is only a part of its floor:
// the middle of the floor, so long and wide, is measured from the cell's corner.
func (p *Piece) Stand(cell string, long, wide Length) {
	lo, _ := p.Cell(cell)
	p.Root, p.Middle = cell, &Point{lo.X + long/2, lo.Y + wide/2}
}

// Split scores (or only bends) a cell along a line, and names the part that
// lies to the left of one who looks from a to b; the rest keeps its name.
func (p *Piece) Split(cell string, kind Kind, a, b Point, left string) {
	if p.cells == nil {
		p.cells = map[string][]Point{}
	}
	whole := p.cells[cell]
	if whole == nil {
		lo, hi := p.Cell(cell)
		whole = []Point{lo, {hi.X, lo.Y}, hi, {lo.X, hi.Y}}
	}
	p.Slant(kind, a, b, 90, Valley)
	p.cells[left], p.cells[cell] = side(whole, a, b), side(whole, b, a)
	p.Label(middle(p.cells[left]), left)
	p.Rename(cell, middle(p.cells[cell]))
}

// side is the part of an outline that lies to the left of a line, seen from a to b with y running down.
func side(outline []Point, a, b Point) []Point {
	off := func(q Point) float64 {
		return (b.X-a.X).MM()*(a.Y-q.Y).MM() - (b.Y-a.Y).MM()*(a.X-q.X).MM()
	}
	return Half(nil, outline, off, func(q, next Point, k float64) Point {
		return Point{q.X + measure.FromMM((next.X-q.X).MM()*k), q.Y + measure.FromMM((next.Y-q.Y).MM()*k)}
	})
}

// Half appends to out the part of a convex outline on one side of a line: side is not negative there, and between
// gives the point so far on the way from one corner to the next at which the line is met.
func Half[P any](out, outline []P, side func(P) float64, between func(a, b P, part float64) P) []P {
	for i, q := range outline {
		next := outline[(i+1)%len(outline)]
		s, t := side(q), side(next)
		if s >= 0 {
			out = append(out, q)
		}
		if s*t < 0 {
			out = append(out, between(q, next, s/(s-t)))
		}
	}
	return out
}

// middle is a place well within an outline that is convex.
func middle(outline []Point) Point {
	if len(outline) < 3 {
		return Point{}
	}
	return (&Face{Points: outline}).Centre()
}
