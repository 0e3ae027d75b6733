package store

import (
	"cmp"
	"context"
	"database/sql"
	"encoding/json"
	"slices"

	"brevium/core/brief"
)

// Which boxes are made of a card.

// noteCards notes which cards a box names, and whether it describes them itself.
func noteCards(ctx context.Context, tx *sql.Tx, id string, b *brief.Brief) error {
	now := map[string]bool{}
	for _, card := range b.Cards() {
		now[card] = slices.ContainsFunc(b.Card.Own, func(own brief.Stock) bool { return own.ID == card })
	}
	told, err := json.Marshal(now)
	if err != nil {
		return err
	}
	was, err := ask[string](ctx, tx, `SELECT json_group_object(card, json(CASE own WHEN 1 THEN 'true' ELSE 'false' END))
		FROM (SELECT card, own FROM uses WHERE doc = ? ORDER BY card)`, id)
	if err != nil || was == string(told) {
		return err
	}
	if _, err := tx.ExecContext(ctx, `DELETE FROM uses WHERE doc = ?`, id); err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO uses (card, doc, own) SELECT key, ?, value FROM json_each(?)`, id, string(told))
	return err
}

// Using gives the newest states of the boxes that are made of a card, in the bin or not.
func (s *Store) Using(ctx context.Context, card string) ([]BoxRev, error) {
	return s.Boxes.readable(ctx, selectRevision+` FROM uses u JOIN documents d ON d.id = u.doc JOIN revisions r ON d.head = r.id
		WHERE u.card = ? ORDER BY d.title, d.id`, card)
}

// Named is a box that names a card, as a list shows it.
type Named struct{ Of, Title string }

// Naming lists boxes that name a card as it is in the shop, up to so many, and says how many there are.
func (s *Store) Naming(ctx context.Context, card string, most int) (some []Named, count int, err error) {
	if count, err = ask[int](ctx, s.db, `SELECT count(*) FROM uses WHERE card = ? AND own = 0`, card); err != nil {
		return nil, 0, err
	}
	some, err = all(ctx, s.db, func(r row) (n Named, err error) {
		err = r.Scan(&n.Of, &n.Title)
		return n, err
	}, `SELECT d.id, coalesce(d.title, '') FROM uses u JOIN documents d ON d.id = u.doc WHERE u.card = ? AND u.own = 0
		ORDER BY u.doc LIMIT ?`, card, most)
	slices.SortFunc(some, func(a, b Named) int { return cmp.Or(cmp.Compare(a.Title, b.Title), cmp.Compare(a.Of, b.Of)) })
	return some, count, err
}

// Describing gives the newest states of boxes that describe a card themselves, up to so many, and says how many there are.
func (s *Store) Describing(ctx context.Context, card string, most int) (some []BoxRev, count int, err error) {
	if count, err = ask[int](ctx, s.db, `SELECT count(*) FROM uses WHERE card = ? AND own = 1`, card); err != nil {
		return nil, 0, err
	}
	some, err = s.Boxes.readable(ctx, selectRevision+` FROM uses u JOIN documents d ON d.id = u.doc
		JOIN revisions r ON d.head = r.id WHERE u.card = ? AND u.own = 1 ORDER BY u.doc LIMIT ?`, card, most)
	return some, count, err
}
