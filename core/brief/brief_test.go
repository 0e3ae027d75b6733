package brief

import (
	"bytes"
	"fmt"
	"slices"
	"strings"
	"testing"

	"brevium/core/document"
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
	if b, err = Decode([]byte(`{"brevium":1, "size":{"length":5,"width":"3 1/2","depth":"2 in"},
		"contents":[{"name":"x","length":"1"}]}`)); err != nil {
		t.Fatal(err)
	}
	if b.Units != "in" || b.Size.Length != "5" || b.Contents[0].Shape != "block" ||
		b.Contents[0].Count != "1" || b.Card.Sheet != "12x12" {
		t.Errorf("what a short document leaves unsaid: %+v", b)
	}
	bad := map[string]string{
		``: "isn't a box", `[]`: "isn't a box", `{"name":"x"}`: "isn't a box",
		`{"brevium":2}`: "newer Brevium", `{"brevium":1,"colour":"red"}`: "colour", `{"brevium":1,"name":[]}`: "has a mistake",
		`{"brevium":1} x`: "isn't a box", `{"brevium":1,"copies":{}}`: "has a mistake",
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
		"name": "x", "contents.0.count": "12", "size.length": "5", "box.options.lid": "full",
		"tools.step": "1/8 in", "room.around": "1/4 in",
	} {
		if !b.Set(path, text) || b.Get(path) != text {
			t.Errorf("%s holds %q after it was set to %q", path, b.Get(path), text)
		}
	}
	for _, path := range []string{"", "nothing", "contents.9.name", "contents.x.name", "brevium", "name.x", "box.options",
		"contents", "contents.-1.name", "box.options."} {
		if b.Set(path, "x") {
			t.Errorf("%q was set", path)
		}
	}
	if b.Set("box.options.lid", ""); b.Box.Options != nil {
		t.Error("a cleared option is still there")
	}
}

func typed(text, was string) document.Typed { return document.Typed{Text: text, Was: was} }

func TestMerge(t *testing.T) {
	newest := New("in")
	newest.Set("name", "theirs")
	newest.Set("copies", "3")
	got, conflicts := Form.Merge(newest, map[string]document.Typed{
		"name": typed("mine", "New box"), "copies": typed("1", "1"), "contents.@1.length": typed("7", "4 1/2 in"),
		"card.sheet": typed("12x12", "12x12"), "contents.@9.length": typed("8", "7")})
	want := []document.Conflict{{Field: "contents.@9.length", Mine: "8", Gone: true},
		{Field: "name", Mine: "mine", Theirs: "theirs"}}
	if !slices.Equal(conflicts, want) {
		t.Errorf("conflicts %v", conflicts)
	}
	if got.Name != "theirs" || got.Copies != "3" || got.Contents[0].Length != "7" {
		t.Errorf("merged to %s", got.Encode())
	}
	if newest.Contents[0].Length == "7" {
		t.Error("merging changed the newest brief itself")
	}
}

// Things and pieces go by who they are, not by where they stand.
func TestIdentities(t *testing.T) {
	b, err := Decode([]byte(`{"brevium":1,"contents":[{"name":"a"},{"id":"1","name":"b"},{"name":"c"}]}`))
	if err != nil || b.Contents[0].ID != "2" || b.Contents[1].ID != "1" || b.Contents[2].ID != "3" {
		t.Fatalf("%+v %v", b.Contents, err)
	}
	b.Contents = b.Contents[1:]
	if b.Get("contents.@3.name") != "c" || b.Get("contents.@2.name") != "" || b.Set("contents.@2.name", "x") ||
		b.Has("contents.@2.name") {
		t.Error("a thing that was taken out is still reached, or one that moved is not")
	}
	for _, path := range []string{"contents.@1.id", "contents.0.id", "arrange.places.0.thing", "box.pieces.@1.name",
		"box.stated.depths"} {
		if b.Has(path) || b.Set(path, "x") {
			t.Errorf("%s was set", path)
		}
	}
	for _, path := range []string{"box.stated.depth", "size.length", "contents.@1.length", "box.options.x"} {
		if !b.Has(path) {
			t.Errorf("there is no %s", path)
		}
	}
}

// What is accepted is readable again, and a copy shares nothing with it.
func TestDoors(t *testing.T) {
	things := strings.Repeat("{},", 10_000)
	for name, c := range map[string]struct{ doc, says string }{
		"10,000 empty things": {`{"brevium":1,"contents":[` + things[:len(things)-1] + `]}`, "10000 things; the most is 100"},
		"8,000 places": {`{"brevium":1,"arrange":{"places":[` + things[:8000*3-1] + `]}}`,
			"8000 places; the most is 2000"},
		"notes too long": {`{"brevium":1,"notes":"` + strings.Repeat("é", 4001) + `"}`,
			"“Notes” is 4001 letters long; it takes 4000"},
		"an option too long": {`{"brevium":1,"box":{"options":{"lid-height":"` + strings.Repeat("1",
			999) + `"}}}`, "“Lid height” is 999 letters"},
		"a name twice": {`{"brevium":1,"name":"a","units":"in","Name":"b"}`, "\"Name\" is in this box twice"},
		"a name twice in a list": {`{"brevium":1,"contents":[{"name":"a"},{"name":"b","count":1,"count":2}]}`,
			"\"count\" is in this box twice"},
		"an identity twice": {`{"brevium":1,"contents":[{"id":"x"},{"id":"x"}]}`, "twice"},
		"a newer format":    {`{"brevium":2}`, "newer Brevium"},
	} {
		if _, err := Decode([]byte(c.doc)); err == nil || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%s: %v", name, err)
		}
	}
	options := map[string]Text{}
	for i := range 3000 {
		options[fmt.Sprint("o", i)] = "1"
	}
	b := New("in")
	if b.Box.Options = options; b.Check() == nil {
		t.Error("3,000 options are taken")
	}
	b.Box.Options = map[string]Text{"lid": "full"}
	b.Notes = Text(strings.Repeat("é", 4000))
	b.Contents = slices.Repeat(b.Contents[:1], 100)
	for i := range b.Contents {
		b.Contents[i].ID = fmt.Sprint(i)
		// A control mark takes six bytes when it is written.
		b.Contents[i].Name, b.Contents[i].Mass = Text(strings.Repeat("\x01", 200)), Text(strings.Repeat("\x02", 200))
	}
	if err := b.Check(); err == nil || !strings.Contains(err.Error(), "when written") {
		t.Errorf("a document that can't be read again is taken: %v", err)
	}
	b.Contents = b.Contents[:3]
	b.Size, b.Box.Stated = &Size{Length: "1"}, &Size{}
	c := b.Clone()
	for path := range b.All() {
		c.Set(path, "other")
	}
	if again, err := Decode(b.Encode()); err != nil || b.Get("size.length") != "1" ||
		b.Get("contents.2.mass")[0] != 2 || b.Get("box.options.lid") != "full" ||
		!bytes.Equal(again.Encode(), b.Encode()) {
		t.Errorf("a change of the copy changed the first, or it came back different: %v", err)
	}
}
