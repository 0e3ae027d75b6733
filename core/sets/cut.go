package sets

import (
	"slices"

	"brevium/core/cutting"
	"brevium/core/plan"
)

// Tasks are what of all boxes of a set is to be cut, a card each.
func (s *Set) Tasks() []cutting.Task {
	return cutting.Together(plan.Tables(s.Plans), s.Names, s.Plans[0].Cutting)
}

// Asked reports whether the set's document says how its sheets are to be cut, and it can be.
func (s *Set) Asked() bool {
	return s.OK() && s.Plans[0].Cutting.Asked && !slices.ContainsFunc(s.Layouts, func(l Laid) bool { return len(l.TooBig) > 0 })
}

// CutAsAsked lays the sheets of a set as its document asks.
func (s *Set) CutAsAsked() *Set {
	if !s.Asked() {
		return s
	}
	return s.Cut(cutting.Search(s.Tasks(), nil))
}

// Cut is the set, cut as was found.
func (s *Set) Cut(found []cutting.Found) *Set {
	of := map[string]*plan.Plan{}
	for _, l := range s.Layouts {
		of[l.Card.ID] = l.Of
	}
	cut := *s
	cut.Layouts, cut.Cost = nil, 0
	for _, c := range cutting.Cuts(found) {
		cut.Layouts, cut.Cost = append(cut.Layouts, Laid{c, of[c.Card.ID]}), cut.Cost+c.Cost()
	}
	return &cut
}

// Proved reports whether no arrangement of all boxes takes less.
func (s *Set) Proved() bool {
	return !slices.ContainsFunc(s.Layouts, func(l Laid) bool { return !l.Cut.Proved })
}
