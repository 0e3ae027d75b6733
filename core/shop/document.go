package shop

import (
	"bytes"
	_ "embed"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/paths"
	"brevium/core/words"
)

// Document is a shop as it is typed and kept.
type Document struct {
	Brevium  int           `json:"brevium-shop"`
	Currency brief.Text    `json:"currency,omitempty"`
	Cards    []brief.Stock `json:"cards"`
	Offcuts  []Offcut      `json:"offcuts,omitempty"`
	Tools    brief.Tools   `json:"tools,omitzero"`
	Habits   brief.Options `json:"habits,omitempty"`
	Prices   brief.Options `json:"prices,omitempty"`
	Fits     []Fit         `json:"fits,omitempty"`
	Aside    brief.Options `json:"aside,omitempty"` // what was learnt and is not wanted
	Seen     brief.Options `json:"seen,omitempty"`  // cautions that were put away on the screen
}

// Offcut is a piece of card that was kept.
type Offcut struct {
	ID     string     `json:"id"`
	Card   brief.Text `json:"card"`
	Width  brief.Text `json:"width"`
	Height brief.Text `json:"height"`
	From   brief.Text `json:"from,omitempty"` // which box it is left of
}

// Fit is how a lid was found, with what it was planned by.
type Fit struct {
	ID      string      `json:"id"`
	On      string      `json:"on"` // the day
	Box     brief.Text  `json:"box"`
	Card    brief.Text  `json:"card"`
	Walls   brief.Text  `json:"walls"`
	Layers  brief.Whole `json:"layers"`
	Usual   brief.Text  `json:"usual"`
	Had     brief.Text  `json:"had"`
	Verdict brief.Text  `json:"verdict,omitempty"`
	Gap     brief.Text  `json:"gap,omitempty"`
}

// The most a shop lists.
const (
	MostCards   = 1000
	MostOffcuts = 500
	MostFits    = 500
	Limit       = 512 << 10
)

// Version is the number of the shop document's format.
const Version = 1

//go:embed default.json
var shipped []byte

// Shipped is the document of the shop Brevium comes with.
func Shipped() Document {
	d, err := Decode(shipped)
	if err != nil {
		panic(err) // it is a part of the program
	}
	return d
}

// Decode reads a shop's document.
func Decode(data []byte) (d Document, err error) {
	dec := json.NewDecoder(bytes.NewReader(data))
	dec.DisallowUnknownFields()
	if err := dec.Decode(&d); err != nil {
		return d, fmt.Errorf("this is not a shop of Brevium's (%w)", err)
	}
	if d.Brevium != Version {
		return d, fmt.Errorf("this shop is of format %d and this Brevium reads format %d", d.Brevium, Version)
	}
	return d, d.Check()
}

// Check says why a document can't be kept.
func (d *Document) Check() error {
	for _, l := range []struct {
		what    string
		n, most int
	}{{"cards", len(d.Cards), MostCards}, {"offcuts", len(d.Offcuts), MostOffcuts}, {"fit records", len(d.Fits), MostFits}} {
		if l.n > l.most {
			return fmt.Errorf("a shop lists %d %s at the most", l.most, l.what)
		}
	}
	ids := map[string]bool{}
	for _, c := range d.Cards {
		if c.ID == "" || len(c.ID) > 48 || strings.ContainsAny(c.ID, ".@") || ids[c.ID] {
			return fmt.Errorf("the identity %.20q of a card is missing, too long, or stands there twice", c.ID)
		}
		ids[c.ID] = true
	}
	for path, text := range d.All() {
		if f, _ := FieldAt(path); words.Letters(text) > max(f.Most, 200) {
			return fmt.Errorf("“%s” takes 200 letters", words.Capital(f.Label))
		}
	}
	if n := len(d.Encode()); n > Limit {
		return fmt.Errorf("this shop would be %d kB when written; it may be %d kB", n>>10, Limit>>10)
	}
	return nil
}

// Encode writes the document.
func (d Document) Encode() []byte { return brief.Encoded(d) }

// Clone gives a copy that shares nothing with d.
func (d Document) Clone() Document {
	d.Cards, d.Offcuts, d.Fits = slices.Clone(d.Cards), slices.Clone(d.Offcuts), slices.Clone(d.Fits)
	d.Habits, d.Aside, d.Seen = maps.Clone(d.Habits), maps.Clone(d.Aside), maps.Clone(d.Seen)
	d.Prices = maps.Clone(d.Prices)
	return d
}

