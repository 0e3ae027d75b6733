package plan

import (
	"fmt"
	"slices"

	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/sheet"
)

// warn notes what a good maker would say about a plan that can be cut.
func (p *Plan) warn(w Workshop) {
	p.warnCorners()
	p.warnMarks()
	p.warnShape()
	p.warnFit()
	p.warnStrength(w)
	p.warnStock()
	p.warnOnSide()
	p.warnCard()
	if p.Units != p.Step.Unit {
		w := brief.Warning{Code: "two-units", Text: fmt.Sprintf("The project is in %s but the tools are marked in %s.",
			p.Units.Word(), p.Step.Unit.Word()),
			Fix: "Choose a step in the project's own unit.",
			Set: map[string]string{"tools.step": measure.DefaultStep(p.Units).String()}}
		if p.Tools.Reads > 0 { // it is the trimmer's
			w.Fix, w.Set = "Plan it in the unit of your trimmer.", map[string]string{"units": string(p.Step.Unit)}
		}
		p.Warn(w)
	}
}

// warnCorners says when a lid's tabs leave less room than the card has give.
func (p *Plan) warnCorners() {
	if p.Style.Typed {
		return // its clearance is given, and was compared with what the card wants
	}
	a := p.Box.Proved
	at := map[string]string{"left": "at the left", "right": "at the right", "front": "in front", "back": "at the back",
		"above": "above", "below": "below"}
	for _, c := range p.Box.Clears {
		lid, base := a.Of(c.Outer), a.Of(c.Inner)
		if lid == nil || base == nil || len(c.Sides) != 4 {
			continue
		}
		for _, g := range fold.Clearances(lid, base) {
			if g.Tabs >= -p.Card.Caliper.MM()/4 {
				continue
			}
			w := brief.Warning{Code: "tight-corners",
				Text: fmt.Sprintf("The %s will be tight at its corners: the tabs inside it want %s more %s than the clearance leaves.",
					c.Outer, inUnit(fmt.Sprintf("%.1f mm", -g.Tabs), p.Step.Unit), at[g.Side]),
				Fix: "Choose the next looser fit, or lighter card."}
			switch {
			case p.Plain && p.Box.Piece(c.Outer).Part == sheet.Band:
				w.Fix, w.Set = "Let the numbers take in the card's thickness.", map[string]string{"tools.allowances": "card"}
			case p.Brief.Tools.Fit == "snug":
				w.Set = map[string]string{"tools.fit": "easy"}
			case p.Brief.Tools.Fit == "easy":
				w.Set = map[string]string{"tools.fit": "loose"}
			}
			p.Warn(w)
			return
		}
	}
}

// warnMarks says when a cut does not fall on the tools' marks.
func (p *Plan) warnMarks() {
	for _, piece := range p.Box.Pieces() {
		if piece.Shaped() {
			continue // cut by its shape
		}
		for _, side := range []measure.Length{piece.Width, piece.Height} {
			if side%p.Step.Size == 0 {
				continue
			}
			p.Warn(brief.Warning{Code: "off-the-marks",
				Text: fmt.Sprintf("The %s is %s on one side, between the marks of your tools (%s).", piece.Name,
					side.Exact(p.Units), p.Step),
				Fix: "Give sizes in whole steps, or choose a finer step if your tools have one."})
			return
		}
	}
}

// From so thick on, card cracks where it is pinched and not scored, in millimetres; and so much weight, in
// grams, draws tape off in time.
const pinchable, tapeHolds = 0.25, 400

// warnCard says what heavy card and heavy contents ask for: a score and not a pinch, wet glue and not tape.
func (p *Plan) warnCard() {
	pinch := func(thick measure.Length, text, fix string, set map[string]string) {
		if thick.MM() >= pinchable {
			p.Warn(brief.Warning{Code: "score-it", Text: fmt.Sprintf(text, fmt.Sprintf("%.2f mm", thick.MM())), Fix: fix, Set: set})
		}
	}
	if p.Answers.Choice["gussets"] == "pinched" {
		if _, asks := p.Style.Ask("gussets"); asks {
			pinch(p.CardOf(p.outerCard().ID).Caliper, "Card of %s cracks where gussets are pinched in without a score.",
				"Score the gussets.", map[string]string{"box.options.gussets": "scored"})
		}
	}
	if p.Forms {
		for _, piece := range p.Box.Pieces() {
			if c := p.CardOf(piece.Stock); p.wraps(piece) && c.Caliper.MM() >= pinchable {
				pinch(c.Caliper, "Card of %s cracks where a strap or a cover is pinched round the box.",
					"Score it by measure, before it goes on.", map[string]string{"tools.wraps": "scored"})
				break
			}
		}
	}
	if g := p.goesIn(); g >= tapeHolds && p.Adhesive.ID == "tape" && p.glued() {
		p.Warn(brief.Warning{Code: "glue-it", Text: fmt.Sprintf("What goes in weighs %s: under so much weight tape creeps off in time.",
			weight(g)), Fix: "Stick it with wet glue, and let it dry.", Set: map[string]string{"tools.adhesive": "glue"}})
	}
}

// glued reports whether anything of the box itself is stuck.
func (p *Plan) glued() bool {
	return slices.ContainsFunc(p.Box.Pieces(), func(piece *sheet.Piece) bool { return len(piece.Glues) > 0 })
}

// warnOnSide says when something that must stay upright is shared out to a small box
// that comes to lie on its side.
func (p *Plan) warnOnSide() {
	for i, r := range p.Rooms {
		for _, t := range r.Load.Things {
			if t.Upright && p.Box.Rooms[i].OnSide {
				p.Warn(brief.Warning{Code: "on-its-side", Text: fmt.Sprintf("The %s must stay upright, and the %s lies on its side "+
					"when all is closed.", t.Name, r.Name), Fix: "Choose another style for it, or leave it out."})
				return
			}
		}
	}
}

func (p *Plan) warnShape() {
	s := p.Box.Size
	if s.Depth > 2*min(s.Length, s.Width) && !p.Style.Tall {
		p.Warn(brief.Warning{Code: "tall", Text: "This box is more than twice as deep as it is wide: things are hard to take " +
			"out and it tips easily.",
			Fix: "Lay the things down or spread them out, or choose a style for tall things."})
	}
}

// care is what the contents ask for: plain cautions, and no word that anything
// is safe or allowed.
func (p *Plan) care() (says []string) {
	add := func(has func(contents.Thing) bool, text string) {
		for _, t := range p.Load.Things {
			if has(t) {
				says = append(says, fmt.Sprintf(text, t.Name))
				return
			}
		}
	}
	add(func(t contents.Thing) bool { return t.Food }, "Card, ink and glue are not made to touch food: wrap the %s or line "+
		"the box with food paper, and follow your local rules for labelling and selling food.")
	add(func(t contents.Thing) bool { return t.Flame }, "Never light the %s in or near the box; pass on its maker's "+
		"instructions.")
	add(func(t contents.Thing) bool { return t.Liquid }, "Close the %s tightly and keep it upright; a leak softens card.")
	add(func(t contents.Thing) bool { return t.Fragile }, "Wrap the %s so that it can't knock against its neighbours.")
	if g := p.Load.Grams(); g > 700 {
		says = append(says, fmt.Sprintf("This weighs about %.1f kg: carry the box from below, and put nothing heavy on top of "+
			"another box.", g/1000))
	}
	return says
}
