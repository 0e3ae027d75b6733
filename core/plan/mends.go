package plan

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/measure"
)

// mostChanges is how many changes one after the other a remedy may take.
const mostChanges = 12

// mends makes what each problem offers mend it. Card that bends, and things that
// may lie another way, often want a second change after the first: then one
// remedy makes them all, and says so; where no end is found, none is offered.
func (p *Plan) mends(w Workshop) {
	defer p.asksInches()
	given := slices.Clone(p.Problems)
	for i := range p.Problems {
		pr := &p.Problems[i]
		if len(pr.Set) == 0 || pr.Set["act"] != "" || p.Style == nil {
			continue
		}
		set, ok := p.follow(given, *pr, w)
		switch {
		case !ok || !p.comesOff(set, w, given...):
			p.otherwise(pr, set, len(given) == 1, w)
		case !maps.Equal(set, pr.Set):
			pr.Set, pr.Fix = set, pr.Fix+" In all it takes: "+p.changes(set)+"."
		}
	}
}

// asksInches puts a fraction that was typed into a metric box before every other trouble, where there is no plan:
// it is the likeliest reason.
func (p *Plan) asksInches() {
	if p.OK() {
		return
	}
	var asks []brief.Problem
	p.Warnings = slices.DeleteFunc(p.Warnings, func(w brief.Warning) bool {
		if w.Code == "inches" {
			asks = append(asks, brief.Problem{Field: slices.Collect(maps.Keys(w.Set))[0], Text: w.Text, Fix: w.Fix, Set: w.Set})
		}
		return w.Code == "inches"
	})
	p.Problems = append(asks, p.Problems...)
}

// comesOff reports whether there is a plan with a remedy, its sheets taken into account, but for problems that
// were there anyway.
func (p *Plan) comesOff(set map[string]string, w Workshop, given ...brief.Problem) bool {
	if !p.affords(6) {
		return false
	}
	q := build(Read(p.with(set), w), w, shown, nil)
	return !slices.ContainsFunc(q.Problems, func(pr brief.Problem) bool {
		return !slices.ContainsFunc(given, func(g brief.Problem) bool { return g.Field == pr.Field && g.Text == pr.Text })
	})
}

// otherwise looks for another remedy where the one beside a problem ends in no plan: large pieces of two halves,
// or glue, that can do with narrower tabs. Where nothing helps none is offered.
func (p *Plan) otherwise(pr *brief.Problem, set map[string]string, alone bool, w Workshop) {
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
		if set == nil && maps.Equal(try.set, halves) || p.Brief.Tools.Adhesive == "glue" && try.set["tools.adhesive"] != "" {
			continue
		}
		if p.comesOff(try.set, w) {
			pr.Fix, pr.Set = try.says, try.set
			return
		}
	}
}

// follow makes a problem's change, and those of the problems it leads to, until
// none is left that was not there before.
func (p *Plan) follow(given []brief.Problem, pr brief.Problem, w Workshop) (map[string]string, bool) {
	b, set := p.Brief.Clone(), map[string]string{}
	others := func(o brief.Problem) bool {
		return slices.ContainsFunc(given, func(g brief.Problem) bool { return g.Field == o.Field && g.Field != pr.Field })
	}
	next := pr
	for range mostChanges {
		if len(next.Set) == 0 || !p.affords(12) {
			break
		}
		changed := false
		for field, text := range brief.Sorted(next.Set) {
			changed = b.Get(field) != text || changed
			b.Set(field, text)
			set[field] = text
		}
		left := slices.DeleteFunc(troubles(b, w), others)
		if len(left) == 0 {
			return set, true
		}
		if next = left[0]; !changed {
			break
		}
	}
	return nil, false
}

// troubles gives what is wrong with a brief, sheets left out of account.
func troubles(b brief.Brief, w Workshop) []brief.Problem {
	p := &Plan{Request: Read(b, w)}
	if len(p.Problems) == 0 {
		newSearch(p).run()
	}
	return p.Problems
}

// changes tells what a remedy writes in which fields.
func (p *Plan) changes(set map[string]string) string {
	var out []string
	for field, text := range brief.Sorted(set) {
		name := field
		if f, ok := brief.FieldAt(field); ok {
			name = f.Label
		}
		if q, ok := p.Style.Ask(strings.TrimPrefix(field, "box.options.")); ok {
			name = q.Label
		}
		if l, err := measure.Parse(text, p.Units); err == nil {
			text = p.Say(l)
		} else if text == "" {
			text = "left open"
		}
		out = append(out, fmt.Sprintf("%s %s", strings.ToLower(name), text))
	}
	return strings.Join(out, "; ")
}
