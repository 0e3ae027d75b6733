package web_test

import (
	"context"
	"flag"
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/dom"
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
    if (!rim && !(thing && parseFloat(thing.strokeWidth) >= 2)) faults.push("nothing shows: " + el.outerHTML.slice(0,
	90));
  }
  return [...new Set(faults)].slice(0, 10);
})()`

// check runs accessibility rules over the page in a setting and tells each
// violation.
const check = `(async (theme, rules) => {
  document.documentElement.dataset.bsTheme = theme;
  const found = await axe.run({ exclude: [['svg[role=img] > *']] }, { ...rules, resultTypes: ["violations"], selectors: false });
  const why = (n) => (n.any[0] || n.all[0] || n.none[0] || {}).message;
  return found.violations.flatMap((v) => v.nodes.slice(0, 3).map((n) => v.id + ": " + n.html.slice(0,
	140) + " (" + why(n) + ")"));
})(%q, %s)`

// widths are how wide a page is looked at, and what is asked of it there: in a
// setting, by which rules of accessibility. Colours once a setting, all else once
// on a phone and once at the desk.
var widths = []struct {
	wide  int64
	looks [][2]string
}{
	{320, [][2]string{{"light", `{ rules: { "color-contrast": { enabled: false } } }`}}},
	{820, nil},
	{1280, [][2]string{{"light", `{}`}, {"dark", `{ runOnly: ["color-contrast"] }`}}},
}

// Every page, stage, view and dialog stands up to the audit at three widths,
// breaks no rule of accessibility, and shows in both settings what has the
// focus. With motion reduced, colours change at once.
func TestLook(t *testing.T) {
	axe, err := os.ReadFile("testdata/axe/axe.min.js")
	if err != nil {
		t.Fatal(err)
	}
	t.Parallel()
	const windows = 2 // at once: a page spends half its time waiting
	for n := range windows {
		t.Run(fmt.Sprint(n), func(t *testing.T) {
			v := visit(t)
			for i, page := range v.pages() {
				if i%windows == n { // on a phone, and in the dark, one in six is held to the rules
					v.lookAt(page, string(axe), *long || i/windows%6 == 0)
				}
			}
		})
	}
}

// long holds every page to every rule on a phone and in the dark too: docs/map.md.
var long = flag.Bool("long", false, "hold every page to every rule in every setting")

// pages are the addresses of every kind of page; one stands for help beside a page.
func (v *visitor) pages() []string {
	project, list := v.box(6), v.box(14)
	v.do("begin", chromedp.Navigate(v.address))
	pages := []string{"/", "/bin", "/library", "/help", "/help/clearance", "/how/lid", "/nowhere",
		project + "/print", project + "/howmany"}
	for i, stage := range []string{"contents", "box", "card", "dressing", "sheets", "bench", "record"} {
		pages = append(pages, project+"?stage="+stage+"&view="+[]string{"above", "folded", "fit", "flat", "sheets", "turns",
			"ways"}[i])
	}
	v.reads(fmt.Sprintf(`fetch("%s/share", { method: "POST" }).then(() => "shared")`, project))
	v.do("shared", chromedp.Navigate(v.address+project+"/handon"))
	shared := v.reads(`new URL(document.querySelector("#share-link").value).pathname`)
	pages = append(pages, project+"/bench", project+"/bench?step=cut:base&picture=9", project+"/bench?step=all",
		project+"?stage=bench&view=glue", project+"/handon", project+"/templates", project+"/machine", shared)
	parts := []string{"cards", "tools", "prices"}
	if *long {
		tower := v.box(26)
		pages = append(pages, tower+"?stage=box&view=folded&all=1", tower+"?stage=bench&view=turns&all=1", tower+"/print")
		parts = append(parts, "offcuts", "habits", "fit")
	}
	for _, part := range parts {
		pages = append(pages, "/shop?part="+part)
	}
	pages = append(pages, "/cut", "/fair?p="+strings.TrimPrefix(project, "/projects/"))
	v.do("lists", chromedp.Navigate(v.address+"/cut"))
	v.click("#new-list")
	v.sees("History")
	pages = append(pages, v.reads(`location.pathname`))
	v.do("batches", chromedp.Navigate(v.address+"/batches"))
	batch := v.reads(`document.querySelector(".uses a").getAttribute("href")`)
	v.reads(`fetch("/folders/share", { method: "POST", body: new URLSearchParams({ folder: "Presents" }) }).then(() => "shared")`)
	v.do("folder", chromedp.Navigate(v.address+"/?folder=Presents"))
	folder := v.reads(`document.querySelector('[href^="/c/"]').getAttribute("href")`)
	v.do("logbook", chromedp.Navigate(v.address+"/logbook"))
	making := v.reads(`document.querySelector('[href^="/makings/"]').getAttribute("href")`)
	pages = append(pages, batch, "/logbook?q=right", making, "/copies", "/?folder=Presents", project+"/other")
	if *long { // these are put together of parts of the others
		pages = append(pages, "/batches", batch+"/labels?all=1", batch+"/print", batch+"/gives", "/logbook/years",
			project+"/against"+strings.TrimPrefix(list, "/projects"), folder)
	}
	v.do("boxes", chromedp.Navigate(v.address+"/"))
	v.click("#new-box")
	v.sees("What goes in the box?")
	fresh := v.reads(`location.pathname`)
	return append(pages, fresh, list+"?new=2", list+"?new=3", project+"?stage=box&view=styles",
		list+"?stage=box&view=flat", "help beside")
}

// lookAt looks at a page at every width, in every setting.
func (v *visitor) lookAt(page, axe string, rules bool) {
	v.do("narrow", chromedp.EmulateViewport(widths[0].wide, 800))
	if page == "help beside" {
		v.do("open", chromedp.Navigate(v.address))
		v.click("#open-help")
		v.until("help", `document.activeElement.id === "help-title"`)
	} else {
		v.do("open", chromedp.Navigate(v.address+page))
	}
	v.js(axe)
	for _, at := range widths {
		v.do("size", chromedp.EmulateViewport(at.wide, 800))
		tell := func(script, says string) {
			for _, fault := range run(v, chromedp.Evaluate[[]string](script, chromedp.EvalAwaitPromise)) {
				v.t.Errorf("%s, %d wide%s: %s", page, at.wide, says, fault)
			}
		}
		tell(audit, "")
		for _, look := range at.looks {
			if !rules && (at.wide == widths[0].wide || look[0] == "dark") {
				continue
			}
			tell(fmt.Sprintf(check, look[0], look[1]), ", "+look[0])
			if page != "help beside" && look[0] == "light" { // a rim is as wide in the dark
				tell(unseen, ", "+look[0])
			}
		}
	}
}

// The skip link skips.
func TestSkipLink(t *testing.T) {
	v := visit(t)
	for page, want := range map[string]string{"/": "main", v.box(6): "workbench"} {
		v.do("open", chromedp.Navigate(v.address+page), chromedp.Focus(chromedp.CSS(".skip")), chromedp.KeyEvent(kb.Enter))
		v.until("skipped", fmt.Sprintf(`document.activeElement.id === %q`, want))
	}
}

// A visitor whose button was redrawn under its hand looks again.
func TestPatience(t *testing.T) {
	v := visit(t)
	tries := 0
	v.do("press", func(ctx context.Context, _ *chromedp.Target) (none chromedp.Void, err error) {
		if tries++; tries == 1 {
			_, err = chromedp.Call(ctx, dom.GetBoxModel, dom.GetBoxModelParams{NodeID: 987654})
		}
		return none, err
	})
	if tries != 2 {
		t.Errorf("pressed %d times", tries)
	}
}
