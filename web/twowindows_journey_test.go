package web_test

import (
	"fmt"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
)

// window is another window of the same visitor.
func (v *visitor) window() *visitor {
	v.t.Helper()
	ctx, end := chromedp.NewContext(v.ctx)
	v.t.Cleanup(end)
	other := &visitor{t: v.t, ctx: ctx, address: v.address, stop: v.stop}
	other.do("begin", chromedp.Navigate("about:blank"))
	other.motion("reduce")
	return other
}

// typable finds the fields of a page that one types in and that are in sight.
const typable = `[...document.querySelectorAll("#brief [data-kept] input[type=text], #brief input[type=text][data-kept]")]
	.filter((el) => el.offsetParent && el.name && !el.closest("details:not([open])"))`

// Of whatever kind of document: what two windows type stands, each of it; where both wrote in one field both are told;
// and undo takes back nothing of the other window's unless it is said so.
func TestTwoWindows(t *testing.T) {
	v := visit(t)
	places := map[string]string{"the shop": "/shop"}
	v.do("logbook", chromedp.Navigate(v.address+"/logbook"))
	places["a making"] = v.reads(`document.querySelector('a[href^="/makings/"]').getAttribute("href")`)
	v.do("lists", chromedp.Navigate(v.address+"/cut"))
	v.click(`form[action="/cut"] button`)
	v.until("a list", `location.pathname.startsWith("/cut/")`)
	places["a list"] = v.reads(`location.pathname`)
	places["a batch"] = v.batchOf("Wren", "Moss")
	other := v.window()
	for what, where := range places {
		for _, w := range []*visitor{v, other} {
			w.do(what, chromedp.Navigate(w.address+where))
			w.until(what, typable+`.length > 2`)
		}
		name := func(n int) string { return v.reads(fmt.Sprintf(typable+`[%d].name`, n)) }
		first, second, third := name(0), name(1), name(2)
		write := func(w *visitor, field, text string) {
			w.types(fmt.Sprintf(`#brief [name="%s"]`, field), text)
			w.js(`document.activeElement.blur()`)
			w.settled()
		}
		holds := func(w *visitor, field, text string) {
			t.Helper()
			w.until(what+" holds "+text, fmt.Sprintf(`document.querySelector('#brief [name="%s"]').value === %q`, field, text))
		}
		write(v, first, "11")
		write(other, second, "12")
		holds(other, first, "11") // it came with the answer
		v.click("#undo")
		v.until("not undone: it is the other's", `document.querySelector("#foreign") !== null`)
		holds(v, second, "12")
		v.click("#foreign a")
		v.until("left", `document.querySelector("#foreign") === null`)
		write(v, third, "13")
		write(other, third, "14")
		other.until("both wrote there", `document.querySelector("#conflict-0") !== null &&
			document.querySelector("#conflict-0").innerText.includes("13")`)
		v.do("again", chromedp.Navigate(v.address+where))
		holds(v, first, "11")
		holds(v, second, "12")
	}
}

// batchOf begins a batch of orders for these people, each of two sampler boxes and more.
func (v *visitor) batchOf(people ...string) string {
	v.t.Helper()
	list, day := filepath.Join(v.t.TempDir(), "orders.csv"), time.Now().AddDate(0, 0, 25).Format("2006-01-02")
	text := "name,box,count,words,by\n"
	for i, who := range people {
		text += fmt.Sprintf("%s,%s,%d,,%s\n", who, []string{"Seed packet sampler", "Round tea tin"}[i%2], 20+i, day)
	}
	if err := os.WriteFile(list, []byte(text), 0o600); err != nil {
		v.t.Fatal(err)
	}
	v.do("batches", chromedp.Navigate(v.address+"/batches"), chromedp.SetUploadFiles(chromedp.CSS("#list"), []string{list}))
	v.click(".upload button")
	v.sees(people[0] + " × 20")
	return v.reads("location.pathname")
}

