package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
	"strings"
	"time"

	"brevium/core/brief"
)

// Share is a link under which a box is shown as it was at one revision.
type Share struct {
	Token, Project string
	Revision       int64
	Document       brief.Brief
	Made           time.Time
	Gone           bool
}

// Links are what others can open without being let in: boxes, and folders of them, as they were when the link was made.
type Links struct{ *database }

// Share makes a link to a box as a document of it says at a revision; where there is one
// already, that shows this from now on. Nobody can guess it: it has 130 bits of chance.
func (s *Links) Share(ctx context.Context, project string, revision int64, b brief.Brief) (token string, err error) {
	if err := b.Check(); err != nil {
		return "", &Refused{err}
	}
	document := string(b.Encode())

	err = s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		if err := there(ctx, tx, project); err != nil {
			return err
		}
		var err error
		if token, err = linkTo(ctx, tx, `SELECT token FROM shares WHERE project = ? AND gone IS NULL`, project); err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO shares (token, project, revision, document, made) VALUES (?, ?, ?, ?, ?)
			ON CONFLICT DO UPDATE SET revision = excluded.revision, document = excluded.document, made = excluded.made`,
			token, project, revision, document, now())
		return err
	})
	return token, err
}

// linkTo gives the token of the link there is, by a question for it, or a new one that nobody can
// guess.
func linkTo(ctx context.Context, tx *sql.Tx, query, of string) (token string, err error) {
	token, err = ask[string](ctx, tx, query, of)
	if errors.Is(err, ErrNone) {
		return strings.ToLower(rand.Text()), nil
	}
	return token, err
}

// Unshare withdraws the links to a box. They never work again.
func (s *Links) Unshare(ctx context.Context, project string) error {
	return s.exec(ctx, `UPDATE shares SET gone = ? WHERE project = ? AND gone IS NULL`, now(), project)
}

// selectShare has a link to a box in the bin closed as long as it lies there.
const selectShare = `SELECT token, project, revision, document, made, gone IS NOT NULL OR EXISTS
	(SELECT 1 FROM documents p WHERE p.id = shares.project AND p.binned IS NOT NULL) FROM shares `

func scanShare(row *sql.Row) (sh Share, err error) {
	var document, made string
	err = row.Scan(&sh.Token, &sh.Project, &sh.Revision, &document, &made, &sh.Gone)
	if errors.Is(err, sql.ErrNoRows) {
		return sh, ErrNone
	}
	if err != nil {
		return sh, told(err)
	}
	sh.Made = when(made)
	if sh.Document, err = brief.Stored([]byte(document)); err != nil {
		return sh, &Broken{sh.Project, err}
	}
	sh.Document = sh.Document.ForOthers(true) // links of old may tell prices
	return sh, nil
}

// Shared finds what a link shows, withdrawn or not; ErrNone when there never was such a one.
func (s *Links) Shared(ctx context.Context, token string) (Share, error) {
	return scanShare(s.db.QueryRowContext(ctx, selectShare+`WHERE token = ?`, token))
}

// ShareOf gives the link to a box; ErrNone when there is none, or it was withdrawn.
func (s *Links) ShareOf(ctx context.Context, project string) (Share, error) {
	return scanShare(s.db.QueryRowContext(ctx, selectShare+`WHERE project = ? AND gone IS NULL`, project))
}
