package web

import (
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/shop"
	"brevium/core/words"
	"brevium/store"
)

// “Cut it”: what is cut is taken from the shop's list, and what is left of it put there.

// cutUp takes sheets and used offcuts from a shop and puts the offcuts in that are left.
// It says what it did.
func cutUp(d *shop.Document, w plan.Workshop, cuts []plan.Cut, from string, unit measure.Unit) (says string) {
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
	kept := leftOf(cuts, from, unit)
	d.Offcuts = append(d.Offcuts, kept...)
	says = plainCount(whole, "sheet", "sheets")
	if used > 0 {
		says += " and " + plainCount(used, "offcut", "offcuts")
	}
	return fmt.Sprintf("%s taken, %s put in", says, plainCount(len(kept), "offcut", "offcuts"))
}

// leftOf lists the offcuts of what is cut, the largest of each sheet first.
func leftOf(cuts []plan.Cut, from string, unit measure.Unit) (out []shop.Offcut) {
	for _, c := range cuts {
		for _, sheet := range c.Sheets {
			for _, r := range sheet.Offcuts {
				if len(out) < mostKept {
					out = append(out, shop.Offcut{ID: newMark(), Card: brief.Text(c.Card.ID), Width: brief.Text(r.W.Exact(unit)),
						Height: brief.Text(r.H.Exact(unit)), From: brief.Text(words.Cut(from, 80))})
				}
			}
		}
	}
	return out
}

// takeFromShop does it as one change of the shop, which can be undone.
func (s *Server) takeFromShop(c *echo.Context, cuts []plan.Cut, from string, unit measure.Unit) (says string, err error) {
	_, err = s.editShop(c, func(head store.Shop) (editedShop, error) {
		e := editedShop{doc: head.Document.Clone()}
		says = cutUp(&e.doc, s.workshop(), cuts, from, unit)
		e.what = fmt.Sprintf("Cut %s: %s", called(from, nameless), words.Small(says))
		return e, nil
	})
	return says, err
}

// cutIt takes what a box is cut from out of the shop.
func (s *Server) cutIt(c *echo.Context) error {
	st, err := s.state(c)
	if err != nil {
		return err
	}
	if st.Shown == nil || !st.Plan.OK() {
		return echo.NewHTTPError(http.StatusNotFound, "There is no plan to cut yet.")
	}
	says, err := s.takeFromShop(c, cutsOf(st), string(st.Brief.Name), st.Plan.Units)
	if err != nil {
		return err
	}
	if st, err = s.state(c); err != nil {
		return err
	}
	st.Notice, st.Cut = says+": that is what is on the list of the shop now.", true
	return s.answer(c, http.StatusOK, st)
}

// uncut puts the shop back as it was before.
func (s *Server) uncut(c *echo.Context) error {
	if err := s.store.UndoShop(c.Request().Context(), changeID(c)); err != nil {
		return err
	}
	st, err := s.state(c)
	if err != nil {
		return err
	}
	st.Notice = "The shop is as it was: sheets and offcuts are back."
	return s.answer(c, http.StatusOK, st)
}

// cutsOf is what a box is cut from, of a set all of it.
func cutsOf(st *state) (out []plan.Cut) {
	if st.Set == nil || !st.Set.OK() {
		return st.Plan.Cuts
	}
	for _, l := range st.Set.Layouts {
		out = append(out, l.Cut)
	}
	return out
}

// shoppingCSV lists what is to be bought for a box.
func (s *Server) shoppingCSV(c *echo.Context) error {
	st, err := s.state(c)
	if err != nil {
		return err
	}
	if !st.Plan.OK() {
		return echo.NewHTTPError(http.StatusNotFound, "There is no plan to buy for yet.")
	}
	return s.shoppingOf(c, cutsOf(st))
}

func (s *Server) shoppingOf(c *echo.Context, cuts []plan.Cut) error {
	asFile(c, "shopping.csv")
	return shop.WriteShopping(c.Response(), shop.Shopping(needsOf(cuts, s.workshop())))
}

func asFile(c *echo.Context, name string) {
	h := c.Response().Header()
	h.Set(echo.HeaderContentType, "text/csv; charset=utf-8")
	h.Set(echo.HeaderContentDisposition, fmt.Sprintf("attachment; filename=%q", name))
}

// stashCSV lists what is in hand.
func (s *Server) stashCSV(c *echo.Context) error {
	now, err := s.shopNow(c.Request().Context())
	if err != nil {
		return err
	}
	asFile(c, "stash.csv")
	w := now.Workshop
	return w.WriteStash(c.Response(), now.Document.Units())
}

// needsOf is what cuts take of the shop: of cards as they are there now, whatever a box
// was planned with.
func needsOf(cuts []plan.Cut, w plan.Workshop) (out []shop.Need) {
	for _, c := range cuts {
		if c.Offcut || len(c.Sheets) == 0 {
			continue
		}
		if now, ok := w.Card(c.Card.ID); ok {
			c.Card = now
		}
		out = append(out, shop.Need{Card: c.Card, Sheet: c.Sheet, Count: len(c.Sheets)})
	}
	return out
}
