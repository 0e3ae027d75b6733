package bench

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/assembly"
	"brevium/core/net"
	"brevium/core/words"
)

// The course of making, told step by step.

// CourseOf tells how the box comes together.
func CourseOf(b *assembly.Box, contents []string) (out []Done) {
	for _, s := range b.Course() {
		out = append(out, Done{s, courseTeller{b, contents}.tell(s)})
	}
	return out
}

// courseTeller knows the box and what goes in it.
type courseTeller struct {
	*assembly.Box
	contents []string
}

func (c courseTeller) tell(s assembly.Step) string {
	of := ""
	if len(c.Box.Pieces()) > 1 && s.Piece != nil {
		of = words.Capital(s.Piece.Name) + ": "
	}
	switch {
	case s.Does == "fill" && len(c.contents) > 0:
		return "Put in " + strings.Join(c.contents, ", ") + "."
	case s.Does == "fill":
		return "Fill it."
	case s.Does == "put":
		return c.putSays(s.Part, s.Piece)
	case len(s.Faces) == 0 && c.sticks(s.Part):
		return c.putSays(s.Part, s.Piece)
	case len(s.Faces) == 0:
		if box, _, within := strings.Cut(s.Part, "/"); within && s.Piece.Count > 1 {
			return fmt.Sprintf("Put each %s on its %s.", words.Plain(s.Piece.Name), words.Plain(box))
		}
		return fmt.Sprintf("Put the %s on.", words.Plain(s.Piece.Name))
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

// sticks reports whether a part is stuck to another.
func (c courseTeller) sticks(part string) bool {
	return slices.ContainsFunc(c.Box.Joins, func(j assembly.Join) bool { return j.Stuck && strings.HasPrefix(j.A, part+"/") })
}

// putSays tells where a folded piece goes: what of it is stuck on what, or what it stands on.
func (c courseTeller) putSays(part string, piece *net.Piece) string {
	name := words.Plain(piece.Name)
	var says []string
	for _, at := range c.stuckTo(part) {
		mine := name
		if len(piece.Kept()) > 1 {
			mine = fmt.Sprintf("%s of the %s", piece.Names(at.faces), name)
		}
		if len(at.either) > 0 {
			says = append(says, fmt.Sprintf("stick the %s of each %s on a face of the %s of its own: %s", piece.Names(at.faces), name,
				words.Plain(at.on.Name), words.List(at.either)))
			continue
		}
		says = append(says, fmt.Sprintf("stick the %s on the %s", mine, at.says()))
	}
	if len(says) > 0 {
		return words.Capital(strings.Join(says, "; then ")) + "."
	}
	on := ""
	if of := c.Box.Part(part); of != nil && len(of.At) > 0 {
		other, face := assembly.Ref(of.At[0].On)
		if o := c.Box.Part(other); o != nil && o.Piece != nil {
			on = ", on the " + stuckOn{on: o.Piece, others: []string{face}}.says()
		}
	}
	switch piece.Part {
	case net.Insert:
		return fmt.Sprintf("Set in the %s%s.", name, on)
	case net.Liner:
		return fmt.Sprintf("Stick the %s in%s.", name, on)
	}
	return fmt.Sprintf("Put the %s in its place%s.", name, on)
}

// stuckOn is what of a part is stuck on another.
type stuckOn struct {
	on     *net.Piece
	faces  []string // of the part
	others []string // of the other
	either []string // the faces of the other that copies lie on, one each
}

func (s stuckOn) says() string {
	if len(s.on.Kept()) == 1 {
		return words.Plain(s.on.Name)
	}
	if len(s.others) == 1 && s.others[0] == s.on.Name {
		return "floor of the " + words.Plain(s.on.Name) // the base's base
	}
	return fmt.Sprintf("%s of the %s", s.on.Names(s.others), words.Plain(s.on.Name))
}

// stuckTo lists what a part is stuck to, of what is in its place before it.
func (c courseTeller) stuckTo(part string) (out []stuckOn) {
	before := c.before(part)
	for _, j := range c.Box.Joins {
		partA, faceA := assembly.Ref(j.A)
		partB, faceB := assembly.Ref(j.B)
		if partB == part {
			partA, faceA, partB, faceB = partB, faceB, partA, faceA
		}
		other := c.Box.Part(partB)
		if !j.Stuck || partA != part || other == nil || other.Piece == nil || !before[partB] {
			continue
		}
		i := slices.IndexFunc(out, func(s stuckOn) bool { return s.on == other.Piece && len(s.either) == 0 && len(j.Or) == 0 })
		if i < 0 {
			out, i = append(out, stuckOn{on: other.Piece}), len(out)
		}
		s := &out[i]
		if !slices.Contains(s.faces, faceA) {
			s.faces = append(s.faces, faceA)
		}
		if !slices.Contains(s.others, faceB) {
			s.others = append(s.others, faceB)
		}
		for _, or := range append([]string{j.B}, j.Or...) {
			if _, face := assembly.Ref(or); len(j.Or) > 0 {
				s.either = append(s.either, words.Plain(face))
			}
		}
	}
	return out
}

// before gives the parts that are in their places when one is put there.
func (c courseTeller) before(part string) map[string]bool {
	out, later := map[string]bool{}, map[string]bool{}
	at := false
	for _, s := range c.Box.Course() {
		if len(s.Faces) == 0 && s.Part != "" {
			if at = at || s.Part == part; at {
				later[s.Part] = true
			}
		}
	}
	for _, piece := range c.Box.Course() {
		if piece.Part != "" && !later[piece.Part] {
			out[piece.Part] = true
		}
	}
	for _, of := range c.Box.Parts { // what has nothing to fold is there from the beginning
		if len(of.At) == 0 {
			out[of.Name] = true
		}
	}
	return out
}
