// Package store keeps projects in SQLite. It stores documents and the history
// of their changes, and nothing that can be worked out from them.
package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"embed"
	"encoding/base32"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"time"

	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite"

	"brevium/core/brief"
)

//go:embed migrations/*.sql
var migrations embed.FS

var (
	// ErrNone says that there is no such project or revision.
	ErrNone = errors.New("there is no such project")
	// ErrMoved says that the project has changed since the revision that a
	// change was made on.
	ErrMoved = errors.New("the project was changed elsewhere meanwhile")
)

// Store is the database. It is safe for use by many requests at once.
type Store struct{ db *sql.DB }

// Revision is one state of a project.
type Revision struct {
	ID, Parent int64
	Project    string
	Brief      brief.Brief
	What       string // the change that made it, in words
	Burst      string
	Made       time.Time
}

// Project is a project as lists show it: its newest state.
type Project struct {
	Revision
	Changed time.Time
	Binned  bool
}

// Open opens the database in a file, making it and bringing it up to date as
// needed. Its folder is made for this user alone.
func Open(ctx context.Context, file string) (*Store, error) {
	if err := os.MkdirAll(filepath.Dir(file), 0o700); err != nil {
		return nil, fmt.Errorf("can't make the folder for %s: %w", file, err)
	}
	abs, err := filepath.Abs(file)
	if err != nil {
		return nil, err
	}
	dsn := url.URL{Scheme: "file", Path: abs, RawQuery: "_pragma=foreign_keys(1)&_pragma=journal_mode(WAL)&_pragma=busy_timeout(5000)&_pragma=synchronous(NORMAL)&_txlock=immediate"}
	db, err := sql.Open("sqlite", dsn.String())
	if err != nil {
		return nil, err
	}
	s := &Store{db}
	if err := s.migrate(ctx); err != nil {
		db.Close()
		return nil, fmt.Errorf("can't open %s: %w", file, err)
	}
	return s, nil
}

func (s *Store) migrate(ctx context.Context) error {
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, s.db, dir, goose.WithSlog(slog.New(slog.DiscardHandler)))
	if err != nil {
		return err
	}
	_, err = p.Up(ctx)
	return err
}

// Close closes the database.
func (s *Store) Close() error { return s.db.Close() }

// now is written so that texts sort as times do.
func now() string { return time.Now().UTC().Format("2006-01-02T15:04:05.000Z") }

func newID() string {
	var b [10]byte
	rand.Read(b[:])
	return strings.ToLower(base32.StdEncoding.EncodeToString(b[:]))
}

func (s *Store) within(ctx context.Context, do func(*sql.Tx) error) error {
	tx, err := s.db.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	if err := do(tx); err != nil {
		return errors.Join(err, ignoreDone(tx.Rollback()))
	}
	return tx.Commit()
}

func ignoreDone(err error) error {
	if errors.Is(err, sql.ErrTxDone) {
		return nil
	}
	return err
}

// Create begins a project and gives its identity.
func (s *Store) Create(ctx context.Context, b brief.Brief, what string) (id string, err error) {
	id = newID()
	err = s.within(ctx, func(tx *sql.Tx) error {
		at := now()
		if _, err := tx.ExecContext(ctx, `INSERT INTO projects (id, created, changed) VALUES (?, ?, ?)`, id, at, at); err != nil {
			return err
		}
		return push(ctx, tx, Revision{Project: id, Brief: b, What: what})
	})
	return id, err
}

// push adds a revision and makes it the head.
func push(ctx context.Context, tx *sql.Tx, r Revision) error {
	parent := sql.NullInt64{Int64: r.Parent, Valid: r.Parent != 0}
	res, err := tx.ExecContext(ctx, `INSERT INTO revisions (project, parent, document, what, burst, made) VALUES (?, ?, ?, ?, ?, ?)`,
		r.Project, parent, string(r.Brief.Encode()), r.What, r.Burst, now())
	if err != nil {
		return err
	}
	head, err := res.LastInsertId()
	if err != nil {
		return err
	}
	return setHead(ctx, tx, r.Project, head)
}

func setHead(ctx context.Context, tx *sql.Tx, project string, head int64) error {
	_, err := tx.ExecContext(ctx, `UPDATE projects SET head = ?, changed = ? WHERE id = ?`, head, now(), project)
	return err
}

