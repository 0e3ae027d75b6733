package store

import (
	"errors"
	"fmt"
	"strings"
	"testing"

	"brevium/core/batch"
	"brevium/core/brief"
	"brevium/core/cutlist"
	"brevium/core/record"
	"brevium/core/shop"
)

type boxChange = Change[brief.Brief]

// Every kind is kept alike: on what it was changed on, once, as a tree, undone by bursts and by who made them.
func TestEveryKind(t *testing.T) {
	kept(t, "", func(s *Store) *Kept[brief.Brief] { return s.Boxes }, named, func(b brief.Brief) string { return string(b.Name) })
	kept(t, TheShop, func(s *Store) *Kept[shop.Document] { return s.Shops }, func(name string) shop.Document {
		d := shop.Shipped()
		d.Currency = brief.Text(name)
		return d
	}, func(d shop.Document) string { return string(d.Currency) })
	kept(t, "", func(s *Store) *Kept[batch.Document] { return s.Batches }, func(name string) batch.Document {
		return batch.Document{Name: brief.Text(name), Orders: []batch.Order{{ID: "1", Box: named("in " + name).Encode(), Count: "3"}},
			Hours: map[string]brief.Text{"sat": "3"}}
	}, func(d batch.Document) string {
		box, err := brief.Decode(d.Orders[0].Box)
		if err != nil || string(box.Name) != "in "+string(d.Name) {
			t.Errorf("the order's box is %q, %v", box.Name, err)
		}
		return string(d.Name)
	})
	kept(t, "", func(s *Store) *Kept[cutlist.List] { return s.Lists }, func(name string) cutlist.List {
		return cutlist.List{Name: brief.Text(name), Sheets: []cutlist.Sheet{{ID: "1", Name: "A4"}}, Pieces: []cutlist.Piece{{ID: "1"}}}
	}, func(l cutlist.List) string { return string(l.Name) })
	note := func(name string) record.Note {
		m := madeOn("2027-03-04", name, "Wren", "right")
		return m.Note()
	}
	kept(t, "making", func(s *Store) *Kept[record.Note] { return s.Makings }, note, func(n record.Note) string { return string(n.Box) })
}

