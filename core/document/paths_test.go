package document

import (
	"fmt"
	"testing"
)

type text string

type member struct {
	ID   string `json:"id"`
	Name text   `json:"name,omitempty"`
}

type sample struct {
	Title text            `json:"title"`
	List  []member        `json:"list"`
	Map   map[string]text `json:"map,omitempty"`
	Part  *struct {
		Deep text `json:"deep"`
	} `json:"part,omitempty"`
	Count int `json:"count"`
}

// What is written at a path is read there again, and what is no field is neither
// written nor read.
func TestPaths(t *testing.T) {
	d := &sample{List: []member{{ID: "a"}, {ID: "b"}}}
	for i, path := range []string{"title", "list.0.name", "list.@b.name", "map.lid", "part.deep"} {
		if Get(d, path) != "" || !Set(d, path, fmt.Sprint("x", i)) || Get(d, path) != fmt.Sprint("x", i) || !Has(d, path) {
			t.Errorf("%s: %q", path, Get(d, path))
		}
	}
	if Get(d, "list.1.name") != "x2" || Get(d, "list.@a.name") != "x1" {
		t.Error("a member goes by another's identity")
	}
	for _, path := range []string{"", "none", "list", "list.2.name", "list.-1.name", "list.@c.name", "list.0.none", "count", "title.x", "map.",
		"map." + string(make([]byte, 70)), "part"} {
		if Set(d, path, "y") || Get(d, path) != "" {
			t.Errorf("%q can be written, or says %q", path, Get(d, path))
		}
	}
	if !Set(d, "map.lid", "") || d.Map != nil || Has(d, "map.lid") {
		t.Errorf("cleared and left: %v", d.Map)
	}
	e := &sample{}
	if Has(e, "part.deep") || Get(e, "part.deep") != "" || e.Part != nil {
		t.Error("looking made something")
	}
}

// A member that is taken out is put back where it was, once, and nothing else is touched.
func TestOutAndBack(t *testing.T) {
	d := sample{List: []member{{ID: "a"}, {ID: "b", Name: "x"}, {ID: "c"}}}
	was := Clone(d)
	if next, ok := Remove(&d, "list.@b"); !ok || next != "c" || fmt.Sprint(d.List) != "[{a } {c }]" || len(was.List) != 3 {
		t.Errorf("%q %v", next, d.List)
	}
	if _, ok := Remove(&d, "list.@b"); ok {
		t.Error("it is taken out twice")
	}
	if !Insert(&d, &was, "list.@b") || Insert(&d, &was, "list.@b") || fmt.Sprint(d.List) != "[{a } {b x} {c }]" {
		t.Errorf("%v", d.List)
	}
	for _, path := range []string{"list.@z", "title.@a", "none.@a", "list", ""} {
		if _, ok := Remove(&d, path); ok || Insert(&d, &was, path) {
			t.Errorf("%q is taken out or put in", path)
		}
	}
	Remove(&d, "list.@a")
	Remove(&d, "list.@b")
	if Remove(&d, "list.@c"); d.List != nil {
		t.Error("an empty list is left")
	}
}
