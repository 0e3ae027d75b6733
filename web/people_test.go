package web

import (
	"fmt"
	"net/http"
	"net/http/httptest"
	"net/url"
	"strings"
	"testing"

	"github.com/alexedwards/argon2id"

	"brevium/core/brief"
	"brevium/core/request"
	"brevium/demo"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/people"
)

// person is somebody with a browser somewhere in the network.
type person struct {
	*app
	from   string
	cookie *http.Cookie
}

func (p *person) ask(method, path string, pairs ...string) *httptest.ResponseRecorder {
	v := url.Values{}
	for i := 0; i+1 < len(pairs); i += 2 {
		v.Set(pairs[i], pairs[i+1])
	}
	r := httptest.NewRequest(method, path, strings.NewReader(v.Encode()))
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	r.RemoteAddr = p.from + ":40000"
	if p.cookie != nil {
		r.AddCookie(p.cookie)
	}
	w := p.do(r)
	for _, c := range w.Result().Cookies() {
		p.cookie = c
	}
	return w
}

const passphrase = "four kraft paper tags"

// guarded is an application that others can reach.
func guarded(t *testing.T) *app {
	t.Helper()
	a := newAppBeside(t, request.Default, desk.Beside{Hosts: []string{"127.0.0.1"}, Guarded: true})
	hash, err := argon2id.CreateHash(passphrase, &argon2id.Params{Memory: 1024, Iterations: 1, Parallelism: 1,
		SaltLength: 16, KeyLength: 32})
	if err != nil {
		t.Fatal(err)
	}
	if err := a.store.Set(t.Context(), store.Passphrase, hash); err != nil {
		t.Fatal(err)
	}
	return a
}

// Whoever does not know the passphrase sees and changes nothing but what was shared; who does is named
// in the history.
func TestPassphrase(t *testing.T) {
	a := guarded(t)
	projects, _ := demo.Projects()
	id := a.begin(projects[0])
	token, err := a.store.Links.Share(t.Context(), id, a.head(id).ID, projects[0])
	if err != nil {
		t.Fatal(err)
	}
	ash := &person{app: a, from: "192.0.2.7"}
	before := a.head(id).ID
	for _, path := range []string{"/", "/projects/" + id, "/logbook", "/copies/now", "/batches", "/shop", "/nowhere"} {
		if w := ash.ask("GET", path); w.Code != http.StatusSeeOther || !strings.HasPrefix(w.Header().Get("Location"),
			"/enter?to=") {
			t.Errorf("%s: %d", path, w.Code)
		}
	}
	for _, path := range []string{"/projects", "/projects/" + id + "/change", "/copies/restore", "/makings/1/away",
		"/bin/empty"} {
		if w := ash.ask("POST", path, "base", "1", "name", "x", "sure", "yes"); w.Code != http.StatusUnauthorized {
			t.Errorf("%s: %d", path, w.Code)
		}
	}
	if a.head(id).ID != before {
		t.Error("something was changed")
	}
	for _, path := range []string{"/s/" + token, "/s/" + token + "/document", "/enter", "/static/x/brevium.css"} {
		if w := ash.ask("GET", path); w.Code != http.StatusOK {
			t.Errorf("%s: %d", path, w.Code)
		}
	}
	for says, pairs := range map[string][]string{"Wrong passphrase": {"who", "Ash", "passphrase", "four kraft paper tag"},
		"Enter your name": {"who", " \u200b", "passphrase", passphrase}} {
		if w := ash.ask("POST", "/enter", pairs...); w.Code < 400 || !strings.Contains(text(w), says) {
			t.Errorf("%s: %d %s", says, w.Code, text(w))
		}
	}
	w := ash.ask("POST", "/enter", "who", "Ash", "passphrase", passphrase, "to", "/projects/"+id+"?stage=record")
	if at(t, w) != "/projects/"+id+"?stage=record" || !ash.cookie.HttpOnly || ash.cookie.SameSite != http.SameSiteStrictMode {
		t.Errorf("%v %+v", w.Header(), ash.cookie)
	}
	rev := a.head(id).ID
	if w := ash.ask("POST", "/projects/"+id+"/change", "base", fmt.Sprint(rev), "name", "By Ash", "was.name",
		"Seed packet sampler"); w.Code >= 400 {
		t.Fatalf("%d %s", w.Code, text(w))
	}
	if a.head(id).ID == rev || a.head(id).Who != "Ash" {
		t.Errorf("changed by %q", a.head(id).Who)
	}
	if page := text(ash.ask("GET", "/projects/"+id+"?stage=record")); !strings.Contains(page, "Ash, just now") ||
		!strings.Contains(page, "Sign out") {
		t.Error("the history does not tell who")
	}
	// Two at once keep their names.
	linden := &person{app: a, from: "192.0.2.8"}
	linden.ask("POST", "/enter", "who", "Linden", "passphrase", passphrase)
	linden.ask("POST", "/projects", "units", "mm")
	list, _ := a.store.Shelf.List(t.Context(), store.Want{}, "", 0)
	if by := a.head(list.Listed[0].Project).Who; by != "Linden" {
		t.Errorf("begun by %q", by)
	}
	// What goes somewhere else goes home.
	for _, to := range []string{"https://elsewhere.example/", "//elsewhere.example", `/\elsewhere.example`,
		"javascript:alert(1)"} {
		if w := linden.ask("POST", "/enter", "who", "Linden", "passphrase", passphrase, "to",
			to); w.Header().Get("Location") != "/" {
			t.Errorf("%s leads to %s", to, w.Header().Get("Location"))
		}
	}
	old := *ash.cookie
	ash.ask("POST", "/leave")
	ash.cookie = &old
	if w := ash.ask("GET", "/"); w.Code != http.StatusSeeOther {
		t.Errorf("who has left is let in: %d", w.Code)
	}
	if err := a.store.EndAll(t.Context()); err != nil {
		t.Fatal(err)
	}
	if w := linden.ask("GET", "/"); w.Code != http.StatusSeeOther {
		t.Errorf("after the passphrase was changed: %d", w.Code)
	}
}

