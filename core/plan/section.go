package plan

import (
	"cmp"
	"fmt"
	"slices"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/dress"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/sheet"
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
	bulk         style.Length // of all that lies between the scores, both sides together
	wraps        bool         // the outer one is a band: in plain numbers its size doesn't follow the fit
}

// Skin is one thickness in it.
type Skin struct {
	What, Stock string
	Is          string // card, layer or gap
	Thick       style.Length
}

// sections gives the corner of each thing that goes over another, by the gap that was
// measured when the box was folded, or reckoned where both are one piece.
func (p *Plan) sections() (out []Section) {
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
			s.Skins = append(s.Skins, p.layersOn(c)...)
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
		s.bulk, s.wraps = over.Bulk(), outer.Piece.Part == sheet.Band
		if s.Play = p.Box.Clearance - s.bulk; face == "" {
			s.Play = p.measuredPlay(c, tOut.Caliper, s.Play)
		}
		s.Gap = s.Play / 2
		s.Skins = slices.Insert(s.Skins, at, Skin{"gap", "", "gap", s.Gap})
		switch {
		case s.Play < shop.TooTight:
			s.Verdict = "tight"
		case s.Play > shop.TooLoose && !p.likesIt(s.Play):
			s.Verdict = "loose"
		}
		out = append(out, s)
	}
	return out
}

// layersOn lists the layers between two things: those that lie there, or as many as
// were said.
func (p *Plan) layersOn(c assembly.Clear) (out []Skin) {
	if said := style.Length(p.Outside) * p.Layer.Caliper; p.Dressed == nil || p.skin <= said {
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

// warnIdle tells of what is said of the shop and does nothing in this box.
func (p *Plan) warnIdle() {
	idle := func(text, field string) {
		p.Warn(brief.Warning{Code: "idle-option", Text: text, Fix: "Clear it.", Set: map[string]string{field: ""}})
	}
	for part := range brief.Sorted(p.Stocks) {
		if !slices.Contains(p.Style.Parts(), part) && (part != "lid" || len(p.Style.Apart) == 0) {
			idle(fmt.Sprintf("This box has no part called “%s” that could be of another card.", part), "card.stocks."+part)
		}
	}
	if p.Floor > 0 && p.Box.Part("floor liner") == nil {
		idle("This box has no tray whose floor could be lined.", "dress.floor")
	}
	fits := slices.ContainsFunc(p.Box.Clears, func(c assembly.Clear) bool { return c.Fits })
	if p.Outside+p.Inside > 0 && !fits {
		field := "dress.outside"
		if p.Outside == 0 {
			field = "dress.inside"
		}
		idle("Nothing slides over the walls of this box, so layers on them change no size.", field)
	}
}

// measuredPlay reads off the folded box how much room is left on two opposite sides,
// when what lies between is taken off; otherwise it is as reckoned.
func (p *Plan) measuredPlay(c assembly.Clear, t, reckoned style.Length) style.Length {
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
				skin = p.skin
			}
			return measure.FromMM(a+b).Near(measure.Millimetre/100_000) - 2*skin - 2*t*style.Length(c.Layers)
		}
	}
	return reckoned
}

// warnFit tells of a lid that is too tight or too loose.
func (p *Plan) warnFit() {
	p.Sections = p.sections()
	p.warnIdle()
	if p.Style.Typed {
		return // its clearance is given, and was compared with what the card wants
	}
	for _, s := range p.Sections {
		switch s.Verdict {
		case "tight":
			if p.Plain { // it is to be trimmed by eye, and that is said
				continue
			}
			p.Warn(brief.Warning{Code: "tight-lid", Text: fmt.Sprintf("The %s has only %s of play over its whole width: it will "+
				"hardly go on.", s.Outer, p.fine(max(0, s.Play))), Fix: "Choose a looser fit, fewer layers or thinner card."})
		case "loose":
			w := brief.Warning{Code: "loose-lid", Text: fmt.Sprintf("The %s has %s of play over its whole width: it will slide "+
				"about.", s.Outer, p.fine(s.Play)), Fix: "Line its walls with strips of card."}
			if fit := p.snugger(s.bulk); fit != "" && !(p.Plain && s.wraps) {
				w.Fix, w.Set = fmt.Sprintf("Choose the %s fit, or line its walls with strips of card.", fit), map[string]string{"tools.fit": fit}
			}
			p.Warn(w)
		}
	}
}

// likesIt reports whether so much play is what lids of this card were found to want here, rounded up to the
// marks the tools have.
func (p *Plan) likesIt(play measure.Length) bool {
	return p.Slack > p.Usual && play < p.Slack+p.Step.Size
}

// snugger is the loosest fit that leaves less play than this one on the same marks, "" where none does.
func (p *Plan) snugger(bulk measure.Length) (fit string) {
	best := measure.Length(-1)
	for id, slack := range shop.Slack {
		if slack < p.Usual && slack > best && (bulk+slack).Up(p.Step.Size) < (bulk+p.Slack).Up(p.Step.Size) && p.Slack == p.Usual {
			fit, best = id, slack
		}
	}
	return fit
}

// fine writes what is smaller than the marks.
func (p *Plan) fine(l measure.Length) string {
	return inUnit(fmt.Sprintf("%.1f mm", l.MM()), p.Step.Unit)
}
