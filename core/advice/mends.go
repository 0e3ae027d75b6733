package advice

import (
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/plan"
)

// mostChanges is how many changes one after the other a remedy may take.
const mostChanges = 12

// mends makes what each problem offers mend it. Card that bends, and things that
// may lie another way, often want a second change after the first: then one
// remedy makes them all, and says so; where no end is found, none is offered.
func (a *adviser) mends() {
	defer a.asksInches()
	given := slices.Clone(a.Problems)
	for i := range a.Problems {
		pr := &a.Problems[i]
		if len(pr.Set) == 0 || pr.Set.Get("act") != "" || a.Style == nil {
			continue
		}
		set, end := a.follow(given, *pr)
		switch {
		case end == nil || !a.affords(6) || !a.comesOff(end, given...):
			a.otherwise(pr, set, len(given) == 1)
		case !slices.Equal(set, pr.Set):
			pr.Set, pr.Fix = set, pr.Fix+" Everything it takes: "+a.changes(set)+"."
		}
	}
}

// asksInches puts a fraction typed into a metric box before every other problem where there is no plan: it is the
// likeliest reason.
func (a *adviser) asksInches() {
	if a.OK() {
		return
	}
	var asks []brief.Problem
	a.Warnings = slices.DeleteFunc(a.Warnings, func(w brief.Warning) bool {
		if w.Code == "inches" {
			asks = append(asks, brief.Problem{Field: w.Set[0].Field, Text: w.Text, Fix: w.Fix, Set: w.Set, Press: w.Press})
		}
		return w.Code == "inches"
	})
	a.Problems = append(asks, a.Problems...)
}

// comesOff reports whether a remedy that was tried gives a plan whose pieces have their sheets, with no problem that was
// not there before.
func (a *adviser) comesOff(t *plan.Tried, given ...brief.Problem) bool {
	return !slices.ContainsFunc(t.Refusals(), func(pr brief.Problem) bool {
		return !slices.ContainsFunc(given, func(g brief.Problem) bool { return g.Field == pr.Field && g.Text == pr.Text })
	})
}

// otherwise looks for another remedy where the one beside a problem leads to no plan: two halves for large pieces,
// or glue, which can do with narrower tabs.
func (a *adviser) otherwise(pr *brief.Problem, set brief.Changes, alone bool) {
	pr.Set = nil
	if !alone {
		return
	}
	halves, glue := brief.To("card.join", "yes"), brief.To("tools.adhesive", "glue")
	both := brief.To("card.join", "yes", "tools.adhesive", "glue")
	whole := halves.And(set...)
	for _, try := range []struct {
		says string
		set  brief.Changes
	}{{"Use wet glue: it holds on a narrower tab.", glue},
		{pr.Fix + " Its large pieces are then joined from two halves (under Card & fit).", whole},
		{"Use wet glue, and turn on two halves for large pieces (under Card & fit).", both}} {
		if set == nil && slices.Equal(try.set, halves) || a.Brief.Tools.Adhesive == "glue" && try.set.Get("tools.adhesive") != "" {
			continue
		}
		if a.affords(6) && a.comesOff(a.Try(a.With(try.set), try.set, a.w)) {
			pr.Fix, pr.Set = try.says, try.set
			return
		}
	}
}

// follow makes a problem's change, and those of the problems it leads to, until
// none is left that was not there before: then they come with what is tried of them.
func (a *adviser) follow(given []brief.Problem, pr brief.Problem) (brief.Changes, *plan.Tried) {
	b, set := a.Brief.Clone(), brief.Changes{}
	others := func(o brief.Problem) bool {
		return slices.ContainsFunc(given, func(g brief.Problem) bool { return g.Field == o.Field && g.Field != pr.Field })
	}
	next := pr
	for range mostChanges {
		if len(next.Set) == 0 || !a.affords(12) {
			break
		}
		changed := false
		for _, c := range next.Set {
			changed = changed || b.Get(c.Field) != c.Value
			b.Set(c.Field, c.Value)
		}
		set = set.And(next.Set...)
		now := a.Try(b, set, a.w)
		left := slices.DeleteFunc(slices.Clone(now.Troubles()), others)
		if len(left) == 0 {
			return set, now
		}
		if next = left[0]; !changed {
			break
		}
	}
	return nil, nil
}

// changes tells what a remedy writes in which fields.
func (a *adviser) changes(set brief.Changes) string {
	var out []string
	for _, c := range set {
		q, _ := a.Style.Ask(strings.TrimPrefix(c.Field, "box.options."))
		out = append(out, c.Says(a.Report, q.Label))
	}
	return strings.Join(out, "; ")
}
