// Package demo holds made-up projects of the Tansy Row Garden Fair, a
// neighbourhood garden group's autumn fair.
package demo

import (
	"context"
	"embed"
	"errors"
	"io/fs"
	"time"

	"brevium/core/brief"
	"brevium/store"
)

//go:embed projects/*.json
var files embed.FS

// Projects gives the made-up projects, the last to be shown first.
func Projects() ([]brief.Brief, error) {
	names, err := fs.Glob(files, "projects/*.json")
	if err != nil {
		return nil, err
	}
	var out []brief.Brief
	for _, name := range names {
		data, err := files.ReadFile(name)
		if err != nil {
			return nil, err
		}
		b, err := brief.Decode(data)
		if err != nil {
			return nil, err
		}
		out = append(out, b)
	}
	return out, nil
}

// Fill puts the made-up projects into a store that holds none.
func Fill(ctx context.Context, s *store.Store) error {
	have, err := s.Shelf.Count(ctx, false)
	if err != nil || have > 0 {
		return err
	}
	ids, projects, err := fillBoxes(ctx, s)
	if err != nil {
		return err
	}
	if err := fillShop(ctx, s); err != nil {
		return err
	}
	return errors.Join(fillRecord(ctx, s, ids, projects, time.Now()), s.Set(ctx, store.Begun, "yes"))
}

// fillBoxes makes the boxes, and gives them with their identities.
func fillBoxes(ctx context.Context, s *store.Store) (ids []string, projects []brief.Brief, err error) {
	if projects, err = Projects(); err != nil {
		return nil, nil, err
	}
	ids = make([]string, len(projects))
	for i := len(projects) - 1; i >= 0; i-- {
		if ids[i], err = s.Boxes.Create(ctx, projects[i], "made up for the fair"); err != nil {
			return nil, nil, err
		}
	}
	return ids, projects, nil
}

// Samples puts the made-up projects into a maker's own store, to look round with: beside what is hers, of which nothing
// is changed.
func Samples(ctx context.Context, s *store.Store) error {
	return s.Arrive(ctx, store.Samples, "Samples", func(ctx context.Context) error {
		ids, projects, err := fillBoxes(ctx, s)
		if err != nil {
			return err
		}
		return fillRecord(ctx, s, ids, projects, time.Now())
	})
}