func kept[D any](t *testing.T, id string, of func(*Store) *Kept[D], doc func(string) D, name func(D) string) {
	t.Helper()
	s, ctx := open(t)
	k := of(s)
	first := "a"
	switch id {
	case "":
		id, _ = k.Create(ctx, doc("a"), "new")
	case TheShop:
		first = name(k.ships())
		if _, err := k.Save(ctx, id, "", Change[D]{Doc: doc("a")}); err != nil {
			t.Fatal(err)
		}
		k.Undo(ctx, id, Mover{Any: true})
	default:
		ids, err := s.Log.Record(ctx, madeOn("2027-03-04", "a", "", ""))
		if err != nil {
			t.Fatal(err)
		}
		id = ids[0]
	}
	head := func() Head[D] {
		t.Helper()
		h, err := k.Head(ctx, id)
		if err != nil {
			t.Fatal(k.kind, err)
		}
		return h
	}
	save := func(to, burst string) int64 {
		t.Helper()
		made, err := k.Save(As(ctx, "Ash"), id, "", Change[D]{head().ID, doc(to), "to " + to, burst})
		if err != nil {
			t.Fatal(k.kind, err)
		}
		return made
	}
	begun := head()
	if name(begun.Doc) != first {
		t.Fatalf("%s: begins as %q", k.kind, name(begun.Doc))
	}
	save("b", "")
	save("c", "w:1:x")
	save("cc", "w:1:x")
	save("d", "v:2:y")
	any := Mover{Any: true}
	for i, step := range []struct {
		do   func(string, Mover) (string, error)
		m    Mover
		want string
		says string
	}{
		{redo(t, k), any, "d", ""}, {undo(t, k), any, "cc", "to d"}, {undo(t, k), Mover{Window: "w"}, "b", "to cc"},
		{undo(t, k), any, first, "to b"}, {undo(t, k), any, first, ""}, {redo(t, k), any, "b", "to b"},
		{redo(t, k), any, "cc", "to cc"}, {redo(t, k), any, "d", "to d"},
		{undo(t, k), Mover{Window: "w"}, "d", "elsewhere"}, {undo(t, k), Mover{Window: "w", Since: begun.ID}, "d", "elsewhere"},
		{undo(t, k), Mover{Window: "w", Since: head().ID}, "cc", "to d"},
	} {
		what, err := step.do(id, step.m)
		if f := new(Foreign); errors.As(err, &f) && f.Who == "Ash" && f.What == "to d" {
			what, err = "elsewhere", nil
		}
		if got := name(head().Doc); err != nil || what != step.says || got != step.want {
			t.Fatalf("%s, step %d: %q told %q, %v; want %q told %q", k.kind, i, got, what, err, step.want, step.says)
		}
	}
	if _, err := k.Undo(As(ctx, "Wren"), id, Mover{Window: "w", Since: head().ID}); !errors.As(err, new(*Foreign)) {
		t.Errorf("%s: another's change was taken back: %v", k.kind, err)
	}
	// A change after undo begins a new branch; the old one is kept, and numbers only grow.
	made := save("e", "")
	if what, err := k.Redo(ctx, id, any); what != "" || err != nil {
		t.Errorf("%s: redo went on to a branch that was left: %q %v", k.kind, what, err)
	}
	all, err := k.History(ctx, id, made, 100)
	if err != nil || len(all) != 5 || name(all[0].Doc) != "e" || all[0].Who != "Ash" || name(all[4].Doc) != first {
		t.Errorf("%s: history of %d, %v", k.kind, len(all), err)
	}
	for i := 1; i < len(all); i++ {
		if all[i-1].ID <= all[i].ID {
			t.Errorf("%s: numbers fall", k.kind)
		}
	}
	c := Change[D]{Base: begun.ID, Doc: doc("late")}
	if _, err := k.Save(ctx, id, "", c); !errors.Is(err, ErrMoved) {
		t.Errorf("%s: made on an older one: %v", k.kind, err)
	}
	if c.Base = head().ID; k.ships == nil {
		if _, err := k.Save(ctx, "none", "", c); !errors.Is(err, ErrNone) {
			t.Errorf("%s: of nothing: %v", k.kind, err)
		}
	}
	k.Save(ctx, id, "w:1", c)
	if _, err := k.Save(ctx, id, "w:1", Change[D]{Base: head().ID, Doc: doc("again")}); !errors.Is(err, ErrArrived) {
		t.Errorf("%s: the same act twice: %v", k.kind, err)
	}
	// What is refused in one part of an act leaves nothing of the others.
	bad := s.Boxes.Begin("bad", named(strings.Repeat("x", 999)), "", nil)
	if err := s.Do(ctx, "w:2", k.Write(id, Change[D]{Base: head().ID, Doc: doc("half")}, nil), bad); !errors.As(err, new(*Refused)) {
		t.Errorf("%s: %v", k.kind, err)
	}
	if got, _ := s.Arrived(ctx, "w:2"); got || name(head().Doc) != "late" {
		t.Errorf("%s: half of an act was done: %q", k.kind, name(head().Doc))
	}
	// Thrown away, and put back; another kind's identity is nothing here.
	if err := errors.Join(k.Throw(ctx, id, true), k.Throw(ctx, id, true)); err != nil || !head().Binned {
		t.Errorf("%s: %v", k.kind, err)
	}
	if got, err := k.Recent(ctx, 9); err != nil || len(got) != 0 {
		t.Errorf("%s: what was thrown away is listed: %d, %v", k.kind, len(got), err)
	}
	k.Throw(ctx, id, false)
	if got, _ := k.Recent(ctx, 9); len(got) != 1 || got[0].Of != id {
		t.Errorf("%s: what was put back is not listed", k.kind)
	}
	other, _ := s.Boxes.Create(ctx, named("other"), "new")
	if _, err := k.Head(ctx, other); k.kind != "box" && k.ships == nil && !errors.Is(err, ErrNone) {
		t.Errorf("a box is taken for a %s", k.kind)
	}
	// What can't be read is gone back over.
	s.db.Exec(`UPDATE revisions SET body = '{' WHERE id = ?`, head().ID)
	if _, err := k.Head(ctx, id); !isBroken(err) {
		t.Fatalf("%s: %v", k.kind, err)
	}
	if _, err := k.Undo(ctx, id, Mover{}); err != nil || name(head().Doc) != "e" {
		t.Errorf("%s: gone back to %q, %v", k.kind, name(head().Doc), err)
	}
	if _, err := k.Next(ctx, head().ID); !errors.Is(err, ErrNone) {
		t.Errorf("%s: what can't be read can be brought back", k.kind)
	}
}

func undo[D any](t *testing.T, k *Kept[D]) func(string, Mover) (string, error) {
	return func(id string, m Mover) (string, error) { return k.Undo(t.Context(), id, m) }
}

