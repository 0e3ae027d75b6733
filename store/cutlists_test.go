package store

import (
	"errors"
	"slices"
	"strings"
	"testing"

	"brevium/core/cutlist"
)

// A list is kept, changed on the state it was seen in, thrown away and put back; one that
// can't be read keeps no other from being shown.
func TestCutLists(t *testing.T) {
	s := at(t, t.TempDir()+"/x.db")
	ctx := t.Context()
	l := cutlist.List{Name: "Labels", Pieces: []cutlist.Piece{{Name: "label", Width: "40 mm", Height: "30 mm"}}}
	id, err := s.NewCutList(ctx, l)
	if err != nil {
		t.Fatal(err)
	}
	other, err := s.NewCutList(ctx, cutlist.List{Name: "Other"})
	if err != nil {
		t.Fatal(err)
	}
	got, err := s.CutList(ctx, id)
	if err != nil || got.List.Pieces[0] != l.Pieces[0] || got.Revision != 1 || got.Changed.IsZero() || got.Gone {
		t.Fatalf("%+v %v", got, err)
	}
	l.Name = "Labels, large"
	if err := s.KeepCutList(ctx, id, 1, l); err != nil {
		t.Fatal(err)
	}
	if err := s.KeepCutList(ctx, id, 1, cutlist.List{Name: "an older window's"}); !errors.Is(err, ErrMoved) {
		t.Errorf("%v", err)
	}
	if err := s.KeepCutList(ctx, "none", 1, l); !errors.Is(err, ErrNone) {
		t.Errorf("%v", err)
	}
	if got, _ := s.CutList(ctx, id); got.List.Name != "Labels, large" || got.Revision != 2 {
		t.Errorf("%+v", got)
	}
	names := func() string {
		var out []string
		all, err := s.CutLists(ctx, 10)
		if err != nil {
			t.Fatal(err)
		}
		for _, l := range all {
			out = append(out, string(l.List.Name)+";")
		}
		slices.Sort(out) // they may have been changed at one moment
		return strings.Join(out, "")
	}
	if got := names(); got != "Labels, large;Other;" {
		t.Errorf("%s", got)
	}
	if err := s.ThrowCutList(ctx, id, true); err != nil || names() != "Other;" {
		t.Errorf("%v %s", err, names())
	}
	if got, err := s.CutList(ctx, id); err != nil || !got.Gone {
		t.Errorf("%+v %v", got, err)
	}
	if err := s.ThrowCutList(ctx, id, false); err != nil || names() != "Labels, large;Other;" {
		t.Errorf("%v %s", err, names())
	}
	if err := s.ThrowCutList(ctx, "none", true); !errors.Is(err, ErrNone) {
		t.Errorf("%v", err)
	}
	s.db.Exec(`UPDATE cutlists SET document = 'broken' WHERE id = ?`, other)
	if got := names(); got != "Labels, large;" {
		t.Errorf("%s", got)
	}
	if _, err := s.CutList(ctx, other); err == nil {
		t.Error("a broken list was read")
	}
}
