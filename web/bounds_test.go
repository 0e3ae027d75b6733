package web

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/binary"
	"flag"
	"fmt"
	"hash/crc32"
	"image"
	"image/png"
	"io"
	"net/http"
	"net/http/httptest"
	"os"
	"strings"
	"testing"
	"time"

	"brevium/bundle"
	"brevium/core/batch"
	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/cutlist"
	"brevium/core/record"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/photo"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/people"
	"brevium/web/supplies"
)

var rewrite = flag.Bool("rewrite", false, "write docs/bounds.md again")

// bound is something that is taken in, how much of it up to, and what bounds the work that it makes. Hostile makes
// too much of it; says is what it is refused with, with a code of 400 and more.
type bound struct {
	what, at, most, work string
	hostile              func(h *hostile) *httptest.ResponseRecorder
	says                 string
}

// bounds is everything that is taken in; docs/bounds.md is written of it.
var bounds = []bound{
	{"a form", "every address", "512 kB; of a batch, or of a list, 9 MB", "only known fields are read",
		func(h *hostile) *httptest.ResponseRecorder { return h.endless(h.box+"/change", form) }, "too much at once"},
	{"a form with a file", "/copies/restore, /projects/upload and others", "9 MB", "it is never held in memory whole",
		func(h *hostile) *httptest.ResponseRecorder { return h.endless("/copies/restore", form) }, "too much at once"},
	{"a file", "addresses that accept one", "as their route says", "a large one is kept on the disk, not in memory",
		func(h *hostile) *httptest.ResponseRecorder {
			return h.endless(h.making+"/photos", `multipart/form-data; boundary=x`)
		}, "too much at once"},
	{"a box's document", "/projects/upload", size(brief.Limit), fmt.Sprintf("%d kinds of things; what is planned: %d of a kind, %d "+
		"things, %d copies, %d pieces; searches beside a plan count what they build", contents.MostKinds, contents.MostThings,
		contents.MostInAll, request.MostCopies, request.MostPieces),
		func(h *hostile) *httptest.ResponseRecorder {
			return h.a.send("/projects/upload", "document", strings.Repeat(" ", brief.Limit+1))
		}, "Nothing was added"},
	{"things in a box", "changes of a box", fmt.Sprint(contents.MostInAll), "too many are refused with a message, and not planned",
		func(h *hostile) *httptest.ResponseRecorder {
			return h.told(h.a.post(h.box+"/change?stage=contents", "contents.0.count", "99999"))
		}, "too many"},
	{"the shop", "/shop", size(shop.Limit), fmt.Sprintf("%d cards, %d offcuts, %d fits", shop.MostCards, shop.MostOffcuts, shop.MostFits),
		func(h *hostile) *httptest.ResponseRecorder {
			return h.a.send("/shop/cards", "list", "title,gsm\n"+lines(shop.MostCards+9, "Card %d,200\n"))
		}, "Nothing was added"},
	{"a batch", "/batches", size(batch.Limit), fmt.Sprintf("%d orders, %d boxes; each box is planned once, in a place, until its "+
		"reader leaves", batch.MostOrders, batch.MostBoxes),
		func(h *hostile) *httptest.ResponseRecorder {
			return h.a.send("/batches", "list", "box,count\n"+lines(batch.MostOrders+1, "New box,%d\n"))
		}, "The order list was not added"},
	{"a list of pieces", "/cut", size(cutlist.Limit), fmt.Sprintf("%d lines, %d pieces; a search has a fixed number of looks, in a place",
		cutlist.MostLines, cutlist.MostPieces),
		func(h *hostile) *httptest.ResponseRecorder {
			return h.told(h.a.send(h.list+"/csv", "list", "name,width,height,count\n"+lines(cutlist.MostLines+1, "p%d,10 mm,10 mm,1\n")))
		}, "The list was not added"},
	{"boxes cut together", "/fair", fmt.Sprint(supplies.MostTogether), fmt.Sprintf("%d pieces", request.MostPieces),
		func(h *hostile) *httptest.ResponseRecorder {
			return h.a.get("/fair?x=1" + lines(supplies.MostTogether+1, "&p=%d"))
		}, "up to"},
	{"a list as CSV", "things, cards, orders, pieces", "512 kB; of orders 1 MB", "as many lines as the document may hold",
		func(h *hostile) *httptest.ResponseRecorder {
			return h.a.send(h.box+"/things", "list", "name,count\n"+strings.Repeat("thing,1\n", 100_000))
		}, "too much at once"},
	{"a logbook as CSV", "/logbook/in", "9 MB", fmt.Sprintf("%d lines", record.MostLines),
		func(h *hostile) *httptest.ResponseRecorder {
			return h.a.send("/logbook/in", "log", "date,box\n"+lines(record.MostLines+1, "2026-01-01,Box %d\n"))
		}, "Nothing was added"},
	{"a bundle", "/projects/upload", size(bundle.MostBytes), fmt.Sprintf("%d files, %d boxes, %d makings; in a place, until its reader "+
		"leaves", bundle.MostFiles, bundle.MostBoxes, bundle.MostMakings),
		func(h *hostile) *httptest.ResponseRecorder {
			return h.a.send("/projects/upload", "document", h.bundle(0, bundle.MostMakings+1, 1))
		}, "logbook entries; the most is"},
	{"pictures of a bundle", "/projects/upload", fmt.Sprintf("%d million pixels, %s as they are kept", bundle.MostPixels/1_000_000,
		size(bundle.MostKept)), "each is read once, by its content, and none until all are known to be few enough",
		func(h *hostile) *httptest.ResponseRecorder {
			return h.a.send("/projects/upload", "document", h.bundle(60, 60, 1))
		}, "million pixels in all. Save the boxes as two files"},
	{"photos", "/makings/:id/photos", size(photo.MostBytes) + " each, 120 MB together", fmt.Sprintf("%d of a making, %d million "+
		"pixels each, %d a side; in a place, until their reader leaves", store.MostPhotos, photo.MostPixels/1_000_000, photo.MostSide),
		func(h *hostile) *httptest.ResponseRecorder {
			return h.a.files(h.making+"/photos", "photo", map[string][]byte{"a.png": pngHead(1, 60_000, 0)})
		}, "no side may be longer"},
	{"a copy", "/copies/restore", "8 GB, on the disk", "it is checked whole, must match our tables exactly, and only its rows are copied",
		func(h *hostile) *httptest.ResponseRecorder {
			return h.a.files("/copies/restore", "copy", map[string][]byte{"x.db": bytes.Repeat([]byte("x"), 1<<20)}, "sure", "yes")
		}, "Nothing was restored"},
	{"a passphrase", "/enter", fmt.Sprintf("%d at once and one every 10 s from an address", people.TriesOne), "one at a time from an " +
		"address, in places of their own", func(h *hostile) *httptest.ResponseRecorder {
		out := &person{app: guarded(h.a.t.(*testing.T)), from: "192.0.2.7"}
		for range people.TriesOne {
			out.ask("POST", "/enter", "who", "Ash", "passphrase", "x")
		}
		return out.ask("POST", "/enter", "who", "Ash", "passphrase", "x")
	}, "Too many tries"},
	{"lines of a list", "/lines", fmt.Sprint(store.PerPage), "in a place, until its reader leaves",
		func(h *hostile) *httptest.ResponseRecorder {
			w := h.a.get("/lines?p=" + h.id + strings.Repeat("&p="+h.id, 4*store.PerPage))
			if n := strings.Count(w.Body.String(), "line-"); n > store.PerPage {
				w.Body.WriteString(fmt.Sprint(n, " lines"))
			} else {
				w.Body.WriteString("no more than fit a page")
			}
			return h.told(w)
		}, "no more than fit a page"},
}

