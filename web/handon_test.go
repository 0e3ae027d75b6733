package web

import (
	"fmt"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/store"
)

// trayOf begins a tray with its lid in millimetres and gives its address.
func (a *app) trayOf(sheet, card string) string {
	a.t.Helper()
	b := brief.New("mm")
	b.Name, b.Contents = "Bulb tray", nil
	b.Size = &brief.Size{Length: "90 mm", Width: "70 mm", Depth: "40 mm"}
	b.Set("card.sheet", sheet)
	b.Set("card.stock", card)
	id, err := a.store.Boxes.Create(a.t.Context(), b, "new")
	if err != nil {
		a.t.Fatal(err)
	}
	return "/projects/" + id
}

var markField = regexp.MustCompile(`name="mark" value="([^"]*)"`)

// tickStep ticks a step as its page would.
func (a *app) tickStep(path, step string, more int, seconds float64) (code int, next string) {
	a.t.Helper()
	page := a.get(path + "/bench?" + url.Values{"step": {step}, "picture": {"99"}}.Encode()).Body.String()
	mark := markField.FindStringSubmatch(page[strings.Index(page, `class="at-ways"`):])
	if mark == nil {
		a.t.Fatalf("%s can't be ticked", step)
	}
	r := a.post(path+"/bench/tick", "step", step, "mark", mark[1], "more", fmt.Sprint(more), "seconds", fmt.Sprint(seconds))
	return r.Code, r.Header().Get("Location")
}

// Ticks are kept, lead on, and hold only for what the step said then.
func TestTicksHoldForWhatTheySaid(t *testing.T) {
	a := newApp(t)
	path := a.trayOf("a3", "cover-216")
	if code, next := a.tickStep(path, "trim:1", 1, 95); code != http.StatusSeeOther || !strings.HasSuffix(next, "step=score%3Abase") {
		t.Fatalf("%d %s", code, next)
	}
	page := a.get(path + "/bench").Body.String()
	if !strings.Contains(page, `data-step="score:base"`) || strings.Count(page, ">done: <") != 1 {
		t.Error("the next step is not the one to do")
	}
	a.tickStep(path, "score:base", 1, 20)
	st, _ := a.store.Boxes.Head(t.Context(), strings.TrimPrefix(path, "/projects/"))
	b := st.Doc.Clone()
	b.Size.Depth = "44 mm"
	if _, err := a.store.Boxes.Save(t.Context(), st.Of, "", store.Change[brief.Brief]{Base: st.ID, Doc: b, What: "deeper"}); err != nil {
		t.Fatal(err)
	}
	page = a.get(path + "/bench").Body.String()
	if !strings.Contains(page, "data-if-changed><b>") || strings.Contains(page, ">done: <") {
		t.Error("what was done of another box counts as done")
	}
	// A page of before ticks nothing.
	r := a.post(path+"/bench/tick", "step", "score:base", "mark", "old", "more", "1")
	if ticks, _, _ := a.store.Log.Ticks(t.Context(), st.Of); r.Code != http.StatusSeeOther || ticks["score:base"].Print == "old" {
		t.Errorf("%d %v", r.Code, ticks)
	}
	for _, more := range []string{"2", "-2", "x", ""} {
		page := a.get(path + "/bench?step=fill&picture=9").Body.String()
		mark := markField.FindStringSubmatch(page[strings.Index(page, `class="at-ways"`):])[1]
		if r := a.post(path+"/bench/tick", "step", "fill", "mark", mark, "more", more); r.Code != http.StatusBadRequest {
			t.Errorf("%q copies more: %d", more, r.Code)
		}
	}
	if r := a.post("/projects/nowhere/bench/tick", "step", "fill"); r.Code != http.StatusNotFound {
		t.Errorf("of no box: %d", r.Code)
	}
	if times, _ := a.store.Log.Times(t.Context()); len(times) != 2 {
		t.Errorf("%v", times)
	}
}

var dont = regexp.MustCompile(`(?i)don(&#39;|')t cut (this|yet)`)

// Every file that the pages offer is there; what is unproved says so, and goes to no machine.
func TestOut(t *testing.T) {
	a := newApp(t)
	good, bad := a.trayOf("a3", "cover-216"), a.trayOf("6x6", "cover-216")
	for out, media := range map[string]string{"pdf": "application/pdf", "pdf?with=steps&paper=letter&both=1": "application/pdf",
		"slip": "application/pdf", "templates": "application/pdf", "zip": "application/zip", "svg?piece=lid": "image/svg+xml",
		"dxf?sheet=1": "application/dxf", "hpgl?sheet=1": "application/vnd.hp-hpgl", "gcode": "text/x-gcode"} {
		r := a.get(good + "/out/" + out)
		if r.Code != http.StatusOK || r.Header().Get("Content-Type") != media || r.Body.Len() < 200 ||
			!strings.HasPrefix(r.Header().Get("Content-Disposition"), "attachment; filename=bulb-tray") {
			t.Errorf("%s: %d %v", out, r.Code, r.Header())
		}
	}
	for out, code := range map[string]int{"docx": 404, "svg?piece=roof": 404, "gcode?sheet=77": 404} {
		if r := a.get(good + "/out/" + out); r.Code != code {
			t.Errorf("%s: %d", out, r.Code)
		}
	}
	for _, out := range []string{"hpgl", "gcode"} {
		if r := a.get(bad + "/out/" + out); r.Code != http.StatusConflict || !dont.MatchString(r.Body.String()) {
			t.Errorf("%s of an unproved plan: %d", out, r.Code)
		}
	}
	if body := a.get(good + "/handon").Body.String(); !regexp.MustCompile(`put in the box: \d+ × \d+ mm\.`).MatchString(body) {
		t.Error("the size of the slip is not told in the unit of the box")
	}
	for _, page := range []string{"/handon", "/templates", "/machine", "/bench", "/print"} {
		if r := a.get(bad + page); r.Code != http.StatusOK || !dont.MatchString(r.Body.String()) {
			t.Errorf("%s does not say that it isn't proved: %d", page, r.Code)
		}
	}
}

