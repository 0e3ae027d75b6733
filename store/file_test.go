package store

import (
	"database/sql"
	"fmt"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
)

// at opens a database in a file and closes it with the test.
func at(t *testing.T, file string) *Store {
	t.Helper()
	s, err := Open(t.Context(), file)
	if err != nil {
		t.Fatal(err)
	}
	return s
}

func names(t *testing.T, s *Store) (out []string) {
	t.Helper()
	l, err := s.Shelf.List(t.Context(), Want{Words: ""}, "", 0)
	if err != nil {
		t.Fatal(err)
	}
	for _, p := range l.Listed {
		out = append(out, p.Title)
	}
	return out
}

// A copy takes the place of a database that crashed, whose log must not be
// played into it; what was there is kept.
func TestRestore(t *testing.T) {
	dir := t.TempDir()
	file, copied := filepath.Join(dir, "a", "x.db"), filepath.Join(dir, "copy ?.db")
	s := at(t, file)
	s.Boxes.Create(t.Context(), named("in the copy"), "new")
	if err := s.Backup(t.Context(), copied); err != nil {
		t.Fatal(err)
	}
	s.Boxes.Create(t.Context(), named("made after"), "new")
	if _, err := Restore(t.Context(), copied, file, false); err == nil || !strings.Contains(err.Error(), "Stop it first") {
		t.Fatalf("a database in use was replaced: %v", err)
	}
	// A crash: the files as they are while the log is not folded in.
	crashed := filepath.Join(dir, "b", "x.db")
	os.Mkdir(filepath.Dir(crashed), 0o700)
	for _, end := range []string{"", "-wal"} {
		data, err := os.ReadFile(file + end)
		if err != nil || len(data) == 0 {
			t.Fatal(err, len(data))
		}
		os.WriteFile(crashed+end, data, 0o600)
	}
	s.Close()
	kept, err := Restore(t.Context(), copied, crashed, false)
	if err != nil {
		t.Fatal(err)
	}
	for file, want := range map[string]string{crashed: "[in the copy]", kept: "[made after in the copy]"} {
		s := at(t, file)
		if got := fmt.Sprint(names(t, s)); got != want {
			t.Errorf("%s holds %s, want %s", file, got, want)
		}
		s.Close()
		if is, err := os.Stat(file); err != nil || is.Mode().Perm() != 0o600 {
			t.Errorf("%s is %v", file, is.Mode())
		}
	}
	// A damaged database is set aside too; a damaged copy is put nowhere.
	os.WriteFile(crashed, []byte(strings.Repeat("junk", 4096)), 0o600)
	if _, err := Restore(t.Context(), copied, crashed, false); err != nil {
		t.Error(err)
	}
	data, _ := os.ReadFile(copied)
	for name, bad := range map[string][]byte{"torn": data[:len(data)/2], "junk": []byte("junk"), "empty": nil} {
		other := filepath.Join(dir, name)
		os.WriteFile(other, bad, 0o600)
		if _, err := Restore(t.Context(), other, crashed, false); err == nil ||
			!strings.Contains(err.Error(), "was not restored") {
			t.Errorf("a %s copy was taken: %v", name, err)
		}
	}
	s = at(t, crashed)
	defer s.Close()
	if got := fmt.Sprint(names(t, s)); got != "[in the copy]" {
		t.Errorf("it holds %s", got)
	}
	if _, err := Restore(t.Context(), filepath.Join(dir, "none"), crashed, false); err == nil {
		t.Error("a copy that is not there was restored")
	}
}

