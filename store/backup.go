package store

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"runtime"
	"strings"
)

// Backup copies the database to a file that does not exist yet, for this user
// alone. A copy that fails leaves no file.
func (s *Store) Backup(ctx context.Context, file string) error {
	if strings.TrimSpace(file) == "" || strings.HasPrefix(strings.ToLower(file), "file:") {
		return fmt.Errorf("%q isn't a name for a copy; give the name of a file", file)
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

// synced brings a file, and its name in its folder, on to the disk. Windows does the second by itself, and lets only who
// may write to a file do the first.
func synced(file string) error {
	names := []string{file, filepath.Dir(file)}
	if runtime.GOOS == "windows" {
		names = names[:1]
	}
	for _, name := range names {
		how := os.O_RDONLY
		if name == file {
			how = os.O_RDWR
		}
		f, err := os.OpenFile(name, how, 0)
		if err != nil {
			return err
		}
		err = errors.Join(f.Sync(), f.Close())
		if err != nil && name == file { // not every kind of disk does it for a folder
			return err
		}
	}
	return nil
}
