package store

import (
	"context"
	"database/sql"
	"errors"
	"time"
)

const clock = "2006-01-02T15:04:05.000Z"

// now is written so that texts sort as times do.
func now() string { return time.Now().UTC().Format(clock) }

// when reads what now wrote. A time that can't be read keeps nothing from being shown.
func when(text string) time.Time {
	at, _ := time.Parse(clock, text)
	return at
}

type row interface{ Scan(...any) error }

// asker is a database, or a transaction in it.
type asker interface {
	QueryRowContext(context.Context, string, ...any) *sql.Row
	QueryContext(context.Context, string, ...any) (*sql.Rows, error)
}

// scanned reads a row of one value.
func scanned[T any](r row) (v T, err error) {
	err = r.Scan(&v)
	return v, err
}

// ask gives the one value that a query has; ErrNone when it has none.
func ask[T any](ctx context.Context, q asker, query string, args ...any) (v T, err error) {
	err = q.QueryRowContext(ctx, query, args...).Scan(&v)
	if errors.Is(err, sql.ErrNoRows) {
		return v, ErrNone
	}
	return v, told(err)
}

// each reads the rows of a query one by one.
func each[T any](ctx context.Context, q asker, read func(row) (T, error), do func(T) error, query string, args ...any) error {
	rows, err := q.QueryContext(ctx, query, args...)
	if err != nil {
		return told(err)
	}
	defer rows.Close()
	for rows.Next() {
		v, err := read(rows)
		if err == nil {
			err = do(v)
		}
		if err != nil {
			return told(err)
		}
	}
	return told(rows.Err())
}

// all reads the rows of a query.
func all[T any](ctx context.Context, q asker, read func(row) (T, error), query string, args ...any) (out []T, err error) {
	err = each(ctx, q, read, func(v T) error { out = append(out, v); return nil }, query, args...)
	return out, err
}

// exec does one thing in a transaction of its own.
func (s *database) exec(ctx context.Context, query string, args ...any) error {
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		_, err := tx.ExecContext(ctx, query, args...)
		return err
	})
}

// one changes a row that must be there.
func (s *database) one(ctx context.Context, query string, args ...any) error {
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error { return changed(tx.ExecContext(ctx, query, args...)) })
}

// changed gives ErrNone where no row was.
func changed(res sql.Result, err error) error {
	if err != nil {
		return err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, ErrNone)
	}
	return nil
}

// there says ErrNone when a document is not.
func there(ctx context.Context, tx *sql.Tx, id string) error {
	_, err := ask[int](ctx, tx, `SELECT 1 FROM documents WHERE id = ?`, id)
	return err
}