// The templates' sizes stand in both units where the house has it so.
func TestTemplatesInBothUnits(t *testing.T) {
	a := newApp(t)
	path := a.trayOf("a3", "cover-216")
	sizes := regexp.MustCompile(`<h3>Base <small>(.*)</small>`)
	for _, second := range []string{"", "yes"} {
		a.typeInShop("habits.second", second)
		m := sizes.FindStringSubmatch(a.get(path + "/templates").Body.String())
		if m == nil || strings.Contains(m[1], " mm (") != (second == "yes") {
			t.Errorf("second %q: %v", second, m)
		}
	}
}

// A shared box is as it was when it was shared, in every part of its page, and can't be changed
// by the link; withdrawn, all of it is gone.
func TestShare(t *testing.T) {
	a := newApp(t)
	path := a.trayOf("a3", "cover-216")
	id := strings.TrimPrefix(path, "/projects/")
	if r := a.post(path + "/share"); r.Code != http.StatusSeeOther {
		t.Fatal(r.Code)
	}
	sh, err := a.store.Links.ShareOf(t.Context(), id)
	if err != nil {
		t.Fatal(err)
	}
	head, _ := a.store.Boxes.Head(t.Context(), id)
	b := head.Doc.Clone()
	b.Name, b.Size.Length = "Another name", "120 mm"
	if _, err := a.store.Boxes.Save(t.Context(), id, "", store.Change[brief.Brief]{Base: head.ID, Doc: b, What: "longer"}); err != nil {
		t.Fatal(err)
	}
	a.typeInShop("habits.adhesive", "glue")
	a.typeInShop("habits.burnish", "before")
	link := "/s/" + sh.Token
	parts := []string{"", "/folded", "/solid.json", "/step.svg?step=fill", "/document", "/out/pdf", "/out/slip", "/out/templates"}
	for _, part := range parts {
		if r := a.get(link + part); r.Code != http.StatusOK || strings.Contains(r.Body.String(), "Another name") {
			t.Errorf("%q: %d", part, r.Code)
		}
	}
	page := a.get(link).Body.String()
	if !strings.Contains(page, "Bulb tray") || !strings.Contains(page, "170 mm (6 11/16 in)") && !strings.Contains(page, "170 mm (6") {
		t.Error("the page does not tell the box in both units")
	}
	if !strings.Contains(page, "double-sided tape") || strings.Index(page, "burnish") < strings.Index(page, "Cut: base") {
		t.Error("what the shop says now is in what was shared before")
	}
	if doc := a.get(link + "/document").Body.String(); !strings.Contains(doc, `"90 mm"`) {
		t.Errorf("%.200s", doc)
	}
	for _, part := range []string{"/out/hpgl", "/out/zip", "/bench", "/machine", "/print", "?x=1&stage=box/../"} {
		if r := a.get(link + part); part[0] == '/' && r.Code != http.StatusNotFound {
			t.Errorf("%q can be seen by the link: %d", part, r.Code)
		}
	}
	if r := a.post(link, "name", "x"); r.Code != http.StatusMethodNotAllowed {
		t.Errorf("something was sent to the link: %d", r.Code)
	}
	if r := a.post(path + "/unshare"); r.Code != http.StatusSeeOther {
		t.Fatal(r.Code)
	}
	for _, part := range parts {
		if r := a.get(link + part); r.Code != http.StatusGone {
			t.Errorf("withdrawn, %q is still there: %d", part, r.Code)
		}
	}
	if r := a.get("/s/aaaaaaaaaaaaaaaaaaaaaaaaaa"); r.Code != http.StatusNotFound {
		t.Errorf("a guess: %d", r.Code)
	}
}

// Without a machine the page says how one is had, and nothing is sent.
func TestNoMachine(t *testing.T) {
	a := newApp(t)
	path := a.trayOf("a3", "cover-216")
	if page := a.get(path + "/machine").Body.String(); !strings.Contains(page, "No cutting machine is connected") {
		t.Error("it is not said that there is none")
	}
	for _, do := range [][]string{{"/machine/send", "sheet", "1"}, {"/machine/press", "button", "start"}} {
		if r := a.post(path+do[0], do[1:]...); r.Code != http.StatusConflict {
			t.Errorf("%v: %d", do, r.Code)
		}
	}
	if r := a.get(path + "/machine/path.svg"); r.Code != http.StatusNotFound {
		t.Error(r.Code)
	}
}
