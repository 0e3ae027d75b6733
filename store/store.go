// Package store keeps projects in SQLite. It stores documents and the history
// of their changes; what can be worked out from them is kept only where lists
// need it, and made anew when it is stale.
//
// What a call says is kept is on the disk: commits are synchronous, and changes
// that come together share one (writer.go).
package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"encoding/base32"
	"errors"
	"fmt"
	"strings"
	"time"

	"brevium/core/brief"
)

var (
	// ErrNone says that there is no such project or revision.
	ErrNone = errors.New("there is no such project")
	// ErrMoved says that the project has changed since the revision that a
	// change was made on.
	ErrMoved = errors.New("the project was changed elsewhere meanwhile")
	// ErrArrived says that this very change was made before.
	ErrArrived = errors.New("this change has arrived before")
)

// Broken is a revision whose document can't be read: of a newer format, or
// damaged.
type Broken struct {
	Project string
	Why     error
}

func (b *Broken) Error() string { return "what is stored of this box can't be read: " + b.Why.Error() }
func (b *Broken) Unwrap() error { return b.Why }

// Revision is one state of a project.
type Revision struct {
	ID, Parent int64
	Project    string
	Brief      brief.Brief
	What       string // the change that made it, in words
	Burst      string
	Who        string // made it, where several do
	Made       time.Time
}

// Project is a project's newest state.
type Project struct {
	Revision
	Changed time.Time
	Binned  bool
}

// Change is what makes a new revision: of the revision Base, the brief as it is
// now, and in words what was done. Changes of one Burst are undone together.
// ID, when there is one, names the change, so that it is made once only.
type Change struct {
	Base            int64
	Brief           brief.Brief
	What, Burst, ID string
	Card            *Summary // how lists show it, when that is known already
	Program         string   // the version that made the card
}

const clock = "2006-01-02T15:04:05.000Z"

// now is written so that texts sort as times do.
func now() string { return time.Now().UTC().Format(clock) }

// NewID makes an identity that no other has.
func NewID() string {
	var b [10]byte
	rand.Read(b[:])
	return strings.ToLower(base32.StdEncoding.EncodeToString(b[:]))
}

// Create begins a project and gives its identity.
func (s *Store) Create(ctx context.Context, b brief.Brief, what string) (id string, err error) {
	id = NewID()
	err = s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		at := now()
		if _, err := tx.ExecContext(ctx, `INSERT INTO projects (id, created, changed) VALUES (?, ?, ?)`, id, at,
			at); err != nil {
			return err
		}
		_, err := push(ctx, tx, Revision{Project: id, Brief: b, What: what})
		return err
	})
	return id, err
}

// push adds a revision and makes it the head.
func push(ctx context.Context, tx *sql.Tx, r Revision) (made int64, err error) {
	if err := r.Brief.Check(); err != nil {
		return 0, &Refused{err}
	}
	parent := sql.NullInt64{Int64: r.Parent, Valid: r.Parent != 0}
	res, err := tx.ExecContext(ctx, `INSERT INTO revisions (project, parent, document, what, burst, made, who)
		VALUES (?, ?, ?, ?, ?, ?, ?)`, r.Project, parent, string(r.Brief.Encode()), r.What, r.Burst, now(), Who(ctx))
	if err != nil {
		return 0, err
	}
	if r.ID, err = res.LastInsertId(); err != nil {
		return 0, err
	}
	return r.ID, setHead(ctx, tx, r)
}

// Refused is a document that is not written because it could not be read again.
type Refused struct{ Why error }

func (r *Refused) Error() string { return "this is not kept: " + r.Why.Error() }
func (r *Refused) Unwrap() error { return r.Why }

func setHead(ctx context.Context, tx *sql.Tx, r Revision) error {
	_, err := tx.ExecContext(ctx, `UPDATE projects SET head = ?, changed = ?, title = ?, words = ? WHERE id = ?`,
		r.ID, now(), string(r.Brief.Name), wordsOf(&r.Brief), r.Project)
	return err
}

