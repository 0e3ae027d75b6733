package plan

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/bench"
	"brevium/core/box"
	"brevium/core/sheet"
	"brevium/core/words"
)

// Moment is a step of the course in words.
type Moment struct {
	box.Step
	Says string
}

// Course tells how the box comes together, step by step.
func (p *Plan) Course() []Moment {
	var out []Moment
	for _, s := range p.Box.Course() {
		out = append(out, Moment{s, p.tell(s)})
	}
	return out
}

func (p *Plan) tell(s box.Step) string {
	of := ""
	if len(p.Box.Pieces) > 1 && s.Piece != "" {
		of = words.Capital(s.Piece) + ": "
	}
	switch {
	case s.Does == "fill" && len(p.Load.Things) > 0:
		return "Put in " + strings.Join(p.contents(), ", ") + "."
	case s.Does == "fill":
		return "Fill it."
	case s.Does == "put" && p.Box.Piece(s.Piece).Part == sheet.Insert:
		return fmt.Sprintf("Set in the %s.", s.Piece)
	case s.Does == "put":
		return fmt.Sprintf("Stick the %s in its place.", s.Piece)
	case len(s.Faces) == 0 && slices.ContainsFunc(p.Box.Seats, func(seat box.Seat) bool { return seat.Piece == s.Piece }):
		return fmt.Sprintf("Stick the %s on.", s.Piece)
	case len(s.Faces) == 0:
		return fmt.Sprintf("Put the %s on.", s.Piece)
	}
	verb := "Fold up"
	if s.Does == "close" {
		verb = "Close"
	}
	says := fmt.Sprintf("%s%s the %s", of, verb, bench.Names(s.Faces))
	if told := p.Box.Piece(s.Piece).Told[s.Group]; told != "" {
		says = of + words.Capital(told)
	}
	if len(s.Glues) == 0 {
		return says + "."
	}
	var on []string
	seen := map[string]bool{}
	for _, g := range s.Glues {
		if !seen[g.Face] {
			seen[g.Face] = true
			on = append(on, g.Face)
		}
	}
	return says + " and stick the " + bench.Names(on) + "."
}

// together tells how the folded pieces are stuck to each other, and how the
// box is closed.
func (p *Plan) together() (together, closing []string) {
	plain := func(face string) string { return strings.ReplaceAll(face, "-", " ") }
	on := map[[2]string][]string{}
	var order [][2]string
	for _, s := range p.Box.Seats {
		piece := p.Box.Piece(s.Piece)
		if piece.Part == sheet.Insert {
			continue // set in, and told there
		}
		if p.Box.Closes(s.Piece) {
			continue // stuck when the box is filled
		}
		what := s.Piece + "'s " + plain(s.Face)
		if len(piece.Kept()) == 1 {
			what = s.Piece
		}
		key := [2]string{what, s.On}
		if on[key] == nil {
			order = append(order, key)
		}
		on[key] = append(on[key], plain(s.OnFace))
	}
	for _, key := range order {
		together = append(together, fmt.Sprintf("Stick the %s on the %s's %s.", key[0], key[1], bench.Names(on[key])))
	}
	for _, m := range p.Course() {
		if m.Does == "close" {
			closing = append(closing, m.Says)
		}
	}
	return together, closing
}

// contents names what goes in, with how many.
func (p *Plan) contents() (out []string) {
	for _, t := range p.Load.Things {
		out = append(out, fmt.Sprintf("%d × %s", t.Count, t.Name))
	}
	return out
}
