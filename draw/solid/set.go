package solid

import (
	"fmt"

	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/sets"
	"brevium/core/shop"
	"brevium/draw/pen"
)

// A set of boxes is seen closed: apart in a row, or as they come together.

// SetFolded draws the boxes of a set when so many of them have come together.
func SetFolded(s *sets.Set, done float64, v View, w, h float64) pen.Picture {
	c, cuts := &pen.Canvas{}, fold.Cuts{}
	first := s.Plans[0]
	scene := &Scene{eye: v.eye(), cuts: cuts, print: pen.NewPrints(fmt.Sprint(string(s.Brief.Encode()), done, v))}
	for i, st := range s.Standing(done) {
		for _, b := range st.Bodies {
			if b.Piece.Part != net.Insert {
				x, y := s.Plans[i].Dressed.Begins(b.Piece, st.Rides(b))
				scene.body(b, s.Plans[i].CardOf(b.Piece.Stock), x.MM(), y.MM())
			}
		}
	}
	scene.Paint(c, v, w, h, MostSeen)
	o := s.Outside()
	says := fmt.Sprintf("%d boxes, %s by %s by %s when they are together.", len(s.Plans), first.Step.ShowUp(o.Length),
		first.Step.ShowUp(o.Width), first.Step.ShowUp(o.Depth))
	return c.Picture("folded", w, h, says)
}

// SolidOfSet works out the solid of a set: the boxes closed, coming together one by
// one.
func SolidOfSet(set *sets.Set) *Solid {
	var cards []shop.Card
	of := map[string]int{}
	for _, p := range set.Plans {
		for _, c := range p.AllCards() {
			if _, known := of[c.ID]; !known {
				of[c.ID] = len(cards)
				cards = append(cards, c)
			}
		}
	}
	s := newSolid(cards...)
	shapes := map[*net.Face]int{}
	for i, st := range set.Standing(0) {
		for _, b := range st.Bodies {
			s.add(b, of[set.Plans[i].CardOf(b.Piece.Stock).ID], set.Names[i]+"/", shapes)
		}
	}
	tracks := make([][][7]float64, len(s.Faces))
	record := func(done float64) {
		n := 0
		for _, st := range set.Standing(done) {
			for _, b := range st.Bodies {
				for _, f := range b.Faces {
					tracks[n] = append(tracks[n], placing(f))
					n++
				}
			}
		}
	}
	record(0)
	for i, says := range set.Course() {
		for k := 1; k <= openFrames; k++ {
			record(float64(i) + float64(k)/openFrames)
		}
		s.Steps = append(s.Steps, solidStep{Says: says, End: len(tracks[0]) - 1})
	}
	s.Closed = len(tracks[0]) - 1
	s.Open, s.Filled = s.Closed, s.Closed
	for i := range s.Faces {
		s.Faces[i].Moves = moves(tracks[i])
	}
	return s
}