func TestBackupNames(t *testing.T) {
	s, ctx := open(t)
	dir := t.TempDir()
	there := filepath.Join(dir, "there.db")
	if err := s.Backup(ctx, there); err != nil {
		t.Fatal(err)
	}
	if is, _ := os.Stat(there); is.Mode().Perm() != 0o600 {
		t.Errorf("a copy is %v", is.Mode())
	}
	for _, name := range []string{"", " ", "file:" + filepath.Join(dir, "y.db"), there,
		filepath.Join(dir, "no folder", "z.db")} {
		if err := s.Backup(ctx, name); err == nil {
			t.Errorf("a copy was made as %q", name)
		}
	}
	// One that fails on the way leaves nothing.
	s.db.Close()
	if err := s.Backup(ctx, filepath.Join(dir, "half.db")); err == nil {
		t.Error("a closed database was copied")
	}
	if left, _ := os.ReadDir(dir); len(left) != 1 {
		t.Errorf("left behind: %v", left)
	}
}

// Several Breviums may start on one new database, and all of them live.
func TestStartingTogether(t *testing.T) {
	for range 2 {
		file := filepath.Join(t.TempDir(), "x.db")
		var wait sync.WaitGroup
		for range 6 {
			wait.Go(func() {
				s, err := Open(t.Context(), file)
				if err != nil {
					t.Error(err)
					return
				}
				defer s.Close()
				if _, err := s.Boxes.Create(t.Context(), named("x"), "new"); err != nil {
					t.Error(err)
				}
			})
		}
		wait.Wait()
		s := at(t, file)
		if n, err := s.Shelf.Count(t.Context(), false); n != 6 || err != nil {
			t.Errorf("%d boxes, %v", n, err)
		}
		s.Close()
	}
}

// A full disk, a damaged and a locked database say what they are; what was kept
// before stays.
func TestTroubles(t *testing.T) {
	says := func(err error, part string) {
		t.Helper()
		if text, ok := Say(err); !ok || !strings.Contains(text, part) {
			t.Errorf("%v says %q, want %q", err, text, part)
		}
	}
	file := filepath.Join(t.TempDir(), "x.db")
	s := at(t, file)
	id, _ := s.Boxes.Create(t.Context(), named("first"), "new")
	s.db.SetMaxOpenConns(1)
	s.db.Exec(`PRAGMA max_page_count = 1`) // no page more than there are
	b := named("much")
	b.Notes = "x"
	b.Box.Options = nil
	var full error
	for i := 0; i < 400 && full == nil; i++ {
		_, full = s.Boxes.Create(t.Context(), b, strings.Repeat("x", 9000))
	}
	says(full, "disk is full")
	if p, err := s.Boxes.Head(t.Context(), id); err != nil || p.Doc.Name != "first" {
		t.Error(p.Doc.Name, err)
	}
	s.Close()

	s = at(t, file)
	other, err := sql.Open("sqlite", "file:"+file+"?_txlock=immediate")
	if err != nil {
		t.Fatal(err)
	}
	held, err := other.Begin()
	if err != nil {
		t.Fatal(err)
	}
	s.db.SetMaxOpenConns(1)
	s.db.Exec(`PRAGMA busy_timeout = 20`)
	says(s.Boxes.Throw(t.Context(), id, true), "Another program is using")
	held.Rollback()
	other.Close()
	if err := s.Boxes.Throw(t.Context(), id, true); err != nil {
		t.Error(err)
	}
	s.Close()
	says(s.Boxes.Throw(t.Context(), id, true), "is stopping")

	data, _ := os.ReadFile(file)
	for i := 100; i < len(data); i++ {
		data[i] = 'x'
	}
	os.WriteFile(file, data, 0o600)
	_, err = Open(t.Context(), file)
	says(err, "damaged")
	os.WriteFile(file, []byte(strings.Repeat("no database ", 500)), 0o600)
	_, err = Open(t.Context(), file)
	says(err, "damaged")
}

// On any system the address of a file has no host: a drive's letter isn't one.
func TestFilesInAddresses(t *testing.T) {
	for path, want := range map[string]string{"/home/maker/b.db": "file:///home/maker/b.db", "Z:/boxes/my b.db": "file:///Z:/boxes/my%20b.db",
		"//shed/boxes/b.db": "file:////shed/boxes/b.db"} {
		if got := (&url.URL{Scheme: "file", Path: inURL(path)}).String(); got != want {
			t.Errorf("%s is %s, want %s", path, got, want)
		}
	}
}
