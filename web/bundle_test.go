package web

import (
	"archive/zip"
	"bytes"
	"fmt"
	"net/http"
	"net/http/httptest"
	"os"
	"strings"
	"testing"
	"time"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/record"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/demo"
	"brevium/store"
)

// A bundle is taken in elsewhere with nothing lost; one that is broken, newer or too much changes
// nothing.
func TestBundle(t *testing.T) {
	a, b := newApp(t), newApp(t)
	projects, _ := demo.Projects()
	var ids []string
	for _, n := range []int{0, 5, 27} {
		ids = append(ids, a.begin(projects[n]))
	}
	a.store.Shelf.PutIn(t.Context(), "Autumn fair", ids...)
	a.store.Shelf.PutIn(t.Context(), "Wren", ids[1])
	m := record.Of(projects[5], time.Date(2026, 11, 20, 0, 0, 0, 0, time.UTC))
	m.Project, m.Whom, m.Times = ids[1], "Wren", map[string]float64{"Trim": 12}
	made, _ := a.store.Log.Record(t.Context(), m)
	at(t, a.files("/makings/"+made[0]+"/photos", "photo", map[string][]byte{"a.jpg": picture(90, 60)}, "says",
		"done"))
	w := a.get("/bundle?folder=Autumn+fair&makings=1")
	if w.Code != http.StatusOK || w.Header().Get("Content-Type") != "application/zip" {
		t.Fatal(w.Code, w.Body)
	}
	bundle := w.Body.Bytes()
	z, err := zip.NewReader(bytes.NewReader(bundle), int64(len(bundle)))
	if err != nil {
		t.Fatal(err)
	}
	ends := map[string]int{}
	for _, f := range z.File {
		ends[f.Name[strings.LastIndexByte(f.Name, '.'):]]++
	}
	if ends[".svg"] != 3 || ends[".pdf"] != 3 || ends[".jpg"] != 1 || ends[".json"] != 5 {
		t.Errorf("%v", ends)
	}
	at(t, b.send("/projects/upload", "document", string(bundle)))
	list, err := b.store.Shelf.List(t.Context(), store.Want{Folder: "Autumn fair"}, "", 0)
	if err != nil || list.All != 3 {
		t.Fatal(list.All, err)
	}
	for _, l := range list.Listed {
		was, err := a.store.Shelf.Called(t.Context(), l.Title)
		if err != nil {
			t.Fatal(err)
		}
		if got, want := comes(b.head(l.Project).Doc), comes(was.Doc); got != want {
			t.Errorf("%s plans otherwise: %s, %s", l.Title, got, want)
		}
	}
	got, all, _ := b.store.Log.Page(t.Context(), store.Look{Whom: "Wren"}, 0)
	if all != 1 || got[0].Photos != 1 || got[0].Times["Trim"] != 12 || got[0].Project == ids[1] {
		t.Errorf("%+v", got)
	}
	// Once more: the boxes come again, what was made does not.
	at(t, b.send("/projects/upload", "document", string(bundle)))
	if _, all, _ := b.store.Log.Page(t.Context(), store.Look{}, 0); all != 1 {
		t.Errorf("%d makings", all)
	}
	plain := a.get("/bundle?folder=Autumn+fair").Body.String()
	if strings.Contains(plain, "makings/") || len(plain) >= len(bundle) {
		t.Error("who a box was for is handed on unasked")
	}
	before, _ := b.store.Shelf.Count(t.Context(), false)
	packed := func(files ...string) string {
		var out bytes.Buffer
		z := zip.NewWriter(&out)
		for i := 0; i+1 < len(files); i += 2 {
			f, _ := z.Create(files[i])
			f.Write([]byte(files[i+1]))
		}
		z.Close()
		return out.String()
	}
	doc := string(projects[0].Encode())
	for says, data := range map[string]string{
		"isn't a complete zip file":       string(bundle[:len(bundle)/2]),
		"isn't a complete zip":            "PK not a zip",
		"newer Brevium":                   packed("bundle.json", `{"brevium-bundle": 2, "boxes": [{"document": "x"}]}`),
		"is missing":                      packed("bundle.json", `{"brevium-bundle": 1, "boxes": [{"document": "../../etc/passwd"}]}`),
		"wasn't saved by Brevium":         packed("bundle.json", `{}`),
		"list of contents is damaged":     packed("bundle.json", `{`),
		"no box from Brevium in it":       packed("readme.txt", "hello"),
		"field that Brevium doesn't know": packed("1.brevium.json", doc, "2.brevium.json", `{"brevium": 1, "x": 1}`),
		"too large":                       packed("1.brevium.json", strings.Repeat(" ", brief.Limit+9)),
		"damaged":                         string(spoilt(bundle)),
		"isn't a day": packed("a.json", doc, "bundle.json",
			`{"brevium-bundle": 1, "boxes": [{"document": "a.json", "makings": [{"date": "x"}]}]}`),
		"isn't a JPEG or PNG": packed("a.json", doc, "p", "x", "bundle.json",
			`{"brevium-bundle": 1, "boxes": [{"document": "a.json", "makings": [`+
				`{"key": "n", "box": "b", "count": 1, "date": "2026-01-01", "photos-of-it": [{"file": "p"}]}]}]}`),
		"a folder needs a name": packed("a.json", doc, "bundle.json",
			`{"brevium-bundle": 1, "boxes": [{"document": "a.json", "folders": [" "]}]}`),
	} {
		if w := b.send("/projects/upload", "document", data); w.Code != http.StatusUnprocessableEntity ||
			!strings.Contains(text(w), says) {
			t.Errorf("%s: %d %s", says, w.Code, text(w))
		}
	}
	if after, _ := b.store.Shelf.Count(t.Context(), false); after != before {
		t.Errorf("%d boxes came in with bad bundles", after-before)
	}
	if w := at(t, b.send("/projects/upload", "document", packed("1.brevium.json", doc))); !strings.HasPrefix(w, "/projects/") {
		t.Errorf("a zip of one document leads to %s", w)
	}
}

