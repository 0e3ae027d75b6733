package assembly

import (
	"cmp"
	"math"
	"slices"

	"brevium/core/fold"
	"brevium/core/net"
)

// What a box is made of where it bears something: the card that is glued together there, and what keeps
// a rim from moving outwards.

// Side is one side of the room in the closed box, or its floor.
type Side struct {
	Along, High float64        // millimetres: along the rim and up; of the floor left to right and front to back
	Glued       [][]*fold.Body // the card one crosses at each of some places, spread evenly, glued together there
	Holder      string         // the part that keeps the rim from moving outwards, "" where it is free
	Band        *fold.Body     // the band that goes round it, nil without one
	BandLow     float64        // how far up the band's lower and upper edges are
	BandHigh    float64
}

// How many places a side is looked at along and up, and how far outside a wall the lid may stand to hold
// it, in millimetres.
const placesAlong, placesUp, withinReach = 4, 8, 4.0

// hit is a face that a line from inside goes through, and how far from inside.
type hit struct {
	*fold.Placed
	far float64
}

// Sides gives the floor and the four walls, of the closed box: left, right, front, back.
func (b *Box) Sides(s Standing) (floor Side, walls []Side) {
	lo, hi := b.Lo, b.Hi
	if lo == hi {
		return floor, nil
	}
	glued, all := s.gluedTogether(), s.Box()
	mid := lo.Add(hi).Times(0.5)
	size := hi.Sub(lo)
	at := func(part, of int) float64 { return (float64(part) + 0.5) / float64(of) }
	floor = Side{Along: size.X, High: size.Y}
	for i := range placesAlong {
		for j := range placesAlong {
			from := fold.Vec{X: lo.X + size.X*at(i, placesAlong), Y: lo.Y + size.Y*at(j, placesAlong), Z: mid.Z}
			in, _ := crossed(all, from, fold.Vec{Z: -1}, glued)
			floor.Glued = append(floor.Glued, bodies(in))
		}
	}
	for _, out := range []fold.Vec{{X: -1}, {X: 1}, {Y: -1}, {Y: 1}} {
		w := Side{Along: size.X, High: size.Z, BandLow: math.Inf(1)}
		if out.X != 0 {
			w.Along = size.Y
		}
		for j := range placesUp {
			for i := range placesAlong {
				from := fold.Vec{X: mid.X, Y: mid.Y, Z: lo.Z + size.Z*at(j, placesUp)}
				if out.X != 0 {
					from.Y = lo.Y + size.Y*at(i, placesAlong)
				} else {
					from.X = lo.X + size.X*at(i, placesAlong)
				}
				in, beyond := crossed(all, from, out, glued)
				w.Glued = append(w.Glued, bodies(in))
				w.look(in, beyond, j == placesUp-1, size.Z/placesUp*float64(j))
			}
		}
		w.BandHigh += size.Z / placesUp
		walls = append(walls, w)
	}
	return floor, walls
}

// look notes what holds the wall at one place: high up, what stands close outside it or what its upper
// edge is folded into; at any height, a band.
func (w *Side) look(in, beyond []hit, high bool, up float64) {
	for _, h := range beyond {
		switch {
		case h.Body.Piece.Part == net.Band:
			w.Band = h.Body
			w.BandLow, w.BandHigh = min(w.BandLow, up), max(w.BandHigh, up)
		case high && len(in) > 0 && h.far-in[len(in)-1].far <= withinReach:
			w.Holder = cmp.Or(w.Holder, h.Body.Name)
		}
	}
	for _, h := range in {
		for _, e := range h.Edges {
			if !high || e.Beyond == nil {
				continue
			}
			if over := h.Body.Find(e.Beyond.Name); over != nil && math.Abs(over.In.Z) > 0.2 && over.Middle().Z > h.Middle().Z {
				w.Holder = cmp.Or(w.Holder, h.Body.Name)
			}
		}
	}
}

func bodies(hits []hit) (out []*fold.Body) {
	for _, h := range hits {
		out = append(out, h.Body)
	}
	return out
}

// crossed gives the faces that a line goes through, the nearest first: those that are glued to the nearest,
// and the others.
func crossed(all []*fold.Body, from, dir fold.Vec, glued func(a, b *fold.Placed) bool) (in, others []hit) {
	for _, b := range all {
		for _, f := range b.Faces {
			slope := f.In.Dot(dir)
			if math.Abs(slope) < 0.99 {
				continue
			}
			far := f.At.Sub(from).Dot(f.In) / slope
			if far > 0 && f.Has(from.Add(dir.Times(far))) {
				others = append(others, hit{f, far})
			}
		}
	}
	slices.SortStableFunc(others, func(a, b hit) int { return cmp.Compare(a.far, b.far) })
	for more := len(others) > 0; more; {
		more = false
		for i, h := range others {
			if len(in) == 0 || slices.ContainsFunc(in, func(o hit) bool { return glued(o.Placed, h.Placed) }) {
				in, others, more = append(in, h), slices.Delete(others, i, i+1), true
				break
			}
		}
	}
	slices.SortStableFunc(in, func(a, b hit) int { return cmp.Compare(a.far, b.far) })
	return in, others
}

// gluedTogether reports whether two faces are glued to each other: within their piece, by a join, or as a
// layer on its panel; a liner is to whatever it lies on.
func (s Standing) gluedTogether() func(a, b *fold.Placed) bool {
	pairs := map[[2]string]bool{}
	add := func(a, b string) { pairs[[2]string{a, b}], pairs[[2]string{b, a}] = true, true }
	for _, b := range s.Bodies {
		for _, g := range b.Piece.Glues {
			add(b.Name+"/"+g.Face, b.Name+"/"+g.On)
		}
	}
	for _, g := range s.trees {
		for _, j := range g.Joins {
			for _, on := range append([]string{j.B}, j.Or...) {
				if j.Stuck {
					add(g.path+j.A, g.path+on)
				}
			}
		}
	}
	for _, r := range s.rides {
		add(r.body.Name+"/"+r.at.Face, r.at.On)
	}
	return func(a, b *fold.Placed) bool {
		lines := a.Body.Piece.Part == net.Liner || b.Body.Piece.Part == net.Liner
		return pairs[[2]string{a.Body.Name + "/" + a.Name, b.Body.Name + "/" + b.Name}] ||
			lines && math.Abs(a.Middle().Sub(b.Middle()).Dot(a.In)) < a.Body.T+b.Body.T
	}
}
