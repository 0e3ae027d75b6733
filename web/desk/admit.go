package desk

import (
	"net/http"
	"net/url"
	"strings"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/labstack/echo/v5"

	"brevium/store"
)

// admission begins sessions where people are asked.
func (s *Desk) admission(guarded bool) {
	if !guarded {
		return
	}
	m := scs.New()
	m.Store, m.HashTokenInStore = store.Sessions{Store: s.Store}, true
	m.Lifetime = 14 * 24 * time.Hour // with a time for being idle too, every request would write
	m.Cookie.Name, m.Cookie.SameSite = "brevium", http.SameSiteStrictMode
	m.ErrorFunc = func(w http.ResponseWriter, _ *http.Request, err error) {
		s.Log.Error("session", "err", err)
		http.Error(w, "Brevium can't check your sign-in right now. Try again.", http.StatusServiceUnavailable)
	}
	s.Sessions = m
}

const WhoKey = "who"

// admitted lets in who gave the passphrase; changes are then made in their name.
func (s *Desk) admitted(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		r := c.Request()
		if s.Sessions == nil {
			return next(c)
		}
		if who := s.Sessions.GetString(r.Context(), WhoKey); who != "" {
			c.SetRequest(r.WithContext(store.As(r.Context(), who)))
			return next(c)
		}
		switch {
		case s.letsIn(c).Open:
			return next(c)
		case r.Method == http.MethodGet && r.Header.Get("HX-Request") == "" && r.Header.Get("Sec-Fetch-Dest") != "image":
			return c.Redirect(http.StatusSeeOther, "/enter?"+url.Values{"to": {r.URL.RequestURI()}}.Encode())
		}
		return echo.NewHTTPError(http.StatusUnauthorized,
			"You were signed out, so nothing was done. Reload the page and enter the passphrase.")
	}
}

// whoAsks is the name of whoever is asking, for the top of the page.
func (s *Desk) whoAsks(c *echo.Context) string {
	if s.Sessions == nil {
		return ""
	}
	return s.Sessions.GetString(c.Request().Context(), WhoKey)
}

// BackTo is where somebody was going, if that is a page of ours.
func BackTo(text string) string { return Own(text).RequestURI() }

// Own reads the address of a page of ours; of any other it gives the first page's.
func Own(text string) *url.URL {
	u, err := url.Parse(text)
	if err != nil || u.IsAbs() || u.Host != "" || !strings.HasPrefix(u.Path, "/") || strings.ContainsAny(u.Path, "\\\t\r\n") ||
		strings.Contains(u.Path, "//") {
		return &url.URL{Path: "/"}
	}
	return u
}
