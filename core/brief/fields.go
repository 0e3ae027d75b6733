package brief

import (
	"maps"
	"slices"
	"strings"

	"brevium/core/paths"
)

// Get gives the field at a path such as "contents.0.length", "box.options.lid"
// or "tools.step". An absent part reads as empty.
func (b *Brief) Get(path string) string { return paths.Get(b, path) }

// Set writes a field and reports whether there is one at that path. An empty
// option is removed, so that an option left alone and one cleared are alike.
func (b *Brief) Set(path, text string) bool {
	if _, ok := FieldAt(path); !ok && !inMap(path) {
		return false
	}
	return paths.Set(b, path, text)
}

// named are the parts of a document in which names of the document's own choosing
// stand: answers to a style's questions, and the card of a part.
var named = []string{"box.options.", "card.stocks."}

func inMap(path string) bool {
	return slices.ContainsFunc(named, func(m string) bool {
		key, ok := strings.CutPrefix(path, m)
		return ok && key != "" && len(key) <= 40
	})
}

// Has reports whether there is a field at a path. Of options it can't tell.
func (b *Brief) Has(path string) bool {
	if inMap(path) {
		return true
	}
	if _, ok := FieldAt(path); !ok {
		return false
	}
	at := path[:max(0, strings.LastIndexByte(path, '.'))]
	if at == "set" {
		return b.Several != nil
	}
	if strings.Count(at, ".") == 0 && at != "contents" {
		return true // of the document itself, or of a part that Set would make
	}
	return paths.Has(b, at) || at == "box.stated" || at == "tools.trimmer"
}

// Item finds a thing by its identity, and its place in the list; -1 when it is not there.
func (b *Brief) Item(id string) int {
	return slices.IndexFunc(b.Contents, func(i Item) bool { return i.ID == id })
}

// Scored finds a piece of a list of scores by its identity, -1 when it is not there.
func (b *Brief) Scored(id string) int {
	return slices.IndexFunc(b.Box.Pieces, func(p Scored) bool { return p.ID == id })
}

// Conflict is a field that two windows changed in different ways. Gone says that the other window took out the
// thing or piece it belongs to; Theirs is then what that was called.
type Conflict struct {
	Field, Mine, Theirs string
	Gone                bool
}

// Typed is what a window typed in a field, and what that window showed there before.
type Typed struct{ Text, Was string }

// Merge lays the fields typed in one window on to the newest brief. A field that nothing changed since the window
// showed it takes the typed text; one that another window changed differently meanwhile is a conflict, which leaves
// the newest brief's text standing.
func Merge(newest Brief, typed map[string]Typed) (Brief, []Conflict) {
	out := newest.Clone()
	var conflicts []Conflict
	for _, path := range slices.Sorted(maps.Keys(typed)) {
		mine, was, theirs := typed[path].Text, typed[path].Was, newest.Get(path)
		switch {
		case mine == was:
		case !newest.Has(path):
			conflicts = append(conflicts, Conflict{path, mine, "", true})
		case mine == theirs:
		case theirs != was || !out.Set(path, mine):
			conflicts = append(conflicts, Conflict{path, mine, theirs, false})
		}
	}
	return out, conflicts
}
