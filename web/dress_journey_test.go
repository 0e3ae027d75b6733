package web_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// A box dressed by pointing alone: at the folded box, at the drawing of its pieces, at
// colours, at the list.
func TestDressedByPointing(t *testing.T) {
	v := visit(t)
	v.do("open", chromedp.Navigate(v.address+v.box(0)+"?stage=dressing&lift=0&yaw=0&pitch=60"))
	v.until("it turns in the page", `document.querySelector(".turned-here #solid canvas") !== null`)
	pressed := func(ref string, yes bool) string {
		return fmt.Sprintf(`document.querySelector('[data-panel="%s"]').ariaPressed === "%v"`, ref, yes)
	}
	at := func(down string) (x, y float64) {
		const canvas = `document.querySelector("#solid canvas").getBoundingClientRect()`
		x = run(v, chromedp.Evaluate[float64](`{ const b = `+canvas+`; b.left + b.width / 2 }`))
		return x, run(v, chromedp.Evaluate[float64](`{ const b = `+canvas+`; b.top + b.height * `+down+` }`))
	}
	v.js(`window.scrollTo(0, 0)`)
	x, y := at("0.45")
	v.do("point at the top", chromedp.MouseClickXY(x, y))
	v.until("the lid's top is dressed", pressed("lid/top", true))
	v.settled()
	v.until("and shown", `document.querySelector(".turned-here #solid canvas") !== null`)
	v.do("point again, at the layer", chromedp.MouseClickXY(x, y))
	v.until("it is bare again", pressed("lid/top", false))
	v.do("and again", chromedp.MouseClickXY(x, y))
	v.until("dressed", pressed("lid/top", true))
	v.click("#view-flat")
	v.until("the pieces", `document.querySelector('svg [data-face="base/front"]') !== null`)
	v.js(`document.querySelector('svg [data-face="base/front"]').dispatchEvent(new MouseEvent("click", {bubbles: true}))`)
	v.until("the front too", pressed("base/front", true))
	v.until("drawn on the piece", `document.querySelectorAll("svg .layer").length > 1`)
	v.click("#suit-1")
	v.until("another scheme", `document.querySelector("#suit-1").ariaPressed === "true"`)
	v.click("#level-keepsake")
	v.until("all of it", pressed("base/base", true))
	v.click("#view-folded")
	v.until("dressed in space", `document.querySelector(".turned-here #solid canvas")?.dataset.ms !== undefined`)
	v.js(`window.turns = 0; const turn = () => { const y = document.querySelector("[name=yaw]"); y.value = Number(y.value) + 3;
		y.dispatchEvent(new Event("input", {bubbles: true})); if (++turns < 12) requestAnimationFrame(turn); }; turn()`)
	v.until("turned a dozen times", `window.turns >= 12`)
	t.Logf("a frame of the box in all its layers is handed over in %s ms",
		v.reads(`document.querySelector("#solid canvas").dataset.ms`))
	v.click("#view-layers")
	v.sees("Lid top layer 2")
	v.until("it holds", `document.querySelector(".proof summary").innerText.includes("checks passed")`)
	v.click("#undo")
	v.until("as it was pointed", pressed("base/base", false)+" && "+pressed("lid/top", true))
}

// The same by keys alone.
func TestDressedByKeys(t *testing.T) {
	v := visit(t)
	v.do("open", chromedp.Navigate(v.address+v.box(0)+"?stage=dressing&view=flat"))
	v.until("the stage", `document.querySelector("#level-neat") !== null`)
	reach := func(id string) {
		t.Helper()
		for range 80 {
			if v.reads(`document.activeElement.id`) == id {
				return
			}
			v.do("on", chromedp.KeyEvent(kb.Tab))
		}
		t.Fatalf("the Tab key never comes to %s", id)
	}
	reach("level-neat")
	v.do("neat", chromedp.KeyEvent(kb.Enter))
	v.until("neat", `document.querySelector("#level-neat").getAttribute("aria-current") === "true"`)
	v.settled()
	if id := v.reads(`document.activeElement.id`); id != "level-neat" {
		t.Errorf("the hand is on %q", id)
	}
	for range 80 { // the list of panels is one stop; arrow keys go on in it
		if strings.HasPrefix(v.reads(`document.activeElement.id`), "panel-") {
			break
		}
		v.do("on", chromedp.KeyEvent(kb.Tab))
	}
	v.js(`document.querySelector("#panels-more").open = true; document.querySelector(".panel").focus()`)
	for range 12 {
		if v.reads(`document.activeElement.id`) == "panel-lid-top" {
			break
		}
		v.do("right", chromedp.KeyEvent(kb.ArrowRight))
	}
	if id := v.reads(`document.activeElement.id`); id != "panel-lid-top" {
		t.Fatalf("arrow keys come to %q", id)
	}
	v.do("off", chromedp.KeyEvent(" "))
	v.until("bare", `document.querySelector("#panel-lid-top").ariaPressed === "false"`)
	v.settled()
	reach("part-toppers")
	v.do("open", chromedp.KeyEvent(kb.Enter))
	reach("Add-a-topper")
	v.do("add", chromedp.KeyEvent(kb.Enter))
	v.until("a topper", `document.querySelector('[name^="dress.toppers."][name$=".shape"]') !== null`)
	v.settled()
	v.until("the hand on its shape", `document.activeElement.name.endsWith(".shape")`)
	v.do("heart", chromedp.KeyEvent("he"))
	v.until("a heart", `[...document.querySelectorAll("#dress-list li")].some((li) => li.textContent.includes("Heart topper"))`)
	v.until("it holds", `document.querySelector(".proof summary").innerText.includes("checks passed")`)
}
