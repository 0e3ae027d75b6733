package draw

import (
	"fmt"
	"slices"

	"brevium/core/assembly"
	"brevium/core/bench"
	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/sets"
	"brevium/draw/pen"
	"brevium/draw/solid"
)

// Step draws one picture of a step: the sheet, the piece or the half-made box as it is at
// that moment, what is done now lit.
func Step(j sets.Job, f bench.Frame, w, h float64) pen.Picture {
	if f.Box >= len(j.Plans) {
		return pen.Picture{}
	}
	p := j.Plans[f.Box]
	switch f.Look {
	case bench.OnSheet:
		if s, c, ok := j.Sheet(int(f.At)); ok {
			return CutSheet(s, CutLook{N: int(f.At), W: w, H: h, Card: c.Card, Step: p.Step, Now: f.N + 1})
		}
		return pen.Picture{}
	case bench.OnBoard:
		for _, c := range p.Guide.Cards {
			if c.Piece == f.Piece && f.N < len(c.Turns) {
				return Board(p, c, f.N)
			}
		}
		return pen.Picture{}
	case bench.Gathered:
		return solid.SetFolded(j.Set, f.At, solid.DefaultView, w, h)
	case bench.Standing:
		return stepStanding(p, f, w, h)
	}
	if piece := p.Box.Piece(f.Piece); piece != nil {
		return stepFlat(p, piece, f, w, h)
	}
	return pen.Picture{}
}

// stepStanding draws what stands at that moment: only what is in hand, larger.
func stepStanding(p *plan.Plan, f bench.Frame, w, h float64) pen.Picture {
	a, c := bench.Stands(p.Box, p.Card.Caliper, f), &pen.Canvas{}
	light := func(b *fold.Body, face string) bool {
		return b.Piece.Name == f.Piece && slices.Contains(f.Lit, face)
	}
	solid.Lit(p, a, fmt.Sprint(f), solid.DefaultView, solid.Whole, fold.Cuts{}, light).Paint(c, solid.DefaultView, w, h, solid.MostSeen)
	return c.Picture("folded step", w, h, f.Says)
}

// stepPiece is a flat piece at a moment of the work.
type stepPiece struct {
	flat
	bench.Frame
	cuts    []bench.Cuts
	outside bool
}

const stepRim = 16.0

// stepFlat draws a piece lying flat, its outside up where the work is there.
func stepFlat(p *plan.Plan, piece *net.Piece, f bench.Frame, w, h float64) pen.Picture {
	outside := f.Look.Side() == "outside"
	k := min((w-2*stepRim)/piece.Width.MM(), (h-2*stepRim)/piece.Height.MM())
	s := stepPiece{flat: flat{Canvas: &pen.Canvas{}, p: p, piece: piece, k: k, x: stepRim, y: stepRim}, Frame: f,
		cuts: bench.CutsOf(piece), outside: outside}
	s.Group("data-piece", piece.Name)
	s.card()
	s.folds()
	s.edges()
	s.now()
	s.End()
	return s.Canvas.Picture("flat step", piece.Width.MM()*k+2*stepRim, piece.Height.MM()*k+2*stepRim, f.Says)
}

// at turns what is seen from outside left for right.
func (s stepPiece) at(p net.Point) (x, y float64) {
	if s.outside {
		p.X = s.piece.Width - p.X
	}
	return s.flat.at(p)
}

func (s stepPiece) ring(rings ...[]net.Point) pen.Path {
	if !s.outside {
		return s.path(&net.Face{Points: rings[0], Holes: rings[1:]})
	}
	turned := make([][]net.Point, len(rings))
	for i, ring := range rings {
		for _, q := range ring {
			turned[i] = append(turned[i], net.Point{X: s.piece.Width - q.X, Y: q.Y})
		}
	}
	return s.path(&net.Face{Points: turned[0], Holes: turned[1:]})
}

func (s stepPiece) face(f *net.Face) pen.Path {
	return s.ring(append([][]net.Point{f.Points}, f.Holes...)...)
}

// done reports whether a place's cuts are made already.
func (s stepPiece) done(n int) bool { return !s.Uncut && (s.Look != bench.Cutting || n < s.N) }

// gone reports whether card that is cut away is off already.
func (s stepPiece) gone(f *net.Face) bool {
	for i, c := range s.cuts {
		if slices.Contains(c.Away, f) {
			return s.done(i)
		}
	}
	return false
}

// slit reports whether a cut between a face and what is beyond is made already.
func (s stepPiece) slit(e net.Edge, f *net.Face) bool {
	for i, c := range s.cuts {
		if slices.ContainsFunc(c.Slits, func(l net.Line) bool { return e.Within(l) }) {
			return s.done(i)
		}
	}
	return !s.Uncut && s.Look != bench.Cutting && !f.Waste && !e.Beyond.Waste
}

