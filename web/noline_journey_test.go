package web_test

import (
	"fmt"
	"net/http"
	"net/http/httptest"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// tickForm finds in a page at the bench what ticks its step.
var tickForm = regexp.MustCompile(`name="step" value="([^"]+)"><input type="hidden" name="mark" value="([^"]+)"`)

// elsewhere is another phone at the same bench, on a line of its own.
type elsewhere struct {
	t    *testing.T
	http http.Handler
}

func (e *elsewhere) between(next http.Handler) http.Handler { e.http = next; return next }

func (e *elsewhere) asks(method, address string, fields url.Values) string {
	e.t.Helper()
	r := httptest.NewRequest(method, address, strings.NewReader(fields.Encode()))
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	w := httptest.NewRecorder()
	e.http.ServeHTTP(w, r)
	if w.Code >= 400 {
		e.t.Fatalf("%s %s: %d %s", method, address, w.Code, w.Body)
	}
	return w.Body.String()
}

// ticks ticks a step of a box as many times as it is to be done.
func (e *elsewhere) ticks(bench, step string, more int) {
	e.t.Helper()
	page := e.asks("GET", bench+"?step="+url.QueryEscape(step), nil)
	for _, form := range tickForm.FindAllStringSubmatch(page, -1) {
		if form[1] == step {
			e.asks("POST", bench+"/tick", url.Values{"step": {step}, "mark": {form[2]}, "more": {fmt.Sprint(more)}})
			return
		}
	}
	e.t.Fatalf("nothing ticks %s", step)
}

// good is how many steps the list shows as done.
const good = `document.querySelectorAll(".at-list .good").length`

// The line drops in the middle of a making and she goes on: pictures turn, ticks, a timer and a photo wait. Meanwhile
// another phone ticks one of the same steps. Her page is even closed. When the line is back, all arrives in its order and
// once, though an answer is lost on the way.
func TestBenchWithoutALine(t *testing.T) {
	l, other := &line{}, &elsewhere{t: t}
	v := visit(t, other.between, l.between)
	box := v.box(6)
	bench := v.address + box + "/bench"
	v.do("bench", chromedp.EmulateViewport(390, 844), chromedp.Navigate(bench))
	v.until("all pictures are in the page", `document.documentElement.dataset.held === "`+box+`/bench"`)
	l.is(true, 0)
	steps := []string{}
	for {
		if at := v.reads(benchStep); len(steps) == 0 || steps[len(steps)-1] != at {
			steps = append(steps, at)
		}
		if len(steps) == 6 {
			break
		}
		was := v.reads("location.search")
		v.do("on", chromedp.KeyEvent(kb.ArrowRight))
		v.until("on", fmt.Sprintf("location.search !== %q", was))
	}
	v.until("ticked", good+" === 5")
	v.sees("No connection")
	v.sees("5 things you did are kept on this device")
	v.until("pictures", `document.querySelector(".at-picture svg") !== null`)
	v.js(`document.querySelector('#at-list').open = true;
		[...document.querySelectorAll(".at-list a")].find((a) => a.textContent.includes("Let it dry")).click()`)
	v.click("[data-wait] button")
	v.until("it runs", `document.querySelector("[data-wait].running [data-left]").textContent.startsWith("59:5")`)
	v.js(`const canvas = Object.assign(document.createElement("canvas"), { width: 64, height: 48 });
		canvas.getContext("2d").fillRect(0, 0, 20, 20);
		canvas.toBlob((blob) => {
			const all = new DataTransfer(), field = document.querySelector("#at-photo");
			all.items.add(new File([blob], "drying.png", { type: "image/png" }));
			field.files = all.files;
			field.dispatchEvent(new Event("change", { bubbles: true }));
		}, "image/png")`)
	v.sees("7 things you did are kept on this device")
	other.ticks(bench, steps[0], 1)
	other.ticks(bench, "fill", 1)

	v.do("closed", chromedp.Navigate("about:blank"))
	l.is(false, 2) // and the first two answers are lost
	v.do("opened again", chromedp.Navigate(bench))
	v.until("all of it, and the other's", good+" === 6")
	v.until("its photo", `document.querySelectorAll(".at-photos img").length === 1 && !document.querySelector("[data-line]").offsetWidth`)
	for i, step := range steps[:5] {
		page := other.asks("GET", bench+"?step="+url.QueryEscape(step), nil)
		row := regexp.MustCompile(`data-step="` + regexp.QuoteMeta(step) + `" data-done="(\d+)" data-count="(\d+)"`).FindStringSubmatch(page)
		if row == nil || row[1] != row[2] {
			t.Errorf("step %d: %s is %v", i, step, row)
		}
	}
	page := other.asks("GET", bench+"?step=drying", nil)
	if !strings.Contains(page, "Let it dry") || !strings.Contains(page, "&#34;left&#34;:35") {
		t.Error("the other phone does not see that the glue is drying")
	}
	// What she made goes into the logbook, and its photo with it.
	v.do("record", chromedp.Navigate(v.address+box+"?stage=record"))
	v.click("#made-it > summary")
	v.click("#keep-making")
	v.until("with its photo", `document.querySelectorAll(".photos img").length === 1`)
	v.do("bench", chromedp.Navigate(bench))
	v.until("none is left", `document.querySelectorAll(".at-photos img").length === 0`)
}

// What came too late is told: the step says something else by now, or the box is gone.
func TestBenchTooLate(t *testing.T) {
	l, other := &line{}, &elsewhere{t: t}
	v := visit(t, other.between, l.between)
	box := v.box(6)
	v.do("bench", chromedp.EmulateViewport(390, 844), chromedp.Navigate(v.address+box+"/bench?step=trim:1&picture=100"))
	v.until("all pictures are in the page", `Boolean(document.documentElement.dataset.held)`)
	l.is(true, 0)
	v.click(`.at-on [data-way="on"]`)
	v.until("ticked", good+" === 1")
	other.asks("POST", v.address+box+"/change", url.Values{"contents.0.height": {"70 mm"}, "base": {other.base(v.address + box)}})
	l.is(false, 0)
	v.js(`dispatchEvent(new Event("online"))`)
	v.sees("was changed before your tick arrived")
	v.until("not done", good+" === 0")
}

func (e *elsewhere) base(box string) string {
	e.t.Helper()
	found := regexp.MustCompile(`data-base="(\d+)"`).FindStringSubmatch(e.asks("GET", box, nil))
	if found == nil {
		e.t.Fatal("no base")
	}
	return found[1]
}
