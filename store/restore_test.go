package store

import (
	"errors"
	"fmt"
	"path/filepath"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"brevium/core/record"
)

// heavy is a database of so many MB, and a copy of it.
func heavy(t *testing.T, mb int) (s *Store, copied string) {
	t.Helper()
	dir := t.TempDir()
	s = at(t, filepath.Join(dir, "x.db"))
	for i := range mb {
		if err := s.exec(t.Context(), `INSERT INTO texts (sum, text) VALUES (?, ?)`, fmt.Sprint(i),
			strings.Repeat(fmt.Sprintf("%07d ", i), 1<<17)); err != nil {
			t.Fatal(err)
		}
	}
	copied = filepath.Join(dir, "copy.db")
	if err := s.Backup(t.Context(), copied); err != nil {
		t.Fatal(err)
	}
	return s, copied
}

// While a copy is put back, others write: whatever they are told is kept is in the database, or in the copy of what was
// there before.
func TestReplaceLosesNothing(t *testing.T) {
	s, copied := heavy(t, 93)
	var wait sync.WaitGroup
	var mu sync.Mutex
	var done, over atomic.Bool
	var acked []string
	for range 3 {
		wait.Go(func() {
			for !over.Load() {
				id, err := s.Boxes.Create(t.Context(), named("x"), "new")
				if err != nil {
					t.Error(err)
					return
				}
				mu.Lock()
				acked = append(acked, id)
				mu.Unlock()
			}
		})
	}
	time.Sleep(100 * time.Millisecond)
	kept, err := s.Replace(t.Context(), copied)
	if err != nil {
		t.Fatal(err)
	}
	done.Store(true)
	time.Sleep(100 * time.Millisecond)
	over.Store(true)
	wait.Wait()
	before := at(t, kept)
	defer before.Close()
	here, there := 0, 0
	for _, id := range acked {
		_, now := s.Boxes.Head(t.Context(), id)
		_, was := before.Boxes.Head(t.Context(), id)
		switch {
		case now == nil:
			here++
		case was == nil:
			there++
		default:
			t.Errorf("%s was kept, and is nowhere: %v, %v", id, now, was)
		}
	}
	if here == 0 || there == 0 {
		t.Errorf("%d are in the database, %d in the kept copy", here, there)
	}
	t.Logf("of %d acknowledged %d are in the database, %d in the kept copy", len(acked), here, there)
	s.Close()
}

// A copy from elsewhere is data: what does something by itself, and what is not ours, is refused, and all stays as it was.
func TestForeignCopies(t *testing.T) {
	for name, spoil := range map[string]string{
		"a trigger":       `CREATE TRIGGER t AFTER UPDATE ON documents BEGIN DELETE FROM revisions; END`,
		"a view":          `DROP TABLE things; CREATE VIEW things AS SELECT id AS name, id AS document FROM documents`,
		"another table":   `CREATE TABLE more (a TEXT)`,
		"another index":   `CREATE INDEX more ON documents (id)`,
		"a missing table": `DROP TABLE cards`,
		"another column":  `ALTER TABLE documents ADD COLUMN more TEXT`,
		"a default":       `DROP TABLE settings; CREATE TABLE settings (name TEXT PRIMARY KEY, value TEXT NOT NULL DEFAULT 'x')`,
		"lost revisions":  `PRAGMA foreign_keys = 0; UPDATE documents SET head = 77`,
	} {
		s, copied := heavy(t, 1)
		id, _ := s.Boxes.Create(t.Context(), named("mine"), "new")
		db, err := connect(copied, "")
		if err != nil {
			t.Fatal(err)
		}
		db.SetMaxOpenConns(1)
		if name == "lost revisions" {
			db.Exec(`INSERT INTO documents (id, kind, created, changed) VALUES ('x', 'box', '', '')`)
		}
		if _, err := db.Exec(spoil); err != nil {
			t.Fatal(name, err)
		}
		db.Close()
		file := filepath.Join(t.TempDir(), "y.db")
		for how, put := range map[string]func() (string, error){
			"while it runs": func() (string, error) { return s.Replace(t.Context(), copied) },
			"by command":    func() (string, error) { return Restore(t.Context(), copied, file, false) },
		} {
			if kept, err := put(); err == nil || kept != "" || !strings.Contains(err.Error(), "was not restored") &&
				!strings.Contains(err.Error(), "nothing was restored") {
				t.Errorf("%s, %s: %q, %v", name, how, kept, err)
			}
		}
		if got, err := s.Boxes.Head(t.Context(), id); err != nil || got.Doc.Name != "mine" {
			t.Errorf("%s: %v", name, err)
		}
		if made, _ := filepath.Glob(s.file + "*restor*"); len(made) > 0 {
			t.Errorf("%s: left behind %v", name, made)
		}
		s.Close()
	}
}

