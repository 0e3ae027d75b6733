package document

import (
	"iter"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"sync"
)

// Fields go by their names in the JSON: "contents.0.length", "cards.@k3.caliper", "box.options.lid". Every field is a
// text; a member of a list goes by its place or, after an @, by its ID.

// Get gives the text at a path of a document, which is a pointer to a struct. What is not there reads as empty.
func Get(doc any, path string) string {
	if v := at(doc, path); v.Kind() == reflect.String {
		return v.String()
	}
	return ""
}

// at finds what is at a path; the zero Value where nothing is.
func at(doc any, path string) reflect.Value {
	v := reflect.ValueOf(doc).Elem()
	for part := range strings.SplitSeq(path, ".") {
		if v = step(v, part, false); !v.IsValid() {
			break
		}
	}
	return v
}

// Has reports whether there is something at a path.
func Has(doc any, path string) bool { return at(doc, path).IsValid() }

// Len is how long the list at a path is.
func Len(doc any, path string) int { return list(doc, path).Len() }

// list finds a list, an empty one where none is.
func list(doc any, path string) reflect.Value {
	v := at(doc, path)
	if v.Kind() == reflect.Pointer && !v.IsNil() {
		v = v.Elem()
	}
	if v.Kind() != reflect.Slice {
		return reflect.ValueOf([]struct{}{})
	}
	return v
}

// ids gives the identities of a list's members, to be read and written; none where they have none.
func ids(doc any, path string) (out []reflect.Value) {
	of := list(doc, path)
	for i := range of.Len() {
		if id := of.Index(i).FieldByName("ID"); id.IsValid() {
			out = append(out, id)
		}
	}
	return out
}

// paths gives the paths of a field of the table: one, or one for each member of its list.
func paths(doc any, tabled string) iter.Seq[string] {
	return func(yield func(string) bool) {
		before, after, many := strings.Cut(tabled, ".*")
		if !many {
			yield(tabled)
			return
		}
		own := ids(doc, before)
		for i := range list(doc, before).Len() {
			member := strconv.Itoa(i)
			if i < len(own) && own[i].String() != "" {
				member = "@" + own[i].String()
			}
			if !yield(before + "." + member + after) {
				return
			}
		}
	}
}

// keys are the names in a map, in order.
func keys(doc any, path string) (out []string) {
	if m := at(doc, path); m.Kind() == reflect.Map {
		for _, key := range m.MapKeys() {
			out = append(out, key.String())
		}
	}
	slices.Sort(out)
	return out
}

// Set writes a field and reports whether there is one at that path. Of a map, what is left empty is taken out, so
// that what is left alone and what is cleared are alike.
func Set(doc any, path, text string) bool {
	v := reflect.ValueOf(doc).Elem()
	parts := strings.Split(path, ".")
	for i, part := range parts {
		if v.Kind() == reflect.Map && i == len(parts)-1 {
			return setKey(v, part, text)
		}
		if v = step(v, part, true); !v.IsValid() {
			return false
		}
	}
	if v.Kind() != reflect.String || !v.CanSet() {
		return false
	}
	v.SetString(text)
	return true
}

// longestKey is how long a name in a map may be.
const longestKey = 64

func setKey(m reflect.Value, key, text string) bool {
	if key == "" || len(key) > longestKey {
		return false
	}
	if m.IsNil() {
		m.Set(reflect.MakeMap(m.Type()))
	}
	value := reflect.ValueOf(text).Convert(m.Type().Elem())
	if text == "" {
		value = reflect.Value{}
	}
	m.SetMapIndex(reflect.ValueOf(key), value)
	if m.Len() == 0 {
		m.SetZero()
	}
	return true
}

func step(v reflect.Value, part string, grow bool) reflect.Value {
	if v.Kind() == reflect.Pointer {
		if v.IsNil() {
			if !grow {
				return reflect.Value{}
			}
			v.Set(reflect.New(v.Type().Elem()))
		}
		v = v.Elem()
	}
	switch v.Kind() {
	case reflect.Struct:
		if i, ok := placesOf(v.Type())[part]; ok {
			return v.Field(i)
		}
	case reflect.Slice:
		if id, ok := strings.CutPrefix(part, "@"); ok {
			return byID(v, id)
		}
		if i, err := strconv.Atoi(part); err == nil && i >= 0 && i < v.Len() {
			return v.Index(i)
		}
	case reflect.Map:
		return v.MapIndex(reflect.ValueOf(part))
	}
	return reflect.Value{}
}

// known keeps, for each type, which field has which name in JSON; sharing, whether its values share.
var known, sharing sync.Map

func placesOf(t reflect.Type) map[string]int {
	if all, ok := known.Load(t); ok {
		return all.(map[string]int)
	}
	all := map[string]int{}
	for i := range t.NumField() {
		name, _, _ := strings.Cut(t.Field(i).Tag.Get("json"), ",")
		all[name] = i
	}
	known.Store(t, all)
	return all
}

// byID finds the member of a list that has an identity.
func byID(of reflect.Value, id string) reflect.Value {
	for i := range of.Len() {
		if own := of.Index(i).FieldByName("ID"); own.IsValid() && own.String() == id {
			return of.Index(i)
		}
	}
	return reflect.Value{}
}

// Remove takes the member at a path such as "pieces.@k3" out of its list, and tells the identity of the one that is
// then in its place; it reports whether it was there.
func Remove(doc any, path string) (next string, was bool) {
	before, member, _ := strings.Cut(path, ".@")
	of, own := list(doc, before), ids(doc, before)
	i := slices.IndexFunc(own, func(v reflect.Value) bool { return v.String() == member })
	if i < 0 {
		return "", false
	}
	if i+1 < len(own) {
		next = own[i+1].String()
	}
	left := reflect.MakeSlice(of.Type(), 0, of.Len()-1)
	left = reflect.AppendSlice(reflect.AppendSlice(left, of.Slice(0, i)), of.Slice(i+1, of.Len()))
	if left.Len() == 0 {
		left = reflect.Zero(of.Type())
	}
	of.Set(left)
	return next, true
}

// Insert puts the member at a path of another document into this one, at the same place as far as that is there; one
// that is there already stays as it is.
func Insert(doc, from any, path string) bool {
	before, member, _ := strings.Cut(path, ".@")
	is := func(v reflect.Value) bool { return v.String() == member }
	of, other, at := list(doc, before), list(from, before), slices.IndexFunc(ids(from, before), is)
	if at < 0 || slices.ContainsFunc(ids(doc, before), is) || of.Type() != other.Type() || !of.CanSet() {
		return false
	}
	n := min(at, of.Len())
	grown := reflect.MakeSlice(of.Type(), 0, of.Len()+1)
	grown = reflect.Append(reflect.AppendSlice(grown, of.Slice(0, n)), other.Index(at))
	of.Set(reflect.AppendSlice(grown, of.Slice(n, of.Len())))
	return true
}
