package plan

import (
	"fmt"

	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/measure"
)

// How the boxes of a set belong together, and whether they do.

func (s *Set) check(holds bool, name, figure string) {
	unit := s.Plans[0].Step.Unit
	s.Checks = append(s.Checks, fold.Check{Name: name, Holds: holds, Figure: inUnit(figure, unit)})
}

// stand finds where each box stands when they are together.
func (s *Set) stand() {
	z, x := 0.0, 0.0
	for i, p := range s.Plans {
		o := p.Box.Outside
		at := fold.Vec{}
		switch s.Kind {
		case "stack":
			at.Z = z
			z += o.Depth.MM() + 0.1
		case "nest":
			at.Z = z
		case "cluster":
			at = s.beside(i)
		default:
			if i > 0 {
				x += (s.Plans[i-1].Box.Outside.Length+o.Length).MM()/2 + 18
			}
			at.X = x
		}
		s.Places = append(s.Places, at)
	}
	if s.Kind == "nest" { // each stands on the floor of the next
		for i := len(s.Plans) - 2; i >= 0; i-- {
			out := s.Plans[i+1].Box
			s.Places[i].Z = s.Places[i+1].Z + out.Foot + out.Lo.Z
		}
	}
}

// loads reckons what stands on each box of a stack, and whether it bears that.
func (s *Set) loads() {
	if s.Kind != "stack" {
		return
	}
	above := 0.0
	for i := len(s.Plans) - 1; i >= 0; i-- {
		p := s.Plans[i]
		if p.LoadAbove = above; above > 0 {
			p.Carries = p.carries()
		}
		for _, c := range p.Carries {
			if c.Code == "stack" && !c.Holds {
				s.Warn(brief.Warning{Code: "weak-stack", Text: fmt.Sprintf("The %s: %s That is a guide, not a promise.",
					s.Names[i], c.Text),
					Fix: "Roll its walls, take heavier card for it, or put less above it."})
			}
		}
		above += p.Load.Grams() + p.grams()
	}
}

// sidesOf are the sides of the first box that others are stuck to, in turn.
var sidesOf = []string{"left", "right", "front", "back"}

// beside is where a box stands at a side of the first.
func (s *Set) beside(i int) fold.Vec {
	if i == 0 {
		return fold.Vec{}
	}
	a, o := s.Plans[0].Box.Outside, s.Plans[i].Box.Outside
	x, y := (a.Length+o.Length).MM()/2, (a.Width+o.Width).MM()/2
	return map[string]fold.Vec{"left": {X: -x}, "right": {X: x}, "front": {Y: -y}, "back": {Y: y}}[sidesOf[(i-1)%4]]
}

// belong checks that the boxes go together as the set says.
func (s *Set) belong() {
	for i := 1; i < len(s.Plans); i++ {
		switch s.Kind {
		case "stack":
			s.stacked(i)
		case "nest":
			s.nested(i)
		case "cluster":
			s.clustered(i)
		}
	}
}

func (s *Set) stacked(i int) {
	low, up := s.Plans[i-1], s.Plans[i]
	x, y := (low.Box.Outside.Length-up.Box.Outside.Length).MM()/2, (low.Box.Outside.Width-up.Box.Outside.Width).MM()/2
	level := low.Box.Above == fold.Flat
	figure := fmt.Sprintf("%.1f mm and %.1f mm inside its edges", max(0, x), max(0, y))
	switch {
	case !level:
		figure = fmt.Sprintf("the %s has no level top to stand on", s.Names[i-1])
	case min(x, y) < -0.05:
		figure = fmt.Sprintf("it stands out by %.1f mm on either side", -min(x, y))
	}
	s.check(level && min(x, y) >= -0.05, fmt.Sprintf("the %s stands on the %s", s.Names[i], s.Names[i-1]), figure)
	if a, b := low.Load.Grams(), up.Load.Grams(); b > a && a > 0 {
		s.Warn(brief.Warning{Code: "heavy-on-top", Text: fmt.Sprintf("The %s holds %.0f g and stands on the %s, which holds %.0f g.",
			s.Names[i], b, s.Names[i-1], a), Fix: "Put the heaviest lowest: change what goes in which."})
	}
}

func (s *Set) nested(i int) {
	in, out := s.Plans[i-1].Box.Outside, s.Plans[i].Box.Inside
	x, y, z := (out.Length - in.Length).MM(), (out.Width - in.Width).MM(), (out.Depth - in.Depth).MM()
	holds := min(x, y, z) >= 0.05 && s.Plans[i].Box.Above == fold.Flat
	figure := fmt.Sprintf("%.1f mm, %.1f mm and %.1f mm of air", max(0, x), max(0, y), max(0, z))
	if min(x, y, z) < 0.05 {
		figure = fmt.Sprintf("%.1f mm are missing", 0.05-min(x, y, z))
	}
	s.check(holds, fmt.Sprintf("the %s goes into the %s with its lid on", s.Names[i-1], s.Names[i]), figure)
}

// clustered checks that a box at a side of the first leaves what opens it free, and
// can be opened itself.
func (s *Set) clustered(i int) {
	side := sidesOf[(i-1)%4]
	name := fmt.Sprintf("the %s at its %s leaves the %s free to open", s.Names[i], side, s.Names[0])
	if i > len(sidesOf) {
		s.check(false, name, "a box has four sides")
		return
	}
	first, other := s.Plans[0].Box, s.Plans[i].Box
	low, far := first.OpensFrom(s.Plans[0].Card.Caliper, side)
	high := other.Outside.Depth.MM()
	wall := map[bool]measure.Length{true: first.Outside.Width, false: first.Outside.Length}[side == "left" ||
		side == "right"]
	long := map[bool]measure.Length{true: other.Outside.Width, false: other.Outside.Length}[side == "left" ||
		side == "right"]
	switch {
	case far:
		s.check(false, name, "it is drawn off to that side")
	case high > low+0.05:
		s.check(false, name, fmt.Sprintf("it is %.1f mm high, and what opens begins at %.1f mm", high, low))
	case long > wall:
		s.check(false, name, fmt.Sprintf("it is %.1f mm longer than that side", (long-wall).MM()))
	default:
		s.check(true, name, fmt.Sprintf("%.1f mm below what opens", min(low-high, 999)))
	}
	back := map[string]string{"left": "right", "right": "left", "front": "back", "back": "front"}[side]
	if lid, drawn := other.OpensFrom(s.Plans[i].Card.Caliper, back); drawn || lid < high-0.05 {
		s.check(false, fmt.Sprintf("the %s can be opened beside the %s", s.Names[i], s.Names[0]),
			"its lid goes over the wall that is stuck: make it an open tray, or one that opens another way")
	}
}
