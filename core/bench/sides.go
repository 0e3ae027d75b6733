package bench

import (
	"slices"

	"brevium/core/assembly"
	"brevium/core/fasteners"
	"brevium/core/fold"
	"brevium/core/net"
)

// sides tells where the marks of each piece are: on which face, and on which side of it. The two
// halves of what holds by touching look at each other when the box is closed; magnets, which hold
// through card, are inside, where they are covered.
func (g Glue) sides(pieces []*net.Piece) map[*net.Piece][]Side {
	out := map[*net.Piece][]Side{}
	for _, piece := range pieces {
		body := g.bodyOf(piece)
		for _, m := range piece.Marks {
			with, _ := fasteners.Called(m.What)
			side := Side{Through: with.Through}
			if body.Body != nil {
				for _, f := range body.Faces {
					if net.Inside(f.Face.Points, m.At) {
						side.Face = f.Name
						side.Outside = !with.Hidden && g.facesOut(body.Body, f, m)
					}
				}
			}
			out[piece] = append(out[piece], side)
		}
	}
	return out
}

// facesOut reports whether the other half of what is put on a face lies outside it when the box is closed.
func (g Glue) facesOut(body *fold.Body, f *fold.Placed, m net.Mark) bool {
	at := f.Place(m.At)
	least, outside := 8.0, false
	for _, o := range g.Box.Proved.Bodies {
		for _, other := range o.Piece.Marks {
			if other.What != m.What || o == body && other.At == m.At {
				continue
			}
			for _, on := range o.Faces {
				if !net.Inside(on.Face.Points, other.At) || on == f {
					continue
				}
				if d := on.Place(other.At).Sub(at); d.Len() < least {
					least, outside = d.Len(), d.Dot(f.In) < 0
				}
			}
		}
	}
	return outside
}

// Stands gives the bodies of a box of card so thick that a picture of a step shows: of the parts in hand, each as
// far folded as its step has it, the first of several copies while they are folded.
func Stands(b *assembly.Box, t Length, f Frame) assembly.Standing {
	all := b.After(t, f.At)
	if f.At >= float64(len(b.Course())) {
		all = b.Assemble(t, assembly.Closed)
	}
	seen := map[string]bool{}
	folding := len(f.Parts) == 1 && f.Empty
	return all.Only(func(part, on string) bool {
		if on != "" { // it rides
			last := b.Part(part)
			return slices.Contains(f.Parts, on) && (f.Late || last == nil || !last.Last)
		}
		if !slices.Contains(f.Parts, part) || folding && seen[part] {
			return false
		}
		seen[part] = true
		return true
	}, !f.Empty)
}
