package desk

import (
	"bytes"
	"cmp"
	"compress/gzip"
	"context"
	"crypto/sha256"
	"embed"
	"encoding/hex"
	"errors"
	"html/template"
	"io"
	"io/fs"
	"log/slog"
	"net/http"
	"os"
	"path"
	"runtime/debug"
	"strings"
	"sync"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/cutting"
	"brevium/core/request"
	"brevium/core/schedule"
	"brevium/draw/pen"
	"brevium/machine"
	"brevium/store"
)

//go:embed templates style.css
var files embed.FS

// Pages are what the room brings: its files, and what each page is drawn from.
var Pages = RoomPages{Files: files, From: map[string]Framed{
	"problem": &problemPage{},
	"broken":  &brokenPage{},
}}

// Desk is the small middle that all rooms share. It is the application's pages over a store.
type Desk struct {
	lets    map[string]Lets // by verb and address; written before the first request
	Store   *store.Store
	Shops   shops // the maker's shop, read
	Log     *slog.Logger
	Pages   map[string]func() *template.Template
	static  fs.FS
	style   []byte // of all rooms
	version string // changes with the static files
	build   string // changes with the program
	hosts   map[string]bool
	Machine *machine.Client
	places
	Cuttings *memo[[]cutting.Found]
	Fates    *memo[bool]
	Laid     *memo[batch.Sheets]    // of batches: a tick lays nothing anew
	Shared   *memo[schedule.Result] // and how their work was shared out
	Plans    reckoned
	turns    turns
	small    sync.Map // static files by name, packed
	Clock    func() time.Time
	Sessions *scs.SessionManager // of those who were let in
	guarded  bool                // everybody is asked, whoever comes through the gate always
	Home     *Home               // nil where Brevium serves others
}

