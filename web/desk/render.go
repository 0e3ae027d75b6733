package desk

import (
	"bytes"
	"cmp"
	"fmt"
	"html/template"
	"io/fs"
	"path"
	"regexp"
	"strings"
	"sync"

	"github.com/labstack/echo/v5"

	"brevium/core/assembly"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/costs"
	"brevium/core/measure"
	"brevium/core/words"
	"brevium/draw"
	"brevium/gate"
)

// parse reads every page of every room with the frame and the parts they may use: what lies in a folder of templates is
// a page, what lies deeper a part. A page is put together when it is first shown: all of them take a tenth of a second.
func (s *Desk) parse(rooms []RoomPages) (map[string]func() *template.Template, error) {
	parts, err := template.New("").Funcs(s.Funcs()), error(nil)
	for _, room := range rooms {
		if deep, _ := fs.Glob(room.Files, "templates/*/*.html"); len(deep) > 0 {
			if parts, err = parts.ParseFS(room.Files, deep...); err != nil {
				return nil, err
			}
		}
	}
	pages := map[string]func() *template.Template{}
	for _, room := range rooms {
		names, err := fs.Glob(room.Files, "templates/*.html")
		if err != nil {
			return nil, err
		}
		for _, name := range names {
			pages[strings.TrimSuffix(path.Base(name), ".html")] = sync.OnceValue(func() *template.Template {
				return template.Must(template.Must(parts.Clone()).ParseFS(room.Files, name))
			})
		}
	}
	return pages, nil
}

// Funcs are what templates may call.
func (s *Desk) Funcs() template.FuncMap {
	return template.FuncMap{
		"static":  s.Static,
		"num":     s.number,
		"grouped": bench.Grouped,
		"metres":  func(mm float64) float64 { return mm / 1000 },
		"add":     func(a, b int) int { return a + b },
		"times":   func(a, b int) int { return a * b },
		"upper":   words.Capital,
		"coins":   s.coins,
		"sum":     func(c costs.Cost, n int64) string { return c.Said(n, s.coins) },
		"price": func(n int64) string { // of what is never for nothing
			if n == 0 {
				return "not known"
			}
			return s.coins(n)
		},
		"cut":       words.Cut,
		"aside":     func(is bool) string { return map[bool]string{true: "Use it again", false: "Set it aside"}[is] },
		"percent":   func(f float64) string { return fmt.Sprintf("%.0f %%", 100*f) },
		"ago":       ago,
		"day":       DaySaid,
		"minutes":   minutesSaid,
		"clock":     Clock,
		"dict":      dict,
		"dims":      func(d assembly.Dims) []measure.Length { return []measure.Length{d.Length, d.Width, d.Depth} },
		"words":     words.Plain,
		"dash":      func(s string) string { return strings.NewReplacer(" ", "-", "/", "-").Replace(s) },
		"wordLink":  wordLink,
		"wordMark":  wordMark,
		"frac":      SetFractions,
		"presses":   presses,
		"scoresOf":  scoresOf,
		"dictText":  brief.To,
		"pictureOf": func(l contents.Load) template.HTML { return template.HTML(draw.Arrangement(l, 150, 100)) },
		"area":      Area,
		"pairs":     Said,
		"joined":    func(of []string) string { return strings.Join(of, ";") },
		"level":     func(n int) string { return []string{"", "easy", "middling", "takes practice"}[min(max(n, 0), 3)] },
		"strength":  func(n int) string { return []string{"", "once", "a season", "years"}[min(max(n, 0), 3)] },
	}
}

// presses is what a button says that does what a remedy says.
func presses(says string) string { return cmp.Or(says, "Do this") }

// fraction finds 15/16, with a slash or a fraction slash.
var fraction = regexp.MustCompile(`(\d+)[/⁄](\d+)`)

// SetFractions escapes a sentence and sets its fractions as fractions, each length in one line.
func SetFractions(s string) template.HTML {
	return template.HTML(fraction.ReplaceAllString(words.Together(template.HTMLEscapeString(s)),
		`<span class="fr"><i>$1</i>⁄<i>$2</i></span>`))
}

