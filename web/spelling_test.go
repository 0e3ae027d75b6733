package web

import (
	"net/http/httptest"
	"strings"
	"testing"

	"brevium/core/brief"
)

// A browser that asks for American English gets it, until British is chosen; what was typed stays as it was.
func TestSpelling(t *testing.T) {
	a := newApp(t)
	b := brief.New("in")
	b.Name, b.Notes = "Grey colour box", "a grey ribbon"
	path := "/projects/" + a.begin(b) + "?stage=record"
	page := func(language, cookie string) string {
		r := httptest.NewRequest("GET", path, nil)
		r.Header.Set("Accept-Language", language)
		if cookie != "" {
			r.Header.Set("Cookie", "spelling="+cookie)
		}
		return a.do(r).Body.String()
	}
	for _, c := range []struct{ language, cookie, says, not string }{
		{"en-US,en;q=0.9", "", "Move to\n      trash", "to\n      bin<"}, {"en-GB", "", "Move to\n      bin", "trash"},
		{"en-US", "uk", "Move to\n      bin", "trash"}, {"de", "us", "Move to\n      trash", ""},
	} {
		got := page(c.language, c.cookie)
		for _, says := range []string{c.says, ">Grey colour box<", `value="Grey colour box"`, "a grey ribbon</textarea>"} {
			if !strings.Contains(got, says) {
				t.Errorf("%s, %q: no %q", c.language, c.cookie, says)
			}
		}
		if c.not != "" && strings.Contains(got, c.not) {
			t.Errorf("%s, %q: says %q", c.language, c.cookie, c.not)
		}
	}
	w := a.post("/help/spelling", "spelling", "us")
	if w.Code != 303 || !strings.Contains(w.Header().Get("Set-Cookie"), "spelling=us") {
		t.Errorf("%d %s", w.Code, w.Header())
	}
}
