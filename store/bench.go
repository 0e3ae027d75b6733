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

// Ticking is the part of an act that says of a step that so many copies more are done, or fewer, out of so many: two
// windows that each say “one more” make two. What was done of a step that said something else is not counted. The first
// of a box begins a making of it.
func Ticking(project string, t Tick, more, of int, took Took) Write {
	return func(ctx context.Context, tx *sql.Tx) error {
		if err := there(ctx, tx, project); err != nil {
			return err
		}
		making, err := ask[string](ctx, tx, `SELECT making FROM bench WHERE project = ? LIMIT 1`, project)
		if errors.Is(err, ErrNone) {
			making, err = NewID(), nil
		}
		if err != nil {
			return err
		}
		at := now()
		if _, err := tx.ExecContext(ctx, `INSERT INTO bench (project, step, print, done, making, at)
			VALUES (?1, ?2, ?3, max(0, min(?4, ?5)), ?6, ?7) ON CONFLICT DO UPDATE SET
			done = max(0, min(?4 + CASE WHEN print = ?3 THEN done ELSE 0 END, ?5)), print = ?3, at = ?7`,
			project, t.Step, t.Print, more, of, making, at); err != nil || took.Seconds <= 0 {
			return err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO bench_times (making, step, title, seconds, minutes, at) VALUES (?, ?, ?, ?, ?, ?)
			ON CONFLICT DO UPDATE SET seconds = bench_times.seconds + excluded.seconds, at = excluded.at`,
			making, t.Step, took.Title, took.Seconds, took.Minutes, at)
		return err
	}
}

// Ticks gives what is done of a box, by its steps, and how many seconds that took.
func (s *Logbook) Ticks(ctx context.Context, project string) (map[string]Tick, float64, error) {
	out, seconds := map[string]Tick{}, 0.0
	err := each(ctx, s.db, func(r row) (t ticked, err error) {
		var at string
		err = r.Scan(&t.Step, &t.Print, &t.Done, &at, &t.seconds)
		t.At = when(at)
		return t, err
	}, func(t ticked) error { out[t.Step], seconds = t.Tick, seconds+t.seconds; return nil },
		`SELECT b.step, b.print, b.done, b.at, coalesce(t.seconds, 0) FROM bench b
		LEFT JOIN bench_times t ON t.making = b.making AND t.step = b.step WHERE b.project = ?`, project)
	return out, seconds, err
}

// ticked is a tick with how long its step took.
type ticked struct {
	Tick
	seconds float64
}

// BeginningAgain is the part of an act that forgets what is done of a box, for another making of it. What was recorded
// of the time stays.
func BeginningAgain(project string) Write {
	return func(ctx context.Context, tx *sql.Tx) error {
		if err := there(ctx, tx, project); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM timers WHERE project = ?`, project); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `DELETE FROM bench WHERE project = ?`, project)
		return err
	}
}

// Timer is a wait of a step that has begun.
type Timer struct {
	Step, What string
	Ends       time.Time
}

// rungOut is how long a timer is still shown after its end.
const rungOut = 10 * time.Minute

// mostTimers bounds how many run at one box.
const mostTimers = 50

// Timing is the part of an act that starts a timer at a box's bench, or stops it when t.Ends is zero.
func Timing(project string, t Timer) Write {
	return func(ctx context.Context, tx *sql.Tx) error {
		if err := there(ctx, tx, project); err != nil {
			return err
		}
		over := time.Now().Add(-rungOut).UTC().Format(clock)
		if _, err := tx.ExecContext(ctx, `DELETE FROM timers WHERE project = ?1 AND (ends < ?2 OR step = ?3 AND what = ?4)`,
			project, over, t.Step, t.What); err != nil || t.Ends.IsZero() {
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO timers (project, step, what, ends) SELECT ?1, ?2, ?3, ?4
			WHERE (SELECT count(*) FROM timers WHERE project = ?1) < ?5`,
			project, t.Step, t.What, t.Ends.UTC().Format(clock), mostTimers)
		return err
	}
}

// Timers lists what runs at a box's bench, by steps.
func (s *Logbook) Timers(ctx context.Context, project string) ([]Timer, error) {
	return all(ctx, s.db, func(r row) (t Timer, err error) {
		var ends string
		err = r.Scan(&t.Step, &t.What, &ends)
		t.Ends = when(ends)
		return t, err
	}, `SELECT step, what, ends FROM timers WHERE project = ? AND ends > ? ORDER BY step, what`, project,
		time.Now().Add(-rungOut).UTC().Format(clock))
}

// Times gives what was recorded of all makings, by the titles of the steps. A step at which
// someone was called away, or that was skipped through, counts at the most six times, at the
// least a sixth of what it was reckoned at.
func (s *Logbook) Times(ctx context.Context) ([]bench.Taken, error) {
	return all(ctx, s.db, func(r row) (t bench.Taken, err error) {
		err = r.Scan(&t.Title, &t.Seconds, &t.Minutes)
		return t, err
	}, `SELECT title, sum(min(max(seconds, minutes * 10), minutes * 360)), sum(minutes)
		FROM bench_times WHERE minutes > 0 GROUP BY title ORDER BY title`)
}