// number sets a shown length: the other unit on hover and focus, what it was rounded from, and the line it belongs to.
func number(s measure.Shown, link ...string) template.HTML {
	title := "about " + s.Other
	if s.Rounded {
		title = "rounded from " + s.Exact + ", about " + s.Other
	}
	attr := ""
	if len(link) > 0 && link[0] != "" {
		attr = ` data-link="` + template.HTMLEscapeString(link[0]) + `" tabindex="-1"`
	}
	return template.HTML(fmt.Sprintf(`<span class="num"%s title="%s">%s</span>`, attr, template.HTMLEscapeString(title),
		SetFractions(s.Text)))
}

// coins writes a sum in the house's currency.
func (s *Desk) coins(n int64) string {
	return strings.TrimSpace(s.lastRead().Currency + " " + words.Coins(n))
}

// Second reports whether the house has the other unit always beside the first.
func (s *Desk) Second() bool { return s.lastRead().Habit("second") == "yes" }

// number is that, with the other unit always beside it where the house has it so.
func (s *Desk) number(l measure.Shown, link ...string) template.HTML {
	n := number(l, link...)
	if !s.Second() {
		return n
	}
	return n + template.HTML(fmt.Sprintf(` <small class="second">(%s)</small>`, SetFractions(l.Other)))
}

func dict(pairs ...any) (map[string]any, error) {
	m := map[string]any{}
	for i := 0; i+1 < len(pairs); i += 2 {
		key, ok := pairs[i].(string)
		if !ok {
			return nil, fmt.Errorf("dict: %v is not a name", pairs[i])
		}
		m[key] = pairs[i+1]
	}
	return m, nil
}

// Page is what every page says of itself to the frame it stands in.
type Page struct {
	Title     string
	Part      string // what script swaps
	PartOnly  bool   // there is nothing else
	InPlace   bool   // it keeps what is typed as it goes, and is changed in place
	Bare      bool   // without the frame's own links
	Manifest  string // where the page says how it is as an icon on a phone
	Shared    bool   // shown to whoever has a link
	WhoAsks   string
	Room      string // the address of the menu's entry it belongs to
	Spot      string // what help it is given
	American  bool   // how its words are spelt
	AtHome    bool   // it is shown on the maker's own computer
	Keeps     bool   // it is shown where backups can be made and restored
	Listening string // where phones reach Brevium; "" while none can
}

func (p *Page) frame() *Page { return p }

// placesOf are the rooms of the menu by what their addresses begin with, and the help there.
var placesOf = []struct{ begins, room, spot string }{{"/projects", "/", "contents"}, {"/shop", "/shop", "supplies"},
	{"/cut", "/shop", "supplies"}, {"/fair", "/", "sheets"}, {"/batches", "/batches", "batches"},
	{"/logbook", "/logbook", "logbook"}, {"/makings", "/logbook", "logbook"}, {"/help", "/help", "boxes"},
	{"/how", "/help", "boxes"}, {"/library", "/", "contents"}, {"/", "/", "boxes"}}

func placeOf(path string) (room, spot string) {
	for _, p := range placesOf {
		if strings.HasPrefix(path, p.begins) {
			return p.room, p.spot
		}
	}
	return "", "boxes"
}

// Framed is what a page is drawn from: a struct with the fields that its template names, a page among them.
type Framed interface{ frame() *Page }

// RoomPages are what a room brings: templates and a style, and by the name of each template the struct it is drawn from.
type RoomPages struct {
	Files fs.FS
	From  map[string]Framed
}

// Render writes a page, or for htmx the part of it that is swapped.
func (s *Desk) Render(c *echo.Context, code int, name string, data Framed) error {
	f, what := data.frame(), "layout"
	if f.PartOnly || f.Part != "" && IsScript(c) && c.Request().Header.Get("HX-History-Restore-Request") != "true" {
		what = f.Part
	}
	f.WhoAsks, f.American = s.whoAsks(c), s.American(c)
	f.AtHome, f.Listening = s.AtHome(c), s.listening(c)
	f.Keeps = !gate.Through(c.Request().Context())
	f.Room, f.Spot = placeOf(c.Request().URL.Path)
	var b bytes.Buffer
	if err := s.Pages[name]().ExecuteTemplate(&b, what, data); err != nil {
		return err
	}
	c.Response().Header().Set("Vary", "HX-Request, Accept-Language, Cookie")
	if f.American {
		return c.HTMLBlob(code, respelt(b.Bytes()))
	}
	return c.HTMLBlob(code, b.Bytes())
}
