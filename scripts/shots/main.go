// Command shots takes the pictures in docs/screenshots from the demo data, or
// with arguments one picture: shots WIDTH HEIGHT light|dark PROJECT QUERY FILE
// [CLICK...], where PROJECT counts from 1, 0 is the list, -1 is a maker's own
// computer with the samples, -2 one where Brevium is opened the first time, and
// each CLICK is a selector pressed before the picture is taken.
package main

import (
	"context"
	"fmt"
	"log"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"time"

	"github.com/chromedp/chromedp"

	"brevium/demo"
	"brevium/desktop"
	"brevium/internal/browser"
	"brevium/store"
	"brevium/web/desk"
)

type shot struct {
	width, height int
	theme         string
	project       int
	query, file   string
	clicks        []string
}

const dir = "docs/screenshots"

var all = []shot{
	{1280, 800, "light", 0, "", "boxes.png", nil},
	{1280, 900, "light", 0, "/batches", "batch.png", []string{"go:.uses a"}},
	{1280, 800, "light", 0, "/logbook?q=what+fitted+an+85+mm+tin+last+time", "logbook.png", nil},
	{1280, 800, "light", 1, "?stage=box&view=flat", "flat.png", nil},
	{1280, 800, "light", 11, "?stage=box&view=folded&lift=55&yaw=-28&pitch=26", "folded.png", nil},
	{1280, 800, "light", 28, "?stage=dressing&lift=72&yaw=-28&pitch=30", "dressing.png", nil},
	{1280, 800, "light", 0, "/shop", "shop.png", nil},
	{1280, 800, "light", 1, "?stage=card&view=fit", "corner.png", nil},
	{1280, 800, "light", 26, "?stage=box&view=folded&all=1&yaw=-28&pitch=22", "set.png", nil},
	{1280, 800, "light", 28, "?stage=sheets&view=sheets", "sheets.png", []string{"[data-on]", "[data-on]", "[data-on]"}},
	{1280, 800, "light", 0, "/fair", "fair.png", []string{".fair-choose li:nth-child(1) input", ".fair-choose li:nth-child(4) input",
		".fair-choose li:nth-child(5) input", ".fair-choose li:nth-child(7) input", "#fair-lay"}},
	{1280, 800, "light", 7, "/bench?step=stick:base&picture=3", "bench.png", nil},
	{1280, 900, "light", 28, "/handon", "handon.png", []string{"#share-it"}},
	{1280, 900, "dark", 7, "/machine", "machine.png", []string{".sends button", "#press-start", "#press-jam"}},
	{390, 844, "light", 1, "?stage=box&view=flat", "phone.png", nil},
	{1280, 800, "light", -2, "/", "first.png", nil},
	{1280, 800, "light", -1, "/phones", "phones.png", []string{"#gate-open"}},
	{1280, 800, "light", -1, "/copies", "where.png", nil},
	// These begin boxes, so that the others stand elsewhere in the list.
	{1280, 800, "light", 0, "/", "styles.png", []string{"#new-box", ".picks button:nth-child(5)", "[data-view=new1] #new-next"}},
}

func main() {
	shots := all
	if len(os.Args) > 1 {
		n := func(s string) int { v, err := strconv.Atoi(s); check(err); return v }
		a := os.Args[1:]
		shots = []shot{{n(a[0]), n(a[1]), a[2], n(a[3]), a[4], a[5], a[6:]}}
	}
	temp, err := os.MkdirTemp("", "brevium-shots-")
	check(err)
	defer os.RemoveAll(temp)
	address, stop, err := browser.Serve(context.Background(), temp, demo.Fill)
	check(err)
	defer stop()
	home := map[int]string{}
	for _, s := range shots {
		at := address
		if s.project < 0 {
			if home[s.project] == "" {
				var end func()
				home[s.project], end = atHome(filepath.Join(temp, map[int]string{-1: "boxes", -2: "new"}[s.project]), s.project == -1)
				defer end()
			}
			at, s.project = home[s.project], 0
		}
		take(at, s)
	}
}

