package web

import (
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/words"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/help"
)

func TestGuards(t *testing.T) {
	a := newApp(t)
	home := a.get("/")
	for name, part := range map[string]string{
		"Content-Security-Policy": "script-src 'self'", "X-Content-Type-Options": "nosniff", "Cache-Control": "no-store",
	} {
		if !strings.Contains(home.Header().Get(name), part) {
			t.Errorf("%s is %q", name, home.Header().Get(name))
		}
	}
	inline := regexp.MustCompile(`<script>|<style|\sstyle=|\son[a-z]+=|https?://[^w]`)
	if inline.MatchString(strings.ReplaceAll(home.Body.String(), "http://www.w3.org", "")) {
		t.Error("something stands inline or points outside")
	}
	r := httptest.NewRequest("GET", "/", nil)
	r.Host = "evil.example"
	w := httptest.NewRecorder()
	if a.handler.ServeHTTP(w, r); w.Code != http.StatusMisdirectedRequest {
		t.Errorf("another host name gets %d", w.Code)
	}
	if w := a.post("/projects", "units", "mm", "x", strings.Repeat("x", 600<<10)); w.Code != http.StatusRequestEntityTooLarge {
		t.Errorf("a huge form gets %d", w.Code)
	}
	for path, code := range map[string]int{
		"/nowhere": 404, "/projects/none": 404, "/projects/none/print": 404,
		"/static/x/../../server.go": 404, "/static/x/%2e%2e/server.go": 404,
		"/static/x/brevium.css": 200,
		"/static/x/":            404, "/static/x/vendor": 404, "/static/x/vendor/": 404,
	} {
		if w := a.get(path); w.Code != code || strings.Contains(w.Body.String(), "package web") {
			t.Errorf("%s gets %d, want %d", path, w.Code, code)
		}
	}
}

// Every answer has the whole head, refusals too, and what comes from elsewhere,
// another port of this machine among it, changes nothing.
func TestForeignAndHeads(t *testing.T) {
	a := newApp(t)
	ask := func(method, path, host string, body io.Reader, head ...string) *httptest.ResponseRecorder {
		r := httptest.NewRequest(method, path, body)
		r.Host = host
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		for i := 0; i+1 < len(head); i += 2 {
			r.Header.Set(head[i], head[i+1])
		}
		w := httptest.NewRecorder()
		a.handler.ServeHTTP(w, r)
		return w
	}
	const here = "127.0.0.1:8417"
	for name, c := range map[string]struct {
		w    *httptest.ResponseRecorder
		code int
	}{
		"another name": {ask("GET", "/", "evil.example", nil), 421},
		"another port, by origin": {ask("POST", "/projects", here, strings.NewReader("units=mm"), "Origin",
			"http://127.0.0.1:9000"), 403},
		"another port, by browser": {ask("POST", "/projects", here, strings.NewReader("units=mm"), "Sec-Fetch-Site",
			"same-site"), 403},
		"another site": {ask("POST", "/projects", here, strings.NewReader("units=mm"), "Sec-Fetch-Site",
			"cross-site", "Sec-Fetch-Mode", "navigate"), 403},
		"a picture put elsewhere": {ask("GET", "/", here, nil, "Sec-Fetch-Site", "same-site", "Sec-Fetch-Mode", "no-cors"), 403},
		"a link from elsewhere": {ask("GET", "/", here, nil, "Sec-Fetch-Site", "cross-site", "Sec-Fetch-Mode",
			"navigate"), 200},
		"too large, its length not": {ask("POST", "/projects", here,
			struct{ io.Reader }{strings.NewReader("units=mm&x=" + strings.Repeat("x", 600<<10))}), 413},
		"broken off":     {ask("POST", "/projects", here, io.MultiReader(strings.NewReader("units=mm"), broken{})), 400},
		"nothing there":  {ask("GET", "/nowhere", here, nil), 404},
		"another method": {ask("PUT", "/", here, nil), 405},
		"a folder":       {ask("GET", "/static/x/vendor/", here, nil), 404},
	} {
		if c.w.Code != c.code {
			t.Errorf("%s: %d, want %d", name, c.w.Code, c.code)
		}
		for header, value := range desk.Protection {
			if got := c.w.Header().Get(header); got != value {
				t.Errorf("%s: %s is %q", name, header, got)
			}
		}
	}
	if n, _ := a.store.Shelf.Count(t.Context(), false); n != 0 {
		t.Errorf("%d boxes were made by what was refused", n)
	}
	// One's own page, as browsers say it.
	if w := ask("POST", "/projects", here, strings.NewReader("units=mm"), "Origin", "http://"+here,
		"Sec-Fetch-Site", "same-origin"); w.Code != 303 {
		t.Errorf("one's own form: %d", w.Code)
	}
}

