package store

import (
	"errors"
	"path/filepath"
	"testing"

	"brevium/core/brief"
	"brevium/core/shop"
)

func priced(d shop.Document, price string) shop.Document {
	d = d.Clone()
	d.Set("cards.@kraft-300.price", price)
	return d
}

func price(t *testing.T, s *Store) string {
	t.Helper()
	now, err := s.Shop(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	return now.Document.Get("cards.@kraft-300.price")
}

// The shop is kept as boxes are: on what it was made on, once, undone by bursts.
func TestShopIsKept(t *testing.T) {
	s, ctx := open(t)
	d := shop.Shipped()
	one, err := s.SaveShop(ctx, ShopChange{Document: priced(d, "1"), What: "one", ID: "w:1"})
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.SaveShop(ctx, ShopChange{Document: priced(d, "2"), ID: "w:2"}); !errors.Is(err, ErrMoved) {
		t.Errorf("made on an older one: %v", err)
	}
	if _, err := s.SaveShop(ctx, ShopChange{Base: one, Document: priced(d, "2"), ID: "w:1"}); !errors.Is(err, ErrArrived) {
		t.Errorf("the same change twice: %v", err)
	}
	two, _ := s.SaveShop(ctx, ShopChange{Base: one, Document: priced(d, "2"), Burst: "b"})
	three, _ := s.SaveShop(ctx, ShopChange{Base: two, Document: priced(d, "3"), Burst: "b"})
	for i, step := range []struct {
		do   func() error
		want string
	}{
		{func() error { return s.UndoShop(ctx, "") }, "1"}, {func() error { return s.UndoShop(ctx, "") }, "0.16"},
		{func() error { return s.UndoShop(ctx, "") }, "0.16"}, {func() error { return s.RedoShop(ctx, "") }, "1"},
		{func() error { return s.RedoShop(ctx, "") }, "3"}, {func() error { return s.RedoShop(ctx, "") }, "3"},
	} {
		if err := step.do(); err != nil || price(t, s) != step.want {
			t.Errorf("step %d: %v, %s", i, err, price(t, s))
		}
	}
	if all, err := s.ShopHistory(ctx, three, 10); err != nil || len(all) != 4 || all[3].What != "The shop that ships" {
		t.Errorf("%v %+v", err, all)
	}
	copied := filepath.Join(t.TempDir(), "copy.db")
	if err := s.Backup(ctx, copied); err != nil {
		t.Fatal(err)
	}
	if again := at(t, copied); price(t, again) != "3" {
		t.Error("a copy has another shop")
	}
	bad := d.Clone()
	bad.Cards = append(bad.Cards, bad.Cards[0])
	if refused := new(Refused); !errors.As(func() error {
		_, err := s.SaveShop(ctx,
			ShopChange{Base: three, Document: bad})
		return err
	}(), &refused) {
		t.Error("a card twice is kept")
	}
}

// A change of the shop and of the boxes that go with it happen together or not at all;
// what can't be read keeps no later one from being made.
func TestShopAndBoxesTogether(t *testing.T) {
	s, ctx := open(t)
	id, err := s.Create(ctx, named("one"), "new")
	if err != nil {
		t.Fatal(err)
	}
	head, _ := s.Head(ctx, id)
	b := head.Brief.Clone()
	b.Notes = "kept as it was"
	box := BoxChange{Project: id, Base: head.ID, Brief: b, What: "pinned"}
	stale := box
	stale.Base += 99
	if _, err := s.SaveShop(ctx, ShopChange{Document: priced(shop.Shipped(), "5"),
		Boxes: []BoxChange{box, stale}}); !errors.Is(err, ErrMoved) {
		t.Errorf("a box was changed meanwhile: %v", err)
	}
	if now, _ := s.Head(ctx, id); now.Brief.Notes != "" || price(t, s) != "0.16" {
		t.Error("half of it was kept")
	}
	if _, err := s.SaveShop(ctx, ShopChange{Document: priced(shop.Shipped(), "5"), Boxes: []BoxChange{box}}); err != nil {
		t.Fatal(err)
	}
	if now, _ := s.Head(ctx, id); now.Brief.Notes != "kept as it was" || now.What != "pinned" || price(t, s) != "5" {
		t.Errorf("%+v %s", now.Brief.Notes, price(t, s))
	}
	if using, err := s.Using(ctx, `"kept as it was"`); err != nil || len(using) != 1 ||
		using[0].Brief.Name != brief.Text("one") {
		t.Errorf("%v %+v", err, using)
	}
	s.db.Exec(`UPDATE shop_revisions SET document = '{' WHERE id = (SELECT head FROM shop)`)
	_, err = s.Shop(ctx)
	if broken := new(Broken); !errors.As(err, &broken) {
		t.Errorf("a damaged shop: %v", err)
	}
	now, _ := s.ShopNow(ctx)
	if _, err := s.SaveShop(ctx, ShopChange{Base: now, Document: priced(shop.Shipped(), "6")}); err != nil ||
		price(t, s) != "6" {
		t.Errorf("after a damaged one: %v", err)
	}
}
