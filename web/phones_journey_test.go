package web_test

import (
	"context"
	"crypto/sha256"
	"crypto/tls"
	"encoding/base64"
	"fmt"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/security"
	"github.com/chromedp/chromedp"

	"brevium/desktop"
	"brevium/internal/browser"
	"brevium/store"
	"brevium/web/desk"
)

// computer is the maker's own, made up: a stick is in it, and it does what it is asked.
type computer struct {
	stick   string
	folder  string // the one opened last
	atLogin bool
}

func (c *computer) made() desktop.Computer {
	return desktop.Computer{
		OpenFolder: func(dir string) error { c.folder = dir; return nil },
		Places: func() []desktop.Place {
			if _, err := os.Stat(c.stick); err != nil {
				return nil
			}
			return []desktop.Place{{Name: "Blue stick", Dir: c.stick, Free: 28 << 30}}
		},
		ChooseFolder:    func(context.Context, string) (string, error) { return "", nil },
		CanChooseFolder: func() bool { return false },
		StartsAtLogin:   func() bool { return c.atLogin },
		StartAtLogin:    func(on bool) error { c.atLogin = on; return nil },
	}
}

// atHome is the maker at her own computer, with the boxes of the fair or with none.
func atHome(t *testing.T, filled bool) (*visitor, *desk.Home, *computer) {
	t.Helper()
	t.Parallel()
	dir := t.TempDir()
	if filled {
		if err := os.WriteFile(filepath.Join(dir, browser.Database), fair(t), 0o600); err != nil {
			t.Fatal(err)
		}
	}
	c := &computer{stick: filepath.Join(t.TempDir(), "stick")}
	if err := os.Mkdir(c.stick, 0o755); err != nil {
		t.Fatal(err)
	}
	home := &desk.Home{Computer: c.made()}
	address, stop, err := browser.ServeHome(t.Context(), dir, nil, home)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(stop)
	return window(t, address), home, c
}

// window is another browser: nothing that one keeps is known to the other.
func window(t *testing.T, address string) *visitor {
	t.Helper()
	ctx, end := chromedp.NewContext(chromium(t), chromedp.WithNewBrowserContext())
	t.Cleanup(end)
	ctx, cancel := context.WithTimeout(ctx, 3*time.Minute)
	t.Cleanup(cancel)
	v := &visitor{t: t, ctx: ctx, address: address, stop: func() {}}
	v.do("begin", chromedp.Navigate("about:blank"), chromedp.EmulateViewport(1280, 800))
	return v
}

// phone is a phone in the network. It trusts whoever answers.
func phone(t *testing.T) *visitor {
	t.Helper()
	v := window(t, "")
	v.do("phone", chromedp.EmulateViewport(390, 844))
	trust := security.SetIgnoreCertificateErrorsParams{Ignore: true}
	if _, err := chromedp.Call(v.ctx, security.SetIgnoreCertificateErrors, trust); err != nil {
		t.Fatal(err)
	}
	return v
}

// phoneThatKnows is a phone on which the certificate of the house is installed.
func phoneThatKnows(t *testing.T, at string) *visitor {
	t.Helper()
	line, err := tls.Dial("tcp", strings.TrimPrefix(at, "https://"), &tls.Config{InsecureSkipVerify: true})
	if err != nil {
		t.Fatal(err)
	}
	defer line.Close()
	key := sha256.Sum256(line.ConnectionState().PeerCertificates[0].RawSubjectPublicKeyInfo)
	ctx, stop, err := browser.Start(t.Context(), 390, 844,
		chromedp.Flag("ignore-certificate-errors-spki-list", base64.StdEncoding.EncodeToString(key[:])))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(stop)
	ctx, cancel := context.WithTimeout(ctx, 3*time.Minute)
	t.Cleanup(cancel)
	return &visitor{t: t, ctx: ctx, stop: func() {}}
}

// A phone comes in by the code that the page shows, once, over a plain line and an encrypted one; it works there under
// its name, and can't come in any more when it is sent away. What is the computer's own it can't do.
func TestPhoneComesIn(t *testing.T) {
	for _, secure := range []bool{false, true} {
		t.Run(fmt.Sprintf("secure %v", secure), func(t *testing.T) {
			v, home, _ := atHome(t, true)
			v.do("phones", chromedp.Navigate(v.address+"/phones"))
			if secure {
				v.click("#encrypted summary")
				v.click("#secure")
			}
			v.click("#gate-open")
			v.until("a code", `document.querySelector(".code-square") !== null`)
			v.sees("On the network")
			at := v.reads(`document.querySelector("#gate-address").textContent.trim()`)
			if want := map[bool]string{false: "http://127.0.0.2:", true: "https://127.0.0.2:"}[secure]; !strings.HasPrefix(at, want) {
				t.Fatal(at)
			}
			p := phone(t)
			if secure {
				p = phoneThatKnows(t, at)
			}
			p.do("without a code", chromedp.Navigate(at+"/"))
			p.sees("It has not been let in")
			code := home.Gate.Invites.New()
			p.comesIn(at, code, "Kitchen phone")
			p.until("at the gate it is nobody's own computer", `!document.querySelector("#close-brevium") &&
				!document.querySelector('a[href="/copies"]')`)
			v.sees("Kitchen phone")

			other := phone(t)
			other.do("the same code", chromedp.Navigate(at+"/in/"+code))
			other.sees("has already let a device in")
			other.do("made up", chromedp.Navigate(at+"/in/AAAABBBBCCCCDDDD"))
			other.sees("no longer valid")

			if secure {
				benchAsAnApp(t, home, p, at)
			}
			v.js(`document.querySelector('[aria-label="Send away: Kitchen phone"]').click()`)
			v.sees("can't come in any more")
			p.do("again", chromedp.Navigate(at+"/"))
			p.sees("It has not been let in")
			v.click("#gate-close")
			v.until("closed", `document.querySelector("#gate-open") !== null && !document.querySelector(".on-air")`)
			if _, err := http.Get(strings.Replace(at, "https", "http", 1)); err == nil {
				t.Error("something still listens")
			}
		})
	}
}

