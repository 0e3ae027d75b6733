package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"time"

	"brevium/core/record"
)

const makingColumns = `m.id, m.key, m.project, m.revision, m.made, m.count, m.box, m.whom, m.contents, m.style, m.card, m.title, m.fit,
	m.gap, m.change, m.notes, m.minutes, m.times, m.sheets, m.cost, m.edits, m.changed, m.who, m.gone IS NOT NULL,
	(SELECT count(*) FROM photos p WHERE p.making = m.id)`

func scanMaking(r row, more ...any) (m record.Making, err error) {
	var times, changed string
	if err = r.Scan(append([]any{&m.ID, &m.Key, &m.Project, &m.Revision, &m.Made, &m.Count, &m.Box, &m.Whom, &m.Contents,
		&m.Style,
		&m.Card, &m.Title, &m.Fit, &m.Gap, &m.Change, &m.Notes, &m.Minutes, &times, &m.Sheets, &m.Cost, &m.Edits, &changed,
		&m.Who,
		&m.Gone, &m.Photos}, more...)...); err != nil {
		return m, err
	}
	m.Changed, _ = time.Parse(clock, changed)
	if times != "" {
		err = json.Unmarshal([]byte(times), &m.Times)
	}
	return m, err
}

// Record keeps makings, all of them or none; one whose key is known already is left out. It gives
// the identities of those that are new.
func (s *Store) Record(ctx context.Context, all ...record.Making) (ids []int64, err error) {
	for i := range all {
		if err := all[i].Check(); err != nil {
			return nil, &Refused{err}
		}
	}
	err = s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		ids = nil
		for i := range all {
			id, err := keepMaking(ctx, tx, all[i])
			if err != nil {
				return err
			}
			if id != 0 {
				ids = append(ids, id)
			}
		}
		return nil
	})
	return ids, err
}

func keepMaking(ctx context.Context, tx *sql.Tx, m record.Making) (id int64, err error) {
	if m.Key == "" {
		m.Key = NewID()
	}
	times := ""
	if len(m.Times) > 0 {
		data, err := json.Marshal(m.Times)
		if err != nil {
			return 0, err
		}
		times = string(data)
	}
	planned := ""
	if len(m.Planned) > 0 {
		data, err := json.Marshal(m.Planned)
		if err != nil {
			return 0, err
		}
		planned = string(data)
	}
	res, err := tx.ExecContext(ctx, `INSERT INTO makings (key, project, revision, document, made, count, box, whom, contents, style, card,
		title, fit, gap, change, notes, minutes, times, sheets, cost, planned, edits, changed, who, found)
		VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 1, ?, ?, 0) ON CONFLICT (key) DO NOTHING`, m.Key, m.Project,
		m.Revision, m.Document, m.Made, m.Count, m.Box, m.Whom, m.Contents, m.Style, m.Card, m.Title, m.Fit, m.Gap, m.Change,
		m.Notes,
		m.Minutes, times, m.Sheets, m.Cost, planned, now(), Who(ctx))
	if err != nil {
		return 0, err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return 0, err
	}
	if id, err = res.LastInsertId(); err != nil {
		return 0, err
	}
	return id, findable(ctx, tx, id, &m)
}

// places is how many makings there are places for on each day of the full text.
const places = 1 << 28

// findable writes what a making is found by; of one that is thrown away nothing.
func findable(ctx context.Context, tx *sql.Tx, id int64, m *record.Making) error {
	if _, err := tx.ExecContext(ctx, `DELETE FROM makings_text WHERE rowid = (SELECT found FROM makings WHERE id = ?)`,
		id); err != nil {
		return err
	}
	if m.Gone {
		return nil
	}
	day, err := time.Parse(time.DateOnly, m.Made)
	if err != nil {
		return &Refused{err}
	}
	found := day.Unix()/(24*3600)*places + id%places
	if _, err := tx.ExecContext(ctx, `INSERT INTO makings_text (rowid, words) VALUES (?, ?)`, found, m.Words()); err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `UPDATE makings SET found = ? WHERE id = ?`, found, id)
	return err
}

// Amend keeps what a making says now; ErrMoved when it was changed since its Edits.
func (s *Store) Amend(ctx context.Context, m record.Making) error {
	if err := m.Check(); err != nil {
		return &Refused{err}
	}
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		was, err := makingOf(ctx, tx, m.ID)
		if err != nil {
			return err
		}
		if was.Edits != m.Edits {
			return ErrMoved
		}
		m.Document = was.Document
		if _, err := tx.ExecContext(ctx, `UPDATE makings SET made = ?, count = ?, box = ?, whom = ?, contents = ?, style = ?, card = ?,
			title = ?, fit = ?, gap = ?, change = ?, notes = ?, minutes = ?, sheets = ?, cost = ?, edits = edits + 1, changed = ?, who = ?
			WHERE id = ?`, m.Made, m.Count, m.Box, m.Whom, m.Contents, m.Style, m.Card, m.Title, m.Fit, m.Gap, m.Change, m.Notes,
			m.Minutes, m.Sheets, m.Cost, now(), Who(ctx), m.ID); err != nil {
			return err
		}
		return findable(ctx, tx, m.ID, &m)
	})
}

// ThrowMaking throws a making away, or puts it back.
func (s *Store) ThrowMaking(ctx context.Context, id int64, gone bool) error {
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		m, err := makingOf(ctx, tx, id)
		if err != nil {
			return err
		}
		at := sql.NullString{String: now(), Valid: gone}
		if _, err := tx.ExecContext(ctx, `UPDATE makings SET gone = ?, edits = edits + 1 WHERE id = ?`, at, id); err != nil {
			return err
		}
		m.Gone = gone
		return findable(ctx, tx, id, &m)
	})
}

