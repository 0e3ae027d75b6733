package plan

import (
	"fmt"
	"slices"

	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/style"
	"brevium/core/words"
)

// What the tools of the shop make of a plan.

// Sticks is what it is stuck with, for the bench.
func (p *Plan) Sticks() bench.Sticks {
	a := p.Adhesive
	return bench.Sticks{ID: a.ID, Title: a.Title, Hold: a.Hold, Press: a.Press, Dry: a.Dry}
}

// sticksSaid tells it among what to lay out, with how much tape.
func (p *Plan) sticksSaid() string {
	says := p.Adhesive.Title
	if long := p.Tape.Long(); long > 0 {
		says = fmt.Sprintf("%s: about %s of tape in %s", says, p.Say(long.Up(10*p.Step.Size)), words.Count(p.Tape.Pieces(), "strip"))
	}
	return says
}

// spacers tells the strips that are laid against the fence, and what each is cut
// from: an offcut of the shop, or what is left of a sheet.
func (p *Plan) spacers(cards []bench.ScoreCard) (out []string) {
	if len(p.Tools.Grooves) == 0 {
		return nil
	}
	var sizes []measure.Length
	for _, c := range cards {
		for _, t := range c.Turns {
			for _, m := range t.At {
				if m.Spacer > 0 && !slices.Contains(sizes, m.Spacer) {
					sizes = append(sizes, m.Spacer)
				}
			}
		}
	}
	slices.Sort(sizes)
	for _, s := range sizes {
		out = append(out, fmt.Sprintf("Trim a strip %s wide to lay against the fence%s.", p.Say(s), p.leftFor(s)))
	}
	return out
}

// leftFor finds something to cut a strip from that is so wide and a hand long.
func (p *Plan) leftFor(wide measure.Length) string {
	const hand = 60 * measure.Millimetre
	takes := func(w, h measure.Length) bool { return min(w, h) >= wide && max(w, h) >= hand }
	for _, o := range p.Offcuts {
		if takes(o.Width, o.Height) {
			return fmt.Sprintf(", from the offcut of %s × %s that you kept", p.Say(o.Width), p.Say(o.Height))
		}
	}
	for i, s := range p.Layout.Sheets {
		j := slices.IndexFunc(s.Offcuts, func(r layout.Rect) bool { return takes(r.W, r.H) })
		if j >= 0 {
			return fmt.Sprintf(", from what is left of sheet %d (%s × %s)", i+1, p.Say(s.Offcuts[j].W), p.Say(s.Offcuts[j].H))
		}
	}
	return ", from any scrap"
}

// warnStock tells of card there is not enough of, and of cuts the trimmer is too short
// for.
func (p *Plan) warnStock() {
	for _, c := range p.Cuts {
		if n := len(c.Sheets); !c.Offcut && c.Card.Hand >= 0 && n > c.Card.Hand && c.Sheet.Same(p.Comes(c.Card)[0]) {
			p.Warn(brief.Warning{Code: "short-of-card", Text: fmt.Sprintf("This takes %s of %s, and %d are in hand.",
				words.Count(n, "sheet"),
				c.Card.Title, c.Card.Hand), Fix: "Buy more, make fewer, or choose another card."})
		}
	}
	if long := p.longestCut(); p.Tools.Cuts > 0 && long > p.Tools.Cuts {
		p.Warn(brief.Warning{Code: "long-cut", Text: fmt.Sprintf("One cut is %s long, and your trimmer cuts %s.", p.Say(long),
			p.Say(p.Tools.Cuts)), Fix: "Make it with a knife along a steel ruler, or choose a smaller sheet."})
	}
}

// longestCut is how long the longest cut on the sheets is.
func (p *Plan) longestCut() (long measure.Length) {
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

// Odd counts the scores of a plan that no groove sets.
func (p *Plan) Odd() (n int) {
	for _, c := range p.Cards {
		n += c.Odd()
	}
	return n
}

// chooseClearance picks, where the house leaves it to the plan, where the clearance
// comes from: the school that leaves fewest scores no groove sets.
func (p *Plan) chooseClearance() {
	q, asks := p.Style.Ask("clearance")
	if !asks || p.Answers.Choice["clearance"] != "choose" {
		return
	}
	best, least, says := "", 0, ""
	for _, c := range q.Choices {
		if c.ID == "choose" {
			continue
		}
		answers := p.Answers.With("clearance", c.ID)
		n := p.oddWith(answers)
		if n >= 0 && (best == "" || n < least) {
			best, least, says = c.ID, n, c.Label
		}
	}
	if best == "" { // none can be: the first says why
		p.Answers = p.Answers.With("clearance", q.Default)
		return
	}
	p.Answers = p.Answers.With("clearance", best)
	p.Chosen = fmt.Sprintf("Chosen for you: %s, with %s that no groove sets.", words.Small(says), words.Count(least, "score"))
	if least == 0 {
		p.Chosen = fmt.Sprintf("Chosen for you: %s; every score lies in a groove.", words.Small(says))
	}
}

// oddWith counts the scores no groove sets with other answers, -1 when no such box
// can be.
func (p *Plan) oddWith(answers style.Answers) (n int) {
	q := *p.Request
	q.Report, q.Answers = &brief.Report{Units: p.Units, Step: p.Step}, answers
	trial := &Plan{Request: &q, taken: p.taken}
	s := newSearch(trial)
	s.hasty = true
	b := s.run()
	if b == nil || len(q.Problems) > 0 {
		return -1
	}
	for _, piece := range b.Pieces() {
		n += bench.Card(piece, p.Say, p.Step.Size, p.Tools, p.First).Odd()
	}
	return n
}
