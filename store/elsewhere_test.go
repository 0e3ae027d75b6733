package store

import (
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"
)

// stick is a disk of its own in this machine; only root may make one.
func stick(t *testing.T, size string) (dir string) {
	t.Helper()
	dir = t.TempDir()
	if out, err := exec.Command("mount", "-t", "tmpfs", "-o", "size="+size, "tmpfs", dir).CombinedOutput(); err != nil {
		t.Skipf("there is no disk to use: %s", out)
	}
	t.Cleanup(func() { exec.Command("umount", dir).Run() })
	return dir
}

// said tries to make a copy elsewhere, and gives what the page would say of it and how many copies there are then.
func (s *Store) said(t *testing.T) (trouble string, copies int) {
	t.Helper()
	made, failed := s.DailyElsewhere(t.Context(), true)
	e, err := s.Elsewhere(t.Context())
	if err != nil || made == (failed != nil) || made != (e.Trouble == "") {
		t.Errorf("made %v, %v, and it says %+v, %v", made, failed, e, err)
	}
	all, err := s.CopiesElsewhere(t.Context())
	if err != nil {
		t.Error(err)
	}
	return e.Trouble, len(all)
}

// A copy elsewhere that can't be made says why and what to do, leaves the copies that are there, and is made when it can be.
func TestElsewhereInTrouble(t *testing.T) {
	s, _ := heavy(t, 2)
	defer s.Close()
	dir := stick(t, "7m")
	shelf := filepath.Join(dir, "Brevium backups")
	if err := s.CopyElsewhere(t.Context(), "Blue stick", shelf); err != nil {
		t.Fatal(err)
	}
	is := func(how, want string, copies int) {
		t.Helper()
		if got, n := s.said(t); !strings.Contains(got, want) || (want == "") != (got == "") || n != copies {
			t.Errorf("%s: it says %q, and there are %d copies", how, got, n)
		}
		if left, _ := filepath.Glob(filepath.Join(shelf, "*.making*")); len(left) > 0 {
			t.Errorf("%s: left behind %v", how, left)
		}
	}
	is("new", "", 1)
	yesterday := time.Now().AddDate(0, 0, -1).Format("2006-01-02")
	today, _ := filepath.Glob(filepath.Join(shelf, "*.db"))
	if err := os.Rename(today[0], filepath.Join(shelf, "brevium-"+yesterday+".db")); err != nil {
		t.Fatal(err)
	}
	filling := filepath.Join(dir, "pictures")
	if err := os.WriteFile(filling, make([]byte, 4<<20), 0o600); err != nil {
		t.Fatal(err)
	}
	is("full", "“Blue stick” is full; free some space on it", 1)
	if err := os.Remove(filling); err != nil {
		t.Fatal(err)
	}
	is("with room", "", 2)

	remount := func(how string) {
		t.Helper()
		if out, err := exec.Command("mount", "-o", "remount,"+how, dir).CombinedOutput(); err != nil {
			t.Fatalf("%s", out)
		}
	}
	remount("ro")
	is("locked", "“Blue stick” can't be written to", 2)
	remount("rw")
	is("unlocked", "", 2)

	if err := os.Rename(shelf, filepath.Join(dir, "put by")); err != nil {
		t.Fatal(err)
	}
	is("another stick", "isn't the one with your backups", 0)
	if _, err := os.Stat(shelf); err == nil {
		t.Error("something was written on a stranger's stick")
	}
	if err := os.Rename(filepath.Join(dir, "put by"), shelf); err != nil {
		t.Fatal(err)
	}
	is("the right one", "", 2)
	if err := s.CopyElsewhere(t.Context(), "Green stick", filepath.Join(dir, "gone", "Brevium backups")); err != nil {
		t.Fatal(err)
	}
	is("pulled", "“Green stick” isn't there; plug it in", 0)
}

// Copies that a wrong clock dated ahead neither push out those of today nor are pushed out by them.
func TestElsewhereAhead(t *testing.T) {
	s, _ := open(t)
	shelf := filepath.Join(t.TempDir(), "Brevium backups")
	if err := s.CopyElsewhere(t.Context(), "Blue stick", shelf); err != nil {
		t.Fatal(err)
	}
	if got, n := s.said(t); got != "" || n != 1 {
		t.Fatal(got, n)
	}
	for days := -15; days <= 15; days++ {
		name := filepath.Join(shelf, "brevium-"+time.Now().AddDate(0, 0, days).Format("2006-01-02")+".db")
		if err := os.WriteFile(name, nil, 0o600); err != nil {
			t.Fatal(err)
		}
	}
	if got, n := s.said(t); got != "" || n != 2*keptElsewhere {
		t.Errorf("%d copies, %q", n, got)
	}
	for _, days := range []int{0, 1 - keptElsewhere, 15} {
		name := "brevium-" + time.Now().AddDate(0, 0, days).Format("2006-01-02") + ".db"
		if _, err := s.CopyElsewhereCalled(t.Context(), name); err != nil {
			t.Errorf("the one of %d days from now: %v", days, err)
		}
	}
}
