package box

import (
	"math"
	"slices"

	"brevium/core/fold"
	"brevium/core/sheet"
)

// Pose says how far a box is put together, for a picture of it.
type Pose struct {
	Fold float64 // how much of the course is done: 0 flat on the table, 1 closed
	Lift float64 // how far it is opened again: 0 closed, 1 open
}

// Closed is the finished box.
var Closed = Pose{Fold: 1}

// Assembly is the pieces in their places.
type Assembly struct {
	Bodies []*fold.Body
	Filled bool // the contents are in
	first  map[string]*fold.Body
}

// Of gives the body of a piece, the first of several alike.
func (a Assembly) Of(piece string) *fold.Body { return a.first[piece] }

// Assemble folds the pieces and puts them together, as far as the pose says.
func (b *Box) Assemble(t Length, pose Pose) Assembly {
	if pose.Fold >= 1 {
		return b.together(t, pose, progress{})
	}
	return b.After(t, pose.Fold*float64(len(b.Course())))
}

// After gives the box when so many steps of its course are done.
func (b *Box) After(t Length, steps float64) Assembly {
	pr := b.at(steps)
	a := b.together(t, Closed, pr)
	goal := b.together(t, Closed, progress{})
	asCut := func(p *sheet.Piece) (left, right float64) {
		lo, hi := fold.Bounds(fold.Up(p, t.MM(), func(string) float64 { return 0 }))
		return lo.X, hi.X
	}
	_, x := asCut(b.Piece(b.Holder))
	for i, body := range a.Bodies {
		part := pr.put[body.Piece.Name]
		if body.Piece.Name == b.Holder {
			continue
		}
		// Apart, pieces lie in a row beside the holder, which stays.
		apart := fold.Folded(body.Piece, t.MM())
		left, right := asCut(body.Piece)
		spot := fold.Vec{X: x + 20 - left}
		x += 20 + right - left
		apart.Move(spot)
		body.Move(spot)
		if part > 0 {
			lo, hi := fold.Bounds(goal.Bodies[i])
			body.Carry(fold.Way(apart, goal.Bodies[i]), part, hi.Z-lo.Z+40)
		}
	}
	return a
}

// together puts folded pieces in their places. With a progress, pieces are
// folded only so far, and lie where they were folded.
func (b *Box) together(t Length, pose Pose, pr progress) Assembly {
	a := Assembly{first: map[string]*fold.Body{}, Filled: pr.folded == nil || pr.filled}
	for _, p := range b.Pieces {
		if p.Part != sheet.Insert {
			a.add(b.body(p, t, pose, pr))
		}
	}
	for _, s := range b.Stands {
		body := b.body(b.Piece(s.Piece), t, pose, pr)
		if pr.folded == nil {
			s.put(body)
		}
		a.add(body)
	}
	if pr.folded != nil {
		return a
	}
	b.mount(a, pose)
	b.slide(a, t, pose)
	for _, l := range b.Lids {
		lid, base := a.Of(l.Piece), a.Of(l.Over)
		lid.Turn(fold.Vec{X: 1}, math.Pi)
		_, rim := fold.Bounds(base)
		lid.Move(fold.Vec{Z: rim.Z + t.MM()/2})
		lift(lid, pose)
	}
	return a
}

// lift takes a lid off: up first and then back, so that the inside shows.
func lift(lid *fold.Body, pose Pose) {
	lo, hi := fold.Bounds(lid)
	lid.Move(fold.Vec{Y: (hi.Y - lo.Y) * 0.85 * max(0, 2*pose.Lift-1), Z: (hi.Z - lo.Z) * 1.1 * min(1, 2*pose.Lift)})
}

func (a *Assembly) add(body *fold.Body) {
	a.Bodies = append(a.Bodies, body)
	if a.first[body.Piece.Name] == nil {
		a.first[body.Piece.Name] = body
	}
}

// body folds one piece and, once it is folded, presses what is stuck or tucked
// aside.
func (b *Box) body(p *sheet.Piece, t Length, pose Pose, pr progress) *fold.Body {
	done := func(string) float64 { return 1 }
	if pr.folded != nil {
		done = pr.of(p)
	}
	open := pose.Lift > 0 && p.Name == b.hinged() && len(b.Opens) > 0
	body := fold.Up(p, t.MM(), b.opened(done, open, pose))
	if pr.folded == nil || pr.finished(p.Name) {
		body.Press(func(face, on string) bool {
			return !open || slices.Contains(b.Opens, face) == slices.Contains(b.Opens, on)
		})
	}
	return body
}

// opened folds the faces that open the box back again, by how far it is open.
func (b *Box) opened(done func(string) float64, open bool, pose Pose) func(string) float64 {
	if !open {
		return done
	}
	by := b.OpenBy
	if by == 0 {
		by = 0.62
	}
	return func(face string) float64 {
		if slices.Contains(b.Opens, face) {
			return done(face) * (1 - by*pose.Lift)
		}
		return done(face)
	}
}

func (b *Box) mount(a Assembly, pose Pose) {
	for _, m := range b.Mounts {
		body, on := a.Of(m.Piece), a.Of(m.On)
		face, wall := body.Find(m.Face), on.Find(m.OnFace)
		if face == nil || wall == nil {
			continue // the proof says what is missing
		}
		body.Carry(fold.Onto(face, wall, m.Right.MM(), m.Down.MM(), m.Out.MM()), 1, 0)
		switch m.Closes {
		case "up":
			lift(body, pose)
		case "side":
			lo, hi := fold.Bounds(on)
			body.Move(fold.Vec{X: (hi.X - lo.X) * pose.Lift})
		}
	}
}

// slide puts each sleeve round its drawer, flush at the left: the drawer stays
// where its contents are, and the sleeve is drawn off to the right.
func (b *Box) slide(a Assembly, t Length, pose Pose) {
	for _, s := range b.Slides {
		drawer, sleeve := a.Of(s.Piece), a.Of(s.Into)
		lo, hi := fold.Bounds(drawer)
		outer, _ := fold.Bounds(sleeve)
		sleeve.Move(fold.Vec{X: lo.X - outer.X + (hi.X-lo.X)*0.72*pose.Lift, Z: -t.MM()})
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
