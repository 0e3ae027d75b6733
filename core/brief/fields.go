package brief

import (
	"reflect"
	"sort"
	"strconv"
	"strings"
)

// Get gives the field at a path such as "contents.0.length", "box.options.lid"
// or "tools.step". An absent part reads as empty.
func (b *Brief) Get(path string) string {
	v := reflect.ValueOf(b).Elem()
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

// Set writes a field and says whether there is one at that path. An empty
// option is removed, so that an option left alone and one cleared are alike.
func (b *Brief) Set(path, text string) bool {
	v := reflect.ValueOf(b).Elem()
	parts := strings.Split(path, ".")
	for i, part := range parts {
		if v.Kind() == reflect.Map && i == len(parts)-1 {
			return setOption(v, part, text)
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

func setOption(m reflect.Value, key, text string) bool {
	if key == "" || len(key) > 40 {
		return false
	}
	if m.IsNil() {
		m.Set(reflect.MakeMap(m.Type()))
	}
	value := reflect.ValueOf(Text(text))
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
		t := v.Type()
		for i := range t.NumField() {
			if name, _, _ := strings.Cut(t.Field(i).Tag.Get("json"), ","); name == part {
				return v.Field(i)
			}
		}
	case reflect.Slice:
		if i, err := strconv.Atoi(part); err == nil && i >= 0 && i < v.Len() {
			return v.Index(i)
		}
	case reflect.Map:
		return v.MapIndex(reflect.ValueOf(part))
	}
	return reflect.Value{}
}

// Conflict is a field that two windows changed in different ways.
type Conflict struct{ Field, Mine, Theirs string }

// Merge lays the fields typed in one window on to the newest brief. seen is
// the brief that window showed: a field it left as seen takes the newest
// value, a field that only it changed takes the typed one, and a field that
// both changed differently is a conflict, which leaves the newest brief's
// value standing.
func Merge(seen, newest Brief, typed map[string]string) (Brief, []Conflict) {
	out := newest.Clone()
	var conflicts []Conflict
	paths := make([]string, 0, len(typed))
	for path := range typed {
		paths = append(paths, path)
	}
	sort.Strings(paths)
	for _, path := range paths {
		mine, was, theirs := typed[path], seen.Get(path), newest.Get(path)
		switch {
		case mine == was, mine == theirs:
		case theirs != was || !out.Set(path, mine):
			conflicts = append(conflicts, Conflict{path, mine, theirs})
		}
	}
	return out, conflicts
}
