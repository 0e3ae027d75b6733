package desk

import (
	"context"
	"errors"
	"fmt"
	"sync"
	"sync/atomic"

	"github.com/labstack/echo/v5"

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

// shopHere is the shop as a request found it: all that one answer shows is of one state of it.
type shopHere struct {
	sync.Mutex
	read *ReadShop
}

type shopKey struct{}

// WithShop gives a request a place for the shop it is answered with.
func WithShop(ctx context.Context) context.Context {
	return context.WithValue(ctx, shopKey{}, &shopHere{})
}

func withShop(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		c.SetRequest(c.Request().WithContext(WithShop(c.Request().Context())))
		return next(c)
	}
}

// ShopMoved is called after a request has changed the shop itself: what it shows from here on is of the new one.
func ShopMoved(ctx context.Context) {
	if here, ok := ctx.Value(shopKey{}).(*shopHere); ok {
		here.Lock()
		defer here.Unlock()
		here.read = nil
	}
}

// ShopNow gives the shop as it is now; for a request, as it was when the request first asked.
func (s *Desk) ShopNow(ctx context.Context) (*ReadShop, error) {
	here, ok := ctx.Value(shopKey{}).(*shopHere)
	if !ok {
		return s.readShop(ctx)
	}
	here.Lock()
	defer here.Unlock()
	if here.read != nil {
		return here.read, nil
	}
	read, err := s.readShop(ctx)
	here.read = read
	return read, err
}

func (s *Desk) readShop(ctx context.Context) (*ReadShop, error) {
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
		s.Log.Error("the supplies file is damaged", "err", err)
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
func (s *Desk) Workshop(ctx context.Context) request.Workshop {
	now, err := s.ShopNow(ctx)
	if err == nil {
		return now.Workshop
	}
	s.Log.Error("the supplies were not read", "err", err)
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
func (s *Desk) Program(ctx context.Context) string {
	if now, err := s.ShopNow(ctx); err == nil && now.ID > 0 {
		return fmt.Sprintf("%s-%d", s.build, now.ID)
	}
	return s.build
}
