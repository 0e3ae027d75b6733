package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"time"

	"brevium/core/cutlist"
)

// CutList is a list of pieces to be cut, as it was last changed.
type CutList struct {
	ID       string
	List     cutlist.List
	Revision int64
	Changed  time.Time
	Gone     bool // thrown away; it can be put back
}

// NewCutList keeps a new list.
func (s *Store) NewCutList(ctx context.Context, l cutlist.List) (string, error) {
	data, err := json.Marshal(l)
	if err != nil {
		return "", err
	}
	id := NewID()
	return id, s.one(ctx, `INSERT INTO cutlists (id, document, revision, changed) VALUES (?, ?, 1, ?)`, id, string(data), now())
}

// KeepCutList keeps a change of a list that was made on its revision; ErrMoved when
// another window has changed it since.
func (s *Store) KeepCutList(ctx context.Context, id string, on int64, l cutlist.List) error {
	data, err := json.Marshal(l)
	if err != nil {
		return err
	}
	err = s.one(ctx, `UPDATE cutlists SET document = ?, revision = revision + 1, changed = ? WHERE id = ? AND revision = ?`,
		string(data), now(), id, on)
	if errors.Is(err, ErrNone) {
		if _, err := s.CutList(ctx, id); err != nil {
			return err
		}
		return ErrMoved
	}
	return err
}

// ThrowCutList throws a list away, or puts it back.
func (s *Store) ThrowCutList(ctx context.Context, id string, gone bool) error {
	return s.one(ctx, `UPDATE cutlists SET gone = ? WHERE id = ?`, gone, id)
}

const selectCutList = `SELECT id, document, revision, changed, gone FROM cutlists `

// CutList finds a list; ErrNone when there is none.
func (s *Store) CutList(ctx context.Context, id string) (CutList, error) {
	l, err := scanCutList(s.db.QueryRowContext(ctx, selectCutList+`WHERE id = ?`, id))
	if errors.Is(err, sql.ErrNoRows) {
		return l, ErrNone
	}
	return l, told(err)
}

// CutLists gives the lists that were changed last.
func (s *Store) CutLists(ctx context.Context, most int) (out []CutList, err error) {
	rows, err := s.db.QueryContext(ctx, selectCutList+`WHERE gone = 0 ORDER BY changed DESC, id LIMIT ?`, most)
	if err != nil {
		return nil, told(err)
	}
	defer rows.Close()
	for rows.Next() {
		l, err := scanCutList(rows)
		if err != nil {
			continue // one that can't be read keeps no other from being shown
		}
		out = append(out, l)
	}
	return out, told(rows.Err())
}

func scanCutList(row interface{ Scan(...any) error }) (l CutList, err error) {
	var data, changed string
	if err := row.Scan(&l.ID, &data, &l.Revision, &changed, &l.Gone); err != nil {
		return l, err
	}
	l.Changed, _ = time.Parse(clock, changed)
	return l, json.Unmarshal([]byte(data), &l.List)
}
