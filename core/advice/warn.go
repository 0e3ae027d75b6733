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
		w := brief.Warning{Code: "two-units", Text: fmt.Sprintf("This box is in %s, but your tools are marked in %s.",
			a.Units.Word(), a.Step.Unit.Word()), Fix: "Choose marks in the same unit as the box.",
			Set: brief.To("tools.step", measure.DefaultStep(a.Units).String())}
		if a.Tools.Reads > 0 { // it is the trimmer's
			w.Fix, w.Set = "Plan the box in your trimmer's unit.", brief.To("units", string(a.Step.Unit))
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
				Text: fmt.Sprintf("The %s will be tight at its corners. The tabs inside it need %s more %s than the "+
					"clearance leaves.",
					c.Outer, plan.InUnit(fmt.Sprintf("%.1f mm", -g.Tabs), a.Step.Unit), at[g.Side]),
				Fix: "Choose a looser fit, or thinner card."}
			switch {
			case a.Plain && a.Box.Piece(c.Outer).Part == net.Band:
				w.Fix, w.Set = "Let the sizes allow for the card's thickness.", brief.To("tools.allowances", "card")
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
				Text: fmt.Sprintf("One side of the %s is %s. That falls between the marks on your tools (%s).", piece.Name,
					side.Exact(a.Units), a.Step),
				Fix: "Use sizes that fall on a mark, or choose finer marks if your tools have them."})
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
			a.Warn(brief.Warning{Code: "score-it", Text: fmt.Sprintf(text, thick.Fine(a.Step.Unit)), Fix: fix, Set: set})
		}
	}
	for _, f := range a.Style.Remedies(style.Uncracked, a.Answers) {
		pinch(a.CardOf(a.OuterCard().ID).Caliper, "Card %s thick cracks if you pinch the gussets in without a "+
			"score.", f.Text, f.Set)
	}
	if a.Forms {
		for _, piece := range a.Box.Pieces() {
			if c := a.CardOf(piece.Stock); a.Wraps(piece) && c.Caliper.MM() >= pinchable {
				pinch(c.Caliper, "Card %s thick cracks if you pinch a strap or cover around the box.",
					"Measure and score it before it goes on.", brief.To("tools.wraps", "scored"))
				break
			}
		}
	}
	if g := a.Mass(); g >= tapeHolds && a.Adhesive.ID == "tape" && a.glued() {
		a.Warn(brief.Warning{Code: "glue-it", Text: fmt.Sprintf("Your things weigh %s. Tape works loose under that "+
			"much weight.",
			readings.Weight(g)), Fix: "Use wet glue, and let it dry.", Set: brief.To("tools.adhesive", "glue")})
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
				a.Warn(brief.Warning{Code: "on-its-side", Text: fmt.Sprintf("The %s must stay upright, but the %s "+
					"lies on its side when the box is closed.", t.Name, r.Name), Fix: "Choose another box for it, or " +
					"leave it out."})
				return
			}
		}
	}
}

func (a *adviser) warnShape() {
	s := a.Box.Size
	if s.Depth > 2*min(s.Length, s.Width) && !a.Style.Tall {
		a.Warn(brief.Warning{Code: "tall", Text: "This box is more than twice as deep as it is wide. It tips easily, " +
			"and things are hard to take out.",
			Fix: "Lay the things down, spread them out, or choose a box for tall things."})
	}
}

// warnIdle tells of what is said of the shop and does nothing in this box.
func (a *adviser) warnIdle() {
	idle := func(text, field string) {
		a.Warn(brief.Warning{Code: "idle-option", Text: text, Fix: "Clear it.", Set: brief.To(field, "")})
	}
	for part := range brief.Sorted(a.Stocks) {
		if !slices.Contains(a.Style.Parts(), part) && (part != "lid" || len(a.Style.Apart) == 0) {
			idle(fmt.Sprintf("This box has no part called “%s” to choose a card for.", part), "card.stocks."+part)
		}
	}
	if a.Floor > 0 && a.Box.Part("floor liner") == nil {
		idle("This box has no tray floor to line.", "dress.floor")
	}
	fits := slices.ContainsFunc(a.Box.Clears, func(c assembly.Clear) bool { return c.Fits })
	if a.Outside+a.Inside > 0 && !fits {
		field := "dress.outside"
		if a.Outside == 0 {
			field = "dress.inside"
		}
		idle("Nothing slides over these walls, so layers on them change nothing.", field)
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
			a.Warn(brief.Warning{Code: "tight-lid", Text: fmt.Sprintf("The %s is too tight: it has only %s of "+
				"play.", s.Outer, readings.Fine(a.Plan, max(0, s.Play))), Fix: "Choose a looser fit, fewer layers or " +
				"thinner card."})
		case "loose":
			w := brief.Warning{Code: "loose-lid", Text: fmt.Sprintf("The %s is loose: it has %s of play and will "+
				"slide about.", s.Outer, readings.Fine(a.Plan, s.Play)), Fix: "Line its walls with strips of card."}
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
		fix, set := "Use thicker card, or carry the box from below.", brief.Changes(nil)
		if len(c.Remedies) > 0 {
			fix, set = c.Remedies[0].Text, c.Remedies[0].Set
		}
		a.Warn(brief.Warning{Code: "weak-" + c.Code, Fix: fix, Set: set,
			Text: c.Text + " This is a guide: damp card and weak glue hold less."})
	}
}

// warnStock tells of card there is not enough of, and of cuts the trimmer is too short for.
func (a *adviser) warnStock() {
	for _, c := range a.Cuts {
		if n := len(c.Sheets); !c.Offcut && c.Card.Hand >= 0 && n > c.Card.Hand && c.Sheet.Same(a.Comes(c.Card)[0]) {
			a.Warn(brief.Warning{Code: "short-of-card", Text: fmt.Sprintf("You need %s of %s, but you have %d.",
				words.Count(n, "sheet"),
				c.Card.Title, c.Card.Hand), Fix: "Buy more, make fewer boxes, or choose another card."})
		}
	}
	if long := longestCut(a.Plan); a.Tools.Cuts > 0 && long > a.Tools.Cuts {
		a.Warn(brief.Warning{Code: "long-cut", Text: fmt.Sprintf("One cut is %s long, but your trimmer only "+
			"cuts %s.", a.Say(long),
			a.Say(a.Tools.Cuts)), Fix: "Cut it with a knife along a steel ruler, or choose a smaller sheet."})
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
