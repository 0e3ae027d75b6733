package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"time"

	"brevium/core/bench"
	"brevium/core/record"
)

// A making is two things: what is said of it, a document like any other (Makings), and what it was made by, which
// stays as it was. The table of makings has both in columns, for the logbook to be searched by; what is said there
// follows the document.

const makingColumns = `m.doc, m.key, m.project, m.revision, m.made, m.count, m.box, m.whom, m.contents, m.style, m.card,
	m.title, m.fit, m.gap, m.change, m.notes, m.minutes, m.times, m.sheets, m.cost, m.gone IS NOT NULL, m.line,
	(SELECT count(*) FROM photos p WHERE p.making = m.id)`

func scanMaking(r row) (record.Making, error) { return scanMakingWith(r) }

func scanMakingWith(r row, more ...any) (m record.Making, err error) {
	var times string
	if err = r.Scan(append([]any{&m.ID, &m.Key, &m.Project, &m.Revision, &m.Made, &m.Count, &m.Box, &m.Whom, &m.Contents,
		&m.Style, &m.Card, &m.Title, &m.Fit, &m.Gap, &m.Change, &m.Notes, &m.Minutes, &times, &m.Sheets, &m.Cost, &m.Gone,
		&m.Line, &m.Photos}, more...)...); err != nil {
		return m, err
	}
	return m, unlessEmpty(times, &m.Times)
}

func unlessEmpty(text string, into any) error {
	if text == "" {
		return nil
	}
	return json.Unmarshal([]byte(text), into)
}

// Logbook keeps the times boxes were made, with their photos, and the steps that were ticked on the way.
type Logbook struct {
	*database
	notes *Kept[record.Note] // what is said of them
}

// Record keeps makings, all of them or none; one whose key is known already is left out. It gives the identities of
// those that are new.
func (s *Logbook) Record(ctx context.Context, many ...record.Making) (ids []string, err error) {
	parts := make([]Write, len(many))
	for i := range many {
		parts[i] = s.Recording(&many[i])
	}
	if err := s.Do(ctx, "", parts...); err != nil {
		return nil, err
	}
	for _, m := range many {
		if m.ID != "" {
			ids = append(ids, m.ID)
		}
	}
	return ids, nil
}

// Recording is the part of an act that keeps a making, and notes its identity: "" where its key is known already.
func (s *Logbook) Recording(m *record.Making) Write {
	return func(ctx context.Context, tx *sql.Tx) error {
		if err := m.Check(); err != nil {
			return &Refused{err}
		}
		if m.ID = ""; m.Key == "" {
			m.Key = NewID()
		}
		texts := [2]string{}
		for i, of := range []any{m.Times, m.Planned} {
			if data, err := json.Marshal(of); err != nil {
				return err
			} else if string(data) != "null" {
				texts[i] = string(data)
			}
		}
		id := NewID()
		err := changed(tx.ExecContext(ctx, `INSERT INTO makings (doc, key, project, revision, document, made, count, box, whom,
			contents, style, card, title, fit, gap, change, notes, minutes, times, sheets, cost, planned, line, picture, found)
			VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 0) ON CONFLICT (key) DO NOTHING`, id,
			m.Key, m.Project, m.Revision, m.Document, m.Made, m.Count, m.Box, m.Whom, m.Contents, m.Style, m.Card, m.Title,
			m.Fit, m.Gap, m.Change, m.Notes, m.Minutes, texts[0], m.Sheets, m.Cost, texts[1], m.Line, m.Picture))
		if errors.Is(err, ErrNone) {
			return nil
		}
		if err != nil {
			return err
		}
		m.ID = id
		return s.notes.Begin(id, m.Note(), "Recorded", nil)(ctx, tx)
	}
}

// said brings the columns of a making after what its note says; what in that can't be read stays as it was.
func said(ctx context.Context, tx *sql.Tx, id string, n *record.Note) error {
	m, err := makingOf(ctx, tx, id)
	if err != nil {
		return err
	}
	if wrong := m.Says(*n); len(wrong) > 0 && m.Check() != nil {
		return nil
	}
	if _, err := tx.ExecContext(ctx, `UPDATE makings SET made = ?, count = ?, box = ?, whom = ?, contents = ?, card = ?,
		title = ?, fit = ?, gap = ?, change = ?, notes = ?, minutes = ? WHERE doc = ?`, m.Made, m.Count, m.Box, m.Whom,
		m.Contents, m.Card, m.Title, m.Fit, m.Gap, m.Change, m.Notes, m.Minutes, id); err != nil {
		return err
	}
	return findable(ctx, tx, &m)
}

