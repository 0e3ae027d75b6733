package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"strings"

	"brevium/core/batch"
	"brevium/core/brief"
	"brevium/core/cutlist"
	"brevium/core/record"
	"brevium/core/shop"
	"brevium/core/words"
)

// The kinds of document there are. A new one is stated here, and has its form in the core.
type kinds struct {
	Boxes   *Kept[brief.Brief]
	Shops   *Kept[shop.Document]
	Batches *Kept[batch.Document]
	Lists   *Kept[cutlist.List]
	Makings *Kept[record.Note]
}

// TheShop is the identity of the one shop there is.
const TheShop = "shop"

// What the pages call the newest states of boxes, and their revisions.
type (
	Project = Head[brief.Brief]
	BoxRev  = Revision[brief.Brief]
)

func know(s *database) kinds {
	return kinds{
		Boxes: &Kept[brief.Brief]{s: s, kind: "box", form: brief.Form, words: wordsOf, moved: noteCards,
			title: func(b *brief.Brief) string { return string(b.Name) }},
		Shops: &Kept[shop.Document]{s: s, kind: "shop", form: shop.Form, ships: shop.Shipped,
			title: func(*shop.Document) string { return "Shop" }},
		Batches: &Kept[batch.Document]{s: s, kind: "batch", form: batch.Form, long: boxesOf,
			title: func(d *batch.Document) string { return string(d.Name) }},
		Lists: &Kept[cutlist.List]{s: s, kind: "list", form: cutlist.Form,
			title: func(l *cutlist.List) string { return string(l.Name) }},
		Makings: &Kept[record.Note]{s: s, kind: "making", form: record.Form, moved: said, binned: binMaking,
			title: func(n *record.Note) string { return string(n.Box) }},
	}
}

// wordsOf is what a box is found by.
func wordsOf(b *brief.Brief) string {
	all := []string{words.Plain(string(b.Box.Style)), string(b.Notes)}
	for _, t := range b.Contents {
		all = append(all, string(t.Name))
	}
	return strings.Join(all, "\n")
}

// boxesOf are the boxes of a batch's orders.
func boxesOf(d *batch.Document) (out []*json.RawMessage) {
	for i := range d.Orders {
		out = append(out, &d.Orders[i].Box)
	}
	return out
}

// Empty deletes the boxes in the bin, for good, and says how many went.
func (s *Store) Empty(ctx context.Context) (n int64, err error) {
	err = s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		if n, err = ask[int64](ctx, tx, `SELECT count(*) FROM documents WHERE kind = 'box' AND binned IS NOT NULL`); err != nil {
			return err
		}
		return deleteBinned(ctx, tx, "")
	})
	return n, err
}
