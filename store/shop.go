package store

import (
	"context"
	"database/sql"
	"errors"
	"time"

	"brevium/core/brief"
	"brevium/core/shop"
)

// The maker's shop is kept as projects are: every change is a revision, undo and
// redo move the head along the tree of them, and a change names the revision it was
// made on.

// Shop is one state of the shop. Its ID is 0 while nothing was changed of the one
// that ships.
type Shop struct {
	ID, Parent  int64
	Document    shop.Document
	What, Burst string
	Who         string // made it, where several do
	Made        time.Time
}

// ShopChange is what makes a new state of the shop: of the state Base, the document
// as it is now. Boxes are changed with it, all or nothing.
type ShopChange struct {
	Base            int64
	Document        shop.Document
	What, Burst, ID string
	Boxes           []BoxChange
}

// BoxChange is a change of a box that goes with one of the shop.
type BoxChange struct {
	Project string
	Base    int64
	Brief   brief.Brief
	What    string
}

const selectShop = `SELECT id, coalesce(parent, 0), document, what, burst, who, made FROM shop_revisions r `

func scanShop(r row) (s Shop, err error) {
	var document, made string
	err = r.Scan(&s.ID, &s.Parent, &document, &s.What, &s.Burst, &s.Who, &made)
	if errors.Is(err, sql.ErrNoRows) {
		return s, ErrNone
	}
	if err != nil {
		return s, err
	}
	s.Made, _ = time.Parse(clock, made)
	if s.Document, err = shop.Decode([]byte(document)); err != nil {
		return s, &Broken{"", err}
	}
	return s, nil
}

// Shop gives the newest state of the shop: the one that ships until it is changed.
func (s *Store) Shop(ctx context.Context) (Shop, error) {
	got, err := shopHead(ctx, s.db)
	return got, told(err)
}

func shopHead(ctx context.Context, q asker) (Shop, error) {
	got, err := scanShop(q.QueryRowContext(ctx, selectShop+`JOIN shop s ON s.head = r.id`))
	if errors.Is(err, ErrNone) {
		return Shop{Document: shop.Shipped()}, nil
	}
	return got, err
}

// ShopNow gives the number of the newest state of the shop.
func (s *Store) ShopNow(ctx context.Context) (id int64, err error) {
	err = s.db.QueryRowContext(ctx, `SELECT coalesce(max(head), 0) FROM shop`).Scan(&id)
	return id, told(err)
}

// ShopAt gives one state of the shop.
func (s *Store) ShopAt(ctx context.Context, id int64) (Shop, error) {
	got, err := scanShop(s.db.QueryRowContext(ctx, selectShop+`WHERE r.id = ?`, id))
	return got, told(err)
}

// ShopHistory gives the states that led to one, newest first.
func (s *Store) ShopHistory(ctx context.Context, from int64, most int) (out []Shop, err error) {
	for ; from != 0 && len(out) < most; from = out[len(out)-1].Parent {
		one, err := s.ShopAt(ctx, from)
		if err != nil && !isBroken(err) {
			return nil, err
		}
		out = append(out, one)
	}
	return out, nil
}

// SaveShop adds a state of the shop, with the changes of boxes that go with it, and
// gives its number. It gives ErrMoved, and saves nothing, when the shop or one of the
// boxes was changed meanwhile, and ErrArrived when the change was made before.
func (s *Store) SaveShop(ctx context.Context, c ShopChange) (made int64, err error) {
	if err := c.Document.Check(); err != nil {
		return 0, &Refused{err}
	}
	err = s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		if err := arrive(ctx, tx, c.ID); err != nil {
			return err
		}
		head, err := shopHead(ctx, tx)
		if err != nil && !isBroken(err) {
			return err
		}
		if head.ID != c.Base {
			return ErrMoved
		}
		if head.ID == 0 { // what shipped is the first state, to go back to
			if head.ID, err = pushShop(ctx, tx, 0, ShopChange{Document: head.Document, What: "The shop that ships"}); err != nil {
				return err
			}
		}
		if made, err = pushShop(ctx, tx, head.ID, c); err != nil {
			return err
		}
		for _, b := range c.Boxes {
			if err := changeBox(ctx, tx, b); err != nil {
				return err
			}
		}
		return setShop(ctx, tx, made)
	})
	return made, err
}

