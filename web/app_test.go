package web

import (
	"context"
	"fmt"
	"io"
	"log/slog"
	"mime/multipart"
	"net/http"
	"net/http/httptest"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/request"
	"brevium/store"
	"brevium/web/desk"
)

// app is the application under test, and a visitor.
type app struct {
	t       testing.TB
	handler http.Handler
	store   *store.Store
	server  *Server
	file    string // the database
}

func newApp(t testing.TB) *app { return newAppOf(t, request.Default) }

func newAppOf(t testing.TB, w request.Workshop) *app {
	t.Helper()
	return newAppBeside(t, w, desk.Beside{Hosts: []string{"127.0.0.1"}})
}

func newAppBeside(t testing.TB, w request.Workshop, beside desk.Beside) *app {
	t.Helper()
	file := filepath.Join(t.TempDir(), "web.db")
	s, err := store.Open(context.Background(), file)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { s.Close() })
	srv, err := newServer(s, w, slog.New(slog.NewTextHandler(os.Stderr, &slog.HandlerOptions{Level: slog.LevelError})), beside)
	if err != nil {
		t.Fatal(err)
	}
	return &app{t: t, handler: srv.handler(), store: s, server: srv, file: file}
}

// do asks for something. Blanks that don't break are read as blanks: TestFractions sees to them.
func (a *app) do(r *http.Request) *httptest.ResponseRecorder {
	r.Host = "127.0.0.1:8417"
	w := httptest.NewRecorder()
	a.handler.ServeHTTP(w, r)
	if strings.HasPrefix(w.Header().Get("Content-Type"), "text/html") {
		page := strings.NewReplacer("\u00a0", " ", "\u202f", " ").Replace(w.Body.String())
		w.Body.Reset()
		w.Body.WriteString(page)
	}
	return w
}

// holds reports whether a page says something, wherever its lines end.
func holds(page, text string) bool {
	return strings.Contains(strings.Join(strings.Fields(page), " "), text)
}

func (a *app) get(path string) *httptest.ResponseRecorder {
	w := a.do(httptest.NewRequest("GET", path, nil))
	if to := w.Header().Get("Location"); w.Code == http.StatusSeeOther && strings.Contains(to, "new=1") { // a new box's questions
		return a.do(httptest.NewRequest("GET", to, nil))
	}
	return w
}

// post sends fields, as the page's script does.
func (a *app) post(path string, pairs ...string) *httptest.ResponseRecorder {
	v := url.Values{}
	for i := 0; i+1 < len(pairs); i += 2 {
		v.Set(pairs[i], pairs[i+1])
	}
	r := httptest.NewRequest("POST", path, strings.NewReader(v.Encode()))
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	r.Header.Set("HX-Request", "true")
	return a.do(r)
}

// send posts a file, as a form does.
func (a *app) send(path, field, text string) *httptest.ResponseRecorder {
	var body strings.Builder
	m := multipart.NewWriter(&body)
	part, _ := m.CreateFormFile(field, "../../x.json")
	io.WriteString(part, text)
	m.Close()
	r := httptest.NewRequest("POST", path, strings.NewReader(body.String()))
	r.Header.Set("Content-Type", m.FormDataContentType())
	return a.do(r)
}

func (a *app) begin(b brief.Brief) (id string) {
	a.t.Helper()
	id, err := a.store.Boxes.Create(a.t.(interface{ Context() context.Context }).Context(), b, "new")
	if err != nil {
		a.t.Fatal(err)
	}
	return id
}

func (a *app) head(id string) store.Project {
	a.t.Helper()
	p, err := a.store.Boxes.Head(context.Background(), id)
	if err != nil {
		a.t.Fatal(err)
	}
	return p
}

// headID is the revision a form was made of, as it says it.
func (a *app) headID(id string) string { return fmt.Sprint(a.head(id).ID) }
