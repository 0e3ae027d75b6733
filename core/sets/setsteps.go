package sets

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/assembly"
	"brevium/core/bench"
	"brevium/core/fold"
	"brevium/core/plan"
	"brevium/core/readings"
	"brevium/core/words"
)

// The work on a set: all boxes at once, and how they come together.

// Cards are the score cards of all boxes, each piece under the name of its box.
func (s *Set) Cards() (out []bench.ScoreCard) {
	for i, p := range s.Plans {
		for _, c := range p.Guide.Cards {
			c.Piece = s.Names[i] + ": " + c.Piece
			out = append(out, c)
		}
	}
	return out
}

// Steps is the work on all boxes at once: all are cut, then all bases are scored,
// all lids, and so on, and last they are put together.
func (s *Set) Steps() (out []bench.Step) {
	for _, title := range s.titles() {
		step := bench.Step{ID: words.Small(title), Title: title, Count: 1}
		most := 0
		var each [][]string
		for _, p := range s.Plans {
			of := bench.Grouped(p.Guide.Steps)
			i := slices.IndexFunc(of, func(o bench.Step) bool { return o.Title == title })
			if i < 0 {
				each = append(each, nil)
				continue
			}
			for _, c := range of[i].Cautions {
				if !slices.Contains(step.Cautions, c) {
					step.Cautions = append(step.Cautions, c)
				}
			}
			each, most = append(each, of[i].Says), max(most, len(of[i].Says))
			step.Minutes, step.Check, step.Fails = step.Minutes+of[i].Minutes, of[i].Check, of[i].Fails
		}
		for k := range most {
			step.Says = append(step.Says, s.each(each, k)...)
		}
		if title == "Trim" {
			step.Says = []string{fmt.Sprintf("From %d %s, cut the pieces of all %d boxes together, in the order shown under Sheets.",
				s.Sheets(), map[bool]string{true: "sheet", false: "sheets"}[s.Sheets() == 1], len(s.Plans))}
		}
		if len(step.Says) > 0 {
			out = append(out, step)
		}
	}
	if last := s.together(); last != "" {
		out = append(out, bench.Step{ID: "set", Title: "Put them together", Count: 1, Says: []string{last}})
	}
	return out
}

// each gives the kth sentence of a step for every box that has one; once, when it is the same for all.
func (s *Set) each(says [][]string, k int) (out []string) {
	same := true
	for _, of := range says {
		same = same && k < len(of) && of[k] == says[0][min(k, len(says[0])-1)]
	}
	for i, of := range says {
		switch {
		case k >= len(of):
		case same && of[k] == "Inside face up.":
			return []string{of[k]}
		case same:
			return []string{fmt.Sprintf("All %d: %s", len(says), words.Small(of[k]))}
		default:
			out = append(out, words.Capital(s.Names[i])+": "+words.Small(of[k]))
		}
	}
	return out
}

// together tells how the boxes come to each other.
func (s *Set) together() string {
	var says []string
	for i := 1; i < len(s.Names); i++ {
		switch s.Kind {
		case "stack":
			says = append(says, fmt.Sprintf("Set the %s on the %s and hold it with a dot, a ribbon or a little tape.", s.Names[i],
				s.Names[i-1]))
		case "nest":
			says = append(says, fmt.Sprintf("Put the %s, with its lid on, into the %s.", s.Names[i-1], s.Names[i]))
		case "cluster":
			says = append(says, fmt.Sprintf("Stick the %s %s, level with the table.", s.Names[i], s.atSide(i)))
		}
	}
	return strings.Join(says, " ")
}

// Supplies lists what to lay out before beginning on all of them: what the boxes have
// in common once, the rest under their names.
func (s *Set) Supplies() (out []string) {
	for _, l := range s.Layouts {
		out = append(out, fmt.Sprintf("%d of %s: %s", len(l.Sheets), l.Sheet.Title, l.Card.Title))
	}
	for i, p := range s.Plans {
		for _, says := range readings.Supplies(p)[len(p.Cuts):] { // the first are its own sheets
			all := !slices.ContainsFunc(s.Plans, func(o *plan.Plan) bool { return !slices.Contains(readings.Supplies(o), says) })
			if !all {
				says = "for the " + s.Names[i] + ": " + says
			}
			if !slices.Contains(out, says) {
				out = append(out, says)
			}
		}
	}
	return out
}

// Course tells how the boxes come together, a step for each but the first.
func (s *Set) Course() (out []string) {
	for i := 1; i < len(s.Names); i++ {
		out = append(out, map[string]string{
			"stack":      fmt.Sprintf("Set the %s on the %s.", s.Names[i], s.Names[i-1]),
			"nest":       fmt.Sprintf("Put everything so far into the %s.", s.Names[i]),
			"cluster":    fmt.Sprintf("Stick the %s %s.", s.Names[i], s.atSide(i)),
			"companions": fmt.Sprintf("Set the %s beside them.", s.Names[i]),
		}[s.Kind])
	}
	return out
}

// Standing gives every box closed, when so many steps of the course are done: those
// that have not come yet stand in a row beside the first.
func (s *Set) Standing(done float64) (out []assembly.Standing) {
	x := 0.0
	for i, p := range s.Plans {
		o := p.Box.Outside
		if i > 0 {
			x += (s.Plans[i-1].Box.Outside.Length+o.Length).MM()/2 + 18
		}
		st := p.Box.Assemble(p.Card.Caliper, assembly.Closed)
		come := min(1, max(0, done-float64(i-1)))
		if s.Kind == "nest" && i == 0 {
			come = min(1, done)
		}
		at := s.Places[i].Times(come).Add(fold.Vec{X: x}.Times(1 - come))
		at.Z += p.Box.Foot
		if i > 0 { // over what is between
			at.Z += 4 * come * (1 - come) * o.Depth.MM()
		}
		for _, b := range st.Bodies {
			b.Turn(fold.Vec{Z: 1}, math.Pi/2*come*float64(s.sticks[i].quarters))
			b.Move(at)
		}
		out = append(out, st)
	}
	return out
}
