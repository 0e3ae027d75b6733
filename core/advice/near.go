package advice

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"brevium/core/brief"
	"brevium/core/cutting"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/words"
)

// The near miss: a plan may be a hair from one sheet less. What is free is changed, one
// thing at a time and as little as will do, and what saves is planned, laid and proved.

// Near is a change that saves: what it takes, in length where it is one, and what it saves.
type Near struct {
	Text   string
	Set    brief.Changes
	Less   measure.Length // how much is taken from a measure, or added to it
	Sheets int
	Before int
	Cost   int64   // saved, in hundredths
	Card   float64 // saved, in square millimetres
}

// Saves tells what a change saves.
func (n Near) Saves() string {
	says := ""
	if n.Sheets != n.Before {
		says = fmt.Sprintf("%d instead of %s", n.Sheets, words.Count(n.Before, "sheet"))
	}
	if n.Cost > 0 {
		if says != "" {
			says += ", "
		}
		return says + words.Coins(n.Cost) + " saved"
	}
	if says == "" {
		says = "less card"
	}
	return says
}

const (
	nearby   = 9000 // the work, in things placed and pieces cut
	mostNear = 6
	// At most so much of a measure, and so much in all, is a hair.
	nearPart = 8
	nearMost = 15 * measure.Millimetre
)

// nearing is the search of one plan.
type nearing struct {
	*plan.Plan
	w    request.Workshop
	now  uses
	out  []Near
	work *budget
}

// uses is what a plan is cut from.
type uses struct {
	Sheets int
	cost   int64
	area   float64
}

// Saves reports whether it is less than what is used now.
func (u uses) Saves(now uses) bool {
	if u.cost != now.cost {
		return u.cost < now.cost
	}
	return u.area < now.area-1
}

// other is 1 for a change to another sheet, so that it is listed after all that keep the sheet.
func (n Near) other() int {
	if n.Set.Has("card.sheet") {
		return 1
	}
	return 0
}

// Nearly lists the smallest changes that save, the dearest saved first, other sheets last.
func Nearly(p *plan.Plan, w request.Workshop) []Near {
	if !p.OK() || len(p.Layout.TooBig) > 0 {
		return nil
	}
	n := &nearing{Plan: p, w: w, now: usesOf(p), work: work(nearby)}
	n.measures()
	n.choices()
	n.sheets()
	slices.SortStableFunc(n.out, func(a, b Near) int {
		return cmp.Or(cmp.Compare(a.other(), b.other()), cmp.Compare(b.Cost, a.Cost),
			cmp.Compare(math.Round(b.Card), math.Round(a.Card)), cmp.Compare(a.Less, b.Less))
	})
	return n.out[:min(len(n.out), mostNear)]
}

// usesOf counts what the plan is cut from.
func usesOf(p *plan.Plan) (u uses) {
	for _, c := range p.Cuts {
		if !c.Offcut {
			u.Sheets, u.cost = u.Sheets+len(c.Sheets), u.cost+c.Cost()
			u.area += c.Sheet.Area() * float64(len(c.Sheets))
		}
	}
	return u
}

// using tells what a change would be cut from, by a draft without faces or proof.
func (n *nearing) using(set brief.Changes) (u uses, ok bool) {
	if !n.work.Spend(effort(n.Plan)) {
		return u, false
	}
	got := plan.Draft(n.With(set), n.w)
	if got == nil {
		return u, false
	}
	for _, of := range cutting.ByCard(got.ToLay(got.Box, got.Copies)) {
		card := got.CardOf(of[0].Stock)
		sheets := []shop.Sheet{got.SheetOf(card)}
		if got.Least {
			sheets = got.Comes(card)
		}
		best := uses{area: math.Inf(1)}
		for _, s := range sheets {
			if count, big := layout.Count(of, s.Width, s.Height); big == 0 {
				one := uses{count, card.Cost(s, count), s.Area() * float64(count)}
				if one.area < best.area {
					best = one
				}
			}
		}
		if math.IsInf(best.area, 1) {
			return u, false
		}
		u.Sheets, u.cost, u.area = u.Sheets+best.Sheets, u.cost+best.cost, u.area+best.area
	}
	return u, true
}

func (n *nearing) saving(set brief.Changes) bool {
	u, ok := n.using(set)
	return ok && u.Saves(n.now)
}

// add plans a change whole, and notes it when it holds and saves.
func (n *nearing) add(text string, less measure.Length, set brief.Changes) {
	if len(n.out) > 2*mostNear || !n.work.Spend(4*effort(n.Plan)) {
		return
	}
	got := plan.Make(n.With(set), n.w)
	if !got.OK() || !got.Holds() || len(got.Layout.TooBig) > 0 {
		return
	}
	u := usesOf(got)
	if !u.Saves(n.now) {
		return
	}
	n.out = append(n.out, Near{Text: text, Set: set, Less: less, Sheets: u.Sheets, Before: n.now.Sheets,
		Cost: n.now.cost - u.cost, Card: n.now.area - u.area})
}