func fingerprint(files fs.FS, style []byte) (string, error) {
	sum := sha256.New()
	sum.Write(style)
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

// Build tells this build from any other, by the program's own bytes; it is
// "" when they can't be read.
var Build = sync.OnceValue(func() string {
	name, err := os.Executable()
	if err != nil {
		return ""
	}
	f, err := os.Open(name)
	if err != nil {
		return ""
	}
	defer f.Close()
	sum := sha256.New()
	if _, err := io.Copy(sum, f); err != nil {
		return ""
	}
	return hex.EncodeToString(sum.Sum(nil))[:12]
})

// Static is the address of a static file.
func (s *Desk) Static(name string) string { return "/static/" + s.version + "/" + name }

// File gives a static file. Its address holds the version of them all, so a
// browser may keep it; what a file itself asks for lies under the same version.
func (s *Desk) File(c *echo.Context) error {
	if c.Param("version") == s.version {
		c.Response().Header().Set("Cache-Control", "public, max-age=31536000, immutable")
	} else {
		c.Response().Header().Set("Cache-Control", "no-cache")
	}
	name := c.Param("*")
	if kind := map[string]string{".css": "text/css", ".js": "text/javascript"}[path.Ext(name)]; kind != "" {
		if text, err := s.text(name); err == nil {
			return s.packed(c, name, kind+"; charset=utf-8", text)
		}
	}
	if is, err := fs.Stat(s.static, name); err != nil || is.IsDir() {
		c.Response().Header().Set("Cache-Control", "no-store")
		return echo.ErrNotFound
	}
	http.ServeFileFS(c.Response(), c.Request(), s.static, name)
	return nil
}

// BenchWorker is the script that opens the bench without a line. It may look after pages of boxes, and asks for none but
// those of a bench.
func (s *Desk) BenchWorker(c *echo.Context) error {
	c.Response().Header().Set("Cache-Control", "no-cache")
	c.Response().Header().Set("Service-Worker-Allowed", "/projects/")
	text, err := s.text("bench-worker.js")
	if err != nil {
		return err
	}
	return c.Blob(http.StatusOK, "text/javascript; charset=utf-8", text)
}

// text is a script or a style.
func (s *Desk) text(name string) ([]byte, error) {
	if name == "brevium.css" {
		return s.style, nil
	}
	return fs.ReadFile(s.static, name)
}

// packed gives a file made as small as it comes, once for all who ask.
func (s *Desk) packed(c *echo.Context, name, kind string, text []byte) error {
	c.Response().Header().Set("Vary", "Accept-Encoding")
	if !strings.Contains(c.Request().Header.Get("Accept-Encoding"), "gzip") {
		return c.Blob(http.StatusOK, kind, text)
	}
	small, ok := s.small.Load(name)
	if !ok {
		var b bytes.Buffer
		w, _ := gzip.NewWriterLevel(&b, gzip.BestCompression)
		_, _ = w.Write(text)
		_ = w.Close()
		small, _ = s.small.LoadOrStore(name, b.Bytes())
	}
	c.Response().Header().Set("Content-Encoding", "gzip")
	return c.Blob(http.StatusOK, kind, small.([]byte))
}

// mostFates is of how many revisions it is remembered whether they gave a plan, so that the last that did is found
// again without planning all since. A revision never changes.
const mostFates = 10_000

// mostCuttings is how many answers of searches are remembered, the newest: the same task has the same answer for ever.
const mostCuttings = 60

// Beside is what the pages are served with: the cutting machine beside them, nil where there is
// none; the names they may be asked for, without a port; whether others than who sits at
// this machine can reach them, who are asked for the passphrase; and the maker's own computer, nil where it is none.
type Beside struct {
	Machine *machine.Client
	Hosts   []string
	Guarded bool
	Home    *Home
}

// New puts up what the rooms share: over a store, with the shop that ships, with the files of their pages.
func New(s *store.Store, w request.Workshop, log *slog.Logger, beside Beside, rooms []RoomPages, static fs.FS) (*Desk, error) {
	srv := &Desk{Store: s, Shops: shops{first: w}, Log: log, static: static, Machine: beside.Machine, hosts: map[string]bool{},
		places: newPlaces(), Clock: time.Now, Cuttings: newMemo[[]cutting.Found](mostCuttings),
		Fates: newMemo[bool](mostFates), Laid: newMemo[batch.Sheets](60), Shared: newMemo[schedule.Result](100), Plans: newReckoned()}
	for _, h := range beside.Hosts {
		srv.hosts[strings.ToLower(h)] = true
	}
	srv.guarded, srv.Home = beside.Guarded, beside.Home
	srv.admission()
	var err error
	if srv.style, err = Style(rooms, static); err != nil {
		return nil, err
	}
	if srv.version, err = fingerprint(static, srv.style); err != nil {
		return nil, err
	}
	srv.build = cmp.Or(Build(), srv.version)
	if srv.Pages, err = srv.parse(rooms); err == nil {
		srv.Workshop(context.Background()) // its habits hold for the first page too
	}
	return srv, err
}

// Style is the style of all rooms, over Bootstrap's.
func Style(rooms []RoomPages, static fs.FS) ([]byte, error) {
	all, err := fs.ReadFile(static, "vendor/bootstrap.min.css")
	if err != nil {
		return nil, err
	}
	for _, room := range rooms {
		style, err := fs.ReadFile(room.Files, "style.css")
		if err != nil && !errors.Is(err, fs.ErrNotExist) {
			return nil, err
		}
		all = append(all, style...)
	}
	return append(all, pen.CSS...), nil
}

// Ease lets the process that serves the pages use more memory and collect it less often: making plans is mostly asking
// for memory. Who starts it with GOGC or GOMEMLIMIT knows better.
func Ease() {
	if os.Getenv("GOGC") == "" && os.Getenv("GOMEMLIMIT") == "" {
		debug.SetGCPercent(400)
		debug.SetMemoryLimit(600 << 20) // towards it, it collects as often as it must
	}
}

// Timeouts are set on the HTTP server that serves the pages.
func Timeouts(s *http.Server) {
	s.ReadHeaderTimeout, s.ReadTimeout = 5*time.Second, 15*time.Second
	s.WriteTimeout, s.IdleTimeout = 30*time.Second, 60*time.Second
	s.MaxHeaderBytes = 32 << 10
}
