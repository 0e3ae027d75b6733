package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"strings"
	"time"

	"brevium/core/document"
)

// Kept keeps one kind of document: its newest states, the tree of its revisions, and where the heads stand. Every
// change is a revision and none is ever rewritten: undo and redo move the head along the tree.
type Kept[D any] struct {
	s      *database
	kind   string
	form   *document.Form[D]
	title  func(*D) string
	words  func(*D) string                                    // what it is found by, beside its title
	moved  func(context.Context, *sql.Tx, string, *D) error   // does what hangs on where the head stands
	binned func(context.Context, *sql.Tx, string, bool) error // and on whether it is thrown away
	long   func(*D) []*json.RawMessage                        // texts that its revisions have in common
	ships  func() D                                           // of a kind of which there is one: what it begins as
}

// Revision is one state of a document.
type Revision[D any] struct {
	ID, Parent  int64
	Of          string // the document's identity
	Doc         D
	What, Burst string // the change that made it, in words; changes of one burst are undone together
	Who         string // made it, where several do
	Made        time.Time
}

// Head is a document's newest state.
type Head[D any] struct {
	Revision[D]
	Changed time.Time
	Binned  bool
}

// Change is what makes a new revision: of the revision Base, the document as it is now, and in words what was done.
type Change[D any] struct {
	Base        int64
	Doc         D
	What, Burst string
}

// Broken is a revision whose document can't be read: of a newer format, or damaged.
type Broken struct {
	Of  string
	Why error
}

func (b *Broken) Error() string { return "what is stored of this can't be read: " + b.Why.Error() }
func (b *Broken) Unwrap() error { return b.Why }

func isBroken(err error) bool { return errors.As(err, new(*Broken)) }

// Refused is a document that is not written because it could not be read again.
type Refused struct{ Why error }

func (r *Refused) Error() string { return "this is not saved: " + r.Why.Error() }
func (r *Refused) Unwrap() error { return r.Why }

// Write is a part of one act: several are done together, all or none.
type Write func(context.Context, *sql.Tx) error

// Do does what belongs together in one commit. The act may have a name, by which it is done once only: it gives
// ErrArrived, and does nothing, when it was done before.
func (s *database) Do(ctx context.Context, act string, all ...Write) error {
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		if err := arrive(ctx, tx, act); err != nil {
			return err
		}
		for _, do := range all {
			if err := do(ctx, tx); err != nil {
				return err
			}
		}
		return nil
	})
}

// arrive notes that an act has come, or says that it came before.
func arrive(ctx context.Context, tx *sql.Tx, act string) error {
	if act == "" {
		return nil
	}
	res, err := tx.ExecContext(ctx, `INSERT INTO arrived (change, at) VALUES (?, ?) ON CONFLICT DO NOTHING`, act, now())
	if err != nil {
		return err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, ErrArrived)
	}
	return nil
}

// Arrived reports whether an act of this name has been done.
func (s *database) Arrived(ctx context.Context, act string) (bool, error) {
	return ask[bool](ctx, s.db, `SELECT EXISTS (SELECT 1 FROM arrived WHERE change = ?)`, act)
}

// Create begins a document and gives its identity.
func (k *Kept[D]) Create(ctx context.Context, d D, what string) (id string, err error) {
	id = NewID()
	return id, k.s.Do(ctx, "", k.Begin(id, d, what, nil))
}

// Begin is the part of an act that begins a document under an identity, and notes the number of its first revision.
func (k *Kept[D]) Begin(id string, d D, what string, made *int64) Write {
	return func(ctx context.Context, tx *sql.Tx) error {
		if err := k.row(ctx, tx, id); err != nil {
			return err
		}
		rev, err := k.push(ctx, tx, Revision[D]{Of: id, Doc: d, What: what})
		if made != nil {
			*made = rev
		}
		return err
	}
}

