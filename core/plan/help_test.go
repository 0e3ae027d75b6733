package plan_test

import (
	"brevium/core/net"
)

// cleanStrip is a strip of the same size without its slots.
func cleanStrip(s *net.Piece) *net.Piece {
	p := net.New(s.Name, s.Width, s.Height)
	p.Part, p.Count, p.Root = s.Part, s.Count, s.Root
	p.Label(net.Point{X: 1000, Y: 1000}, "strip")
	return p
}
