package fold

import (
	"fmt"
	"math"
	"slices"
	"strings"
)

// Shape is what a thing inside is, within the upright box round it.
type Shape int

const (
	Brick   Shape = iota
	Upright       // an upright cylinder
	Ball
	LyingX // a cylinder along X
	LyingY // a cylinder along Y
)

// Block is a thing inside the box: its shape, and the upright box round it.
// Pictures of cylinders may narrow to a neck of that radius above Shoulder.
type Block struct {
	Name           string
	Lo, Hi         Vec
	Shape          Shape
	Neck, Shoulder float64
}

// Mid is the middle of the thing.
func (t Block) Mid() Vec { return t.Lo.Add(t.Hi).Times(0.5) }

// Radius of a round thing.
func (t Block) Radius() float64 { return min(t.Hi.X-t.Lo.X, t.Hi.Y-t.Lo.Y, 1e9) / 2 }

// Holds checks that the things lie inside and touch no card, and gives the least room round them in each direction.
// The sides named may be open; what lies there stands out over no card, but for what stands proud above.
func Holds(things []Block, open []string, bodies ...*Body) Check {
	c := Check{Name: "everything fits inside without touching", Holds: true}
	if len(things) == 0 {
		c.Figure = "nothing was listed"
		return c
	}
	var faults []string
	faces := reaching(bodies)
	for _, t := range things {
		for _, f := range faces {
			if f.near(t, f.Body.T) && f.touches(t) {
				faults = append(faults, fmt.Sprintf("%s meets %s", t.Name, fullName(f.Placed)))
			}
		}
	}
	var says []string
	for _, d := range []struct {
		name string
		dir  Vec
	}{{"left", Vec{X: -1}}, {"right", Vec{X: 1}}, {"front", Vec{Y: -1}}, {"back", Vec{Y: 1}}, {"above", Vec{Z: 1}}} {
		room := ahead(things, d.dir, faces)
		if math.IsInf(room, 1) && slices.Contains(open, d.name) {
			if d.name == "above" {
				continue
			}
			room = within(things, d.dir, bodies)
		}
		if math.IsInf(room, 1) {
			faults = append(faults, "nothing closes the box on the side "+d.name)
			continue
		}
		if room >= -tolerance {
			room = max(room, 0)
		} else {
			faults = append(faults, fmt.Sprintf("the contents stand out %.1f mm on the side %s", -room, d.name))
		}
		says = append(says, fmt.Sprintf("%s %.1f mm", d.name, room))
	}
	c.Figure = strings.Join(says, ", ") + " free"
	if n := len(faults); n > 4 {
		faults = append(faults[:3], fmt.Sprintf("and %d more", n-3))
	}
	if len(faults) > 0 {
		c.Holds, c.Figure = false, strings.Join(faults, "; ")
	}
	return c
}

// ahead is how far all the things may move that way before one meets card: what lies across the way or, where nothing
// does, a slope; infinite where nothing lies there.
func ahead(things []Block, dir Vec, faces []reach) float64 {
	room := math.Inf(1)
	for _, f := range faces {
		if math.Abs(f.In.Dot(dir)) < 0.999 {
			continue // not across the way
		}
		for _, t := range things {
			if f.beyond(t, dir) < room && f.inTheWay(t, dir) {
				room = min(room, f.ahead(t, dir))
			}
		}
	}
	if !math.IsInf(room, 1) {
		return room
	}
	for _, f := range faces {
		for _, t := range things {
			if slant := -f.In.Dot(dir); slant > 0.1 && slant < 0.999 && f.inTheWay(t, dir) {
				if far := (f.foremost(t) - f.Body.T/2) / slant; far >= -tolerance {
					room = min(room, far)
				}
			}
		}
	}
	return room
}

// within is how far things stay within the card, seen along an axis.
func within(things []Block, dir Vec, bodies []*Body) float64 {
	lo, hi := Extent(bodies...)
	room := math.Inf(1)
	for _, t := range things {
		if dir.X+dir.Y+dir.Z > 0 {
			room = min(room, hi.Sub(t.Hi).Dot(dir))
		} else {
			room = min(room, lo.Sub(t.Lo).Dot(dir))
		}
	}
	return room
}

// reach is a face with the upright box round it.
type reach struct {
	*Placed
	lo, hi Vec
}

func reaching(bodies []*Body) (out []reach) {
	for _, b := range bodies {
		for _, f := range b.Faces {
			lo, hi := boxRound(f.Poly)
			out = append(out, reach{f, lo, hi})
		}
	}
	return out
}