// free is a measure that may be a little less, or of a border a little more.
type free struct {
	field, label string
	now          measure.Length
	more         bool
}

// freeMeasures are the measures of this plan that may be a hair less.
func freeMeasures(p *plan.Plan) (out []free) {
	for _, q := range p.Style.Asks {
		if now, settled := p.Box.Settled[q.ID]; settled && len(q.Choices) == 0 {
			out = append(out, free{"box.options." + q.ID, q.Label, now, false})
		}
	}
	if p.Given != nil {
		for _, d := range []struct {
			id, label string
			of        measure.Length
		}{{"length", "Length", p.Given.Length}, {"width", "Width", p.Given.Width}, {"depth", "Walls", p.Given.Depth}} {
			out = append(out, free{"size." + d.id, d.label, d.of, false})
		}
	}
	if len(p.Things) > 0 {
		out = append(out, free{"room.around", "Finger room", p.Load.Room.Around, false},
			free{"room.between", "Room between things", p.Load.Room.Between, false},
			free{"room.above", "Room under the lid", p.Load.Room.Above, false})
	}
	if p.Dressed != nil {
		for i, l := range p.Wish.Layers {
			if field := "dress." + l.Entry + ".border"; p.Brief.Get(field) != "" { // left open it is the usual
				out = append(out, free{field, "Border of layer " + fmt.Sprint(i+1), l.Border, true})
			}
		}
	}
	for _, s := range p.Scores {
		if s.Name != "" {
			out = append(out, free{s.Field + "width", s.Name + ", width", s.Wide(), false},
				free{s.Field + "height", s.Name + ", height", s.High(), false})
		}
	}
	return out
}

// measures tries each a hair less: first by as much as a hair may be, and where that saves, by as little as does.
func (n *nearing) measures() {
	step := n.Step.Size
	for _, f := range freeMeasures(n.Plan) {
		most := min(max(f.now/nearPart, 4*step), nearMost).Down(step)
		if !f.more {
			most = min(most, f.now.Down(step))
		}
		set := func(by measure.Length) brief.Changes {
			to := f.now - by
			if f.more {
				to = f.now + by
			}
			return brief.To(f.field, to.Near(step/4).Exact(n.Units))
		}
		by := n.least(step, most, func(by measure.Length) bool { return n.saving(set(by)) })
		if by == 0 {
			continue
		}
		word, to := "less", f.now-by
		if f.more {
			word, to = "more", f.now+by
		}
		n.add(fmt.Sprintf("%s: %s %s (from %s to %s)", f.label, n.Say(by), word, n.Say(f.now), n.Say(to)), by, set(by))
	}
}

// least finds the least length on a mark, up to most, that will do; 0 when none does. It halves, taking it that a
// longer one does too, and looks at both ends.
func (n *nearing) least(step, most measure.Length, will func(measure.Length) bool) measure.Length {
	if most < step {
		return 0
	}
	high := most
	for !will(high) { // too much may be refused: half as much, then
		if high = (high / 2).Down(step); high < step {
			return 0
		}
	}
	low := measure.Length(0)
	for high-low > step {
		if mid := ((low + high) / 2).Down(step); mid > low && will(mid) {
			high = mid
		} else if mid > low {
			low = mid
		} else {
			break
		}
	}
	return high
}

// choices tries another school, another arrangement, and plain numbers.
func (n *nearing) choices() {
	if !n.Plain {
		if set := brief.To("tools.allowances", "plain"); n.saving(set) {
			n.add("Plain numbers, with no allowance for the card's thickness", 0, set)
		}
	}
	for _, q := range n.Style.Asks {
		for _, c := range q.Choices {
			now := n.Answers.Choice[q.ID]
			// Adding or leaving out a part of the box is no small change.
			if slices.Contains([]string{now, "", style.LeftToPlan, "none", "no"}, c.ID) || now == "none" || now == "no" {
				continue
			}
			if set := brief.To("box.options."+q.ID, c.ID); n.saving(set) {
				n.add(q.Label+": "+words.Small(c.Label), 0, set)
			}
		}
	}
	for _, way := range n.Ways[:min(6, len(n.Ways))] {
		if way.ID == n.Load.ID {
			continue
		}
		if set := brief.To("arrange.way", way.ID); n.saving(set) {
			n.add("Arrange them "+way.Says, 0, set)
		}
	}
}

// sheets tries the other sizes that the card comes in.
func (n *nearing) sheets() {
	if n.Least || len(n.Cuts) == 0 {
		return
	}
	for _, s := range n.Comes(n.Card) {
		if s.Same(n.Sheet) {
			continue
		}
		if set := brief.To("card.sheet", s.ID); n.saving(set) {
			n.add("Cut it from "+s.Title, 0, set)
		}
	}
}
