package assembly

import (
	"fmt"
	"math"

	"brevium/core/fold"
	"brevium/core/sheet"
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

// riding checks that every layer lies within its panel, on the side it belongs, and
// gives what touches by it.
func (s Standing) riding() (checks []fold.Check, touch []contact) {
	if len(s.rides) == 0 {
		return nil, nil
	}
	c := fold.Check{Name: "every layer lies within its panel", Holds: true}
	layers, least := 0, math.Inf(1)
	var woven []*fold.Placed
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
		for _, f := range body.Faces { // what is woven over it is pressed on to it
			if f.Over && math.Abs(f.In.Dot(face.In)) > 0.999 {
				touch = append(touch, contact{face, f})
			}
		}
		if r.part.Piece.Part != sheet.Layer {
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
	if layers == 0 {
		return nil, touch
	}
	if c.Holds {
		c.Figure = fmt.Sprintf("%d, at least %.1f mm from the edge", layers, least)
	}
	return []fold.Check{c}, touch
}

// Outer measures the outside again, with what was put on since.
func (b *Box) Outer() {
	lo, hi := fold.Extent(b.Proved.Box()...)
	b.Outside, b.Foot = dims(lo, hi), -lo.Z
}

// Line takes from the room inside what lines it: so much on the floor, on each wall,
// and under the cover.
func (b *Box) Line(floor, wall, cover Length) {
	b.Lo, b.Hi = b.Lo.Add(fold.Vec{X: wall.MM(), Y: wall.MM(), Z: floor.MM()}), b.Hi.Sub(fold.Vec{X: wall.MM(),
		Y: wall.MM(), Z: cover.MM()})
	b.Inside.Length, b.Inside.Width = max(0, b.Inside.Length-2*wall), max(0, b.Inside.Width-2*wall)
	b.Inside.Depth = max(0, b.Inside.Depth-floor-cover)
}
