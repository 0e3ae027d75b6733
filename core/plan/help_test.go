package plan_test

import (
	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/style"
)

// suit makes a random size one that the style can have: an arch is half as high as
// it is wide, and more.
func suit(b *brief.Brief, s *style.Style) {
	if s.ID == "arched-box" {
		l, _ := measure.Parse(string(b.Size.Length), measure.Millimetres)
		d, _ := measure.Parse(string(b.Size.Depth), measure.Millimetres)
		b.Size.Depth = brief.Text((d + l/2).Exact(measure.Millimetres))
	}
}

// proved proves the box of a plan again, after a test has spoilt it.
func proved(p *plan.Plan) string {
	return assembly.Said(p.Box.Prove(assembly.Means{T: p.Card.Caliper, Width: p.Adhesive.Width, Proud: p.Room.Proud},
		p.Blocks))
}

// cleanStrip is a strip of the same size without its slots.
func cleanStrip(s *net.Piece) *net.Piece {
	p := net.New(s.Name, s.Width, s.Height)
	p.Part, p.Count, p.Root = s.Part, s.Count, s.Root
	p.Label(net.Point{X: 1000, Y: 1000}, "strip")
	return p
}
