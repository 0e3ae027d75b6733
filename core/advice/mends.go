package advice

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/measure"
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
		if len(pr.Set) == 0 || pr.Set["act"] != "" || a.Style == nil {
			continue
		}
		set, ok := a.follow(given, *pr)
		switch {
		case !ok || !a.comesOff(set, given...):
			a.otherwise(pr, set, len(given) == 1)
		case !maps.Equal(set, pr.Set):
			pr.Set, pr.Fix = set, pr.Fix+" In all it takes: "+a.changes(set)+"."
		}
	}
}

// asksInches puts a fraction that was typed into a metric box before every other trouble, where there is no plan:
// it is the likeliest reason.
func (a *adviser) asksInches() {
	if a.OK() {
		return
	}
	var asks []brief.Problem
	a.Warnings = slices.DeleteFunc(a.Warnings, func(w brief.Warning) bool {
		if w.Code == "inches" {
			asks = append(asks, brief.Problem{Field: slices.Collect(maps.Keys(w.Set))[0], Text: w.Text, Fix: w.Fix, Set: w.Set})
		}
		return w.Code == "inches"
	})
	a.Problems = append(asks, a.Problems...)
}

// comesOff reports whether there is a plan with a remedy, its sheets taken into account, but for problems that
// were there anyway.
func (a *adviser) comesOff(set map[string]string, given ...brief.Problem) bool {
	if !a.affords(6) {
		return false
	}
	q := plan.Make(a.With(set), a.w)
	return !slices.ContainsFunc(q.Problems, func(pr brief.Problem) bool {
		return !slices.ContainsFunc(given, func(g brief.Problem) bool { return g.Field == pr.Field && g.Text == pr.Text })
	})
}

// otherwise looks for another remedy where the one beside a problem ends in no plan: large pieces of two halves,
// or glue, that can do with narrower tabs. Where nothing helps none is offered.
func (a *adviser) otherwise(pr *brief.Problem, set map[string]string, alone bool) {
	pr.Set = nil
	if !alone {
		return
	}
	halves, glue := map[string]string{"card.join": "yes"}, map[string]string{"tools.adhesive": "glue"}
	both := map[string]string{"card.join": "yes", "tools.adhesive": "glue"}
	whole := maps.Clone(halves)
	maps.Copy(whole, set)
	for _, try := range []struct {
		says string
		set  map[string]string
	}{{"Stick with wet glue, which can do with less.", glue},
		{pr.Fix + " Its large pieces are then made of two halves (under Card & fit).", whole},
		{"Stick with wet glue, and let large pieces be made of two halves (under Card & fit).", both}} {
		if set == nil && maps.Equal(try.set, halves) || a.Brief.Tools.Adhesive == "glue" && try.set["tools.adhesive"] != "" {
			continue
		}
		if a.comesOff(try.set) {
			pr.Fix, pr.Set = try.says, try.set
			return
		}
	}
}

// follow makes a problem's change, and those of the problems it leads to, until
// none is left that was not there before.
func (a *adviser) follow(given []brief.Problem, pr brief.Problem) (map[string]string, bool) {
	b, set := a.Brief.Clone(), map[string]string{}
	others := func(o brief.Problem) bool {
		return slices.ContainsFunc(given, func(g brief.Problem) bool { return g.Field == o.Field && g.Field != pr.Field })
	}
	next := pr
	for range mostChanges {
		if len(next.Set) == 0 || !a.affords(12) {
			break
		}
		changed := false
		for field, text := range brief.Sorted(next.Set) {
			changed = b.Get(field) != text || changed
			b.Set(field, text)
			set[field] = text
		}
		left := slices.DeleteFunc(plan.Troubles(b, a.w), others)
		if len(left) == 0 {
			return set, true
		}
		if next = left[0]; !changed {
			break
		}
	}
	return nil, false
}

// changes tells what a remedy writes in which fields.
func (a *adviser) changes(set map[string]string) string {
	var out []string
	for field, text := range brief.Sorted(set) {
		name := field
		if f, ok := brief.FieldAt(field); ok {
			name = f.Label
		}
		if q, ok := a.Style.Ask(strings.TrimPrefix(field, "box.options.")); ok {
			name = q.Label
		}
		if l, err := measure.Parse(text, a.Units); err == nil {
			text = a.Say(l)
		} else if text == "" {
			text = "left open"
		}
		out = append(out, fmt.Sprintf("%s %s", strings.ToLower(name), text))
	}
	return strings.Join(out, "; ")
}