func makingOf(ctx context.Context, q asker, id int64) (m record.Making, err error) {
	var document, planned string
	m, err = scanMaking(q.QueryRowContext(ctx, `SELECT `+makingColumns+`, m.document, m.planned FROM makings m WHERE m.id = ?`, id),
		&document, &planned)
	if errors.Is(err, sql.ErrNoRows) {
		return m, ErrNone
	}
	if m.Document = document; planned != "" && err == nil {
		err = json.Unmarshal([]byte(planned), &m.Planned)
	}
	return m, err
}

// Making finds a making with its document, thrown away or not.
func (s *Store) Making(ctx context.Context, id int64) (record.Making, error) {
	m, err := makingOf(ctx, s.db, id)
	return m, told(err)
}

// Look is what is looked for in the logbook. What is empty is not asked for.
type Look struct {
	record.Ask
	Project, Whom, Contents, Style, Card, Fit string
	From, To                                  string // days, both of them in it
}

// from writes what is looked for: where from, and in which order the newest come first.
func (l Look) from() (text, order string, args []any) {
	text, order = ` FROM makings m WHERE m.gone IS NULL`, ` ORDER BY m.made DESC, m.id DESC`
	and := func(cond string, of ...any) { text, args = text+" AND "+cond, append(args, of...) }
	if match := l.Match(); match != "" {
		text, order = fmt.Sprintf(` FROM makings_text CROSS JOIN makings m ON m.id = makings_text.rowid %% %d
			WHERE makings_text MATCH ?`, places), ` ORDER BY makings_text.rowid DESC`
		args = append(args, match)
	}
	for _, is := range []struct{ column, text string }{{"project", l.Project}, {"style", l.Style}, {"card", l.Card}} {
		if is.text != "" {
			and(`m.`+is.column+` = ?`, is.text)
		}
	}
	for _, fit := range []string{l.Fit, l.Ask.Fit} {
		if fit != "" {
			and(`m.fit = ?`, fit)
		}
	}
	for _, has := range []struct{ column, text string }{{"whom", l.Whom}, {"contents", l.Contents}} {
		if text := strings.TrimSpace(has.text); text != "" {
			and(`m.`+has.column+` LIKE ? ESCAPE '\'`, "%"+literal.Replace(text)+"%")
		}
	}
	for _, from := range []string{l.From, l.Since} {
		if from != "" {
			and(`m.made >= ?`, from)
		}
	}
	for _, to := range []string{l.To, l.Until} {
		if to != "" {
			and(`m.made <= ?`, to)
		}
	}
	return text, order, args
}

// PerLog is how many makings a page of the logbook holds, and MostLog how many are counted.
const (
	PerLog  = 50
	MostLog = 1000
)

// Makings gives a page (from 0) of the makings that are looked for, the newest first, and how many
// there are on all: MostLog + 1 where there are more.
func (s *Store) Makings(ctx context.Context, l Look, page int) (out []record.Making, all int, err error) {
	from, order, args := l.from()
	if err := s.db.QueryRowContext(ctx, fmt.Sprintf(`SELECT count(*) FROM (SELECT 1%s LIMIT %d)`, from, MostLog+1), args...).
		Scan(&all); err != nil {
		return nil, 0, told(err)
	}
	err = s.eachMaking(ctx, from+order+fmt.Sprintf(` LIMIT %d OFFSET %d`, PerLog, page*PerLog), args,
		func(m record.Making) error { out = append(out, m); return nil })
	return out, all, err
}

// EachMaking gives every making that is looked for, the newest first.
func (s *Store) EachMaking(ctx context.Context, l Look, do func(record.Making) error) error {
	from, order, args := l.from()
	return s.eachMaking(ctx, from+order, args, do)
}

func (s *Store) eachMaking(ctx context.Context, from string, args []any, do func(record.Making) error) error {
	rows, err := s.db.QueryContext(ctx, `SELECT `+makingColumns+from, args...)
	if err != nil {
		return told(err)
	}
	defer rows.Close()
	for rows.Next() {
		m, err := scanMaking(rows)
		if err == nil {
			err = do(m)
		}
		if err != nil {
			return told(err)
		}
	}
	return told(rows.Err())
}

// Totals gives what makings come to by the year, the newest first.
func (s *Store) Totals(ctx context.Context, l Look) (out []record.Total, err error) {
	from, _, args := l.from()
	rows, err := s.db.QueryContext(ctx,
		`SELECT substr(m.made, 1, 4), count(*), sum(m.count), sum(m.sheets), sum(m.minutes), sum(m.cost)`+
			from+` GROUP BY 1 ORDER BY 1 DESC`, args...)
	if err != nil {
		return nil, told(err)
	}
	defer rows.Close()
	for rows.Next() {
		var t record.Total
		if err := rows.Scan(&t.Of, &t.Makings, &t.Boxes, &t.Sheets, &t.Minutes, &t.Cost); err != nil {
			return nil, told(err)
		}
		out = append(out, t)
	}
	return out, told(rows.Err())
}

// TimesOf gives how long the parts of the making that is on the bench took, by the titles of their
// steps, in minutes.
func (s *Store) TimesOf(ctx context.Context, project string) (map[string]float64, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT t.title, sum(t.seconds) / 60 FROM bench_times t WHERE t.making IN
		(SELECT making FROM bench WHERE project = ?) GROUP BY t.title`, project)
	if err != nil {
		return nil, told(err)
	}
	defer rows.Close()
	out := map[string]float64{}
	for rows.Next() {
		var title string
		var minutes float64
		if err := rows.Scan(&title, &minutes); err != nil {
			return nil, told(err)
		}
		out[title] = minutes
	}
	return out, told(rows.Err())
}
