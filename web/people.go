package web

import (
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"time"

	"github.com/alexedwards/argon2id"
	"github.com/alexedwards/scs/v2"
	"github.com/labstack/echo/v5"
	"golang.org/x/time/rate"

	"brevium/core/words"
	"brevium/store"
)

// More than one person: where others can reach Brevium, they are asked for the passphrase, and say
// who they are.

// admission begins sessions where people are asked.
func (s *Server) admission(guarded bool) {
	if !guarded {
		return
	}
	m := scs.New()
	m.Store, m.HashTokenInStore = store.Sessions{Store: s.store}, true
	m.Lifetime = 14 * 24 * time.Hour // with a time for being idle too, every request would write
	m.Cookie.Name, m.Cookie.SameSite = "brevium", http.SameSiteStrictMode
	m.ErrorFunc = func(w http.ResponseWriter, _ *http.Request, err error) {
		s.log.Error("session", "err", err)
		http.Error(w, "Brevium can't tell who is asking just now. Try again.", http.StatusServiceUnavailable)
	}
	s.sessions = m
}

const whoKey = "who"

// open is what anybody may see: the way in, what pages look like, and what was shared by a link.
var open = regexp.MustCompile(`^/(enter|static/.*|[sc]/[a-z2-7]{20,}(/.*)?)$`)

// admitted lets in who gave the passphrase; changes are then made in their name.
func (s *Server) admitted(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		r := c.Request()
		if s.sessions == nil {
			return next(c)
		}
		if who := s.sessions.GetString(r.Context(), whoKey); who != "" {
			c.SetRequest(r.WithContext(store.As(r.Context(), who)))
			return next(c)
		}
		switch {
		case open.MatchString(r.URL.Path):
			return next(c)
		case r.Method == http.MethodGet && r.Header.Get("HX-Request") == "" && r.Header.Get("Sec-Fetch-Dest") != "image":
			return c.Redirect(http.StatusSeeOther, "/enter?"+url.Values{"to": {r.URL.RequestURI()}}.Encode())
		}
		return echo.NewHTTPError(http.StatusUnauthorized,
			"Your time here has run out, so nothing was done. Load the page again and say the "+
				"passphrase.")
	}
}

// whoAsks is the name of whoever is asking, for the top of the page.
func (s *Server) whoAsks(c *echo.Context) string {
	if s.sessions == nil {
		return ""
	}
	return s.sessions.GetString(c.Request().Context(), whoKey)
}

// backTo is where somebody was going, if that is a page of ours.
func backTo(text string) string {
	u, err := url.Parse(text)
	if err != nil || u.IsAbs() || u.Host != "" || !strings.HasPrefix(u.Path, "/") || strings.HasPrefix(text, "//") ||
		strings.Contains(text, `\`) {
		return "/"
	}
	return u.RequestURI()
}

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

// The passphrase may be tried so often: by everybody together, and by one address.
const (
	triesAll, triesOne = 30, 6
	triesEvery         = 10 * time.Second
)

// throttle turns away who tries too often.
func (s *Server) throttle() echo.MiddlewareFunc {
	t := &tries{all: rate.NewLimiter(rate.Every(triesEvery/4), triesAll), of: map[string]*rate.Limiter{}}
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
			if !t.allow(c.RealIP()) {
				c.Response().Header().Set("Retry-After", "60")
				return s.enterWith(c, http.StatusTooManyRequests, "That was tried too often. Wait a minute, then try once more.")
			}
			return next(c)
		}
	}
}
