// Package web shows plans as pages. It holds no rule of the job: every page is
// drawn from plan.Make, and every change is a change of a brief.
package web

import (
	"context"
	"crypto/sha256"
	"embed"
	"encoding/hex"
	"errors"
	"html/template"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"strings"
	"time"

	"github.com/labstack/echo/v4"
	"github.com/labstack/echo/v4/middleware"

	"brevium/core/plan"
	"brevium/draw"
	"brevium/store"
)

//go:embed templates/*.html
var templateFiles embed.FS

//go:embed static
var staticFiles embed.FS

// Server is the application's pages over a store.
type Server struct {
	store    *store.Store
	workshop plan.Workshop
	log      *slog.Logger
	pages    map[string]*template.Template
	static   fs.FS
	version  string // changes with the static files
	hosts    map[string]bool
}

// New makes the application. Hosts are the names it may be asked for, without
// a port.
func New(s *store.Store, w plan.Workshop, log *slog.Logger, hosts ...string) (http.Handler, error) {
	static, err := fs.Sub(staticFiles, "static")
	if err != nil {
		return nil, err
	}
	srv := &Server{store: s, workshop: w, log: log, static: static, hosts: map[string]bool{}}
	for _, h := range hosts {
		srv.hosts[h] = true
	}
	if srv.version, err = fingerprint(static); err != nil {
		return nil, err
	}
	if srv.pages, err = srv.parse(); err != nil {
		return nil, err
	}
	e := echo.New()
	e.HideBanner, e.HidePort = true, true
	e.HTTPErrorHandler = srv.failed
	srv.guard(e)
	srv.routes(e)
	return e, nil
}

// Timeouts are set on the HTTP server that serves the pages.
func Timeouts(s *http.Server) {
	s.ReadHeaderTimeout, s.ReadTimeout = 5*time.Second, 15*time.Second
	s.WriteTimeout, s.IdleTimeout = 30*time.Second, 60*time.Second
	s.MaxHeaderBytes = 32 << 10
}

func fingerprint(files fs.FS) (string, error) {
	sum := sha256.New()
	sum.Write([]byte(draw.CSS))
	err := fs.WalkDir(files, ".", func(name string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		data, err := fs.ReadFile(files, name)
		sum.Write(data)
		return err
	})
	return hex.EncodeToString(sum.Sum(nil))[:12], err
}

// policy lets a page use what this server serves and nothing else.
const policy = "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src 'self'; " +
	"connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'"

// guard sets what protects every page.
func (s *Server) guard(e *echo.Echo) {
	e.Use(s.logged)
	e.Use(middleware.RecoverWithConfig(middleware.RecoverConfig{LogErrorFunc: func(c echo.Context, err error, stack []byte) error {
		s.log.Error("panic", "path", c.Path(), "err", err, "stack", string(stack))
		return err
	}}))
	e.Use(s.knownHost)
	e.Use(middleware.BodyLimit("512K"))
	e.Use(middleware.ContextTimeout(20 * time.Second))
	e.Use(func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c echo.Context) error {
			h := c.Response().Header()
			h.Set("Content-Security-Policy", policy)
			h.Set("X-Content-Type-Options", "nosniff")
			h.Set("Referrer-Policy", "same-origin")
			h.Set("Cross-Origin-Opener-Policy", "same-origin")
			h.Set("Cache-Control", "no-store")
			return next(c)
		}
	})
	e.Use(middleware.Gzip())
	e.Use(middleware.CSRFWithConfig(middleware.CSRFConfig{
		TokenLookup: "header:X-CSRF-Token,form:_csrf", CookieName: "brevium_csrf", CookiePath: "/",
		CookieHTTPOnly: true, CookieSameSite: http.SameSiteStrictMode,
		ErrorHandler: func(err error, c echo.Context) error {
			return echo.NewHTTPError(http.StatusForbidden, "This page is too old to change anything. Load it again and repeat what you did.").SetInternal(err)
		},
	}))
}

