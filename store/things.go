package store

import (
	"context"
	"encoding/json"

	"brevium/core/brief"
)

// KeepThing puts a thing into the maker's own library, in place of one of the
// same name.
func (s *Store) KeepThing(ctx context.Context, item brief.Item) error {
	item.ID = ""
	data, err := json.Marshal(item)
	if err != nil {
		return err
	}
	return s.one(ctx, `INSERT INTO things (name, item, kept) VALUES (?, ?, ?)
		ON CONFLICT (name) DO UPDATE SET item = excluded.item, kept = excluded.kept`, string(item.Name), string(data), now())
}

// ForgetThing takes a thing out of the maker's own library.
func (s *Store) ForgetThing(ctx context.Context, name string) error {
	return s.one(ctx, `DELETE FROM things WHERE name = ?`, name)
}

// Things lists the maker's own library by name.
func (s *Store) Things(ctx context.Context) ([]brief.Item, error) {
	texts, err := all(ctx, s.db, scanned[string], `SELECT item FROM things ORDER BY name`)
	var out []brief.Item
	for _, text := range texts {
		var item brief.Item
		if json.Unmarshal([]byte(text), &item) == nil { // one that can't be read keeps no other from being used
			out = append(out, item)
		}
	}
	return out, err
}
