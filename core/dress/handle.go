package dress

import (
	"fmt"
	"math"
	"slices"

	"brevium/core/assembly"
	"brevium/core/fasteners"
	"brevium/core/fold"
	"brevium/core/net"
)

// What a box is carried by.

// handleOn finds the two panels that a handle is on.
func handleOn(k *work) []*Panel {
	h := k.Handle
	if h.On != "" {
		panels, ok := k.resolve("on", h.On)
		if !ok {
			return nil
		}
		if panels = first(panels); len(panels) != 2 || panels[0].Face.In.Dot(panels[1].Face.In) > -0.99 {
			k.wrong("on", "A handle needs two opposite panels.", "Choose two, such as left and right.",
				"dress.handle.on", "")
			return nil
		}
		return panels
	}
	for _, pair := range [][2]string{{"left", "right"}, {"front", "back"}} {
		a := largest(k, func(p *Panel) bool { return p.Looks == pair[0] && !p.Lid && p.Face.Upright() })
		b := largest(k, func(p *Panel) bool { return p.Looks == pair[1] && !p.Lid && p.Face.Upright() })
		if a != nil && b != nil {
			return []*Panel{a, b}
		}
	}
	k.wrong("kind", "This box has no two opposite walls for a handle.", "Leave the handle out.",
		"dress.handle.kind", "")
	return nil
}

// liftsOff reports whether something comes off upwards over the walls.
func liftsOff(k *work) bool {
	return slices.ContainsFunc(k.box.Parts, func(p *assembly.Part) bool {
		return p.When == net.Close && p.Off == assembly.Up
	})
}

// What card and glue hold for good, with a large margin: newtons a square millimetre of
// stuck strip, and a square millimetre of card that a hole would tear through.
const stuckHolds, tearHolds = 0.01, 1.0

func handle(k *work) {
	h := k.Handle
	if h == nil {
		return
	}
	k.entry = "handle"
	on := handleOn(k)
	if len(on) != 2 {
		return
	}
	apart := math.Abs(on[0].Face.Middle().Sub(on[1].Face.Middle()).Dot(on[0].Face.In))
	if h.Kind == "strip" || h.Kind == "swing" {
		strip(k, on, measured(apart))
		return
	}
	long := measured(apart)*3/2 + 2*max(h.Height, 80*mm) + 120*mm
	if liftsOff(k) {
		long += 2 * lidReaches(k, on[0])
	}
	long = k.nice(long)
	k.supply(h.Kind, 0, long, 1, "as a handle, through the holes, knotted inside")
	k.before("Thread %s of %s through the holes of the %s as a handle, and knot both ends inside.", k.Say(long), h.Kind,
		k.called(on))
	k.box.Caution(fasteners.RibbonCare)
	bears(k, 4*2*12*k.T.MM()*tearHolds)
}

// strip is a handle of card, bent over the box in a half round, its ends stuck on the walls or held by a brad each.
func strip(k *work, on []*Panel, apart Length) {
	h := k.Handle
	if liftsOff(k) && h.Kind == "strip" {
		k.wrong("kind", "A handle stuck over the box would keep the lid on.",
			"Let it swing on brads, choose an open box, or leave it out.", "dress.handle.kind", "swing")
		return
	}
	reach := Length(0)
	if liftsOff(k) {
		reach = lidReaches(k, on[0])
	}
	_, high := on[0].Size()
	end := min(high-reach, max(25*mm, 2*k.Sticks.Width, h.Width)).Down(k.Step.Size)
	if end < k.Sticks.Width || end < 12*mm {
		k.wrong("on", fmt.Sprintf("The %s is too low for the ends of a handle.", k.called(on)),
			"Leave the handle out, or choose higher walls.", "dress.handle.kind", "")
		return
	}
	t := h.Card.Caliper
	span := apart + on[0].T + t + on[0].Thick() + on[1].Thick()
	arc := fasteners.HalfRound(span)
	whole := (arc + 2*(end+reach)).Up(k.Step.Size)
	long := (whole - arc) / 2 // of each end, what is rounded up with it
	p := fasteners.Handle(k.name("handle"), [2]string{"one-end", "other-end"}, h.Width, long, whole, span, "one-end", "arch", "other-end")
	p.Part, p.Stock, p.Caliper = net.Handle, h.Card.ID, t
	p.Find()
	a := on[0]
	down := a.spot(0, long/2-high/2)
	mid := a.mid()
	// Drawn with its arch below the end; as it stands the arch is above.
	at := assembly.Place{Face: "one-end", On: a.Ref(), Nth: a.Nth, Right: down.X - mid.X, Down: down.Y - mid.Y,
		Out: a.T/2 + a.Thick() + t/2, Quarters: (a.up + 2) % 4}
	part := k.add(p, h.Card, []string{on[0].Ref(), on[1].Ref()}, at)
	if with := collides(k, part.Name); with != "" {
		k.wrong("kind", fmt.Sprintf("A handle over the box would touch it: %s.", with),
			"Choose ribbon or cord through holes, or leave the handle out.", "dress.handle.kind", "")
		return
	}
	for i, name := range []string{"one-end", "other-end"} {
		if on[i].Thick() == 0 {
			k.box.Joins = append(k.box.Joins, assembly.Join{A: part.Name + "/" + name, B: on[i].Ref(), Layers: 1, Lapped: true})
		} else {
			part.Rests = true
		}
	}
	if h.Kind == "swing" {
		k.supply("brad", 0, 0, 2, "one through each end of the handle and the wall under it")
		k.before("Pierce each end of the %s and the wall behind it together. "+
			"Push a brad through each hole and open its legs inside: the handle can now swing.", part.Name)
		bears(k, 2*2*end.MM()/2*k.T.MM()*tearHolds)
		return
	}
	k.before("Bend the %s over something round, and stick its ends to the %s.", part.Name, k.called(on))
	bears(k, 2*h.Width.MM()*end.MM()*stuckHolds)
}

// collides says what parts of the closed box run into, "" for nothing.
func collides(k *work, parts ...string) string {
	s := k.box.Assemble(k.T, assembly.Closed)
	for _, part := range parts {
		own := s.Of(part)
		c := fold.Apart(func(p, q *fold.Placed) bool { return p.Body != own && q.Body != own }, s.Bodies...)
		if !c.Holds {
			return plain(c.Figure)
		}
		if hits := s.Crushed(part, nil); len(hits) > 0 {
			return hits[0]
		}
	}
	return ""
}

// lidReaches is how far down a lid comes over a wall.
func lidReaches(k *work, p *Panel) (by Length) {
	_, top := fold.Reach(p.Face)
	for _, q := range k.out.Panels {
		if q.Lid && q.Looks == p.Looks {
			lo, _ := fold.Reach(q.Face)
			by = max(by, measured(top.Z-lo.Z).Up(k.Step.Size))
		}
	}
	return by
}

// bears checks that a handle holds what goes in, in newtons.
func bears(k *work, holds float64) {
	if load := k.Mass * 9.81 / 1000 * 2; k.Mass > 0 && load > holds { // twice, for when it is swung up
		k.wrong("kind", fmt.Sprintf("Your things weigh %.0f g, but this handle holds about %.0f g.", k.Mass,
			holds/9.81*1000/2),
			"Make it wider or use thicker card, carry the box from below, or leave the handle out.", "dress.handle.kind", "")
	}
}