// benchAsAnApp opens the bench on an encrypted line, cuts that, loads the page anew, works on, and brings the line back.
func benchAsAnApp(t *testing.T, home *desk.Home, p *visitor, at string) {
	t.Helper()
	p.address = at
	bench := at + p.box(6) + "/bench"
	p.do("bench", chromedp.Navigate(bench))
	p.until("put by", `Boolean(document.documentElement.dataset.putBy)`)
	manifest := p.reads(`document.querySelector("link[rel=manifest]").href`)
	p.js(`window.app = null; fetch("` + manifest + `").then((r) => r.json()).then((m) => { window.app = m; })`)
	p.until("an app of its own", `window.app && window.app.start_url === location.pathname && window.app.icons.length === 2`)
	p.do("under its worker", chromedp.Reload())
	p.until("under its worker", `Boolean(navigator.serviceWorker.controller) && Boolean(document.documentElement.dataset.putBy)`)
	home.Gate.Close()
	p.do("loaded without a line", chromedp.Reload())
	p.until("all pictures", `Boolean(document.documentElement.dataset.held)`)
	for p.reads(`"" + !document.querySelector(".at-on [data-rest]")`) == "true" {
		was := p.reads("location.search")
		p.click(`.at-on`)
		p.until("on", fmt.Sprintf("location.search !== %q", was))
	}
	p.click(`.at-on [data-rest]`)
	p.until("ticked", good+" === 1")
	p.sees("One thing you did is kept on this device")
	if err := home.Gate.Open(true); err != nil {
		t.Fatal(err)
	}
	if now := home.Gate.State().First(); now != at {
		t.Skip("another program took the port meanwhile") // the port is the machine's to give
	}
	p.until("it has arrived", `!document.querySelector("[data-line]").offsetWidth && `+good+` === 1`)
	p.do("fresh", chromedp.Reload())
	p.until("still ticked", good+" === 1")
}

// The first time she opens Brevium she is asked how she works, and looks round with samples; they go in one press, and a
// box of her own stays. Her boxes are shown where they are, copied to a stick, and Brevium is closed.
func TestFirstTimeAtHome(t *testing.T) {
	v, home, c := atHome(t, false)
	closed := make(chan bool, 1)
	home.Close = func() { closed <- true }
	v.do("first", chromedp.Navigate(v.address))
	v.sees("Welcome to Brevium")
	v.click("label:has(#units-in)")
	v.click("label:has(#paper-letter)")
	v.click("#with-samples")
	v.sees("These are samples to look round with")
	v.click("#new-box")
	v.until("her own box", `location.pathname.startsWith("/projects/")`)
	v.do("home", chromedp.Navigate(v.address))
	v.click("#remove-samples")
	v.until("her own box stays", `document.querySelectorAll(".card-item").length === 1`)
	v.click("#put-samples")
	v.sees("These are samples to look round with")
	v.click("#remove-samples")
	v.until("gone again", `document.querySelectorAll(".card-item").length === 1`)
	v.do("never again", chromedp.Navigate(v.address))
	v.sees("Your boxes")

	v.do("where", chromedp.Navigate(v.address+"/copies"))
	v.click("#open-folder")
	v.sees("The folder is open")
	v.click("#at-login")
	v.sees("Start Brevium when I log in: on")
	v.js(`document.querySelector(".places button").click()`)
	v.sees("Brevium has opened it to check it")
	copies, err := filepath.Glob(filepath.Join(c.stick, "Brevium backups", "*.db"))
	if err != nil || len(copies) != 1 || c.folder == "" || !c.atLogin {
		t.Fatalf("%v %v, opened %q, at login %v", copies, err, c.folder, c.atLogin)
	}
	if s, err := store.Open(t.Context(), copies[0]); err != nil {
		t.Error(err)
	} else {
		s.Close()
	}
	// The stick is pulled: said, and nothing is lost.
	if err := os.RemoveAll(c.stick); err != nil {
		t.Fatal(err)
	}
	v.do("where", chromedp.Navigate(v.address+"/copies"))
	v.sees("It isn't plugged in")
	v.click("#copy-again")
	v.sees("isn't there")
	v.click("#close-brevium")
	v.sees("Brevium is closed")
	select {
	case <-closed:
	case <-time.After(5 * time.Second):
		t.Error("it was not closed")
	}
}