func (k *Kept[D]) row(ctx context.Context, tx *sql.Tx, id string) error {
	at := now()
	_, err := tx.ExecContext(ctx, `INSERT INTO documents (id, kind, created, changed) VALUES (?, ?, ?, ?)`, id, k.kind, at, at)
	if err != nil {
		return err
	}
	return arriving(ctx, tx, id)
}

// Save adds a change made on the revision it names, and gives the new one. It gives ErrMoved, and saves nothing, when
// that is no longer the newest, and ErrArrived when the act was done before.
func (k *Kept[D]) Save(ctx context.Context, id, act string, c Change[D]) (made int64, err error) {
	err = k.s.Do(ctx, act, k.Write(id, c, &made))
	return made, err
}

// Write is the part of an act that adds a change, and notes the number of the new revision.
func (k *Kept[D]) Write(id string, c Change[D], made *int64) Write {
	return func(ctx context.Context, tx *sql.Tx) error {
		head, err := ask[int64](ctx, tx, `SELECT coalesce(head, 0) FROM documents WHERE id = ? AND kind = ?`, id, k.kind)
		if errors.Is(err, ErrNone) && k.ships != nil { // what ships is the first state, to go back to
			if err = k.row(ctx, tx, id); err == nil {
				if head, err = k.push(ctx, tx, Revision[D]{Of: id, Doc: k.ships(), What: "As it ships"}); c.Base == 0 {
					c.Base = head
				}
			}
		}
		if err != nil {
			return err
		}
		if head != c.Base {
			return ErrMoved
		}
		rev, err := k.push(ctx, tx, Revision[D]{Of: id, Parent: c.Base, Doc: c.Doc, What: c.What, Burst: c.Burst})
		if made != nil {
			*made = rev
		}
		return err
	}
}

// push adds a revision and makes it the head. Its number is the moment it was made at, in millionths of a second since
// 1970, or one more than the newest's: after a copy was put back, no number comes again.
func (k *Kept[D]) push(ctx context.Context, tx *sql.Tx, r Revision[D]) (made int64, err error) {
	r.Doc = document.Clone(r.Doc)
	k.form.Identify(&r.Doc)
	if err := k.form.Check(&r.Doc); err != nil {
		return 0, &Refused{err}
	}
	body, err := k.body(ctx, tx, r.Doc)
	if err != nil {
		return 0, err
	}
	parent := sql.NullInt64{Int64: r.Parent, Valid: r.Parent != 0}
	if r.ID, err = ask[int64](ctx, tx, `INSERT INTO revisions (id, doc, parent, body, what, burst, made, who) VALUES
		(max(?, (SELECT coalesce(max(id), 0) + 1 FROM revisions)), ?, ?, ?, ?, ?, ?, ?) RETURNING id`,
		time.Now().UnixMicro(), r.Of, parent, body, r.What, r.Burst, now(), Who(ctx)); err != nil {
		return 0, err
	}
	return r.ID, k.setHead(ctx, tx, r)
}

func (k *Kept[D]) setHead(ctx context.Context, tx *sql.Tx, r Revision[D]) error {
	title, found := k.title(&r.Doc), ""
	if k.words != nil {
		found = strings.ToLower(title + "\n" + k.words(&r.Doc))
	}
	if _, err := tx.ExecContext(ctx, `UPDATE documents SET head = ?, changed = ?, title = ?, words = ? WHERE id = ?`, r.ID, now(),
		title, found, r.Of); err != nil || k.moved == nil {
		return err
	}
	return k.moved(ctx, tx, r.Of, &r.Doc)
}

// selectRevision has the table of documents joined as d where a query needs it.
const selectRevision = `SELECT r.id, coalesce(r.parent, 0), r.doc, r.body, r.what, r.burst, r.who, r.made`

