package sets

import (
	"fmt"
	"slices"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/readings"
	"brevium/core/style"
	"brevium/core/words"
)

// How the boxes of a set belong together, and whether they do.

func (s *Set) check(holds bool, name, figure string) {
	unit := s.Plans[0].Step.Unit
	s.Checks = append(s.Checks, fold.Check{Name: name, Holds: holds, Figure: plan.InUnit(figure, unit)})
}

// stand finds where each box stands when they are together.
func (s *Set) stand() {
	z, x := 0.0, 0.0
	s.stickBy()
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
		p := s.Plans[i].Under(above)
		s.Plans[i] = p
		for _, c := range readings.Carries(p) {
			if c.Code == "stack" && !c.Holds {
				s.Warn(brief.Warning{Code: "weak-stack", Text: fmt.Sprintf("The %s: %s This is a guide, not a promise.",
					s.Names[i], c.Text), Fix: "Roll its walls, use thicker card for it, or put less on top."})
			}
		}
		above += p.Load.Grams() + advice.Grams(p)
	}
}

// sidesOf are the sides of the first box that others are stuck to, in turn.
var sidesOf = []string{"left", "right", "front", "back"}

// beside is where a box stands at a side of the first.
func (s *Set) beside(i int) fold.Vec {
	if i == 0 {
		return fold.Vec{}
	}
	a, o := s.Plans[0].Box.Outside, s.turned(i)
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
		s.Warn(brief.Warning{Code: "heavy-on-top", Text: fmt.Sprintf("The %s holds %.0f g, but it stands on the %s, "+
			"which holds %.0f g.",
			s.Names[i], b, s.Names[i-1], a), Fix: "Put the heaviest at the bottom."})
	}
}

func (s *Set) nested(i int) {
	in, out := s.Plans[i-1].Box.Outside, s.Plans[i].Box.Inside
	x, y, z := (out.Length - in.Length).MM(), (out.Width - in.Width).MM(), (out.Depth - in.Depth).MM()
	holds := min(x, y, z) >= 0.05 && s.Plans[i].Box.Above == fold.Flat
	figure := fmt.Sprintf("%.1f mm, %.1f mm and %.1f mm of air", max(0, x), max(0, y), max(0, z))
	if min(x, y, z) < 0.05 {
		figure = fmt.Sprintf("it is %.1f mm too small", 0.05-min(x, y, z))
	}
	s.check(holds, fmt.Sprintf("the %s goes into the %s with its lid on", s.Names[i-1], s.Names[i]), figure)
}

// clustered checks that a box at a side of the first leaves what opens it free, and is stuck by a side that
// stays still, turned as it must.
func (s *Set) clustered(i int) {
	side := sidesOf[(i-1)%4]
	name := fmt.Sprintf("the %s at its %s leaves the %s free to open", s.Names[i], side, s.Names[0])
	if i > len(sidesOf) {
		s.check(false, name, "a box has four sides")
		return
	}
	first := s.Plans[0].Box.Flank(s.Plans[0].Card.Caliper, side)
	high := s.Plans[i].Box.Outside.Depth.MM()
	wall, long := alongSide(s.Plans[0].Box.Outside, side), alongSide(s.turned(i), side)
	switch {
	case first.Drawn:
		s.check(false, name, "it opens to that side")
	case high > first.Still+0.05:
		s.check(false, name, fmt.Sprintf("it is %.1f mm high, and the %s, which moves, begins at %.1f mm", high, first.Over,
			first.Still))
	case long > wall:
		s.check(false, name, fmt.Sprintf("it is %.1f mm longer than that side", (long-wall).MM()))
	default:
		s.check(true, name, fmt.Sprintf("%.1f mm below what opens", min(first.Still-high, 999)))
	}
	if why := s.sticks[i].why; why != "" {
		s.check(false, fmt.Sprintf("the %s can be opened beside the %s", s.Names[i], s.Names[0]),
			"no side of it stays still to be stuck: "+why+". Make it an open tray, or one that opens another way")
	}
}

// alongSide is how long a side of a box is.
func alongSide(d style.Dims, side string) measure.Length {
	if side == "left" || side == "right" {
		return d.Width
	}
	return d.Length
}

// stuck is how a box of a cluster is stuck to the first: by which of its sides, turned by so many quarters
// against the clock; why says that no side will do.
type stuck struct {
	by       string
	quarters int
	why      string
}

// against are the sides in turn, against the clock as seen from above.
var against = []string{"front", "right", "back", "left"}

// stickBy finds, for each box of a cluster, the side it is stuck by: the one that looks at the first as it
// is or, where that moves, another that stays still.
func (s *Set) stickBy() {
	s.sticks = make([]stuck, len(s.Plans))
	for i := 1; i < len(s.Plans) && s.Kind == "cluster"; i++ {
		side := sidesOf[(i-1)%4]
		meets := (slices.Index(against, side) + 2) % 4
		wall := alongSide(s.Plans[0].Box.Outside, side)
		found := false
		var whys []string
		for _, quarters := range []int{0, 2, 1, 3} {
			by := against[(meets-quarters+4)%4]
			flank := s.Plans[i].Box.Flank(s.Plans[i].Card.Caliper, by)
			why := ""
			switch {
			case flank.Drawn:
				why = "it opens at one side"
			case flank.Over != "":
				why = fmt.Sprintf("its %s opens there", flank.Over)
			case !flank.Bare:
				why = fmt.Sprintf("too little of its %s is level", by)
			}
			switch {
			case why != "":
				whys = append(whys, why)
			case !found || alongSide(s.Plans[i].Box.Outside, by) <= wall:
				if better := alongSide(s.Plans[i].Box.Outside, s.sticks[i].by) > wall; !found || better {
					s.sticks[i], found = stuck{by: by, quarters: quarters}, true
				}
			}
		}
		if !found {
			slices.Sort(whys)
			s.sticks[i] = stuck{by: against[meets], why: words.List(slices.Compact(whys))}
		}
	}
}

// turned is the outside of a box as it stands in the set.
func (s *Set) turned(i int) style.Dims {
	d := s.Plans[i].Box.Outside
	if s.sticks[i].quarters%2 == 1 {
		d.Length, d.Width = d.Width, d.Length
	}
	return d
}

// atSide tells where a box of a cluster is stuck, and by which side.
func (s *Set) atSide(i int) string {
	at := fmt.Sprintf("to the %s of the %s", sidesOf[(i-1)%4], s.Names[0])
	if s.sticks[i].quarters != 0 {
		at += ", by its " + s.sticks[i].by
	}
	return at
}