// Of finds a card by its identity, -1 when it is not there.
func (d *Document) Of(id string) int {
	return slices.IndexFunc(d.Cards, func(c brief.Stock) bool { return c.ID == id })
}

// fields of a shop that no box has.
var fields = map[string]brief.Field{
	"currency":         {Path: "currency", Kind: brief.Words, Label: "coin", Help: "what stands behind prices", Most: 8},
	"offcuts.*.card":   {Path: "offcuts.*.card", Kind: brief.Choice, Label: "card"},
	"offcuts.*.width":  {Path: "offcuts.*.width", Kind: brief.Distance, Label: "width"},
	"offcuts.*.height": {Path: "offcuts.*.height", Kind: brief.Distance, Label: "height"},
	"offcuts.*.from":   {Path: "offcuts.*.from", Kind: brief.Words, Label: "left of"},
}

// FieldAt finds the field at a path of a shop: a card's and the tools' are those of a document.
func FieldAt(path string) (brief.Field, bool) {
	part := strings.Split(path, ".")
	if f, ok := fields[path]; ok {
		return f, true
	}
	switch part[0] {
	case "tools":
		return brief.FieldAt(path)
	case "cards":
		if len(part) == 3 {
			return brief.FieldAt("card.own." + part[1] + "." + part[2])
		}
	case "offcuts":
		if len(part) == 3 {
			f, ok := fields["offcuts.*."+part[2]]
			return f, ok
		}
	case "habits":
		h, ok := FindHabit(path[len("habits."):])
		return brief.Field{Path: path, Kind: brief.Choice, Label: words.Small(h.Label)}, ok
	case "prices":
		k, ok := priceKind(path[len("prices."):])
		return brief.Field{Path: path, Kind: brief.Words, Label: words.Small(k.Label), Help: "like " + k.Like, Most: 40}, ok
	case "aside", "seen":
		return brief.Field{Path: path, Kind: brief.YesNo, Label: "put aside"}, len(part) == 2
	}
	return brief.Field{}, false
}

// Get gives the field at a path such as "cards.@k3.caliper".
func (d *Document) Get(path string) string { return paths.Get(d, path) }

// Set writes a field and reports whether there is one at that path.
func (d *Document) Set(path, text string) bool {
	if _, ok := FieldAt(path); !ok {
		return false
	}
	return paths.Set(d, path, text)
}

// All gives every field that can be set and is said.
func (d *Document) All() func(yield func(path, text string) bool) {
	return func(yield func(path, text string) bool) {
		var all []string
		for _, c := range d.Cards {
			for _, name := range brief.Of("card.own") {
				all = append(all, "cards.@"+c.ID+"."+name)
			}
		}
		for _, o := range d.Offcuts {
			for _, name := range []string{"card", "width", "height", "from"} {
				all = append(all, "offcuts.@"+o.ID+"."+name)
			}
		}
		for _, f := range brief.Table {
			if strings.HasPrefix(f.Path, "tools.") {
				all = append(all, f.Path)
			}
		}
		for _, h := range Habits {
			all = append(all, "habits."+h.ID)
		}
		for _, k := range PriceKinds {
			all = append(all, "prices."+k.ID)
		}
		for _, path := range append(all, "currency") {
			if !yield(path, d.Get(path)) {
				return
			}
		}
	}
}

// Merge lays the fields typed in one window on the newest document, as brief.Merge does for a box.
func Merge(newest Document, typed map[string]brief.Typed) (Document, []brief.Conflict) {
	out := newest.Clone()
	var conflicts []brief.Conflict
	for _, path := range slices.Sorted(maps.Keys(typed)) {
		mine, was, theirs := typed[path].Text, typed[path].Was, newest.Get(path)
		at := path[:max(0, strings.LastIndexByte(path, '.'))]
		switch {
		case mine == was:
		case strings.Contains(path, ".@") && !paths.Has(&newest, at):
			conflicts = append(conflicts, brief.Conflict{Field: path, Mine: mine, Gone: true})
		case mine == theirs:
		case theirs != was || !out.Set(path, mine):
			conflicts = append(conflicts, brief.Conflict{Field: path, Mine: mine, Theirs: theirs})
		}
	}
	return out, conflicts
}
