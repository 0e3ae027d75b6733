package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"time"
)

// Copies elsewhere lie in a folder that the maker picked, on a stick or another disk: one a day, as often as the folder
// is there. Each is opened and read whole before it counts.

// Settings of this computer about copies elsewhere.
const (
	copiesTo    = "copies-to"    // the place, as JSON
	copiedTo    = "copied-to"    // when the last was made
	copyTrouble = "copy-trouble" // why the last try failed
)

// keptElsewhere is how many copies are kept in a place.
const keptElsewhere = 10

// datedCopies are the names of copies elsewhere.
const datedCopies = "brevium-????-??-??.db"

// Elsewhere is where copies are kept besides this disk.
type Elsewhere struct {
	Name, Dir string    // Dir is "" where none was picked
	Here      bool      // it is there now, and once a copy was made, so is the folder with it
	Last      time.Time // when the last copy was made there
	Trouble   string    // why the last try failed
}

// CopyElsewhere says where copies are to be kept from now on; without a folder, nowhere.
func (s *Store) CopyElsewhere(ctx context.Context, name, dir string) error {
	text := ""
	if dir != "" {
		b, err := json.Marshal(map[string]string{"name": name, "dir": dir})
		if err != nil {
			return err
		}
		text = string(b)
	}
	return errors.Join(s.Set(ctx, copiesTo, text), s.Set(ctx, copiedTo, ""), s.Set(ctx, copyTrouble, ""))
}

// Elsewhere tells where copies are kept.
func (s *Store) Elsewhere(ctx context.Context) (e Elsewhere, err error) {
	text, err := s.Setting(ctx, copiesTo)
	if err != nil || text == "" {
		return e, err
	}
	var at struct{ Name, Dir string }
	if err := json.Unmarshal([]byte(text), &at); err != nil {
		return e, err
	}
	last, err := s.Setting(ctx, copiedTo)
	if err != nil {
		return e, err
	}
	e = Elsewhere{Name: at.Name, Dir: at.Dir, Here: reachable(at.Dir), Last: when(last)}
	if !e.Last.IsZero() { // another stick may be plugged in at the same place
		e.Here = e.Here && isFolder(at.Dir)
	}
	e.Trouble, err = s.Setting(ctx, copyTrouble)
	return e, err
}

// reachable reports whether a folder, or the one it is made in, is there: a stick that isn't plugged in has neither.
func reachable(dir string) bool { return isFolder(filepath.Dir(dir)) }

func isFolder(dir string) bool {
	is, err := os.Stat(dir)
	return err == nil && is.IsDir()
}

// DailyElsewhere makes today's copy elsewhere, where a place was picked and is there; again makes one though there is
// one of today. It says whether it made one. What failed is noted, to be shown.
func (s *Store) DailyElsewhere(ctx context.Context, again bool) (made bool, err error) {
	e, err := s.Elsewhere(ctx)
	if err != nil || e.Dir == "" {
		return false, err
	}
	name := filepath.Join(e.Dir, "brevium-"+time.Now().Format("2006-01-02")+".db")
	if _, err := os.Stat(name); !again && (err == nil || !e.Here) {
		return false, nil
	}
	err = s.copyTo(ctx, e, name)
	said := ""
	if err != nil {
		if said = err.Error(); isFull(err) {
			said = fmt.Sprintf("“%s” is full; free some space on it, then try again", e.Name)
		}
	}
	note := s.Set(ctx, copyTrouble, said)
	if err == nil {
		note = errors.Join(note, s.Set(ctx, copiedTo, now()))
	}
	return err == nil, errors.Join(err, note)
}

// copyTo makes one copy: whole, read again, and only then under its name.
func (s *Store) copyTo(ctx context.Context, e Elsewhere, name string) error {
	if !e.Here && !reachable(e.Dir) {
		return fmt.Errorf("“%s” isn't there; plug it in, then try again", e.Name)
	}
	if !e.Here {
		return fmt.Errorf("what is plugged in isn't the one with your backups; plug in “%s”, or choose a place again", e.Name)
	}
	if err := os.MkdirAll(e.Dir, 0o700); err != nil {
		return fmt.Errorf("“%s” can't be written to: %w", e.Name, told(err))
	}
	making := name + ".making" // what is broken off is no copy
	if err := removed(making); err != nil {
		return fmt.Errorf("“%s” can't be written to: %w", e.Name, told(err))
	}
	err := s.Backup(ctx, making)
	if err == nil {
		if err = checkCopy(ctx, making); err != nil {
			err = fmt.Errorf("what was written on “%s” can't be read again (%w); use another stick or disk", e.Name, err)
		}
	}
	if err == nil {
		err = os.Rename(making, name)
	}
	if err != nil {
		if !reachable(e.Dir) {
			return fmt.Errorf("“%s” was pulled out before the copy was whole; plug it in, then try again", e.Name)
		}
		return errors.Join(err, removed(making))
	}
	all, err := filepath.Glob(filepath.Join(escapeGlob(e.Dir), datedCopies))
	return errors.Join(err, thinned(all, name, keptElsewhere))
}

// CopiesElsewhere lists the copies in the place that was picked, the newest first.
func (s *Store) CopiesElsewhere(ctx context.Context) (out []Copy, err error) {
	e, err := s.Elsewhere(ctx)
	if err != nil || e.Dir == "" {
		return nil, err
	}
	names, _ := filepath.Glob(filepath.Join(escapeGlob(e.Dir), datedCopies))
	slices.Sort(names)
	for _, name := range slices.Backward(names) {
		if is, err := os.Stat(name); err == nil {
			out = append(out, Copy{filepath.Base(name), "elsewhere", is.ModTime(), is.Size()})
		}
	}
	return out, nil
}

// CopyElsewhereCalled gives the path of a copy that CopiesElsewhere lists; ErrNone for any other name.
func (s *Store) CopyElsewhereCalled(ctx context.Context, name string) (string, error) {
	e, err := s.Elsewhere(ctx)
	if err != nil {
		return "", err
	}
	copies, err := s.CopiesElsewhere(ctx)
	if slices.ContainsFunc(copies, func(c Copy) bool { return c.Name == name }) {
		return filepath.Join(e.Dir, name), err
	}
	return "", errors.Join(err, ErrNone)
}

// File is where the boxes are.
func (s *Store) File() string { return s.file }
