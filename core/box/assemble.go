package box

import (
	"math"
	"slices"
	"strings"

	"brevium/core/fold"
	"brevium/core/sheet"
)

// Pose says how far a box is put together, for a picture of it.
type Pose struct {
	Fold float64 // 0 flat, 1 folded
	Lift float64 // how far lids are taken off: 0 closed, 1 lifted and drawn back
}

// Closed is the finished box.
var Closed = Pose{Fold: 1}

// Assembly is the pieces in their places.
type Assembly struct {
	Bodies []*fold.Body
	first  map[string]*fold.Body
}

// Of gives the body of a piece, the first of several alike.
func (a Assembly) Of(piece string) *fold.Body { return a.first[piece] }

// Assemble folds every piece and puts the pieces together. Glued faces are
// pressed aside once folding is done; what goes inside is put there then.
func (b *Box) Assemble(t Length, pose Pose) Assembly {
	a := Assembly{first: map[string]*fold.Body{}}
	add := func(p *sheet.Piece) *fold.Body {
		body := fold.Up(p, t.MM(), b.opened(fold.Stage(p, pose.Fold), pose))
		if pose.Fold >= 1 && (pose.Lift == 0 || len(b.Opens) == 0) {
			body.Press()
		}
		a.Bodies = append(a.Bodies, body)
		if a.first[p.Name] == nil {
			a.first[p.Name] = body
		}
		return body
	}
	for _, p := range b.Pieces {
		if p.Part != sheet.Insert {
			add(p)
		}
	}
	if pose.Fold >= 1 {
		for _, s := range b.Stands {
			s.put(add(b.Piece(s.Piece)))
		}
	}
	for _, s := range b.Slides {
		// The drawer stays where its contents are; the sleeve goes round it,
		// flush at the left, and is drawn off to the right.
		drawer, sleeve := a.Of(s.Piece), a.Of(s.Into)
		lo, hi := fold.Bounds(drawer)
		outer, _ := fold.Bounds(sleeve)
		sleeve.Move(fold.Vec{X: lo.X - outer.X + (hi.X-lo.X)*0.72*pose.Lift, Z: -t.MM()})
	}
	for _, l := range b.Lids {
		lid, base := a.Of(l.Piece), a.Of(l.Over)
		lid.Turn(fold.Vec{X: 1}, math.Pi)
		lo, hi := fold.Bounds(lid)
		_, rim := fold.Bounds(base)
		// A lid comes up first and then back, so that the inside shows.
		lift := -lo.Z * 1.1 * min(1, 2*pose.Lift)
		back := (hi.Y - lo.Y) * 0.85 * max(0, 2*pose.Lift-1)
		lid.Move(fold.Vec{Y: back, Z: rim.Z + t.MM()/2 + lift})
	}
	return a
}

// opened folds the faces that open the box back again, by how far it is open.
func (b *Box) opened(done func(string) float64, pose Pose) func(string) float64 {
	if pose.Lift == 0 || len(b.Opens) == 0 {
		return done
	}
	return func(face string) float64 {
		if i := slices.Index(b.Opens, face); i >= 0 {
			return done(face) * (1 - 0.62*pose.Lift)
		}
		return done(face)
	}
}

func (s Stand) put(body *fold.Body) {
	if s.Upright {
		body.Turn(fold.Vec{X: 1}, math.Pi/2)
		lo, _ := fold.Bounds(body)
		body.Move(fold.Vec{Z: -lo.Z})
	}
	if s.Quarter {
		body.Turn(fold.Vec{Z: 1}, math.Pi/2)
	}
	body.Move(s.At)
}

// Prove folds the box, puts it together with its contents and checks it.
func (b *Box) Prove(j *Job, contents []fold.Block) []fold.Check {
	var checks []fold.Check
	width := j.Adhesive.Width.MM()
	for _, p := range b.Pieces {
		body := fold.Folded(p, j.T().MM())
		checks = append(checks, body.Closed()...)
		body.Press()
		checks = append(checks, body.Stuck(width)...)
	}
	a := b.Assemble(j.T(), Closed)
	checks = append(checks, fold.Apart(a.Bodies...))
	for _, l := range b.Lids {
		checks = append(checks, fold.Clears(a.Of(l.Piece), a.Of(l.Over), "left", "right", "front", "back"))
	}
	for _, c := range b.Caps {
		of := func(name string) bool { return strings.HasPrefix(name, c.Faces) }
		body := a.Of(c.Piece)
		checks = append(checks, fold.Clears(body.Part(c.Faces, of), body.Part("base", func(n string) bool { return !of(n) }), c.Sides...))
	}
	for _, s := range b.Slides {
		checks = append(checks, fold.Clears(a.Of(s.Into), a.Of(s.Piece), "front", "back"))
	}
	for _, s := range b.Seats {
		checks = append(checks, fold.Seated(a.Of(s.Piece), s.Face, a.Of(s.On), s.OnFace, width))
	}
	if len(b.Stands) > 0 {
		checks = append(checks, fold.Below(b.Rim.MM(), a.inside()...))
	}
	if len(contents) > 0 {
		checks = append(checks, fold.Holds(contents, b.OpenTop, a.Bodies...))
	}
	return checks
}

// inside gives the bodies of the pieces that go inside.
func (a Assembly) inside() (out []*fold.Body) {
	for _, body := range a.Bodies {
		if body.Piece.Part == sheet.Insert {
			out = append(out, body)
		}
	}
	return out
}
