package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"slices"
	"strings"
	"time"

	"brevium/core/brief"
)

// Card is a box as a list shows it. Picture is made when it is first asked for.
type Summary struct {
	Line    string
	Trouble bool
	Picture []byte
}

// Listed is a project in a list. Card is how its newest state was last shown, nil when it never was; it is fresh when
// this version of the program made it, with the shop as it is.
type Listed struct {
	Project, Title string
	Head           int64
	Changed        time.Time
	Card           *Summary
	Fresh          bool
	Broken         error // why its document can't be read
}

// Page is one page of a list, and how many projects there are on all pages.
type Page struct {
	Listed []Listed
	All    int
}

// PerPage is how many projects a page of a list holds.
const PerPage = 12

// Want is which boxes a list is to show, and in which order.
type Want struct {
	Words    string // all of which stand in it
	Folder   string
	Binned   bool
	Archived bool // those that were put by, and no others
	Starting bool // only starting points
	Sort     string
}

// Sorts are the orders of lists: by the last change, by name, the newest or the oldest first.
var Sorts = map[string]string{"": `p.changed DESC, p.rowid DESC`, "name": `p.title COLLATE NOCASE, p.rowid`,
	"new": `p.created DESC, p.rowid DESC`, "old": `p.changed, p.rowid`}

// of returns the tables to search and the conditions, which are those of the indexes, word for word.
func (w Want) of() (from, where string, args []any) {
	from, where = `documents p `, `WHERE p.kind = 'box' AND p.binned IS NULL AND p.archived IS NULL`
	counted := `INDEXED BY boxes_on_table `
	if w.Binned {
		where, counted = `WHERE p.kind = 'box' AND p.binned IS NOT NULL`, `INDEXED BY boxes_in_bin `
	} else if w.Archived {
		where, counted = `WHERE p.kind = 'box' AND p.binned IS NULL AND p.archived IS NOT NULL`, `INDEXED BY boxes_put_by `
	} else if w.Words != "" {
		counted = `INDEXED BY boxes_by_words `
	}
	if w.Starting {
		where += ` AND p.starting IS NOT NULL`
	}
	switch {
	case w.Folder != "": // it holds few of all boxes
		from, where = `folders f CROSS JOIN documents p ON p.id = f.project `, where+` AND f.folder = ?`
		args = append(args, w.Folder)
	case !w.Starting:
		from += counted
	}
	for word := range strings.FieldsSeq(strings.ToLower(w.Words)) {
		where, args = where+` AND instr(p.words, ?) > 0`, append(args, word)
	}
	return from, where, args
}

// walked returns the index that has the boxes on the table in the order of the list.
func (w Want) walked() string {
	by, known := map[string]string{"name": `boxes_by_name `, "new": `boxes_by_age `}[w.Sort]
	switch {
	case w.Binned || w.Archived || w.Starting:
		return ``
	case known:
		return `INDEXED BY ` + by
	}
	return `INDEXED BY boxes_on_table `
}

// Shelf shows the boxes there are as lists do: by their cards, in folders, marked, in the bin.
type Shelf struct {
	*database
	boxes *Kept[brief.Brief]
}

// seldom is the largest number of boxes found that are fetched and sorted. Of more, a page is found sooner by walking
// through all boxes in the order of the list.
const seldom = 500

// List gives a page (from 0) of the boxes that are wanted, each as it was last shown.
func (s *Shelf) List(ctx context.Context, want Want, program string, page int) (Page, error) {
	from, where, args := want.of()
	n, err := ask[int](ctx, s.db, `SELECT count(*) FROM `+from+where, args...)
	if err != nil || n == 0 {
		return Page{}, err
	}
	sort, known := Sorts[want.Sort]
	if !known {
		sort = Sorts[""]
	}
	if want.Folder == "" && (want.Words == "" || n > seldom) {
		from = `documents p ` + want.walked()
	}
	listed, err := all(ctx, s.db, func(r row) (l Listed, err error) {
		var changed, document string
		var line sql.NullString
		var trouble bool
		if err := r.Scan(&l.Project, &l.Title, &l.Head, &changed, &document, &line, &trouble, &l.Fresh); err != nil {
			return l, err
		}
		if l.Changed = when(changed); line.Valid {
			l.Card = &Summary{Line: line.String, Trouble: trouble}
		}
		_, l.Broken = brief.Stored([]byte(document))
		return l, nil
	}, `SELECT p.id, coalesce(p.title, ''), coalesce(p.head, 0), p.changed, coalesce(r.body, ''), c.line,
			coalesce(c.trouble, 0), coalesce(c.program, '') = ?
		FROM (SELECT p.rowid AS at FROM `+from+where+` ORDER BY `+sort+` LIMIT ? OFFSET ?)
		CROSS JOIN documents p ON p.rowid = at LEFT JOIN revisions r ON r.id = p.head
		LEFT JOIN cards c ON c.project = p.id AND c.revision = p.head
		ORDER BY `+sort, append(append([]any{program}, args...), PerPage, page*PerPage)...)
	return Page{listed, n}, err
}