// atHome serves a maker's own computer, which is made up.
func atHome(dir string, samples bool) (address string, stop func()) {
	check(os.MkdirAll(dir, 0o755))
	fill := demo.Fill
	if !samples {
		fill = nil
	}
	computer := desktop.Computer{OpenFolder: func(string) error { return nil },
		Places: func() []desktop.Place {
			return []desktop.Place{{Dir: filepath.Join(dir, "stick"), Name: "Blue stick", Free: 28 << 30}}
		},
		ChooseFolder:    func(context.Context, string) (string, error) { return "", nil },
		CanChooseFolder: func() bool { return true }, StartsAtLogin: func() bool { return true },
		StartAtLogin: func(bool) error { return nil }}
	address, stop, err := browser.ServeHome(context.Background(), dir, fill, &desk.Home{Computer: computer})
	check(err)
	return address, stop
}

func take(address string, s shot) {
	ctx, stop, err := browser.Start(context.Background(), s.width, s.height)
	check(err)
	defer stop()
	ctx, cancel := context.WithTimeout(ctx, 60*time.Second)
	defer cancel()
	link := "/"
	check(chromedp.Do(ctx,
		chromedp.EmulateViewport(int64(s.width), int64(s.height)),
		chromedp.Navigate(address)))
	_, err = chromedp.Run(ctx, chromedp.Evaluate[any](fmt.Sprintf(`localStorage.setItem("theme", %q)`, s.theme)))
	check(err)
	if strings.HasPrefix(s.query, "/") && s.project == 0 {
		link = ""
	}
	if n := s.project - 1; n >= 0 {
		check(chromedp.Do(ctx, chromedp.Navigate(fmt.Sprintf("%s/?page=%d", address, n/store.PerPage+1))))
		s.project = n%store.PerPage + 1
		link, err = chromedp.Run(ctx, chromedp.Evaluate[string](fmt.Sprintf(
			`document.querySelectorAll(".card-item > a")[%d].getAttribute("href")`, s.project-1)))
		check(err)
	}
	steps := []chromedp.Action[chromedp.Void]{chromedp.Navigate(address + link + s.query),
		chromedp.Sleep(300 * time.Millisecond)}
	if s.project == 0 && s.query == "" { // what nobody has seen yet comes after the list
		steps = append(steps, chromedp.Sleep(2*time.Second))
	}
	if strings.Contains(s.query, "view=folded") { // the view that turns is loaded when it is opened
		steps = append(steps, chromedp.Sleep(1500*time.Millisecond))
	}
	if strings.Contains(s.query, "view=styles") { // the boxes there are folding up
		steps = append(steps, chromedp.Sleep(3200*time.Millisecond))
	}
	for _, c := range s.clicks {
		if to, ok := strings.CutPrefix(c, "go:"); ok { // where a link leads, in this window
			check(chromedp.Do(ctx, steps...))
			href, err := chromedp.Run(ctx, chromedp.Evaluate[string](fmt.Sprintf(`document.querySelector(%q).href`, to)))
			check(err)
			steps = []chromedp.Action[chromedp.Void]{chromedp.Navigate(href), chromedp.Sleep(2 * time.Second)}
			continue
		}
		steps = append(steps, chromedp.Click(chromedp.CSS(c)), chromedp.Sleep(500*time.Millisecond))
	}
	check(chromedp.Do(ctx, steps...))
	png, err := chromedp.Run(ctx, chromedp.CaptureScreenshot())
	check(err)
	file := s.file
	if !filepath.IsAbs(file) {
		file = filepath.Join(dir, file)
	}
	check(os.MkdirAll(filepath.Dir(file), 0o755))
	check(os.WriteFile(file, png, 0o644))
	fmt.Println(file)
}

func check(err error) {
	if err != nil {
		log.Fatal(err)
	}
}