// scan reads a revision. One whose document can't be read is given with all else that is known of it, and a Broken.
func (k *Kept[D]) scan(ctx context.Context, q asker, r row, more ...any) (Revision[D], error) {
	var rev Revision[D]
	var body, made string
	err := r.Scan(append([]any{&rev.ID, &rev.Parent, &rev.Of, &body, &rev.What, &rev.Burst, &rev.Who, &made}, more...)...)
	if errors.Is(err, sql.ErrNoRows) {
		return rev, ErrNone
	}
	if err != nil {
		return rev, err
	}
	rev.Made = when(made)
	if rev.Doc, err = k.form.Stored([]byte(body)); err == nil {
		err = k.whole(ctx, q, &rev.Doc)
	}
	if err != nil {
		return rev, &Broken{rev.Of, err}
	}
	return rev, nil
}

// Head gives the newest state of a document, in the bin or not; ErrNone when there is none.
func (k *Kept[D]) Head(ctx context.Context, id string) (Head[D], error) {
	h, err := k.head(ctx, k.s.db, id)
	return h, told(err)
}

func (k *Kept[D]) head(ctx context.Context, q asker, id string) (h Head[D], err error) {
	var changed string
	h.Revision, err = k.scan(ctx, q, q.QueryRowContext(ctx, selectRevision+`, d.changed, d.binned IS NOT NULL FROM documents d
		JOIN revisions r ON r.id = d.head WHERE d.id = ? AND d.kind = ?`, id, k.kind), &changed, &h.Binned)
	if errors.Is(err, ErrNone) && k.ships != nil {
		return Head[D]{Revision: Revision[D]{Of: id, Doc: k.ships()}}, nil
	}
	h.Changed = when(changed)
	return h, err
}

// At gives the number of the newest state of a document, 0 while there is none.
func (k *Kept[D]) At(ctx context.Context, id string) (int64, error) {
	return ask[int64](ctx, k.s.db, `SELECT coalesce(max(head), 0) FROM documents WHERE id = ?`, id)
}

// Body gives the newest state of a document as it is stored, readable or not.
func (k *Kept[D]) Body(ctx context.Context, id string) (string, error) {
	return ask[string](ctx, k.s.db, `SELECT r.body FROM revisions r JOIN documents d ON d.head = r.id WHERE d.id = ?`, id)
}

// Revision gives one state of a document; of a kind that ships with one, the state 0 is that.
func (k *Kept[D]) Revision(ctx context.Context, id string, rev int64) (Revision[D], error) {
	if rev == 0 && k.ships != nil {
		return Revision[D]{Of: id, Doc: k.ships()}, nil
	}
	got, err := k.scan(ctx, k.s.db, k.s.db.QueryRowContext(ctx, selectRevision+` FROM revisions r WHERE r.doc = ? AND r.id = ?`, id,
		rev))
	return got, told(err)
}

// Recent gives the documents of the kind that were changed last, without those thrown away. One that can't be read
// keeps no other from being shown.
func (k *Kept[D]) Recent(ctx context.Context, most int) (out []Head[D], err error) {
	ids, err := all(ctx, k.s.db, scanned[string], `SELECT id FROM documents WHERE kind = ? AND binned IS NULL AND head IS NOT NULL
		ORDER BY changed DESC, id LIMIT ?`, k.kind, most)
	for _, id := range ids {
		h, err := k.Head(ctx, id)
		if err != nil && !isBroken(err) {
			return nil, err
		}
		if err == nil {
			out = append(out, h)
		}
	}
	return out, err
}

// Throw throws a document away, or puts it back. What is thrown away already stays so.
func (k *Kept[D]) Throw(ctx context.Context, id string, away bool) error {
	return k.s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		at := sql.NullString{String: now(), Valid: away}
		if err := changed(tx.ExecContext(ctx, `UPDATE documents SET binned = CASE WHEN ?1 IS NULL THEN NULL
			ELSE coalesce(binned, ?1) END WHERE id = ?2 AND kind = ?3`, at, id, k.kind)); err != nil || k.binned == nil {
			return err
		}
		return k.binned(ctx, tx, id, away)
	})
}
