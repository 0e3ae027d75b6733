package web

import (
	"bytes"
	"html"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"brevium/core/batch"
	"brevium/core/contents"
	"brevium/core/cutlist"
	"brevium/core/record"
	"brevium/core/shop"
	"brevium/demo"
)

// everything is what there is to count: documents of each kind that aren't in the bin, and copies beside the database.
func (a *app) everything() map[string]int {
	a.t.Helper()
	out := map[string]int{"copies": len(a.store.Copies())}
	for kind, list := range map[string]string{"box": "/", "batch": "/batches", "cutlist": "/cut", "making": "/logbook"} {
		page := a.get(list).Body.String()
		link := map[string]string{"box": `href="/projects/(\w+)"`, "batch": `href="/batches/(\w+)"`, "cutlist": `href="/cut/(\w+)"`,
			"making": `href="/makings/(\w+)"`}[kind]
		seen := map[string]bool{}
		for _, m := range regexp.MustCompile(link).FindAllStringSubmatch(page, -1) {
			seen[m[1]] = true
		}
		out[kind] = len(seen)
	}
	return out
}

// alert is what a page says went wrong.
func alert(w *httptest.ResponseRecorder) string {
	page := strings.Join(strings.Fields(html.UnescapeString(w.Body.String())), " ")
	if m := regexp.MustCompile(`class="alert alert-danger" role="alert">([^<]*)<`).FindStringSubmatch(page); m != nil {
		return m[1]
	}
	return page[:min(len(page), 400)]
}

// Whatever is dropped on the page goes where it belongs, is listed by its name and can be taken back; what is nothing of
// ours changes nothing and says what Brevium reads.
func TestDropped(t *testing.T) {
	a, other := newApp(t), newApp(t)
	projects, err := demo.Projects()
	if err != nil {
		t.Fatal(err)
	}
	of := other.begin(projects[5])
	box, bundle := other.get("/projects/"+of+"/document").Body.String(), other.get("/bundle").Body.String()
	backup := filepath.Join(t.TempDir(), "backup.db")
	if err := other.store.Backup(t.Context(), backup); err != nil {
		t.Fatal(err)
	}
	database, err := os.ReadFile(backup)
	if err != nil {
		t.Fatal(err)
	}
	a.begin(projects[0])
	for name, c := range map[string]struct {
		text string
		adds string // what there is one more of; "" for nothing
		says string
	}{
		"a box":            {box, "box", ""},
		"a bundle":         {bundle, "box", ""},
		"orders":           {"name,box,count\nWren," + string(projects[0].Name) + ",2\n", "batch", ""},
		"a logbook":        {"\ufeffDate;Box;Count;Fit\n2026-11-02;Jar box;2;right\n", "making", ""},
		"things":           {"name,shape,count,length,width,height\nQuince jar,cylinder,1,70 mm,70 mm,80 mm\n", "box", ""},
		"pieces":           {"name,width,height,count\nFloor,120 mm,90 mm,4\n", "cutlist", ""},
		"a backup":         {string(database), "copies", ""},
		"cards":            {"title,caliper\nMoss linen,0.31 mm\n", "", ""},
		"a damaged backup": {string(database[:len(database)/2]), "", "looks like a backup, but it is damaged"},
		"a foreign one": {"SQLite format 3\x00" + strings.Repeat("x", 5000), "",
			"looks like a backup, but it is damaged or isn't a backup"},
		"a cut-off bundle":  {bundle[:len(bundle)/2], "", "Nothing was added"},
		"a cut-off box":     {box[:len(box)/2], "", "Nothing was added"},
		"a picture":         {"\x89PNG\r\n\x1a\n" + strings.Repeat("\x00", 99), "", "Nothing was added"},
		"nothing":           {"", "", "No file was chosen"},
		"orders of nothing": {"name,box,count\n", "", "no orders"},
		"orders of no box":  {"name,box,count\nWren,Jar box,2\n", "", "none of your boxes is called “Jar box”"},
	} {
		before := a.everything()
		w := a.send("/projects/upload", "document", c.text)
		page := a.get("/").Body.String()
		was := before[c.adds]
		if now := a.everything(); c.adds != "" && now[c.adds] != was+1 {
			t.Errorf("%s: of %s there are %d, there were %d; %d %s", name, c.adds, now[c.adds], was, w.Code, alert(w))
		} else if c.adds == "" && !same(before, now) {
			t.Errorf("%s: %v, before %v", name, now, before)
		}
		if c.says != "" && (w.Code < 400 || w.Code >= 500 || !strings.Contains(alert(w), c.says)) {
			t.Errorf("%s: %d %s", name, w.Code, alert(w))
		}
		if c.says == "" && w.Code >= 400 {
			t.Errorf("%s: %d %s", name, w.Code, alert(w))
		}
		back := regexp.MustCompile(`action="(/arrivals/\w+/back)"`).FindStringSubmatch(page)
		if taken := c.adds != "" && c.adds != "copies"; taken != (back != nil) || taken && !strings.Contains(page, "x.json") {
			t.Errorf("%s can be taken back: %v", name, back)
			continue
		} else if taken {
			at(t, a.post(back[1]))
			if now := a.everything(); !same(before, now) {
				t.Errorf("%s, taken back: %v, before %v", name, now, before)
			}
		}
	}
	if page := a.get("/shop?part=cards").Body.String(); !strings.Contains(page, "Moss linen") || !holds(page, "Added cards from a list") {
		t.Error("the cards of a list can't be taken back")
	}
}

