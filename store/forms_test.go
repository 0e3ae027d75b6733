package store

import (
	_ "embed"
	"errors"
	"fmt"
	"path/filepath"
	"strings"
	"testing"
)

//go:embed testdata/forms.sql
var oldRows string

// ofForm makes a database as a program of an older form left it.
func ofForm(t *testing.T, n int64) (file string) {
	t.Helper()
	file = filepath.Join(t.TempDir(), fmt.Sprintf("form %d.db", n))
	db, err := connect(file, "_pragma=journal_mode(WAL)")
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	p, err := provider(db)
	if err != nil {
		t.Fatal(err)
	}
	for form, rows := range strings.Split(oldRows, "-- form ") {
		if form == 0 || int64(form) > n {
			continue
		}
		if _, err := p.UpTo(t.Context(), int64(form)); err != nil {
			t.Fatal(err)
		}
		_, statements, _ := strings.Cut(rows, "\n")
		if _, err := db.Exec("BEGIN;" + statements + "COMMIT;"); err != nil {
			t.Fatalf("form %d: %v", form, err)
		}
	}
	return file
}

// A database of every older form opens with all it held, and is copied before; it can be changed, and undone to what it
// was.
func TestOldForms(t *testing.T) {
	for n := int64(1); n < 13; n++ {
		file := ofForm(t, n)
		s := at(t, file)
		ctx := t.Context()
		is := func(what string, got, want any, err error) {
			t.Helper()
			if err != nil || fmt.Sprint(got) != fmt.Sprint(want) {
				t.Errorf("form %d: %s is %v, want %v (%v)", n, what, got, want, err)
			}
		}
		if copies, _ := filepath.Glob(file + ".before-13-*"); len(copies) != 1 || checkCopy(ctx, copies[0]) != nil {
			t.Errorf("form %d: copies %v", n, copies)
		}
		l, err := s.Shelf.List(ctx, Want{Words: "éche lin"}, "v", 0)
		is("the list", len(l.Listed), 1, err)
		is("its card", l.Listed[0].Card != nil, n >= 3, nil)
		tray, err := s.Boxes.Head(ctx, "tray")
		is("the box", tray.Doc.Name, "Écheveau de lin", err)
		what, err := s.Boxes.Undo(ctx, "tray", Mover{Since: tray.ID})
		is("what is undone", what, "Name", err)
		_, err = s.Boxes.Head(ctx, "spoilt")
		is("what can't be read", isBroken(err), true, nil)
		boxes, count, err := s.Naming(ctx, "mint-160", 9)
		is("boxes of a card", fmt.Sprint(count, len(boxes)), fmt.Sprint(n/9, n/9), err)
		things, err := s.Things(ctx)
		is("things", len(things), min(1, n/2), err)
		shop, err := s.Shops.Head(ctx, TheShop)
		is("the coin", shop.Doc.Currency, map[bool]string{true: "kr"}[n >= 4], err)
		if n >= 4 {
			what, err := s.Shops.Undo(ctx, TheShop, Mover{Since: shop.ID})
			is("what is undone of the shop", what, "Coin", err)
		}
		if n >= 5 {
			lists, err := s.Lists.Recent(ctx, 9)
			is("lists", len(lists), 1, err)
			is("a piece", lists[0].Doc.Pieces[0].ID+" "+string(lists[0].Doc.Name), "1 Labels", nil)
			gone, err := s.Lists.Head(ctx, "gone")
			is("a list thrown away", gone.Binned, true, err)
		}
		if n >= 6 {
			ticks, seconds, err := s.Log.Ticks(ctx, "tray")
			is("ticks", fmt.Sprint(ticks["score:base"].Done, seconds), "3 60", err)
			shared, err := s.Links.Shared(ctx, "token")
			is("a link", shared.Document.Name, "Shared", err)
		}
		if n >= 7 {
			oldRecord(t, s, n, is)
		}
		made, err := s.Boxes.Create(ctx, named("new"), "new")
		is("a new box", made != "", true, err)
		if err := s.Close(); err != nil {
			t.Error(err)
		}
	}
}

