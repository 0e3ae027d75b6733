package web

import (
	"archive/zip"
	"bytes"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/demo"
)

// private is a box of a card whose price, pack and sheets in hand are the maker's own affair, with
// a note.
func private(t *testing.T, set bool) brief.Brief {
	t.Helper()
	projects, err := demo.Projects()
	if err != nil {
		t.Fatal(err)
	}
	for _, b := range projects {
		if b.IsSet() != set {
			continue
		}
		card := brief.Stock{ID: "own-1", Title: "Meadow card", GSM: "220", Caliper: "0.3 mm", Colour: "#dde5cc", Sheets: "a3",
			Price: "7.31", Hand: "4711", Pack: "37"}
		b.Card.Own, b.Card.Stock, b.Card.Sheet, b.Notes = append(b.Card.Own, card), "own-1", "a3", "Wren must not see this."
		return b
	}
	t.Fatal("there is none")
	return brief.Brief{}
}

var ownAffairs = []string{"7.31", "4711", `"pack"`, `"price"`, `"hand"`}

// What leaves the house tells no price, no stock in hand and no packs; notes only where that was
// asked; a link to a box in the bin is closed; everything as zip can be brought in again.
func TestWhatLeavesTheHouse(t *testing.T) {
	for _, set := range []bool{false, true} {
		a := newApp(t)
		id := a.begin(private(t, set))
		path := "/projects/" + id
		for _, notes := range []string{"", "1"} {
			at(t, a.post(path+"/share", "notes", notes))
			sh, err := a.store.Links.ShareOf(t.Context(), id)
			if err != nil {
				t.Fatal(err)
			}
			link := "/s/" + sh.Token
			doc := a.get(link + "/document").Body.String()
			for _, own := range ownAffairs {
				if strings.Contains(doc, own) {
					t.Errorf("a shared document tells %s", own)
				}
			}
			file := filepath.Join(t.TempDir(), "s.pdf")
			os.WriteFile(file, a.get(link+"/out/pdf").Body.Bytes(), 0o600)
			text, err := exec.Command("pdftotext", file, "-").Output()
			if err != nil {
				t.Fatal(err)
			}
			if told := strings.Contains(doc+string(text), "Wren must not see"); told != (notes == "1") {
				t.Errorf("notes were asked %q, and told: %v", notes, told)
			}
			if notes != "1" {
				continue
			}
			a.store.Boxes.Throw(t.Context(), id, true)
			if w := a.get(link); w.Code != http.StatusGone {
				t.Errorf("a link to a box in the bin: %d", w.Code)
			}
			a.store.Boxes.Throw(t.Context(), id, false)
			if w := a.get(link); w.Code != http.StatusOK {
				t.Errorf("a link to a box taken out of the bin: %d", w.Code)
			}
		}
		a.store.Shelf.PutIn(t.Context(), "Presents", id)
		at(t, a.post("/folders/share", "folder", "Presents"))
		bundle := a.get("/bundle?folder=Presents").Body.Bytes()
		for _, own := range ownAffairs {
			if strings.Contains(unzipped(t, bundle), own) {
				t.Errorf("a bundle tells %s", own)
			}
		}
		whole := a.get(path + "/out/zip").Body.Bytes()
		b := newApp(t)
		at(t, b.send("/projects/upload", "document", string(whole)))
		if again, err := b.store.Shelf.Called(t.Context(), string(a.head(id).Doc.Name)); err != nil ||
			again.Doc.Card.Own[len(again.Doc.Card.Own)-1].Price != "7.31" {
			t.Errorf("everything as zip, brought in again: %v", err)
		}
	}
}

// unzipped is the documents and lists of a zip.
func unzipped(t *testing.T, data []byte) (out string) {
	t.Helper()
	z, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		t.Fatal(err)
	}
	for _, f := range z.File {
		if strings.HasSuffix(f.Name, ".json") {
			r, _ := f.Open()
			text, _ := io.ReadAll(r)
			out += string(text)
		}
	}
	return out
}
