// Package advice searches beside a plan: what would make it fit its sheets or bear its load, what mends a
// problem, which change is a hair from saving, which style and how many; and says what a good maker would.
// plan.Make never calls it: who shows a plan asks it.
package advice

import (
	"slices"
	"sync/atomic"

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
	soon bool // nothing is searched for yet
}

// Make plans a brief as it is shown: with every warning, what would make it fit its sheets, and problems that
// offer their own remedy.
func Make(b brief.Brief, w request.Workshop) *plan.Plan { return Of(plan.Make(b, w), w) }

// Of is a plan with all that is to be said of it.
func Of(p *plan.Plan, w request.Workshop) *plan.Plan {
	a := newAdviser(p, w)
	a.all()
	return a.Plan
}

// Soon is Of without what must be searched for: problems and warnings stand there, and no remedy that would have to be
// tried. It reports whether there was nothing to search, so that this is all there is.
func Soon(p *plan.Plan, w request.Workshop) (first *plan.Plan, whole bool) {
	a := newAdviser(p, w)
	a.work, a.soon = work(0), true
	a.all()
	return a.Plan, !a.work.Over()
}

func (a *adviser) all() {
	a.tooLarge()
	a.fit()
	a.warn(true)
	a.mends()
}

// Warned is a plan with its warnings; nothing is searched for.
func Warned(p *plan.Plan, w request.Workshop) *plan.Plan {
	a := newAdviser(p, w)
	a.warn(false)
	return a.Plan
}

func newAdviser(p *plan.Plan, w request.Workshop) *adviser {
	own := p.Reporting(slices.Clone(p.Problems), slices.Clone(p.Warnings), plan.Advice{Stronger: map[string][]brief.Fix{}})
	return &adviser{Plan: own, w: w, work: work(remedied)}
}

// Cut is a plan, cut as was found, with what is to be said of its sheets.
func Cut(p *plan.Plan, found []cutting.Found, w request.Workshop) *plan.Plan {
	a := &adviser{Plan: p.Cut(found), w: w, work: work(remedied)}
	a.warnStock()
	return a.Plan
}

// CutAsAsked lays the sheets of a plan as its document asks, however long that takes. A document that asks for
// nothing leaves them as they are.
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
	case a.work.Over() && !a.soon:
		w.Fix = "This box holds too much to try every remedy. Put less in, or choose a larger sheet."
	}
}

// How much work each search may do, in things placed and pieces cut.
const (
	compared    = 5000  // Compare
	counted     = 40000 // Count, for all kinds of thing together
	countedEach = 20000 // and at least so much for each
	remedied    = 4000  // the search for what makes a piece fit its sheet
)

// budget bounds the work of a search beside the plan, so that no document can make one long. It counts what is
// built and not time: the same document has the same answer on any machine.
type budget struct{ left atomic.Int64 }

func work(units int) *budget {
	b := &budget{}
	b.left.Store(int64(units))
	return b
}

// Spend takes from what is left and reports whether there was enough.
func (b *budget) Spend(units int) bool { return b.left.Add(-int64(units)) >= 0 }

// Over reports whether more was asked for than there was.
func (b *budget) Over() bool { return b.left.Load() < 0 }

// affords reports whether there is work left to plan the box once more while a remedy is looked for; dear is how
// many times as dear that is as planning its sizes alone.
func (a *adviser) affords(dear int) bool { return a.work.Spend(dear * effort(a.Plan)) }

// effort is about how much work planning a box again takes.
func effort(p *plan.Plan) int {
	n := 20
	for _, t := range p.Things {
		n += t.Count
		if p.Kind != nil && p.Kind.ID == "platform" {
			n += 3 * t.Count // each has its hole
		}
	}
	if p.Box != nil {
		for _, piece := range p.Box.Pieces() {
			n += 4 * piece.Count
		}
	}
	return n
}
