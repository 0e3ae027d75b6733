package store

import (
	"context"
	"errors"
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
	if err != nil {
		return made, err
	}
	slices.Sort(all)
	ahead := slices.IndexFunc(all, func(one string) bool { return one > name })
	if ahead < 0 {
		ahead = len(all)
	}
	for _, some := range [][]string{all[:ahead], all[ahead:]} {
		for _, old := range some[:max(0, len(some)-keptDaily)] {
			err = errors.Join(err, os.Remove(old))
		}
	}
	return made, err
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
	return map[string]string{"daily": "daily copy", "before": "before Brevium was brought up to date",
		"restore": "before a backup was restored", "elsewhere": "backup", "brought": "backup you opened"}[c.Kind]
}

// Copies lists the copies that lie beside the database, the newest first.
func (s *Store) Copies() []Copy { return CopiesBeside(s.file) }

// CopiesBeside lists the copies that lie beside a database, the newest first.
func CopiesBeside(file string) (out []Copy) {
	for kind, pattern := range map[string]string{"daily": ".daily-????-??-??", "before": ".before-[0-9]*",
		"restore": ".before-restore-*", "brought": ".brought-*"} {
		names, _ := filepath.Glob(escapeGlob(file) + pattern)
		for _, name := range names {
			if is, err := os.Stat(name); err == nil && !strings.HasSuffix(name, "-wal") && !strings.HasSuffix(name, "-shm") {
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
	old, _ := filepath.Glob(escapeGlob(s.file) + ".brought-*")
	for _, one := range old { // one is enough
		if err := os.Remove(one); err != nil {
			return err
		}
	}
	return copied(from, s.file+".brought-"+time.Now().Format("2006-01-02-150405"))
}
