package store

import (
	"context"
	"database/sql"
	"errors"
	"time"
)

// Begun is the setting that says that the maker was asked how she works, or doesn't need to be.
const Begun = "begun"

// Setting gives a setting of this Brevium; "" when there is none.
func (s *Store) Setting(ctx context.Context, name string) (value string, err error) {
	err = s.db.QueryRowContext(ctx, `SELECT value FROM settings WHERE name = ?`, name).Scan(&value)
	if errors.Is(err, sql.ErrNoRows) {
		return "", nil
	}
	return value, told(err)
}

// Set keeps a setting; "" forgets it.
func (s *Store) Set(ctx context.Context, name, value string) error {
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		if value == "" {
			_, err := tx.ExecContext(ctx, `DELETE FROM settings WHERE name = ?`, name)
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO settings (name, value) VALUES (?, ?)
			ON CONFLICT DO UPDATE SET value = excluded.value`, name, value)
		return err
	})
}

// Sessions keeps who is in, for the package that gives out sessions: by a print of their tokens,
// so that a copy of the database lets nobody in.
type Sessions struct{ *Store }

// FindCtx gives what is kept of a session that has not run out.
func (s Sessions) FindCtx(ctx context.Context, token string) (data []byte, found bool, err error) {
	err = s.db.QueryRowContext(ctx, `SELECT data FROM sessions WHERE token = ? AND expiry > ?`, token,
		time.Now().Unix()).Scan(&data)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, false, nil
	}
	return data, err == nil, told(err)
}

// CommitCtx keeps a session.
func (s Sessions) CommitCtx(ctx context.Context, token string, data []byte, expiry time.Time) error {
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM sessions WHERE expiry <= ?`, time.Now().Unix()); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO sessions (token, data, expiry) VALUES (?, ?, ?)
			ON CONFLICT DO UPDATE SET data = excluded.data, expiry = excluded.expiry`, token, data, expiry.Unix())
		return err
	})
}

// DeleteCtx ends a session.
func (s Sessions) DeleteCtx(ctx context.Context, token string) error {
	return s.exec(ctx, `DELETE FROM sessions WHERE token = ?`, token)
}

// EndAll ends every session: after the passphrase was changed.
func (s *Store) EndAll(ctx context.Context) error {
	return s.exec(ctx, `DELETE FROM sessions`)
}

// Find, Commit and Delete are what sessions are kept by where nobody waits.
func (s Sessions) Find(token string) ([]byte, bool, error) {
	return s.FindCtx(context.Background(), token)
}

// Commit keeps a session.
func (s Sessions) Commit(token string, data []byte, expiry time.Time) error {
	return s.CommitCtx(context.Background(), token, data, expiry)
}

// Delete ends a session.
func (s Sessions) Delete(token string) error { return s.DeleteCtx(context.Background(), token) }
