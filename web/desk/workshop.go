package desk

import (
	"context"
	"errors"
	"fmt"
	"sync/atomic"

	"brevium/core/brief"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/store"
)

// shops keeps the maker's shop as it was last read: a plan reads none of its five
// hundred cards again.
type shops struct {
	first request.Workshop // until anything is changed
	Last  atomic.Pointer[ReadShop]
}

// ReadShop is a state of the shop with what was read of it.
type ReadShop struct {
	store.Head[shop.Document]
	Workshop request.Workshop
	Report   *brief.Report
}

// ShopNow gives the shop as it is now.
func (s *Desk) ShopNow(ctx context.Context) (*ReadShop, error) {
	id, err := s.Store.Shops.At(ctx, store.TheShop)
	if err != nil {
		return nil, err
	}
	if last := s.Shops.Last.Load(); last != nil && last.ID == id {
		return last, nil
	}
	head, err := s.Store.Shops.Head(ctx, store.TheShop)
	if broken := new(store.Broken); errors.As(err, &broken) {
		// What can't be read keeps no box from being made: the shop that ships stands in.
		s.Log.Error("the shop can't be read", "err", err)
		head = store.Head[shop.Document]{Revision: store.Revision[shop.Document]{ID: id, Doc: shop.Shipped()}}
	} else if err != nil {
		return nil, err
	}
	r := ReadAs(head)
	if head.ID == 0 && len(s.Shops.first.Cards) > 0 {
		r.Workshop = s.Shops.first
	}
	s.Shops.Last.Store(r)
	s.Fates.Kept.Purge() // what gave a plan may give none now
	return r, nil
}

func ReadAs(head store.Head[shop.Document]) *ReadShop {
	read, report := shop.Read(head.Doc)
	return &ReadShop{head, request.Workshop{Shop: *read}, report}
}

// Workshop is what plans are made with. While the database can't be read it is what
// it was before.
func (s *Desk) Workshop() request.Workshop {
	now, err := s.ShopNow(context.Background())
	if err == nil {
		return now.Workshop
	}
	s.Log.Error("the shop was not read", "err", err)
	if last := s.Shops.Last.Load(); last != nil {
		return last.Workshop
	}
	return s.Shops.first
}

// lastRead is the shop as it was last read: for what a page shows of it many times.
func (s *Desk) lastRead() request.Workshop {
	if last := s.Shops.Last.Load(); last != nil {
		return last.Workshop
	}
	return s.Shops.first
}

// Program tells pictures and lists that were made by this program, with this shop,
// from any others.
func (s *Desk) Program() string {
	if now, err := s.ShopNow(context.Background()); err == nil && now.ID > 0 {
		return fmt.Sprintf("%s-%d", s.build, now.ID)
	}
	return s.build
}
