package desk

import (
	"compress/gzip"
	"context"
	"errors"
	"log/slog"
	"net"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"

	"brevium/core/words"
	"brevium/store"
)

// policy lets a page use what this server serves and nothing else.
const policy = "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src 'self'; " +
	"connect-src 'self'; manifest-src 'self'; media-src data:; form-action 'self'; base-uri 'none'; frame-ancestors 'none'"

// Protection is in the head of every answer, refusals among them.
var Protection = map[string]string{
	"Content-Security-Policy":      policy,
	"X-Content-Type-Options":       "nosniff",
	"X-Frame-Options":              "DENY",
	"Referrer-Policy":              "same-origin",
	"Cross-Origin-Opener-Policy":   "same-origin",
	"Cross-Origin-Resource-Policy": "same-origin",
	"Cache-Control":                "no-store",
}

// mostBody bounds what one request may bring.
const mostBody = 512 << 10

// mostForm bounds a form that holds no file, wherever it is sent: a batch of as many orders as there may be is the largest.
const mostForm = 9 << 20

// Lets is what a route lets in.
type Lets struct {
	Bytes int64 // that one request may bring; 0 is what forms need
	Slow  bool  // it takes its time: a file comes or goes
	Open  bool  // to whoever asks, without the passphrase
	Home  bool  // it is for who sits at the computer itself
}

// Route is a line of the table of routes.
type Route struct {
	On, At string // the verb and the address
	Do     echo.HandlerFunc
	Lets
}

// With answers with what a request is about, once that is read.
func With[T any](read func(*echo.Context) (T, error), do func(*echo.Context, T) error) echo.HandlerFunc {
	return func(c *echo.Context) error {
		of, err := read(c)
		if err != nil {
			return err
		}
		return do(c, of)
	}
}

// Serve opens the routes to who may come in.
func (s *Desk) Serve(routes []Route) http.Handler {
	e := echo.New()
	e.Logger, e.HTTPErrorHandler, e.IPExtractor = s.Log, s.Failed, echo.ExtractIPDirect()
	s.guard(e)
	s.lets = map[string]Lets{}
	for _, r := range routes {
		s.lets[r.On+" "+r.At] = r.Lets
		e.Add(r.On, r.At, r.Do)
	}
	return s.withSessions(e)
}

// letsIn is what the route of a request lets in.
func (s *Desk) letsIn(c *echo.Context) Lets {
	l := s.lets[c.Request().Method+" "+c.Path()]
	if l.Bytes == 0 {
		l.Bytes = mostBody
	}
	return l
}

// FileTime is how long a file may take to come.
const FileTime = 5 * time.Minute

// guard sets what protects every page. The order matters: an answer has its
// head before anything can refuse it, and nothing is done before the whole of
// a request has been read.
func (s *Desk) guard(e *echo.Echo) {
	e.Pre(func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
			for name, value := range Protection {
				c.Response().Header().Set(name, value)
			}
			return next(c)
		}
	})
	e.Use(s.logged)
	e.Use(middleware.Recover())
	e.Use(s.knownHost, ownPages, s.timed, withShop, s.admitted, s.homeOnly, s.whole,
		middleware.GzipWithConfig(middleware.GzipConfig{Level: gzip.BestSpeed, Skipper: isPacked}))
}

// timed gives up what takes too long; files may take longer.
func (s *Desk) timed(next echo.HandlerFunc) echo.HandlerFunc {
	short, long := middleware.ContextTimeout(20*time.Second)(next), middleware.ContextTimeout(FileTime)(next)
	return func(c *echo.Context) error {
		if s.letsIn(c).Slow {
			return long(c)
		}
		return short(c)
	}
}

// isPacked reports whether an answer is packed already, or told bit by bit: it is not gathered to be packed.
func isPacked(c *echo.Context) bool {
	at := c.Request().URL.Path
	return strings.HasSuffix(at, "/least") || strings.HasPrefix(at, "/static/")
}

// knownHost turns away requests for another name, which a page elsewhere could
// make a browser send here.
func (s *Desk) knownHost(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		host := hostOf(c.Request().Host)
		if !s.hosts[host] && !throughGate(c.Request(), host) {
			return echo.NewHTTPError(http.StatusMisdirectedRequest,
				"Brevium doesn't answer at this address. Use the one it showed when it started.")
		}
		return next(c)
	}
}

// hostOf is the name in a host's address, without its port.
func hostOf(host string) string {
	if h, _, err := net.SplitHostPort(host); err == nil {
		host = h
	}
	return strings.ToLower(strings.Trim(host, "[]"))
}

// Named reports whether a request names one of some hosts.
func Named(host string, hosts []string) bool { return slices.Contains(hosts, hostOf(host)) }

// ownPages turns away what a page from elsewhere sends, and a page on another
// port of this machine is elsewhere. It may link here, no more.
func ownPages(next echo.HandlerFunc) echo.HandlerFunc {
	changes := http.NewCrossOriginProtection()
	return func(c *echo.Context) error {
		r := c.Request()
		site, links := r.Header.Get("Sec-Fetch-Site"), r.Header.Get("Sec-Fetch-Mode") == "navigate"
		foreign := (site == "same-site" || site == "cross-site") && !links
		if foreign || changes.Check(r) != nil {
			return echo.NewHTTPError(http.StatusForbidden, "This came from another website, so nothing was done.")
		}
		return next(c)
	}
}

