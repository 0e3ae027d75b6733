package store

import (
	"context"
	"database/sql"
	"database/sql/driver"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"time"
)

// A copy that is put back is data and no more: it is copied, read whole, must be ours to the letter, is brought up to date
// by itself, and then its rows are taken. Who may come in is of this Brevium and not of its boxes.

// Replace puts a copy in place of all there is while Brevium runs, in one transaction; what others write meanwhile waits.
// What was there is kept as a copy beside it, whose name is given back. Everybody must sign in anew; the passphrase stays
// what it is. What fails leaves everything as it was.
func (s *Store) Replace(ctx context.Context, from string) (kept string, err error) {
	fresh, done, err := ready(ctx, from, s.file)
	defer done()
	if err == nil {
		kept = s.file + ".before-restore-" + time.Now().Format("2006-01-02-150405") + "-" + NewID()[:4]
		err = s.alone(ctx, func(ctx context.Context) error { return s.take(ctx, fresh, kept) })
	}
	if err != nil {
		return "", fmt.Errorf("nothing was restored: %w", told(err))
	}
	return kept, nil
}

// take takes the rows of a database of our newest form in place of our own, and keeps ours as a copy.
func (s *Store) take(ctx context.Context, fresh, kept string) error {
	conn, err := s.db.Conn(ctx)
	if err != nil {
		return err
	}
	defer conn.Close()
	do := func(statement string, args ...any) {
		if err == nil {
			_, err = conn.ExecContext(ctx, statement, args...)
		}
	}
	do(`PRAGMA foreign_keys = 0`) // the rows come table by table; they were checked before
	do(`ATTACH ? AS fresh`, fresh)
	do(`BEGIN IMMEDIATE`)
	if err == nil {
		if err = s.Backup(ctx, kept); err == nil {
			err = takeRows(ctx, conn)
		}
		if do(`COMMIT`); err != nil {
			_, back := conn.ExecContext(context.WithoutCancel(ctx), `ROLLBACK`)
			err = errors.Join(err, back, removed(kept))
		}
	}
	ctx = context.WithoutCancel(ctx)
	if _, undone := conn.ExecContext(ctx, `DETACH fresh`); undone != nil {
		err = errors.Join(err, undone)
	}
	// The pool throws a connection away only for this very error. This one holds to no foreign key.
	conn.Raw(func(any) error { return driver.ErrBadConn })
	return err
}

// ofThisComputer are the settings that a restored copy doesn't bring: who may come in, and where copies are kept.
var ofThisComputer = []string{Passphrase, copiesTo, copiedTo, copyTrouble}

// takeRows takes the rows of all tables of an attached database, but for who was let in and what is of this computer.
func takeRows(ctx context.Context, conn *sql.Conn) error {
	tables, err := all(ctx, conn, scanned[string], `SELECT name FROM main.sqlite_master WHERE type = 'table'
		AND name NOT LIKE 'sqlite_%' AND name != 'goose_db_version' AND name NOT LIKE 'makings_text%'`)
	if err != nil {
		return err
	}
	for _, table := range tables {
		columns, err := all(ctx, conn, scanned[string], `SELECT name FROM pragma_table_info(?)`, table)
		if err != nil {
			return err
		}
		but := ``
		if table == "settings" {
			but = ` WHERE name NOT IN ('` + strings.Join(ofThisComputer, `', '`) + `')`
		}
		if _, err := conn.ExecContext(ctx, `DELETE FROM main.`+table+but); err != nil {
			return err
		}
		if table == "sessions" || table == "phones" {
			continue
		}
		list := strings.Join(columns, ", ")
		if _, err := conn.ExecContext(ctx, `INSERT INTO main.`+table+` (`+list+`)
			SELECT `+list+` FROM fresh.`+table+but); err != nil {
			return err
		}
	}
	return findAnew(ctx, conn)
}

