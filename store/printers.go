package store

import (
	"context"
	"database/sql"
)

// Printer is a printer of this house: how long what should be 1 comes out of it, across the page and down it. The usual
// one is what templates and labels are for when no other is chosen.
type Printer struct {
	ID, Name     string
	Across, Down float64
	Usual        bool
}

// mostPrinters bounds how many a house has.
const mostPrinters = 30

// Printers lists them by name.
func (s *Store) Printers(ctx context.Context) ([]Printer, error) {
	return all(ctx, s.db, func(r row) (p Printer, err error) {
		err = r.Scan(&p.ID, &p.Name, &p.Across, &p.Down, &p.Usual)
		return p, err
	}, `SELECT id, name, across, down, usual FROM printers ORDER BY lower(name), id`)
}

// KeepPrinter keeps what was measured of a printer, in place of what was known of one with its name; it is the usual one
// from then on. ErrFull when there are too many.
func (s *Store) KeepPrinter(ctx context.Context, p Printer) error {
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		n, err := ask[int](ctx, tx, `SELECT count(*) FROM printers WHERE name <> ?`, p.Name)
		if err != nil {
			return err
		}
		if n >= mostPrinters {
			return ErrFull
		}
		if _, err := tx.ExecContext(ctx, `UPDATE printers SET usual = 0`); err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO printers (id, name, across, down, usual) VALUES (?, ?, ?, ?, 1)
			ON CONFLICT (name) DO UPDATE SET across = excluded.across, down = excluded.down, usual = 1`,
			NewID(), p.Name, p.Across, p.Down)
		return err
	})
}

// UsePrinter makes a printer the usual one; "" leaves none.
func (s *Store) UsePrinter(ctx context.Context, id string) error {
	return s.one(ctx, `UPDATE printers SET usual = (id = ?)`, id)
}

// ForgetPrinter forgets what was measured of a printer.
func (s *Store) ForgetPrinter(ctx context.Context, id string) error {
	return s.one(ctx, `DELETE FROM printers WHERE id = ?`, id)
}
