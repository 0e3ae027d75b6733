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

func TestUndoRedo(t *testing.T) {
	s, ctx := open(t)
	id, err := s.Create(ctx, named("a"), "new")
	if err != nil {
		t.Fatal(err)
	}
	head := func() Project {
		p, err := s.Head(ctx, id)
		if err != nil {
			t.Fatal(err)
		}
		return p
	}
	save := func(name, burst string) {
		if _, err := s.Save(ctx, id, Change{Base: head().ID, Brief: named(name), What: "typed", Burst: burst}); err != nil {
			t.Fatal(err)
		}
	}
	save("b", "")
	save("c", "x")
	save("cc", "x")
	save("ccc", "x")
	save("d", "y")
	steps := []struct {
		do   func(context.Context, string, string) (bool, error)
		want string
		did  bool
	}{
		{s.Redo, "d", false}, {s.Undo, "ccc", true}, {s.Undo, "b", true}, {s.Undo, "a", true}, {s.Undo, "a", false},
		{s.Redo, "b", true}, {s.Redo, "ccc", true}, {s.Redo, "d", true}, {s.Undo, "ccc", true},
	}
	for i, step := range steps {
		did, err := step.do(ctx, id, "")
		if got := string(head().Brief.Name); err != nil || did != step.did || got != step.want {
			t.Fatalf("step %d: %q, %v, %v; want %q, %v", i, got, did, err, step.want, step.did)
		}
	}
	// A change after undo begins a new branch; the old one is kept.
	save("e", "")
	if did, _ := s.Redo(ctx, id, ""); did || head().Brief.Name != "e" {
		t.Fatal("redo went on to a branch that was left")
	}
	history, err := s.History(ctx, id, head().ID, 100)
	if err != nil || len(history) != 6 || history[0].Brief.Name != "e" || history[5].Brief.Name != "a" {
		t.Fatalf("history of %d, %v", len(history), err)
	}
}

// Of many changes made on one revision at once, one is kept and the others are
// told; none is lost in silence.
func TestSaveMoved(t *testing.T) {
	s, ctx := open(t)
	id, _ := s.Create(ctx, named("a"), "new")
	p, _ := s.Head(ctx, id)
	var wg sync.WaitGroup
	results := make([]error, 8)
	for i := range results {
		wg.Go(func() { _, results[i] = s.Save(ctx, id, Change{Base: p.ID, Brief: named("b"), What: "typed"}) })
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
	a, _ := s.Create(ctx, named("a"), "new")
	b, _ := s.Create(ctx, named("b"), "new")
	check := func(live, binned int) {
		t.Helper()
		l, err1 := s.List(ctx, Want{Words: ""}, "", 0)
		n, err2 := s.Count(ctx, true)
		if err := errors.Join(err1, err2); err != nil || l.All != live || len(l.Listed) != live || n != binned {
			t.Fatalf("%d live, %d in the bin, %v", l.All, n, err)
		}
	}
	check(2, 0)
	if err := errors.Join(s.Bin(ctx, a), s.Bin(ctx, b), s.Restore(ctx, b)); err != nil {
		t.Fatal(err)
	}
	check(1, 1)
	if n, err := s.Empty(ctx); n != 1 || err != nil {
		t.Fatal(n, err)
	}
	check(1, 0)
	if _, err := s.Head(ctx, a); !errors.Is(err, ErrNone) {
		t.Fatal("an emptied project is still there:", err)
	}
	if err := s.Restore(ctx, a); !errors.Is(err, ErrNone) {
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
	id, _ := s.Create(t.Context(), named("kept"), "new")
	s.Close()
	if s, err = Open(t.Context(), file); err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	if p, err := s.Head(t.Context(), id); err != nil || p.Brief.Name != "kept" {
		t.Fatal(p.Brief.Name, err)
	}
}
