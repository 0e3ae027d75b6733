package store

import (
	"context"
	"time"
)

// Phone is a device that was let in: a phone or tablet in the home network.
type Phone struct {
	ID, Name   string
	Made, Seen time.Time
}

// LetIn keeps a device under its name, and gives its identity.
func (s *Store) LetIn(ctx context.Context, name string) (id string, err error) {
	id = NewID()
	at := now()
	return id, s.exec(ctx, `INSERT INTO phones (id, name, made, seen) VALUES (?, ?, ?, ?)`, id, name, at, at)
}

// seenEvery is how often it is written down that a device was here.
const seenEvery = time.Minute

// PhoneHere gives a device that is let in, and notes that it was here; ErrNone for one that was sent away.
func (s *Store) PhoneHere(ctx context.Context, id string) (Phone, error) {
	p, err := s.phone(ctx, id)
	if err != nil || time.Since(p.Seen).Abs() < seenEvery {
		return p, err
	}
	return p, s.exec(ctx, `UPDATE phones SET seen = ? WHERE id = ?`, now(), id)
}

const selectPhone = `SELECT id, name, made, seen FROM phones`

func scanPhone(r row) (p Phone, err error) {
	var made, seen string
	err = r.Scan(&p.ID, &p.Name, &made, &seen)
	p.Made, p.Seen = when(made), when(seen)
	return p, err
}

func (s *Store) phone(ctx context.Context, id string) (Phone, error) {
	found, err := all(ctx, s.db, scanPhone, selectPhone+` WHERE id = ?`, id)
	if err == nil && len(found) == 0 {
		err = ErrNone
	}
	if err != nil {
		return Phone{}, err
	}
	return found[0], nil
}

// Phones lists the devices that are let in, those seen last first.
func (s *Store) Phones(ctx context.Context) ([]Phone, error) {
	return all(ctx, s.db, scanPhone, selectPhone+` ORDER BY seen DESC, name`)
}

// SendAway lets a device in no longer.
func (s *Store) SendAway(ctx context.Context, id string) error {
	return s.exec(ctx, `DELETE FROM phones WHERE id = ?`, id)
}
