package store

import (
	"context"
	"database/sql"
	"errors"
	"sync"
)

// together is how many changes share a commit at the most.
const together = 64

// change is a piece of writing that waits for its commit, or what is done while nothing is written.
type change struct {
	ctx   context.Context
	do    func(context.Context, *sql.Tx) error
	alone func(context.Context) error
	kept  chan error
}

// database is the open file, and the one writer to it.
type database struct {
	db      *sql.DB
	changes chan *change
	closing chan struct{} // closed when no more is taken in
	close   sync.Once
	written chan struct{} // closed when the last commit is done
}

// within does a piece of writing in a transaction and comes back when it is on
// the disk, or did not happen.
func (s *database) within(ctx context.Context, do func(context.Context, *sql.Tx) error) error {
	return s.wait(&change{ctx: ctx, do: do})
}

// alone does something while nothing is written: what is to be written waits until it is done.
func (s *database) alone(ctx context.Context, do func(context.Context) error) error {
	return s.wait(&change{ctx: ctx, alone: do})
}

func (s *database) wait(c *change) error {
	c.kept = make(chan error, 1)
	select {
	case s.changes <- c:
		return told(<-c.kept)
	case <-s.closing:
		return &Trouble{"Brevium is stopping. This was not saved. Start Brevium again and repeat what you did.", sql.ErrConnDone}
	case <-c.ctx.Done():
		return c.ctx.Err()
	}
}

// write makes the changes that come, those that come while a commit is under
// way together in the next.
func (s *database) write() {
	defer close(s.written)
	for {
		var batch []*change
		var alone *change
		take := func(c *change) {
			if c.alone != nil {
				alone = c
			} else {
				batch = append(batch, c)
			}
		}
		select {
		case c := <-s.changes:
			take(c)
		case <-s.closing:
			return
		}
		for more := true; more && alone == nil && len(batch) < together; {
			select {
			case c := <-s.changes:
				take(c)
			default:
				more = false
			}
		}
		if len(batch) > 0 {
			for i, err := range s.commit(batch) {
				batch[i].kept <- err
			}
		}
		if alone != nil {
			alone.kept <- alone.alone(alone.ctx)
		}
	}
}

// commit makes a batch of changes in one transaction. One that fails is taken
// back by itself; when the commit fails, all have failed.
func (s *database) commit(batch []*change) []error {
	fates := make([]error, len(batch))
	// Whoever asked may be gone before the others' commit: a change that has
	// begun is made.
	ctx := context.WithoutCancel(batch[0].ctx)
	all := func(err error) []error {
		for i := range fates {
			fates[i] = errors.Join(err, fates[i])
		}
		return fates
	}
	tx, err := s.db.BeginTx(ctx, nil)
	if err != nil {
		return all(err)
	}
	some := false
	for i, c := range batch {
		if fates[i] = c.ctx.Err(); fates[i] != nil {
			continue
		}
		if fates[i] = s.try(ctx, tx, c); fates[i] == nil {
			some = true
		} else if lost := new(rolledBack); errors.As(fates[i], &lost) {
			tx.Rollback()
			return all(lost.err)
		}
	}
	if !some {
		tx.Rollback()
		return fates
	}
	if err := tx.Commit(); err != nil {
		tx.Rollback()
		return all(err)
	}
	return fates
}

// rolledBack says that the whole transaction is gone, as after a full disk.
type rolledBack struct{ err error }

func (r *rolledBack) Error() string { return r.err.Error() }
func (r *rolledBack) Unwrap() error { return r.err }

func (s *database) try(ctx context.Context, tx *sql.Tx, c *change) error {
	if _, err := tx.ExecContext(ctx, `SAVEPOINT one`); err != nil {
		return &rolledBack{err}
	}
	fate := c.do(context.WithoutCancel(c.ctx), tx)
	if fate != nil {
		if _, err := tx.ExecContext(ctx, `ROLLBACK TO one`); err != nil {
			return &rolledBack{fate}
		}
	}
	if _, err := tx.ExecContext(ctx, `RELEASE one`); err != nil {
		return &rolledBack{errors.Join(fate, err)}
	}
	return fate
}
