package machine

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"mime"
	"net/http"
	"strings"
)

// HPGLType and GCodeType are the media types of the jobs that the machine reads.
const HPGLType, GCodeType = "application/vnd.hp-hpgl", "text/x-gcode"

// Handler is the machine's interface: docs/machine.md describes it.
func (m *Machine) Handler() http.Handler {
	mux := http.NewServeMux()
	mux.HandleFunc("GET /{$}", func(w http.ResponseWriter, _ *http.Request) {
		answer(w, http.StatusOK, map[string]any{"machine": "a simulated cutting machine", "bed_width": m.bed.W, "bed_height": m.bed.H,
			"tools": map[string]string{"1": "scoring tool", "2": "knife"}, "accepts": []string{HPGLType, GCodeType}})
	})
	mux.HandleFunc("GET /state", func(w http.ResponseWriter, _ *http.Request) { answer(w, http.StatusOK, m.State()) })
	mux.HandleFunc("GET /path.svg", func(w http.ResponseWriter, _ *http.Request) {
		w.Header().Set("Content-Type", "image/svg+xml")
		io.WriteString(w, m.Picture())
	})
	mux.HandleFunc("POST /job", m.take)
	mux.HandleFunc("POST /{button}", func(w http.ResponseWriter, r *http.Request) { m.reply(w, m.Do(r.PathValue("button"))) })
	return guarded(mux)
}

// guarded turns away what a page in a browser sends: the machine is for programs.
func guarded(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		w.Header().Set("X-Content-Type-Options", "nosniff")
		w.Header().Set("Cache-Control", "no-store")
		w.Header().Set("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'")
		if site := r.Header.Get("Sec-Fetch-Site"); r.Header.Get("Origin") != "" || site != "" && site != "none" {
			answer(w, http.StatusForbidden, Refused{[]string{"The machine is talked to by programs, not by pages from elsewhere."}})
			return
		}
		next.ServeHTTP(w, r)
	})
}

func (m *Machine) take(w http.ResponseWriter, r *http.Request) {
	data, err := io.ReadAll(http.MaxBytesReader(w, r.Body, MostBytes))
	if err != nil {
		answer(w, http.StatusRequestEntityTooLarge, Refused{[]string{fmt.Sprintf("A job is up to %d MB.", MostBytes>>20)}})
		return
	}
	kind, _, _ := mime.ParseMediaType(r.Header.Get("Content-Type"))
	read, ok := map[string]func([]byte) (Program, error){HPGLType: ReadHPGL, GCodeType: ReadGCode}[kind]
	if !ok {
		answer(w, http.StatusUnsupportedMediaType, Refused{[]string{"A job is " + HPGLType + " or " + GCodeType + "."}})
		return
	}
	p, err := read(data)
	if err != nil {
		answer(w, http.StatusUnprocessableEntity, Refused{[]string{"The job can't be read: " + err.Error() + "."}})
		return
	}
	m.reply(w, m.Load(p))
}

// reply tells how the machine stands, or why not.
func (m *Machine) reply(w http.ResponseWriter, err error) {
	if no := new(Refused); errors.As(err, &no) {
		answer(w, http.StatusConflict, no)
		return
	}
	answer(w, http.StatusOK, m.State())
}

func answer(w http.ResponseWriter, status int, what any) {
	w.Header().Set("Content-Type", "application/json")
	w.WriteHeader(status)
	json.NewEncoder(w).Encode(what)
}

// Picture draws the bed: all of the path faint, what is done of it dark, scores beaded.
func (m *Machine) Picture() string {
	s := m.State()
	w, h := s.W, s.H
	if w == 0 || h == 0 {
		w, h = m.bed.W, m.bed.H
	}
	m.mu.Lock()
	all := m.program.Strokes
	m.mu.Unlock()
	var b strings.Builder
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="-4 -4 %.3f %.3f" role="img" aria-label="The bed: %d of %d `+
		`strokes are done"><style>.bed{fill:#fffdf7;stroke:#b9a981}path{fill:none;stroke-width:.5;stroke-linecap:round}`+
		`.c{stroke:#2a2520}.s{stroke:#7b4b2a;stroke-dasharray:2.4 1.2}.todo{opacity:.25}.tool{fill:#d0521b}</style>`+
		`<rect class="bed" x="0" y="0" width="%.3f" height="%.3f"/>`, w+8, h+8, s.Stroke, s.Strokes, w, h)
	for _, of := range []struct {
		class   string
		strokes []Stroke
	}{{"todo", all}, {"", m.Drawn()}} {
		for _, tool := range []int{Scorer, Knife} {
			var d strings.Builder
			for _, st := range of.strokes {
				for i, p := range st.Points {
					if st.Tool == tool {
						fmt.Fprintf(&d, "%s%.2f %.2f", map[bool]string{true: "M", false: "L"}[i == 0], p.X, h-p.Y)
					}
				}
			}
			if d.Len() > 0 {
				fmt.Fprintf(&b, `<path class="%s %s" d="%s"/>`, map[int]string{Scorer: "s", Knife: "c"}[tool], of.class, d.String())
			}
		}
	}
	if s.Strokes > 0 {
		fmt.Fprintf(&b, `<circle class="tool" cx="%.2f" cy="%.2f" r="2"/>`, s.At.X, h-s.At.Y)
	}
	b.WriteString("</svg>")
	return b.String()
}
