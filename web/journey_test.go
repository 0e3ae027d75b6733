package web_test

import (
	"bytes"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// From an empty project to a printed plan, as a person does it.
func TestJourney(t *testing.T) {
	v := visit(t)
	v.do("open", chromedp.Navigate(v.address))
	v.sees("Seed packet sampler")
	v.click("#new-box")
	v.sees("What goes in the box?")
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
	if got := v.reads(`document.activeElement.value`); got != "11.5cm" {
		t.Errorf("the field in use was changed to %q", got)
	}
	v.click("#new-next")
	v.until("the boxes", `document.querySelectorAll("[data-style]").length > 9`)
	v.click("#new-next")
	v.until("the decoration", `document.querySelectorAll(".level-cards li").length === 4`)
	v.click("#new-done")
	v.until("the table", `document.querySelector("#stage-1") !== null`)
	v.until("its address is that of the table", `location.search === "?stage=box&view=folded"`)
	v.until("what was suggested and taken is done", `[2, 4].every((n) => document.querySelector("#stage-" + n).innerText.
		includes("Done")) && document.querySelector("#stage-3").innerText.includes("Not yet")`)
	v.js(`history.back()`)
	v.until("back at the third question", `document.querySelector("#new-done") !== null`)
	v.click("#new-done")
	v.until("the table", `document.querySelector("#stage-1") !== null`)
	v.js(`window.errors = []; addEventListener("error", e => errors.push(e.message));
		addEventListener("securitypolicyviolation", e => errors.push(e.violatedDirective + " " + e.blockedURI))`)
	v.mark()
	v.click("#stage-1")
	v.until("the plan follows", v.piece(0)+` === "7 1⁄16 × 7 1⁄16"`)
	v.until("it is called by what goes in", `document.querySelector("h1").innerText === "Seed packet"`)
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
	v.sees("Your previous box")
	v.until("the drawing stays", `document.querySelectorAll(".flat .groove").length > 8`)
	v.types(v.field("height"), "1/4")
	v.until("mended", `!document.querySelector(".worktable .alert-danger")`)

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
	v.until("mended by a click", `!document.querySelector(".worktable .alert-danger") &&
		document.querySelector("#f-box-options-lid-height").value !== "9" &&
		document.activeElement.id === "f-box-options-lid-height"`)
	v.types("#f-box-options-lid-height", kb.Delete)
	v.until("left open", `document.querySelector("#f-box-options-lid-height").value === "" &&
		document.querySelector("#f-box-options-lid-height").closest(".field").dataset.kept === ""`)

	// Millimetres.
	v.click(`#stage-3`)
	v.until("the stage", `document.querySelector("#f-units") !== null`)
	v.click("#more-bench summary")
	v.do("millimetres", chromedp.Focus(chromedp.CSS("#f-units")), chromedp.KeyEvent("m"))
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
	v.sees("checks passed")
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
	v.sees("Saved just now")
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
	v.sees("Saved")
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
	v.until("a new box", `document.querySelector("#f-units") !== null`)
	tab("#f-units")
	key("m")
	v.until("millimetres", `document.querySelector("#f-units").value === "mm" &&
		document.querySelector("#kept").innerText.startsWith("Saved")`)
	tab("#add-cylinder")
	key(kb.Enter)
	v.until("a thing", `document.querySelector('[name^="contents."][name$=".name"]') !== null`)
	v.mark()
	v.until("a cylinder is asked for its diameter", `thing("diameter") !== undefined`)
	for _, f := range []struct{ name, text string }{{"diameter", "40"}, {"height", "30"}, {"count", "6"}} {
		tab(v.field(f.name))
		key(f.text)
		v.until("kept", fmt.Sprintf(`document.querySelector("#kept").innerText.startsWith("Saved") &&
			thing(%q).value.includes(%q)`, f.name, f.text))
	}
	for i, next := range []string{"#new-next", "#new-next", "#new-done"} {
		v.until("the question", fmt.Sprintf(`document.querySelector("#workbench").dataset.view === "new%d"`, i+1))
		tab(next)
		key(kb.Enter)
	}
	v.until("a plan for six", `document.querySelector(".worktable") && !document.querySelector(".worktable .alert-danger")`)
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
