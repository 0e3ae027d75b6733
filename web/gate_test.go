package web

import (
	"net/http"
	"net/http/cookiejar"
	"net/netip"
	"net/url"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"brevium/core/brief"
	"brevium/core/request"
	"brevium/desktop"
	"brevium/gate"
	"brevium/web/desk"
)

// Through the gate nobody gets at anything without having been let in, and who was gets at nothing that is the
// computer's own: every address there is, is tried.
func TestThroughTheGate(t *testing.T) {
	home := &desk.Home{Computer: desktop.Computer{}, Gate: gate.New(filepath.Join(t.TempDir(), "house.pem")),
		Close: func() { t.Error("a phone closed Brevium") }}
	home.Gate.Addresses = func() []netip.Addr { return []netip.Addr{netip.MustParseAddr("127.0.0.2")} }
	a := newAppBeside(t, request.Default, desk.Beside{Hosts: []string{"127.0.0.1"}, Home: home})
	home.Gate.Leads(func() *http.Server { return &http.Server{Handler: a.handler} })
	if err := home.Gate.Open(false); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(home.Gate.Close)
	at := home.Gate.State().First()
	jar, _ := cookiejar.New(nil)
	stays := func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }
	stranger, phone := &http.Client{CheckRedirect: stays}, &http.Client{CheckRedirect: stays, Jar: jar}
	if r, err := phone.PostForm(at+"/in/"+home.Gate.Invites.New(), url.Values{"who": {"Kitchen phone"}}); err != nil ||
		r.StatusCode != http.StatusSeeOther {
		t.Fatal(r, err)
	}
	own := 0
	for _, route := range a.server.routes() {
		path := strings.NewReplacer(":version", "x", "*", "y", ":id", "x", ":token", "x", ":other", "x", ":list", "x", ":batch", "x",
			":photo", "x", ":place", "1", ":topic", "x", ":name", "x", ":as", "pdf").Replace(route.At)
		ask := func(c *http.Client) *http.Response {
			t.Helper()
			r, err := http.NewRequest(route.On, at+path, nil)
			if err != nil {
				t.Fatal(err)
			}
			answer, err := c.Do(r)
			if err != nil {
				t.Fatal(err)
			}
			answer.Body.Close()
			return answer
		}
		if !route.Lets.Open {
			r := ask(stranger)
			if !(r.StatusCode == http.StatusUnauthorized || r.StatusCode == http.StatusSeeOther &&
				strings.HasPrefix(r.Header.Get("Location"), "/enter")) {
				t.Errorf("a stranger asks for %s %s: %d", route.On, route.At, r.StatusCode)
			}
		}
		if route.Lets.Home {
			own++
			if r := ask(phone); r.StatusCode != http.StatusForbidden {
				t.Errorf("a phone asks for %s %s: %d", route.On, route.At, r.StatusCode)
			}
		}
	}
	if own < 10 {
		t.Errorf("%d addresses are the computer's own", own)
	}
	if r, err := stranger.Get(at + "/copies"); err != nil || r.StatusCode != http.StatusSeeOther {
		t.Error(r, err)
	}
}

// A clock that can't be right is told on her own computer, where boxes and backups are, and to nobody else.
func TestWrongClockIsTold(t *testing.T) {
	home := &desk.Home{Computer: desktop.This, Gate: gate.New(filepath.Join(t.TempDir(), "house.pem"))}
	home.Computer.Made = time.Date(2026, 12, 2, 0, 0, 0, 0, time.UTC)
	for _, c := range []struct {
		home *desk.Home
		year int
		told bool
	}{{home, 2020, true}, {home, 2027, false}, {nil, 2020, false}} {
		a := newAppBeside(t, request.Default, desk.Beside{Hosts: []string{"127.0.0.1"}, Home: c.home})
		a.server.Clock = func() time.Time { return time.Date(c.year, 1, 3, 9, 0, 0, 0, time.UTC) }
		a.begin(brief.New("mm"))
		for _, page := range []string{"/", "/copies"} {
			if told := holds(a.get(page).Body.String(), "clock says 3 January 2020"); told != c.told {
				t.Errorf("%s in %d, at home %v: told %v", page, c.year, c.home != nil, told)
			}
		}
	}
}
