package assembly

import (
	"math"

	"brevium/core/fold"
	"brevium/core/sheet"
)

// What opens a box must be free to move: what is stuck to its side stays below it.

// OpensFrom gives how high above the table what opens the closed box begins on a
// side, in millimetres, and whether it is drawn off to that side.
func (b *Box) OpensFrom(t Length, side string) (low float64, drawn bool) {
	low = math.Inf(1)
	lo, hi := fold.Extent(b.Assemble(t, Closed).Box()...)
	for _, f := range b.opening(t) {
		flo, fhi := fold.Reach(f)
		near := map[string]bool{"left": flo.X < lo.X+reachOf, "right": fhi.X > hi.X-reachOf, "front": flo.Y < lo.Y+reachOf,
			"back": fhi.Y > hi.Y-reachOf}[side]
		if near {
			low = min(low, flo.Z-lo.Z)
		}
	}
	for _, p := range b.Parts {
		drawn = drawn || p.When == sheet.Close && p.Off == Aside && side == "right" && p.Piece.Part != sheet.Band
	}
	return low, drawn
}

// reachOf is how near the outside of the box a face that opens lies on a side.
const reachOf = 3.0

// opening lists the faces of the closed box that move when it is opened.
func (b *Box) opening(t Length) (out []*fold.Placed) {
	s := b.Assemble(t, Closed)
	for _, p := range b.Parts {
		if p.Piece == nil {
			continue
		}
		for _, body := range s.All(p.Name) {
			for _, f := range body.Faces {
				if p.When == sheet.Close || Opens(p.Piece, f.Name) || hangsOnOpening(p.Piece, body, f.Name) {
					out = append(out, f)
				}
			}
		}
	}
	return out
}

// hangsOnOpening says whether a face hangs on one that opens.
func hangsOnOpening(p *sheet.Piece, body *fold.Body, face string) bool {
	for _, m := range p.Order {
		if m.When != sheet.Close {
			continue
		}
		for _, f := range m.Faces {
			if body.HangsOn(f)[face] {
				return true
			}
		}
	}
	return false
}

// Moves says whether a face of a body moves when the box is opened: it opens, or hangs
// on what does.
func Moves(p *sheet.Piece, body *fold.Body, face string) bool {
	return Opens(p, face) || hangsOnOpening(p, body, face)
}

// Stuck gives the pairs of faces of different parts that are stuck to each other.
func (s Standing) Stuck() (out [][2]*fold.Placed) {
	for _, g := range s.trees {
		for _, j := range g.Joins {
			if j.Stuck {
				for _, c := range g.contacts(j) {
					out = append(out, [2]*fold.Placed{c.a, c.b})
				}
			}
		}
	}
	return out
}