// spoilt is a zip with bytes of its files changed.
func spoilt(data []byte) []byte {
	out := bytes.Clone(data)
	for i := 200; i < len(out)*3/4; i += 31 {
		out[i] ^= 0xff
	}
	return out
}

// comes tells what comes of a document in the shop that ships.
func comes(b brief.Brief) string {
	if b.IsSet() {
		set := sets.Make(b, request.Default)
		return fmt.Sprint(set.Outside(), set.Sheets())
	}
	p := plan.Make(b, request.Default)
	return fmt.Sprint(p.Box.Outside, p.Box.Inside, len(p.Box.Pieces()), len(p.Layout.Sheets), p.Holds())
}

// A copy is saved and put back from the page; a damaged one is refused and nothing is touched.
func TestCopiesPage(t *testing.T) {
	a := newApp(t)
	projects, _ := demo.Projects()
	a.begin(projects[0])
	copied := a.get("/copies/now").Body.Bytes()
	a.begin(projects[1])
	put := func(data []byte, sure string) *httptest.ResponseRecorder {
		return a.files("/copies/restore", "copy", map[string][]byte{"x.db": data}, "sure", sure)
	}
	for says, w := range map[string]*httptest.ResponseRecorder{"Tick the box first": put(copied, ""),
		"Nothing was restored": put(copied[:9000], "yes"),
		"No backup was chosen": a.post("/copies/restore", "sure", "yes"), "This backup no longer exists": a.post("/copies/restore", "sure",
			"yes", "name", "../web.db")} {
		if w.Code < 400 || w.Code > 499 || !strings.Contains(text(w), says) {
			t.Errorf("%s: %d %s", says, w.Code, text(w))
		}
	}
	if n, _ := a.store.Shelf.Count(t.Context(), false); n != 2 {
		t.Fatalf("%d boxes", n)
	}
	a.sees(at(t, put(copied, "yes")), "The backup is restored", "before a backup was restored")
	if n, _ := a.store.Shelf.Count(t.Context(), false); n != 1 {
		t.Errorf("%d boxes", n)
	}
	kept := a.store.Copies()
	at(t, a.post("/copies/restore", "sure", "yes", "name", kept[0].Name))
	if n, _ := a.store.Shelf.Count(t.Context(), false); n != 2 {
		t.Errorf("%d boxes", n)
	}
	if w := a.get("/copies/file/" + kept[0].Name); w.Code != http.StatusOK || !bytes.HasPrefix(w.Body.Bytes(),
		[]byte("SQLite format 3")) {
		t.Errorf("%d", w.Code)
	}
	if w := a.get("/copies/file/..%2Fweb.db"); w.Code != http.StatusNotFound {
		t.Errorf("%d", w.Code)
	}
	if _, err := os.Stat(a.file); err != nil {
		t.Error(err)
	}
}

// A picture that a bundle lists thousands of times is read once; who leaves takes the work along.
func TestPictureListedAgainAndAgain(t *testing.T) {
	a := newApp(t)
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	for name, data := range map[string][]byte{"box.json": brief.New("mm").Encode(), "p": picture(1600, 1200)} {
		f, _ := z.Create(name)
		f.Write(data)
	}
	var list strings.Builder
	for i := range 400 {
		fmt.Fprintf(&list, `,{"key": "k%d", "box": "b", "count": 1, "date": "2026-01-01", "photos-of-it": [%s]}`, i,
			strings.Repeat(`{"file": "p"},`, store.MostPhotos-1)+`{"file": "p"}`)
	}
	f, _ := z.Create("bundle.json")
	fmt.Fprintf(f, `{"brevium-bundle": 1, "boxes": [{"document": "box.json", "makings": [%s]}]}`, list.String()[1:])
	z.Close()
	if w := a.send("/projects/upload", "document", out.String()); w.Code != http.StatusUnprocessableEntity ||
		!strings.Contains(text(w), "its photos take more than 256 MB in all") {
		t.Errorf("4,800 times one picture: %d %s", w.Code, text(w))
	}
	if n, _ := a.store.Shelf.Count(t.Context(), false); n != 0 {
		t.Error("half a bundle came in")
	}
}

// A box whose sheets are searched deeply waits for the place that the search takes, and for no other: saving it in a bundle
// comes to an end.
func TestBundleOfDeepSearch(t *testing.T) {
	a := newApp(t)
	projects, _ := demo.Projects()
	b := projects[27]
	b.Sheets.Aim, b.Sheets.Look = "card", "deep"
	id := a.begin(b)
	if err := a.store.Shelf.PutIn(t.Context(), "Deep", id); err != nil {
		t.Fatal(err)
	}
	if w := a.get("/bundle?folder=Deep"); w.Code != http.StatusOK || w.Header().Get("Content-Type") != "application/zip" {
		t.Errorf("%d %s", w.Code, text(w))
	}
}
