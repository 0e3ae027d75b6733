package store

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"sync"
	"testing"

	"brevium/core/brief"
)

// Lists come in pages, are searched in any script, and carry what this version
// of the program kept of each box as it is now, and nothing older.
func TestLists(t *testing.T) {
	s, ctx := open(t)
	for i := range PerPage + 3 {
		b := named(fmt.Sprintf("Box %d%%", i))
		b.Contents[0].Name = brief.Text([]string{"Äpfel", "jute_ball"}[i%2])
		if _, err := s.Boxes.Create(ctx, b, "new"); err != nil {
			t.Fatal(err)
		}
	}
	list := func(look string, page int) Page {
		t.Helper()
		l, err := s.Shelf.List(ctx, Want{Words: look}, "v1", page)
		if err != nil {
			t.Fatal(err)
		}
		return l
	}
	if l := list("", 1); l.All != PerPage+3 || len(l.Listed) != 3 || l.Listed[2].Title != "Box 0%" {
		t.Errorf("the second page: %+v", l)
	}
	for look, n := range map[string]int{"äPFEL": (PerPage + 4) / 2, "box 4%": 2, "jute_": (PerPage + 3) / 2, "jute%": 0,
		"_": (PerPage + 3) / 2, "tray äpf": (PerPage + 4) / 2, `\`: 0, "'": 0} {
		if l := list(look, 0); l.All != n {
			t.Errorf("%q finds %d, want %d", look, l.All, n)
		}
	}
	one := list("box 7%", 0).Listed[0]
	if one.Card != nil {
		t.Error("a card that nobody made")
	}
	if err := s.Shelf.KeepCard(ctx, one.Project, one.Head, "v1", Summary{"a line", true, []byte("<svg/>")}); err != nil {
		t.Fatal(err)
	}
	if c := list("box 7%", 0).Listed[0].Card; c == nil || c.Line != "a line" || !c.Trouble {
		t.Errorf("kept: %+v", c)
	}
	if c, err := s.Shelf.CardOf(ctx, one.Project, one.Head, "v1"); err != nil || string(c.Picture) != "<svg/>" {
		t.Error(c, err)
	}
	if _, err := s.Shelf.CardOf(ctx, one.Project, one.Head, "v2"); !errors.Is(err, ErrNone) {
		t.Error("another version's card is taken")
	}
	s.Boxes.Save(ctx, one.Project, "", boxChange{Base: one.Head, Doc: named("renamed"), What: "typed"})
	if l := list("renamed", 0).Listed; len(l) != 1 || l[0].Card != nil {
		t.Errorf("after a change: %+v", l)
	}
}

// One document that can't be read harms no other, can be gone back over, and is
// given out as it stands.
func TestBrokenDocuments(t *testing.T) {
	s, ctx := open(t)
	s.Boxes.Create(ctx, named("sound"), "new")
	id, _ := s.Boxes.Create(ctx, named("first"), "new")
	p, _ := s.Boxes.Head(ctx, id)
	s.Boxes.Save(ctx, id, "", boxChange{Base: p.ID, Doc: named("second"), What: "typed"})
	for _, bad := range []string{`{"brevium":7}`, `junk`, ``,
		`{"brevium":1,"name":"` + strings.Repeat("x", brief.Limit) + `"}`} {
		p, _ = s.Boxes.Head(ctx, id)
		s.db.Exec(`UPDATE revisions SET body = ? WHERE id = ?`, bad, p.ID)
		if _, err := s.Boxes.Head(ctx, id); !isBroken(err) {
			t.Fatalf("%.20s: %v", bad, err)
		}
		if l, err := s.Shelf.List(ctx, Want{Words: ""}, "", 0); err != nil || l.All != 2 || len(l.Listed) != 2 ||
			l.Listed[0].Broken == nil || l.Listed[1].Broken != nil {
			t.Errorf("the list: %+v, %v", l, err)
		}
		if got, err := s.Boxes.Body(ctx, id); err != nil || got != bad {
			t.Errorf("given out as %q, %v", got, err)
		}
		if what, err := s.Boxes.Undo(ctx, id, Mover{}); err != nil {
			t.Fatal(what, err)
		}
		if p, err := s.Boxes.Head(ctx, id); err != nil || p.Doc.Name != "first" {
			t.Errorf("gone back to %q, %v", p.Doc.Name, err)
		}
		p, _ = s.Boxes.Head(ctx, id)
		if _, err := s.Boxes.Save(ctx, id, "", boxChange{Base: p.ID, Doc: named("again"), What: "typed"}); err != nil {
			t.Fatal(err)
		}
	}
	b := named("too much")
	b.Notes = brief.Text(strings.Repeat("n", 5000))
	refused := new(Refused)
	if _, err := s.Boxes.Create(ctx, b, "new"); !errors.As(err, &refused) ||
		!strings.Contains(err.Error(), "“Notes” is 5000 letters") {
		t.Errorf("what can't be read again is written: %v", err)
	}
}

// A change that is sent twice is made once, whatever it does.
func TestArrivedOnce(t *testing.T) {
	s, ctx := open(t)
	id, _ := s.Boxes.Create(ctx, named("a"), "new")
	p, _ := s.Boxes.Head(ctx, id)
	c := boxChange{Base: p.ID, Doc: named("b"), What: "typed"}
	if _, err := s.Boxes.Save(ctx, id, "w1:1", c); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Boxes.Save(ctx, id, "w1:1", c); !errors.Is(err, ErrArrived) {
		t.Errorf("again: %v", err)
	}
	p, _ = s.Boxes.Head(ctx, id)
	c = boxChange{Base: p.ID, Doc: named("c"), What: "typed"}
	s.Boxes.Save(ctx, id, "w1:2", c)
	for range 2 {
		if _, err := s.Boxes.Undo(ctx, id, Mover{Act: "w1:3", Any: true}); err != nil && !errors.Is(err, ErrArrived) {
			t.Error(err)
		}
	}
	if p, _ := s.Boxes.Head(ctx, id); p.Doc.Name != "b" {
		t.Errorf("undone to %q", p.Doc.Name)
	}
	// A change that was refused may come again.
	c.Base = 999
	if _, err := s.Boxes.Save(ctx, id, "w1:4", c); !errors.Is(err, ErrMoved) {
		t.Error(err)
	}
	if got, _ := s.Arrived(ctx, "w1:4"); got {
		t.Error("a change that was not made counts as made")
	}
}

// Changes that share a commit stand or fall by themselves.
func TestTogether(t *testing.T) {
	s, ctx := open(t)
	gone, leave := context.WithCancel(ctx)
	leave()
	var wait sync.WaitGroup
	var made sync.Map
	for i := range 200 {
		wait.Go(func() {
			switch {
			case i%10 == 1:
				if err := s.Boxes.Throw(ctx, "none", true); !errors.Is(err, ErrNone) {
					t.Error(err)
				}
			case i%10 == 2:
				if _, err := s.Boxes.Create(gone, named("x"), "new"); !errors.Is(err, context.Canceled) {
					t.Error(err)
				}
			default:
				id, err := s.Boxes.Create(ctx, named("x"), "new")
				if err != nil {
					t.Error(err)
				}
				made.Store(id, true)
			}
		})
	}
	wait.Wait()
	if n, err := s.Shelf.Count(ctx, false); n != 160 || err != nil {
		t.Errorf("%d boxes, %v", n, err)
	}
}

// BenchmarkSave is one change by one person: what a synchronous commit costs.
// BenchmarkSaveTogether is 50 people at once.
func BenchmarkSave(b *testing.B) {
	s, id := benchStore(b)
	for b.Loop() {
		p, _ := s.Boxes.Head(b.Context(), id)
		s.Boxes.Save(b.Context(), id, "", boxChange{Base: p.ID, Doc: named("x"), What: "typed"})
	}
}

func BenchmarkSaveTogether(b *testing.B) {
	s, _ := benchStore(b)
	b.SetParallelism(25)
	b.RunParallel(func(pb *testing.PB) {
		for pb.Next() {
			if _, err := s.Boxes.Create(b.Context(), named("x"), "new"); err != nil {
				b.Error(err)
			}
		}
	})
}

func benchStore(b *testing.B) (*Store, string) {
	s, err := Open(b.Context(), b.TempDir()+"/b.db")
	if err != nil {
		b.Fatal(err)
	}
	b.Cleanup(func() { s.Close() })
	id, _ := s.Boxes.Create(b.Context(), named("a"), "new")
	return s, id
}
