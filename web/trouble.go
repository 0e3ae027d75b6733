package web

import (
	"embed"
	"html/template"
	"io/fs"
	"net/http"
	"sync"

	"brevium/store"
	"brevium/web/desk"
)

//go:embed trouble.html
var troubleFile embed.FS

var troublePage = template.Must(template.ParseFS(troubleFile, "trouble.html"))

// Trouble is the one page there is while Brevium can't start: what keeps it, and what she can do. What she chooses
// comes once by Chosen: "again", "close", or the name of a copy to open in place of what is there.
type Trouble struct {
	Text   string
	Copies []store.Copy // that this Brevium can read

	once   sync.Once
	chosen chan string
}

// troubleView is what the page is drawn from; Done is what was chosen on it.
type troubleView struct {
	Text, Done string
	Copies     []store.Copy
}

// Chosen gives what she chose.
func (t *Trouble) Chosen() <-chan string {
	t.once.Do(func() { t.chosen = make(chan string, 1) })
	return t.chosen
}

// Handler serves the page, to this computer alone.
func (t *Trouble) Handler(hosts ...string) (http.Handler, error) {
	static, err := fs.Sub(staticFiles, "static")
	if err != nil {
		return nil, err
	}
	style, err := desk.Style(rooms, static)
	if err != nil {
		return nil, err
	}
	t.Chosen()
	m := http.NewServeMux()
	m.HandleFunc("GET /style.css", func(w http.ResponseWriter, _ *http.Request) {
		w.Header().Set("Content-Type", "text/css; charset=utf-8")
		_, _ = w.Write(style)
	})
	m.HandleFunc("GET /", func(w http.ResponseWriter, _ *http.Request) {
		w.WriteHeader(http.StatusServiceUnavailable)
		_ = troublePage.Execute(w, troubleView{Text: t.Text, Copies: t.Copies})
	})
	m.HandleFunc("POST /", func(w http.ResponseWriter, r *http.Request) {
		_ = troublePage.Execute(w, troubleView{Done: r.FormValue("do")})
		select {
		case t.chosen <- r.FormValue("do"):
		default:
		}
	})
	return http.NewCrossOriginProtection().Handler(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		for name, value := range desk.Protection {
			w.Header().Set(name, value)
		}
		if !desk.Named(r.Host, hosts) {
			http.Error(w, "Brevium doesn't answer at this address.", http.StatusMisdirectedRequest)
			return
		}
		r.Body = http.MaxBytesReader(w, r.Body, 4<<10)
		m.ServeHTTP(w, r)
	})), nil
}
