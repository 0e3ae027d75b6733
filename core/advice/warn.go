package advice

import (
	"fmt"
	"slices"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/readings"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/words"
)

// warn notes what a good maker would say about a plan that can be cut.
func (a *adviser) warn(search bool) {
	if !a.OK() {
		return
	}
	a.warnCorners()
	a.warnMarks()
	a.warnShape()
	a.warnFit()
	a.warnStrength(search)
	a.warnStock()
	a.warnOnSide()
	a.warnCard()
	if a.Units != a.Step.Unit {
		w := brief.Warning{Code: "two-units", Text: fmt.Sprintf("The project is in %s but the tools are marked in %s.",
			a.Units.Word(), a.Step.Unit.Word()), Fix: "Choose a step in the project's own unit.",
			Set: brief.To("tools.step", measure.DefaultStep(a.Units).String())}
		if a.Tools.Reads > 0 { // it is the trimmer's
			w.Fix, w.Set = "Plan it in the unit of your trimmer.", brief.To("units", string(a.Step.Unit))
		}
		a.Warn(w)
	}
}

// warnCorners says when a lid's tabs leave less room than the card has give.
func (a *adviser) warnCorners() {
	if a.Style.Typed {
		return // its clearance is given, and was compared with what the card wants
	}
	closed := a.Box.Proved
	at := map[string]string{"left": "at the left", "right": "at the right", "front": "in front", "back": "at the back",
		"above": "above", "below": "below"}
	for _, c := range a.Box.Clears {
		lid, base := closed.Of(c.Outer), closed.Of(c.Inner)
		if lid == nil || base == nil || len(c.Sides) != 4 {
			continue
		}
		for _, g := range fold.Clearances(lid, base) {
			if g.Tabs >= -a.Card.Caliper.MM()/4 {
				continue
			}
			w := brief.Warning{Code: "tight-corners",
				Text: fmt.Sprintf("The %s will be tight at its corners: the tabs inside it want %s more %s than the clearance leaves.",
					c.Outer, plan.InUnit(fmt.Sprintf("%.1f mm", -g.Tabs), a.Step.Unit), at[g.Side]),
				Fix: "Choose the next looser fit, or lighter card."}
			switch {
			case a.Plain && a.Box.Piece(c.Outer).Part == net.Band:
				w.Fix, w.Set = "Let the numbers take in the card's thickness.", brief.To("tools.allowances", "card")
			case a.Brief.Tools.Fit == "snug":
				w.Set = brief.To("tools.fit", "easy")
			case a.Brief.Tools.Fit == "easy":
				w.Set = brief.To("tools.fit", "loose")
			}
			a.Warn(w)
			return
		}
	}
}

// warnMarks says when a cut does not fall on the tools' marks.
func (a *adviser) warnMarks() {
	for _, piece := range a.Box.Pieces() {
		if piece.Shaped() {
			continue // cut by its shape
		}
		for _, side := range []measure.Length{piece.Width, piece.Height} {
			if side%a.Step.Size == 0 {
				continue
			}
			a.Warn(brief.Warning{Code: "off-the-marks",
				Text: fmt.Sprintf("One side of the %s is %s, which falls between the marks of your tools (%s).", piece.Name,
					side.Exact(a.Units), a.Step),
				Fix: "Give sizes in whole steps, or choose a finer step if your tools have one."})
			return
		}
	}
}

// From so thick on, card cracks where it is pinched and not scored, in millimetres; and so much weight, in
// grams, draws tape off in time.
const pinchable, tapeHolds = 0.25, 400

// warnCard says what heavy card and heavy contents ask for: a score and not a pinch, wet glue and not tape.
func (a *adviser) warnCard() {
	pinch := func(thick measure.Length, text, fix string, set brief.Changes) {
		if thick.MM() >= pinchable {
			a.Warn(brief.Warning{Code: "score-it", Text: fmt.Sprintf(text, fmt.Sprintf("%.2f mm", thick.MM())), Fix: fix, Set: set})
		}
	}
	for _, f := range a.Style.Remedies(style.Uncracked, a.Answers) {
		pinch(a.CardOf(a.OuterCard().ID).Caliper, "Card of %s cracks where gussets are pinched in without a score.", f.Text, f.Set)
	}
	if a.Forms {
		for _, piece := range a.Box.Pieces() {
			if c := a.CardOf(piece.Stock); a.Wraps(piece) && c.Caliper.MM() >= pinchable {
				pinch(c.Caliper, "Card of %s cracks where a strap or a cover is pinched round the box.",
					"Score it by measure, before it goes on.", brief.To("tools.wraps", "scored"))
				break
			}
		}
	}
	if g := a.Mass(); g >= tapeHolds && a.Adhesive.ID == "tape" && a.glued() {
		a.Warn(brief.Warning{Code: "glue-it", Text: fmt.Sprintf("What goes in weighs %s. Under that much weight, tape comes loose in time.",
			readings.Weight(g)), Fix: "Stick it with wet glue, and let it dry.", Set: brief.To("tools.adhesive", "glue")})
	}
}

// glued reports whether anything of the box itself is stuck.
func (a *adviser) glued() bool {
	return slices.ContainsFunc(a.Box.Pieces(), func(piece *net.Piece) bool { return len(piece.Glues) > 0 })
}

// warnOnSide says when something that must stay upright is shared out to a small box that comes to lie on its side.
func (a *adviser) warnOnSide() {
	for i, r := range a.Rooms {
		for _, t := range r.Load.Things {
			if t.Upright && a.Box.Rooms[i].OnSide {
				a.Warn(brief.Warning{Code: "on-its-side", Text: fmt.Sprintf("The %s must stay upright, and the %s lies on its side "+
					"when all is closed.", t.Name, r.Name), Fix: "Choose another style for it, or leave it out."})
				return
			}
		}
	}
}

