package web_test

import (
	"context"
	"errors"
	"fmt"
	"html"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/cdproto"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"

	"brevium/demo"
	"brevium/internal/browser"
	"brevium/store"
)

// visitor is a browser at the running application.
type visitor struct {
	t       *testing.T
	ctx     context.Context
	address string
	stop    func() // ends the server
}

// chromium is the one browser of all visitors: each has a window and a storage of its
// own there, and starting one takes longer than many a visit.
func chromium(t *testing.T) context.Context {
	t.Helper()
	shared.begin.Do(func() {
		if shared.ctx, shared.stop, shared.err = browser.Start(context.Background(), 1280, 800); shared.err == nil {
			shared.err = chromedp.Do(shared.ctx, chromedp.Navigate("about:blank"))
		}
	})
	if shared.err != nil {
		t.Fatal(shared.err)
	}
	return shared.ctx
}

var shared struct {
	begin sync.Once
	ctx   context.Context
	stop  func()
	err   error
}

// fair is the database of the fair with every box's card and picture in the lists made already: making
// them takes longer than many a visit.
func fair(t *testing.T) []byte {
	t.Helper()
	made.begin.Do(func() {
		dir := t.TempDir()
		address, stop, err := browser.Serve(context.Background(), dir, demo.Fill)
		if made.err = err; err != nil {
			return
		}
		for page := 1; page <= 3 && made.err == nil; page++ {
			var cards []byte
			cards, made.err = fetched(fmt.Sprintf("%s/?page=%d", address, page))
			for _, picture := range picturesOf.FindAllSubmatch(cards, -1) {
				_, _ = fetched(address + html.UnescapeString(string(picture[1])))
			}
		}
		stop() // what is in its log goes into the file
		if made.err == nil {
			made.data, made.err = os.ReadFile(filepath.Join(dir, browser.Database))
		}
	})
	if made.err != nil {
		t.Fatal(made.err)
	}
	return made.data
}

var picturesOf = regexp.MustCompile(`src="(/projects/[^"]+)"`)

func fetched(address string) ([]byte, error) {
	r, err := http.Get(address)
	if err != nil {
		return nil, err
	}
	defer r.Body.Close()
	return io.ReadAll(r.Body)
}

var made struct {
	begin sync.Once
	data  []byte
	err   error
}

func TestMain(m *testing.M) {
	code := m.Run()
	if shared.stop != nil {
		shared.stop()
	}
	os.Exit(code)
}

func visit(t *testing.T, between ...func(http.Handler) http.Handler) *visitor {
	t.Helper()
	t.Parallel()
	dir := t.TempDir()
	if err := os.WriteFile(filepath.Join(dir, browser.Database), fair(t), 0o600); err != nil {
		t.Fatal(err)
	}
	address, stop, err := browser.Serve(t.Context(), dir, nil, between...)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(stop)
	ctx, end := chromedp.NewContext(chromium(t), chromedp.WithNewBrowserContext())
	t.Cleanup(end)
	ctx, cancel := context.WithTimeout(ctx, 5*time.Minute)
	t.Cleanup(cancel)
	v := &visitor{t, ctx, address, stop}
	v.do("begin", chromedp.Navigate("about:blank"))
	// A page in a window that nobody looks at has no focus to show.
	focus := emulation.SetFocusEmulationEnabledParams{Enabled: true}
	if _, err := chromedp.Call(ctx, emulation.SetFocusEmulationEnabled, focus); err != nil {
		t.Fatal(err)
	}
	v.motion("reduce")
	return v
}

// motion says whether the visitor wants things to move: where nothing does, a journey takes two thirds of the time.
func (v *visitor) motion(wanted string) {
	v.t.Helper()
	media := emulation.SetEmulatedMediaParams{Features: []*emulation.MediaFeature{{Name: "prefers-reduced-motion", Value: wanted}}}
	if _, err := chromedp.Call(v.ctx, emulation.SetEmulatedMedia, media); err != nil {
		v.t.Fatal(err)
	}
}

func (v *visitor) do(what string, steps ...chromedp.Action[chromedp.Void]) {
	v.t.Helper()
	for _, step := range steps {
		if err := patiently(v.ctx, step); err != nil {
			v.t.Fatalf("%s: %v", what, err)
		}
	}
}

