package web_test

import (
	"fmt"
	"os"
	"testing"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
)

// check runs accessibility rules over the page in a setting and tells each
// violation.
const check = `(async (theme, rules) => {
  document.documentElement.dataset.bsTheme = theme;
  const found = await axe.run(document, rules);
  const why = (n) => (n.any[0] || n.all[0] || n.none[0] || {}).message;
  return found.violations.flatMap((v) => v.nodes.slice(0, 3).map((n) => v.id + ": " + n.html.slice(0, 140) + " (" + why(n) + ")"));
})(%q, %s)`

// No page, stage, view or dialog breaks a rule of accessibility: all rules at
// the desk, colours in both settings, and all but colours on a phone. Pages are
// loaded once a width; with motion reduced, colours change at once.
func TestNoRuleIsBroken(t *testing.T) {
	axe, err := os.ReadFile("testdata/axe/axe.min.js")
	if err != nil {
		t.Fatal(err)
	}
	v := visit(t)
	still := &emulation.SetEmulatedMediaParams{Features: []*emulation.MediaFeature{{Name: "prefers-reduced-motion",
		Value: "reduce"}}}
	if _, err := chromedp.Call(v.ctx, emulation.SetEmulatedMedia, *still); err != nil {
		t.Fatal(err)
	}
	mixed, list := v.box(6), v.box(14)
	pages := []string{"/", "/bin", "/library", "/words", "/how", "/how/lid", "/nowhere", mixed + "/print", mixed + "/howmany"}
	for i, stage := range []string{"contents", "box", "card", "dressing", "sheets", "bench", "record"} {
		pages = append(pages, mixed+"?stage="+stage+"&view="+[]string{"above", "folded", "flat", "flat", "sheets", "turns",
			"ways"}[i])
	}
	pages = append(pages, mixed+"?stage=box&view=styles", list+"?stage=box&view=flat", "new", "keys")
	const colours = `{ runOnly: ["color-contrast"] }`
	for width, looks := range map[int64][]struct{ theme, rules string }{
		1280: {{"light", `{}`}, {"dark", colours}},
		390:  {{"light", `{ rules: { "color-contrast": { enabled: false } } }`}},
	} {
		v.do("size", chromedp.EmulateViewport(width, 800))
		for _, page := range pages {
			switch page {
			case "new":
				v.do("open", chromedp.Navigate(v.address))
				v.click("#new-box")
				v.sees("Your box will stand here")
			case "keys":
				v.do("open", chromedp.Navigate(v.address))
				v.click(`[aria-label="Keys"]`)
			default:
				v.do("open", chromedp.Navigate(v.address+page))
			}
			v.js(string(axe))
			for _, look := range looks {
				faults := chromedp.Evaluate[[]string](fmt.Sprintf(check, look.theme, look.rules), chromedp.EvalAwaitPromise)
				for _, fault := range run(v, faults) {
					t.Errorf("%s, %d wide, %s: %s", page, width, look.theme, fault)
				}
			}
		}
	}
}
