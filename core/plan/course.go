package plan

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/assembly"
	"brevium/core/sheet"
	"brevium/core/words"
)

// Moment is a step of the course in words.
type Moment struct {
	assembly.Step
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

func (p *Plan) tell(s assembly.Step) string {
	of := ""
	if len(p.Box.Pieces()) > 1 && s.Piece != nil {
		of = words.Capital(s.Piece.Name) + ": "
	}
	switch {
	case s.Does == "fill" && len(p.Load.Things) > 0:
		return "Put in " + strings.Join(p.contents(), ", ") + "."
	case s.Does == "fill":
		return "Fill it."
	case s.Does == "put" && s.Piece.Part == sheet.Insert:
		return fmt.Sprintf("Set in the %s.", s.Piece.Name)
	case s.Does == "put":
		return fmt.Sprintf("Stick the %s in its place.", s.Piece.Name)
	case len(s.Faces) == 0 && p.sticks(s.Part):
		return fmt.Sprintf("Stick the %s on.", s.Piece.Name)
	case len(s.Faces) == 0:
		return fmt.Sprintf("Put the %s on.", s.Piece.Name)
	}
	verb := "Fold up"
	if s.Does == "close" {
		verb = "Close"
	}
	says := fmt.Sprintf("%s%s the %s", of, verb, s.Piece.Names(s.Faces))
	if told := s.Piece.Order[s.Move].Told; told != "" {
		says = of + words.Capital(told)
	}
	var on []string
	for _, g := range s.Glues {
		if !slices.Contains(on, g.Face) {
			on = append(on, g.Face)
		}
	}
	if len(on) == 0 {
		return says + "."
	}
	return says + " and stick the " + s.Piece.Names(on) + "."
}

// sticks says whether a part is stuck to another.
func (p *Plan) sticks(part string) bool {
	return slices.ContainsFunc(p.Box.Joins, func(j assembly.Join) bool { return j.Stuck && strings.HasPrefix(j.A, part+"/") })
}

// together tells how the folded pieces are stuck to each other, and how the
// box is closed.
func (p *Plan) together() (together, closing []string) {
	type stuck struct{ what, on string }
	on := map[stuck][]string{}
	var order []stuck
	for _, j := range p.Box.Joins {
		partA, faceA := assembly.Ref(j.A)
		partB, faceB := assembly.Ref(j.B)
		part := p.Box.Part(partA)
		if !j.Stuck || part == nil || part.Piece == nil || part.Piece.Part == sheet.Insert || part.When == sheet.Close {
			continue // set in, or stuck when the box is filled, and told there
		}
		what := partA + "'s " + words.Plain(faceA)
		if len(part.Piece.Kept()) == 1 {
			what = partA
		}
		k := stuck{what, partB}
		if on[k] == nil {
			order = append(order, k)
		}
		on[k] = append(on[k], faceB)
	}
	for _, k := range order {
		faces := strings.Join(on[k], " and ")
		if part := p.Box.Part(k.on); part != nil && part.Piece != nil {
			faces = part.Piece.Names(on[k])
		}
		together = append(together, fmt.Sprintf("Stick the %s on the %s's %s.", k.what, k.on, faces))
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
	for _, r := range p.Rooms {
		if goes := r.Goes(); goes != "" {
			out = append(out, goes)
		}
	}
	if len(out) > 0 {
		return out
	}
	for _, t := range p.Load.Things {
		out = append(out, fmt.Sprintf("%d × %s", t.Count, t.Name))
	}
	return out
}
