// Command icon makes the icons that phones and desktops need as pictures from web/static/icon.svg. Run it after a change
// of that drawing; its result is committed.
package main

import (
	"context"
	"encoding/base64"
	"fmt"
	"log"
	"os"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"

	"brevium/internal/browser"
)

func main() {
	for _, size := range []int{192, 512} {
		if err := draw(size); err != nil {
			log.Fatal(err)
		}
	}
}

func draw(size int) error {
	svg, err := os.ReadFile("web/static/icon.svg")
	if err != nil {
		return err
	}
	ctx, stop, err := browser.Start(context.Background(), size, size)
	if err != nil {
		return err
	}
	defer stop()
	page := fmt.Sprintf(`<body style="margin:0"><img width="%d" height="%d" src="data:image/svg+xml;base64,%s">`, size, size,
		base64.StdEncoding.EncodeToString(svg))
	clear := emulation.SetDefaultBackgroundColorOverrideParams{Color: &cdp.RGBA{}}
	if _, err := chromedp.Call(ctx, emulation.SetDefaultBackgroundColorOverride, clear); err != nil {
		return err
	}
	if err := chromedp.Do(ctx, chromedp.EmulateViewport(int64(size), int64(size)),
		chromedp.Navigate("data:text/html;base64,"+base64.StdEncoding.EncodeToString([]byte(page)))); err != nil {
		return err
	}
	png, err := chromedp.Run(ctx, chromedp.CaptureScreenshot())
	if err != nil {
		return err
	}
	return os.WriteFile(fmt.Sprintf("web/static/icon-%d.png", size), png, 0o644)
}