// patiently does a step. What it is done to may be found on a page that is just being
// redrawn, and be gone when it is done: then, like a person, it looks again.
func patiently(ctx context.Context, step chromedp.Action[chromedp.Void]) error {
	const gone = -32000 // the browser's code for a node that is no longer there
	for end := time.Now().Add(25 * time.Second); ; time.Sleep(100 * time.Millisecond) {
		err := chromedp.Do(ctx, step)
		var told *cdproto.Error
		if err == nil || !errors.As(err, &told) || told.Code != gone || time.Now().After(end) {
			return err
		}
	}
}

func run[T any](v *visitor, a chromedp.Action[T]) T {
	v.t.Helper()
	out, err := chromedp.Run(v.ctx, a)
	if err != nil {
		v.t.Fatal(err)
	}
	return out
}

// reads gives the text that a script, or what it promises, comes to.
func (v *visitor) reads(script string) string {
	v.t.Helper()
	return run(v, chromedp.Evaluate[string](script, chromedp.EvalAwaitPromise))
}

// js runs a script in the page.
func (v *visitor) js(script string) {
	v.t.Helper()
	run(v, chromedp.Evaluate[any](script+"\n;1"))
}

const loaded = `document.readyState === "complete" && (%s)`

// until waits for a script's truth on a page that has been loaded whole: what is pressed
// before the page's own script has run would be lost.
func (v *visitor) until(what, script string) {
	v.t.Helper()
	end := time.Now().Add(25 * time.Second)
	for time.Now().Before(end) {
		// While a page is on its way there may be nothing to ask yet.
		if ok, err := chromedp.Run(v.ctx, chromedp.Evaluate[bool](fmt.Sprintf(loaded, script))); err == nil && ok {
			return
		}
		time.Sleep(100 * time.Millisecond)
	}
	v.t.Fatalf("never came true: %s (%s)\n%.1500s", what, script, v.reads("document.body.innerText"))
}

// sees waits until the page's text holds something, with blanks run together.
func (v *visitor) sees(text string) {
	v.t.Helper()
	// What is seen is laid out for it: asked only when the text is there at all.
	v.until("the page says "+text, fmt.Sprintf(`document.body.textContent.replace(/[\s\u200b]+/g, "").includes(%q) &&
		document.body.innerText.replace(/[\s\u200b]+/g, " ").includes(%q)`, strings.Join(strings.Fields(text), ""), text))
}

// types empties a field and writes in it, key by key.
func (v *visitor) types(selector, text string) {
	v.t.Helper()
	v.do("type "+text, chromedp.Focus(chromedp.CSS(selector)))
	v.js(fmt.Sprintf(`document.querySelector(%q).select()`, selector))
	v.do("type "+text, chromedp.KeyEvent(text))
}

// click presses what is found, and again where an answer moved it from under the pointer.
func (v *visitor) click(selector string) {
	v.t.Helper()
	for range 5 {
		v.js(fmt.Sprintf(`window.missed = true; addEventListener("click", (e) => window.missed = !e.target.closest(%q),
			{ capture: true, once: true })`, selector))
		v.do("click "+selector, chromedp.Click(chromedp.CSS(selector)))
		if missed, err := chromedp.Run(v.ctx, chromedp.Evaluate[bool](`window.missed === true`)); err != nil || !missed {
			return // or it leads to another page
		}
	}
}

// tally reads a row of the tally's sizes.
func (v *visitor) piece(n int) string {
	return fmt.Sprintf(`document.querySelectorAll(".tally .piece .cutsize")[%d].innerText.replace(/[\s\u200b]+/g, " ").trim()`, n)
}

// things finds the fields of the things listed.
const things = `[...document.querySelectorAll('#brief [name^="contents."]:not([type=hidden])')]`

// mark lets scripts of the test find a field of the last thing listed.
func (v *visitor) mark() {
	v.js(`window.thing = (field) => ` + things + `.filter((el) => el.name.endsWith("." + field)).at(-1)`)
}

// field gives the selector of a field of the last thing listed.
func (v *visitor) field(name string) string {
	v.t.Helper()
	return v.reads(fmt.Sprintf(`"#" + (`+things+`.filter((el) => el.name.endsWith(".%s")).at(-1) || { id: "none" }).id`, name))
}

// box gives the path of a box of the first page, counted from 0.
func (v *visitor) box(n int) string {
	v.t.Helper()
	v.do("open", chromedp.Navigate(fmt.Sprintf("%s/?page=%d", v.address, n/store.PerPage+1)))
	return v.reads(fmt.Sprintf(`document.querySelectorAll(".card-item > a")[%d].getAttribute("href")`, n%store.PerPage))
}