// near reports whether the boxes round a face and a thing come within a distance.
func (r reach) near(t Block, by float64) bool {
	for axis := range 3 {
		if r.lo.part(axis) > t.Hi.part(axis)+by || r.hi.part(axis) < t.Lo.part(axis)-by {
			return false
		}
	}
	return true
}

// inTheWay reports whether a thing that moves along an axis could meet the face.
func (r reach) inTheWay(t Block, dir Vec) bool {
	for axis := range 3 {
		if dir.part(axis) == 0 && (r.lo.part(axis) > t.Hi.part(axis) || r.hi.part(axis) < t.Lo.part(axis)) {
			return false
		}
	}
	return true
}

// touches reports whether the card of a face, with its thickness, enters a thing.
func (p *Placed) touches(t Block) bool {
	switch t.Shape {
	case Ball:
		return p.distance(t.Mid()) < t.Radius()+p.Body.T/2-press
	case Upright:
		if math.Abs(p.In.Z) > 0.999 {
			z := p.Poly[0].Z
			if z < t.Lo.Z-p.Body.T/2+tolerance || z > t.Hi.Z+p.Body.T/2-tolerance {
				return false
			}
			mid := t.Mid()
			return p.distance(Vec{mid.X, mid.Y, z}) < t.Radius()-press
		}
	}
	by := p.thick().Sub(Vec{tolerance, tolerance, tolerance})
	lo, hi := t.Lo.Sub(by), t.Hi.Add(by)
	poly, s := p.Poly, slicing{}
	for axis := range 3 {
		poly = s.above(poly, axis, lo.part(axis), 1)
		poly = s.above(poly, axis, hi.part(axis), -1)
	}
	return len(poly) > 0
}

// press is how far, in millimetres, a round thing may press into the rim of the hole it sits in.
const press = 0.25

// distance is how far a place is from the card of a face.
func (p *Placed) distance(at Vec) float64 {
	off := at.Sub(p.Poly[0]).Dot(p.In)
	foot := at.Sub(p.In.Times(off))
	if p.holds(foot) {
		return math.Abs(off)
	}
	return math.Hypot(off, p.fromRim(foot))
}

func (a Vec) part(axis int) float64 { return [3]float64{a.X, a.Y, a.Z}[axis] }

// slicing cuts a polygon down by upright planes, one after another. It writes what is left to two buffers in turn, so
// that nothing is allocated.
type slicing struct {
	room [2][12]Vec
	next int
}

// above returns the part of a polygon on one side of a plane: poly itself where that is all of it.
func (s *slicing) above(poly []Vec, axis int, at, sign float64) []Vec {
	within := 0
	for i := range poly {
		if sign*(poly[i].part(axis)-at) >= 0 {
			within++
		}
	}
	switch within {
	case 0:
		return nil
	case len(poly):
		return poly
	}
	kept := s.room[s.next][:0]
	s.next = 1 - s.next
	for i, a := range poly {
		b := poly[(i+1)%len(poly)]
		da, db := sign*(a.part(axis)-at), sign*(b.part(axis)-at)
		if da >= 0 {
			kept = append(kept, a)
		}
		if da*db < 0 {
			kept = append(kept, a.Add(b.Sub(a).Times(da/(da-db))))
		}
	}
	return kept
}

// ahead is how far a thing may move that way before it meets this face, if the face lies across its way.
func (p *Placed) ahead(t Block, dir Vec) float64 {
	if math.Abs(p.In.Dot(dir)) < 0.999 {
		return math.Inf(1)
	}
	// Only a face beyond the middle of the thing lies on that side of it.
	mid := t.Lo.Add(t.Hi).Times(0.5)
	if p.Poly[0].Sub(mid).Dot(dir) <= 0 {
		return math.Inf(1)
	}
	if dir.Z != 0 && (t.Shape == Upright || t.Shape == Ball) &&
		p.distance(Vec{mid.X, mid.Y, p.Poly[0].Z}) >= t.Radius()-press {
		return math.Inf(1) // it stands in a hole of this face
	}
	shadow, s := p.Poly, slicing{}
	for axis := range 3 {
		if dir.part(axis) == 0 {
			shadow = s.above(s.above(shadow, axis, t.Lo.part(axis)+tolerance, 1), axis, t.Hi.part(axis)-tolerance, -1)
		}
	}
	if len(shadow) == 0 {
		return math.Inf(1)
	}
	return p.beyond(t, dir)
}

// beyond is how far the card of a face that lies across a way is from the side of a thing that goes first along it.
func (p *Placed) beyond(t Block, dir Vec) float64 {
	far := t.Hi
	if dir.X+dir.Y+dir.Z < 0 {
		far = t.Lo
	}
	return p.Poly[0].Sub(far).Dot(dir) - p.Body.T/2
}