// arrive notes that a change has come, or says that it came before.
func arrive(ctx context.Context, tx *sql.Tx, change string) error {
	if change == "" {
		return nil
	}
	res, err := tx.ExecContext(ctx, `INSERT INTO arrived (change, at) VALUES (?, ?) ON CONFLICT DO NOTHING`, change, now())
	if err != nil {
		return err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, ErrArrived)
	}
	return nil
}

// Arrived reports whether a change has been made before.
func (s *Store) Arrived(ctx context.Context, change string) (bool, error) {
	var n int
	err := s.db.QueryRowContext(ctx, `SELECT count(*) FROM arrived WHERE change = ?`, change).Scan(&n)
	return n > 0, told(err)
}

// Save adds a change made on the revision it names, and gives the new one. It
// gives ErrMoved, and saves nothing, when that is no longer the newest, and
// ErrArrived when the change was made before.
func (s *Store) Save(ctx context.Context, project string, c Change) (made int64, err error) {
	err = s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		if err := arrive(ctx, tx, c.ID); err != nil {
			return err
		}
		var head int64
		err := tx.QueryRowContext(ctx, `SELECT head FROM projects WHERE id = ?`, project).Scan(&head)
		if errors.Is(err, sql.ErrNoRows) {
			return ErrNone
		}
		if err != nil {
			return err
		}
		if head != c.Base {
			return ErrMoved
		}
		made, err = push(ctx, tx, Revision{Project: project, Parent: c.Base, Brief: c.Brief, What: c.What, Burst: c.Burst})
		if err != nil || c.Card == nil {
			return err
		}
		return keepCard(ctx, tx, project, made, c.Program, *c.Card)
	})
	return made, err
}

const selectRevision = `SELECT r.id, coalesce(r.parent, 0), r.project, r.document, r.what, r.burst, r.who, r.made FROM revisions r `

type row interface{ Scan(...any) error }

// scan reads a revision. One whose document can't be read is given with all
// else that is known of it, and a Broken.
func scan(r row, more ...any) (Revision, error) {
	var rev Revision
	var document, made string
	err := r.Scan(append([]any{&rev.ID, &rev.Parent, &rev.Project, &document, &rev.What, &rev.Burst, &rev.Who, &made}, more...)...)
	if errors.Is(err, sql.ErrNoRows) {
		return rev, ErrNone
	}
	if err != nil {
		return rev, err
	}
	// A time that can't be read keeps no box from being shown.
	rev.Made, _ = time.Parse(clock, made)
	if rev.Brief, err = brief.Stored([]byte(document)); err != nil {
		return rev, &Broken{rev.Project, err}
	}
	return rev, nil
}

type asker interface {
	QueryRowContext(context.Context, string, ...any) *sql.Row
}

func headOf(ctx context.Context, q asker, project string, more ...any) (Revision, error) {
	query := selectRevision
	if len(more) > 0 {
		query = strings.Replace(query, " FROM", ", p.changed, p.binned FROM", 1)
	}
	return scan(q.QueryRowContext(ctx, query+`JOIN projects p ON p.head = r.id WHERE p.id = ?`, project), more...)
}

// Head gives the newest state of a project, in the bin or not.
func (s *Store) Head(ctx context.Context, project string) (Project, error) {
	var p Project
	var changed string
	var binned sql.NullString
	rev, err := headOf(ctx, s.db, project, &changed, &binned)
	p.Revision, p.Binned = rev, binned.Valid
	p.Changed, _ = time.Parse(clock, changed)
	return p, told(err)
}

// Document gives the newest state of a project as it is stored, readable or
// not.
func (s *Store) Document(ctx context.Context, project string) (string, error) {
	var document string
	err := s.db.QueryRowContext(ctx, `SELECT r.document FROM revisions r JOIN projects p ON p.head = r.id WHERE p.id = ?`,
		project).Scan(&document)
	if errors.Is(err, sql.ErrNoRows) {
		return "", ErrNone
	}
	return document, told(err)
}

