package store

import (
	"context"
	"database/sql"
	"errors"
	"time"

	"brevium/core/bench"
)

// Tick is a step of a box that is done, of so many copies. Print tells what the step said
// then.
type Tick struct {
	Step, Print string
	Done        int
	At          time.Time
}

// Took is how long a step took, and what it was reckoned at; nothing is recorded where
// Seconds is 0.
type Took struct {
	Title            string
	Seconds, Minutes float64
}

// Tick keeps what is done of a step; of 0 copies it is not done any more. The first of a
// box begins a making of it.
func (s *Store) Tick(ctx context.Context, project string, t Tick, took Took) error {
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		if err := there(ctx, tx, project); err != nil {
			return err
		}
		making := ""
		err := tx.QueryRowContext(ctx, `SELECT making FROM bench WHERE project = ? LIMIT 1`, project).Scan(&making)
		if errors.Is(err, sql.ErrNoRows) {
			making, err = NewID(), nil
		}
		if err != nil {
			return err
		}
		at := now()
		if _, err := tx.ExecContext(ctx, `INSERT INTO bench (project, step, print, done, making, at) VALUES (?, ?, ?, ?, ?, ?)
			ON CONFLICT DO UPDATE SET print = excluded.print, done = excluded.done, at = excluded.at`,
			project, t.Step, t.Print, t.Done, making, at); err != nil || took.Seconds <= 0 {
			return err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO bench_times (making, step, title, seconds, minutes, at) VALUES (?, ?, ?, ?, ?, ?)
			ON CONFLICT DO UPDATE SET seconds = bench_times.seconds + excluded.seconds, at = excluded.at`,
			making, t.Step, took.Title, took.Seconds, took.Minutes, at)
		return err
	})
}

// there says ErrNone when a project is not.
func there(ctx context.Context, tx *sql.Tx, project string) error {
	var n int
	if err := tx.QueryRowContext(ctx, `SELECT count(*) FROM projects WHERE id = ?`, project).Scan(&n); err != nil || n == 0 {
		return errors.Join(err, ErrNone)
	}
	return nil
}

// Ticks gives what is done of a box, by its steps, and how many seconds that took.
func (s *Store) Ticks(ctx context.Context, project string) (map[string]Tick, float64, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT b.step, b.print, b.done, b.at, coalesce(t.seconds, 0) FROM bench b
		LEFT JOIN bench_times t ON t.making = b.making AND t.step = b.step WHERE b.project = ?`, project)
	if err != nil {
		return nil, 0, told(err)
	}
	defer rows.Close()
	out, seconds := map[string]Tick{}, 0.0
	for rows.Next() {
		var t Tick
		var at string
		var took float64
		if err := rows.Scan(&t.Step, &t.Print, &t.Done, &at, &took); err != nil {
			return nil, 0, told(err)
		}
		t.At, _ = time.Parse(clock, at)
		out[t.Step], seconds = t, seconds+took
	}
	return out, seconds, told(rows.Err())
}

// BeginAgain forgets what is done of a box, for another making of it. What was recorded of
// the time stays.
func (s *Store) BeginAgain(ctx context.Context, project string) error {
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		if err := there(ctx, tx, project); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `DELETE FROM bench WHERE project = ?`, project)
		return err
	})
}

// Times gives what was recorded of all makings, by the titles of the steps. A step at which
// someone was called away, or that was skipped through, counts at the most six times, at the
// least a sixth of what it was reckoned at.
func (s *Store) Times(ctx context.Context) (out []bench.Taken, err error) {
	rows, err := s.db.QueryContext(ctx, `SELECT title, sum(min(max(seconds, minutes * 10), minutes * 360)), sum(minutes)
		FROM bench_times WHERE minutes > 0 GROUP BY title ORDER BY title`)
	if err != nil {
		return nil, told(err)
	}
	defer rows.Close()
	for rows.Next() {
		var t bench.Taken
		if err := rows.Scan(&t.Title, &t.Seconds, &t.Minutes); err != nil {
			return nil, told(err)
		}
		out = append(out, t)
	}
	return out, told(rows.Err())
}