const form = "application/x-www-form-urlencoded"

// size writes bytes for people.
func size(bytes int) string {
	if bytes >= 1<<20 {
		return fmt.Sprintf("%d MB", bytes>>20)
	}
	return fmt.Sprintf("%d kB", bytes>>10)
}

// lines are so many, each with its number.
func lines(many int, of string) string {
	var out strings.Builder
	for i := range many {
		fmt.Fprintf(&out, of, i+1)
	}
	return out.String()
}

// hostile asks for too much.
type hostile struct {
	a                     *app
	id, box, list, making string
	read                  int64
}

// told counts a page that tells as a refusal.
func (h *hostile) told(w *httptest.ResponseRecorder) *httptest.ResponseRecorder {
	w.Code = max(w.Code, http.StatusUnprocessableEntity)
	return w
}

// endless sends a gigabyte, and counts how much of it is read.
func (h *hostile) endless(path, kind string) *httptest.ResponseRecorder {
	begin := "notes="
	if kind != form {
		begin = "--x\r\nContent-Disposition: form-data; name=\"photo\"; filename=\"a.jpg\"\r\n\r\n"
	}
	body := io.TeeReader(io.MultiReader(strings.NewReader(begin), io.LimitReader(letters{}, 1<<30)), counting{&h.read})
	r := httptest.NewRequest("POST", path, body)
	r.Header.Set("Content-Type", kind)
	return h.a.do(r)
}

type letters struct{}

func (letters) Read(p []byte) (int, error) {
	for i := range p {
		p[i] = 'x'
	}
	return len(p), nil
}

type counting struct{ n *int64 }

func (c counting) Write(p []byte) (int, error) { *c.n += int64(len(p)); return len(p), nil }

// pngHead is the head of a PNG of so many pixels, told from others by a number, with next to nothing in it.
func pngHead(wide, high, number int) []byte {
	var b bytes.Buffer
	png.Encode(&b, image.NewGray(image.Rect(0, 0, 1, 1)))
	out := b.Bytes()
	binary.BigEndian.PutUint32(out[16:], uint32(wide))
	binary.BigEndian.PutUint32(out[20:], uint32(high))
	binary.BigEndian.PutUint32(out[29:], crc32.ChecksumIEEE(out[12:29]))
	return fmt.Append(out, number)
}

