package web_test

import (
	"encoding/json"
	"fmt"
	"maps"
	"net/http"
	"net/http/httptest"
	"net/url"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"brevium/core/brief"
)

// line is a bad line between the browser and the server: answers take their
// time, in turn; it drops; it loses answers to what has arrived.
type line struct {
	sync.Mutex
	delays []time.Duration
	down   bool
	loses  int
	posts  int
	status int // what changes are answered with in its place, 0 for nothing
}

func (l *line) is(down bool, loses int, delays ...time.Duration) {
	l.Lock()
	defer l.Unlock()
	l.down, l.loses, l.delays, l.posts = down, loses, delays, 0
}

// answers makes the line answer changes with a status, as something before the pages would.
func (l *line) answers(status int) {
	l.Lock()
	defer l.Unlock()
	l.status = status
}

func (l *line) between(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		l.Lock()
		down, delay, lose := l.down, time.Duration(0), l.loses > 0 && r.Method == "POST"
		if r.Method == "POST" {
			l.posts++
		}
		status := l.status
		if len(l.delays) > 0 && r.Header.Get("HX-Request") != "" {
			delay = l.delays[l.posts%len(l.delays)]
		}
		if lose {
			l.loses--
		}
		l.Unlock()
		if down {
			panic(http.ErrAbortHandler)
		}
		if status != 0 && r.Method == "POST" {
			w.WriteHeader(status)
			return
		}
		answer := httptest.NewRecorder()
		next.ServeHTTP(answer, r)
		time.Sleep(delay) // it is made, and its answer is late
		if lose {
			panic(http.ErrAbortHandler)
		}
		maps.Copy(w.Header(), answer.Header())
		w.WriteHeader(answer.Code)
		w.Write(answer.Body.Bytes())
	})
}

// over opens the first box, over a bad line.
func over(t *testing.T) (*visitor, *line, func() brief.Brief) {
	l := &line{}
	v := visit(t, l.between)
	path := v.box(0)
	v.do("open", chromedp.Navigate(v.address+path+"?stage=contents&view=flat"))
	v.sees("Saved")
	return v, l, func() (b brief.Brief) {
		t.Helper()
		r, err := http.Get(v.address + path + "/document")
		if err != nil {
			t.Fatal(err)
		}
		defer r.Body.Close()
		if err := json.NewDecoder(r.Body).Decode(&b); err != nil {
			t.Fatal(err)
		}
		return b
	}
}

const keptSays = `document.querySelector("#kept").textContent`

// settled waits until the page says that all is kept.
func (v *visitor) settled() {
	v.t.Helper()
	v.until("kept", keptSays+`.startsWith("Saved")`)
}

// With answers a second late, of uneven lateness, nothing typed is lost or
// overwritten, every step of the keys counts, and "Kept" is said only when it is
// true.
func TestLateAnswers(t *testing.T) {
	v, l, stored := over(t)
	l.is(false, 0, time.Second, 100*time.Millisecond, 700*time.Millisecond)
	v.types("#f-contents-1-count", "3")
	time.Sleep(450 * time.Millisecond) // it is on its way
	v.do("more", chromedp.KeyEvent("0"))
	v.types("#f-contents-1-length", "6")
	v.types("#f-contents-1-width", "4 1/4")
	v.js(`document.querySelector("#more-1").open = true; document.querySelector("#f-contents-1-food").click()`)
	v.types("#f-contents-1-name", "bulb packet")
	end := time.Now().Add(12 * time.Second)
	for said := ""; time.Now().Before(end); time.Sleep(30 * time.Millisecond) {
		said = v.reads(keptSays)
		fields := v.reads(`["count", "length", "width", "name"].map((f) => document.querySelector("#f-contents-1-" + f).value).join()`)
		if fields != "30,6,4 1/4,bulb packet" {
			t.Fatalf("a late answer changed the fields to %s", fields)
		}
		if b := stored().Contents[0]; strings.HasPrefix(said, "Saved") {
			if b.Count != "30" || b.Length != "6 in" || b.Width != "4 1/4 in" || b.Name != "bulb packet" || b.Food != "yes" {
				t.Fatalf("it says %q of %+v", said, b)
			}
			end = time.Time{}
		} else if !strings.HasPrefix(said, "Saving") {
			t.Fatalf("it says %q", said)
		}
	}
	v.settled()
	v.do("focus", chromedp.Focus(chromedp.CSS("#f-contents-1-height")))
	before := stored().Contents[0].Height
	for range 10 {
		v.do("step", chromedp.KeyEvent(kb.ArrowUp))
	}
	v.do("enter", chromedp.KeyEvent(kb.Enter))
	v.settled()
	if b := stored().Contents[0]; before != "1/4 in" || b.Height != "7/8 in" {
		t.Errorf("ten steps up from %s gave %s", before, b.Height)
	}
	v.until("the field shows it", `document.querySelector("#f-contents-1-height").value === "7/8"`)
	v.do("a field come to by Tab", chromedp.Focus(chromedp.CSS("#f-contents-1-length")), chromedp.KeyEvent(kb.Tab))
	v.do("a step, and typed over it", chromedp.KeyEvent(kb.ArrowUp))
	v.until("the step is answered", `document.querySelector("#f-contents-1-width").value === "4 5/16"`)
	if picked := v.reads(`((f) => f.value.slice(f.selectionStart, f.selectionEnd))(document.activeElement)`); picked != "4 5/16" {
		t.Errorf("after a step %q is selected: what is typed then is added to the old", picked)
	}
	v.do("another step", chromedp.KeyEvent(kb.ArrowUp))
	time.Sleep(100 * time.Millisecond)
	v.types("#f-contents-1-width", "5")
	v.do("focus", chromedp.Focus(chromedp.CSS("#f-contents-1-count")), chromedp.KeyEvent(kb.ArrowDown),
		chromedp.KeyEvent(kb.ArrowDown))
	v.do("more", chromedp.Focus(chromedp.CSS("#more-room summary")), chromedp.KeyEvent(kb.Enter))
	v.do("focus", chromedp.Focus(chromedp.CSS("#f-room-padding")), chromedp.KeyEvent(kb.ArrowUp))
	v.settled()
	if run(v, chromedp.Evaluate[bool](`document.querySelector("[id^=conflict-]") !== null`)) {
		t.Error("one's own steps are told as another window's")
	}
	if b := stored(); b.Contents[0].Width != "5 in" || b.Contents[0].Count != "28" || b.Room.Padding != "1/16 in" {
		t.Errorf("typed over a step %s; a count and an empty field moved to %s and %q", b.Contents[0].Width,
			b.Contents[0].Count, b.Room.Padding)
	}
}

