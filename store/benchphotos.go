package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
)

// Photos taken at the bench wait there, beside the box, for the entry in the logbook that they belong to.

// BenchPhoto is the part of an act that keeps a photo taken at a box's bench; ErrFull when there are as many as an
// entry in the logbook may have.
func BenchPhoto(project string, p Photo) Write {
	return func(ctx context.Context, tx *sql.Tx) error {
		if err := there(ctx, tx, project); err != nil {
			return err
		}
		n, err := ask[int](ctx, tx, `SELECT count(*) FROM bench_photos WHERE project = ?`, project)
		if err != nil {
			return err
		}
		if n >= MostPhotos {
			return ErrFull
		}
		room := photoRoom(-1)
		if err := room.take(ctx, tx, p); err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO bench_photos (id, project, width, height, says, data, small, at)
			VALUES (?, ?, ?, ?, ?, ?, ?, ?)`, NewID(), project, p.Width, p.Height, p.Says, p.Data, p.Small, now())
		return err
	}
}

// BenchPhotos lists the photos that wait at a box's bench, without what they show.
func (s *Logbook) BenchPhotos(ctx context.Context, project string) ([]Photo, error) {
	return all(ctx, s.db, scanBenchPhoto, fmt.Sprintf(selectBenchPhoto, "x''")+`WHERE project = ? ORDER BY at, id`, project)
}

// BenchPhotoOf gives the small picture of a photo that waits at a box's bench.
func (s *Logbook) BenchPhotoOf(ctx context.Context, project, id string) (Photo, error) {
	p, err := scanBenchPhoto(s.db.QueryRowContext(ctx, fmt.Sprintf(selectBenchPhoto, "small")+
		`WHERE project = ? AND id = ?`, project, id))
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNone
	}
	return p, told(err)
}

const selectBenchPhoto = `SELECT id, width, height, says, %s FROM bench_photos `

func scanBenchPhoto(r row) (p Photo, err error) {
	err = r.Scan(&p.ID, &p.Width, &p.Height, &p.Says, &p.Data)
	return p, err
}

// RemoveBenchPhoto deletes a photo that waits at a box's bench.
func (s *Logbook) RemoveBenchPhoto(ctx context.Context, project, id string) error {
	return s.one(ctx, `DELETE FROM bench_photos WHERE project = ? AND id = ?`, project, id)
}

// TakingBenchPhotos is the part of an act that moves the photos waiting at a box's bench into a making that was just
// recorded; the making's identity is read when the act is done.
func TakingBenchPhotos(project string, making *string) Write {
	return func(ctx context.Context, tx *sql.Tx) error {
		if *making == "" {
			return nil
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO photos (id, making, width, height, says, data, small, at)
			SELECT p.id, m.id, p.width, p.height, p.says, p.data, p.small, p.at FROM bench_photos p, makings m
			WHERE p.project = ? AND m.doc = ?`, project, *making); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `DELETE FROM bench_photos WHERE project = ?`, project)
		return err
	}
}
