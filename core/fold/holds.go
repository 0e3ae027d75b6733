package fold

import (
	"fmt"
	"math"
	"strings"
)

// Block is a thing inside the box, by the upright box round it.
type Block struct {
	Name   string
	Lo, Hi Vec
}

// Holds checks that the things lie inside and touch no card, and gives the
// least room round them in each direction.
func Holds(things []Block, bodies ...*Body) Check {
	c := Check{Name: "the contents lie inside and touch nothing", Holds: true}
	if len(things) == 0 {
		c.Figure = "nothing was listed"
		return c
	}
	var faults []string
	lo, hi := things[0].Lo, things[0].Hi
	for _, t := range things {
		lo = Vec{min(lo.X, t.Lo.X), min(lo.Y, t.Lo.Y), min(lo.Z, t.Lo.Z)}
		hi = Vec{max(hi.X, t.Hi.X), max(hi.Y, t.Hi.Y), max(hi.Z, t.Hi.Z)}
		for _, b := range bodies {
			for _, f := range b.Faces {
				if f.touches(t) {
					faults = append(faults, fmt.Sprintf("%s meets %s", t.Name, fullName(f)))
				}
			}
		}
	}
	box := Block{Lo: lo, Hi: hi}
	var says []string
	for _, d := range []struct {
		name string
		dir  Vec
	}{{"left", Vec{X: -1}}, {"right", Vec{X: 1}}, {"front", Vec{Y: -1}}, {"back", Vec{Y: 1}}, {"above", Vec{Z: 1}}} {
		room := math.Inf(1)
		for _, b := range bodies {
			for _, f := range b.Faces {
				room = min(room, f.ahead(box, d.dir))
			}
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
		says = append(says, fmt.Sprintf("%s %.1f", d.name, room))
	}
	c.Figure = strings.Join(says, ", ") + " mm free"
	if len(faults) > 0 {
		c.Holds, c.Figure = false, strings.Join(faults, "; ")
	}
	return c
}

// touches says whether the card of a face, with its thickness, enters a thing.
func (p *Placed) touches(t Block) bool {
	by := p.Body.T/2 - tolerance
	lo, hi := t.Lo.Sub(Vec{by, by, by}), t.Hi.Add(Vec{by, by, by})
	poly := p.Poly
	for axis := range 3 {
		poly = above(poly, axis, lo.part(axis), 1)
		poly = above(poly, axis, hi.part(axis), -1)
	}
	return len(poly) > 0
}

func (a Vec) part(axis int) float64 { return [3]float64{a.X, a.Y, a.Z}[axis] }

// above keeps the part of a polygon on one side of an upright plane.
func above(poly []Vec, axis int, at, sign float64) (kept []Vec) {
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

// ahead is how far a thing may move that way before it meets this face, if
// the face lies across its way.
func (p *Placed) ahead(t Block, dir Vec) float64 {
	if math.Abs(p.In.Dot(dir)) < 0.999 {
		return math.Inf(1)
	}
	far := t.Hi
	if dir.X+dir.Y+dir.Z < 0 {
		far = t.Lo
	}
	// Only a face beyond the middle of the thing lies on that side of it.
	mid := t.Lo.Add(t.Hi).Times(0.5)
	if p.Poly[0].Sub(mid).Dot(dir) <= 0 {
		return math.Inf(1)
	}
	shadow := p.Poly
	for axis := range 3 {
		if dir.part(axis) == 0 {
			shadow = above(above(shadow, axis, t.Lo.part(axis)+tolerance, 1), axis, t.Hi.part(axis)-tolerance, -1)
		}
	}
	if len(shadow) == 0 {
		return math.Inf(1)
	}
	return p.Poly[0].Sub(far).Dot(dir) - p.Body.T/2
}