// A line that drops and returns, and one that loses answers: what was changed
// waits, is said not to be kept, and arrives once.
func TestLineDrops(t *testing.T) {
	v, l, stored := over(t)
	l.is(true, 0)
	v.types("#f-contents-1-count", "9")
	v.sees("can't be reached")
	v.until("it says so", keptSays+`.startsWith("Not saved yet: one change waits")`)
	v.types("#f-contents-1-length", "5")
	v.click("#stage-2") // waits its turn
	l.is(false, 0)
	v.settled()
	v.until("and then the stage", `document.querySelector("#workbench").dataset.stage === "box"`)
	if b := stored().Contents[0]; b.Count != "9" || b.Length != "5 in" {
		t.Errorf("kept %+v", b)
	}
	v.click("#stage-1")
	v.until("back", `document.querySelector("#add-thing") !== null`)
	l.is(false, 2)
	v.click("#add-thing")
	v.until("added", `document.querySelectorAll('[name^="contents."][name$=".name"]').length === 2`)
	l.is(false, 1)
	v.do("focus", chromedp.Focus(chromedp.CSS("#f-contents-1-count")), chromedp.KeyEvent(kb.ArrowUp))
	v.settled()
	if b := stored(); len(b.Contents) != 2 || b.Contents[0].Count != "10" {
		t.Errorf("sent again, there are %d things, and %s of the first", len(b.Contents), b.Contents[0].Count)
	}
	// What will not be kept is told, and stays in its field.
	v.types("#f-contents-1-name", strings.Repeat("x", 201))
	v.sees("it takes 200")
	v.until("it says so", keptSays+` === "Not saved" && document.querySelector("#f-contents-1-name").value.length === 201`)
	v.types("#f-contents-1-name", "tin")
	v.settled()
	if got := stored().Contents[0].Name; got != "tin" {
		t.Errorf("kept %q", got)
	}
}

// Enter commits a field and does nothing else, on every stage.
func TestEnter(t *testing.T) {
	v, _, stored := over(t)
	v.click("#more-contents summary")
	v.click("#use-size")
	v.until("a size, and the hand in it", `document.activeElement.id === "f-size-length"`)
	v.types("#f-size-length", "6")
	v.do("enter", chromedp.KeyEvent(kb.Enter))
	v.settled()
	v.types("#f-contents-1-count", "7")
	v.do("enter", chromedp.KeyEvent(kb.Enter), chromedp.KeyEvent(kb.Enter))
	v.settled()
	b := stored()
	if b.Size == nil || b.Size.Length != "6 in" || len(b.Contents) != 1 || b.Contents[0].Count != "7" {
		t.Errorf("after Enter: %+v, %+v", b.Size, b.Contents)
	}
	if got := v.reads(`document.activeElement.id`); got != "f-contents-1-count" {
		t.Errorf("Enter moved the hand to %s", got)
	}
}