// binMaking takes a making that is thrown away out of the logbook, or puts it back.
func binMaking(ctx context.Context, tx *sql.Tx, id string, gone bool) error {
	m, err := makingOf(ctx, tx, id)
	if err != nil {
		return err
	}
	at := sql.NullString{String: now(), Valid: gone}
	if _, err := tx.ExecContext(ctx, `UPDATE makings SET gone = ? WHERE doc = ?`, at, id); err != nil {
		return err
	}
	m.Gone = gone
	return findable(ctx, tx, &m)
}

// places is how many makings there are places for on each day of the full text.
const places = 1 << 28

// findable writes what a making is found by; of one that is thrown away nothing.
func findable(ctx context.Context, tx *sql.Tx, m *record.Making) error {
	n, err := ask[int64](ctx, tx, `SELECT id FROM makings WHERE doc = ?`, m.ID)
	if err != nil {
		return err
	}
	if _, err := tx.ExecContext(ctx, `DELETE FROM makings_text WHERE rowid = (SELECT found FROM makings WHERE id = ?)`,
		n); err != nil || m.Gone {
		return err
	}
	day, err := time.Parse(time.DateOnly, m.Made)
	if err != nil {
		return &Refused{err}
	}
	found := day.Unix()/(24*3600)*places + n%places
	if _, err := tx.ExecContext(ctx, `INSERT INTO makings_text (rowid, words) VALUES (?, ?)`, found, m.Words()); err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `UPDATE makings SET found = ? WHERE id = ?`, found, n)
	return err
}

func makingOf(ctx context.Context, q asker, id string) (record.Making, error) {
	var document, planned string
	var picture []byte
	m, err := scanMakingWith(q.QueryRowContext(ctx, `SELECT `+makingColumns+`, m.document, m.planned, m.picture FROM makings m
		WHERE m.doc = ?`, id), &document, &planned, &picture)
	if errors.Is(err, sql.ErrNoRows) {
		return m, ErrNone
	}
	if m.Document, m.Picture = document, picture; err == nil {
		err = unlessEmpty(planned, &m.Planned)
	}
	return m, err
}

// Making finds a making with its document, thrown away or not.
func (s *Logbook) Making(ctx context.Context, id string) (record.Making, error) {
	m, err := makingOf(ctx, s.db, id)
	return m, told(err)
}

// literal escapes what LIKE reads as signs.
var literal = strings.NewReplacer(`\`, `\\`, `%`, `\%`, `_`, `\_`)

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

// Logbook gives a page (from 0) of the makings that are looked for, the newest first, and how many
// there are on all: MostLog + 1 where there are more.
func (s *Logbook) Page(ctx context.Context, l Look, page int) (out []record.Making, n int, err error) {
	from, order, args := l.from()
	if n, err = ask[int](ctx, s.db, fmt.Sprintf(`SELECT count(*) FROM (SELECT 1%s LIMIT %d)`, from, MostLog+1), args...); err != nil {
		return nil, 0, err
	}
	out, err = all(ctx, s.db, scanMaking, `SELECT `+makingColumns+from+order+
		fmt.Sprintf(` LIMIT %d OFFSET %d`, PerLog, page*PerLog), args...)
	return out, n, err
}

// EachMaking gives every making that is looked for, the newest first.
func (s *Logbook) EachMaking(ctx context.Context, l Look, do func(record.Making) error) error {
	from, order, args := l.from()
	return each(ctx, s.db, scanMaking, do, `SELECT `+makingColumns+from+order, args...)
}

// Totals gives what makings come to by the year, the newest first.
func (s *Logbook) Totals(ctx context.Context, l Look) ([]record.Total, error) {
	from, _, args := l.from()
	return all(ctx, s.db, func(r row) (t record.Total, err error) {
		err = r.Scan(&t.Of, &t.Makings, &t.Boxes, &t.Sheets, &t.Minutes, &t.Cost)
		return t, err
	}, `SELECT substr(m.made, 1, 4), count(*), sum(m.count), sum(m.sheets), sum(m.minutes), sum(m.cost)`+
		from+` GROUP BY 1 ORDER BY 1 DESC`, args...)
}

// Any reports whether a box was ever made, as far as the logbook knows.
func (s *Logbook) Any(ctx context.Context, project string) (bool, error) {
	return ask[bool](ctx, s.db, `SELECT EXISTS (SELECT 1 FROM makings WHERE project = ? AND gone IS NULL)`, project)
}

// TimesOf gives how long the parts of the making that is on the bench took, by the titles of their steps, in minutes.
func (s *Logbook) TimesOf(ctx context.Context, project string) (map[string]float64, error) {
	taken, err := all(ctx, s.db, func(r row) (t bench.Taken, err error) {
		err = r.Scan(&t.Title, &t.Minutes)
		return t, err
	}, `SELECT t.title, sum(t.seconds) / 60 FROM bench_times t WHERE t.making IN
		(SELECT making FROM bench WHERE project = ?) GROUP BY t.title`, project)
	out := map[string]float64{}
	for _, t := range taken {
		out[t.Title] = t.Minutes
	}
	return out, err
}
