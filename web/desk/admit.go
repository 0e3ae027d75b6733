package desk

import (
	"context"
	"errors"
	"net/http"
	"net/url"
	"strings"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/labstack/echo/v5"

	"brevium/gate"
	"brevium/store"
)

// admission makes ready for sessions.
func (s *Desk) admission() {
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

// withSessions gives a session to who is asked who it is; where nobody is asked, none is read.
func (s *Desk) withSessions(e http.Handler) http.Handler {
	safe := *s.Sessions // sessions of the same kind, whose cookie never goes over a line that others can read
	safe.Cookie.Secure = true
	open, secure := s.Sessions.LoadAndSave(e), safe.LoadAndSave(e)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		switch {
		case !s.Asked(r):
			e.ServeHTTP(w, r)
		case r.TLS != nil:
			secure.ServeHTTP(w, r)
		default:
			open.ServeHTTP(w, r)
		}
	})
}

// What a session says: who it is, and on which of the devices that were let in.
const (
	WhoKey   = "who"
	PhoneKey = "phone"
)

// phoneLasts is how long a device stays in that was let in by a code.
const phoneLasts = 365 * 24 * time.Hour

// LetIn begins a session for a device, under its name, until it is sent away.
func (s *Desk) LetIn(ctx context.Context, name string) error {
	id, err := s.Store.LetIn(ctx, name)
	if err != nil {
		return err
	}
	if err := s.Sessions.RenewToken(ctx); err != nil {
		return err
	}
	s.Sessions.Put(ctx, WhoKey, name)
	s.Sessions.Put(ctx, PhoneKey, id)
	s.Sessions.SetDeadline(ctx, time.Now().Add(phoneLasts))
	return nil
}

// whoIs gives the name of whoever is let in, "" for nobody: a device that was sent away is nobody's.
func (s *Desk) whoIs(r *http.Request) (who string, err error) {
	phone := s.Sessions.GetString(r.Context(), PhoneKey)
	if phone == "" {
		if gate.Through(r.Context()) {
			return "", nil
		}
		return s.Sessions.GetString(r.Context(), WhoKey), nil
	}
	p, err := s.Store.PhoneHere(r.Context(), phone)
	if errors.Is(err, store.ErrNone) {
		return "", nil
	}
	return p.Name, err
}

// admitted lets in who gave the passphrase; changes are then made in their name.
func (s *Desk) admitted(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		r := c.Request()
		if !s.Asked(r) {
			return next(c)
		}
		who, err := s.whoIs(r)
		if err != nil {
			return err
		}
		if who != "" {
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
			"You were signed out, so nothing was done. Reload the page to sign in again.")
	}
}

// whoAsks is the name of whoever is asking, for the top of the page.
func (s *Desk) whoAsks(c *echo.Context) string {
	return store.Who(c.Request().Context())
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
