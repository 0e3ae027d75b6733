package web_test

import (
	"fmt"
	"os"
	"testing"

	"github.com/chromedp/chromedp"
)

// check runs the accessibility rules over the page and tells each violation.
const check = `(async (rules) => {
  const found = await axe.run(document, rules ? { runOnly: rules } : { rules: { "color-contrast": { enabled: true } } });
  return found.violations.flatMap((v) => v.nodes.slice(0, 3).map((n) => v.id + ": " + n.html.slice(0, 140) + " (" + (n.any[0] || n.all[0] || n.none[0] || {}).message + ")"));
})(%s)`

// No page, stage, view or dialog breaks a rule of accessibility: all rules at
// one width and setting each way, what hangs on colour in the others too.
func TestNoRuleIsBroken(t *testing.T) {
	axe, err := os.ReadFile("testdata/axe/axe.min.js")
	if err != nil {
		t.Fatal(err)
	}
	v := visit(t)
	v.do("open", chromedp.Navigate(v.address))
	link := func(n int) string {
		return run(v, chromedp.Evaluate[string](fmt.Sprintf(`document.querySelectorAll(".card-item > a")[%d].getAttribute("href")`, n)))
	}
	mixed, list := link(6), link(14)
	pages := []string{"/", "/bin", "/library", "/words", "/how", "/how/lid", "/nowhere", mixed + "/print", mixed + "/howmany"}
	for i, stage := range []string{"contents", "box", "card", "dressing", "sheets", "bench", "record"} {
		pages = append(pages, mixed+"?stage="+stage+"&view="+[]string{"above", "folded", "flat", "flat", "sheets", "turns", "ways"}[i])
	}
	pages = append(pages, mixed+"?stage=box&view=styles", list+"?stage=box&view=flat", "new", "keys")
	for _, c := range []struct {
		width int64
		theme string
		rules string
	}{{1280, "light", "null"}, {390, "dark", "null"}, {1280, "dark", `["color-contrast"]`}, {390, "light", `["color-contrast", "target-size"]`}} {
		v.do("size", chromedp.EmulateViewport(c.width, 800))
		run(v, chromedp.Evaluate[any](fmt.Sprintf(`localStorage.setItem("theme", %q)`, c.theme)))
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
			run(v, chromedp.Evaluate[any](string(axe)+"; 1"))
			for _, fault := range run(v, chromedp.Evaluate[[]string](fmt.Sprintf(check, c.rules), chromedp.EvalAwaitPromise)) {
				t.Errorf("%s, %d wide, %s: %s", page, c.width, c.theme, fault)
			}
		}
	}
}
