package brief

import (
	"bytes"
	"strings"
	"testing"
)

const sample = `{"brevium": 1, "name": "Bulb sampler", "units": "in", "copies": 1,
 "contents": [{"name": "tulip bulb", "shape": "ball", "diameter": "1 3/4 in", "count": 6}],
 "box": {"style": "tray-lid", "options": {"lid-height": "1 in", "clearance": "grow-lid"}},
 "card": {"stock": "cover-216", "sheet": "12x12"}, "tools": {"step": "1/16 in", "fit": "snug"}}`

func TestDecode(t *testing.T) {
	b, err := Decode([]byte(sample))
	if err != nil || b.Contents[0].Count != "6" || b.Box.Options["lid-height"] != "1 in" {
		t.Fatal(b, err)
	}
	if b, err = Decode([]byte(`{"brevium":1, "size":{"length":5,"width":"3 1/2","depth":"2 in"}, "contents":[{"name":"x","length":"1"}]}`)); err != nil {
		t.Fatal(err)
	}
	if b.Units != "in" || b.Size.Length != "5" || b.Contents[0].Shape != "block" || b.Contents[0].Count != "1" || b.Card.Sheet != "12x12" {
		t.Errorf("what a short document leaves unsaid: %+v", b)
	}
	bad := map[string]string{
		``: "not a Brevium project", `[]`: "not a Brevium project", `{"name":"x"}`: "not a Brevium project",
		`{"brevium":2}`: "newer Brevium", `{"brevium":1,"colour":"red"}`: "colour", `{"brevium":1,"name":[]}`: "can't be read",
		`{"brevium":1} x`: "after top-level", `{"brevium":1,"copies":{}}`: "can't be read",
		strings.Repeat(" ", Limit) + `{"brevium":1}`: "larger than",
	}
	for doc, part := range bad {
		if _, err := Decode([]byte(doc)); err == nil || !strings.Contains(err.Error(), part) {
			t.Errorf("Decode(%.40q) says %v; want %q in it", doc, err, part)
		}
	}
}

// A document that is written, read and written again is the same, to the byte.
func FuzzDecode(f *testing.F) {
	f.Add([]byte(sample))
	f.Add(New("mm").Encode())
	f.Add([]byte(`{"brevium":1,"name":"","copies":"six","contents":[{"count":"007"}],"room":{"around":""}}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		b, err := Decode(data)
		if err != nil {
			return
		}
		once := b.Encode()
		again, err := Decode(once)
		if err != nil || !bytes.Equal(again.Encode(), once) {
			t.Fatalf("%s\nis read back as\n%s\n%v", once, again.Encode(), err)
		}
	})
}

func TestFields(t *testing.T) {
	b := New("in")
	for path, text := range map[string]string{
		"name": "x", "contents.0.count": "12", "size.length": "5", "box.options.lid": "full", "tools.step": "1/8 in", "room.around": "1/4 in",
	} {
		if !b.Set(path, text) || b.Get(path) != text {
			t.Errorf("%s holds %q after it was set to %q", path, b.Get(path), text)
		}
	}
	for _, path := range []string{"", "nothing", "contents.9.name", "contents.x.name", "brevium", "name.x", "box.options", "contents", "contents.-1.name", "box.options."} {
		if b.Set(path, "x") {
			t.Errorf("%q was set", path)
		}
	}
	if b.Set("box.options.lid", ""); b.Box.Options != nil {
		t.Error("a cleared option is still there")
	}
}

func TestMerge(t *testing.T) {
	seen := New("in")
	newest := seen.Clone()
	newest.Set("name", "theirs")
	newest.Set("copies", "3")
	got, conflicts := Merge(seen, newest, map[string]string{
		"name": "mine", "copies": "1", "contents.0.length": "7", "card.sheet": "12x12",
	})
	if len(conflicts) != 1 || conflicts[0] != (Conflict{"name", "mine", "theirs"}) {
		t.Errorf("conflicts %v", conflicts)
	}
	if got.Name != "theirs" || got.Copies != "3" || got.Contents[0].Length != "7" {
		t.Errorf("merged to %s", got.Encode())
	}
	if newest.Contents[0].Length == "7" {
		t.Error("merging changed the newest brief itself")
	}
}
