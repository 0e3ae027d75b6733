package store

import (
	"errors"
	"io/fs"
	"path/filepath"
	"runtime"
	"syscall"

	"modernc.org/sqlite"
	lib "modernc.org/sqlite/lib"
)

const full = "The disk is full, so nothing was saved. Free some space, then try again."

// starting says what an error is that keeps Brevium from starting: nothing was to be kept yet.
func starting(err error) error {
	err = told(err)
	if t := new(Trouble); errors.As(err, &t) && t.Text == full {
		return &Trouble{"The disk is full, so Brevium can't start. Free some space, then start Brevium again.", err}
	}
	return err
}

// SayAtStart is what to tell of what keeps Brevium from starting with a database file.
func SayAtStart(err error, file string) (text string, ok bool) {
	switch {
	case IsNewer(err):
		return "A newer Brevium has written your boxes, and this older one can't read them. Open the newer one, or a backup from " +
			"before: what is there now is kept beside it.", true
	case ABackupHelps(err):
		return "The file with your boxes is damaged. Open a backup: what is there now is kept beside it.", true
	case forbidden(err):
		return "Brevium may not write in the folder with your boxes, " + filepath.Dir(file) + ". Allow yourself to write there, in " +
			"the folder's properties, then try again. If it is on a stick with a lock, unlock it first.", true
	}
	return Say(starting(err))
}

// ABackupHelps reports whether it is the database file itself that keeps Brevium from starting.
func ABackupHelps(err error) bool {
	c := code(err)
	return c == lib.SQLITE_CORRUPT || c == lib.SQLITE_NOTADB || IsNewer(err)
}

// forbidden reports whether the system lets nothing be written. Windows calls a locked disk by a number of its own.
func forbidden(err error) bool {
	var e syscall.Errno
	return errors.Is(err, fs.ErrPermission) || errors.Is(err, syscall.EROFS) || code(err) == lib.SQLITE_READONLY ||
		runtime.GOOS == "windows" && errors.As(err, &e) && e == 19
}

// grew reports whether a file beside the database could not be made larger: where that is the log's index, SQLite says
// that the disk does not answer.
func grew(err error) bool {
	e := new(sqlite.Error)
	return errors.As(err, &e) && (e.Code() == lib.SQLITE_IOERR_SHMSIZE || e.Code() == lib.SQLITE_IOERR_SHMMAP)
}

// told says what an error of the database file is, in words, where it is one.
func told(err error) error {
	if err == nil {
		return nil
	}
	if t := new(Trouble); errors.As(err, &t) {
		return err
	}
	text := ""
	switch code(err) {
	case lib.SQLITE_FULL:
		text = full
	case lib.SQLITE_CORRUPT, lib.SQLITE_NOTADB:
		text = "The file with your boxes is damaged. Close Brevium and restore a backup."
	case lib.SQLITE_BUSY, lib.SQLITE_LOCKED:
		text = "Another program is using the file with your boxes, so this was not done. Close that program and try again."
	case lib.SQLITE_READONLY, lib.SQLITE_PERM, lib.SQLITE_AUTH:
		text = "The file with your boxes is read-only, so this was not saved. Change its permissions, then try again."
	case lib.SQLITE_IOERR:
		text = "The disk has a fault, so this was not saved. Make a backup on another disk."
	case lib.SQLITE_CANTOPEN:
		text = "Brevium can't open the file with your boxes. Check that it is there and that you may read and write it."
	}
	if noRoom(err) || grew(err) {
		text = full
	}
	if text == "" {
		return err
	}
	return &Trouble{text, err}
}

// code is SQLite's own number of an error, 0 when it is none of its.
func code(err error) int {
	if e := new(sqlite.Error); errors.As(err, &e) {
		return e.Code() & 0xff
	}
	if errors.Is(err, fs.ErrPermission) || errors.Is(err, syscall.EROFS) {
		return lib.SQLITE_PERM
	}
	return 0
}

// noRoom reports whether the system had no room for a file. Windows says so with two numbers of its own.
func noRoom(err error) bool {
	var e syscall.Errno
	return errors.Is(err, syscall.ENOSPC) || runtime.GOOS == "windows" && errors.As(err, &e) && (e == 39 || e == 112)
}

// isFull reports whether a disk is full.
func isFull(err error) bool {
	t := new(Trouble)
	return errors.As(err, &t) && t.Text == full
}

// busy says that trying again may help.
func busy(err error) bool {
	c := code(err)
	return c == lib.SQLITE_BUSY || c == lib.SQLITE_LOCKED
}
