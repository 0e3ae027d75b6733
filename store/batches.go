package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"time"

	"brevium/core/batch"
)

// Batch is many boxes by a date, as it was last changed.
type Batch struct {
	ID       string
	Document batch.Document
	Revision int64
	Changed  time.Time
	Gone     bool
}

// NewBatch keeps a new batch.
func (s *Store) NewBatch(ctx context.Context, d batch.Document) (string, error) {
	data, err := json.Marshal(d)
	if err != nil {
		return "", err
	}
	id := NewID()
	return id, s.one(ctx, `INSERT INTO batches (id, document, revision, changed) VALUES (?, ?, 1, ?)`, id, string(data), now())
}

// KeepBatch keeps a change of a batch that was made on its revision; ErrMoved when another window
// has changed it since.
func (s *Store) KeepBatch(ctx context.Context, id string, on int64, d batch.Document) error {
	data, err := json.Marshal(d)
	if err != nil {
		return err
	}
	if len(data) > batch.Limit {
		return &Refused{errors.New("this batch is too large; make two of it")}
	}
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		was, err := scanBatch(tx.QueryRowContext(ctx, selectBatch+`WHERE id = ?`, id))
		if errors.Is(err, sql.ErrNoRows) {
			return ErrNone
		}
		if err == nil && was.Revision != on {
			return ErrMoved
		}
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO batch_past (batch, revision, document) SELECT id, revision, document FROM batches
			WHERE id = ?`, id); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM batch_past WHERE batch = ? AND revision <= ?`, id,
			on-mostPast); err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `UPDATE batches SET document = ?, revision = revision + 1, changed = ? WHERE id = ?`,
			string(data), now(), id)
		return err
	})
}

// mostPast is how many changes of a batch can be taken back.
const mostPast = 50

// UndoBatch takes the last change of a batch back and reports whether there was one. What is ticked
// stays.
func (s *Store) UndoBatch(ctx context.Context, id string) (undone bool, err error) {
	err = s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		var revision int64
		err := tx.QueryRowContext(ctx, `SELECT revision FROM batch_past WHERE batch = ? ORDER BY revision DESC LIMIT 1`,
			id).Scan(&revision)
		if errors.Is(err, sql.ErrNoRows) {
			return nil
		}
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `UPDATE batches SET document = (SELECT document FROM batch_past WHERE batch = ? AND revision = ?),
			revision = revision + 1, changed = ? WHERE id = ?`, id, revision, now(), id); err != nil {
			return err
		}
		undone = true
		_, err = tx.ExecContext(ctx, `DELETE FROM batch_past WHERE batch = ? AND revision = ?`, id, revision)
		return err
	})
	return undone, err
}

// CanUndoBatch reports whether a change of a batch can be taken back.
func (s *Store) CanUndoBatch(ctx context.Context, id string) (can bool, err error) {
	err = s.db.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM batch_past WHERE batch = ?)`, id).Scan(&can)
	return can, told(err)
}

// ThrowBatch throws a batch away, or puts it back.
func (s *Store) ThrowBatch(ctx context.Context, id string, gone bool) error {
	return s.one(ctx, `UPDATE batches SET gone = ? WHERE id = ?`, gone, id)
}

const selectBatch = `SELECT id, document, revision, changed, gone FROM batches `

// Batch finds a batch; ErrNone when there is none.
func (s *Store) Batch(ctx context.Context, id string) (Batch, error) {
	b, err := scanBatch(s.db.QueryRowContext(ctx, selectBatch+`WHERE id = ?`, id))
	if errors.Is(err, sql.ErrNoRows) {
		return b, ErrNone
	}
	return b, told(err)
}

// Batches gives the batches that were changed last.
func (s *Store) Batches(ctx context.Context, most int) (out []Batch, err error) {
	rows, err := s.db.QueryContext(ctx, selectBatch+`WHERE gone = 0 ORDER BY changed DESC, id LIMIT ?`, most)
	if err != nil {
		return nil, told(err)
	}
	defer rows.Close()
	for rows.Next() {
		b, err := scanBatch(rows)
		if err != nil {
			continue // one that can't be read keeps no other from being shown
		}
		out = append(out, b)
	}
	return out, told(rows.Err())
}

func scanBatch(r row) (b Batch, err error) {
	var data, changed string
	if err := r.Scan(&b.ID, &data, &b.Revision, &changed, &b.Gone); err != nil {
		return b, err
	}
	b.Changed, _ = time.Parse(clock, changed)
	return b, json.Unmarshal([]byte(data), &b.Document)
}

// BatchTick is how many of an order are done with a stage.
type BatchTick struct {
	Order, Stage string
	Done         int
}

// TickBatch keeps what is done of a batch, all that is ticked at once or none of it.
func (s *Store) TickBatch(ctx context.Context, id string, ticks ...BatchTick) error {
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		var n int
		if err := tx.QueryRowContext(ctx, `SELECT count(*) FROM batches WHERE id = ?`, id).Scan(&n); err != nil || n == 0 {
			return errors.Join(err, ErrNone)
		}
		for _, t := range ticks {
			if _, err := tx.ExecContext(ctx, `INSERT INTO batch_ticks (batch, ordered, stage, done, at, who) VALUES (?, ?, ?, ?, ?, ?)
				ON CONFLICT DO UPDATE SET done = excluded.done, at = excluded.at, who = excluded.who`, id, t.Order, t.Stage, t.Done, now(),
				Who(ctx)); err != nil {
				return err
			}
		}
		return nil
	})
}

// BatchTicks gives what is done of a batch.
func (s *Store) BatchTicks(ctx context.Context, id string) (batch.Progress, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT ordered, stage, done FROM batch_ticks WHERE batch = ?`, id)
	if err != nil {
		return nil, told(err)
	}
	defer rows.Close()
	out := batch.Progress{}
	for rows.Next() {
		var order, stage string
		var done int
		if err := rows.Scan(&order, &stage, &done); err != nil {
			return nil, told(err)
		}
		out[[2]string{order, stage}] = done
	}
	return out, told(rows.Err())
}
