package store

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

// keptDaily is how many of the daily copies are kept.
const keptDaily = 7

// Daily copies the database beside itself once a day, keeping the last seven of these copies, and of those dated after
// today, which a wrong clock made, seven too. It says whether it made one.
func (s *Store) Daily(ctx context.Context) (made bool, err error) {
	made, err = s.daily(ctx)
	says := ""
	if err != nil {
		var ok bool
		if says, ok = Say(err); !ok {
			says = "Check that the folder with your boxes can be written to."
		}
	}
	s.dailySays.Store(&says)
	return made, err
}

// DailyTrouble is why the last daily copy could not be made, in words; "" when it could.
func (s *Store) DailyTrouble() string {
	if says := s.dailySays.Load(); says != nil {
		return *says
	}
	return ""
}

func (s *Store) daily(ctx context.Context) (made bool, err error) {
	if s.file == "" {
		return false, nil
	}
	name := s.file + ".daily-" + time.Now().Format("2006-01-02")
	if _, err := os.Stat(name); err != nil {
		making := name + ".making" // one that was broken off is no copy
		if err := errors.Join(removed(making), s.Backup(ctx, making)); err != nil {
			return false, err
		}
		if err := os.Rename(making, name); err != nil {
			return false, err
		}
		made = true
	}
	all, err := filepath.Glob(escapeGlob(s.file) + ".daily-????-??-??")
	return made, errors.Join(err, thinned(all, name, keptDaily))
}

// thinned deletes the oldest of some dated copies beyond so many. Of those dated after the newest, which a wrong clock
// made, as many are kept.
func thinned(all []string, newest string, most int) (err error) {
	slices.Sort(all)
	ahead, exact := slices.BinarySearch(all, newest)
	if exact {
		ahead++
	}
	for _, some := range [][]string{all[:ahead], all[ahead:]} {
		for _, old := range some[:max(0, len(some)-most)] {
			err = errors.Join(err, os.Remove(old))
		}
	}
	return err
}

// escapeGlob writes a path so that a pattern takes it as it stands.
func escapeGlob(path string) string {
	return strings.NewReplacer(`\`, `\\`, `*`, `\*`, `?`, `\?`, `[`, `\[`).Replace(path)
}

// Copy is a copy of the database that lies beside it.
type Copy struct {
	Name string // of the file, without its folder
	Kind string // daily, before or restore
	Made time.Time
	Size int64
}

// Says tells what a copy is of.
func (c Copy) Says() string {
	return map[string]string{"daily": "daily backup", "before": "from before Brevium was updated",
		"restore": "from before a backup was restored", "elsewhere": "backup", "brought": "the file you added"}[c.Kind]
}

// Large is how large a copy is, as a person says it.
func (c Copy) Large() string {
	if c.Size < 950_000 {
		return fmt.Sprintf("%d kB", (c.Size+999)/1000)
	}
	return fmt.Sprintf("%.1f MB", float64(c.Size)/1e6)
}

// Copies lists the copies that lie beside the database, the newest first.
func (s *Store) Copies() []Copy { return CopiesBeside(s.file) }

// CopiesBeside lists the copies that lie beside a database, the newest first.
func CopiesBeside(file string) (out []Copy) {
	for kind, pattern := range map[string]string{"daily": ".daily-????-??-??", "before": ".before-[0-9]*",
		"restore": ".before-restore-*", "brought": ".brought-*"} {
		names, _ := filepath.Glob(escapeGlob(file) + pattern)
		for _, name := range names {
			if is, err := os.Stat(name); err == nil && !unfinished(name) {
				out = append(out, Copy{filepath.Base(name), kind, is.ModTime(), is.Size()})
			}
		}
	}
	slices.SortFunc(out, func(a, b Copy) int {
		if c := b.Made.Compare(a.Made); c != 0 {
			return c
		}
		return strings.Compare(a.Name, b.Name)
	})
	return out
}

// unfinished reports whether a file beside a copy is no copy: part of one that is being made, or the log of one in use.
func unfinished(name string) bool {
	return slices.ContainsFunc([]string{".making", "-wal", "-shm"}, func(end string) bool { return strings.HasSuffix(name, end) })
}

// CopyCalled gives the path of a copy that Copies lists; ErrNone for any other name.
func (s *Store) CopyCalled(name string) (string, error) {
	for _, c := range s.Copies() {
		if c.Name == name {
			return filepath.Join(filepath.Dir(s.file), c.Name), nil
		}
	}
	return "", ErrNone
}

// Passphrase is the setting that holds the passphrase, as argon2id writes it.
const Passphrase = "passphrase"

// LayBeside lays a copy from elsewhere beside the database, if this Brevium can read it, so that it can be restored.
func (s *Store) LayBeside(ctx context.Context, from string) error {
	if err := Readable(ctx, from); err != nil {
		return err
	}
	name := s.file + ".brought-" + time.Now().Format("2006-01-02-150405")
	making := name + ".making"
	err := errors.Join(removed(making), copied(from, making))
	if err == nil {
		err = os.Rename(making, name)
	}
	if err != nil {
		return errors.Join(err, removed(making))
	}
	old, err := filepath.Glob(escapeGlob(s.file) + ".brought-*")
	for _, one := range old { // one is enough
		if one != name {
			err = errors.Join(err, os.Remove(one))
		}
	}
	return err
}
