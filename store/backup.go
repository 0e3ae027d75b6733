package store

import (
	"context"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"time"
)

// Backup copies the database to a file that does not exist yet, for this user
// alone. A copy that fails leaves no file.
func (s *Store) Backup(ctx context.Context, file string) error {
	if strings.TrimSpace(file) == "" || strings.HasPrefix(strings.ToLower(file), "file:") {
		return fmt.Errorf("%q is no name for a copy; give the name of a file", file)
	}
	abs, err := filepath.Abs(file)
	if err != nil {
		return err
	}
	empty, err := os.OpenFile(abs, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if errors.Is(err, fs.ErrExist) {
		return fmt.Errorf("%s is there already; choose another name for the copy", file)
	}
	if err != nil {
		return fmt.Errorf("can't write the copy: %w", err)
	}
	empty.Close()
	if _, err = s.db.ExecContext(ctx, `VACUUM INTO ?`, abs); err == nil {
		err = synced(abs)
	}
	if err != nil {
		os.Remove(abs)
		os.Remove(abs + "-journal")
		return fmt.Errorf("the copy was not made: %w", told(err))
	}
	return nil
}

// synced brings a file, and its name in its folder, on to the disk.
func synced(file string) error {
	for _, name := range []string{file, filepath.Dir(file)} {
		f, err := os.Open(name)
		if err != nil {
			return err
		}
		err = f.Sync()
		f.Close()
		if err != nil && name == file {
			return err
		}
	}
	return nil
}

// Restore puts a copy in a database's place, once the copy has been read whole.
// What was there, with its log, is kept beside it under the name that is given
// back; "" when there was nothing.
func Restore(ctx context.Context, from, file string) (kept string, err error) {
	if err := checkCopy(ctx, from); err != nil {
		return "", fmt.Errorf("%s was not put in place: %w", from, err)
	}
	if a, err := os.Stat(from); err == nil {
		if b, err := os.Stat(file); err == nil && os.SameFile(a, b) {
			return "", fmt.Errorf("%s is the database itself; name the copy", from)
		}
	}
	if err := os.MkdirAll(filepath.Dir(file), 0o700); err != nil {
		return "", err
	}
	fresh, err := os.CreateTemp(filepath.Dir(file), filepath.Base(file)+".restoring-*")
	if err != nil {
		return "", err
	}
	defer os.Remove(fresh.Name())
	defer fresh.Close()
	in, err := os.Open(from)
	if err != nil {
		return "", err
	}
	defer in.Close()
	if _, err := io.Copy(fresh, in); err != nil {
		return "", told(err)
	}
	if err := fresh.Sync(); err != nil {
		return "", told(err)
	}
	if kept, err = setAside(ctx, file); err != nil {
		return "", err
	}
	if err := os.Rename(fresh.Name(), file); err != nil {
		return kept, err
	}
	return kept, synced(file)
}

// setAside moves a database out of the way, with its log: an old log beside a
// restored copy would be played into it.
func setAside(ctx context.Context, file string) (kept string, err error) {
	if _, err := os.Stat(file); errors.Is(err, fs.ErrNotExist) {
		return "", errors.Join(removed(file+"-wal"), removed(file+"-shm"))
	}
	if err := alone(ctx, file); err != nil {
		return "", err
	}
	kept = file + ".before-restore-" + time.Now().Format("2006-01-02-150405")
	for n := 2; ; n++ {
		if _, err := os.Lstat(kept); errors.Is(err, fs.ErrNotExist) {
			break
		}
		kept = fmt.Sprintf("%s.before-restore-%s-%d", file, time.Now().Format("2006-01-02-150405"), n)
	}
	for _, end := range []string{"-wal", "-shm", ""} {
		if err := os.Rename(file+end, kept+end); err != nil && !errors.Is(err, fs.ErrNotExist) {
			return "", fmt.Errorf("what was there could not be set aside: %w", err)
		}
	}
	return kept, nil
}

func removed(file string) error {
	if err := os.Remove(file); err != nil && !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	return nil
}

// alone folds a database's log into it, which only the last that has it open
// can do. A damaged database is let be: it is what the copy is for.
func alone(ctx context.Context, file string) error {
	db, err := connect(file, "_pragma=busy_timeout(300)")
	if err != nil {
		return err
	}
	defer db.Close()
	db.SetMaxOpenConns(1)
	var mode string
	if err := db.QueryRowContext(ctx, `PRAGMA journal_mode = DELETE`).Scan(&mode); busy(err) {
		return &Trouble{"Brevium is running with this database. Stop it first, then restore.", err}
	}
	return nil
}

// checkCopy reads a copy whole and says why it can't take a database's place.
func checkCopy(ctx context.Context, file string) error {
	if _, err := os.Stat(file); err != nil {
		return err
	}
	db, err := connect(file, "mode=ro&immutable=1")
	if err != nil {
		return err
	}
	defer db.Close()
	var says string
	if err := db.QueryRowContext(ctx, `PRAGMA integrity_check(1)`).Scan(&says); err != nil {
		return fmt.Errorf("it is no copy of a database, or damaged (%w)", err)
	}
	if says != "ok" {
		return fmt.Errorf("it is damaged: %s", says)
	}
	is, err := form(ctx, db)
	if err != nil {
		return err
	}
	if is == 0 {
		return errors.New("it is no copy of Brevium's database")
	}
	p, err := provider(db)
	if err != nil {
		return err
	}
	if is > latest(p) {
		return errNewer
	}
	var lost int
	heads := map[bool]string{true: "documents", false: "projects"}[is >= 9]
	err = db.QueryRowContext(ctx, `SELECT count(*) FROM `+heads+`
		WHERE head IS NOT NULL AND head NOT IN (SELECT id FROM revisions)`).Scan(&lost)
	if err == nil && lost > 0 {
		err = fmt.Errorf("of %d boxes in it what they are is missing", lost)
	}
	return err
}
