package store

import (
	"context"
	"database/sql"
	"errors"
)

// Undo moves a project back over its last burst of changes, and says whether
// there was one. Redo can bring it back.
func (s *Store) Undo(ctx context.Context, project string) (moved bool, err error) {
	err = s.within(ctx, func(tx *sql.Tx) error {
		head, err := headOf(ctx, tx, project)
		if err != nil {
			return err
		}
		burst := head.Burst
		for head.Parent != 0 {
			if head, err = revision(ctx, tx, head.Parent); err != nil {
				return err
			}
			moved = true
			if burst == "" || head.Burst != burst {
				break
			}
		}
		return setHead(ctx, tx, project, head.ID)
	})
	return moved, err
}

// Redo moves a project forward again along the newest changes, to the end of
// a burst, and says whether there was one.
func (s *Store) Redo(ctx context.Context, project string) (moved bool, err error) {
	err = s.within(ctx, func(tx *sql.Tx) error {
		head, err := headOf(ctx, tx, project)
		if err != nil {
			return err
		}
		for {
			next, err := child(ctx, tx, head.ID)
			if errors.Is(err, ErrNone) || err == nil && moved && (next.Burst == "" || next.Burst != head.Burst) {
				break
			}
			if err != nil {
				return err
			}
			head, moved = next, true
		}
		return setHead(ctx, tx, project, head.ID)
	})
	return moved, err
}

// CanRedo says whether a change was undone that can be brought back.
func (s *Store) CanRedo(ctx context.Context, head int64) (bool, error) {
	_, err := child(ctx, s.db, head)
	if errors.Is(err, ErrNone) {
		return false, nil
	}
	return err == nil, err
}

func revision(ctx context.Context, q asker, id int64) (Revision, error) {
	return scan(q.QueryRowContext(ctx, selectRevision+`WHERE r.id = ?`, id))
}

func child(ctx context.Context, q asker, of int64) (Revision, error) {
	return scan(q.QueryRowContext(ctx, selectRevision+`WHERE r.parent = ? ORDER BY r.id DESC LIMIT 1`, of))
}

// Bin puts a project in the bin.
func (s *Store) Bin(ctx context.Context, project string) error {
	return s.one(ctx, `UPDATE projects SET binned = ? WHERE id = ? AND binned IS NULL`, now(), project)
}

// Restore takes a project out of the bin.
func (s *Store) Restore(ctx context.Context, project string) error {
	return s.one(ctx, `UPDATE projects SET binned = NULL WHERE id = ? AND binned IS NOT NULL`, project)
}

// Empty deletes what is in the bin, for good, and says how many projects went.
func (s *Store) Empty(ctx context.Context) (n int64, err error) {
	err = s.within(ctx, func(tx *sql.Tx) error {
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

func (s *Store) one(ctx context.Context, query string, args ...any) error {
	res, err := s.db.ExecContext(ctx, query, args...)
	if err != nil {
		return err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, ErrNone)
	}
	return nil
}
