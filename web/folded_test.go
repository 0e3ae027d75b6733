package web_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"

	"brevium/core/style"
)

// frame is the moment the view in the page shows.
const frame = `Number(document.querySelector("#solid canvas").dataset.frame)`

// The folded box in the page: loaded when it is opened, taken step by step,
// turned by key and pointer, and kept over a change of the brief.
func TestFoldedView(t *testing.T) {
	v := visit(t)
	v.motion("no-preference")
	link := v.box(12)
	v.do("open", chromedp.Navigate(v.address+link+"?stage=box&view=flat"))
	v.until("nothing is loaded before it is wanted",
		`!performance.getEntriesByType("resource").some((r) => r.name.includes("three"))`)
	v.click(`#view-folded`)
	v.until("it turns in the page", `document.querySelector(".turned-here #solid canvas") !== null`)
	v.js(`window.slide = (to) => { const s = document.querySelector("[name=at]"); s.value = to;
		s.dispatchEvent(new Event("input", {bubbles: true})); }; slide(0)`)
	v.until("flat", frame+` === 0`)
	steps := run(v, chromedp.Evaluate[int](`document.querySelectorAll(".course-steps li").length`))
	last := -1.0
	for i := range steps {
		v.click(`[data-step="1"]`)
		v.until("a step further", fmt.Sprintf(frame+` > %f &&
			document.querySelector("[data-course-number]").textContent === "%d of %d"`, last, i+1, steps))
		last = run(v, chromedp.Evaluate[float64](frame))
	}
	v.sees("Put the cap on.")
	v.do("focus", chromedp.Focus(chromedp.CSS("#solid")))
	v.do("keys", chromedp.KeyEvent("<"), chromedp.KeyEvent("<"))
	v.until("two back by key", fmt.Sprintf(`document.querySelector("[data-course-number]").textContent === "%d of %d"`,
		steps-2, steps))
	v.do("keys", chromedp.KeyEvent(">"), chromedp.KeyEvent(">"))
	v.until("and on", fmt.Sprintf(`document.querySelector("[data-course-number]").textContent === "%d of %d"`, steps, steps))
	v.click(`.course-steps li:nth-child(2)`)
	v.until("at the one pressed", `document.querySelector("[data-course-number]").textContent.startsWith("2 of") &&
		document.querySelector(".course-steps li.on") === document.querySelectorAll(".course-steps li")[1]`)
	v.js(`slide(` + fmt.Sprint(steps) + `)`)
	picture := func() string {
		// A frame drawn now: the canvas does not keep what it showed.
		return v.reads(`(async () => {
			await new Promise(requestAnimationFrame);
			document.querySelector("[name=lift]").dispatchEvent(new Event("input", {bubbles: true}));
			await new Promise(requestAnimationFrame);
			return document.querySelector("#solid canvas").toDataURL("image/png").slice(0, 60000);
		})()`)
	}
	before := picture()
	v.do("focus", chromedp.Focus(chromedp.CSS("#solid")))
	yaw := v.reads(`document.querySelector("[name=yaw]").value`)
	v.js(`document.activeElement.dispatchEvent(new KeyboardEvent("keydown", {key: "ArrowRight", bubbles: true}))`)
	v.until("turned by key", fmt.Sprintf(`document.querySelector("[name=yaw]").value !== %q`, yaw))
	if after := picture(); after == before || len(after) < 2000 {
		t.Errorf("turned, it looks the same (%d bytes)", len(after))
	}
	// A change of the brief keeps the moment, and shows the new box.
	v.js(`slide(2)`)
	v.until("two steps", `document.querySelector("[data-course-number]").textContent.startsWith("2 of")`)
	v.types("#f-box-options-roof", "3")
	v.until("another roof", `document.querySelector("#f-box-options-roof").value.includes("3") &&
		document.querySelector("#kept").innerText.startsWith("Saved") &&
		document.querySelector(".turned-here canvas") !== null`)
	v.until("still two steps", `document.querySelector("[name=at]").value === "2"`)
	v.until("and still turned", fmt.Sprintf(`document.querySelector("[name=yaw]").value !== %q`, yaw))
	v.do("by a link", chromedp.Navigate(v.address+link+"?stage=box&view=folded&at=1&yaw=140&pitch=10"))
	v.until("it turns in the page", `document.querySelector(".turned-here #solid canvas") !== null`)
	v.until("seen as the link says", `document.querySelector("[name=yaw]").value === "140" &&
		document.querySelector("[data-course-number]").textContent.startsWith("1 of")`)
	ms := v.reads(`document.querySelector("#solid canvas").dataset.ms`)
	t.Logf("a frame is handed over in %s ms", ms)
}

