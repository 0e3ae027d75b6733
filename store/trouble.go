package store

import (
	"errors"
	"io/fs"
	"syscall"

	"modernc.org/sqlite"
	lib "modernc.org/sqlite/lib"
)

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
		text = "The disk is full, so this was not kept. Make room on it and repeat what you did."
	case lib.SQLITE_CORRUPT, lib.SQLITE_NOTADB:
		text = "The database is damaged. Stop Brevium and put a backup in its place with “brevium restore”."
	case lib.SQLITE_BUSY, lib.SQLITE_LOCKED:
		text = "Another program holds the database, so this was not done. Close that program and try again."
	case lib.SQLITE_READONLY, lib.SQLITE_PERM, lib.SQLITE_AUTH:
		text = "The database may only be read, so this was not kept. Give yourself the right to write to its file."
	case lib.SQLITE_IOERR:
		text = "The disk does not answer as it should, so this was not kept. Look after the disk and make a backup elsewhere."
	case lib.SQLITE_CANTOPEN:
		text = "The database file can't be opened. See that it is there and that you may read and write it."
	}
	if errors.Is(err, syscall.ENOSPC) {
		text = "The disk is full, so this was not kept. Make room on it and repeat what you did."
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
	if errors.Is(err, fs.ErrPermission) {
		return lib.SQLITE_PERM
	}
	return 0
}

// busy says that trying again may help.
func busy(err error) bool {
	c := code(err)
	return c == lib.SQLITE_BUSY || c == lib.SQLITE_LOCKED
}