// Who may come in is of this Brevium, not of its boxes: a copy's passphrase is taken only when that is asked for, and its
// sessions never.
func TestCopiesLetNobodyIn(t *testing.T) {
	s, _ := heavy(t, 1)
	ctx := t.Context()
	set := func(text string) {
		t.Helper()
		if err := errors.Join(s.Set(ctx, Passphrase, text), Sessions{s}.Commit(text, []byte("data"), time.Now().Add(time.Hour))); err != nil {
			t.Fatal(err)
		}
	}
	set("theirs")
	copied := filepath.Join(t.TempDir(), "copy.db")
	if err := s.Backup(ctx, copied); err != nil {
		t.Fatal(err)
	}
	if err := s.EndAll(ctx); err != nil {
		t.Fatal(err)
	}
	set("mine")
	look := func(how string, s *Store, want string) {
		t.Helper()
		got, err := s.Setting(ctx, Passphrase)
		_, theirs, _ := Sessions{s}.Find("theirs")
		if _, mine, _ := (Sessions{s}).Find("mine"); err != nil || got != want || theirs || mine {
			t.Errorf("%s: the passphrase is %q, want %q; sessions %v %v, %v", how, got, want, theirs, mine, err)
		}
	}
	if _, err := s.Replace(ctx, copied); err != nil {
		t.Fatal(err)
	}
	if holds, err := ask[int](ctx, s.db, `PRAGMA foreign_keys`); err != nil || holds != 1 {
		t.Errorf("the connection that restored is used again, and holds to no foreign key (%d, %v)", holds, err)
	}
	look("while it runs", s, "mine")
	file := s.file
	s.Close()
	for _, with := range []bool{false, true} {
		if _, err := Restore(ctx, copied, file, with); err != nil {
			t.Fatal(err)
		}
		s := at(t, file)
		look(fmt.Sprint("by command, with its passphrase: ", with), s, map[bool]string{true: "theirs", false: "mine"}[with])
		s.Close()
	}
	if _, err := Restore(ctx, copied, filepath.Join(t.TempDir(), "new.db"), false); err != nil {
		t.Error(err)
	}
}

// What is in the logbook is found after its own copy is put back, twice, and what is written then is found too.
func TestReplaceKeepsWhatIsFound(t *testing.T) {
	s, ctx := open(t)
	if _, err := s.Log.Record(ctx, madeOn("2026-03-04", "Votive tube", "Wren", "right")); err != nil {
		t.Fatal(err)
	}
	copied := filepath.Join(t.TempDir(), "copy.db")
	if err := s.Backup(ctx, copied); err != nil {
		t.Fatal(err)
	}
	found := func(says string, want int) {
		t.Helper()
		_, n, err := s.Log.Page(ctx, Look{Ask: record.Question(says, time.Now())}, 0)
		if err != nil || n != want {
			t.Errorf("%q is found %d times (%v), want %d", says, n, err, want)
		}
	}
	for range 2 {
		if _, err := s.Log.Record(ctx, madeOn("2026-05-01", "Seed tray", "Ash", "")); err != nil {
			t.Fatal(err)
		}
		found("seed", 1)
		if _, err := s.Replace(ctx, copied); err != nil {
			t.Fatal(err)
		}
		found("votive", 1)
		found("seed", 0)
	}
	if _, err := s.Log.Record(ctx, madeOn("2026-06-01", "Jute carton", "", "")); err != nil {
		t.Fatal(err)
	}
	found("jute", 1)
}
