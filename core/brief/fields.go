package brief

import (
	"iter"
	"slices"
	"strings"

	"brevium/core/document"
)

// Form states the document to the engine that reads, keeps and merges it.
var Form = document.New(document.Form[Brief]{
	Name: "box", Limit: Limit, Table: Table, Maps: []string{"box.options", "card.stocks"},
	Lists: []document.List{
		{Path: "contents", What: "things", Most: 100, Dotted: true},
		{Path: "box.pieces", What: "pieces", Most: 100, Dotted: true},
		{Path: "dress.layers", What: "layers", Most: mostDress}, {Path: "dress.liners", What: "liners", Most: mostDress},
		{Path: "dress.windows", What: "windows", Most: mostDress}, {Path: "dress.grips", What: "grips", Most: mostDress},
		{Path: "dress.toppers", What: "toppers", Most: mostDress},
		{Path: "dress.finishes", What: "finishes", Most: mostDress},
		{Path: "card.own", What: "cards of its own", Most: mostOwn, Named: true},
		{Path: "arrange.places", What: "places", Most: 2000}, {Path: "sheets.pins", What: "pins", Most: 400},
	},
})

// mostDress is how many entries each list of the dressing has at the most.
const mostDress = 40

// Get gives the field at a path such as "contents.0.length", "box.options.lid" or "tools.step". An absent part reads
// as empty.
func (b *Brief) Get(path string) string { return document.Get(b, path) }

// Set writes a field and reports whether there is one at that path. An empty option is removed, so that an option left
// alone and one cleared are alike.
func (b *Brief) Set(path, text string) bool { return Form.Set(b, path, text) }

// Has reports whether there is a field at a path. Of options it can't tell.
func (b *Brief) Has(path string) bool { return Form.Has(b, path) }

// Lacks says that a project of one box has no fields of a set.
func (b *Brief) Lacks(path string) bool { return b.Several == nil && strings.HasPrefix(path, "set.") }

// All gives every field that can be set, with its text.
func (b *Brief) All() iter.Seq2[string, string] { return Form.All(b) }

// Placed gives a path with the place of each list member in it where it has an identity.
func (b *Brief) Placed(path string) string { return Form.Placed(b, path) }

// TooLong says of a text that a field can't hold it, "" where it can.
func TooLong(path, text string) string { return Form.TooLong(path, text) }

// Clone gives a copy that shares nothing with b.
func (b Brief) Clone() Brief { return document.Clone(b) }

// Item finds a thing by its identity, and its place in the list; -1 when it is not there.
func (b *Brief) Item(id string) int {
	return slices.IndexFunc(b.Contents, func(i Item) bool { return i.ID == id })
}

// Scored finds a piece of a list of scores by its identity, -1 when it is not there.
func (b *Brief) Scored(id string) int {
	return slices.IndexFunc(b.Box.Pieces, func(p Scored) bool { return p.ID == id })
}
