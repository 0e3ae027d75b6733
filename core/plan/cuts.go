package plan

import (
	"slices"

	"brevium/core/cutting"

	"fmt"
	"strings"

	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/words"
)

// SheetsSaid tells how many sheets of what are cut up.
func (p *Plan) SheetsSaid() string {
	var out []string
	for _, c := range p.Cuts {
		says := fmt.Sprintf("%s of %s", words.Count(len(c.Sheets), "sheet"), c.Sheet.Title)
		if p.cards() > 1 {
			says += " of " + c.Card.Title
		}
		out = append(out, says)
	}
	return strings.Join(out, "; and ")
}

// SheetsShort tells it in a line: of one card the size, of several how many.
func (p *Plan) SheetsShort(n int) string {
	if len(p.Cuts) == 1 {
		return fmt.Sprintf("%d of %s", n, p.Cuts[0].Sheet.Title)
	}
	if cards := p.cards(); cards > 1 {
		return fmt.Sprintf("%d sheets of %d cards", n, cards)
	}
	return fmt.Sprintf("%d sheets of %d sizes", n, len(p.Cuts))
}

// cards counts the cards that are cut.
func (p *Plan) cards() int {
	seen := map[string]bool{}
	for _, c := range p.Cuts {
		seen[c.Card.ID] = true
	}
	return len(seen)
}

// onItsSheet is the check that every piece lies on one, and SheetTooSmall the warning that one doesn't.
const onItsSheet, SheetTooSmall = "every piece fits its sheet", "sheet-too-small"

// onTheirSheets checks that every piece fits its sheet, and warns where one doesn't.
func (p *Plan) onTheirSheets() fold.Check {
	check := fold.Check{Name: onItsSheet, Holds: true, Figure: p.SheetsSaid()}
	for _, big := range p.Layout.TooBig {
		check.Holds = false
		check.Figure = fmt.Sprintf("%s is too small for the %s, %s × %s", p.SheetOf(p.CardOf(big.Stock)).Title, big.Name,
			p.Say(big.W), p.Say(big.H))
		switch c := p.CardOf(big.Stock); {
		case big.Across || big.Upright && !c.Directed():
			check.Figure += ", with its grain along its longer scores"
		case big.Upright:
			check.Figure += ", with its pattern upright"
		}
	}
	if !check.Holds {
		p.Warn(brief.Warning{Code: SheetTooSmall, Text: words.Capital(check.Figure) + ".",
			Fix: "Make the box smaller, or choose a larger sheet."})
	}
	return check
}

// Asked reports whether the document says how the sheets are to be cut, and they can be: a
// piece that is too large for its sheet may do on another size.
func (p *Plan) Asked() bool {
	return p.OK() && p.Cutting.Asked && (p.Cutting.Any || len(p.Layout.TooBig) == 0)
}

// Cut is the plan, cut as was found. What was said of sheets before is left out.
func (p *Plan) Cut(found []cutting.Found) *Plan {
	kept := slices.DeleteFunc(slices.Clone(p.Warnings), func(w brief.Warning) bool {
		return slices.Contains([]string{"short-of-card", "long-cut", "pins-left-out", SheetTooSmall}, w.Code)
	})
	q := p.Reporting(slices.Clone(p.Problems), kept, Advice{Stronger: p.Advice.Stronger})
	for _, f := range found {
		if f.Says != "" {
			q.Warn(brief.Warning{Code: "pins-left-out", Text: "A pinned piece can't be there: " + f.Says + ".",
				Fix: "Remove all pins.", Set: brief.To("act", "unpin-all")})
		}
	}
	q.Checks = slices.DeleteFunc(slices.Clone(p.Checks), func(c fold.Check) bool { return c.Name == onItsSheet })
	q.lay(cutting.Cuts(found))
	q.Guide = q.tell(q.Say)
	return q
}

// Tables are the boxes of plans as they are cut.
func Tables(plans []*Plan) []*cutting.Table {
	out := make([]*cutting.Table, len(plans))
	for i, p := range plans {
		out[i] = &p.Table
	}
	return out
}

// AllProved reports whether no arrangement takes less than any of these.
func AllProved(cuts []cutting.Cut) bool {
	return !slices.ContainsFunc(cuts, func(c cutting.Cut) bool { return !c.Proved })
}
