// Package document is one engine for everything a person types and keeps: a box, the shop, a batch, a list to cut,
// what is noted of a making.
//
// A kind of document is a Go struct of texts with the names of its JSON, and a Form that states it: the table of its
// fields, its lists, its limits. From that the engine reads it at the door, writes it, copies it, and lays what
// was typed in one window on what another has made of it since. What a kind wants beside the table it says by
// the methods of Own. docs/documents.md tells how a kind is added.
package document

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"iter"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"brevium/core/words"
)

// Form states a kind of document that is held in a D.
type Form[D any] struct {
	Name   string   // what one is called in messages: project, shop
	Limit  int      // bytes, when written
	Table  []Field  // its fields, in order
	Maps   []string // parts in which names of the document's own choosing stand
	Lists  []List
	byPath map[string]Field
}

// List is a list of the document. Its members go by the identity in their ID, which is filled in where it is left
// out; a list without identities has a Most alone.
type List struct {
	Path, What string
	Most       int  // members; 0 is as many as fit
	Named      bool // a member that brings no identity is refused
	Dotted     bool // an identity may have a dot or an @ in it
}

// Own are the methods by which a kind says what its table can't. Each may be left out.
type (
	beginner interface{ Begin(data []byte) error } // before the document is read: what it leaves unsaid
	settler  interface{ Settle() }                 // after it
	checker  interface{ Own() error }              // what is refused beside the table and the lists
	lacking  interface{ Lacks(path string) bool }  // fields that are not there while a part is not
)

// longestID is how long an identity may be, and longestNamed one that others refer to.
const longestID, longestNamed = 24, 48

// New makes a form ready for use.
func New[D any](f Form[D]) *Form[D] {
	f.byPath = map[string]Field{}
	for _, field := range f.Table {
		f.byPath[field.Path] = field
	}
	return &f
}

// Field finds the field at a path such as "contents.0.length" or "contents.@k3.length".
func (f *Form[D]) Field(path string) (Field, bool) {
	field, ok := f.byPath[path]
	if !ok {
		field, ok = f.byPath[starred(path)]
	}
	if field.Most == 0 {
		field.Most = usualMost
	}
	return field, ok
}

// starred writes a path as tables do: with * for a member of a list.
func starred(path string) string {
	parts := strings.Split(path, ".")
	for i := 1; i < len(parts)-1; i++ {
		if _, err := strconv.Atoi(parts[i]); err == nil || strings.HasPrefix(parts[i], "@") {
			parts[i] = "*"
		}
	}
	return strings.Join(parts, ".")
}

// InMap reports whether a path is a name in a part where the document chooses its names.
func (f *Form[D]) InMap(path string) bool {
	return slices.ContainsFunc(f.Maps, func(m string) bool {
		key, ok := strings.CutPrefix(path, m+".")
		return ok && key != "" && len(key) <= longestKey
	})
}

// Set writes a field and reports whether there is one at that path. What is emptied in a map is taken out, so that
// what is left alone and what is cleared are alike.
func (f *Form[D]) Set(d *D, path, text string) bool {
	if _, ok := f.Field(path); !ok && !f.InMap(path) {
		return false
	}
	return Set(d, path, text)
}

// Has reports whether there is a field at a path, so that Set would write it.
func (f *Form[D]) Has(d *D, path string) bool {
	if f.InMap(path) {
		return true
	}
	if _, ok := f.Field(path); !ok {
		return false
	}
	if l, ok := any(d).(lacking); ok && l.Lacks(path) {
		return false
	}
	at := ""
	for part := range strings.SplitSeq(path, ".") {
		listed := strings.HasPrefix(part, "@") || part != "" && strings.Trim(part, "0123456789") == ""
		if at += part; listed && !Has(d, at) {
			return false
		}
		at += "."
	}
	return true
}

// All gives every field that can be set, with its text, in the order of the table and then of the maps. Members of
// lists go by their identities.
func (f *Form[D]) All(d *D) iter.Seq2[string, string] {
	return func(yield func(path, text string) bool) {
		for _, field := range f.Table {
			for path := range paths(d, field.Path) {
				if !yield(path, Get(d, path)) {
					return
				}
			}
		}
		for _, part := range f.Maps {
			for _, key := range keys(d, part) {
				path := part + "." + key
				if _, tabled := f.byPath[path]; !tabled && !yield(path, Get(d, path)) {
					return
				}
			}
		}
	}
}

// Encode writes the document. Decoding what it writes gives it again, and encoding that gives the same bytes.
func (f *Form[D]) Encode(d D) []byte { return Encoded(d) }

// Encoded writes what holds texts, numbers and lists of them in the one form that documents have.
func Encoded(d any) []byte {
	var out bytes.Buffer
	enc := json.NewEncoder(&out)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", "  ")
	if err := enc.Encode(d); err != nil {
		panic(err) // strings, numbers and maps of strings always encode
	}
	return out.Bytes()
}

// Decode reads a document. Every error says what is wrong and what would put it right; nothing is guessed and no
// unknown field is dropped.
func (f *Form[D]) Decode(data []byte) (D, error) {
	d, err := f.Stored(data)
	if err == nil {
		err = f.Check(&d)
	}
	return d, err
}

