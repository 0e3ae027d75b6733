package store

import (
	"context"
	"database/sql"
	"errors"
)

// Undo moves a project back over its last burst of changes, and over states
// that can't be read and reports whether there was one. Redo can bring it back.
// The change has a name, as Change has.
func (s *Store) Undo(ctx context.Context, project, change string) (moved bool, err error) {
	err = s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		if err := arrive(ctx, tx, change); err != nil {
			return err
		}
		head, err := headOf(ctx, tx, project)
		unread := isBroken(err)
		if err != nil && !unread {
			return err
		}
		burst, to := head.Burst, head
		for to.Parent != 0 {
			next, err := revision(ctx, tx, to.Parent)
			if err != nil && !isBroken(err) {
				return err
			}
			to = next
			if isBroken(err) {
				continue
			}
			head, moved, unread = to, true, false
			if burst == "" || head.Burst != burst {
				break
			}
		}
		if unread || !moved {
			return nil // nothing before it can be read
		}
		return setHead(ctx, tx, head)
	})
	return moved, err
}

// Redo moves a project forward again along the newest changes, to the end of
// a burst and reports whether there was one.
func (s *Store) Redo(ctx context.Context, project, change string) (moved bool, err error) {
	err = s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		if err := arrive(ctx, tx, change); err != nil {
			return err
		}
		head, err := headOf(ctx, tx, project)
		if err != nil {
			return err
		}
		for {
			next, err := child(ctx, tx, head.ID)
			if errors.Is(err, ErrNone) || isBroken(err) || err == nil && moved && (next.Burst == "" || next.Burst != head.Burst) {
				break
			}
			if err != nil {
				return err
			}
			head, moved = next, true
		}
		if !moved {
			return nil
		}
		return setHead(ctx, tx, head)
	})
	return moved, err
}

// CanRedo reports whether a change was undone that can be brought back.
func (s *Store) CanRedo(ctx context.Context, head int64) (bool, error) {
	_, err := child(ctx, s.db, head)
	if errors.Is(err, ErrNone) || isBroken(err) {
		return false, nil
	}
	return err == nil, told(err)
}

func isBroken(err error) bool {
	broken := new(Broken)
	return errors.As(err, &broken)
}

func revision(ctx context.Context, q asker, id int64) (Revision, error) {
	return scan(q.QueryRowContext(ctx, selectRevision+`WHERE r.id = ?`, id))
}

func child(ctx context.Context, q asker, of int64) (Revision, error) {
	return scan(q.QueryRowContext(ctx, selectRevision+`WHERE r.parent = ? ORDER BY r.id DESC LIMIT 1`, of))
}
