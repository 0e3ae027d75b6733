package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"time"
)

// Photo is a picture of a making: scaled, as JPEG, with a small one for lists.
type Photo struct {
	ID            string
	Making        string // its identity
	Width, Height int
	Says          string // what is to be seen, for those who can't
	Data, Small   []byte
	At            time.Time
}

// The most photos of one making, and what all photos may take, in bytes: backups have them too.
const (
	MostPhotos     = 12
	MostPhotoBytes = 2 << 30
)

// ErrFull says that there are as many photos as may be.
var ErrFull = errors.New("there is no more room for photos")

// KeepPhotos keeps pictures of makings, all of them or none.
func (s *Logbook) KeepPhotos(ctx context.Context, all ...Photo) error {
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		room := photoRoom(-1)
		for _, p := range all {
			if err := room.keep(ctx, tx, p); err != nil {
				return err
			}
		}
		return nil
	})
}

// photoRoom is how many bytes photos may still take in this act, less than nothing before that was asked.
type photoRoom int64

func (left *photoRoom) keep(ctx context.Context, tx *sql.Tx, p Photo) error {
	making, err := ask[int64](ctx, tx, `SELECT id FROM makings WHERE doc = ?`, p.Making)
	if err != nil {
		return err
	}
	n, err := ask[int64](ctx, tx, `SELECT count(*) FROM photos WHERE making = ?`, making)
	if err != nil {
		return err
	}
	if n >= MostPhotos {
		return ErrFull
	}
	if err := left.take(ctx, tx, p); err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx,
		`INSERT INTO photos (id, making, width, height, says, data, small, at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
		NewID(), making, p.Width, p.Height, p.Says, p.Data, p.Small, now())
	return err
}

// take takes the room that a photo needs; ErrFull when there is none.
func (left *photoRoom) take(ctx context.Context, tx *sql.Tx, p Photo) error {
	if *left < 0 {
		taken, err := ask[int64](ctx, tx, `SELECT (SELECT coalesce(sum(length(data) + length(small)), 0) FROM photos) +
			(SELECT coalesce(sum(length(data) + length(small)), 0) FROM bench_photos)`)
		if err != nil {
			return err
		}
		*left = photoRoom(max(0, MostPhotoBytes-taken))
	}
	if *left -= photoRoom(len(p.Data) + len(p.Small)); *left < 0 {
		return ErrFull
	}
	return nil
}

const selectPhoto = `SELECT p.id, m.doc, p.width, p.height, p.says, %s FROM photos p JOIN makings m ON m.id = p.making `

func scanPhoto(r row) (p Photo, err error) {
	err = r.Scan(&p.ID, &p.Making, &p.Width, &p.Height, &p.Says, &p.Data)
	return p, err
}

// Photos lists the pictures of a making, without what they show.
func (s *Logbook) Photos(ctx context.Context, making string) ([]Photo, error) {
	return all(ctx, s.db, scanPhoto, fmt.Sprintf(selectPhoto, "x''")+`WHERE m.doc = ? ORDER BY p.at, p.id`, making)
}

// Photo gives a picture, the small one when that does.
func (s *Logbook) Photo(ctx context.Context, id string, small bool) (Photo, error) {
	what := map[bool]string{true: "p.small", false: "p.data"}[small]
	p, err := scanPhoto(s.db.QueryRowContext(ctx, fmt.Sprintf(selectPhoto, what)+`WHERE p.id = ?`, id))
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNone
	}
	return p, told(err)
}

// SayPhoto keeps what is to be seen in a picture.
func (s *Logbook) SayPhoto(ctx context.Context, id, says string) error {
	return s.one(ctx, `UPDATE photos SET says = ? WHERE id = ?`, says, id)
}

// RemovePhoto takes a picture out, for good.
func (s *Logbook) RemovePhoto(ctx context.Context, id string) error {
	return s.one(ctx, `DELETE FROM photos WHERE id = ?`, id)
}
