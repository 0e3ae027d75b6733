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
		room := photoRoom(-1)
		for _, b := range all {
			id, rev := NewID(), int64(0)
			if err := s.Boxes.Begin(id, b.Brief, what, &rev)(ctx, tx); err != nil {
				return err
			}
			for _, f := range b.Folders {
				if err := putIn(ctx, tx, f, id); err != nil {
					return err
				}
			}
			for _, m := range b.Makings {
				if err := s.bringMaking(ctx, tx, m, id, rev, &room); err != nil {
					return err
				}
			}
			ids = append(ids, id)
		}
		return nil
	})
	return ids, err
}

func (s *Store) bringMaking(ctx context.Context, tx *sql.Tx, m BroughtMaking, project string, rev int64,
	room *photoRoom) error {
	m.Making.Project, m.Revision = project, rev
	if err := s.Log.Recording(&m.Making)(ctx, tx); err != nil || m.Making.ID == "" {
		return err
	}
	for _, p := range m.Photos {
		p.Making = m.Making.ID
		if err := room.keep(ctx, tx, p); err != nil {
			return err
		}
	}
	return nil
}
