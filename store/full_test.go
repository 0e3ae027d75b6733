package store

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
)

// A disk that is full when Brevium starts is told as that, whatever there is of the database; with room it starts again and
// has what it had. It takes a disk of its own, which only root may make.
func TestFullAtStart(t *testing.T) {
	disk := stick(t, "1m")
	file, filling := filepath.Join(disk, "x.db"), filepath.Join(disk, "filling")
	fill := func(left int64) {
		t.Helper()
		os.Remove(filling)
		f, err := os.Create(filling)
		if err != nil {
			t.Fatal(err)
		}
		defer f.Close()
		block := make([]byte, 4096)
		for {
			if _, err := f.Write(block); err != nil {
				break
			}
		}
		is, _ := f.Stat()
		f.Truncate(max(0, is.Size()-left))
	}
	for _, left := range []int64{0, 8 << 10, 64 << 10} {
		fill(left)
		if s, err := Open(t.Context(), file); err == nil {
			s.Close()
			t.Fatalf("with %d kB it starts", left>>10)
		} else if text, _ := Say(err); !strings.Contains(text, "The disk is full, so Brevium can't start") {
			t.Errorf("with %d kB: %v", left>>10, err)
		}
	}
	os.Remove(filling)
	s := at(t, file)
	if _, err := s.Boxes.Create(t.Context(), named("kept"), "new"); err != nil {
		t.Fatal(err)
	}
	s.Close()
	fill(0)
	if s, err := Open(t.Context(), file); err == nil {
		s.Close() // what there is can be looked at
	} else if text, _ := Say(err); !strings.Contains(text, "The disk is full, so Brevium can't start") {
		t.Error(err)
	}
	os.Remove(filling)
	s = at(t, file)
	defer s.Close()
	if got := names(t, s); len(got) != 1 || got[0] != "kept" {
		t.Error(got)
	}
	fill(0)
	if made, err := s.Daily(t.Context()); made || err == nil || !strings.Contains(s.DailyTrouble(), "The disk is full") {
		t.Errorf("made %v, %v, and it says %q", made, err, s.DailyTrouble())
	}
	if err := s.LayBeside(t.Context(), file); err == nil || len(s.Copies()) > 0 {
		t.Errorf("%v, and there is %v", err, s.Copies())
	}
	os.Remove(filling)
	if made, err := s.Daily(t.Context()); !made || err != nil || s.DailyTrouble() != "" {
		t.Errorf("with room: made %v, %v, and it says %q", made, err, s.DailyTrouble())
	}
}
