package box

import (
	"brevium/core/fold"
)

// Pose says how far a box is put together, for a picture of it.
type Pose struct {
	Fold float64 // 0 flat, 1 folded
	Lift float64 // how far lids are taken off: 0 closed, 1 lifted and drawn back
}

// Closed is the finished box.
var Closed = Pose{Fold: 1}

// Assemble folds every piece and puts the pieces together. Glued faces are
// pressed aside once folding is done.
func (b *Box) Assemble(t Length, pose Pose) map[string]*fold.Body {
	bodies := map[string]*fold.Body{}
	for _, p := range b.Pieces {
		body := fold.Up(p, t.MM(), fold.Stage(p, pose.Fold))
		if pose.Fold >= 1 {
			body.Press()
		}
		bodies[p.Name] = body
	}
	for _, l := range b.Lids {
		lid, base := bodies[l.Piece], bodies[l.Over]
		lid.TurnOver()
		lo, hi := fold.Bounds(lid)
		_, rim := fold.Bounds(base)
		// A lid comes up first and then back, so that the inside shows.
		lift := -lo.Z * 1.1 * min(1, 2*pose.Lift)
		back := (hi.Y - lo.Y) * 0.85 * max(0, 2*pose.Lift-1)
		lid.Move(fold.Vec{Y: back, Z: rim.Z + t.MM()/2 + lift})
	}
	return bodies
}

// Prove folds the box, puts it together with its contents and checks it.
func (b *Box) Prove(j *Job, contents []fold.Block) []fold.Check {
	var checks []fold.Check
	for _, p := range b.Pieces {
		body := fold.Folded(p, j.T().MM())
		checks = append(checks, body.Closed()...)
		body.Press()
		checks = append(checks, body.Stuck(j.Adhesive.Width.MM())...)
	}
	bodies := b.Assemble(j.T(), Closed)
	var all []*fold.Body
	for _, p := range b.Pieces {
		all = append(all, bodies[p.Name])
	}
	checks = append(checks, fold.Apart(all...))
	for _, l := range b.Lids {
		checks = append(checks, fold.Clears(bodies[l.Piece], bodies[l.Over]))
	}
	if len(contents) > 0 {
		checks = append(checks, fold.Holds(contents, all...))
	}
	return checks
}
