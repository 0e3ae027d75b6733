package assembly

import (
	"fmt"
	"math"
	"strings"

	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/words"
)

// threaded checks that what ties a box goes through: every face has its holes, set evenly about
// its middle, and where faces lie on each other a hole lies behind each hole.
func (g grown) threaded(th Thread) fold.Check {
	c := fold.Check{Name: "the " + th.What + " goes through its holes", Holds: true}
	type pierced struct {
		face *fold.Placed
		at   []fold.Vec
	}
	var all []pierced
	var faults []string
	for _, r := range th.Faces {
		body, f := g.find(r)
		part, face := Ref(r)
		called := words.Plain(face) + " of the " + words.Plain(part)
		if f == nil {
			faults = append(faults, "the "+called+" is not there")
			continue
		}
		p := pierced{face: f}
		lo, hi := f.Bounds()
		off := net.Point{}
		for _, h := range body.Piece.Punches {
			if net.Inside(f.Face.Points, h.Mid) && holed(f.Face, h) {
				p.at = append(p.at, f.Place(h.Mid))
				off.X, off.Y = off.X+2*h.Mid.X-lo.X-hi.X, off.Y+2*h.Mid.Y-lo.Y-hi.Y
			}
		}
		if len(p.at) != th.Holes {
			faults = append(faults, fmt.Sprintf("the %s has %s, not %d", called, words.Count(len(p.at), "hole"), th.Holes))
			continue
		}
		// Across the face is the way that runs level, as the box stands.
		across := off.X.MM()
		if math.Abs(f.X.Z) > math.Abs(f.Y.Z) {
			across = off.Y.MM()
		}
		if beside := across / 2 / float64(th.Holes); math.Abs(beside) > apart/2 {
			faults = append(faults, fmt.Sprintf("the holes in the %s are %.1f mm off its middle", called, math.Abs(beside)))
		}
		all = append(all, p)
	}
	for i, a := range all {
		for _, b := range all[i+1:] {
			gap := math.Abs(a.face.Poly[0].Sub(b.face.Poly[0]).Dot(b.face.In))
			if th.Apart || math.Abs(a.face.In.Dot(b.face.In)) < 0.999 || gap > through ||
				fold.Overlap(a.face, b.face) < 0.9*min(a.face.Area(), b.face.Area()) {
				continue
			}
			for _, q := range a.at {
				if least := nearestHole(q, b.at, b.face.In); least > apart {
					faults = append(faults, fmt.Sprintf("a hole in the %s is %.1f mm off the one behind it", words.Plain(a.face.Name), least))
				}
			}
		}
	}
	c.Figure = fmt.Sprintf("%s in each of %d", words.Count(th.Holes, "hole"), len(th.Faces))
	if len(faults) > 0 {
		c.Holds, c.Figure = false, strings.Join(faults, "; ")
	}
	return c
}

// holed reports whether a hole that the recipe names is cut out of a face.
func holed(f *net.Face, h net.Punch) bool {
	for _, ring := range f.Holes {
		lo, hi := net.Bounds(ring)
		if lo.X <= h.Mid.X && hi.X >= h.Mid.X && lo.Y <= h.Mid.Y && hi.Y >= h.Mid.Y {
			return true
		}
	}
	return false
}

func nearestHole(at fold.Vec, all []fold.Vec, in fold.Vec) float64 {
	least := math.Inf(1)
	for _, o := range all {
		d := o.Sub(at)
		least = min(least, d.Sub(in.Times(d.Dot(in))).Len())
	}
	return least
}

// Meet finds where the halves of a pair go: on the middle line of the face that closes, on a mark of the tools, as
// near its outer edge as leaves both halves card enough round them when the box is closed. It marks both pieces and
// says whether there was a place.
func (b *Box) Meet(p Pair, t, room, step Length) bool {
	whole := b.Assemble(t, Closed).whole()
	one, a := whole.find(p.A)
	other, on := whole.find(p.B)
	if a == nil || on == nil {
		return false
	}
	lo, hi := a.Bounds()
	mid := (lo.X + hi.X) / 2
	want := (p.Radius + room).MM()
	outer := fromHinge(a.Face)
	for off := Length(0); off <= hi.Y-lo.Y; off += min(step, measure.Millimetre/2) {
		at := net.Point{X: mid, Y: lo.Y + off}
		if !outer {
			at.Y = hi.Y - off
		}
		facing := on.Under(a.Place(at))
		if one.RoomRound(a, at) < want || other.RoomRound(on, facing) < want {
			continue
		}
		one.Piece.Mark(p.What, at, p.Radius)
		other.Piece.Mark(p.What, facing, p.Radius)
		return true
	}
	return false
}

// fromHinge reports whether a face hangs by its lower edge, as drawn.
func fromHinge(f *net.Face) bool {
	_, hi := f.Bounds()
	for _, e := range f.Edges {
		if !e.Kind.Open() && e.Beyond != nil && e.A.Y == hi.Y && e.B.Y == hi.Y {
			return true
		}
	}
	return false
}