func (s stepPiece) card() {
	card := s.p.CardOf(s.piece.Stock)
	fill := card.Inside
	if s.outside {
		fill = card.Colour
	}
	for _, f := range s.piece.Faces {
		if !f.Waste || !s.gone(f) {
			s.Tag("path", "d", s.face(f), "fill", fill, "stroke", fill,
				"fill-rule", "evenodd")
		}
	}
	if s.outside && s.Look == bench.Dressed {
		for _, ring := range layersOn(s.p, s.piece) {
			s.Tag("path", "class", "stuck-face", "d", s.ring(ring))
		}
	}
}

// folds draws the scores, lit when it is they that are worked at.
func (s stepPiece) folds() {
	for _, l := range s.piece.Outline() {
		if l.Kind.Open() {
			continue
		}
		x1, y1 := s.at(l.A)
		x2, y2 := s.at(l.B)
		mountain := (l.Fold == net.Mountain) != s.outside
		switch {
		case l.Kind == net.Bend:
			s.Line("bend", x1, y1, x2, y2)
		case s.Look == bench.Scored && mountain:
			s.Line("ridge-now", x1, y1, x2, y2)
		case s.Look == bench.Scored:
			s.Line("fold-now", x1, y1, x2, y2)
		case mountain:
			s.Line("ridge", x1, y1, x2, y2)
		default:
			s.Line("groove", x1, y1, x2, y2)
			s.Line("groove-floor", x1, y1, x2, y2)
		}
	}
}

// edges draws where the card ends now.
func (s stepPiece) edges() {
	for _, f := range s.piece.Faces {
		if f.Waste && s.gone(f) {
			continue
		}
		for _, e := range f.Edges {
			ends := e.Beyond == nil
			switch {
			case e.Kind == net.Hole:
				ends = f.Waste || s.goneBeyond(e)
			case e.Beyond != nil:
				ends = e.Beyond.Waste && s.gone(e.Beyond) || e.Kind == net.Cut && s.slit(e, f)
			}
			x1, y1 := s.at(e.A)
			x2, y2 := s.at(e.B)
			switch {
			case ends:
				s.Line("card-edge", x1, y1, x2, y2)
			case e.Kind == net.Cut && bench.OnPass(s.piece, e.Line): // scored, and not cut yet
				s.Line("groove", x1, y1, x2, y2)
				s.Line("groove-floor", x1, y1, x2, y2)
			}
		}
		for _, h := range f.Holes {
			s.Tag("path", "class", "card-edge", "d", s.ring(h))
		}
	}
}

func (s stepPiece) goneBeyond(e net.Edge) bool { return e.Beyond == nil || s.gone(e.Beyond) }

// now lights what is done in this picture.
func (s stepPiece) now() {
	switch s.Look {
	case bench.Cutting:
		if s.N < len(s.cuts) {
			s.cutsNow(s.cuts[s.N])
		} else { // its corners are rounded
			s.cutsNow(bench.Cuts{Where: "all around"})
		}
	case bench.Marked:
		for i, m := range s.piece.Marks {
			x, y := s.at(m.At)
			class := "mark"
			if i == s.N {
				class = "mark-now"
			}
			s.Tag("circle", "class", class, "cx", x, "cy", y, "r", max(m.Radius.MM()*s.k, 5))
		}
	case bench.GlueIn, bench.GlueOut:
		s.glue()
	case bench.Finished:
		for _, f := range s.piece.Kept() {
			if len(s.Lit) == 0 || slices.Contains(s.Lit, f.Name) {
				s.Tag("path", "class", "stuck-face", "d", s.face(f), "data-face", f.Name)
			}
		}
	}
}

func (s stepPiece) cutsNow(c bench.Cuts) {
	for _, f := range c.Away {
		s.Tag("path", "class", "away-now", "d", s.face(f), "data-now", "1")
	}
	for _, l := range c.Slits {
		x1, y1 := s.at(l.A)
		x2, y2 := s.at(l.B)
		s.Line("cut-now", x1, y1, x2, y2, "data-now", "1")
	}
	if c.Where == "all around" {
		for _, f := range s.piece.Kept() {
			s.Tag("path", "class", "cut-now", "d", s.ring(f.Points), "data-now", "1")
		}
	}
}

// glue draws the faces that are stuck from this side, and the dots of glue on them.
func (s stepPiece) glue() {
	for _, g := range s.p.Glue().Spreads(s.piece) {
		f := s.piece.Face(g.Face)
		if g.Outside != s.outside || f == nil {
			continue
		}
		class := "stuck-face"
		if g.Taped {
			class = "tape-face"
		}
		s.Tag("path", "class", class, "d", s.face(f), "data-face", g.Face)
		for _, d := range g.Dots {
			x, y := s.at(d)
			s.Tag("circle", "class", "glue-dot", "cx", x, "cy", y, "r", 2.2)
		}
	}
}

// Glue draws a picture of the glue map of one box.
func Glue(p *plan.Plan, f bench.Frame, w, h float64) pen.Picture { return Step(sets.JobOf(p), f, w, h) }

// Made draws the finished box, closed or so far opened.
func Made(p *plan.Plan, lift, w, h float64) pen.Picture {
	return solid.Folded(p, assembly.Pose{Fold: 1, Lift: lift}, solid.DefaultView, w, h)
}
