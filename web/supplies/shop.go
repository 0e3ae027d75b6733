package supplies

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/brief"
	"brevium/core/document"
	"brevium/core/measure"
	"brevium/core/shop"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/workbench"
)

// The shop is a page like a box's workbench: what is typed is kept as it goes, undone
// and merged with what other windows did.

// shopParts are the parts of the shop, in the order of its rail.
var shopParts = []struct{ ID, Title string }{
	{"cards", "Card and paper"}, {"offcuts", "Offcuts"}, {"tools", "Tools"}, {"habits", "My habits"}, {"fit",
		"How lids fitted"}, {"prices", "Prices"},
}

// shopView is what the address says of how the shop is looked at.
type shopView struct{ Stage, Card string }

func shopViewOf(c *echo.Context) shopView {
	v := shopView{Stage: shopParts[0].ID, Card: c.QueryParam("card")}
	for _, p := range shopParts {
		if p.ID == c.QueryParam("part") {
			v.Stage = p.ID
		}
	}
	return v
}

// Link gives the address of this view with some of it changed.
func (v shopView) Link(pairs ...string) string {
	q := url.Values{"part": {v.Stage}}
	if v.Card != "" && v.Stage == "cards" {
		q.Set("card", v.Card)
	}
	for i := 0; i+1 < len(pairs); i += 2 {
		if q.Set(pairs[i], pairs[i+1]); pairs[i+1] == "" {
			q.Del(pairs[i])
		}
	}
	return "?" + q.Encode()
}

// ShopKind is what the engine needs to know to change the shop.
func (s *Room) ShopKind(*echo.Context) desk.Kind[shop.Document] {
	return desk.Kind[shop.Document]{
		Kept: s.Store.Shops, Form: shop.Form, Known: desk.InForm(shop.Form), Written: shopText, Nudged: nudgeShop, Act: s.actShop,
		Of:     func(c *echo.Context) (string, string) { return store.TheShop, "" },
		Says:   func(was, now *shop.Document, _ string) string { return desk.Changed(shop.Form, was, now) },
		Settle: s.settleShop, Show: s.showShop,
		At: func(c *echo.Context, _, card string) string {
			v := shopViewOf(c)
			v.Card = cmp.Or(card, v.Card)
			return "/shop" + v.Link()
		},
		Busy: "Your supplies are being changed in another window, so this was not saved. Try again.",
	}
}

func (s *Room) ShopPage(c *echo.Context) error {
	head, err := s.Store.Shops.Head(c.Request().Context(), store.TheShop)
	if err != nil && !errors.As(err, new(*store.Broken)) {
		return err
	}
	return s.showShop(c, http.StatusOK, head, desk.Edited[shop.Document]{})
}

// settleShop keeps, in the boxes made of a card whose numbers are changed, the card as it was, in the same commit.
func (s *Room) settleShop(ctx context.Context, c *desk.Changing[shop.Document]) error {
	pins, err := s.pins(ctx, &c.Head.Doc, &c.Doc)
	c.Besides = append(c.Besides, pins...)
	if len(pins) > 0 && c.Notice == "" {
		c.Notice = fmt.Sprintf("%s the old numbers of this card. To change that, press “Use the new numbers” at the side.",
			desk.PlainCount(len(pins), "box keeps", "boxes keep"))
	}
	return err
}

// AlterShop does one thing to the shop that is typed in none of its fields.
func (s *Room) AlterShop(c *echo.Context, do desk.Making[shop.Document]) (
	store.Head[shop.Document], desk.Edited[shop.Document], error) {
	return desk.Edit(s.Desk, c, s.ShopKind(c), do)
}

// shopText writes a field as the shop keeps it: a length with its unit, anything else as typed.
func shopText(path, text string, _, head *shop.Document) string {
	f, _ := shop.FieldAt(path)
	if text = strings.TrimSpace(text); f.Kind != document.Distance {
		return text
	}
	units := head.Units()
	if desk.IsThickness(path) {
		units = measure.Millimetres
	}
	l, own, err := measure.ParseUnit(text, units)
	if err != nil {
		return text
	}
	// What is typed without a unit under a thickness that stands there in another is meant in that.
	if bare := strings.Trim(text, "0123456789./ -") == ""; bare {
		if _, was, err := measure.ParseUnit(head.Get(path), units); err == nil && was != own {
			if in, err := measure.Parse(text, was); err == nil {
				l, own = in, was
			}
		}
	}
	return l.Exact(own)
}

// nudgeShop moves a length of the shop by steps.
func nudgeShop(d *shop.Document, nudge, _ string) (document.Conflict, bool) {
	path, n := desk.NudgeSaid(nudge)
	f, ok := shop.FieldAt(path)
	l, own, err := measure.ParseUnit(d.Get(path), d.Units())
	if !ok || n == 0 || err != nil || f.Kind != document.Distance {
		return document.Conflict{}, true
	}
	step := measure.DefaultStep(own).Size
	if strings.HasSuffix(path, ".caliper") {
		step = measure.Millimetre / 100
	}
	d.Set(path, max(step, l+measure.Length(n)*step).Exact(own))
	return document.Conflict{}, true
}

// pins keeps, in the boxes that are made of a card whose numbers are changed, the card as it was: their numbers move
// only when that is asked for.
func (s *Room) pins(ctx context.Context, was, now *shop.Document) (out []store.Write, err error) {
	changed := map[string]*store.BoxRev{}
	var order []string
	for _, old := range was.Cards {
		i := now.Of(old.ID)
		if i < 0 || workbench.SameNumbers(old, now.Cards[i]) {
			continue
		}
		all, err := s.Store.Using(ctx, old.ID)
		if err != nil {
			return nil, err
		}
		for _, rev := range all {
			if workbench.OwnCard(&rev.Doc, old.ID) >= 0 {
				continue // it keeps an older one already
			}
			c := changed[rev.Of]
			if c == nil {
				rev.Doc = rev.Doc.Clone()
				c = &rev
				changed[rev.Of], order = c, append(order, rev.Of)
			}
			c.Doc.Card.Own = append(c.Doc.Card.Own, old)
			c.What = fmt.Sprintf("It keeps the old numbers of %s",
				desk.Called(string(old.Title), "its card"))
			if c.Doc.Check() != nil { // too full of cards to say one more
				delete(changed, rev.Of)
			}
		}
	}
	for _, id := range order {
		if c := changed[id]; c != nil {
			out = append(out, s.Store.Boxes.Write(id, store.Change[brief.Brief]{Base: c.ID, Doc: c.Doc, What: c.What}, nil))
		}
	}
	return out, nil
}
