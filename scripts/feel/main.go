// Command feel measures what a person meets in a browser: how much a plain box asks and offers, what the first load of
// each page weighs, and how long a change takes until it is painted, in every stage of the fullest box of the demo.
package main

import (
	"context"
	"flag"
	"fmt"
	"log"
	"os"
	"slices"
	"time"

	"github.com/chromedp/chromedp"

	"brevium/demo"
	"brevium/internal/browser"
)

// met counts what can be pressed or filled in on a page and is seen, the fields that are folded away, and how tall the
// questions are.
const met = `(() => {
  const seen = (el) => el.getClientRects().length > 0 && el.checkVisibility({ visibilityProperty: true }) &&
    el.closest("details:not([open]) > :not(summary), .skip, .default-act") === null;
  const of = (s) => [...document.querySelectorAll(s)].filter(seen).length;
  const questions = document.querySelector("#brief-column");
  const tall = questions ? questions.scrollHeight / questions.clientHeight : 0;
  const fields = [...document.querySelectorAll("main :is(input:not([type=hidden]), select, textarea)")];
  const folded = (el) => el.closest("details:not([open])") !== null;
  const radios = new Set(fields.filter((el) => el.type === "radio").map((el) => el.name)).size;
  const asked = fields.filter((el) => el.type !== "radio");
  return "menu " + of(".rooms a") + ", stages " + of(".rail a") + ", links " + of("a[href]") + ", buttons " +
    of("button") + ", fields " + (asked.filter((el) => !folded(el)).length + radios) + ", folded " +
    asked.filter(folded).length + ", views " + of(".worktable .nav a") + ", questions " + tall.toFixed(2) + " screens";
})()`

// weighed is what a page fetched to be shown.
const weighed = `(() => {
  const got = [...performance.getEntriesByType("navigation"), ...performance.getEntriesByType("resource")];
  return got.length + " requests, " + (got.reduce((n, e) => n + e.transferSize, 0) / 1000).toFixed(0) + " kB";
})()`

// painted changes a field of the stage to and fro, and takes the time until the answer is on the screen.
const painted = `(async () => {
  const field = [...document.querySelectorAll("#brief input[type=text], #brief select")].find((el) =>
    !el.closest("details:not([open])") && el.name && !/name|usual/.test(el.name));
  if (!field) return [];
  const frame = () => new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
  const took = [], first = field.value;
  for (let i = 0; i < 7; i++) {
    const shown = new Promise((done) => document.addEventListener("bench:shown", done, { once: true }));
    const begun = performance.now();
    const el = document.querySelector("#" + CSS.escape(field.id));
    if (el.matches("select")) el.selectedIndex = (el.selectedIndex + 1) % Math.min(2, el.options.length);
    else if (/^\d+$/.test(el.value)) el.value = String(Number(el.value) % 3 + 1);
    else el.value = i % 2 ? first : "3 1/2 in";
    el.dispatchEvent(new Event("input", { bubbles: true }));
    el.dispatchEvent(new Event("change", { bubbles: true }));
    await Promise.race([shown, new Promise((done) => setTimeout(done, 3000))]);
    await frame();
    took.push(performance.now() - begun);
    await new Promise((done) => setTimeout(done, 700));
  }
  return took;
})()`

func main() {
	fullest := flag.Int("box", 28, "which box of the demo's list the changes are made to")
	flag.Parse()
	dir, err := os.MkdirTemp("", "brevium-feel-")
	check(err)
	defer os.RemoveAll(dir)
	address, stop, err := browser.Serve(context.Background(), dir, demo.Fill)
	check(err)
	defer stop()
	boxes := listed(address)

	jar := window(func(ctx context.Context) string {
		open(ctx, address+"/")
		return ask[string](ctx, `fetch("/projects", { method: "POST" }).then(async (r) => {
			const at = new URL(r.url).pathname, page = await r.text(), base = page.match(/name="base" value="(\d+)"/)[1];
			await fetch(at + "/change", { method: "POST", body: new URLSearchParams({ base, act: "add-usual:honey jar" }) });
			return at;
		})`)
	})
	fmt.Println("a plain jar:")
	for _, stage := range []string{"contents", "box", "card", "dressing", "sheets", "bench", "record"} {
		fmt.Printf("  %-9s %s\n", stage, window(func(ctx context.Context) string {
			open(ctx, address+jar+"?stage="+stage)
			return ask[string](ctx, met)
		}))
	}
	fmt.Println("first load:")
	for _, page := range []string{"/", jar, jar + "?stage=sheets", "/shop", "/batches", "/logbook"} {
		fmt.Printf("  %-40s %s\n", page, window(func(ctx context.Context) string {
			open(ctx, address+page)
			return ask[string](ctx, weighed)
		}))
	}
	fmt.Println("a change until it is painted:")
	for _, at := range []string{"contents&view=above", "contents&view=flat", "box&view=folded", "card&view=fit",
		"dressing&view=folded", "dressing&view=layers", "sheets&view=sheets"} {
		var taken float64
		took := window(func(ctx context.Context) []float64 {
			open(ctx, address+boxes[min(*fullest, len(boxes))-1]+"?stage="+at)
			time.Sleep(1500 * time.Millisecond)
			begun := stolen()
			defer func() { taken = stolen() - begun }()
			return ask[[]float64](ctx, painted)
		})
		if len(took) > 0 {
			slices.Sort(took)
			fmt.Printf("  %-24s median %.0f ms, longest %.0f ms; others took %.0f ms of the processors\n", at, took[len(took)/2],
				took[len(took)-1], taken)
		}
	}
}

// stolen is how long, in milliseconds, other guests of the machine's host held its processors since it began; 0 where
// the system doesn't tell. What is measured meanwhile says little.
func stolen() float64 {
	stat, err := os.ReadFile("/proc/stat")
	if err != nil {
		return 0
	}
	var user, nice, system, idle, wait, irq, soft, steal float64
	fmt.Sscanf(string(stat), "cpu %f %f %f %f %f %f %f %f", &user, &nice, &system, &idle, &wait, &irq, &soft, &steal)
	return steal * 10
}

// listed are the addresses of the demo's boxes.
func listed(address string) []string {
	return window(func(ctx context.Context) (all []string) {
		for page := 1; page <= 3; page++ {
			open(ctx, fmt.Sprintf("%s/?page=%d", address, page))
			all = append(all, ask[[]string](ctx, `[...document.querySelectorAll(".card-item > a")].map((a) => a.getAttribute("href"))`)...)
		}
		return all
	})
}

// window does something in a browser that has seen nothing yet.
func window[T any](do func(context.Context) T) T {
	ctx, stop, err := browser.Start(context.Background(), 1280, 800)
	check(err)
	defer stop()
	ctx, cancel := context.WithTimeout(ctx, time.Minute)
	defer cancel()
	return do(ctx)
}

func open(ctx context.Context, address string) {
	check(chromedp.Do(ctx, chromedp.EmulateViewport(1280, 800), chromedp.Navigate(address), chromedp.Sleep(1500*time.Millisecond)))
}

func ask[T any](ctx context.Context, script string) T {
	out, err := chromedp.Run(ctx, chromedp.Evaluate[T](script, chromedp.EvalAwaitPromise))
	check(err)
	return out
}

func check(err error) {
	if err != nil {
		log.Fatal(err)
	}
}
