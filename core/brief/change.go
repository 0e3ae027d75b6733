package brief

import (
	"cmp"
	"encoding/json"
	"iter"
	"maps"
	"slices"
	"strings"

	"brevium/core/measure"
)

// Change is one field of a document and what is written there; the field "act" presses a button.
type Change struct{ Field, Value string }

// Says tells a change in words: the field by a name or, where that is "", as forms call it, and a length as
// the project writes it.
func (c Change) Says(r *Report, name string) string {
	text := c.Value
	if f, ok := FieldAt(c.Field); ok && name == "" {
		name = f.Label
	}
	if l, err := measure.Parse(text, r.Units); err == nil {
		text = r.Say(l)
	} else if text == "" {
		text = "left open"
	}
	return strings.ToLower(cmp.Or(name, c.Field)) + " " + text
}

// Changes are made together. They are in the order of their fields, one for each field; as JSON they are an object.
type Changes []Change

// To makes changes of fields and what is written in them, in pairs.
func To(pairs ...string) (out Changes) {
	for i := 0; i+1 < len(pairs); i += 2 {
		out = out.And(Change{pairs[i], pairs[i+1]})
	}
	return out
}

// And gives these changes with more; the later one of a field counts.
func (c Changes) And(more ...Change) Changes {
	out := slices.Clone(c)
	for _, m := range more {
		i, has := slices.BinarySearchFunc(out, m, func(a, b Change) int { return cmp.Compare(a.Field, b.Field) })
		if has {
			out[i] = m
		} else {
			out = slices.Insert(out, i, m)
		}
	}
	return out
}

// Get is what is written in a field, "" when that isn't changed.
func (c Changes) Get(field string) string {
	for _, one := range c {
		if one.Field == field {
			return one.Value
		}
	}
	return ""
}

// Has reports whether a field is changed.
func (c Changes) Has(field string) bool {
	return slices.ContainsFunc(c, func(one Change) bool { return one.Field == field })
}

// All lists the fields and what is written in them.
func (c Changes) All() iter.Seq2[string, string] {
	return func(yield func(string, string) bool) {
		for _, one := range c {
			if !yield(one.Field, one.Value) {
				return
			}
		}
	}
}

// MarshalJSON writes an object.
func (c Changes) MarshalJSON() ([]byte, error) {
	if c == nil {
		return []byte("null"), nil
	}
	out := maps.Collect(c.All())
	return json.Marshal(out)
}

// UnmarshalJSON reads an object.
func (c *Changes) UnmarshalJSON(data []byte) error {
	var all map[string]string
	if err := json.Unmarshal(data, &all); err != nil {
		return err
	}
	*c = nil
	for field, value := range all {
		*c = c.And(Change{field, value})
	}
	return nil
}

// With is the document with changes made.
func (b Brief) With(set Changes) Brief {
	out := b.Clone()
	for field, value := range set.All() {
		out.Set(field, value)
	}
	return out
}
