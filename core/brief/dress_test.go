package brief

import (
	"fmt"
	"math/rand/v2"
	"reflect"
	"strings"
	"testing"

	"brevium/core/document"
)

// Every field of the dressing is kept as it is typed, written and read again; what has no
// identity gets one, and goes by it and by its place.
func TestDressFields(t *testing.T) {
	b := New("in")
	b.Dress = Dress{Layers: []Layer{{}, {ID: "k"}}, Liners: []Liner{{}}, Windows: []Opening{{}}, Grips: []Grip{{}},
		Toppers: []Topper{{}}, Finishes: []Finish{{}}}
	r := rand.New(rand.NewPCG(3, 4))
	want, n := map[string]string{}, 0
	for _, f := range Table {
		if !strings.HasPrefix(f.Path, "dress.") {
			continue
		}
		for _, place := range []string{"0", "1"} {
			path := strings.Replace(f.Path, "*", place, 1)
			text := fmt.Sprintf("%d %c", r.IntN(1000), 'a'+r.IntN(26))
			if f.Kind == document.Number {
				text = fmt.Sprint(1 + r.IntN(9))
			}
			if path != f.Path && place == "1" && !strings.HasPrefix(path, "dress.layers.") || path == f.Path && place == "1" {
				continue
			}
			if !b.Set(path, text) || b.Get(path) != text {
				t.Errorf("%s is not kept", path)
			}
			want[path], n = text, n+1
		}
	}
	if n < 78 {
		t.Fatalf("only %d fields", n)
	}
	again, err := Decode(b.Encode())
	if err != nil {
		t.Fatal(err)
	}
	for path, text := range want {
		if again.Get(path) != text {
			t.Errorf("%s: %q, want %q", path, again.Get(path), text)
		}
	}
	if string(again.Encode()) != string(func() []byte { c, _ := Decode(again.Encode()); return c.Encode() }()) {
		t.Error("written again it is another")
	}
	if again.Dress.Layers[0].ID != "1" || again.Dress.Layers[1].ID != "k" ||
		again.Placed("dress.layers.@k.border") != "dress.layers.1.border" ||
		again.Placed("dress.layers.@gone.border") != "dress.layers.@gone.border" || !again.Has("dress.layers.@k.motif.x") {
		t.Errorf("identities: %+v", again.Dress.Layers)
	}
	listed := map[string]bool{}
	for path := range again.All() {
		listed[again.Placed(path)] = true
	}
	for path := range want {
		if !listed[path] {
			t.Errorf("%s is not listed", path)
		}
	}
	if bare := again.Dress.Bare(); bare.Layers != nil || bare.Outside != again.Dress.Outside {
		t.Errorf("%+v", bare)
	}
}

// A copy shares nothing, two windows merge layer by layer, and what is wrong with a list
// is told at the door.
func TestDressIsItsOwn(t *testing.T) {
	b := New("in")
	b.Dress.Layers = []Layer{{ID: "a", On: "front"}, {ID: "b", On: "back"}}
	c := b.Clone()
	c.Set("dress.layers.@a.border", "1/4 in")
	c.Dress.Toppers = append(c.Dress.Toppers, Topper{ID: "t"})
	if b.Dress.Layers[0].Border != "" || len(b.Dress.Toppers) != 0 {
		t.Error("a copy shares the dressing")
	}
	merged, conflicts := Form.Merge(c, map[string]document.Typed{"dress.layers.@b.border": {Text: "1/8 in"},
		"dress.layers.@a.border": {Text: "1/2 in"}, "dress.layers.@z.border": {Text: "1 in"}})
	if merged.Dress.Layers[1].Border != "1/8 in" || merged.Dress.Layers[0].Border != "1/4 in" || len(conflicts) != 2 {
		t.Errorf("%+v %+v", merged.Dress.Layers, conflicts)
	}
	for _, c := range []struct{ dress, says string }{
		{`{"layers": [{"on": "a", "id": "x"}, {"on": "b", "id": "x"}]}`, "twice"},
		{`{"layers": [{"on": "a", "id": "x.y"}]}`, "has a dot"},
		{`{"toppers": [` + strings.Repeat(`{"shape": "star"},`, 40) + `{"shape": "star"}]}`,
			"lists 41 toppers; the most is 40"},
		{`{"layers": [{"on": "` + strings.Repeat("front, ", 200) + `"}]}`, "letters long"},
		{`{"layers": [{"over": "front"}]}`, "field that Brevium doesn't know"},
		{`{"bands": {}}`, "field that Brevium doesn't know"},
	} {
		_, err := Decode([]byte(`{"brevium": 1, "name": "x", "units": "in", "box": {"style": "tray-lid"}, "card": {}, "dress": ` + c.dress + `}`))
		if err == nil || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%.60s: %v", c.dress, err)
		}
	}
}

// A box of a set has its own dressing, or that of all.
func TestDressInSets(t *testing.T) {
	b := New("in")
	b.Dress.Layers = []Layer{{ID: "a", On: "all"}}
	b.AddMember()
	m := b.Member(1)
	if !reflect.DeepEqual(m.Dress, b.Dress) {
		t.Errorf("%+v", m.Dress)
	}
	m.Dress.Layers[0].On = "front"
	b.SetMember(1, m)
	if b.Dress.Layers[0].On != "all" || b.Member(0).Dress.Layers[0].On != "all" ||
		b.Member(1).Dress.Layers[0].On != "front" {
		t.Errorf("%+v %+v", b.Dress, b.Several.Boxes)
	}
	c := b.Clone()
	c.Several.Boxes[1].Dress.Layers[0].On = "back"
	if b.Several.Boxes[1].Dress.Layers[0].On != "front" {
		t.Error("a copy of a set shares a box's dressing")
	}
}