// Revision gives one state of a project.
func (s *Store) Revision(ctx context.Context, project string, id int64) (Revision, error) {
	rev, err := scan(s.db.QueryRowContext(ctx, selectRevision+`WHERE r.project = ? AND r.id = ?`, project, id))
	return rev, told(err)
}

// History gives the states that led to a revision and can be read, newest
// first.
func (s *Store) History(ctx context.Context, project string, from int64, most int) ([]Revision, error) {
	rows, err := s.db.QueryContext(ctx, `
		WITH RECURSIVE back (id, n) AS (
			SELECT id, 1 FROM revisions WHERE id = ? AND project = ?
			UNION ALL
			SELECT r.parent, n + 1 FROM revisions r JOIN back b ON r.id = b.id WHERE r.parent IS NOT NULL AND n < ?
		) `+selectRevision+`JOIN back b ON b.id = r.id ORDER BY b.n`, from, project, most)
	return readable(rows, err)
}

// readable gives the revisions of an answer that can be read.
func readable(rows *sql.Rows, err error) (out []Revision, _ error) {
	if err != nil {
		return nil, told(err)
	}
	defer rows.Close()
	for rows.Next() {
		rev, err := scan(rows)
		if isBroken(err) {
			continue
		}
		if err != nil {
			return nil, told(err)
		}
		out = append(out, rev)
	}
	return out, told(rows.Err())
}

// Trail gives the revisions that led to one, newest first, by their numbers.
func (s *Store) Trail(ctx context.Context, from int64, most int) (out []int64, err error) {
	rows, err := s.db.QueryContext(ctx, `
		WITH RECURSIVE back (id, n) AS (
			SELECT ?, 1 UNION ALL
			SELECT r.parent, n + 1 FROM revisions r JOIN back b ON r.id = b.id WHERE r.parent IS NOT NULL AND n < ?
		) SELECT id FROM back ORDER BY n`, from, most)
	if err != nil {
		return nil, told(err)
	}
	defer rows.Close()
	for rows.Next() {
		var id int64
		if err := rows.Scan(&id); err != nil {
			return nil, told(err)
		}
		out = append(out, id)
	}
	return out, told(rows.Err())
}

// Empty deletes what is in the bin, for good, and says how many projects went.
func (s *Store) Empty(ctx context.Context) (n int64, err error) {
	err = s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		// The head points into the revisions that go with the project.
		if _, err := tx.ExecContext(ctx, `UPDATE projects SET head = NULL WHERE binned IS NOT NULL`); err != nil {
			return err
		}
		res, err := tx.ExecContext(ctx, `DELETE FROM projects WHERE binned IS NOT NULL`)
		if err != nil {
			return err
		}
		n, err = res.RowsAffected()
		return err
	})
	return n, err
}

// Bin puts a project in the bin. One that is there already stays there.
func (s *Store) Bin(ctx context.Context, project string) error {
	return s.one(ctx, `UPDATE projects SET binned = coalesce(binned, ?) WHERE id = ?`, now(), project)
}

// Restore takes a project out of the bin.
func (s *Store) Restore(ctx context.Context, project string) error {
	return s.one(ctx, `UPDATE projects SET binned = NULL WHERE id = ?`, project)
}

// one changes a row that must be there.
func (s *Store) one(ctx context.Context, query string, args ...any) error {
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		res, err := tx.ExecContext(ctx, query, args...)
		if err != nil {
			return err
		}
		if n, err := res.RowsAffected(); err != nil || n == 0 {
			return errors.Join(err, ErrNone)
		}
		return nil
	})
}

// Say is what to tell of a trouble with the database file.
func Say(err error) (text string, ok bool) {
	t := new(Trouble)
	if errors.As(err, &t) {
		return t.Text, true
	}
	return "", false
}

// Trouble is something wrong with the database file: what, and what to do.
type Trouble struct {
	Text string
	Err  error
}

func (t *Trouble) Error() string { return fmt.Sprintf("%s (%v)", t.Text, t.Err) }
func (t *Trouble) Unwrap() error { return t.Err }
