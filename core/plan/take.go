package plan

import (
	"slices"

	"brevium/core/brief"
	"brevium/core/cutting"
	"brevium/core/fold"
)

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
			q.Warn(brief.Warning{Code: "pins-left-out", Text: "Pieces were held where they can't be: " + f.Says + ".",
				Fix: "Take all pins off.", Set: brief.To("act", "unpin-all")})
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
