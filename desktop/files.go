package desktop

import (
	"errors"
	"io/fs"
	"os"
	"path/filepath"
)

// removed takes a file away, if it is there.
func removed(file string) error {
	if err := os.Remove(file); err != nil && !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	return nil
}

// written writes a small file, whole or not at all.
func written(file, text string, mode fs.FileMode) error {
	if err := os.MkdirAll(filepath.Dir(file), 0o700); err != nil {
		return err
	}
	making := file + ".making"
	if err := os.WriteFile(making, []byte(text), mode); err != nil {
		return err
	}
	return os.Rename(making, file)
}

// is reports whether a file is there.
func is(file string) bool {
	_, err := os.Stat(file)
	return err == nil
}