// Stored is Decode for a document that was checked when it was written.
func (f *Form[D]) Stored(data []byte) (d D, err error) {
	if len(data) > f.Limit {
		return d, fmt.Errorf("this %s is larger than %s, which no %s is", f.Name, sizeSaid(f.Limit), f.Name)
	}
	if b, ok := any(&d).(beginner); ok {
		if err := b.Begin(data); err != nil {
			return d, err
		}
	}
	if err := twice(data); err != nil {
		return d, fmt.Errorf(err.Error(), f.Name)
	}
	dec := json.NewDecoder(bytes.NewReader(data))
	dec.DisallowUnknownFields()
	if err := dec.Decode(&d); err != nil {
		return d, fmt.Errorf("this %s has a mistake in it%s", f.Name, Detail(err))
	}
	if _, err := dec.Token(); !errors.Is(err, io.EOF) {
		return d, fmt.Errorf("there is more than one %s in it; put one in each file", f.Name)
	}
	f.Identify(&d)
	if s, ok := any(&d).(settler); ok {
		s.Settle()
	}
	return d, f.counted(&d)
}

// Detail is what an error of reading adds to a sentence, in brackets and in plain words.
func Detail(err error) string {
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	switch {
	case err == nil:
		return ""
	case errors.Is(err, io.EOF), errors.Is(err, io.ErrUnexpectedEOF), strings.Contains(err.Error(), "unexpected end"):
		return " (its end is missing)"
	case errors.As(err, &syntax):
		return fmt.Sprintf(" (it is damaged at letter %d)", syntax.Offset)
	case errors.As(err, &kind) && kind.Field != "":
		return fmt.Sprintf(" (“%s” is of the wrong kind)", kind.Field)
	}
	says := strings.TrimPrefix(err.Error(), "json: ")
	if name, ok := strings.CutPrefix(says, "unknown field "); ok {
		return " (it has a field that Brevium doesn't know, “" + strings.Trim(name, `"`) + "”)"
	}
	return " (" + says + ")"
}

func sizeSaid(bytes int) string {
	if bytes >= 4<<20 {
		return fmt.Sprintf("%d MB", bytes>>20)
	}
	return fmt.Sprintf("%d kB", bytes>>10)
}

// Check says why a document can't be written as one that is readable again: it lists too much, holds too long a text,
// or is too large in all.
func (f *Form[D]) Check(d *D) error {
	if err := f.counted(d); err != nil {
		return err
	}
	if c, ok := any(d).(checker); ok {
		if err := c.Own(); err != nil {
			return err
		}
	}
	for path, text := range f.All(d) {
		if why := f.TooLong(path, text); why != "" {
			return errors.New(why)
		}
	}
	if n := len(f.Encode(*d)); n > f.Limit {
		return fmt.Errorf("this %s would be %s when written; it may be %s", f.Name, sizeSaid(n), sizeSaid(f.Limit))
	}
	return nil
}

// TooLong says of a text that a field can't hold: which field, how long it is and how long it may be. It is "" for a
// text that fits.
func (f *Form[D]) TooLong(path, text string) string {
	field, ok := f.Field(path)
	if !ok {
		field.Label = words.Plain(path[strings.LastIndexByte(path, '.')+1:])
	}
	if n := words.Letters(text); n > field.Most {
		return fmt.Sprintf("“%s” is %d letters long; it takes %d", field.Title(), n, field.Most)
	}
	return ""
}

// Counted says what there is too much of, and which identity is no use.
func (f *Form[D]) counted(d *D) error {
	for _, l := range f.Lists {
		n := Len(d, l.Path)
		if n > l.Most && l.Most > 0 {
			return fmt.Errorf("this %s lists %d %s; the most is %d", f.Name, n, l.What, l.Most)
		}
		long := longestID
		if l.Named {
			long = longestNamed
		}
		seen := map[string]bool{}
		for _, id := range ids(d, l.Path) {
			is := id.String()
			if len(is) > long || is == "" && l.Named || !l.Dotted && strings.ContainsAny(is, ".@") || seen[is] && is != "" {
				return fmt.Errorf("the id %.20q among the %s is missing, too long, has a dot in it, or is used "+
					"twice; leave it out or choose another", is, l.What)
			}
			seen[is] = true
		}
	}
	return nil
}

// Identify gives every member of a list that has no identity one: its number in the list, or the next that is free.
func (f *Form[D]) Identify(d *D) {
	for _, l := range f.Lists {
		if l.Named {
			continue
		}
		taken, all := map[string]bool{}, ids(d, l.Path)
		for _, id := range all {
			taken[id.String()] = true
		}
		for i, id := range all {
			for n := i + 1; id.String() == ""; n++ {
				if next := strconv.Itoa(n); !taken[next] {
					id.SetString(next)
					taken[next] = true
				}
			}
		}
	}
}

// Placed gives a path with the place of each list member in it where it has an identity: "dress.layers.@k3.border" is
// "dress.layers.0.border". Problems go by places.
func (f *Form[D]) Placed(d *D, path string) string {
	for _, l := range f.Lists {
		rest, ok := strings.CutPrefix(path, l.Path+".@")
		if !ok {
			continue
		}
		id, rest, _ := strings.Cut(rest, ".")
		i := slices.IndexFunc(ids(d, l.Path), func(v reflect.Value) bool { return v.String() == id })
		if i >= 0 {
			return fmt.Sprintf("%s.%d.%s", l.Path, i, rest)
		}
	}
	return path
}
