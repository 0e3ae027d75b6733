package web

import (
	"fmt"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/core/shop"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/workbench"
)

// What is learnt after a box was made, and a card that turns out thicker, don't change how it was made: neither
// the pieces that are shown nor those of a box that is made again as it was then.
func TestPastStaysAsItWas(t *testing.T) {
	a := newApp(t)
	b := brief.New("mm")
	b.Name = "Thimble case"
	b.Contents = []brief.Item{{ID: "1", Name: "thimble", Shape: "cylinder", Diameter: "22 mm", Height: "26 mm", Count: "4"}}
	id := a.begin(b)
	path := "/projects/" + id
	record := func(fit, key string) string {
		making, _, _ := strings.Cut(at(t, a.post(path+"/makings", "key", key, "made", "2026-11-20", "count", "1", "fit", fit)), "?")
		return making
	}
	first := record("tight", "k1")
	pieces := func(making string) string {
		_, page, _ := strings.Cut(a.get(making).Body.String(), `id="planned"`)
		page, _, _ = strings.Cut(page, "</details>")
		return page
	}
	was := pieces(first)
	if !strings.Contains(was, "Base") || !strings.Contains(was, "Lid") || !strings.Contains(was, "mm") {
		t.Fatalf("the pieces are not shown: %s", was)
	}
	record("tight", "k2")
	a.typeInShop("cards.@cover-216.ten", "4.4 mm")
	if now := pieces(first); now != was {
		t.Errorf("the past was written again: %s\nwas %s", now, was)
	}
	if page := a.get(first).Body.String(); strings.Contains(page, "a little differently today") {
		t.Error("it is planned otherwise, though all the shop said then is kept")
	}
	again, _, _ := strings.Cut(at(t, a.post(first+"/again")), "?")
	second, _, _ := strings.Cut(at(t, a.post(again+"/makings", "key", "k3", "made", "2026-11-21", "count", "1")), "?")
	if now := pieces(second); now != was {
		t.Errorf("made again it is another box: %s\nwas %s", now, was)
	}
}

// A document that is saved holds the cards and tools it is planned with, and plans alike in an empty shop; what
// they cost stays here.
func TestDocumentHoldsItsCards(t *testing.T) {
	a := newApp(t)
	a.typeInShop("cards.@kraft-300.ten", "4.4 mm")
	a.typeInShop("cards.@kraft-300.price", "0.37")
	b := brief.New("mm")
	b.Card.Stock = "kraft-300"
	b.Contents = []brief.Item{{ID: "1", Name: "thimble", Shape: "cylinder", Diameter: "22 mm", Height: "26 mm", Count: "4"}}
	id := a.begin(b)
	doc := a.get("/projects/" + id + "/document").Body.Bytes()
	got, err := brief.Decode(doc)
	if err != nil {
		t.Fatal(err)
	}
	here, _ := a.store.Shops.Head(t.Context(), store.TheShop)
	empty, _ := shop.Read(shop.Document{})
	p, elsewhere := plan.Make(a.head(id).Doc, desk.ReadAs(here).Workshop), plan.Make(got, request.Workshop{Shop: *empty})
	if !elsewhere.Holds() || fmt.Sprint(workbench.Planned(sets.JobOf(p))) != fmt.Sprint(workbench.Planned(sets.JobOf(elsewhere))) {
		t.Errorf("%v elsewhere, here %v: %v", workbench.Planned(sets.JobOf(elsewhere)), workbench.Planned(sets.JobOf(p)), elsewhere.Problems)
	}
	if strings.Contains(string(doc), "0.37") {
		t.Error("the price left the house")
	}
}
