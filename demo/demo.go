// Package demo holds made-up projects of the Tansy Row Garden Fair, a
// neighbourhood garden group's autumn fair.
package demo

import (
	"context"
	"embed"
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
	projects, err := Projects()
	if err != nil {
		return err
	}
	ids := make([]string, len(projects))
	for i := len(projects) - 1; i >= 0; i-- {
		if ids[i], err = s.Boxes.Create(ctx, projects[i], "made up for the fair"); err != nil {
			return err
		}
	}
	if err := fillShop(ctx, s); err != nil {
		return err
	}
	return fillRecord(ctx, s, ids, projects, time.Now())
}
