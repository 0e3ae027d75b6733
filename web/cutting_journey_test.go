package web_test

import (
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// The sheets of a box, as a hurried maker goes about them: cut by cut, a piece moved by
// the keys, a hair less, other ways, cut from the shop and put back.
func TestSheetsJourney(t *testing.T) {
	v := visit(t)
	v.do("sheets", chromedp.Navigate(v.address+v.box(1)+"?stage=sheets&view=sheets"))
	v.sees("fewest possible (proved)")
	v.click("[data-on]")
	v.until("one cut is lit", `document.querySelectorAll(".a-cut.now").length === 1`)
	v.sees("Sheet 1, cut 1: Set 187 mm")
	v.click("[data-on]")
	v.until("the second, and the first is done", `document.querySelectorAll(".a-cut.done").length === 1 &&
		document.querySelector(".a-cut.now").dataset.cut === "0:1"`)
	v.sees("that is the lid")
	v.click("[data-back]")
	v.until("back", `document.querySelector(".a-cut.now").dataset.cut === "0:0"`)

	v.click(".laid[tabindex]")
	v.click("#holding button")
	v.until("held where it lies", `document.querySelectorAll(".pin-mark").length === 1`)
	v.click("#unpin-all")
	v.until("let go", `!document.querySelector(".pin-mark")`)
	v.js(`document.querySelector(".laid[tabindex]").focus()`)
	v.do("down", chromedp.KeyEvent(kb.ArrowDown))
	v.until("it is held", `document.querySelectorAll(".pin-mark").length === 1`)
	v.sees("1 pinned by you")
	y := `document.querySelector("#held-piece rect").getAttribute("y")`
	first := v.reads(y)
	v.until("the hand is on it still", `document.activeElement && document.activeElement.id === "held-piece"`)
	v.do("down again", chromedp.KeyEvent(kb.ArrowDown))
	v.until("it is further down, and one piece", fmt.Sprintf(`Number(%s) > Number(%s) + 0.5 &&
		document.querySelectorAll(".pin-mark").length === 1`, y, first))
	v.js(`{
		const piece = document.querySelector(".laid.pinned"), at = piece.getBoundingClientRect();
		const event = (kind, dx) => new PointerEvent(kind, { bubbles: true, button: 0, clientX: at.x + 9 + dx, clientY: at.y + 9 });
		piece.dispatchEvent(event("pointerdown", 0));
		document.dispatchEvent(event("pointermove", 12));
		document.dispatchEvent(event("pointerup", 12));
	}`)
	v.until("dragged", `document.querySelectorAll(".pin-mark").length === 1 &&
		Number(document.querySelector(".laid.pinned rect").getAttribute("x")) > 12`)
	v.click("#unpin-all")
	v.until("let go", `!document.querySelector(".pin-mark")`)

	v.sees("Almost one sheet less")
	v.click("#cutways-more summary")
	v.until("ways side by side", `document.querySelectorAll(".cutway").length >= 4`)
	v.click("#cutway-3")
	v.until("kept", `document.querySelector("#f-sheets-aim").value === "cost"`)

	v.click("#cut-it")
	v.sees("Your supplies are up to date")
	v.do("stash", chromedp.Navigate(v.address+"/shop?part=offcuts"))
	had := v.reads(`"" + document.querySelectorAll("svg.offcuts rect").length`)
	v.do("back", chromedp.NavigateBack())
	v.until("what comes after the page is there: it moves what is below", `!!document.querySelector(".near")`)
	v.click("#cut-it")
	v.sees("Undo: put them back")
	v.click("#uncut")
	v.sees("back in your supplies")
	v.do("stash", chromedp.Navigate(v.address+"/shop?part=offcuts"))
	v.until("as before", fmt.Sprintf(`"" + document.querySelectorAll("svg.offcuts rect").length === %q`, had))
}

// A list is searched while one looks on: better sheets come as they are found, and the
// search ends by itself or when it is stopped.
func TestSearchJourney(t *testing.T) {
	v := visit(t)
	v.do("lists", chromedp.Navigate(v.address+"/cut"))
	v.click("#new-list")
	v.until("a list", `!!document.querySelector("#add-piece")`)
	// Long and short strips, of which a quick look proves nothing.
	v.types(`[name="sheets.@1.width"]`, "100 mm")
	v.types(`[name="sheets.@1.height"]`, "100 mm")
	r := rand.New(rand.NewPCG(6, 602))
	list := "width,height\n"
	for i := range 60 {
		w, h := 67+r.IntN(34), 1+r.IntN(50)
		if i%4 == 0 {
			w, h = 1+r.IntN(50), 50+r.IntN(50)
		}
		list += fmt.Sprintf("%d mm,%d mm\n", w, h)
	}
	file := filepath.Join(t.TempDir(), "strips.csv")
	if err := os.WriteFile(file, []byte(list), 0o600); err != nil {
		t.Fatal(err)
	}
	v.do("strips", chromedp.SetUploadFiles(chromedp.CSS("#list"), []string{file}))
	v.click(".upload button")
	v.until("every piece is there", `document.querySelectorAll(".board").length > 9`)
	v.until("it is searched", `document.querySelector("#live").offsetParent !== null`)
	v.until("the search ends", `!!document.querySelector(".live.ended")`)
	v.until("it says what it found", `/(Found|Nothing better found): \d+ sheets/.test(document.querySelector("[data-says]").textContent)`)
	v.do("again", chromedp.Navigate(v.address+v.reads(`location.pathname`)))
	v.until("what was found is remembered", `!!document.querySelector(".board") && !document.querySelector("[data-least]")`)
}