type broken struct{}

func (broken) Read([]byte) (int, error) { return 0, io.ErrUnexpectedEOF }

// Files lie under the version of them all, and so does all they ask for.
func TestStaticFiles(t *testing.T) {
	a := newApp(t)
	home := a.get("/").Body.String()
	at := regexp.MustCompile(`/static/([0-9a-f]+)/brevium\.css`).FindStringSubmatch(home)
	if at == nil {
		t.Fatal("no style sheet")
	}
	for _, name := range []string{
		"brevium.css", "brevium.js", "theme.js", "folded.js",
		"vendor/text.woff2", "vendor/three.module.min.js", "vendor/htmx.min.js",
	} {
		if w := a.get("/static/" + at[1] + "/" + name); w.Code != 200 ||
			!strings.Contains(w.Header().Get("Cache-Control"), "immutable") {
			t.Errorf("%s: %d, %q", name, w.Code, w.Header().Get("Cache-Control"))
		}
		if w := a.get("/static/old/" + name); w.Header().Get("Cache-Control") != "no-cache" {
			t.Errorf("%s of another version is kept: %q", name, w.Header().Get("Cache-Control"))
		}
	}
	for _, asks := range regexp.MustCompile(`(?:src|href)="(/static/[^"]+)"`).FindAllStringSubmatch(home, -1) {
		if w := a.get(asks[1]); w.Code != 200 {
			t.Errorf("%s: %d", asks[1], w.Code)
		}
	}
}

// What went wrong is said as it is, and that nothing was lost only where that is
// so.
func TestExplain(t *testing.T) {
	for name, c := range map[string]struct {
		err    error
		method string
		code   int
		says   string
	}{
		"full disk":         {&store.Trouble{Text: "The disk is full.", Err: io.ErrShortWrite}, "POST", 503, "The disk is full."},
		"panic, reading":    {errors.New("x"), "GET", 500, "Nothing was changed"},
		"panic, writing":    {errors.New("x"), "POST", 500, "was not saved"},
		"box doesn't exist": {store.ErrNone, "GET", 404, "box doesn't exist"},
		"too long":          {&store.Refused{Why: errors.New("“Notes” is long")}, "POST", 422, "“Notes” is long"},
	} {
		if code, text := desk.Explain(c.err, c.method); code != c.code || !strings.Contains(text, c.says) {
			t.Errorf("%s: %d %q", name, code, text)
		}
	}
}

// One box that can't be read is a broken card with its remedy; the list, and all
// else, stands.
func TestBrokenBox(t *testing.T) {
	a := newApp(t)
	sound, hurt := a.begin(brief.New("in")), a.begin(brief.New("in"))
	a.post("/projects/"+hurt+"/change", "base", fmt.Sprint(a.head(hurt).ID), "name", "hurt")
	damage(t, a.file, a.head(hurt).ID)
	if w := a.get("/"); w.Code != 200 || strings.Count(w.Body.String(), "card-item") != 2 ||
		!strings.Contains(w.Body.String(), "Brevium can't read it") {
		t.Errorf("the list: %d %.900s", w.Code, w.Body)
	}
	if w := a.get("/projects/" + sound); w.Code != 200 {
		t.Errorf("the sound box: %d", w.Code)
	}
	w := a.get("/projects/" + hurt)
	if w.Code != 422 || !holds(w.Body.String(), "Go back to the last good version") {
		t.Errorf("the broken box: %d %.600s", w.Code, w.Body)
	}
	if w := a.get("/projects/" + hurt + "/document"); w.Code != 200 || w.Body.String() != `{"brevium": 9}` {
		t.Errorf("its document: %d %s", w.Code, w.Body)
	}
	if w := a.post("/projects/"+hurt+"/change", "name", "x"); w.Code != 422 {
		t.Errorf("a change of it: %d", w.Code)
	}
	a.post("/projects/" + hurt + "/undo")
	if got := a.head(hurt).Doc.Name; got != "New box" {
		t.Errorf("gone back to %q", got)
	}
}

