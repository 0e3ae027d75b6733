package store

import (
	"context"
	"database/sql"

	"brevium/core/brief"
	"brevium/core/record"
)

// Brought is a box that is brought in with its folders and the times it was made.
type Brought struct {
	Brief   brief.Brief
	Folders []string
	Makings []BroughtMaking
}

// BroughtMaking is one time it was made, with its photos.
type BroughtMaking struct {
	record.Making
	Photos []Photo
}

// BringIn takes boxes in, all of them or none, and gives their identities. A making that is known
// already stays as it is.
func (s *Store) BringIn(ctx context.Context, what string, all []Brought) (ids []string, err error) {
	err = s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		ids = nil
		for _, b := range all {
			id, at := NewID(), now()
			if _, err := tx.ExecContext(ctx, `INSERT INTO projects (id, created, changed) VALUES (?, ?, ?)`, id, at, at); err != nil {
				return err
			}
			rev, err := push(ctx, tx, Revision{Project: id, Brief: b.Brief, What: what})
			if err != nil {
				return err
			}
			for _, f := range b.Folders {
				if err := putIn(ctx, tx, f, id); err != nil {
					return err
				}
			}
			for _, m := range b.Makings {
				if err := bringMaking(ctx, tx, m, id, rev); err != nil {
					return err
				}
			}
			ids = append(ids, id)
		}
		return nil
	})
	return ids, err
}

func bringMaking(ctx context.Context, tx *sql.Tx, m BroughtMaking, project string, rev int64) error {
	if err := m.Check(); err != nil {
		return &Refused{err}
	}
	m.Making.Project, m.Revision = project, rev
	id, err := keepMaking(ctx, tx, m.Making)
	if err != nil || id == 0 {
		return err
	}
	for _, p := range m.Photos {
		p.Making = id
		if err := keepPhoto(ctx, tx, p); err != nil {
			return err
		}
	}
	return nil
}
