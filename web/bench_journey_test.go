package web_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// benchStep is where the page is: its step, the picture, and how many are ticked.
const benchStep = `document.querySelector("[data-at-bench]").dataset.step`

// A whole session at the bench on a phone: picture by picture with the keys and with the thumb,
// a reload in the middle, a tick on another device, a timer, to the last step; and once more.
func TestBenchSession(t *testing.T) {
	v := visit(t)
	box := v.box(6) // stuck with wet glue
	v.do("phone", chromedp.EmulateViewport(390, 844), chromedp.Navigate(v.address+box+"?stage=bench"))
	v.click("#to-bench")
	v.until("the first step", benchStep+` === "trim:1"`)
	v.sees("Cut 1: Set")
	next := func(says string) {
		v.t.Helper()
		before := v.reads(`location.search + document.querySelector("[data-says]")?.dataset.says`)
		v.do("space", chromedp.KeyEvent(" "))
		v.until("on, "+says, fmt.Sprintf(`location.search + document.querySelector("[data-says]")?.dataset.says !== %q`, before))
	}
	next("by space")
	was := v.reads(`location.search`)
	v.do("left, and opened again", chromedp.Navigate(v.address+box+"/bench"))
	v.until("where one was", fmt.Sprintf(`location.search === %q && document.querySelector("[data-says]") !== null`, was))
	v.do("back", chromedp.KeyEvent(kb.ArrowLeft))
	v.until("back at the first cut", `document.querySelector("[data-says]").dataset.says.startsWith("Cut 1")`)
	for v.reads(`"" + !document.querySelector(".at-check")`) == "true" {
		next("cut by cut")
	}
	v.sees("Check: Each piece measures what its score card says")
	v.until("a moment's work", `Number(document.querySelector("[data-seconds]").value) > 1.1`)
	v.click(`.at-on [data-way="on"]`)
	v.until("ticked", `document.querySelectorAll(".at-list .good").length === 1`)
	for v.reads(benchStep) != "cut:base" {
		next("to the cuts")
	}
	v.sees("Top left")
	next("one corner")

	// In the middle of it the page is loaded again; then something is ticked elsewhere.
	v.do("reload", chromedp.Reload())
	v.until("where it was", benchStep+` === "cut:base" && new URLSearchParams(location.search).get("picture") === "2"`)
	done := v.reads(`"" + document.querySelector(".at-progress").value`)
	v.js(v.ticked(box, "fill"))
	v.until("the other device's tick is here", fmt.Sprintf(`Number(document.querySelector(".at-progress").value) === %s + 1`, done))

	for !strings.HasPrefix(v.reads(benchStep), "drying") {
		next("to the drying")
	}
	v.click("[data-wait] button")
	v.until("it runs down", `document.querySelector("[data-wait].running [data-left]").textContent.startsWith("59:5")`)
	for v.reads(benchStep) != "" {
		next("to the end")
	}
	v.sees("All done")
	v.sees("It took")
	v.until("nothing is wider than the phone", `document.documentElement.scrollWidth <= innerWidth`)
	v.do("again", chromedp.Focus(chromedp.CSS(".at-done form button")), chromedp.KeyEvent(kb.Enter))
	v.until("from the beginning", benchStep+` === "trim:1" && document.querySelectorAll(".at-list .good").length === 0`)
	v.sees("at your pace")
}