// whole reads a form to its end before anything is done with it: one that is
// too large, or breaks off, changes nothing.
func (s *Desk) whole(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		r := c.Request()
		if r.Method != http.MethodPost {
			return next(c)
		}
		lets := s.letsIn(c)
		if lets.Slow { // a server that has no deadlines, as in a test, has none to move
			to := http.NewResponseController(c.Response())
			_ = to.SetReadDeadline(time.Now().Add(FileTime))
			_ = to.SetWriteDeadline(time.Now().Add(FileTime))
		}
		most := lets.Bytes
		if !strings.HasPrefix(r.Header.Get("Content-Type"), "multipart/") {
			most = min(most, mostForm) // what is no file is read into memory
		}
		r.Body = http.MaxBytesReader(c.Response(), r.Body, most)
		_, err := c.FormValues()
		if r.MultipartForm != nil {
			defer r.MultipartForm.RemoveAll()
		}
		if large := new(http.MaxBytesError); errors.As(err, &large) {
			return echo.ErrStatusRequestEntityTooLarge
		}
		if err != nil {
			return echo.NewHTTPError(http.StatusBadRequest, "The connection broke off, so nothing was done. Try again.")
		}
		return next(c)
	}
}

func (s *Desk) logged(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		start := time.Now()
		err := next(c)
		if err != nil {
			s.Failed(c, err)
		}
		response, status := echo.ResolveResponseStatus(c.Response(), nil)
		size, level := int64(0), slog.LevelInfo
		if response != nil {
			size = response.Size
		}
		if status >= 500 {
			level = slog.LevelError
		}
		s.Log.Log(c.Request().Context(), level, "request", "method", c.Request().Method, "path", c.Request().URL.Path,
			"status", status, "bytes", size, "took", time.Since(start), "err", err)
		return nil
	}
}

// problemPage says what went wrong and what to do.
type problemPage struct {
	Page
	Text string
	Code int
}

// Failed shows a plain page that says what went wrong and what to do.
func (s *Desk) Failed(c *echo.Context, err error) {
	if response, err := echo.UnwrapResponse(c.Response()); err == nil && response.Committed {
		return
	}
	if broken := new(store.Broken); errors.As(err, &broken) && c.Request().Method == http.MethodGet {
		s.showBroken(c, broken)
		return
	}
	code, text := Explain(err, c.Request().Method)
	if err := s.Render(c, code, "problem", &problemPage{Page{Title: "That didn't work"}, text, code}); err != nil {
		s.Log.Error("problem page", "err", err)
		c.String(code, text)
	}
}

// Explain gives the status and the words for what went wrong. Only of what
// asks for nothing to be kept can it be said that nothing was lost.
func Explain(err error, method string) (code int, text string) {
	reading := method == http.MethodGet || method == http.MethodHead
	if text, ok := store.Say(err); ok {
		return http.StatusServiceUnavailable, text
	}
	if code := echo.StatusCode(err); code != 0 {
		return code, httpText(code, err)
	}
	if refused := new(store.Refused); errors.As(err, &refused) {
		return http.StatusUnprocessableEntity, "This was not saved: " + refused.Why.Error() + "."
	}
	if broken := new(store.Broken); errors.As(err, &broken) {
		return http.StatusUnprocessableEntity, "Brevium can't read this box, so it can't be changed. Reload the page " +
			"to see what you can do."
	}
	switch {
	case errors.Is(err, store.ErrNone):
		return http.StatusNotFound, "This box doesn't exist. It may have been deleted from the bin."
	case errors.Is(err, context.DeadlineExceeded), errors.Is(err, context.Canceled):
		if reading {
			return http.StatusServiceUnavailable, "That took too long, so Brevium stopped. Try again."
		}
		return http.StatusServiceUnavailable, "That took too long, and your change may not be saved. Reload the page to check."
	case reading:
		return http.StatusInternalServerError, "Something went wrong in Brevium. Nothing was changed. Go back and try again."
	}
	return http.StatusInternalServerError, "Something went wrong in Brevium, and this change was not saved. " +
		"Everything before it is. Try again."
}

// httpText says what a status means, unless the error has words of its own.
func httpText(code int, err error) string {
	text := ""
	if own := new(echo.HTTPError); errors.As(err, &own) {
		text = own.Message
	}
	switch {
	case code == http.StatusRequestEntityTooLarge:
		return "That is too much at once, so nothing was done. A box file is never larger than 256 kB."
	case code == http.StatusMethodNotAllowed:
		return "That doesn't work here."
	case text != "" && code != http.StatusInternalServerError:
		return text
	case code == http.StatusNotFound:
		return "There is nothing at this address."
	}
	return "Something went wrong in Brevium. Go back and try again."
}

// brokenPage tells of a box that can't be read.
type brokenPage struct {
	Page
	Why, Path string
}

// showBroken tells of a box that can't be read, and what can be done.
func (s *Desk) showBroken(c *echo.Context, broken *store.Broken) {
	if err := s.Render(c, http.StatusUnprocessableEntity, "broken", &brokenPage{Page{Title: "Brevium can't read this box"},
		words.Capital(broken.Why.Error()), "/projects/" + broken.Of}); err != nil {
		s.Log.Error("broken page", "err", err)
	}
}
