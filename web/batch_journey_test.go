package web_test

import (
	"bytes"
	"fmt"
	"image"
	"image/jpeg"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
)

// From an order list to a printed schedule and ticks, with another window that hears of them; then a
// making is written down with a photo, and found by a question.
func TestBatchJourney(t *testing.T) {
	v := visit(t)
	list := filepath.Join(t.TempDir(), "orders.csv")
	day := func(n int) string { return time.Now().AddDate(0, 0, n).Format("2006-01-02") }
	orders := fmt.Sprintf("name,box,count,words,by\n"+
		"the seed table,Seed packet sampler,8,,%s\nWren,Round tea tin,2,thank you,%s\n", day(20), day(15))
	if err := os.WriteFile(list, []byte(orders), 0o600); err != nil {
		t.Fatal(err)
	}
	v.do("batches", chromedp.Navigate(v.address+"/batches"), chromedp.SetUploadFiles(chromedp.CSS("#list"), []string{list}))
	v.click(".upload button")
	v.sees("You can finish everything in time.")
	v.sees("the seed table × 8")
	where := v.reads("location.pathname")

	other := v.window()
	other.do("the same batch elsewhere", chromedp.Navigate(v.address+where))
	other.sees("the seed table × 8")

	left := `document.querySelector(".alert-success").innerText.match(/[0-9]+ h.* of work/)[0]`
	before := v.reads(left)
	v.types(`[name="orders.@1.name"]`, "typed meanwhile")
	v.click(`[aria-label="All done: Trim"]`)
	v.until("less is left", fmt.Sprintf("%s !== %q", left, before))
	v.until("trimmed", `document.querySelector("#done-1").textContent.replace(/\s+/g, " ").includes("✓ Trim 8 of 8")`)
	v.until("what is typed stands, and the hand is on the page", `document.querySelector('[name="orders.@1.name"]').value ===
		"typed meanwhile" && document.activeElement !== document.body`)
	other.js(`document.dispatchEvent(new Event("visibilitychange"))`)
	other.sees("This batch was changed in another window or on another device")
	other.click("#elsewhere a")
	other.until("what was ticked here is seen there",
		`document.querySelector("#done-1").textContent.replace(/\s+/g, " ").includes("✓ Trim 8 of 8")`)
	other.click(`[aria-label^="Done: Score, typed meanwhile"]`)
	other.until("scored", `document.querySelector("#done-1").textContent.replace(/\s+/g, " ").includes("✓ Score 8 of 8")`)
	v.do("again", chromedp.Navigate(v.address+where))
	v.until("both ticks are kept",
		`/✓ Trim 8 of 8.*✓ Score 8 of 8/.test(document.querySelector("#done-1").textContent.replace(/\s+/g, " "))`)

	v.js(`document.querySelector("#more-1").open = true`)
	v.click(`#more-1 [value="pack:1"]`)
	v.sees("packed away")
	v.do("labels", chromedp.Navigate(v.address+where+"/labels"))
	v.sees("8 × Seed packet sampler")
	v.do("print", chromedp.Navigate(v.address+where+"/print"))
	v.sees("☐ Score: Wren × 2")

	// Too little time: what gives is told after the page, and one press does it.
	v.do("back", chromedp.Navigate(v.address+where))
	v.types(`[name="orders.@2.count"]`, "60")
	v.sees("There isn't enough time")
	v.sees("Any one of these is enough")
	v.click(".gives li:nth-child(1) button")
	v.sees("You can finish everything in time.")

	v.madeAndFound()
}

// madeAndFound writes down that a box was made, adds a photo and asks the logbook for it.
func (v *visitor) madeAndFound() {
	project := v.box(5)
	v.do("record", chromedp.Navigate(v.address+project+"?stage=record"))
	v.click("#made-it summary")
	v.types("#making-f-for", "Linden")
	v.js(`document.querySelector("[name=fit][value=right]").click()`)
	v.types("#making-f-count", "a few")
	v.click("#keep-making")
	v.sees("isn't a number of boxes")
	v.types("#making-f-count", "6")
	v.click("#keep-making")
	v.sees("Saved in the logbook.")
	var photo bytes.Buffer
	jpeg.Encode(&photo, image.NewGray(image.Rect(0, 0, 60, 40)), nil)
	file := filepath.Join(v.t.TempDir(), "tin.jpg")
	if err := os.WriteFile(file, photo.Bytes(), 0o600); err != nil {
		v.t.Fatal(err)
	}
	v.do("photo", chromedp.SetUploadFiles(chromedp.CSS("#photo"), []string{file}))
	v.click("#add-photos")
	v.until("the photo is shown", `document.querySelector(".photos img")?.naturalWidth === 60`)
	v.do("logbook", chromedp.Navigate(v.address+"/logbook"))
	v.types("#q", "what fitted an 85 mm tin last time?")
	v.click(".look button")
	v.sees("Last time")
	if got := v.reads(`document.querySelector("main .alert-info").innerText`); !strings.Contains(got, "for Linden") ||
		!strings.Contains(got, "inside") {
		v.t.Errorf("the logbook answers %q", got)
	}
}
