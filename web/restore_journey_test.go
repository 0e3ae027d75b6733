package web_test

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
)

// comesIn lets a phone in at a gate by a code.
func (p *visitor) comesIn(at, code, name string) {
	p.t.Helper()
	p.address = at
	p.do("the code", chromedp.Navigate(at+"/in/"+code))
	p.sees("Let this device in")
	p.js(`document.querySelector("#who").value = "` + name + `"`)
	p.click("#come-in")
	p.sees("Your boxes")
}

// A backup is restored while a phone is at the bench: the phone is told, what is ticked on it then stays on it, and
// arrives when it has been let in again.
func TestRestoredWhileAPhoneIsIn(t *testing.T) {
	v, home, _ := atHome(t, true)
	if err := home.Gate.Open(false); err != nil {
		t.Fatal(err)
	}
	at := home.Gate.State().First()
	p := phone(t)
	p.comesIn(at, home.Gate.Invites.New(), "Kitchen phone")
	box := p.box(6)
	bench := at + box + "/bench?step=trim:1&picture=100"
	p.do("bench", chromedp.Navigate(bench))
	p.until("all pictures", `Boolean(document.documentElement.dataset.held)`)
	p.click(`.at-on [data-way="on"]`)
	p.until("ticked", good+` === 1 && location.search === "?step=trim%3A2"`)
	v.do("seen from the computer", chromedp.Navigate(v.address+box+"/bench"))
	v.until("arrived", good+" === 1")

	backup := filepath.Join(t.TempDir(), "backup.db")
	if data, err := fetched(v.address + "/copies/now"); err != nil {
		t.Fatal(err)
	} else if err := os.WriteFile(backup, data, 0o600); err != nil {
		t.Fatal(err)
	}
	v.do("where", chromedp.Navigate(v.address+"/copies"), chromedp.SetUploadFiles("#copy", []string{backup}))
	v.click(`.upload [name="sure"]`)
	v.click("#put-back")
	v.sees("The backup is restored")
	v.sees("Your phones need a new code to connect again")

	for p.reads(`"" + !document.querySelector(".at-on [data-rest]")`) == "true" {
		p.click(`.at-on`)
	}
	p.click(`.at-on [data-rest]`)
	p.sees("This device was signed out. Scan the code on the computer again. What you ticked is kept here.")
	p.sees("One thing you did is kept on this device")
	p.do("loaded again", chromedp.Navigate(bench))
	p.sees("It has not been let in")
	p.comesIn(at, home.Gate.Invites.New(), "Kitchen phone")
	p.do("bench", chromedp.Navigate(bench))
	p.until("both are ticked", good+" === 2")
}

// A file is dropped on the page: what is in it comes in, is listed, and is taken back.
func TestFileIsDropped(t *testing.T) {
	v, _, _ := atHome(t, true)
	v.do("home", chromedp.Navigate(v.address))
	boxes := v.reads(`document.querySelector(".sort-row span").textContent`)
	v.js(`const all = new DataTransfer();
		all.items.add(new File(["name,shape,count,length,width,height\nTin of beads,cylinder,2,2 in,2 in,3 in\n"], "tins.csv"));
		for (const what of ["dragover", "drop"])
			document.body.dispatchEvent(new DragEvent(what, { dataTransfer: all, bubbles: true, cancelable: true }))`)
	v.until("a box for it", `location.pathname.startsWith("/projects/") && document.body.innerText.includes("Tin of beads")`)
	v.do("home", chromedp.Navigate(v.address))
	v.click("#came-in summary")
	v.sees("tins.csv")
	v.click(`[aria-label="Take back: tins.csv"]`)
	v.sees("Removed. Boxes from a file are in the bin.")
	if now := v.reads(`document.querySelector(".sort-row span").textContent`); now != boxes {
		t.Errorf("there are %s, there were %s", now, boxes)
	}
}
