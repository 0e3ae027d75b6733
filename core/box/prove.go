package box

import (
	"slices"
	"strings"

	"brevium/core/fold"
	"brevium/core/sheet"
)

// Prove folds the box, puts it together with its contents and checks it.
func (b *Box) Prove(j *Job, contents []fold.Block) []fold.Check {
	checks := slices.Clone(b.Claims)
	width := j.Adhesive.Width.MM()
	for _, p := range b.Pieces {
		body := fold.Folded(p, j.T().MM())
		checks = append(checks, body.Closed()...)
		body.Press(nil)
		checks = append(append(checks, body.Stuck(width)...), body.Tucked()...)
	}
	a := b.Assemble(j.T(), Closed)
	for _, l := range b.Lids {
		checks = append(checks, fold.Clears(a.Of(l.Piece), a.Of(l.Over), "left", "right", "front", "back"))
	}
	for _, m := range b.Mounts {
		if len(m.Clears) > 0 {
			checks = append(checks, fold.Clears(a.Of(m.Piece), a.Of(m.On), m.Clears...))
		}
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
		checks = append(checks, fold.Seated(a.Of(s.Piece), s.Face, a.Of(s.On), s.OnFace, width, s.Lapped))
	}
	checks = append(checks, fold.Apart(a.Bodies...))
	if len(b.Stands) > 0 {
		checks = append(checks, fold.Below(b.Rim.MM(), a.inside()...))
	}
	if len(contents) > 0 {
		checks = append(checks, fold.Holds(contents, b.OpenTop || b.Peaked, a.Bodies...))
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