// Save adds a change made on the revision base. It gives ErrMoved, and saves
// nothing, when base is no longer the newest.
func (s *Store) Save(ctx context.Context, project string, base int64, b brief.Brief, what, burst string) error {
	return s.within(ctx, func(tx *sql.Tx) error {
		head, err := headOf(ctx, tx, project)
		if err != nil {
			return err
		}
		if head.ID != base {
			return ErrMoved
		}
		return push(ctx, tx, Revision{Project: project, Parent: base, Brief: b, What: what, Burst: burst})
	})
}

const selectRevision = `SELECT r.id, coalesce(r.parent, 0), r.project, r.document, r.what, r.burst, r.made FROM revisions r `

type row interface{ Scan(...any) error }

func scan(r row, more ...any) (Revision, error) {
	var rev Revision
	var document, made string
	err := r.Scan(append([]any{&rev.ID, &rev.Parent, &rev.Project, &document, &rev.What, &rev.Burst, &made}, more...)...)
	if errors.Is(err, sql.ErrNoRows) {
		return rev, ErrNone
	}
	if err != nil {
		return rev, err
	}
	if rev.Made, err = time.Parse("2006-01-02T15:04:05.000Z", made); err != nil {
		return rev, err
	}
	rev.Brief, err = brief.Decode([]byte(document))
	return rev, err
}

type asker interface {
	QueryRowContext(context.Context, string, ...any) *sql.Row
}

func headOf(ctx context.Context, q asker, project string) (Revision, error) {
	return scan(q.QueryRowContext(ctx, selectRevision+`JOIN projects p ON p.head = r.id WHERE p.id = ?`, project))
}

// Head gives the newest state of a project, in the bin or not.
func (s *Store) Head(ctx context.Context, project string) (Project, error) {
	var p Project
	var changed string
	var binned sql.NullString
	rev, err := headOf(ctx, s.db, project)
	if err != nil {
		return p, err
	}
	err = s.db.QueryRowContext(ctx, `SELECT changed, binned FROM projects WHERE id = ?`, project).Scan(&changed, &binned)
	if err != nil {
		return p, err
	}
	p.Revision, p.Binned = rev, binned.Valid
	p.Changed, err = time.Parse("2006-01-02T15:04:05.000Z", changed)
	return p, err
}

// Revision gives one state of a project.
func (s *Store) Revision(ctx context.Context, project string, id int64) (Revision, error) {
	return scan(s.db.QueryRowContext(ctx, selectRevision+`WHERE r.project = ? AND r.id = ?`, project, id))
}

// History gives the states that led to a revision, newest first.
func (s *Store) History(ctx context.Context, project string, from int64, most int) ([]Revision, error) {
	rows, err := s.db.QueryContext(ctx, `
		WITH RECURSIVE back (id, n) AS (
			SELECT id, 1 FROM revisions WHERE id = ? AND project = ?
			UNION ALL
			SELECT r.parent, n + 1 FROM revisions r JOIN back b ON r.id = b.id WHERE r.parent IS NOT NULL AND n < ?
		) `+selectRevision+`JOIN back b ON b.id = r.id ORDER BY b.n`, from, project, most)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []Revision
	for rows.Next() {
		rev, err := scan(rows)
		if err != nil {
			return nil, err
		}
		out = append(out, rev)
	}
	return out, rows.Err()
}

// List gives the projects, or those in the bin, newest change first.
func (s *Store) List(ctx context.Context, binned bool) ([]Project, error) {
	rows, err := s.db.QueryContext(ctx, strings.Replace(selectRevision, " FROM", ", p.changed FROM", 1)+
		`JOIN projects p ON p.head = r.id WHERE (p.binned IS NOT NULL) = ? ORDER BY p.changed DESC, p.rowid DESC`, binned)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []Project
	for rows.Next() {
		var changed string
		rev, err := scan(rows, &changed)
		if err != nil {
			return nil, err
		}
		at, err := time.Parse("2006-01-02T15:04:05.000Z", changed)
		if err != nil {
			return nil, err
		}
		out = append(out, Project{rev, at, binned})
	}
	return out, rows.Err()
}

// Backup copies the database to a file that does not exist yet.
func (s *Store) Backup(ctx context.Context, file string) error {
	if _, err := os.Stat(file); err == nil {
		return fmt.Errorf("%s is there already; choose another name for the copy", file)
	}
	_, err := s.db.ExecContext(ctx, `VACUUM INTO ?`, file)
	return err
}
