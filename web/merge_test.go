package web

import (
	"fmt"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/web/workbench"
)

// Two windows: what each changed alone is kept; what both changed is shown.
func TestTwoWindows(t *testing.T) {
	a := newApp(t)
	id := a.begin(brief.New("in"))
	base := fmt.Sprint(a.head(id).ID)
	path := "/projects/" + id + "/change"
	a.post(path, "base", base, "burst", "w1:1", "contents.@1.length", "6", "contents.@1.width", "3 1/4 in")
	w := a.post(path, "base", base, "burst", "w2:1", "contents.@1.length", "4 1/2", "contents.@1.width", "3 1/4",
		"contents.@1.count", "9")
	if got := a.head(id).Doc.Contents[0]; got.Length != "6 in" || got.Count != "9" || w.Code != 200 {
		t.Errorf("merged to %+v", got)
	}
	w = a.post(path, "base", base, "burst", "w2:2", "contents.@1.length", "7")
	if body := w.Body.String(); !strings.Contains(body, "was changed in another window too") || !strings.Contains(body,
		"7 in") || a.head(id).Doc.Contents[0].Length != "6 in" {
		t.Errorf("a conflict was not shown: %.400s", body)
	}
	// A window says what it showed: its own later keystrokes are no conflict, be
	// the revision it names an old one.
	base = fmt.Sprint(a.head(id).ID)
	a.post(path, "base", base, "contents.@1.length", "5", "was.contents.@1.length", "6 in")
	a.post(path, "base", base, "contents.@1.length", "5 1/2", "was.contents.@1.length", "5")
	if got := a.head(id).Doc.Contents[0].Length; got != "5 1/2 in" {
		t.Errorf("the later keystrokes gave %q", got)
	}
}

// Merging and buttons go by who a thing is, not by where it stood.
func TestMergingByIdentity(t *testing.T) {
	a := newApp(t)
	b := brief.New("in")
	b.Contents = []brief.Item{b.Contents[0], b.Contents[0], b.Contents[0]}
	for i := range b.Contents {
		b.Contents[i].ID, b.Contents[i].Name = fmt.Sprint(i+1), brief.Text([]string{"first", "second", "third"}[i])
	}
	id := a.begin(b)
	path, old := "/projects/"+id+"/change", fmt.Sprint(a.head(id).ID)
	names := func() (out string) {
		for _, item := range a.head(id).Doc.Contents {
			out += string(item.Name) + " " + string(item.Length) + ", "
		}
		return out
	}
	a.post(path, "base", old, "act", "remove-thing:1")
	a.post(path, "base", old, "contents.@2.length", "6")
	if got := names(); got != "second 6 in, third 4 1/2 in, " {
		t.Errorf("the old window's length went to %s", got)
	}
	// The same thing taken out twice takes out no other.
	if w := a.post(path, "base", old, "act", "remove-thing:1"); w.Code != 200 ||
		!strings.Contains(w.Body.String(), "removed it in another window") || names() != "second 6 in, third 4 1/2 in, " {
		t.Errorf("taken out twice: %d, %s", w.Code, names())
	}
	// What was typed in a thing that is gone is told, and can be put back.
	w := a.post(path, "base", old, "contents.@1.length", "7")
	if body := w.Body.String(); !strings.Contains(body, "was removed in another window") || !strings.Contains(body,
		`value="put-back:contents.@1"`) || strings.Contains(names(), "7") {
		t.Errorf("typed in a thing that is gone: %.600s", body)
	}
	a.post(path, "base", old, "act", "put-back:contents.@1", "contents.@1.length", "7")
	if got := names(); got != "first 7 in, second 6 in, third 4 1/2 in, " {
		t.Errorf("put back: %s", got)
	}
	// Pieces of a list of scores likewise.
	id = a.begin(brief.NewScores())
	path, old = "/projects/"+id+"/change", fmt.Sprint(a.head(id).ID)
	a.post(path, "base", old, "act", "remove-piece:1")
	a.post(path, "base", old, "act", "remove-piece:1")
	a.post(path, "base", old, "box.pieces.@2.width", "7")
	if got := a.head(id).Doc.Box.Pieces; len(got) != 1 || got[0].Name != "lid" || got[0].Width != "7 in" {
		t.Errorf("%+v", got)
	}
}

// A change sent twice, because its answer was lost, is made once.
func TestSentTwice(t *testing.T) {
	a := newApp(t)
	id := a.begin(brief.New("in"))
	for range 3 {
		base := fmt.Sprint(a.head(id).ID)
		if w := a.post("/projects/"+id+"/change", "base", base, "act", "add-thing", "sent-as", "w:1"); w.Code != 200 {
			t.Fatal(w.Code)
		}
		a.post("/projects/"+id+"/change", "base", base, "nudge", "contents.@1.count:2", "sent-as", "w:2")
	}
	if b := a.head(id).Doc; len(b.Contents) != 2 || b.Contents[0].Count != "6" {
		t.Errorf("%d things, %s of the first", len(b.Contents), b.Contents[0].Count)
	}
	for range 3 {
		a.post("/projects/"+id+"/undo", "sent-as", "w:3")
	}
	if b := a.head(id).Doc; len(b.Contents) != 2 || b.Contents[0].Count != "4" {
		t.Errorf("undone once: %d things, %s of the first", len(b.Contents), b.Contents[0].Count)
	}
}

// Keys move lengths, counts and masses, from what an empty field means on.
func TestNudges(t *testing.T) {
	b := brief.New("in")
	for _, c := range []struct{ path, text, nudge, from, want string }{
		{"size.length", "4 13/16", "1", "", "4 7/8 in"}, {"size.length", "4.9", "-8", "", "4 7/16 in"},
		{"size.length", "1/16", "-9", "", "1/16 in"},
		{"size.length", "5 3/", "1", "", "5 3/"}, {"room.around", "", "2", "1/8", "1/4 in"}, {"room.proud", "", "1",
			"none", "1/16 in"},
		{"contents.@1.count", "4", "-9", "", "1"}, {"contents.@1.stack", "", "1", "6", "7"}, {"contents.@1.mass",
			"120 g", "3", "", "123 g"},
		{"contents.@1.mass", "", "1", "not known", "1"}, {"contents.@1.name", "tin", "1", "", "tin"},
		{"contents.@1.count", "six", "1", "", "six"},
		{"size.length", "9999 mm", "9999", "", "10000 mm"},
	} {
		b.Set(c.path, c.text)
		if _, ok := workbench.Nudged(&b, c.path+":"+c.nudge, c.from); !ok || b.Get(c.path) != c.want {
			t.Errorf("%s %q moved by %s is %q, want %q", c.path, c.text, c.nudge, b.Get(c.path), c.want)
		}
	}
	if k, ok := workbench.Nudged(&b, "contents.@9.length:1", ""); ok || !k.Gone {
		t.Error("a thing that is gone was moved")
	}
}
