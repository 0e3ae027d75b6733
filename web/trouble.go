package web

import (
	"embed"
	"html/template"
	"io/fs"
	"net/http"
	"os"
	"slices"
	"sync"
	"time"

	"brevium/store"
	"brevium/web/desk"
	"brevium/web/house"
)

//go:embed trouble.html
var troubleFile embed.FS

var troublePage = template.Must(template.ParseFS(troubleFile, "trouble.html"))

// Trouble is the one page there is while Brevium can't start: what keeps it, and what she can do. What she chooses
// comes once by Chosen.
type Trouble struct {
	Text        string
	Problem     string       // with what was chosen before
	TakesBackup bool         // a backup may help: one of Copies, or a file of hers
	Copies      []store.Copy // that this Brevium can read

	once   sync.Once
	chosen chan Choice
}

// Choice is what she chose: to try again, to close Brevium, or a backup to open in place of what is there.
type Choice struct {
	Again, Close bool
	Backup       string // the name of one of the copies, or the path of a file she sent
	Sent         bool
}

// troubleView is what the page is drawn from; Done is what was chosen on it.
type troubleView struct {
	*Trouble
	Slip string // what is wrong with what was just chosen
	Done *Choice
}

// Chosen gives what she chose.
func (t *Trouble) Chosen() <-chan Choice {
	t.once.Do(func() { t.chosen = make(chan Choice, 1) })
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
	m.Handle("GET /vendor/", http.FileServerFS(static))
	m.HandleFunc("GET /", func(w http.ResponseWriter, _ *http.Request) {
		w.WriteHeader(http.StatusServiceUnavailable)
		_ = troublePage.Execute(w, troubleView{Trouble: t})
	})
	m.HandleFunc("POST /", func(w http.ResponseWriter, r *http.Request) {
		choice, slip := t.choice(w, r)
		if slip != "" {
			w.WriteHeader(http.StatusUnprocessableEntity)
			_ = troublePage.Execute(w, troubleView{Trouble: t, Slip: slip})
			return
		}
		_ = troublePage.Execute(w, troubleView{Trouble: t, Done: &choice})
		select {
		case t.chosen <- choice:
		default: // one was chosen already
			if choice.Sent {
				os.Remove(choice.Backup)
			}
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
		m.ServeHTTP(w, r)
	})), nil
}

// choice reads what she chose, or says what is wrong with it.
func (t *Trouble) choice(w http.ResponseWriter, r *http.Request) (c Choice, slip string) {
	most := int64(4 << 10)
	if t.TakesBackup {
		most = 8 << 30
		_ = http.NewResponseController(w).SetReadDeadline(time.Now().Add(desk.FileTime)) // where there is a deadline
	}
	r.Body = http.MaxBytesReader(w, r.Body, most)
	if file, _, err := r.FormFile("copy"); err == nil && t.TakesBackup {
		defer file.Close()
		c.Backup, err = house.LaidBy(file)
		c.Sent = true
		if text, ok := store.Say(err); ok {
			slip = text
		} else if err != nil {
			slip = "Brevium couldn't read that file. Choose it again."
		}
		return c, slip
	}
	switch do := r.FormValue("do"); {
	case do == "again":
		c.Again = true
	case do == "close":
		c.Close = true
	case slices.ContainsFunc(t.Copies, func(one store.Copy) bool { return one.Name == do }):
		c.Backup = do
	default:
		slip = "No backup was chosen. Choose a backup file, for example from your stick."
	}
	return c, slip
}
