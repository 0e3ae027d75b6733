package web_test

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/cdproto"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

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

// fair is the database of the fair with every box's card in the lists made already: making
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
			var r *http.Response
			if r, made.err = http.Get(fmt.Sprintf("%s/?page=%d", address, page)); made.err == nil {
				_, made.err = io.Copy(io.Discard, r.Body)
				r.Body.Close()
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
	return v
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
	for end := time.Now().Add(25 * time.Second); ; time.Sleep(40 * time.Millisecond) {
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

// until waits for a script's truth.
func (v *visitor) until(what, script string) {
	v.t.Helper()
	end := time.Now().Add(25 * time.Second)
	for time.Now().Before(end) {
		// While a page is on its way there may be nothing to ask yet.
		if ok, err := chromedp.Run(v.ctx, chromedp.Evaluate[bool](script)); err == nil && ok {
			return
		}
		time.Sleep(40 * time.Millisecond)
	}
	v.t.Fatalf("never came true: %s (%s)\n%.1500s", what, script, v.reads("document.body.innerText"))
}

// sees waits until the page's text holds something, with blanks run together.
func (v *visitor) sees(text string) {
	v.t.Helper()
	v.until("the page says "+text, fmt.Sprintf(`document.body.innerText.replace(/[\s\u200b]+/g, " ").includes(%q)`, text))
}

// types empties a field and writes in it, key by key.
func (v *visitor) types(selector, text string) {
	v.t.Helper()
	v.do("type "+text, chromedp.Focus(chromedp.CSS(selector)))
	v.js(fmt.Sprintf(`document.querySelector(%q).select()`, selector))
	v.do("type "+text, chromedp.KeyEvent(text))
}

func (v *visitor) click(selector string) {
	v.t.Helper()
	v.do("click "+selector, chromedp.Click(chromedp.CSS(selector)))
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

// From an empty project to a printed plan, as a person does it.
func TestJourney(t *testing.T) {
	v := visit(t)
	v.do("open", chromedp.Navigate(v.address))
	v.sees("Seed packet sampler")
	v.click("#new-box")
	v.sees("Your box will stand here")
	v.click("#add-thing")
	v.until("the new thing has the focus", `document.activeElement.name &&
		document.activeElement.name.endsWith(".name") && document.activeElement.value === "thing"`)
	v.mark()
	v.js(`window.errors = []; addEventListener("error", e => errors.push(e.message));
		addEventListener("securitypolicyviolation", e => errors.push(e.violatedDirective + " " + e.blockedURI))`)

	v.types(v.field("name"), "seed packet")
	v.types(v.field("count"), "4")
	v.types(v.field("height"), "1/4")
	// 4 1/2 in and 115 mm, with room and card, both go up to 4 13/16.
	v.types(v.field("length"), "4 1/2")
	v.types(v.field("width"), "11.5cm")
	v.until("the plan follows", v.piece(0)+` === "7 1⁄16 × 7 1⁄16"`)
	if got := v.reads(`document.activeElement.value`); got != "11.5cm" {
		t.Errorf("the field in use was changed to %q", got)
	}
	v.until("what goes in is drawn", `document.querySelector(".drawing.above") !== null`)
	v.click("#view-flat")
	v.until("the drawing follows", `document.querySelector('.flat [data-link="base-width"]').textContent.
		replace(/[\s\u200b]+/g, " ").includes("7 1⁄16 in")`)
	v.until("the number is kept with its unit", `thing("width").title.includes("in")`)

	// A step of the tools by key; a bad entry beside its field.
	v.types(v.field("height"), "1/4")
	v.do("arrow", chromedp.Focus(chromedp.CSS(v.field("height"))))
	v.js(`document.activeElement.dispatchEvent(new KeyboardEvent("keydown", {key: "ArrowUp", bubbles: true}))`)
	v.until("a step up", `["5/16", "1/16"].includes(thing("height").value)`)
	v.types(v.field("height"), "5 3/")
	v.sees("stops in the middle of a fraction")
	v.sees("last plan that worked")
	v.until("the drawing stays", `document.querySelectorAll(".flat .groove").length > 8`)
	v.types(v.field("height"), "1/4")
	v.until("mended", `!document.querySelector(".stale")`)

	// Number and line light each other up.
	v.js(`document.querySelector('.tally [data-link="lid-v1"]').dispatchEvent(new MouseEvent("mouseover", {bubbles: true}))`)
	v.until("the line is lit", `document.querySelector('.flat [data-link="lid-v1"]').classList.contains("lit")`)

	// Count, then undo; reload; it is kept.
	v.types(v.field("count"), "8")
	v.until("two layers more", v.piece(0)+` !== "7 1⁄16 × 7 1⁄16"`)
	v.click("#undo")
	v.until("undone", v.piece(0)+` === "7 1⁄16 × 7 1⁄16"`)
	v.until("redo is open", `!document.querySelector("#redo").disabled`)
	v.do("reload", chromedp.Reload())
	v.until("kept over a reload", v.piece(0)+` === "7 1⁄16 × 7 1⁄16"`)

	// The views, by address and Back.
	v.click(`#view-folded`)
	v.until("the box is folded", `document.querySelector("#solid canvas, #solid .folded") !== null &&
		location.search.includes("view=folded")`)
	v.click(`#stage-5`)
	v.until("sheets", `document.querySelectorAll(".cut-sheet .sheet").length === 2`)
	v.click(`#stage-6`)
	v.sees("Cut 7 1⁄16 in × 7 1⁄16 in.")
	v.do("back", chromedp.NavigateBack())
	v.until("back to the sheets", `document.querySelectorAll(".cut-sheet .sheet").length === 2`)

	// What can't be is refused beside its field, and mended there by a click.
	v.click(`#stage-2`)
	v.types("#f-box-options-lid-height", "9")
	v.sees("Lid wall: 9 in is more than")
	v.click("#f-box-options-lid-height-mend")
	v.until("mended by a click", `!document.querySelector(".stale") &&
		document.querySelector("#f-box-options-lid-height").value !== "9" &&
		document.activeElement.id === "f-box-options-lid-height"`)
	v.types("#f-box-options-lid-height", kb.Delete)
	v.until("left open", `document.querySelector("#f-box-options-lid-height").value === "" &&
		document.querySelector("#f-box-options-lid-height").closest(".field").dataset.kept === ""`)

	// Millimetres.
	v.click(`#stage-3`)
	v.until("the stage", `document.querySelector("#f-units-mm")`+` !== null`)
	v.click("#f-units-mm")
	v.until("millimetres", `document.querySelector(".tally thead th").innerText === "mm"`)
	v.until("whole millimetres", `/^\d+ × \d+$/.test(`+v.piece(0)+`)`)
	v.click("#undo")
	v.until("inches again", v.piece(0)+` === "7 1⁄16 × 7 1⁄16"`)
	if errors := run(v, chromedp.Evaluate[[]string](`window.errors`)); len(errors) > 0 {
		t.Errorf("the page complains: %v", errors)
	}

	// Print, download, upload: the same document.
	project := v.reads(`location.pathname`)
	v.click("#print-link")
	v.sees("Folded and proved")
	pdf := run(v, chromedp.PrintToPDF())
	if pages := bytes.Count(pdf, []byte("/Type /Page\n")) + bytes.Count(pdf, []byte("/Type /Page ")); pages < 1 || pages > 2 {
		t.Errorf("the project sheet takes %d pages", pages)
	}
	doc := fetch(t, v.address+project+"/document")
	file := filepath.Join(t.TempDir(), "box.json")
	if err := os.WriteFile(file, doc, 0o600); err != nil {
		t.Fatal(err)
	}
	v.do("home", chromedp.Navigate(v.address))
	v.do("choose", chromedp.SetUploadFiles(chromedp.CSS("#document"), []string{file}))
	v.click(".upload button")
	v.sees("Kept just now")
	again := v.reads(`location.pathname`)
	if again == project || !bytes.Equal(doc, fetch(t, v.address+again+"/document")) {
		t.Error("the document came back different")
	}
}

func fetch(t *testing.T, address string) []byte {
	t.Helper()
	r, err := http.Get(address)
	if err != nil {
		t.Fatal(err)
	}
	defer r.Body.Close()
	data, err := io.ReadAll(r.Body)
	if err != nil || r.StatusCode != 200 {
		t.Fatal(r.Status, err)
	}
	return data
}

// When the server is gone the page says so, and keeps what was typed.
func TestServerGone(t *testing.T) {
	v := visit(t)
	v.do("open", chromedp.Navigate(v.address))
	v.click(".card-item a")
	v.sees("Kept")
	v.stop()
	v.types("#f-contents-1-count", "9")
	v.sees("can't be reached")
	if got := v.reads(`document.querySelector("#f-contents-1-count").value`); !strings.Contains(got, "9") {
		t.Errorf("the field holds %q", got)
	}
}

// From an empty project to a chosen arrangement, by keyboard alone: Tab, the
// arrow keys, Enter, the keys of the page and typing.
func TestArrangeByKeyboard(t *testing.T) {
	v := visit(t)
	v.do("open", chromedp.Navigate(v.address))
	v.sees("Boxes")
	key := func(keys string) { v.t.Helper(); v.do("key", chromedp.KeyEvent(keys)) }
	// tab goes on by Tab until what has the focus matches.
	tab := func(selector string) {
		v.t.Helper()
		for range 160 {
			if run(v, chromedp.Evaluate[bool](fmt.Sprintf(`document.activeElement.matches(%q)`, selector))) {
				return
			}
			key(kb.Tab)
		}
		v.t.Fatalf("Tab never came to %s", selector)
	}
	tab("#new-box")
	key(kb.Enter)
	v.until("a new box", `document.querySelector("#f-units-mm") !== null`)
	tab("#f-units-in")
	key(kb.ArrowRight)
	v.until("millimetres", `document.querySelector("#f-units-mm").checked &&
		document.querySelector("#kept").innerText.startsWith("Kept")`)
	tab("#add-thing")
	key(kb.Enter)
	v.until("a thing", `document.querySelector('select[name$=".shape"]') !== null`)
	v.mark()
	tab(v.field("shape"))
	key("c") // Cylinder or jar
	v.until("a cylinder is asked for its diameter", `thing("diameter") !== undefined`)
	for _, f := range []struct{ name, text string }{{"diameter", "40"}, {"height", "30"}, {"count", "6"}} {
		tab(v.field(f.name))
		key(f.text)
		v.until("kept", fmt.Sprintf(`document.querySelector("#kept").innerText.startsWith("Kept") &&
			thing(%q).value.includes(%q)`, f.name, f.text))
	}
	v.until("a plan for six", `!document.querySelector(".stale")`)
	key(kb.Escape)
	key("w")
	v.until("the ways", `document.querySelectorAll("[data-way]").length > 2`)
	tab(`[data-way="1"]`)
	key(kb.Enter)
	v.until("the second way is picked", `document.querySelector('[data-way="1"]').getAttribute("aria-pressed") === "true"`)
	key("i")
	v.until("from above", `document.querySelectorAll("[data-stack]").length === 6`)
	before := v.reads(`document.querySelectorAll(".tally .cutsize")[0].innerText`)
	tab(`[data-stack$=".5"]`)
	key(kb.ArrowRight)
	v.until("moved by hand", `document.body.innerText.includes("Let Brevium choose")`)
	v.until("the box follows", fmt.Sprintf(`document.querySelectorAll(".tally .cutsize")[0].innerText !== %q`, before))
	v.until("the thing keeps the focus", `document.activeElement.dataset.stack.endsWith(".5")`)
}
