package store

import (
	"context"
	"database/sql"
)

// Agree notes that the maker took what was suggested at a stage of a box, as it stood. No undo takes that back: it
// changes nothing of the box.
func (s *Store) Agree(ctx context.Context, project, stage string) error {
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		if err := there(ctx, tx, project); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO agreed (project, stage) VALUES (?, ?) ON CONFLICT DO NOTHING`, project, stage)
		return err
	})
}

// Agreed lists the stages of a box at which the maker took what was suggested.
func (s *Store) Agreed(ctx context.Context, project string) ([]string, error) {
	return all(ctx, s.db, scanned[string], `SELECT stage FROM agreed WHERE project = ? ORDER BY stage`, project)
}
