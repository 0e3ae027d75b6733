// Package readings is what is read off a finished plan: the corner where one thing goes over another, what the box
// bears, which way the grain runs, what is left over, what to lay out before beginning.
package readings

import (
	"cmp"
	"fmt"
	"slices"

	"brevium/core/assembly"
	"brevium/core/dress"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/shop"
	"brevium/core/style"
)

// Section is the corner where one thing goes over another, from the inside out:
// every thickness, and the gap on either side.
type Section struct {
	Outer, Inner string
	Skins        []Skin
	Gap, Play    style.Length // on each side, and over the whole width
	Verdict      string       // tight, loose, or ""
	Bulk         style.Length // of all that lies between the scores, both sides together
	Wraps        bool         // the outer one is a band: in plain numbers its size doesn't follow the fit
}

// Skin is one thickness in it.
type Skin struct {
	What, Stock string
	Is          string // card, layer or gap
	Thick       style.Length
}

// Sections gives the corner of each thing that goes over another, by the gap that was
// measured when the box was folded, or reckoned where both are one piece.
func Sections(p *plan.Plan) (out []Section) {
	if p.Box == nil {
		return nil
	}
	for _, c := range p.Box.Clears {
		name, face := assembly.Ref(c.Outer)
		outer, inner := p.Box.Part(name), p.Box.Part(c.Inner)
		if face == "" {
			outer = p.Box.Part(c.Outer)
		}
		if inner == nil {
			inner = outer
		}
		if outer == nil || inner == nil || outer.Piece == nil || inner.Piece == nil || !c.Fits ||
			len(inner.At) > 1 {
			continue
		}
		s := Section{Outer: c.Outer, Inner: cmp.Or(c.Inner, "base")}
		if face != "" {
			s.Outer = face
		}
		tOut, tIn := p.CardOf(outer.Piece.Stock), p.CardOf(inner.Piece.Stock)
		if inner.Piece.Has("rolled flap") || inner.Piece.Has("wrapped corner") {
			s.Skins = append(s.Skins, Skin{s.Inner + ", rolled in", tIn.ID, "card", tIn.Caliper})
		}
		s.Skins = append(s.Skins, Skin{s.Inner + " wall", tIn.ID, "card", tIn.Caliper})
		if c.Skin > 0 {
			s.Skins = append(s.Skins, layersOn(p, c)...)
		}
		at := len(s.Skins)
		if c.Skin > 0 {
			for range p.Inside {
				s.Skins = append(s.Skins, Skin{"layer inside", p.Layer.ID, "layer", p.Layer.Caliper})
			}
		}
		for range c.Layers {
			s.Skins = append(s.Skins, Skin{s.Outer + ", inside its wall", tOut.ID, "card", tOut.Caliper})
		}
		s.Skins = append(s.Skins, Skin{s.Outer + " wall", tOut.ID, "card", tOut.Caliper})
		over := shop.Over{Inner: tIn.Caliper, Outer: tOut.Caliper, Layers: c.Layers, Outside: c.Skin}
		s.Bulk, s.Wraps = over.Bulk(), outer.Piece.Part == net.Band
		if s.Play = p.Box.Clearance - s.Bulk; face == "" {
			s.Play = measuredPlay(p, c, tOut.Caliper, s.Play)
		}
		s.Gap = s.Play / 2
		s.Skins = slices.Insert(s.Skins, at, Skin{"gap", "", "gap", s.Gap})
		switch {
		case s.Play < shop.TooTight:
			s.Verdict = "tight"
		case s.Play > shop.TooLoose && !likesIt(p, s.Play):
			s.Verdict = "loose"
		}
		out = append(out, s)
	}
	return out
}

// layersOn lists the layers between two things: those that lie there, or as many as were said.
func layersOn(p *plan.Plan, c assembly.Clear) (out []Skin) {
	if said := style.Length(p.Outside) * p.Layer.Caliper; p.Dressed == nil || p.Skin <= said {
		for range p.Outside {
			out = append(out, Skin{"layer outside", p.Layer.ID, "layer", p.Layer.Caliper})
		}
		return out
	}
	var thickest *dress.Panel
	for _, panel := range p.Dressed.Panels {
		if panel.Part == c.Inner && slices.Contains(c.Sides, panel.Looks) && (thickest == nil || panel.Thick() > thickest.Thick()) {
			thickest = panel
		}
	}
	if thickest != nil {
		for _, l := range thickest.On {
			out = append(out, Skin{"layer outside", l.Card.ID, "layer", l.Card.Caliper})
		}
	}
	return out
}

// measuredPlay reads off the folded box how much room is left on two opposite sides,
// when what lies between is taken off; otherwise it is as reckoned.
func measuredPlay(p *plan.Plan, c assembly.Clear, t, reckoned style.Length) style.Length {
	outer, inner := p.Box.Proved.Of(c.Outer), p.Box.Proved.Of(c.Inner)
	if outer == nil || inner == nil {
		return reckoned
	}
	gap := map[string]float64{}
	for _, g := range fold.Clearances(outer, inner) {
		gap[g.Side] = g.Walls
	}
	for _, pair := range [][2]string{{"left", "right"}, {"front", "back"}, {"below", "above"}} {
		a, okA := gap[pair[0]]
		b, okB := gap[pair[1]]
		if okA && okB && slices.Contains(c.Sides, pair[0]) && slices.Contains(c.Sides, pair[1]) {
			skin := c.Skin
			if pair[0] == "below" { // layers that are only counted lie on the walls, not above or below
				skin = p.Skin
			}
			return measure.FromMM(a+b).Near(measure.Millimetre/100_000) - 2*skin - 2*t*style.Length(c.Layers)
		}
	}
	return reckoned
}

// Fine writes what is smaller than the marks.
func Fine(p *plan.Plan, l measure.Length) string {
	return plan.InUnit(fmt.Sprintf("%.1f mm", l.MM()), p.Step.Unit)
}

// likesIt reports whether so much play is what lids of this card were found to want here, rounded up to the
// marks the tools have.
func likesIt(p *plan.Plan, play measure.Length) bool {
	return p.Slack > p.Usual && play < p.Slack+p.Step.Size
}