// One window takes an order out while another, which still shows it, writes and ticks in those behind it: all of it
// stays with whom it was meant for, and what both made of one step is added up.
func TestOrdersStayWithTheirPeople(t *testing.T) {
	v := visit(t)
	where := v.batchOf("Wren", "Moss", "Alder")
	other := v.window()
	other.do("the same batch", chromedp.Navigate(v.address+where))
	other.sees("Alder × 22")

	v.js(`document.querySelector("#more-1").open = true`)
	v.click("#take-out-1")
	v.until("taken out", `document.querySelector('[name="orders.@1.name"]') === null`)
	other.types(`[name="orders.@3.name"]`, "Alder and Ash")
	other.until("it is told there", `document.querySelector('[name="orders.@1.name"]') === null`)
	other.settled()
	tick := func(w *visitor, more string) {
		w.types(`.tick-count[id$="-Trim-3"], .tick-count[id$="-trim-3"]`, more)
		w.js(`document.activeElement.form.requestSubmit()`)
	}
	tick(v, "10") // made of a page that shows none done
	tick(other, "5")
	done := `document.querySelector("#done-3").textContent.replace(/\s+/g, " ")`
	other.until("15 are done", done+`.includes("Trim 15 of 22")`)
	v.do("again", chromedp.Navigate(v.address+where))
	v.until("both ticks", done+`.includes("Trim 15 of 22")`)
	for order, says := range map[string]string{"2": "Moss,Round tea tin", "3": "Alder and Ash,Seed packet sampler"} {
		v.until("order "+order, fmt.Sprintf(`document.querySelector('[name="orders.@%s.name"]').value === %q.split(",")[0] &&
			document.querySelector("#more-%s").closest(".order, li, fieldset, section").textContent.includes(%q.split(",")[1])`,
			order, says, order, says))
	}
}

// noticed is whether the page tells something.
const noticed = `document.querySelector("#notice").offsetParent !== null`

// What is typed while the session has ended waits, and is kept when one is in again; what is refused stands in its field
// when the page is loaded again.
func TestNothingTypedIsLost(t *testing.T) {
	v, l, stored := over(t)
	l.answers(401)
	v.types("#f-contents-1-name", "bulb packet")
	v.until("told, with a way in", `document.querySelector("#notice a[target=_blank]").offsetParent !== null`)
	l.answers(0)
	v.settled()
	if got := stored().Contents[0].Name; got != "bulb packet" {
		t.Errorf("kept %q", got)
	}
	l.answers(401)
	v.types("#f-contents-1-count", "7")
	v.until("told", noticed)
	asked := chromedp.Events(v.ctx, page.JavascriptDialogOpening)
	go func() {
		for range asked { // whether to leave, with a change waiting
			_, _ = chromedp.Call(v.ctx, page.HandleJavaScriptDialog, page.HandleJavaScriptDialogParams{Accept: true})
		}
	}()
	v.do("load again while it has ended", chromedp.Reload())
	v.until("it is back there", `document.querySelector("#f-contents-1-count")?.value === "7"`)
	l.answers(0)
	v.do("enter", chromedp.Focus(chromedp.CSS("#f-contents-1-count")), chromedp.KeyEvent("\r"))
	v.settled()
	if got := stored().Contents[0].Count; got != "7" {
		t.Errorf("kept %q", got)
	}
	l.answers(409)
	v.types("#f-contents-1-name", "corms")
	v.until("refused", keptSays+` === "Not saved"`)
	l.answers(0)
	v.do("another stage", chromedp.Navigate(v.address+v.reads(`location.pathname`)+"?stage=card"))
	v.click("#stage-1")
	v.until("it stands there", `document.querySelector("#f-contents-1-name")?.value === "corms"`)
	v.sees("is back in its field")
	v.do("enter", chromedp.Focus(chromedp.CSS("#f-contents-1-name")), chromedp.KeyEvent("\r"))
	v.settled()
	if got := stored().Contents[0].Name; got != "corms" {
		t.Errorf("kept %q", got)
	}
	v.do("load again", chromedp.Reload())
	v.until("and no more is said", "!("+noticed+")")
}
