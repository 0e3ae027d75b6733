package brief

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
)

const aTower = `{"brevium": 1, "name": "tower", "units": "mm", "copies": 2,
  "contents": [{"name": "tin", "shape": "cylinder", "diameter": "60 mm", "height": "30 mm", "count": 1}],
  "box": {"style": "tray-lid", "options": {"lid": "short", "tabs": "half"}}, "card": {"stock": "cover-270", "sheet": "a3"},
  "tools": {"step": "1 mm", "fit": "snug"},
  "set": {"kind": "stack", "boxes": [{"name": "foot"}, {"name": "top", "card": {"stock": "cover-216"},
    "box": {"options": {"lid": "full"}}, "size": {"length": "50 mm", "width": "50 mm", "depth": "30 mm"}}, {"contents": []}]}}`

// Each box of a set is the same as all, but for what it says of its own.
func TestMembersShare(t *testing.T) {
	b, err := Decode([]byte(aTower))
	if err != nil {
		t.Fatal(err)
	}
	top := b.Member(1)
	for path, want := range map[string]string{"name": "top", "card.stock": "cover-216", "card.sheet": "a3", "box.options.lid": "full",
		"box.options.tabs": "half", "size.length": "50 mm", "tools.fit": "snug", "copies": "1", "set.kind": "stack", "set.name": "tower"} {
		if got := top.Get(path); got != want {
			t.Errorf("%s is %q, not %q", path, got, want)
		}
	}
	if len(top.Contents) != 0 || len(b.Member(2).Contents) != 0 || len(b.Member(0).Contents) != 1 || b.Member(2).Name != "box 3" {
		t.Error("contents that are a box's own, or none, are not those of all")
	}
	// What the first has in common with all it says for all: the others follow.
	foot := b.Member(0)
	foot.Set("card.sheet", "a4")
	foot.Set("tools.fit", "loose")
	b.SetMember(0, foot)
	if b.Member(1).Card.Sheet != "a4" || b.Member(1).Card.Stock != "cover-216" || b.Member(2).Tools.Fit != "loose" {
		t.Errorf("%+v", b.Member(1).Card)
	}
	// What another changes is its own.
	last := b.Member(2)
	last.Set("tools.fit", "easy")
	b.SetMember(2, last)
	if b.Member(0).Tools.Fit != "loose" || b.Member(2).Tools.Fit != "easy" || b.Several.Boxes[2].Tools == nil {
		t.Error("the last did not keep its own fit")
	}
	last.Set("tools.fit", "loose")
	if b.SetMember(2, last); b.Several.Boxes[2].Tools != nil {
		t.Error("what is the same as for all is said again")
	}
	// Without boxes it is a project again.
	b.RemoveMember(0)
	if b.Member(0).Name != "top" || b.Member(0).Card.Stock != "cover-216" {
		t.Errorf("after the first went, %+v", b.Member(0))
	}
	b.Several.Boxes[0].Copies, b.Several.Copies = "3", "4"
	b.RemoveMember(1)
	if b.IsSet() || b.Copies != "12" || b.Name != "tower" || b.Card.Stock != "cover-216" || b.Size == nil {
		t.Errorf("the one that is left: %+v", b)
	}
}

// Taking a box out of its set and back changes nothing; a set that is written reads
// the same; a change of one field of one box comes back from it.
func TestMembersComeBack(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 4))
	fields := []string{"card.stock", "card.sheet", "tools.fit", "tools.adhesive", "box.style", "box.options.walls", "room.around",
		"arrange.compartments", "size.depth", "name", "notes", "copies"}
	for range 400 {
		b, err := Decode([]byte(aTower))
		if err != nil {
			t.Fatal(err)
		}
		for range r.IntN(6) {
			if r.IntN(3) == 0 {
				b.AddMember()
			} else if n := len(b.Several.Boxes); n > 2 && r.IntN(3) == 0 {
				gone := r.IntN(n)
				left := slices.Delete(documents(b), gone, gone+1)
				if b.RemoveMember(gone); !slices.Equal(documents(b), left) {
					t.Fatalf("box %d went, and of the others\n%s\nbecame\n%s", gone, left, documents(b))
				}
			}
			n := r.IntN(len(b.Several.Boxes))
			m, path, text := b.Member(n), fields[r.IntN(len(fields))], fmt.Sprint("word ", r.IntN(4))
			m.Set(path, text)
			b.SetMember(n, m)
			now := b.Member(n)
			if got := now.Get(path); got != text {
				t.Fatalf("%s of box %d is %q, not %q", path, n, got, text)
			}
		}
		whole := string(b.Encode())
		for n := range b.Several.Boxes {
			before := string(b.Member(n).Encode())
			b.SetMember(n, b.Member(n))
			if after := string(b.Member(n).Encode()); before != after {
				t.Fatalf("box %d was\n%s, is\n%s", n, before, after)
			}
		}
		if again, err := Decode([]byte(whole)); err != nil || string(again.Encode()) != whole {
			t.Fatalf("%v: %s", err, whole)
		}
	}
}

// documents are the boxes of a set as they are each by itself, their names aside.
func documents(b Brief) (out []string) {
	for n := range b.Several.Boxes {
		m := b.Member(n)
		m.Name = ""
		out = append(out, string(m.Encode()))
	}
	return out
}

// A set of one box, or of none, is a project like any other.
func TestSmallSets(t *testing.T) {
	b, err := Decode([]byte(`{"brevium": 1, "set": {"kind": "nest", "boxes": []}}`))
	if err != nil || b.Several != nil {
		t.Errorf("%v %+v", err, b.Several)
	}
	b, err = Decode([]byte(`{"brevium": 1, "name": "one", "set": {"kind": "nest", "boxes": [{"card": {"stock": "kraft-300"}}]}}`))
	if err != nil || !b.IsSet() {
		t.Fatal(err)
	}
	if b.RemoveMember(0); b.Several != nil || b.Name != "one" || b.Card.Stock != "kraft-300" {
		t.Errorf("%s", b.Encode())
	}
}

func TestSetsAreBounded(t *testing.T) {
	for says, boxes := range map[string]string{
		"this set has 13 boxes":           strings.Repeat(`{},`, 12) + `{}`,
		"twice":                           `{"id": "7"}, {"id": "7"}`,
		"field that Brevium doesn't know": `{"hat": 1}`,
		"top: ":                           `{"name": "top", "box": {"style": "` + strings.Repeat("x", 300) + `"}}`,
	} {
		_, err := Decode([]byte(`{"brevium": 1, "set": {"kind": "stack", "boxes": [` + boxes + `]}}`))
		if err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%s: %v", says, err)
		}
	}
}