// knownHost turns away requests for another name, which a page elsewhere could
// make a browser send here.
func (s *Server) knownHost(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c echo.Context) error {
		host := c.Request().Host
		if h, _, err := net.SplitHostPort(host); err == nil {
			host = h
		}
		if !s.hosts[strings.ToLower(strings.Trim(host, "[]"))] {
			return echo.NewHTTPError(http.StatusMisdirectedRequest, "Brevium doesn't answer to this name. Use the address it printed when it started.")
		}
		return next(c)
	}
}

func (s *Server) logged(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c echo.Context) error {
		start := time.Now()
		err := next(c)
		if err != nil {
			c.Error(err)
		}
		level := slog.LevelInfo
		if c.Response().Status >= 500 {
			level = slog.LevelError
		}
		s.log.Log(c.Request().Context(), level, "request", "method", c.Request().Method, "path", c.Request().URL.Path,
			"status", c.Response().Status, "bytes", c.Response().Size, "took", time.Since(start), "err", err)
		return nil
	}
}

// failed shows a plain page that says what went wrong and what to do.
func (s *Server) failed(err error, c echo.Context) {
	if c.Response().Committed {
		return
	}
	code, text := http.StatusInternalServerError, "Something went wrong inside Brevium. Nothing was lost: go back and try again."
	var he *echo.HTTPError
	switch {
	case errors.As(err, &he):
		code = he.Code
		if m, ok := he.Message.(string); ok && he.Code != http.StatusInternalServerError {
			text = m
		}
		switch {
		case code == http.StatusNotFound && text == "Not Found":
			text = "There is nothing at this address."
		case code == http.StatusRequestEntityTooLarge:
			text = "That is more than Brevium takes at once. A project's document is never larger than 256 kB."
		case code == http.StatusMethodNotAllowed:
			text = "This address doesn't take that kind of request."
		}
	case errors.Is(err, store.ErrNone):
		code, text = http.StatusNotFound, "There is no such project. It may have been emptied out of the bin."
	case errors.Is(err, context.DeadlineExceeded):
		code, text = http.StatusServiceUnavailable, "That took too long. Nothing was lost: try again."
	}
	if err := s.render(c, code, "problem", map[string]any{"Title": "That didn't work", "Text": text, "Code": code}); err != nil {
		s.log.Error("problem page", "err", err)
		c.String(code, text)
	}
}

func (s *Server) routes(e *echo.Echo) {
	e.GET("/static/draw.css", func(c echo.Context) error {
		s.keep(c)
		return c.Blob(http.StatusOK, "text/css; charset=utf-8", []byte(draw.CSS))
	})
	files := http.StripPrefix("/static/", http.FileServerFS(s.static))
	e.GET("/static/*", func(c echo.Context) error {
		s.keep(c)
		files.ServeHTTP(c.Response(), c.Request())
		return nil
	})
	e.GET("/", s.home)
	e.POST("/projects", s.create)
	e.POST("/projects/upload", s.upload)
	e.GET("/bin", s.binPage)
	e.POST("/bin/empty", s.empty)
	e.GET("/library", s.libraryPage)
	e.POST("/library/forget", s.forget)
	p := e.Group("/projects/:id")
	p.GET("/things.csv", s.thingsCSV)
	p.POST("/things", s.readThings)
	p.POST("/keep-thing", s.keepThing)
	p.GET("/howmany", s.howMany)
	p.GET("", s.workbench)
	p.GET("/print", s.print)
	p.GET("/folded", s.folded)
	p.GET("/solid.json", s.solid)
	p.GET("/style.svg", s.stylePicture)
	p.GET("/document", s.document)
	p.POST("/change", s.change)
	p.POST("/undo", s.undo)
	p.POST("/redo", s.redo)
	p.POST("/copy", s.copyProject)
	p.POST("/bin", s.toBin)
	p.POST("/restore", s.restore)
}

// keep lets a browser keep a static file: its address changes when it does.
func (s *Server) keep(c echo.Context) {
	if c.QueryParam("v") == s.version {
		c.Response().Header().Set("Cache-Control", "public, max-age=31536000, immutable")
	} else {
		c.Response().Header().Set("Cache-Control", "no-cache")
	}
}