// findAnew writes the full text of the logbook from its makings. Its tables are SQLite's own and can't be copied: every
// connection remembers some of what is in them.
func findAnew(ctx context.Context, conn *sql.Conn) error {
	if _, err := conn.ExecContext(ctx, `INSERT INTO makings_text (makings_text) VALUES ('delete-all')`); err != nil {
		return err
	}
	ids, err := all(ctx, conn, scanned[string], `SELECT doc FROM makings WHERE gone IS NULL`)
	if err != nil {
		return err
	}
	for _, id := range ids {
		m, err := makingOf(ctx, conn, id)
		if err == nil {
			_, err = conn.ExecContext(ctx, `INSERT INTO makings_text (rowid, words)
				SELECT found, ? FROM makings WHERE doc = ?`, m.Words(), id)
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// restoring is in the name of the folder in which a copy is made ready.
const restoring = ".restoring-"

// ready makes a database of our newest form of a copy, in a folder beside a file, and gives what takes that away.
func ready(ctx context.Context, from, file string) (fresh string, done func(), err error) {
	done = func() {}
	if _, err := os.Stat(from); err != nil {
		return "", done, err
	}
	dir, err := os.MkdirTemp(filepath.Dir(file), filepath.Base(file)+restoring+"*")
	if err != nil {
		return "", done, err
	}
	done, fresh = func() { os.RemoveAll(dir) }, filepath.Join(dir, "copy.db")
	if err := copied(from, fresh); err != nil {
		return "", done, err
	}
	if err := checkCopy(ctx, fresh); err != nil {
		return "", done, err
	}
	db, err := connect(fresh, "_txlock=immediate")
	if err != nil {
		return "", done, err
	}
	d := &database{db: db, changes: make(chan *change), closing: make(chan struct{}), written: make(chan struct{})}
	s := &Store{database: d, kinds: know(d)}
	go s.write()
	if err = s.migrate(ctx, ""); err == nil {
		err = s.fillWords(ctx)
	}
	return fresh, done, errors.Join(err, s.Close())
}

func copied(from, to string) error {
	in, err := os.Open(from)
	if err != nil {
		return err
	}
	defer in.Close()
	out, err := os.OpenFile(to, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	if _, err = io.Copy(out, in); err == nil {
		err = out.Sync()
	}
	if err = errors.Join(err, out.Close()); err != nil {
		return errors.Join(told(err), removed(to))
	}
	return nil
}

// Restore puts a copy in a database's place while nothing runs with it, with the copy's passphrase only when that is asked
// for. What was there, with its log, is kept beside it under the name that is given back; "" when there was nothing.
func Restore(ctx context.Context, from, file string, passphrase bool) (kept string, err error) {
	if a, err := os.Stat(from); err == nil {
		if b, err := os.Stat(file); err == nil && os.SameFile(a, b) {
			return "", fmt.Errorf("%s is the database you use now, not a backup. Name the backup instead", from)
		}
	}
	if err := os.MkdirAll(filepath.Dir(file), 0o700); err != nil {
		return "", err
	}
	fresh, done, err := ready(ctx, from, file)
	defer done()
	if err == nil {
		err = makeOwn(ctx, fresh, file, passphrase)
	}
	if err == nil {
		err = synced(fresh)
	}
	if err != nil {
		return "", fmt.Errorf("%s was not restored: %w", from, told(err))
	}
	if kept, err = setAside(ctx, file); err != nil {
		return "", err
	}
	if err := os.Rename(fresh, file); err != nil {
		return kept, errors.Join(err, putBack(kept, file))
	}
	return kept, synced(file)
}

// makeOwn makes a database one's own: nobody is in, and what is of this computer (the passphrase only when it isn't to
// be theirs) is as in the database which it takes the place of.
func makeOwn(ctx context.Context, fresh, file string, theirs bool) error {
	mine := map[string]string{}
	if _, err := os.Stat(file); err == nil {
		if old, err := connect(file, "mode=ro"); err == nil { // one that is damaged says none
			for _, name := range ofThisComputer {
				value := ""
				if old.QueryRowContext(ctx, `SELECT value FROM settings WHERE name = ?`, name).Scan(&value) == nil {
					mine[name] = value
				}
			}
			old.Close()
		}
	}
	db, err := connect(fresh, "_pragma=journal_mode(DELETE)")
	if err != nil {
		return err
	}
	defer db.Close()
	do := func(statement string, args ...any) {
		if err == nil {
			_, err = db.ExecContext(ctx, statement, args...)
		}
	}
	do(`DELETE FROM sessions`)
	do(`DELETE FROM phones`)
	for _, name := range ofThisComputer {
		if name == Passphrase && theirs {
			continue
		}
		do(`DELETE FROM settings WHERE name = ?`, name)
		if value, ok := mine[name]; ok {
			do(`INSERT INTO settings (name, value) VALUES (?, ?)`, name, value)
		}
	}
	return err
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

// putBack undoes setAside.
func putBack(kept, file string) (err error) {
	if kept == "" {
		return nil
	}
	for _, end := range []string{"", "-wal", "-shm"} {
		if back := os.Rename(kept+end, file+end); back != nil && !errors.Is(back, fs.ErrNotExist) {
			err = errors.Join(err, back)
		}
	}
	return err
}
