package web

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
	last  atomic.Pointer[readShop]
}

// readShop is a state of the shop with what was read of it.
type readShop struct {
	store.Head[shop.Document]
	Workshop request.Workshop
	Report   *brief.Report
}

// shopNow gives the shop as it is now.
func (s *Server) shopNow(ctx context.Context) (*readShop, error) {
	id, err := s.store.Shops.At(ctx, store.TheShop)
	if err != nil {
		return nil, err
	}
	if last := s.shops.last.Load(); last != nil && last.ID == id {
		return last, nil
	}
	head, err := s.store.Shops.Head(ctx, store.TheShop)
	if broken := new(store.Broken); errors.As(err, &broken) {
		// What can't be read keeps no box from being made: the shop that ships stands in.
		s.log.Error("the shop can't be read", "err", err)
		head = store.Head[shop.Document]{Revision: store.Revision[shop.Document]{ID: id, Doc: shop.Shipped()}}
	} else if err != nil {
		return nil, err
	}
	r := readAs(head)
	if head.ID == 0 && len(s.shops.first.Cards) > 0 {
		r.Workshop = s.shops.first
	}
	s.shops.last.Store(r)
	s.fates.kept.Purge() // what gave a plan may give none now
	return r, nil
}

func readAs(head store.Head[shop.Document]) *readShop {
	read, report := shop.Read(head.Doc)
	return &readShop{head, request.Workshop{Shop: *read}, report}
}

// workshop is what plans are made with. While the database can't be read it is what
// it was before.
func (s *Server) workshop() request.Workshop {
	now, err := s.shopNow(context.Background())
	if err == nil {
		return now.Workshop
	}
	s.log.Error("the shop was not read", "err", err)
	if last := s.shops.last.Load(); last != nil {
		return last.Workshop
	}
	return s.shops.first
}

// lastRead is the shop as it was last read: for what a page shows of it many times.
func (s *Server) lastRead() request.Workshop {
	if last := s.shops.last.Load(); last != nil {
		return last.Workshop
	}
	return s.shops.first
}

// program tells pictures and lists that were made by this program, with this shop,
// from any others.
func (s *Server) program() string {
	if now, err := s.shopNow(context.Background()); err == nil && now.ID > 0 {
		return fmt.Sprintf("%s-%d", s.build, now.ID)
	}
	return s.build
}
