package people

import (
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
	if s.Sessions == nil {
		return c.Redirect(http.StatusSeeOther, "/")
	}
	to := c.QueryParam("to")
	if c.FormValue("to") != "" {
		to = c.FormValue("to")
	}
	return s.Render(c, code, "enter", &enterPage{desk.Page{Title: "Enter the " +
		"passphrase", Shared: true}, desk.BackTo(to), problem,
		words.Cut(c.FormValue("who"), 40)})
}

// enterPage asks for the passphrase.
type enterPage struct {
	desk.Page
	To, Problem, Who string
}

// Enter lets somebody in who knows the passphrase.
func (s *Room) Enter(c *echo.Context) error {
	if s.Sessions == nil {
		return c.Redirect(http.StatusSeeOther, "/")
	}
	ctx := c.Request().Context()
	who := strings.Join(strings.Fields(words.Cut(c.FormValue("who"), 40)), " ")
	if !words.Visible(who) {
		return s.EnterWith(c, http.StatusUnprocessableEntity, "Enter your name. The history shows who changed what.")
	}
	hash, err := s.Store.Setting(ctx, store.Passphrase)
	if err != nil {
		return err
	}
	if hash == "" {
		return s.EnterWith(c, http.StatusServiceUnavailable,
			"No passphrase is set yet, so nobody can sign in. Set one on the computer that runs Brevium.")
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
	if err := s.Sessions.RenewToken(ctx); err != nil {
		return err
	}
	s.Sessions.Put(ctx, desk.WhoKey, who)
	return c.Redirect(http.StatusSeeOther, desk.BackTo(c.FormValue("to")))
}

func (s *Room) Leave(c *echo.Context) error {
	if s.Sessions != nil {
		if err := s.Sessions.Destroy(c.Request().Context()); err != nil {
			return err
		}
	}
	return c.Redirect(http.StatusSeeOther, "/enter")
}