func same(a, b map[string]int) bool {
	for k, n := range a {
		if b[k] != n {
			return false
		}
	}
	return true
}

// A list is told by its headings, in whatever order and letters they stand and however many of them; what was changed
// since it came in is one's own and stays.
func TestListsAreToldApart(t *testing.T) {
	a := newApp(t)
	must := map[string]string{"orders": "box", "cards": "title", "pieces": "width", "things": "name"}
	r := rand.New(rand.NewPCG(30, 1))
	for kind, columns := range map[string][]string{"orders": batch.Columns, "cards": shop.Columns, "pieces": cutlist.Columns,
		"things": contents.Columns, "logbook": record.Columns} {
		for range 50 {
			heads := slices.Clone(columns)
			r.Shuffle(len(heads), func(i, j int) { heads[i], heads[j] = heads[j], heads[i] })
			by := []string{",", ";", ", "}[r.IntN(3)]
			if by == ";" && len(heads) < 2 || must[kind] != "" && !slices.Contains(heads, must[kind]) {
				continue
			}
			text := strings.Join(heads, by) + "\nx\n"
			if r.IntN(2) == 0 {
				text = strings.ToUpper(text)
			}
			if got := a.server.kindOf([]byte(text)); got.kind != kind {
				t.Errorf("%q is %s, want %s", text, got.kind, kind)
			}
		}
	}
	w := a.send("/projects/upload", "document", `name,shape,count,length,width,height`+"\nJar,cylinder,1,70 mm,70 mm,80 mm\n")
	box := regexp.MustCompile(`/projects/(\w+)`).FindStringSubmatch(w.Header().Get("Location"))
	if box == nil {
		t.Fatal(w.Code, w.Body)
	}
	a.post("/projects/"+box[1]+"/change", "name", "Her own", "base", a.headID(box[1]))
	back := regexp.MustCompile(`action="(/arrivals/\w+/back)"`).FindStringSubmatch(a.get("/").Body.String())
	if w := a.post(back[1]); w.Header().Get("Location") != "/?said=took-none" || string(a.head(box[1]).Doc.Name) != "Her own" {
		t.Error(w.Code, w.Header())
	}
	if w := a.post(back[1]); w.Code != http.StatusNotFound {
		t.Errorf("taken back twice: %d", w.Code)
	}
}

// Whatever a file begins with, some room takes it in and says what it takes.
func FuzzKindOf(f *testing.F) {
	s := newApp(f).server
	for _, text := range []string{"{", "PK\x03\x04", "SQLite format 3\x00", "name,box\n", "\ufeffTitle;Caliper\n", "\"", ""} {
		f.Add([]byte(text))
	}
	f.Fuzz(func(t *testing.T, begins []byte) {
		k := s.kindOf(begins)
		if k.do == nil || k.field == "" || (k.kind == "backup") != bytes.HasPrefix(begins, []byte("SQLite format 3\x00")) {
			t.Errorf("%q: %+v", begins, k)
		}
	})
}
