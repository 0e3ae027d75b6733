package web

import (
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"sync"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/labstack/echo/v5"
	"golang.org/x/time/rate"

	"brevium/store"
)

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

// tries counts how often the passphrase was tried: by everybody, and by each address.
type tries struct {
	sync.Mutex
	all *rate.Limiter
	of  map[string]*rate.Limiter
}

// mostAddresses bounds how many addresses are remembered.
const mostAddresses = 10_000

func (t *tries) allow(address string) bool {
	t.Lock()
	defer t.Unlock()
	one := t.of[address]
	if one == nil {
		if len(t.of) >= mostAddresses {
			clear(t.of)
		}
		one = rate.NewLimiter(rate.Every(triesEvery), triesOne)
		t.of[address] = one
	}
	return one.Allow() && t.all.Allow()
}
