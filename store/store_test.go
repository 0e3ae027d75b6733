package store

import (
	"context"
	"errors"
	"path/filepath"
	"sync"
	"testing"

	"brevium/core/brief"
)

func open(t *testing.T) (*Store, context.Context) {
	t.Helper()
	s, err := Open(t.Context(), filepath.Join(t.TempDir(), "a folder", "b?.db"))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { s.Close() })
	return s, t.Context()
}

func named(name string) brief.Brief {
	b := brief.New("in")
	b.Name = brief.Text(name)
	return b
}

// Of many changes made on one revision at once, one is kept and the others are
// told; none is lost in silence.
func TestSaveMoved(t *testing.T) {
	s, ctx := open(t)
	id, _ := s.Boxes.Create(ctx, named("a"), "new")
	p, _ := s.Boxes.Head(ctx, id)
	var wg sync.WaitGroup
	results := make([]error, 8)
	for i := range results {
		wg.Go(func() {
			_, results[i] = s.Boxes.Save(ctx, id, "", boxChange{Base: p.ID, Doc: named("b"), What: "typed"})
		})
	}
	wg.Wait()
	kept := 0
	for _, err := range results {
		if err == nil {
			kept++
		} else if !errors.Is(err, ErrMoved) {
			t.Fatal(err)
		}
	}
	if kept != 1 {
		t.Fatalf("%d changes were kept", kept)
	}
}

func TestBin(t *testing.T) {
	s, ctx := open(t)
	a, _ := s.Boxes.Create(ctx, named("a"), "new")
	b, _ := s.Boxes.Create(ctx, named("b"), "new")
	check := func(live, binned int) {
		t.Helper()
		l, err1 := s.Shelf.List(ctx, Want{Words: ""}, "", 0)
		n, err2 := s.Shelf.Count(ctx, true)
		if err := errors.Join(err1, err2); err != nil || l.All != live || len(l.Listed) != live || n != binned {
			t.Fatalf("%d live, %d in the bin, %v", l.All, n, err)
		}
	}
	check(2, 0)
	if err := errors.Join(s.Boxes.Throw(ctx, a, true), s.Boxes.Throw(ctx, b, true), s.Boxes.Throw(ctx, b, false)); err != nil {
		t.Fatal(err)
	}
	check(1, 1)
	if n, err := s.Empty(ctx); n != 1 || err != nil {
		t.Fatal(n, err)
	}
	check(1, 0)
	if _, err := s.Boxes.Head(ctx, a); !errors.Is(err, ErrNone) {
		t.Fatal("an emptied project is still there:", err)
	}
	if err := s.Boxes.Throw(ctx, a, false); !errors.Is(err, ErrNone) {
		t.Fatal(err)
	}
}

// What was kept is there when the database is opened again.
func TestReopen(t *testing.T) {
	file := filepath.Join(t.TempDir(), "x.db")
	s, err := Open(t.Context(), file)
	if err != nil {
		t.Fatal(err)
	}
	id, _ := s.Boxes.Create(t.Context(), named("kept"), "new")
	s.Close()
	if s, err = Open(t.Context(), file); err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	if p, err := s.Boxes.Head(t.Context(), id); err != nil || p.Doc.Name != "kept" {
		t.Fatal(p.Doc.Name, err)
	}
}