// A finger that comes down twice ticks once, and a look for ticks from elsewhere meanwhile turns nothing back. A tick
// from elsewhere is shown where one is, without a jump.
func TestBenchSendsOnce(t *testing.T) {
	v := visit(t)
	box := v.box(6)
	v.do("bench", chromedp.Navigate(v.address+box+"/bench?step=trim:1&picture=100"))
	v.js(`window.sent = 0; window.real = fetch;
	window.fetch = async (address, how) => {
		if (how?.method !== "POST") return real(address, how);
		sent++;
		await new Promise((done) => setTimeout(done, 300));
		document.dispatchEvent(new Event("visibilitychange")); // a look for what else is ticked, now
		return real(address, how);
	}`)
	v.do("twice", chromedp.DoubleClick(chromedp.CSS(`.at-on [data-way="on"]`)))
	v.until("the next step", benchStep+` === "trim:2" && location.search === "?step=trim%3A2"`)
	v.until("sent once", `sent === 1 && document.querySelectorAll(".at-list .good").length === 1`)
	v.js(`window.fetch = real`)

	v.do("bench", chromedp.EmulateViewport(390, 500), chromedp.Navigate(v.address+box+"/bench?step=cut:base&picture=100"))
	v.click("#at-fails summary")
	v.js(`document.querySelector("#at-fails summary").focus(); scrollTo(0, 60)`)
	v.js(v.ticked(box, "fill"))
	v.until("ticked", `document.querySelectorAll(".at-list .good").length === 2`)
	v.until("left as it was", `scrollY === 60 && document.querySelector("#at-fails").open &&
		document.activeElement.matches("#at-fails summary")`)
}

// ticked is a script that ticks a step as another device does, and makes the page look.
func (v *visitor) ticked(box, step string) string {
	return fmt.Sprintf(`fetch("%s/bench?step=%s").then((r) => r.text()).then((text) => {
		const page = new DOMParser().parseFromString(text, "text/html"), form = page.querySelector("form.at-on");
		const fields = new URLSearchParams(new FormData(form));
		fields.set("more", "1");
		return fetch(form.getAttribute("action"), { method: "POST", body: fields });
	}).then(() => document.dispatchEvent(new Event("visibilitychange")))`, box, step)
}

// The machine beside the pages, from the page: a sheet is sent, it jams, goes on, is done.
func TestMachineJourney(t *testing.T) {
	v := visit(t)
	v.do("machine", chromedp.Navigate(v.address+v.box(1)+"/machine"))
	v.sees("Empty")
	v.click(".sends button")
	v.sees("Ready")
	v.click("#press-start")
	v.sees("Running")
	v.click("#press-jam")
	v.sees("The card has jammed")
	v.until("the bed is drawn", `document.querySelector(".bed img").naturalWidth > 0`)
	v.click("#press-resume")
	v.sees("Finished")
	v.until("all of it", `document.querySelector(".at-progress").value === 100`)
	v.until("read out once", `document.querySelector("#machine-ends").textContent === "Finished" && !document.querySelector("[aria-live]")`)
}

// A page to show: whoever has the link turns the box and reads its cards in both units; when the
// link is withdrawn there is nothing.
func TestSharedJourney(t *testing.T) {
	v := visit(t)
	out := v.address + v.box(4) + "/handon"
	v.do("hand on", chromedp.Navigate(out))
	v.click("#save-png")
	v.until("a picture to save", `/^1600 × \d{3,4}$/.test(document.querySelector("#save-png").dataset.saved)`)
	v.click("#share-it")
	v.until("a link", `document.querySelector("#share-link")?.value.includes("/s/")`)
	link := v.reads(`new URL(document.querySelector("#share-link").value).pathname`)
	v.do("look", chromedp.Navigate(v.address+link))
	v.sees("Seed packets, standing")
	v.sees("turning the piece a quarter each time")
	v.sees("mm)")
	v.until("its pictures", `[...document.querySelectorAll(".frames img")].slice(0, 3).every((i) => i.loading === "lazy")`)
	v.do("turn", chromedp.Focus(chromedp.CSS("#solid")), chromedp.KeyEvent(kb.ArrowRight))
	v.until("turned", `Number(document.querySelector("#turnable").yaw.value) !== -32`)
	v.until("no way in", `!document.querySelector("form[method=post]") && !document.querySelector('a[href^="/projects"]')`)
	v.do("hand on", chromedp.Navigate(out))
	v.click("#unshare")
	v.sees("A page with pictures")
	v.do("look", chromedp.Navigate(v.address+link))
	v.sees("no longer works")
}