// Where the browser has no WebGL, the server draws each moment.
func TestFoldedWithoutWebGL(t *testing.T) {
	v := visit(t)
	v.do("open", chromedp.Navigate(v.address))
	v.click(".card-item a")
	v.sees("Saved")
	v.js(`HTMLCanvasElement.prototype.getContext = () => null`)
	v.click(`#view-folded`)
	v.until("drawn by the server", `document.querySelectorAll("#solid .folded path").length > 20`)
	before := v.reads(`document.querySelector(".folded").innerHTML`)
	for range 4 {
		v.click(`[data-step="-1"]`)
	}
	v.until("it unfolds", fmt.Sprintf(`document.querySelector(".folded").innerHTML !== %q`, before))
	if loaded := run(v, chromedp.Evaluate[bool](
		`performance.getEntriesByType("resource").some((r) => r.name.includes("three"))`)); loaded {
		t.Error("what can't be shown was loaded all the same")
	}
}

// From a list of scores to a box, by typing, and its mistake told.
func TestScoresFromElsewhere(t *testing.T) {
	v := visit(t)
	v.motion("no-preference")
	v.do("open", chromedp.Navigate(v.address))
	v.click(`button[value="scores"]`)
	v.sees("Scores from the left edge")
	v.until("the worked tray", v.piece(0)+` === "9 × 7 1⁄2"`)
	v.until("it holds", `document.querySelector(".proof summary").innerText.includes("checks passed")`)
	v.types("#f-box-pieces-2-across", "3/4, 5 11/16")
	v.sees("A number in this list looks wrong")
	v.types("#f-box-pieces-2-across", "3/4, 7")
	v.sees("is off the piece, which is 6 9⁄16 in wide")
	v.types("#f-box-pieces-2-across", "3/4 both")
	v.until("mended", `!document.querySelector(".worktable .alert-danger")`)
	v.types("#f-box-stated-length", "6")
	v.sees("The box doesn't have the size")
	v.click(`button[value="add-piece"]`)
	v.until("a third piece", `document.querySelectorAll('[name^="box.pieces."][name$=".name"]').length === 3`)
	v.click(`[value^="remove-piece:"]:not([value$=":1"], [value$=":2"])`)
	v.until("gone again", `document.querySelectorAll('[name^="box.pieces."][name$=".name"]').length === 2`)
	v.click(`#view-styles`)
	v.until("others at its size", fmt.Sprintf(`document.querySelectorAll("[data-style]").length === %d`, len(style.Styles)))
	v.until("they move", `document.querySelectorAll("img[data-moving]").length > 3 &&
		![...document.querySelectorAll("img[data-moving]")].some((i) => i.src.includes("still"))`)
	v.click("#hold")
	v.until("and stand, all of them", `document.querySelector("#hold").ariaPressed === "true" &&
		[...document.querySelectorAll("img[data-moving]")].every((i) => i.src.includes("still=1"))`)
	if n := v.reads(`document.querySelector('[data-style="tray-lid"]').innerText`); !strings.Contains(n, "Choose") {
		t.Errorf("the tray can't be chosen: %q", n)
	}
}
