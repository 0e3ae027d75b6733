package workbench

import (
	"context"
	"slices"

	"brevium/core/brief"
	"brevium/core/shop"
	"brevium/store"
)

// DropOwn takes a card out of those a document describes itself.
func DropOwn(b *brief.Brief, id string) {
	drop := func(of []brief.Stock) []brief.Stock {
		return slices.DeleteFunc(slices.Clone(of), func(c brief.Stock) bool { return c.ID == id })
	}
	b.Card.Own = drop(b.Card.Own)
	if b.Several == nil {
		return
	}
	for i := range b.Several.Boxes {
		if c := b.Several.Boxes[i].Card; c != nil {
			own := *c
			own.Own = drop(own.Own)
			b.Several.Boxes[i].Card = &own
		}
	}
}

// numbers are the fields of a card that a plan's numbers hang on.
var numbers = []string{"caliper", "ten", "gsm", "bulk", "kind", "grain", "pattern", "sheets"}

func SameNumbers(a, b brief.Stock) bool {
	one, other := shop.Document{Cards: []brief.Stock{a}}, shop.Document{Cards: []brief.Stock{b}}
	return !slices.ContainsFunc(numbers, func(name string) bool { return one.Get("cards.0."+name) != other.Get("cards.0."+name) })
}

// OwnCard finds a card among those a document describes itself, -1 when it does not.
func OwnCard(b *brief.Brief, id string) int {
	return slices.IndexFunc(b.Card.Own, func(c brief.Stock) bool { return c.ID == id })
}

// keepOwn adds a card that a box brings along to those of the shop.
func keepOwn(ctx context.Context, c *pressed) error {
	i := OwnCard(&c.Doc, c.Arg)
	if i < 0 {
		c.Notice = "That card is gone. Someone changed it in another window."
		return nil
	}
	own := c.Doc.Card.Own[i]
	head, err := c.room.Store.Shops.Head(ctx, store.TheShop)
	if err != nil {
		return err
	}
	c.Notice = string(own.Title) + " was added to Supplies."
	if head.Doc.Of(own.ID) >= 0 {
		return nil // it is there already
	}
	d := head.Doc.Clone()
	d.Cards = append([]brief.Stock{own}, d.Cards...)
	if _, r := shop.Read(d); len(r.Problems) > 0 {
		c.Notice = "It was not added: " + r.Problems[0].Text
		return nil
	}
	c.Besides = append(c.Besides, c.room.Store.Shops.Write(store.TheShop, store.Change[shop.Document]{Base: head.ID, Doc: d,
		What: string(own.Title) + " added from a box"}, nil))
	return nil
}
