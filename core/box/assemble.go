package box

import (
	"math"

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
		body := fold.Up(p, t.MM(), fold.Stage(p, pose.Fold))
		if pose.Fold >= 1 {
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
		checks = append(checks, fold.Clears(a.Of(l.Piece), a.Of(l.Over)))
	}
	for _, s := range b.Seats {
		checks = append(checks, fold.Seated(a.Of(s.Piece), s.Face, a.Of(s.On), s.OnFace, width))
	}
	if len(b.Stands) > 0 {
		checks = append(checks, fold.Below(b.Rim.MM(), a.inside()...))
	}
	if len(contents) > 0 {
		checks = append(checks, fold.Holds(contents, len(b.Lids) == 0, a.Bodies...))
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