// bundle is a bundle of one box with so many makings of so many photos each, taken in turn of so many pictures.
func (h *hostile) bundle(pictures, makings, photos int) string {
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	put := func(name string, data []byte) {
		f, _ := z.Create(name)
		f.Write(data)
	}
	put("box.json", brief.New("mm").Encode())
	for i := range pictures {
		put(fmt.Sprint("p", i), pngHead(7000, 8000, i))
	}
	var list strings.Builder
	for i := range makings {
		var of []string
		for k := range photos {
			of = append(of, fmt.Sprintf(`{"file": "p%d"}`, (i*photos+k)%max(1, pictures)))
		}
		fmt.Fprintf(&list, `,{"key": "k%d", "box": "b", "count": 1, "date": "2026-01-01", "photos-of-it": [%s]}`, i, strings.Join(of, ","))
	}
	put("bundle.json", fmt.Appendf(nil, `{"brevium-bundle": 1, "boxes": [{"document": "box.json", "makings": [%s]}]}`, list.String()[1:]))
	z.Close()
	return out.String()
}

// Of all that is taken in, too much is refused in words, before it is read to its end, and nothing is changed.
func TestBounds(t *testing.T) {
	a := newApp(t)
	h := &hostile{a: a, id: a.begin(brief.New("mm"))}
	h.box = "/projects/" + h.id
	list, err := a.store.Lists.Create(t.Context(), cutlist.List{}, "new")
	if err != nil {
		t.Fatal(err)
	}
	m := record.Of(brief.New("mm"), a.server.Clock())
	made, err := a.store.Log.Record(t.Context(), m)
	if err != nil {
		t.Fatal(err)
	}
	h.list, h.making = "/cut/"+list, "/makings/"+made[0]
	var doc strings.Builder
	doc.WriteString("# What Brevium accepts\n\nThe most of each input that is accepted, and what limits the work. A *place* is a turn " +
		"at the processor (`web/desk/places.go`).\n`web/bounds_test.go` holds this table, sends too much for each line, and " +
		"writes this page (`go test ./web -run Bounds -rewrite`).\n\n" +
		"| what | where | up to | what bounds the work |\n" +
		"|---|---|---|---|\n")
	for _, b := range bounds {
		h.read = 0
		w := b.hostile(h)
		if w.Code < 400 || !holds(text(w), b.says) && !holds(w.Body.String(), b.says) {
			t.Errorf("%s: %d %.300s", b.what, w.Code, text(w))
		}
		if h.read > 130<<20 || strings.Contains(b.what, "form") && h.read > 10<<20 {
			t.Errorf("%s: %d MB were read", b.what, h.read>>20)
		}
		fmt.Fprintf(&doc, "| %s | %s | %s | %s |\n", b.what, b.at, b.most, b.work)
	}
	if n, err := a.store.Shelf.Count(t.Context(), false); err != nil || n != 1 {
		t.Errorf("%d boxes, %v", n, err)
	}
	const page = "../docs/bounds.md"
	if *rewrite {
		if err := os.WriteFile(page, []byte(doc.String()), 0o644); err != nil {
			t.Fatal(err)
		}
	}
	if now, _ := os.ReadFile(page); string(now) != doc.String() {
		t.Error("docs/bounds.md lists other bounds: write it again with -rewrite")
	}
}

// While every place for heavy work is taken, pages come, changes are kept and people come in.
func TestHeavyWorkKeepsNobodyOut(t *testing.T) {
	a := guarded(t)
	for _, place := range []desk.Place{a.server.Long, a.server.Short} {
		for range cap(place) {
			done, err := place.Take(t.Context())
			if err != nil {
				t.Fatal(err)
			}
			defer done()
		}
	}
	wren := &person{app: a, from: "192.0.2.20"}
	if got := wren.ask("POST", "/enter", "who", "Wren", "passphrase", passphrase); got.Code != http.StatusSeeOther {
		t.Errorf("coming in: %d", got.Code)
	}
	id := a.begin(brief.New("mm"))
	for _, path := range []string{"/", "/projects/" + id, "/shop", "/logbook", "/batches", "/help"} {
		if got := wren.ask("GET", path); got.Code != http.StatusOK {
			t.Errorf("%s: %d", path, got.Code)
		}
	}
	if got := wren.ask("POST", "/projects/"+id+"/change", "notes", "kept"); got.Code >= 400 {
		t.Errorf("a change: %d", got.Code)
	}
	soon, leave := context.WithTimeout(t.Context(), 300*time.Millisecond) // a file waits, until its asker leaves
	defer leave()
	r := httptest.NewRequest("GET", "/projects/"+id+"/out/pdf", nil).WithContext(soon)
	r.AddCookie(wren.cookie)
	if got := wren.do(r); got.Code == http.StatusOK {
		t.Error("a file was written without a place")
	}
}