func redo[D any](t *testing.T, k *Kept[D]) func(string, Mover) (string, error) {
	return func(id string, m Mover) (string, error) { return k.Redo(t.Context(), id, m) }
}

// A change of the shop and of the boxes that go with it happen together or not at all.
func TestOneAct(t *testing.T) {
	s, ctx := open(t)
	id, _ := s.Boxes.Create(ctx, named("one"), "new")
	head, _ := s.Boxes.Head(ctx, id)
	b := head.Doc.Clone()
	b.Notes = "kept as it was"
	priced := func(price string) Write {
		d := shop.Shipped()
		d.Set("cards.@kraft-300.price", price)
		return s.Shops.Write(TheShop, Change[shop.Document]{Doc: d}, nil)
	}
	price := func() string {
		now, err := s.Shops.Head(ctx, TheShop)
		if err != nil {
			t.Fatal(err)
		}
		return now.Doc.Get("cards.@kraft-300.price")
	}
	box := s.Boxes.Write(id, boxChange{Base: head.ID, Doc: b, What: "pinned"}, nil)
	stale := s.Boxes.Write(id, boxChange{Base: head.ID + 99, Doc: b}, nil)
	if err := s.Do(ctx, "", priced("5"), box, stale); !errors.Is(err, ErrMoved) {
		t.Errorf("a box was changed meanwhile: %v", err)
	}
	if now, _ := s.Boxes.Head(ctx, id); now.Doc.Notes != "" || price() != "0.16" {
		t.Error("half of it was kept")
	}
	if err := s.Do(ctx, "", priced("5"), box); err != nil {
		t.Fatal(err)
	}
	if now, _ := s.Boxes.Head(ctx, id); now.Doc.Notes != "kept as it was" || now.What != "pinned" || price() != "5" {
		t.Errorf("%+v %s", now.Doc.Notes, price())
	}
	// Which boxes a card is named by follows their newest states, undone ones too.
	uses := func(card string) int {
		using, err := s.Using(ctx, card)
		some, named, also := s.Naming(ctx, card, 9)
		if err != nil || also != nil || len(some) != named || len(using) != named {
			t.Errorf("%s: %d, %d of %d, %v %v", card, len(using), len(some), named, err, also)
		}
		return len(using)
	}
	before := uses("kraft-300")
	head, _ = s.Boxes.Head(ctx, id)
	b = head.Doc
	b.Dress.Toppers = []brief.Topper{{ID: "1", Stock: "mint-160, kraft-300"}}
	if _, err := s.Boxes.Save(ctx, id, "", boxChange{Base: head.ID, Doc: b, What: "topped"}); err != nil || uses("kraft-300") != before+1 ||
		uses("mint-160") != 1 {
		t.Errorf("a topper's cards: %v, %d", err, uses("kraft-300"))
	}
	if _, err := s.Boxes.Undo(ctx, id, Mover{Any: true}); err != nil || uses("kraft-300") != before || uses("mint-160") != 0 {
		t.Errorf("after undo: %v, %d", err, uses("kraft-300"))
	}
}

// The boxes of a batch are kept once, however often the batch is changed.
func TestLongTexts(t *testing.T) {
	s, ctx := open(t)
	d := batch.Document{Name: "Fair"}
	for n := range 30 {
		d.Add(batch.Order{Box: named(fmt.Sprint("box ", n%3)).Encode(), Count: "2"})
	}
	id, err := s.Batches.Create(ctx, d, "new")
	if err != nil {
		t.Fatal(err)
	}
	for n := range 20 {
		head, _ := s.Batches.Head(ctx, id)
		head.Doc.Notes = brief.Text(fmt.Sprint(n))
		if _, err := s.Batches.Save(ctx, id, "", Change[batch.Document]{Base: head.ID, Doc: head.Doc}); err != nil {
			t.Fatal(err)
		}
	}
	texts, _ := ask[int](ctx, s.db, `SELECT count(*) FROM texts`)
	bytes, _ := ask[int](ctx, s.db, `SELECT max(length(body)) FROM revisions`)
	if texts != 3 || bytes > 30*200 {
		t.Errorf("%d texts, a revision of %d bytes", texts, bytes)
	}
	s.db.Exec(`DELETE FROM texts WHERE text LIKE '%box 1%'`)
	if _, err := s.Batches.Head(ctx, id); !isBroken(err) {
		t.Errorf("a box is missing and nobody is told: %v", err)
	}
}