// The focus, the scroll and what lies under the pointer stay where a person
// would look for them.
func TestHandStays(t *testing.T) {
	v, _, _ := over(t)
	at := func(what, id string) {
		t.Helper()
		v.until(what, fmt.Sprintf(`document.activeElement.id === %q || document.activeElement.matches(%q)`, id, id))
	}
	v.do("add", chromedp.Focus(chromedp.CSS("#add-thing")), chromedp.KeyEvent(kb.Enter))
	at("in the new thing's name", `[name^="contents."][name$=".name"]:not(#f-contents-1-name)`)
	v.do("take out", chromedp.Focus(chromedp.CSS("#take-out-1")), chromedp.KeyEvent(kb.Enter))
	at("on taking out the next", `[id^="take-out-"]:not(#take-out-1)`)
	v.do("take out", chromedp.KeyEvent(kb.Enter))
	at("where one adds", "add-thing")
	v.click("#undo")
	v.settled()
	at("still on undo", "undo")
	v.click("#undo")
	v.click("#undo")
	v.until("nothing left to undo", `document.querySelector("#undo").disabled`)
	at("on its neighbour", "redo")

	// Stage keys: the new questions, from their beginning.
	v.js(`document.querySelector(".brief").scrollTop = 400; document.activeElement.blur()`)
	v.do("a key", chromedp.KeyEvent("2"))
	at("at the stage's heading", "brief-title")
	v.until("from the top", `document.querySelector(".brief").scrollTop === 0`)
	v.do("a key", chromedp.KeyEvent("a"))
	at("on the view", "view-styles")
	v.do("choose", chromedp.Focus(chromedp.CSS(`[data-style="flap-box"] .do button`)), chromedp.KeyEvent(kb.Enter))
	at("on the style that was chosen", "style-flap-box")

	// Nothing moves when a field is left; undo works from a box to tick.
	v.do("a key", chromedp.KeyEvent(kb.Escape), chromedp.KeyEvent("1"))
	at("back", "brief-title")
	top := func() float64 {
		return run(v, chromedp.Evaluate[float64](`document.querySelector("#f-contents-1-height").getBoundingClientRect().top`))
	}
	away := top()
	v.do("into a field", chromedp.Focus(chromedp.CSS("#f-contents-1-length")))
	within := top()
	v.do("out of it", chromedp.Focus(chromedp.CSS("#f-contents-1-count")))
	if away != within || within != top() {
		t.Errorf("what lies below moves: %v, %v, %v", away, within, top())
	}
	v.js(`document.querySelector("#more-1").open = true`)
	v.click("#f-contents-1-food")
	v.settled()
	v.js(`document.activeElement.dispatchEvent(new KeyboardEvent("keydown", {key: "z", ctrlKey: true, bubbles: true}))`)
	v.until("undone from a box to tick", `!document.querySelector("#f-contents-1-food").checked`)
}

// A row of links is one stop, and numbers are none, with arrows inside; keys of a letter
// can be switched off; what was seen is seen after a reload.
func TestRowsAndKeys(t *testing.T) {
	v, _, _ := over(t)
	v.until("no number to stop at", `document.querySelectorAll('#numbers [tabindex="0"]').length === 0 &&
		document.querySelectorAll("#numbers .num[data-link]").length > 6`)
	v.do("arrows", chromedp.Focus(chromedp.CSS(`#numbers .num[data-link]`)), chromedp.KeyEvent(kb.ArrowRight),
		chromedp.KeyEvent(kb.ArrowRight))
	v.until("the third", `document.activeElement === document.querySelectorAll("#numbers .num[data-link]")[2] &&
		document.querySelector(".flat .lit") !== null`)
	v.do("arrows", chromedp.Focus(chromedp.CSS("#view-flat")), chromedp.KeyEvent(kb.ArrowRight))
	v.until("the next view", `document.activeElement.id === "view-folded"`)
	titles := map[string]bool{}
	for _, to := range [][2]string{{"#stage-2", "stage=box"}, {"#stage-5", "stage=sheets"}, {"#view-flat", "view=flat"},
		{`.alone[aria-label="lid alone"]`, "piece=lid"}, {`.alone[aria-label="all pieces"]`, "view=flat"},
		{`.alone[aria-label="base alone"]`, "piece=base"}} {
		v.click(to[0])
		v.until("where the link says", fmt.Sprintf(`location.search.includes(%q) && document.title.startsWith("Seed")`, to[1]))
		titles[v.reads(`document.title`)] = true
	}
	if len(titles) != 5 {
		t.Errorf("titles: %v", titles)
	}
	v.click("#view-folded")
	v.until("folded", `document.querySelector("#turnable") !== null`)
	v.js(`document.querySelector("[name=at]").value = 2;
		document.querySelector("[name=at]").dispatchEvent(new Event("input", {bubbles: true}))`)
	v.until("the address holds it", `location.search.includes("at=2")`)
	v.do("reload", chromedp.Reload())
	v.until("seen as before", `document.querySelector("[name=at]").value === "2" &&
		document.querySelector("[data-course-number]").textContent.startsWith("2 of")`)
	here := v.reads(`location.href`)
	v.do("help", chromedp.Navigate(v.address+"/help"))
	v.click("#single-keys")
	v.do("back", chromedp.Navigate(here))
	v.until("folded again", `document.querySelector("#turnable") !== null`)
	v.do("keys", chromedp.KeyEvent("s"), chromedp.KeyEvent("2"))
	time.Sleep(200 * time.Millisecond)
	if v.reads(`document.querySelector("#workbench").dataset.view`) != "folded" {
		t.Error("a key that is switched off works")
	}
	v.js(`document.body.dispatchEvent(new KeyboardEvent("keydown", {key: "p", ctrlKey: true, bubbles: true, cancelable: true}))`)
	v.until("the plan to print", `location.pathname.endsWith("/print") && document.querySelector(".print-sheet") !== null`)
}

