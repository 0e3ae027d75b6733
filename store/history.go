package store

import (
	"context"
	"database/sql"
	"errors"
	"strings"
)

// Mover is who takes a change back or brings it back again: the name of the act, the window that does it, and the
// newest state that window was opened with. Any says that another's change may be taken back too.
type Mover struct {
	Act, Window string
	Since       int64
	Any         bool
}

// Foreign says that the newest change is another's: it was made by someone else, or in another window since this one
// was opened. What is that change in words, Who made it where several do.
type Foreign struct{ What, Who string }

func (f *Foreign) Error() string { return "the newest change was made elsewhere: " + f.What }

// own reports whether a change is the mover's own.
func own[D any](ctx context.Context, r Revision[D], m Mover) bool {
	if who := Who(ctx); who != "" && r.Who != "" && who != r.Who {
		return false
	}
	return r.ID <= m.Since || m.Window != "" && strings.HasPrefix(r.Burst, m.Window+":")
}

// Undo moves a document back over its last burst of changes, and over states that can't be read, and tells what it
// took back, "" when there was nothing. Redo can bring it back. It gives a Foreign, and does nothing, when the newest
// change is another's.
func (k *Kept[D]) Undo(ctx context.Context, id string, m Mover) (what string, err error) {
	err = k.move(ctx, id, m.Act, func(ctx context.Context, tx *sql.Tx, head Revision[D], unread bool) (*Revision[D], error) {
		if head.Parent != 0 && !m.Any && !unread && !own(ctx, head, m) {
			return nil, &Foreign{head.What, head.Who}
		}
		burst, to, back := head.Burst, head, (*Revision[D])(nil)
		for to.Parent != 0 {
			next, err := k.revision(ctx, tx, to.Parent)
			if err != nil && !isBroken(err) {
				return nil, err
			}
			to = next
			if isBroken(err) {
				continue
			}
			if back = &to; burst == "" || to.Burst != burst {
				break
			}
		}
		if back != nil {
			what = head.What
			at := *back
			return &at, nil
		}
		return nil, nil // nothing before it can be read
	})
	return what, err
}

// Redo moves a document forward again along the newest changes, to the end of a burst, and tells what it brought back,
// "" when there was nothing.
func (k *Kept[D]) Redo(ctx context.Context, id string, m Mover) (what string, err error) {
	err = k.move(ctx, id, m.Act, func(ctx context.Context, tx *sql.Tx, head Revision[D], unread bool) (on *Revision[D], err error) {
		for !unread {
			next, err := k.next(ctx, tx, head.ID)
			if errors.Is(err, ErrNone) || isBroken(err) || err == nil && on != nil && (next.Burst == "" || next.Burst != head.Burst) {
				break
			}
			if err != nil {
				return nil, err
			}
			head, on, what = next, &next, next.What
		}
		return on, nil
	})
	return what, err
}

// move sets the head to where to says, if anywhere.
func (k *Kept[D]) move(ctx context.Context, id, act string,
	to func(ctx context.Context, tx *sql.Tx, head Revision[D], unread bool) (*Revision[D], error)) error {
	return k.s.Do(ctx, act, func(ctx context.Context, tx *sql.Tx) error {
		head, err := k.head(ctx, tx, id)
		if err != nil && !isBroken(err) {
			return err
		}
		next, err := to(ctx, tx, head.Revision, isBroken(err))
		if err != nil || next == nil {
			return err
		}
		return k.setHead(ctx, tx, *next)
	})
}

// Next gives the change that was taken back from a state and can be brought back; ErrNone when there is none.
func (k *Kept[D]) Next(ctx context.Context, of int64) (Revision[D], error) {
	r, err := k.next(ctx, k.s.db, of)
	if isBroken(err) {
		err = ErrNone
	}
	return r, told(err)
}

func (k *Kept[D]) next(ctx context.Context, q asker, of int64) (Revision[D], error) {
	return k.scan(ctx, q, q.QueryRowContext(ctx, selectRevision+` FROM revisions r WHERE r.parent = ? ORDER BY r.id DESC LIMIT 1`, of))
}

func (k *Kept[D]) revision(ctx context.Context, q asker, id int64) (Revision[D], error) {
	return k.scan(ctx, q, q.QueryRowContext(ctx, selectRevision+` FROM revisions r WHERE r.id = ?`, id))
}

// backFrom walks the tree from a revision towards its root, so far.
const backFrom = `WITH RECURSIVE back (id, n) AS (SELECT ?, 1 UNION ALL
	SELECT r.parent, n + 1 FROM revisions r JOIN back b ON r.id = b.id WHERE r.parent IS NOT NULL AND n < ?) `

// Trail gives the revisions that led to one, newest first, by their numbers.
func (s *Store) Trail(ctx context.Context, from int64, most int) ([]int64, error) {
	return all(ctx, s.db, scanned[int64], backFrom+`SELECT id FROM back ORDER BY n`, from, most)
}

// History gives the states that led to a revision and can be read, newest first.
func (k *Kept[D]) History(ctx context.Context, id string, from int64, most int) (out []Revision[D], err error) {
	return k.readable(ctx, backFrom+selectRevision+` FROM revisions r JOIN back b ON b.id = r.id WHERE r.doc = ? ORDER BY b.n`,
		from, most, id)
}

// readable gives the revisions of an answer that can be read.
func (k *Kept[D]) readable(ctx context.Context, query string, args ...any) ([]Revision[D], error) {
	type read struct {
		Revision[D]
		broken bool
	}
	got, err := all(ctx, k.s.db, func(r row) (one read, err error) {
		one.Revision, err = k.scan(ctx, k.s.db, r)
		if one.broken = isBroken(err); one.broken {
			err = nil
		}
		return one, err
	}, query, args...)
	var out []Revision[D]
	for _, one := range got {
		if !one.broken {
			out = append(out, one.Revision)
		}
	}
	return out, err
}
