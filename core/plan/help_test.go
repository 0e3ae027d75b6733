package plan

import (
	"brevium/core/box"
	"brevium/core/brief"
	"brevium/core/fit"
	"brevium/core/sheet"
)

// jobOf makes the job of a plan again, to prove a box that a test has spoilt.
func jobOf(p *Plan) *box.Job {
	b := p.Brief
	return &box.Job{Reader: brief.NewReader(&b), Card: p.Card, Adhesive: p.Adhesive, Slack: fit.Slack["snug"], Options: b.Box.Options}
}

// cleanStrip is a strip of the same size without its slots.
func cleanStrip(s *sheet.Piece) *sheet.Piece {
	p := sheet.New(s.Name, s.Width, s.Height)
	p.Part, p.Count, p.Root = s.Part, s.Count, s.Root
	p.Label(sheet.Point{X: 1000, Y: 1000}, "strip")
	return p
}
