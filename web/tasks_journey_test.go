package web_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// task is something people come for: what is pressed or typed, in order, and by what it is seen to be done. A step is a
// selector, "selector = text" to type, or "selector : value" to choose.
type task struct {
	name  string
	at    string // where it begins: an address, or a box of the fair
	steps []string
	done  string
}

// says is a script: whether the page shows a text.
func says(text string) string {
	return fmt.Sprintf(`document.body.innerText.replace(/\s+/g, " ").toLowerCase().includes(%q)`, strings.ToLower(text))
}

const (
	pieces = `document.querySelector(".tally .cutsize") !== null && `
	newBox = "#new-box"
	which  = `[data-view="new1"] #new-next`
	deco   = `[data-view="new2"] #new-next`
)

var tasks = []task{
	{"a jar", "/", []string{newBox, `[value="add-usual:honey jar"]`, which, deco, "#new-done"},
		pieces + `document.querySelector("h1").innerText === "Honey jar"`},
	{"treats with dividers", "/", []string{newBox, `[value="add-usual:shortbread round"]`, `[name$=".count"] = 6`, which, deco,
		"#new-done", "#stage-1", "#f-arrange-compartments : slotted"}, pieces + says("partition across")},
	{"note cards with a band", "/", []string{`[value="cards"]`}, pieces + says("paper band")},
	{"a tall bottle", "/", []string{newBox, "#add-cylinder", `[name$=".diameter"] = 60 mm`, `[name$=".height"] = 200 mm`, which,
		`[data-style="carton"] button`, deco, "#new-done"}, pieces + `document.querySelector("#f-box-style").value === "carton"`},
	{"check a list", "/", []string{"#new-scores", "#f-box-pieces-1-across = 2, 7 1/4", "#suspect-0"},
		`document.querySelector("#suspects") === null && ` + says("checks passed")},
	{"forty favours by a date", "/batches", []string{"#new-batch", "#add = Beeswax votives, pair", "#add-order",
		`[name$=".count"] = 40`, "#f-by : " + time.Now().AddDate(0, 6, 0).Format(time.DateOnly),
		`#f-hours-sat = 8`}, says("you can finish everything in time")},
	{"a lid too tight", "Seed packet sampler?stage=card&view=fit", []string{"#fit-tight"}, says("brevium plans the next lids")},
	{"a card of one's own", "/shop", []string{"#add-card", `[name$=".title"] = Barn board`}, says("barn board")},
	{"files out", "Seed packet sampler", []string{"#stage-6", `[href$="/handon"]`}, `document.querySelector('[href$="/out/zip"]') !== null`},
	{"the bench", "Seed packet sampler", []string{"#stage-6", "#to-bench", `[data-way="on"]`}, `location.search.includes("step=")`},
	{"a nest of three", "Beeswax votives, pair", []string{"#stage-1", "#more-contents > summary", "#add-box", "#add-box", "#f-set-kind-nest"},
		`document.querySelectorAll(".setstrip .nav-link").length === 3 && document.querySelector("#f-set-kind-nest").checked`},
	{"the logbook", "Seed packet sampler", []string{"#stage-7", "#made-it > summary", "#keep-making"}, says("saved in the logbook")},
}

// Every task is done by mouse at the desk, by touch on a phone, and by keys alone: none takes more than nine presses.
func TestTasks(t *testing.T) {
	for _, way := range []string{"mouse", "phone", "keys"} {
		t.Run(way, func(t *testing.T) {
			v := visit(t)
			for i, do := range tasks {
				if way != "mouse" && !*long && i%3 != 0 { // every third by the other ways, unless asked
					continue
				}
				v.do("size", chromedp.EmulateViewport(map[string]int64{"phone": 390}[way]+map[bool]int64{true: 1280}[way != "phone"], 844))
				from := do.at
				if !strings.HasPrefix(from, "/") {
					box, query, _ := strings.Cut(from, "?")
					v.do("look", chromedp.Navigate(v.address+"/?q="+strings.ReplaceAll(box, " ", "+")))
					from = v.reads(`document.querySelector(".card-item > a").getAttribute("href")`) + "?" + query
				}
				v.do(do.name, chromedp.Navigate(v.address+from))
				presses := 0
				for _, step := range do.steps {
					presses += v.step(way, do.name, step)
				}
				v.until(way+": "+do.name, do.done)
				if presses > 9 {
					t.Errorf("%s takes %d presses", do.name, presses)
				}
				t.Logf("%s, %s: %d presses", way, do.name, presses)
			}
		})
	}
}

// step presses, types or chooses, and says how many presses that took: what is typed counts for one.
func (v *visitor) step(way, what, step string) int {
	v.t.Helper()
	selector, text, typed := strings.Cut(step, " = ")
	chosen := ""
	if !typed {
		selector, chosen, _ = strings.Cut(step, " : ")
	}
	v.until(what+": "+selector, fmt.Sprintf(`document.querySelector(%q) !== null`, selector))
	switch {
	case typed:
		v.types(selector, text)
		v.do(what, chromedp.KeyEvent(kb.Tab))
	case chosen != "":
		v.js(fmt.Sprintf(`(() => { const el = document.querySelector(%q); el.focus(); el.value = %q;
			el.dispatchEvent(new Event("change", { bubbles: true })); })()`, selector, chosen))
	case way == "keys":
		v.do(what, chromedp.Focus(chromedp.CSS(selector)), chromedp.KeyEvent(map[bool]string{true: " ", false: kb.Enter}[run(v,
			chromedp.Evaluate[bool](fmt.Sprintf(`document.querySelector(%q).matches("input")`, selector)))]))
	default:
		v.click(selector)
	}
	v.until(what+": saved", `document.querySelector("#kept") === null || `+keptSays+`.startsWith("Saved")`)
	return 1
}