// Lists come in pages and are searched; their pictures are files of their own
// that a browser keeps.
func TestListPages(t *testing.T) {
	a := newApp(t)
	for i := range store.PerPage + 2 {
		b := brief.New("in")
		b.Name = brief.Text(fmt.Sprintf("Écrin %d", i))
		a.begin(b)
	}
	first, second := a.get("/").Body.String(), a.get("/?page=2").Body.String()
	if strings.Count(first, "card-item") != store.PerPage || strings.Count(second, "card-item") != 2 ||
		!strings.Contains(first, `href="/?page=2"`) || !strings.Contains(second, `href="/"`) {
		t.Error("the pages of the list")
	}
	if got := a.get("/?q=" + url.QueryEscape("éCRIN 1")).Body.String(); strings.Count(got, "card-item") != 5 {
		t.Errorf("searched: %d", strings.Count(got, "card-item"))
	}
	if got := a.get("/?q=nothing").Body.String(); !strings.Contains(got, "No box found") {
		t.Error("a search that finds nothing says nothing")
	}
	for _, odd := range []string{"/?page=-1", "/?page=x", "/?page=99999999999999", "/?q=%25%00%27"} {
		if w := a.get(odd); w.Code != 200 {
			t.Errorf("%s: %d", odd, w.Code)
		}
	}
	// A list plans nothing: what nobody has seen yet comes after it, and is there the next time.
	stale := regexp.MustCompile(`hx-get="(/lines[^"]+)"`).FindStringSubmatch(first)
	if stale == nil || strings.Contains(first, "in outside") {
		t.Fatal("the list waits for plans")
	}
	lines := a.get(strings.ReplaceAll(stale[1], "&amp;", "&")).Body.String()
	if strings.Count(lines, "in outside") != store.PerPage || strings.Count(lines, "card.svg") != store.PerPage {
		t.Errorf("the lines that come after it: %.300s", lines)
	}
	if first = a.get("/").Body.String(); strings.Contains(first, "/lines") || strings.Count(first, "in outside") != store.PerPage {
		t.Error("the lines are not kept for the next time")
	}
	picture := strings.ReplaceAll(regexp.MustCompile(`src="(/projects/[^"]+card\.svg[^"]+)"`).FindStringSubmatch(first)[1],
		"&amp;", "&")
	for range 2 { // drawn, then kept
		w := a.get(picture)
		if w.Code != 200 || !strings.Contains(w.Body.String(), "<svg") ||
			!strings.Contains(w.Header().Get("Cache-Control"), "immutable") {
			t.Errorf("its picture: %d %q", w.Code, w.Header().Get("Cache-Control"))
		}
	}
	if a.post("/shop/change", "cards.@cover-216.hand", "3"); !strings.Contains(a.get("/").Body.String(), "in outside") {
		t.Error("a change of the shop empties the list")
	}
	if n := len(first); n > 150<<10 {
		t.Errorf("the first page is %d kB", n>>10)
	}
}

// What is no form says so without script, and every button that changes a box is
// one of a form.
func TestWithoutScript(t *testing.T) {
	a := newApp(t)
	b := brief.New("in")
	b.Set("card.sheet", "6x6")
	id := a.begin(b)
	plain := func(path string, pairs ...string) *httptest.ResponseRecorder {
		v := url.Values{}
		for i := 0; i+1 < len(pairs); i += 2 {
			v.Add(pairs[i], pairs[i+1])
		}
		r := httptest.NewRequest("POST", path, strings.NewReader(v.Encode()))
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		return a.do(r)
	}
	path := "/projects/" + id
	for _, view := range []string{
		"?stage=contents&view=flat", "?stage=contents&view=above", "?stage=box&view=styles",
		"?stage=contents&view=ways", "?stage=box&view=folded", "?stage=record",
	} {
		page := a.get(path + view).Body.String()
		if !strings.Contains(page, "JavaScript is off") {
			t.Errorf("%s does not say what can't be done", view)
		}
		for _, button := range regexp.MustCompile(`<button[^>]*type="button"[^>]*>`).FindAllString(page, -1) {
			if !strings.Contains(button, "needs-script") && !strings.Contains(button, "hidden") &&
				!strings.Contains(button, "@click") {
				t.Errorf("%s: %s does nothing without script", view, button)
			}
		}
		if strings.Contains(page, "hx-post") || strings.Contains(page, "hx-vals") {
			t.Errorf("%s: a change that only a script can make", view)
		}
	}
	w := plain(path+"/change?stage=contents", "base", fmt.Sprint(a.head(id).ID), "contents.@1.count", "5",
		"contents.@1.food", "no", "contents.@1.food", "yes")
	if got := a.head(id).Doc.Contents[0]; w.Code != 303 || got.Count != "5" || got.Food != "yes" {
		t.Errorf("a form: %d %+v", w.Code, got)
	}
	w = plain(path+"/change", "base", fmt.Sprint(a.head(id).ID), "act", "add-usual", "usual", "no such thing")
	if w.Code != 200 || !strings.Contains(w.Body.String(), "Choose one of the usual things") ||
		!strings.Contains(w.Body.String(), "<html") {
		t.Errorf("a notice: %d", w.Code)
	}
}