func (a *adviser) warnShape() {
	s := a.Box.Size
	if s.Depth > 2*min(s.Length, s.Width) && !a.Style.Tall {
		a.Warn(brief.Warning{Code: "tall", Text: "This box is more than twice as deep as it is wide: things are hard to take " +
			"out and it tips easily.",
			Fix: "Lay the things down or spread them out, or choose a style for tall things."})
	}
}

// warnIdle tells of what is said of the shop and does nothing in this box.
func (a *adviser) warnIdle() {
	idle := func(text, field string) {
		a.Warn(brief.Warning{Code: "idle-option", Text: text, Fix: "Clear it.", Set: brief.To(field, "")})
	}
	for part := range brief.Sorted(a.Stocks) {
		if !slices.Contains(a.Style.Parts(), part) && (part != "lid" || len(a.Style.Apart) == 0) {
			idle(fmt.Sprintf("This box has no part called “%s” that could be of another card.", part), "card.stocks."+part)
		}
	}
	if a.Floor > 0 && a.Box.Part("floor liner") == nil {
		idle("This box has no tray whose floor could be lined.", "dress.floor")
	}
	fits := slices.ContainsFunc(a.Box.Clears, func(c assembly.Clear) bool { return c.Fits })
	if a.Outside+a.Inside > 0 && !fits {
		field := "dress.outside"
		if a.Outside == 0 {
			field = "dress.inside"
		}
		idle("Nothing slides over the walls of this box, so layers on them change no size.", field)
	}
}

// warnFit tells of a lid that is too tight or too loose.
func (a *adviser) warnFit() {
	sections := readings.Sections(a.Plan)
	a.warnIdle()
	if a.Style.Typed {
		return // its clearance is given, and was compared with what the card wants
	}
	for _, s := range sections {
		switch s.Verdict {
		case "tight":
			if a.Plain { // it is to be trimmed by eye, and that is said
				continue
			}
			a.Warn(brief.Warning{Code: "tight-lid", Text: fmt.Sprintf("The %s has only %s of play over its whole width: it will "+
				"hardly go on.", s.Outer, readings.Fine(a.Plan, max(0, s.Play))), Fix: "Choose a looser fit, fewer layers or thinner card."})
		case "loose":
			w := brief.Warning{Code: "loose-lid", Text: fmt.Sprintf("The %s has %s of play over its whole width: it will slide "+
				"about.", s.Outer, readings.Fine(a.Plan, s.Play)), Fix: "Line its walls with strips of card."}
			if fit := a.snugger(s.Bulk); fit != "" && !(a.Plain && s.Wraps) {
				w.Fix, w.Set = fmt.Sprintf("Choose the %s fit, or line its walls with strips of card.", fit), brief.To("tools.fit", fit)
			}
			a.Warn(w)
		}
	}
}

// snugger is the loosest fit that leaves less play than this one on the same marks, "" where none does.
func (a *adviser) snugger(bulk measure.Length) (fit string) {
	best := measure.Length(-1)
	for id, slack := range shop.Slack {
		if slack < a.Usual && slack > best && (bulk+slack).Up(a.Step.Size) < (bulk+a.Slack).Up(a.Step.Size) && a.Slack == a.Usual {
			fit, best = id, slack
		}
	}
	return fit
}

// warnStrength tells what does not bear, with what would.
func (a *adviser) warnStrength(search bool) {
	for _, c := range readings.Carries(a.Plan) {
		if c.Holds {
			continue
		}
		if search {
			c.Remedies = a.strengthen(a.w, c.Code)
			a.Advice.Stronger[c.Code] = c.Remedies
		}
		fix, set := "Use heavier card, or carry the box from below.", brief.Changes(nil)
		if len(c.Remedies) > 0 {
			fix, set = c.Remedies[0].Text, c.Remedies[0].Set
		}
		a.Warn(brief.Warning{Code: "weak-" + c.Code, Fix: fix, Set: set,
			Text: c.Text + " That is a guide: damp card and poor glue bear less."})
	}
}

// warnStock tells of card there is not enough of, and of cuts the trimmer is too short for.
func (a *adviser) warnStock() {
	for _, c := range a.Cuts {
		if n := len(c.Sheets); !c.Offcut && c.Card.Hand >= 0 && n > c.Card.Hand && c.Sheet.Same(a.Comes(c.Card)[0]) {
			a.Warn(brief.Warning{Code: "short-of-card", Text: fmt.Sprintf("This takes %s of %s, and %d are in hand.",
				words.Count(n, "sheet"),
				c.Card.Title, c.Card.Hand), Fix: "Buy more, make fewer, or choose another card."})
		}
	}
	if long := longestCut(a.Plan); a.Tools.Cuts > 0 && long > a.Tools.Cuts {
		a.Warn(brief.Warning{Code: "long-cut", Text: fmt.Sprintf("One cut is %s long, and your trimmer cuts %s.", a.Say(long),
			a.Say(a.Tools.Cuts)), Fix: "Make it with a knife along a steel ruler, or choose a smaller sheet."})
	}
}

// longestCut is how long the longest cut on the sheets is.
func longestCut(p *plan.Plan) (long measure.Length) {
	for _, s := range p.Layout.Sheets {
		for _, c := range s.Cuts {
			if c.Down {
				long = max(long, c.In.H)
			} else {
				long = max(long, c.In.W)
			}
		}
	}
	return long
}