func changeBox(ctx context.Context, tx *sql.Tx, b BoxChange) error {
	var head int64
	if err := tx.QueryRowContext(ctx, `SELECT head FROM projects WHERE id = ?`, b.Project).Scan(&head); err != nil ||
		head != b.Base {
		return errors.Join(err, ErrMoved)
	}
	_, err := push(ctx, tx, Revision{Project: b.Project, Parent: b.Base, Brief: b.Brief, What: b.What})
	return err
}

func pushShop(ctx context.Context, tx *sql.Tx, parent int64, c ShopChange) (int64, error) {
	res, err := tx.ExecContext(ctx, `INSERT INTO shop_revisions (parent, document, what, burst, made, who)
		VALUES (?, ?, ?, ?, ?, ?)`,
		sql.NullInt64{Int64: parent, Valid: parent != 0}, string(c.Document.Encode()), c.What, c.Burst, now(), Who(ctx))
	if err != nil {
		return 0, err
	}
	return res.LastInsertId()
}

func setShop(ctx context.Context, tx *sql.Tx, head int64) error {
	_, err := tx.ExecContext(ctx, `INSERT INTO shop (one, head) VALUES (1, ?)
		ON CONFLICT (one) DO UPDATE SET head = excluded.head`, head)
	return err
}

// UndoShop moves the shop back over its last burst of changes.
func (s *Store) UndoShop(ctx context.Context, change string) error {
	return s.moveShop(ctx, change, func(ctx context.Context, tx *sql.Tx, head Shop) (Shop, error) {
		burst := head.Burst
		for head.Parent != 0 {
			next, err := scanShop(tx.QueryRowContext(ctx, selectShop+`WHERE r.id = ?`, head.Parent))
			if err != nil && !isBroken(err) {
				return head, err
			}
			if head = next; burst == "" || head.Burst != burst {
				break
			}
		}
		return head, nil
	})
}

// RedoShop moves it forward again along the newest changes.
func (s *Store) RedoShop(ctx context.Context, change string) error {
	return s.moveShop(ctx, change, func(ctx context.Context, tx *sql.Tx, head Shop) (Shop, error) {
		for moved := false; ; moved = true {
			next, err := shopChild(ctx, tx, head.ID)
			if errors.Is(err, ErrNone) || isBroken(err) || moved && (next.Burst == "" || next.Burst != head.Burst) {
				return head, nil
			}
			if err != nil {
				return head, err
			}
			head = next
		}
	})
}

func (s *Store) moveShop(ctx context.Context, change string,
	to func(context.Context, *sql.Tx, Shop) (Shop, error)) error {
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		if err := arrive(ctx, tx, change); err != nil {
			return err
		}
		head, err := shopHead(ctx, tx)
		if err != nil && !isBroken(err) {
			return err
		}
		now, err := to(ctx, tx, head)
		if err != nil || now.ID == 0 || now.ID == head.ID {
			return err
		}
		return setShop(ctx, tx, now.ID)
	})
}

func shopChild(ctx context.Context, q asker, of int64) (Shop, error) {
	return scanShop(q.QueryRowContext(ctx, selectShop+`WHERE r.parent = ? ORDER BY r.id DESC LIMIT 1`, of))
}

// CanRedoShop reports whether a change was undone that can be brought back.
func (s *Store) CanRedoShop(ctx context.Context, head int64) (bool, error) {
	_, err := shopChild(ctx, s.db, head)
	if errors.Is(err, ErrNone) || isBroken(err) {
		return false, nil
	}
	return err == nil, told(err)
}

// Using gives the newest states of the boxes in whose documents a text stands, in
// the bin or not.
func (s *Store) Using(ctx context.Context, text string) ([]Revision, error) {
	return readable(s.db.QueryContext(ctx, selectRevision+`JOIN projects p ON p.head = r.id WHERE instr(r.document, ?) > 0
		ORDER BY p.title, p.id`, text))
}