// Count says how many boxes there are, or are in the bin.
func (s *Shelf) Count(ctx context.Context, binned bool) (int, error) {
	if binned {
		return ask[int](ctx, s.db, `SELECT count(*) FROM documents p INDEXED BY boxes_in_bin WHERE p.kind = 'box' AND p.binned IS NOT NULL`)
	}
	return ask[int](ctx, s.db, `SELECT count(*) FROM documents WHERE kind = 'box' AND binned IS NULL`)
}

// KeepCard keeps how a list shows a revision, in place of what was kept before. It may be called while nothing waits
// for it: what it keeps can be made again.
func (s *Shelf) KeepCard(ctx context.Context, project string, revision int64, program string, c Summary) error {
	return s.Do(ctx, "", KeepingCard(project, &revision, program, c))
}

// KeepingCard is the part of an act that keeps how a list shows the revision that the act makes.
func KeepingCard(project string, revision *int64, program string, c Summary) Write {
	return func(ctx context.Context, tx *sql.Tx) error {
		_, err := tx.ExecContext(ctx,
			`INSERT INTO cards (project, revision, program, line, trouble, picture) VALUES (?, ?, ?, ?, ?, ?)
			ON CONFLICT (project) DO UPDATE SET revision = excluded.revision, program = excluded.program, line = excluded.line,
			trouble = excluded.trouble, picture = excluded.picture`, project, *revision, program, c.Line, c.Trouble, c.Picture)
		return err
	}
}

// CardOf gives what is kept of a revision by a version of the program, or
// ErrNone.
func (s *Shelf) CardOf(ctx context.Context, project string, revision int64, program string) (Summary, error) {
	var c Summary
	err := s.db.QueryRowContext(ctx, `SELECT line, trouble, picture FROM cards WHERE project = ? AND revision = ? AND program = ?`,
		project, revision, program).Scan(&c.Line, &c.Trouble, &c.Picture)
	if errors.Is(err, sql.ErrNoRows) {
		return c, ErrNone
	}
	return c, told(err)
}

// Called finds the box of a name that was changed last, whatever its capitals; ErrNone when none is called so.
func (s *Shelf) Called(ctx context.Context, name string) (Project, error) {
	id, err := ask[string](ctx, s.db, `SELECT id FROM documents WHERE kind = 'box' AND title = ? COLLATE NOCASE
		AND binned IS NULL ORDER BY changed DESC, rowid DESC LIMIT 1`, strings.TrimSpace(name))
	if err != nil {
		return Project{}, err
	}
	return s.boxes.Head(ctx, id)
}

// Names are the names of the boxes on the table that were changed last, each once.
func (s *Shelf) Names(ctx context.Context, most int) (out []string, err error) {
	titles, err := all(ctx, s.db, scanned[string], `SELECT coalesce(title, '') FROM documents
		WHERE kind = 'box' AND binned IS NULL AND archived IS NULL ORDER BY changed DESC LIMIT ?`, 4*most)
	for _, t := range titles {
		if t != "" && len(out) < most && !slices.Contains(out, t) {
			out = append(out, t)
		}
	}
	return out, err
}

// Heads gives the numbers of the newest states of documents, by their identities.
func (s *Shelf) Heads(ctx context.Context, ids []string) (map[string]int64, error) {
	list, err := json.Marshal(ids)
	if err != nil {
		return nil, err
	}
	out := map[string]int64{}
	return out, each(ctx, s.db, func(r row) (l Listed, err error) {
		err = r.Scan(&l.Project, &l.Head)
		return l, err
	}, func(l Listed) error { out[l.Project] = l.Head; return nil },
		`SELECT id, coalesce(head, 0) FROM documents WHERE id IN (SELECT value FROM json_each(?))`, string(list))
}
