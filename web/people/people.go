package people

import (
	"cmp"
	"errors"
	"fmt"
	"net/http"
	"strings"

	"github.com/alexedwards/argon2id"
	"github.com/labstack/echo/v5"

	"brevium/core/words"
	"brevium/store"
	"brevium/web/desk"
)

// More than one person: where others can reach Brevium, they are asked for the passphrase, and say
// who they are.

func (s *Room) EnterPage(c *echo.Context) error { return s.EnterWith(c, http.StatusOK, "") }

func (s *Room) EnterWith(c *echo.Context, code int, problem string) error {
	if !s.Asked(c.Request()) {
		return c.Redirect(http.StatusSeeOther, "/")
	}
	hash, err := s.Store.Setting(c.Request().Context(), store.Passphrase)
	if err != nil {
		return err
	}
	v := &enterPage{desk.Page{Title: "Enter the passphrase", Shared: true}, desk.BackTo(cmp.Or(c.FormValue("to"),
		c.QueryParam("to"))), problem, words.Cut(c.FormValue("who"), 40), hash != ""}
	if !v.Set {
		v.Title = "Brevium doesn't know this device"
	}
	return s.Render(c, code, "enter", v)
}

// enterPage asks for the passphrase, where one is set.
type enterPage struct {
	desk.Page
	To, Problem, Who string
	Set              bool
}

// Enter lets somebody in who knows the passphrase.
func (s *Room) Enter(c *echo.Context) error {
	if !s.Asked(c.Request()) {
		return c.Redirect(http.StatusSeeOther, "/")
	}
	ctx := c.Request().Context()
	who := nameOf(c)
	if !words.Visible(who) {
		return s.EnterWith(c, http.StatusUnprocessableEntity, "Enter your name. The history shows who changed what.")
	}
	hash, err := s.Store.Setting(ctx, store.Passphrase)
	if err != nil {
		return err
	}
	if hash == "" {
		return s.EnterWith(c, http.StatusServiceUnavailable, "")
	}
	done, err := s.Entry.Take(ctx)
	if err != nil {
		return err
	}
	right, err := argon2id.ComparePasswordAndHash(c.FormValue("passphrase"), hash)
	done()
	if err != nil {
		return err
	}
	if !right {
		s.Log.Warn("a wrong passphrase", "from", c.RealIP())
		return s.EnterWith(c, http.StatusUnauthorized, "Wrong passphrase. Check capitals and spaces.")
	}
	if err := s.LetIn(ctx, who); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, desk.BackTo(c.FormValue("to")))
}

// nameOf is the name that somebody gives.
func nameOf(c *echo.Context) string {
	return strings.Join(strings.Fields(words.Cut(c.FormValue("who"), 40)), " ")
}

// leastPassphrase and mostPassphrase are how many letters a passphrase has: three or four words.
const leastPassphrase, mostPassphrase = 12, 200

// Hash gives a passphrase as argon2id writes it, or says why it is none.
func Hash(said string) (string, error) {
	if words.Letters(said) < leastPassphrase {
		return "", fmt.Errorf("a passphrase needs at least %d letters: use three or four words", leastPassphrase)
	}
	if len(said) > mostPassphrase {
		return "", fmt.Errorf("that is longer than %d letters; nothing was set", mostPassphrase)
	}
	return argon2id.CreateHash(said, argon2id.DefaultParams)
}

func (s *Room) Leave(c *echo.Context) error {
	if ctx := c.Request().Context(); s.Asked(c.Request()) {
		away := s.Store.SendAway(ctx, s.Sessions.GetString(ctx, desk.PhoneKey))
		if err := errors.Join(away, s.Sessions.Destroy(ctx)); err != nil {
			return err
		}
	}
	return c.Redirect(http.StatusSeeOther, "/enter")
}
