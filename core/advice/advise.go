// Package advice searches beside a plan: what would make it fit its sheets or bear its load, what mends a
// problem, which change is a hair from saving, which style and how many; and says what a good maker would.
// plan.Make never calls it: who shows a plan asks it.
package advice

import (
	"slices"

	"brevium/core/brief"
	"brevium/core/cutting"
	"brevium/core/plan"
	"brevium/core/request"
)

// adviser looks at one plan. The plan is its own, with a report that only it writes until it is given away.
type adviser struct {
	*plan.Plan
	w    request.Workshop
	work *budget
}

// Advised plans a brief as it is shown: with all warnings, what would make it fit, and problems that mend.
func Make(b brief.Brief, w request.Workshop) *plan.Plan { return Of(plan.Make(b, w), w) }

// Of is a plan with all that is to be said of it.
func Of(p *plan.Plan, w request.Workshop) *plan.Plan {
	a := newAdviser(p, w)
	a.tooLarge()
	a.fit()
	a.warn(true)
	a.mends()
	return a.Plan
}

// Warned is a plan with its warnings; nothing is searched for.
func Warned(p *plan.Plan, w request.Workshop) *plan.Plan {
	a := newAdviser(p, w)
	a.warn(false)
	return a.Plan
}

func newAdviser(p *plan.Plan, w request.Workshop) *adviser {
	own := p.Reporting(slices.Clone(p.Problems), slices.Clone(p.Warnings), plan.Advice{Stronger: map[string][]brief.Fix{}})
	return &adviser{own, w, work(remedied)}
}

// Cut is a plan, cut as was found, with what is to be said of its sheets.
func Cut(p *plan.Plan, found []cutting.Found, w request.Workshop) *plan.Plan {
	a := &adviser{p.Cut(found), w, work(remedied)}
	a.warnStock()
	return a.Plan
}

// CutAsAsked lays the sheets of a plan as its document asks, however long that takes; where it asks
// for nothing they lie as they do.
func CutAsAsked(p *plan.Plan, w request.Workshop) *plan.Plan {
	if !p.Asked() {
		return p
	}
	return Cut(p, cutting.Search(p.Tasks(), nil), w)
}

// fit looks for what brings every piece on to its sheet.
func (a *adviser) fit() {
	if !a.OK() || len(a.Layout.TooBig) == 0 {
		return
	}
	a.Advice.Fixes = a.fixes(a.w)
	i := slices.IndexFunc(a.Warnings, func(w brief.Warning) bool { return w.Code == plan.SheetTooSmall })
	if i < 0 {
		return
	}
	switch w := &a.Warnings[i]; {
	case len(a.Advice.Fixes) > 0:
		w.Fix, w.Set = a.Advice.Fixes[0].Text, a.Advice.Fixes[0].Set
	case a.work.Over():
		w.Fix = "There is too much in this box to look for every remedy: put less in, or choose a larger sheet."
	}
}