// The glossary and the how-tos show what they speak of, and words lead there.
func TestWordsAndHows(t *testing.T) {
	a := newApp(t)
	page := a.get("/help").Body.String()
	if n := strings.Count(page, `class="drawing word"`); n != len(words.Glossary) || n < 30 {
		t.Errorf("%d words, %d pictures", len(words.Glossary), n)
	}
	for _, h := range help.HowTos {
		w := a.get("/how/" + h.ID)
		if w.Code != 200 || strings.Count(w.Body.String(), "<svg xmlns") < 3 {
			t.Errorf("%s: %d", h.ID, w.Code)
		}
	}
	if w := a.get("/how/nothing"); w.Code != 404 {
		t.Errorf("no such how-to: %d", w.Code)
	}
	glossary := page
	page = a.get("/projects/" + a.begin(brief.New("in")) + "?stage=contents").Body.String()
	for _, m := range regexp.MustCompile(`href="/help/([^"]+)"`).FindAllStringSubmatch(page, -1) {
		if !strings.Contains(glossary, `id="`+m[1]+`"`) {
			t.Errorf("the word %s leads nowhere", m[1])
		}
	}
	if !strings.Contains(page, `class="what" href="/help/compartments"`) {
		t.Error("compartments lead to no meaning")
	}
}

// FuzzChange sends any form: the answer is never a failure of the program, and
// what is kept is readable.
func FuzzChange(f *testing.F) {
	for _, form := range []string{
		"base=1&contents.@1.length=5&was.contents.@1.length=4", "act=add-thing", "act=remove-thing:1",
		"nudge=contents.@1.count:3&from=x", "act=put-back:contents.@1&base=1",
		"act=move:1.0:1:-3", "act=turn:1.0", "units=mm", "box.style=carton&box.options.top=glued",
		"act=use-size&size.length=1/0", "contents.@1.shape=ball", "act=choose-way:x",
		"name=%00%ff&notes=%e2%80%8b", "box.style=score-list", "act=add-piece", "arrange.compartments=platform",
		"base=99999999999999999999", "tools.step=1/64 in",
	} {
		f.Add(form)
	}
	a := newApp(f)
	f.Fuzz(func(t *testing.T, form string) {
		id, err := a.store.Boxes.Create(t.Context(), brief.New("in"), "new")
		if err != nil {
			t.Fatal(err)
		}
		r := httptest.NewRequest("POST", "/projects/"+id+"/change", strings.NewReader(form))
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Header.Set("HX-Request", "true")
		if w := a.do(r); w.Code >= 500 {
			t.Fatalf("%q: %d %.300s", form, w.Code, w.Body)
		}
		p, err := a.store.Boxes.Head(t.Context(), id)
		if err != nil {
			t.Fatalf("%q left what can't be read: %v", form, err)
		}
		if err := p.Doc.Check(); err != nil {
			t.Fatalf("%q was kept: %v", form, err)
		}
	})
}

// BenchmarkFirstPage is the first page over 10,000 boxes.
func BenchmarkFirstPage(b *testing.B) {
	a := newApp(b)
	for i := range 10_000 {
		d := brief.New("in")
		d.Name = brief.Text(fmt.Sprint("box ", i))
		if _, err := a.store.Boxes.Create(b.Context(), d, "new"); err != nil {
			b.Fatal(err)
		}
	}
	for _, path := range []string{"/", "/?q=box+99", "/?sort=name"} {
		a.get(path)
		b.Run(path, func(b *testing.B) {
			for b.Loop() {
				w := a.get(path)
				b.ReportMetric(float64(w.Body.Len())/1024, "kB")
			}
		})
	}
}
