package assembly

import (
	"fmt"
	"math"
	"strings"

	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/words"
)

// What is stuck on while all is flat rides on its panel: wherever that goes, it goes.

// ride is one copy of a part that rides.
type ride struct {
	body *fold.Body
	part *Part
	at   Place
}

func (s Standing) isRiding(b *fold.Body) bool {
	for _, r := range s.rides {
		if r.body == b {
			return true
		}
	}
	return false
}

// Rides gives the face that a body rides on, "" when it does not.
func (s Standing) Rides(b *fold.Body) string {
	for _, r := range s.rides {
		if r.body == b {
			return r.at.On
		}
	}
	return ""
}

// riding checks that every layer lies within its panel, on the side it belongs, and gives what touches by it.
func (s Standing) riding() (checks []fold.Check, touch []contact) {
	if len(s.rides) == 0 {
		return nil, nil
	}
	c := fold.Check{Name: "every layer lies within its panel", Holds: true}
	layers, least := 0, math.Inf(1)
	var woven []*fold.Placed
	over := s.stuckOver()
	for _, r := range s.rides {
		body, on := s.whole().nth(r.at.On, r.at.Nth)
		face := r.body.Find(r.at.Face)
		if on == nil || face == nil {
			continue // which is told by itself
		}
		touch = append(touch, contact{face, on})
		if on.Over {
			for _, f := range woven {
				touch = append(touch, contact{face, f})
			}
			woven = append(woven, face)
		}
		for _, f := range s.upon(face, body, over[on.Body]) {
			touch = append(touch, contact{face, f})
		}
		if r.part.Piece.Part != net.Layer {
			continue
		}
		layers++
		for _, v := range face.Poly {
			room := body.RoomRound(on, on.Under(v))
			if least = min(least, room); room < r.at.Border.MM()-0.01 {
				c.Holds = false
				c.Figure = fmt.Sprintf("the %s comes within %.1f mm of the edge", r.part.Name, room)
			}
		}
	}
	under := fold.Check{Name: "layers leave room for what slides over them", Holds: true,
		Figure: words.Count(len(s.rides), "piece")}
	if hits := s.Crushed("", touch); len(hits) > 0 {
		under.Holds, under.Figure = false, strings.Join(hits[:min(3, len(hits))], "; ")
	}
	checks = append(checks, under)
	if layers == 0 {
		return checks, touch
	}
	if c.Holds {
		c.Figure = fmt.Sprintf("%d, at least %.1f mm from the edge", layers, least)
	}
	return append(checks, c), touch
}

// upon gives what lies on a layer that is stuck to a body: the ends of handles and pulls, which are a hair higher, with
// layers of their own, and what is woven over it and pressed on to it.
func (s Standing) upon(layer *fold.Placed, body *fold.Body, ends []*fold.Placed) (out []*fold.Placed) {
	for _, f := range ends {
		out = append(out, f)
		for _, other := range s.rides {
			if _, under := s.whole().nth(other.at.On, other.at.Nth); under == f {
				out = append(out, other.body.Find(other.at.Face))
			}
		}
	}
	for _, f := range body.Faces {
		if f.Over && math.Abs(f.In.Dot(layer.In)) > 0.999 {
			out = append(out, f)
		}
	}
	return out
}

// stuckOver gives, for each body, the faces of other parts that are stuck or held on it by a part of theirs.
func (s Standing) stuckOver() map[*fold.Body][]*fold.Placed {
	out := map[*fold.Body][]*fold.Placed{}
	for _, g := range s.trees {
		for _, j := range g.Joins {
			for _, c := range g.contacts(j) {
				out[c.a.Body], out[c.b.Body] = append(out[c.a.Body], c.b), append(out[c.b.Body], c.a)
			}
		}
	}
	return out
}

// Crushed tells where something has no room because what goes over it is too close, for one part or (part "") for
// all. Faces side by side never pass through each other, so Apart does not see it. It may press by half a caliper
// and, in plain numbers, by what the card gives.
func (s Standing) Crushed(part string, touch []contact) (hits []string) {
	known := map[contact]bool{}
	for _, c := range touch {
		known[c] = true
	}
	for _, r := range s.rides {
		_, on := s.whole().nth(r.at.On, r.at.Nth)
		face := r.body.Find(r.at.Face)
		if part != "" && r.part.Name != part || on == nil || face == nil {
			continue
		}
		from, to := s.between(r, on)
		if to < 0 {
			continue // within: the contents and the room tell of that
		}
		for _, b := range s.Bodies {
			if b.Piece.Part != net.Box && b.Piece.Part != net.Band || s.isRiding(b) {
				continue
			}
			for _, f := range b.Faces {
				d := on.Middle().Sub(f.Middle()).Dot(on.In)
				give := max(b.T, r.body.Back)/2 + s.gives
				if f == on || math.Abs(f.In.Dot(on.In)) < 0.999 || d <= 0 || d-b.T/2 >= to-give || d+b.T/2 <= from+give ||
					known[contact{face, f}] || fold.Overlap(face, f) < 1 {
					continue
				}
				hits = append(hits, fmt.Sprintf("the %s comes over the %s", words.Plain(f.Name+" of the "+b.Name), r.part.Name))
			}
		}
	}
	return hits
}

// Outer measures the outside again, with what was put on since.
func (b *Box) Outer() {
	lo, hi := fold.Extent(b.Proved.Box()...)
	b.Outside, b.Foot = dims(lo, hi), -lo.Z
}

// Line takes from the room inside what lines it: so much on the floor, on each wall, and under the cover.
func (b *Box) Line(floor, wall, cover Length) {
	b.Lo, b.Hi = b.Lo.Add(fold.Vec{X: wall.MM(), Y: wall.MM(), Z: floor.MM()}), b.Hi.Sub(fold.Vec{X: wall.MM(),
		Y: wall.MM(), Z: cover.MM()})
	b.Inside.Length, b.Inside.Width = max(0, b.Inside.Length-2*wall), max(0, b.Inside.Width-2*wall)
	b.Inside.Depth = max(0, b.Inside.Depth-floor-cover)
}

// between is the room that something stuck on takes, outwards from the middle of its
// panel: its own card and, raised, what raises it over what lies there.
func (s Standing) between(r ride, on *fold.Placed) (from, to float64) {
	out := func(o ride) float64 {
		f := o.body.Find(o.at.Face)
		if f == nil {
			return 0
		}
		return on.Middle().Sub(f.Middle()).Dot(on.In)
	}
	own := out(r)
	from, to = own-r.body.T/2, own+r.body.T/2
	if r.part.Piece.Part != net.Topper {
		return from, to
	}
	below := math.Inf(-1)
	for _, o := range s.rides {
		if top := out(o) + o.body.T/2; o.part.Piece.Part == net.Topper && o.at.On == r.at.On && o.at.Nth == r.at.Nth &&
			top <= from+1e-6 {
			below = max(below, top)
		}
	}
	if !math.IsInf(below, -1) {
		from = below
	}
	return from, to
}