// Should the page be left while changes wait, each field is sent once, with its
// newest text, so that no order of arrival brings the older back.
func TestLeftWhileWaiting(t *testing.T) {
	v, l, stored := over(t)
	l.is(false, 0, 2*time.Second)
	v.js(`window.sent = []; window.fetch = (_, { body }) => { sent.push(body.toString()); return Promise.resolve(); }`)
	v.types("#f-contents-1-count", "2") // on its way
	v.do("enter", chromedp.KeyEvent(kb.Enter))
	v.types("#f-contents-1-length", "6")
	v.types("#f-contents-1-width", "4")
	v.types("#f-contents-1-length", "7")
	v.js(`dispatchEvent(new Event("pagehide"))`)
	got := strings.Split(v.reads(`sent.join(" ")`), " ")
	var lengths []string
	for _, body := range got {
		form, err := url.ParseQuery(body)
		if err != nil {
			t.Fatal(err)
		}
		if form.Has("contents.@1.length") {
			lengths = append(lengths, form.Get("contents.@1.length")+" after "+form.Get("was.contents.@1.length"))
		}
	}
	if want := "7 after " + string(stored().Contents[0].Length); strings.Join(lengths, ", ") != want {
		t.Errorf("sent on leaving: %q, want %q", lengths, want)
	}
}

// What was typed in a thing that another window took out is told, with the hand
// where it can be put back; and the pictures stand through every change.
func TestTakenOutElsewhere(t *testing.T) {
	v, _, stored := over(t)
	elsewhere := func(fields string) {
		t.Helper()
		v.reads(`fetch(location.pathname + "/change", {method: "POST", body: new URLSearchParams({` + fields +
			`})}).then(() => "")`)
	}
	elsewhere(`act: "add-usual:tulip bulb"`)
	elsewhere(`act: "remove-thing:1"`)
	v.types("#f-contents-1-length", "6")
	v.sees("was removed in another window")
	v.until("the hand is there", `document.activeElement.id === "conflict-0"`)
	seen := `[...document.querySelectorAll("svg.drawing")].every((s) => s.namespaceURI.endsWith("svg") &&
		s.getBoundingClientRect().height > 20)`
	v.until("the picture stands", seen)
	v.click("#conflict-0 button")
	v.until("put back", `document.querySelector("#f-contents-1-length") !== null`)
	if b := stored(); len(b.Contents) != 2 || b.Contents[0].Length != "6 in" {
		t.Errorf("put back as %+v", b.Contents)
	}
	for _, id := range []string{"#view-above", "#view-ways", "#view-folded", "#view-flat", "#undo", "#redo", "#view-above"} {
		v.click(id)
		v.settled()
		v.until("the pictures stand after "+id, seen)
	}
	v.until("from above", `document.querySelector("[data-stack]") !== null`)
	last := v.reads(`[...document.querySelectorAll("[data-stack]")].
		sort((a, b) => a.getBoundingClientRect().right - b.getBoundingClientRect().right).at(-1).id`)
	v.do("move by hand", chromedp.Focus(chromedp.CSS(`[id="`+last+`"]`)), chromedp.KeyEvent(kb.ArrowRight),
		chromedp.KeyEvent(kb.ArrowRight))
	v.until("moved, and held", fmt.Sprintf(`document.querySelector("#choose-for-me") !== null &&
		document.activeElement.id === %q`, last))
	v.until("the pictures stand", seen)
}
