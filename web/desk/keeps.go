package desk

import (
	"errors"
	"net/http"
	"strconv"

	"github.com/labstack/echo/v5"

	"brevium/store"
)

// Keeps are the handlers that every kind has.
type Keeps[D any] struct {
	*Desk
	Of func(*echo.Context) Kind[D]
}

// KeepsOf gives the handlers of a kind.
func KeepsOf[D any](d *Desk, of func(*echo.Context) Kind[D]) Keeps[D] { return Keeps[D]{d, of} }

// Change lays what a form holds on the newest state, and does what its button asks.
func (p Keeps[D]) Change(c *echo.Context) error {
	values, err := c.FormValues()
	if err != nil {
		return err
	}
	k := p.Of(c)
	head, e, err := Edit(p.Desk, c, k, func(head *store.Head[D]) (Edited[D], error) {
		return merged(c.Request().Context(), k, head, values)
	})
	return k.Answer(c, head, e, err)
}

// Undo takes the newest change back, or tells of one that is another window's.
func (p Keeps[D]) Undo(c *echo.Context) error { return p.move(c, true) }

// Redo makes again what was taken back last.
func (p Keeps[D]) Redo(c *echo.Context) error { return p.move(c, false) }

func (p Keeps[D]) move(c *echo.Context, back bool) error {
	k := p.Of(c)
	head, e, err := moveHead(c, k, back)
	return k.Answer(c, head, e, err)
}

// Routes are the lines of a kind in the table of routes, at an address; of a form that may bring so many bytes.
func (p Keeps[D]) Routes(at string, lets Lets) []Route {
	return []Route{{http.MethodPost, at + "/change", p.Change, lets}, {http.MethodPost, at + "/undo", p.Undo, Lets{}},
		{http.MethodPost, at + "/redo", p.Redo, Lets{}}}
}

// Throws are the lines of a kind that can be thrown away and put back.
func (p Keeps[D]) Throws(at string) []Route {
	return []Route{{http.MethodPost, at + "/away", p.Throw(true), Lets{}}, {http.MethodPost, at + "/back", p.Throw(false), Lets{}}}
}

// Page shows the newest state.
func (p Keeps[D]) Page(c *echo.Context) error {
	k := p.Of(c)
	id, part := k.Of(c)
	head, err := k.Head(c.Request().Context(), id)
	if errors.Is(err, store.ErrNone) {
		return echo.NewHTTPError(http.StatusNotFound, "This "+k.Form.Name+" doesn't exist.")
	}
	if err != nil {
		return err
	}
	return k.Show(c, http.StatusOK, head, Edited[D]{Part: part})
}

// Throw throws a document away, or puts it back.
func (p Keeps[D]) Throw(away bool) echo.HandlerFunc {
	return func(c *echo.Context) error {
		k := p.Of(c)
		id, part := k.Of(c)
		if err := k.Throw(c.Request().Context(), id, away); err != nil {
			return err
		}
		return c.Redirect(http.StatusSeeOther, k.At(c, id, part))
	}
}

// Answer shows a document after something was done to it, or goes back to it where no script runs and there is nothing
// to tell.
func (k Kind[D]) Answer(c *echo.Context, head store.Head[D], e Edited[D], err error) error {
	switch {
	case err != nil:
		return err
	case IsScript(c): // htmx swaps only what succeeded; a conflict is shown like any answer
		return k.Show(c, http.StatusOK, head, e)
	case len(e.conflicts) > 0:
		return k.Show(c, http.StatusConflict, head, e)
	case e.Notice != "" || e.foreign != nil:
		return k.Show(c, http.StatusOK, head, e)
	}
	return c.Redirect(http.StatusSeeOther, k.At(c, head.Of, e.Part))
}

// moveHead takes the newest change of a document back, or brings it back again, and tells of one that is another's.
func moveHead[D any](c *echo.Context, k Kind[D], back bool) (head store.Head[D], e Edited[D], err error) {
	ctx := c.Request().Context()
	id, part := k.Of(c)
	e.Part = part
	since, _ := strconv.ParseInt(c.FormValue("since"), 10, 64)
	m := store.Mover{Act: ActName(c), Window: short(c.FormValue("window")), Since: since,
		Any: c.FormValue("any") == "yes" || c.FormValue("since") == ""}
	if back {
		_, err = k.Undo(ctx, id, m)
	} else {
		_, err = k.Redo(ctx, id, m)
	}
	if errors.As(err, &e.foreign) || errors.Is(err, store.ErrArrived) {
		err = nil
	}
	if err != nil {
		return head, e, err
	}
	if id == store.TheShop {
		ShopMoved(ctx)
	}
	head, err = k.Head(ctx, id)
	return head, e, err
}
