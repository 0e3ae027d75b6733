package document

import (
	"maps"
	"slices"
)

// Typed is what a window typed in a field, and what that window showed there before.
type Typed struct{ Text, Was string }

// Conflict is a field that two windows changed in different ways. Gone says that the other window took out the
// member it belongs to; Theirs is then what that was called.
type Conflict struct {
	Field, Mine, Theirs string
	Gone                bool
}

// Merge lays the fields typed in one window on the newest document. A field that nothing changed since the window
// showed it takes the typed text; one that another window changed differently meanwhile is a conflict, which leaves
// the newest document's text standing.
func (f *Form[D]) Merge(newest D, typed map[string]Typed) (D, []Conflict) {
	out := Clone(newest)
	var conflicts []Conflict
	for _, path := range slices.Sorted(maps.Keys(typed)) {
		mine, was, theirs := typed[path].Text, typed[path].Was, Get(&newest, path)
		switch {
		case mine == was:
		case !f.Has(&newest, path):
			conflicts = append(conflicts, Conflict{path, mine, "", true})
		case mine == theirs:
		case theirs != was || !f.Set(&out, path, mine):
			conflicts = append(conflicts, Conflict{path, mine, theirs, false})
		}
	}
	return out, conflicts
}