// The passphrase can't be tried on and on.
func TestThrottle(t *testing.T) {
	a := guarded(t)
	wrong := func(from string) int {
		return (&person{app: a, from: from}).ask("POST", "/enter", "who", "Ash", "passphrase", "is it this one").Code
	}
	codes := map[int]int{}
	for range 3 * people.TriesOne {
		codes[wrong("192.0.2.7")]++
	}
	// However slow the machine, few more than at once.
	if tried := codes[http.StatusUnauthorized]; tried < people.TriesOne || tried > people.TriesOne+3 ||
		tried+codes[http.StatusTooManyRequests] != 3*people.TriesOne {
		t.Errorf("%v", codes)
	}
	if got := wrong("192.0.2.9"); got != http.StatusUnauthorized {
		t.Errorf("another is turned away: %d", got)
	}
	// The addresses of one household count as one.
	tried := 0
	for n := range 3 * people.TriesOne {
		if wrong(fmt.Sprintf("[2001:db8:1:2::%x]", n+1)) == http.StatusUnauthorized {
			tried++
		}
	}
	if tried > people.TriesOne+3 {
		t.Errorf("%d tries from the addresses of one household", tried)
	}
	// Sixty that try as often as they may keep nobody out who knows it.
	for n := range 60 {
		for range people.TriesOne {
			wrong(fmt.Sprintf("192.0.2.%d", 100+n))
		}
	}
	wren := &person{app: a, from: "192.0.2.200"}
	if got := wren.ask("POST", "/enter", "who", "Wren", "passphrase", passphrase).Code; got != http.StatusSeeOther {
		t.Errorf("who knows the passphrase is turned away: %d", got)
	}
}

// Whatever an address says, the answer leads to a page of ours.
func TestRedirectsStayAtHome(t *testing.T) {
	a := newApp(t)
	id := a.begin(brief.New("in"))
	for _, to := range []string{"//elsewhere.example", "/%2Felsewhere.example", "/%2f%2felsewhere.example", "/\\elsewhere.example",
		"/%5Celsewhere.example", "/.//elsewhere.example", "/x/..//elsewhere.example", "/\t/elsewhere.example",
		"https://elsewhere.example", "javascript:alert(1)", "elsewhere.example", "", "/?q=a//b", "/batches"} {
		for what, got := range map[string]string{"entering": desk.BackTo(to),
			"ticking": a.post("/boxes", "p", id, "act", "by", "back", to).Header().Get("Location")} {
			u, err := url.Parse(got)
			if err != nil || u.Host != "" || u.IsAbs() || !strings.HasPrefix(got, "/") || strings.HasPrefix(u.Path, "//") ||
				strings.HasPrefix(got, "//") || strings.ContainsAny(got[:min(2, len(got))], `\`) {
				t.Errorf("%s, %q: leads to %q", what, to, got)
			}
		}
	}
	if got := desk.BackTo("/?q=a//b"); got != "/?q=a//b" {
		t.Errorf("a page of ours is %q", got)
	}
}

// Without others nobody is asked.
func TestUnguarded(t *testing.T) {
	a := newApp(t)
	id := a.begin(brief.New("in"))
	if w := a.get("/projects/" + id); w.Code != http.StatusOK || len(w.Result().Cookies()) != 0 {
		t.Errorf("%d %v", w.Code, w.Result().Cookies())
	}
	if w := a.get("/enter"); w.Code != http.StatusSeeOther {
		t.Errorf("%d", w.Code)
	}
}
