package brief

import (
	"maps"
	"reflect"
	"slices"
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
	if _, ok := FieldAt(path); !ok && !strings.HasPrefix(path, "box.options.") {
		return false
	}
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
		if i, ok := placeOf[v.Type()][part]; ok {
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

// placeOf gives, for each part of a document, which field has which name in it.
var placeOf = func() map[reflect.Type]map[string]int {
	all := map[reflect.Type]map[string]int{}
	for _, part := range []any{Brief{}, Item{}, Room{}, Arrange{}, Place{}, Size{}, Box{}, Scored{}, Card{}, Tools{}, Set{}} {
		t := reflect.TypeOf(part)
		all[t] = map[string]int{}
		for i := range t.NumField() {
			name, _, _ := strings.Cut(t.Field(i).Tag.Get("json"), ",")
			all[t][name] = i
		}
	}
	return all
}()

// byID finds the thing or piece of a list that has an identity.
func byID(list reflect.Value, id string) reflect.Value {
	for i := range list.Len() {
		if own := list.Index(i).FieldByName("ID"); own.IsValid() && own.String() == id {
			return list.Index(i)
		}
	}
	return reflect.Value{}
}

// Has says whether there is a field at a path. Of options it can't tell.
func (b *Brief) Has(path string) bool {
	if id, ok := strings.CutPrefix(path, "box.options."); ok {
		return id != "" && len(id) <= 40
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
	v := reflect.ValueOf(b).Elem()
	for part := range strings.SplitSeq(at, ".") {
		if v = step(v, part, false); !v.IsValid() {
			return at == "box.stated"
		}
	}
	return true
}

// Item finds a thing by its identity, and its place in the list; -1 when it is
// not there.
func (b *Brief) Item(id string) int {
	return slices.IndexFunc(b.Contents, func(i Item) bool { return i.ID == id })
}

// Scored finds a piece of a list of scores by its identity, -1 when it is not
// there.
func (b *Brief) Scored(id string) int {
	return slices.IndexFunc(b.Box.Pieces, func(p Scored) bool { return p.ID == id })
}

// Conflict is a field that two windows changed in different ways. Gone says
// that the other window took out the thing or piece it belongs to; Theirs is
// then what that was called.
type Conflict struct {
	Field, Mine, Theirs string
	Gone                bool
}

// Typed is what a window typed in a field, and what that window showed there
// before.
type Typed struct{ Text, Was string }

// Merge lays the fields typed in one window on to the newest brief. A field
// that nothing changed since the window showed it takes the typed text; one
// that another window changed differently meanwhile is a conflict, which leaves
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
