package store

import (
	"context"
	"database/sql"
	"errors"
	"time"

	"brevium/core/brief"
)

// Collection is a link under which the boxes of a folder are shown as they were.
type Collection struct {
	Token, Folder string
	Boxes         []Share // in their places; a box has no token of its own, and is Gone while it lies in the bin
	Made          time.Time
	Gone          bool
}

// ShareFolder makes a link to the boxes of a folder as their documents say, or moves the one there
// is to them.
func (s *Links) ShareFolder(ctx context.Context, folder string, boxes []Share) (token string, err error) {
	for _, b := range boxes {
		if err := b.Document.Check(); err != nil {
			return "", &Refused{err}
		}
	}
	err = s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		var err error
		token, err = linkTo(ctx, tx, `SELECT token FROM collections WHERE folder = ? AND gone IS NULL`, folder)
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO collections (token, folder, made) VALUES (?, ?, ?)
			ON CONFLICT DO UPDATE SET made = excluded.made`, token, folder, now()); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM collection_boxes WHERE token = ?`, token); err != nil {
			return err
		}
		for i, b := range boxes {
			if _, err := tx.ExecContext(ctx, `INSERT INTO collection_boxes (token, place, project, revision, document)
				VALUES (?, ?, ?, ?, ?)`, token, i+1, b.Project, b.Revision, string(b.Document.Encode())); err != nil {
				return err
			}
		}
		return nil
	})
	return token, err
}

// UnshareFolder withdraws the link to a folder. It never works again.
func (s *Links) UnshareFolder(ctx context.Context, folder string) error {
	return s.exec(ctx, `UPDATE collections SET gone = ? WHERE folder = ? AND gone IS NULL`, now(), folder)
}

// CollectionOf gives the link to a folder, without its boxes; ErrNone when there is none.
func (s *Links) CollectionOf(ctx context.Context, folder string) (Collection, error) {
	return s.collection(ctx, `folder = ? AND gone IS NULL`, folder)
}

// Collection finds what a link shows, withdrawn or not.
func (s *Links) Collection(ctx context.Context, token string) (Collection, error) {
	c, err := s.collection(ctx, `token = ?`, token)
	if err != nil || c.Gone {
		return c, err
	}
	c.Boxes, err = all(ctx, s.db, func(r row) (Share, error) {
		var document string
		b := Share{Made: c.Made}
		if err := r.Scan(&b.Project, &b.Revision, &document, &b.Gone); err != nil {
			return b, err
		}
		var err error
		if b.Document, err = brief.Stored([]byte(document)); err != nil {
			return b, &Broken{b.Project, err}
		}
		b.Document = b.Document.ForOthers(true)
		return b, nil
	}, `SELECT b.project, b.revision, b.document, p.binned IS NOT NULL FROM collection_boxes b
		LEFT JOIN documents p ON p.id = b.project WHERE b.token = ? ORDER BY b.place`, token)
	return c, err
}

func (s *Links) collection(ctx context.Context, where string, arg string) (c Collection, err error) {
	var made string
	err = s.db.QueryRowContext(ctx, `SELECT token, folder, made, gone IS NOT NULL FROM collections WHERE `+where, arg).
		Scan(&c.Token, &c.Folder, &made, &c.Gone)
	if errors.Is(err, sql.ErrNoRows) {
		return c, ErrNone
	}
	c.Made = when(made)
	return c, told(err)
}
