package supplies

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/brief"
	"brevium/core/costs"
	"brevium/core/cutting"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/core/words"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/workbench"
)

// “Cut it”: what is cut is taken from the shop's list, and what is left of it put there.

// cutUp takes sheets and used offcuts from a shop and puts the offcuts in that are left.
// It says what it did.
func cutUp(d *shop.Document, w request.Workshop, cuts []cutting.Cut, from string, unit measure.Unit) (says string) {
	whole, used := 0, 0
	for _, c := range cuts {
		if c.Offcut {
			used += len(c.Sheets)
			d.Offcuts = slices.DeleteFunc(d.Offcuts, func(o shop.Offcut) bool { return o.ID == c.Kept })
			continue
		}
		whole += len(c.Sheets)
		at := d.Of(c.Card.ID)
		if card, known := w.Card(c.Card.ID); at < 0 || !known || !card.First().Same(c.Sheet) {
			continue
		}
		if n, err := strconv.Atoi(strings.TrimSpace(string(d.Cards[at].Hand))); err == nil {
			d.Cards[at].Hand = brief.Text(strconv.Itoa(max(0, n-len(c.Sheets))))
		}
	}
	kept, all := leftOf(cuts, from, unit)
	d.Offcuts = append(d.Offcuts, kept...)
	says = desk.PlainCount(whole, "sheet", "sheets")
	if used > 0 {
		says += " and " + desk.PlainCount(used, "offcut", "offcuts")
	}
	return fmt.Sprintf("%s taken, %s put in", says, keptSaid(len(kept), all))
}

// mostKept is how many offcuts are kept at once.
const mostKept = 24

// leftOf lists the offcuts of what is cut, the largest first, as many as are kept, and
// says how many there are.
func leftOf(cuts []cutting.Cut, from string, unit measure.Unit) (out []shop.Offcut, all int) {
	type left struct {
		card string
		layout.Rect
	}
	var rests []left
	for _, c := range cuts {
		for _, sheet := range c.Sheets {
			for _, r := range sheet.Offcuts {
				rests = append(rests, left{c.Card.ID, r})
			}
		}
	}
	slices.SortStableFunc(rests, func(a, b left) int { return cmp.Compare(b.Area(), a.Area()) })
	for _, r := range rests[:min(len(rests), mostKept)] {
		out = append(out, shop.Offcut{ID: desk.NewMark(), Card: brief.Text(r.card), Width: brief.Text(r.W.Exact(unit)),
			Height: brief.Text(r.H.Exact(unit)), From: brief.Text(words.Cut(from, 80))})
	}
	return out, len(rests)
}

// keptSaid tells how many offcuts are kept.
func keptSaid(kept, all int) string {
	if kept < all {
		return fmt.Sprintf("the largest %d of %d offcuts", kept, all)
	}
	return desk.PlainCount(kept, "offcut", "offcuts")
}

// takeFromShop does it as one change of the shop, which can be undone, and gives the state
// of the shop it made; 0 when it had been done before.
func (s *Room) takeFromShop(c *echo.Context, cuts []cutting.Cut, from string, unit measure.Unit) (made int64, err error) {
	head, e, err := s.AlterShop(c, func(head *store.Head[shop.Document]) (desk.Edited[shop.Document], error) {
		e := desk.Edited[shop.Document]{Doc: head.Doc.Clone(), Alone: true}
		says := cutUp(&e.Doc, s.Workshop(c.Request().Context()), cuts, from, unit)
		e.What = fmt.Sprintf("Cut %s: %s", desk.Called(from, desk.Nameless), words.Small(says))
		return e, nil
	})
	if err != nil || e.What == "" {
		return 0, err
	}
	return head.ID, nil
}

// CutIt takes what a box is cut from out of the shop.
func (s *Room) CutIt(c *echo.Context, st *workbench.State) error {
	made, err := s.takeFromShop(c, workbench.CutsOf(st), string(st.Brief.Name), st.Plan.Units)
	if err != nil {
		return err
	}
	if st, err = s.Work.State(c); err != nil {
		return err
	}
	st.Cut, st.Notice = s.justCut(c.Request().Context(), made)
	return s.Work.Answer(c, http.StatusOK, st)
}

// justCut tells of a state of the shop that a cut made, as long as it is the newest.
func (s *Room) justCut(ctx context.Context, made int64) (cut int64, notice string) {
	head, err := s.Store.Shops.Head(ctx, store.TheShop)
	if err != nil || made == 0 || head.ID != made {
		return 0, ""
	}
	return made, head.What + ". Your supplies are up to date."
}

// backSays is what a page says of a cut that was to be taken back.
var backSays = map[string]string{"back": "Sheets and offcuts are back in your supplies.",
	"since": "Your supplies have changed since, so nothing was put back. Undo it there."}

// putBackCut takes a cut back, if nothing was done in the shop since: which of backSays is
// to be said.
func (s *Room) putBackCut(c *echo.Context) (said string, err error) {
	ctx := c.Request().Context()
	made, _ := strconv.ParseInt(c.FormValue("shop"), 10, 64)
	now, err := s.Store.Shops.At(ctx, store.TheShop)
	if err != nil {
		return "", err
	}
	if made == 0 || now != made {
		return "since", nil
	}
	if _, err := s.Store.Shops.Undo(ctx, store.TheShop, store.Mover{Act: desk.ActName(c), Any: true}); err != nil &&
		!errors.Is(err, store.ErrArrived) {
		return "", err
	}
	desk.ShopMoved(ctx)
	return "back", nil
}

// Uncut puts the shop back as it was before.
func (s *Room) Uncut(c *echo.Context) error {
	said, err := s.putBackCut(c)
	if err != nil {
		return err
	}
	st, err := s.Work.State(c)
	if err != nil {
		return err
	}
	st.Notice = backSays[said]
	return s.Work.Answer(c, http.StatusOK, st)
}

// ShoppingCSV lists what is to be bought for a box.
func (s *Room) ShoppingCSV(c *echo.Context, st *workbench.State) error {
	return shoppingOf(c, s.Workshop(c.Request().Context()), workbench.CutsOf(st))
}

func shoppingOf(c *echo.Context, w request.Workshop, cuts []cutting.Cut) error {
	desk.AsFile(c, "shopping.csv")
	return shop.WriteShopping(c.Response(), shop.Shopping(costs.Needs(cuts, w)))
}

// StashCSV lists what is in hand.
func (s *Room) StashCSV(c *echo.Context) error {
	now, err := s.ShopNow(c.Request().Context())
	if err != nil {
		return err
	}
	desk.AsFile(c, "stash.csv")
	w := now.Workshop
	return w.WriteStash(c.Response(), now.Doc.Units())
}
