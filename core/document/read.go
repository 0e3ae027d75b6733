package document

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"reflect"
	"strings"
)

// twice finds a name that stands twice in one object: of such a pair the second would silently win. Its errors have a
// place for what the document is called.
func twice(data []byte) error {
	dec := json.NewDecoder(bytes.NewReader(data))
	var in []map[string]bool // the names of each object that is open, nil for a list
	name := false            // whether a name is due
	for {
		tok, err := dec.Token()
		if errors.Is(err, io.EOF) {
			return nil
		}
		if err != nil {
			return errors.New("this %s has a mistake in it" + strings.ReplaceAll(Detail(err), "%", "%%"))
		}
		open := len(in) > 0 && in[len(in)-1] != nil
		switch t := tok.(type) {
		case json.Delim:
			switch t {
			case '{':
				in, name = append(in, map[string]bool{}), true
			case '[':
				in, name = append(in, nil), false
			default:
				in = in[:len(in)-1]
				name = len(in) > 0 && in[len(in)-1] != nil
			}
			continue
		case string:
			if open && name {
				// Names are matched without regard to capitals, so they are counted so.
				key := strings.ToLower(t)
				if in[len(in)-1][key] {
					return errors.New(strings.ReplaceAll(fmt.Sprintf("%q", t), "%", "%%") +
						" is in this %s twice; remove one of them")
				}
				in[len(in)-1][key], name = true, false
				continue
			}
		}
		name = open
	}
}

// Clone gives a copy that shares nothing with d.
func Clone[D any](d D) D {
	into := reflect.New(reflect.TypeFor[D]()).Elem()
	copyTo(into, reflect.ValueOf(&d).Elem())
	return into.Interface().(D)
}

func copyTo(into, from reflect.Value) {
	switch from.Kind() {
	case reflect.Pointer:
		if !from.IsNil() {
			into.Set(reflect.New(from.Type().Elem()))
			copyTo(into.Elem(), from.Elem())
		}
	case reflect.Struct:
		into.Set(from)
		for i := range from.NumField() {
			if shares(from.Type().Field(i).Type) {
				copyTo(into.Field(i), from.Field(i))
			}
		}
	case reflect.Slice:
		if from.IsNil() {
			return
		}
		into.Set(reflect.MakeSlice(from.Type(), from.Len(), from.Len()))
		reflect.Copy(into, from)
		for i := 0; shares(from.Type().Elem()) && i < from.Len(); i++ {
			copyTo(into.Index(i), from.Index(i))
		}
	case reflect.Map:
		if from.IsNil() {
			return
		}
		into.Set(reflect.MakeMapWithSize(from.Type(), from.Len()))
		for at := from.MapRange(); at.Next(); {
			into.SetMapIndex(at.Key(), at.Value()) // of texts
		}
	default:
		into.Set(from)
	}
}

// shares reports whether a value of a type can share something with its copy.
func shares(t reflect.Type) bool {
	if known, ok := sharing.Load(t); ok {
		return known.(bool)
	}
	is := false
	switch t.Kind() {
	case reflect.Pointer, reflect.Slice, reflect.Map:
		is = true
	case reflect.Struct:
		for i := range t.NumField() {
			is = is || shares(t.Field(i).Type)
		}
	}
	sharing.Store(t, is)
	return is
}
