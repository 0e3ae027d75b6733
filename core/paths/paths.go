// Package paths reads and writes the fields of a document by their names in its
// JSON: "contents.0.length", "cards.@k3.caliper", "box.options.lid". Every field
// is a text; a member of a list goes by its place or, after an @, by its ID.
package paths

import (
	"reflect"
	"strconv"
	"strings"
	"sync"
)

// Get gives the text at a path of a document, which is a pointer to a struct. What is not there reads as empty.
func Get(doc any, path string) string {
	v := reflect.ValueOf(doc).Elem()
	for part := range strings.SplitSeq(path, ".") {
		if v = step(v, part, false); !v.IsValid() {
			return ""
		}
	}
	if v.Kind() == reflect.String {
		return v.String()
	}
	return ""
}

// Has reports whether there is something at a path.
func Has(doc any, path string) bool {
	v := reflect.ValueOf(doc).Elem()
	for part := range strings.SplitSeq(path, ".") {
		if v = step(v, part, false); !v.IsValid() {
			return false
		}
	}
	return true
}

// Len is how long the list at a path is.
func Len(doc any, path string) int {
	v := reflect.ValueOf(doc).Elem()
	for part := range strings.SplitSeq(path, ".") {
		if v = step(v, part, false); !v.IsValid() {
			return 0
		}
	}
	if v.Kind() != reflect.Slice {
		return 0
	}
	return v.Len()
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
const longestKey = 40

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

// known keeps, for each type, which field has which name in JSON.
var known sync.Map

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
func byID(list reflect.Value, id string) reflect.Value {
	for i := range list.Len() {
		if own := list.Index(i).FieldByName("ID"); own.IsValid() && own.String() == id {
			return list.Index(i)
		}
	}
	return reflect.Value{}
}
