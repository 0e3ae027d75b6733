package store

import (
	"context"
	"database/sql"
	"errors"
	"time"
)

// Arrival is what came in at once: from a file, or as samples.
type Arrival struct {
	ID, Kind, What string
	At             time.Time
	Docs           int // that are still here
	Changed        int // of them: they are the maker's own by now
}

// Samples is the kind of an arrival that holds made-up boxes to look round with.
const Samples = "samples"

type arrivalKey struct{}

// Arrive does what brings documents in, and notes which: so they can be taken back together.
func (s *Store) Arrive(ctx context.Context, kind, what string, do func(context.Context) error) error {
	id := NewID()
	if err := s.exec(ctx, `INSERT INTO arrivals (id, kind, what, at) VALUES (?, ?, ?, ?)`, id, kind, what, now()); err != nil {
		return err
	}
	err := do(context.WithValue(ctx, arrivalKey{}, id))
	after := context.WithoutCancel(ctx)
	return errors.Join(err, s.within(after, func(ctx context.Context, tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `UPDATE arrival_docs SET head = (SELECT head FROM documents WHERE id = doc)
			WHERE arrival = ?`, id); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `DELETE FROM arrivals WHERE id = ?1
			AND NOT EXISTS (SELECT 1 FROM arrival_docs WHERE arrival = ?1)`, id)
		return err
	}))
}

// arriving notes a document that comes in with others.
func arriving(ctx context.Context, tx *sql.Tx, doc string) error {
	id, ok := ctx.Value(arrivalKey{}).(string)
	if !ok || doc == TheShop { // which is hers, whatever first came into it
		return nil
	}
	_, err := tx.ExecContext(ctx, `INSERT INTO arrival_docs (arrival, doc) VALUES (?, ?)`, id, doc)
	return err
}

// Arrivals lists what came in and is still here, the newest first.
func (s *Store) Arrivals(ctx context.Context) ([]Arrival, error) {
	return all(ctx, s.db, func(r row) (a Arrival, err error) {
		var at string
		err = r.Scan(&a.ID, &a.Kind, &a.What, &at, &a.Docs, &a.Changed)
		a.At = when(at)
		return a, err
	}, `SELECT a.id, a.kind, a.what, a.at, count(*), sum(d.head IS NOT x.head) FROM arrivals a
		JOIN arrival_docs x ON x.arrival = a.id JOIN documents d ON d.id = x.doc
		WHERE d.binned IS NULL GROUP BY a.id ORDER BY a.at DESC, a.id`)
}

// TakeBack takes back what came in at once and was not changed since: boxes go into the bin, samples for good. What was
// changed is the maker's own, and stays.
func (s *Store) TakeBack(ctx context.Context, id string) (gone, stay int, err error) {
	kind, err := ask[string](ctx, s.db, `SELECT kind FROM arrivals WHERE id = ?`, id)
	if err != nil {
		return 0, 0, err
	}
	err = s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		docs, err := all(ctx, tx, func(r row) (d [3]string, err error) {
			err = r.Scan(&d[0], &d[1], &d[2])
			return d, err
		}, `SELECT d.id, d.kind, CASE WHEN d.head IS x.head THEN '' ELSE 'changed' END FROM arrival_docs x
			JOIN documents d ON d.id = x.doc WHERE x.arrival = ? AND d.binned IS NULL`, id)
		if err != nil {
			return err
		}
		for _, d := range docs {
			if d[2] != "" {
				stay++
				continue
			}
			if err := s.takeBack(ctx, tx, d[0], d[1], kind == Samples); err != nil {
				return err
			}
			gone++
		}
		_, err = tx.ExecContext(ctx, `DELETE FROM arrivals WHERE id = ?`, id)
		return err
	})
	return gone, stay, err
}

// takeBack throws one document away; for good, if it is a box and nobody's own.
func (s *Store) takeBack(ctx context.Context, tx *sql.Tx, doc, kind string, forGood bool) error {
	if _, err := tx.ExecContext(ctx, `UPDATE documents SET binned = ? WHERE id = ?`, now(), doc); err != nil {
		return err
	}
	switch {
	case kind == "making":
		return binMaking(ctx, tx, doc, true)
	case forGood && kind == "box":
		return deleteBinned(ctx, tx, ` AND id = ?`, doc)
	}
	return nil
}

// deleteBinned deletes boxes in the bin for good.
func deleteBinned(ctx context.Context, tx *sql.Tx, which string, args ...any) error {
	binned := ` WHERE kind = 'box' AND binned IS NOT NULL` + which
	// The head points into the revisions that go with the box.
	if _, err := tx.ExecContext(ctx, `UPDATE documents SET head = NULL`+binned, args...); err != nil {
		return err
	}
	_, err := tx.ExecContext(ctx, `DELETE FROM documents`+binned, args...)
	return err
}
