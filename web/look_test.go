package web_test

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// audit looks at a page as laid out: nothing wider than the window, every
// field and button named and large enough for a finger. (Colours are the
// accessibility rules' part.)
const audit = `(() => {
  const faults = [];
  for (const d of document.querySelectorAll("details")) d.open = true;
  const label = (el) => el.labels && el.labels.length && el.labels[0].textContent;
  const named = (el) => (el.getAttribute("aria-label") || label(el) || el.innerText || el.title || "").trim();
  const shown = (el) => {
    const r = el.getBoundingClientRect();
    return r.width > 0 && r.height > 0 && getComputedStyle(el).visibility !== "hidden";
  };
  if (document.documentElement.scrollWidth > innerWidth + 1) {
    const wide = [...document.querySelectorAll("body *")].filter((el) =>
      el.getBoundingClientRect().right > innerWidth + 1 && !el.closest(".scroll, .plate, .rail, figure, pre"));
    const widest = wide.length ? wide.at(-1).outerHTML.slice(0, 120) : "";
    faults.push("the page is " + document.documentElement.scrollWidth + " wide: " + widest);
  }
  for (const el of document.querySelectorAll("input:not([type=hidden]), select, textarea, button, a[href], summary")) {
    if (!shown(el) || el.closest(".skip, [aria-hidden]")) continue;
    const r = (el.closest("label") || el).getBoundingClientRect();
    if (!named(el)) faults.push("no name: " + el.outerHTML.slice(0, 90));
    const inText = el.tagName === "A" && el.closest("p");
    const least = innerWidth < 700 && !el.matches(".what, .word") && !el.closest("svg, .course") ? 43.5 : 24;
    if (!inText && (r.height < least || r.width < 24)) {
      faults.push("small (" + r.width + " by " + r.height + "): " + el.outerHTML.slice(0, 90));
    }
  }
  return [...new Set(faults)].slice(0, 12);
})()`

// unseen tells what shows no sign that it has the focus.
const unseen = `(() => {
  const faults = [];
  for (const d of document.querySelectorAll("details")) d.open = true;
  const takes = 'a[href], button, input:not([type=hidden]), select, textarea, summary, [tabindex="0"]';
  for (const el of document.querySelectorAll(takes)) {
    if (el.disabled || el.closest("[aria-hidden], dialog:not([open])") || !el.getClientRects().length) continue;
    el.focus({ focusVisible: true, preventScroll: true });
    if (document.activeElement !== el) { faults.push("no focus: " + el.outerHTML.slice(0, 90)); continue; }
    const s = getComputedStyle(el), thing = el.matches(".stack") && getComputedStyle(el.querySelector(".thing"));
    const rim = s.outlineStyle !== "none" && parseFloat(s.outlineWidth) >= 2;
    if (!rim && !(thing && parseFloat(thing.strokeWidth) >= 2)) faults.push("nothing shows: " + el.outerHTML.slice(0, 90));
  }
  return [...new Set(faults)].slice(0, 10);
})()`

// What has the focus shows it, on every page and in both settings, and the skip
// link skips.
func TestFocusIsSeen(t *testing.T) {
	v := visit(t)
	project := v.box(6)
	for i, page := range []string{
		"/", "/bin", "/library", "/words", project + "/print", project + "?stage=contents&view=above",
		project + "?stage=box&view=folded", project + "?stage=card&view=ways", project + "?stage=record&view=styles",
	} {
		v.js(fmt.Sprintf(`localStorage.setItem("theme", %q)`, []string{"light", "dark"}[i%2]))
		v.do("open", chromedp.Navigate(v.address+page))
		for _, fault := range run(v, chromedp.Evaluate[[]string](unseen)) {
			t.Errorf("%s: %s", page, fault)
		}
	}
	for page, want := range map[string]string{"/": "main", project: "workbench"} {
		v.do("open", chromedp.Navigate(v.address+page), chromedp.Focus(chromedp.CSS(".skip")), chromedp.KeyEvent(kb.Enter))
		v.until("skipped", fmt.Sprintf(`document.activeElement.id === %q`, want))
	}
}

// Every page at three widths stands up to the audit.
func TestLook(t *testing.T) {
	v := visit(t)
	project := v.box(6)
	pages := []string{"/", "/bin", "/library", "/words", "/how", "/how/first-box", "/nowhere", project + "/print"}
	for i, stage := range []string{"contents", "box", "card", "dressing", "sheets", "bench", "record"} {
		pages = append(pages, project+"?stage="+stage+"&view="+[]string{"above", "folded", "sheets", "flat",
			"sheets", "turns", "ways"}[i])
	}
	list := v.box(14)
	v.click("#new-box")
	v.sees("Your box will stand here")
	pages = append(pages, v.reads(`location.pathname`), project+"?stage=box&view=styles",
		list+"?stage=box&view=folded", list+"?stage=contents&view=styles")
	for _, width := range []int64{320, 820, 1280} {
		v.do("size", chromedp.EmulateViewport(width, 800))
		for _, page := range pages {
			v.do("open", chromedp.Navigate(v.address+page))
			for _, fault := range run(v, chromedp.Evaluate[[]string](audit)) {
				t.Errorf("%s, %d wide: %s", page, width, fault)
			}
		}
	}
}