func spaced(all ...any) string { return strings.TrimSpace(fmt.Sprintln(all...)) }

func oldRecord(t *testing.T, s *Store, n int64, is func(string, any, any, error)) {
	ctx := t.Context()
	m, err := s.Log.Making(ctx, "1")
	is("a making", fmt.Sprint(m.Made, m.Count, m.Whom, m.Minutes, m.Times, len(m.Planned), m.Document != ""),
		fmt.Sprint("2025-06-01", 12, "Wren", 42.5, map[string]float64{"Score": 12}, n/8, true), err)
	note, err := s.Makings.Head(ctx, "1")
	is("what it says", spaced(note.Doc.Count, note.Doc.Minutes, note.Doc.Whom, note.Who), "12 42.5 Wren Ash", err)
	found, _, err := s.Log.Page(ctx, Look{Whom: "wren"}, 0)
	is("the logbook", len(found), 1, err)
	gone, err := s.Makings.Head(ctx, "2")
	is("a making thrown away", gone.Binned, true, err)
	photos, err := s.Log.Photos(ctx, "1")
	is("a photo", spaced(len(photos), photos[0].Says), "1 with the bow", err)
	fair, err := s.Batches.Head(ctx, "fair")
	is("a batch", spaced(fair.Doc.Name, fair.Doc.Orders[0].Count, fair.Doc.Done.Of("o1", "Trim")), "Fair 12 9", err)
	for _, want := range []string{"Fair 9 9", "First 0 9"} {
		_, err := s.Batches.Undo(ctx, "fair", Mover{Since: fair.ID})
		is("undoing", err, nil, err)
		fair, err = s.Batches.Head(ctx, "fair")
		count := "0"
		if len(fair.Doc.Orders) > 0 {
			count = string(fair.Doc.Orders[0].Count)
		}
		is("the batch before", spaced(fair.Doc.Name, count, fair.Doc.Done.Of("o1", "Trim")), want, err)
	}
	if _, err := s.Batches.Head(ctx, "junk"); !isBroken(err) {
		t.Errorf("form %d: a batch that can't be read: %v", n, err)
	}
	c, err := s.Links.Collection(ctx, "ctoken")
	is("a shared folder", len(c.Boxes), 1, err)
}

// A newer database is refused, and so is a newer copy.
func TestNewerForm(t *testing.T) {
	s, ctx := open(t)
	s.db.Exec(`INSERT INTO goose_db_version (version_id, is_applied) VALUES (99, 1)`)
	newer := filepath.Join(t.TempDir(), "newer.db")
	if err := s.Backup(ctx, newer); err != nil {
		t.Fatal(err)
	}
	s.Close()
	if _, err := Open(ctx, s.file); err == nil || !strings.Contains(err.Error(), "a newer Brevium has written it") {
		t.Errorf("a newer database was opened: %v", err)
	}
	if _, err := Restore(ctx, newer, filepath.Join(t.TempDir(), "y.db"), false); !errors.Is(err, errNewer) {
		t.Errorf("a newer copy was restored: %v", err)
	}
}

// After a copy is put back no number of a revision comes again: pictures are kept by them in browsers.
func TestNumbersNeverComeAgain(t *testing.T) {
	s, ctx := open(t)
	id, _ := s.Boxes.Create(ctx, named("a"), "new")
	old := filepath.Join(t.TempDir(), "old.db")
	if err := s.Backup(ctx, old); err != nil {
		t.Fatal(err)
	}
	was := map[int64]bool{}
	save := func(n int) int64 {
		head, _ := s.Boxes.Head(ctx, id)
		made, err := s.Boxes.Save(ctx, id, "", boxChange{Base: head.ID, Doc: named(fmt.Sprint("b", n))})
		if err != nil {
			t.Fatal(err)
		}
		return made
	}
	for n := range 20 {
		was[save(n)] = true
	}
	if _, err := s.Replace(ctx, old); err != nil {
		t.Fatal(err)
	}
	for n := range 20 {
		if made := save(n); was[made] {
			t.Errorf("%d comes again", made)
		}
	}
}
