package web

import (
	"net/http"
	"strings"

	"github.com/alexedwards/argon2id"
	"github.com/labstack/echo/v5"

	"brevium/core/words"
	"brevium/store"
)

// More than one person: where others can reach Brevium, they are asked for the passphrase, and say
// who they are.

func (s *Server) enterPage(c *echo.Context) error { return s.enterWith(c, http.StatusOK, "") }

func (s *Server) enterWith(c *echo.Context, code int, problem string) error {
	if s.sessions == nil {
		return c.Redirect(http.StatusSeeOther, "/")
	}
	to := c.QueryParam("to")
	if c.FormValue("to") != "" {
		to = c.FormValue("to")
	}
	return s.render(c, code, "enter", &enterPage{page{Title: "Say the passphrase", Shared: true}, backTo(to), problem,
		words.Cut(c.FormValue("who"), 40)})
}

// enterPage asks for the passphrase.
type enterPage struct {
	page
	To, Problem, Who string
}

// enter lets somebody in who knows the passphrase.
func (s *Server) enter(c *echo.Context) error {
	if s.sessions == nil {
		return c.Redirect(http.StatusSeeOther, "/")
	}
	ctx := c.Request().Context()
	who := strings.Join(strings.Fields(words.Cut(c.FormValue("who"), 40)), " ")
	if !words.Visible(who) {
		return s.enterWith(c, http.StatusUnprocessableEntity, "Say who you are: the history tells who changed what.")
	}
	hash, err := s.store.Setting(ctx, store.Passphrase)
	if err != nil {
		return err
	}
	if hash == "" {
		return s.enterWith(c, http.StatusServiceUnavailable,
			"No passphrase is set, so nobody is let in. Set one with “brevium passphrase”.")
	}
	done, err := s.turn(ctx) // it is dear on purpose: few at a time
	if err != nil {
		return err
	}
	right, err := argon2id.ComparePasswordAndHash(c.FormValue("passphrase"), hash)
	done()
	if err != nil {
		return err
	}
	if !right {
		s.log.Warn("a wrong passphrase", "from", c.RealIP())
		return s.enterWith(c, http.StatusUnauthorized, "That is not the passphrase. Capitals and blanks count.")
	}
	if err := s.sessions.RenewToken(ctx); err != nil {
		return err
	}
	s.sessions.Put(ctx, whoKey, who)
	return c.Redirect(http.StatusSeeOther, backTo(c.FormValue("to")))
}

func (s *Server) leave(c *echo.Context) error {
	if s.sessions != nil {
		if err := s.sessions.Destroy(c.Request().Context()); err != nil {
			return err
		}
	}
	return c.Redirect(http.StatusSeeOther, "/enter")
}
