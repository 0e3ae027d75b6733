package web

import (
	"bytes"
	"encoding/json"
	"fmt"
	"html"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"mime/multipart"
	"net/http"
	"net/http/httptest"
	"regexp"
	"slices"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/record"
	"brevium/demo"
	"brevium/store"
)

// files posts several files in one form, with other fields.
func (a *app) files(path, field string, all map[string][]byte, pairs ...string) *httptest.ResponseRecorder {
	var body bytes.Buffer
	m := multipart.NewWriter(&body)
	for i := 0; i+1 < len(pairs); i += 2 {
		m.WriteField(pairs[i], pairs[i+1])
	}
	for name, data := range all {
		part, _ := m.CreateFormFile(field, name)
		part.Write(data)
	}
	m.Close()
	r := httptest.NewRequest("POST", path, &body)
	r.Header.Set("Content-Type", m.FormDataContentType())
	return a.do(r)
}

// at is where an answer sends the browser, which must be somewhere.
func at(t *testing.T, w *httptest.ResponseRecorder) string {
	t.Helper()
	if w.Code != http.StatusSeeOther {
		t.Fatalf("%d %s", w.Code, text(w))
	}
	return w.Header().Get("Location")
}

var marks = regexp.MustCompile(`<[^>]*>|\s+`)

func text(w *httptest.ResponseRecorder) string {
	plain := html.UnescapeString(strings.Join(strings.Fields(marks.ReplaceAllString(w.Body.String(), " ")), " "))
	return strings.NewReplacer(" ,", ",", " .", ".", " :", ":").Replace(plain)
}

func (a *app) sees(path string, all ...string) string {
	a.t.Helper()
	w := a.get(path)
	got := text(w)
	for _, want := range all {
		if w.Code != http.StatusOK || !strings.Contains(got, want) {
			a.t.Errorf("%s (%d) does not say %q: %s", path, w.Code, want, got)
		}
	}
	return got
}

func picture(w, h int) []byte {
	m := image.NewNRGBA(image.Rect(0, 0, w, h))
	for i := range w * h {
		m.Set(i%w, i/w, color.NRGBA{uint8(i), 90, 40, 255})
	}
	var b bytes.Buffer
	jpeg.Encode(&b, m, nil)
	return b.Bytes()
}

// A box is made and written down: its document stays what it was, its lid's fit goes to the shop, it
// is found again, and made again.
func TestMaking(t *testing.T) {
	a := newApp(t)
	projects, err := demo.Projects()
	if err != nil {
		t.Fatal(err)
	}
	tin := slices.IndexFunc(projects, func(b brief.Brief) bool { return b.Name == "Round tea tin" })
	id := a.begin(projects[tin])
	path := "/projects/" + id
	a.sees(path+"?stage=record", "I made it", "Not yet.")
	fits := len(a.shop().Fits)
	for _, bad := range []string{"count=0", "count=1.5", "count=many", "made=2027-02-30", "minutes=-3", "fit=odd",
		"gap=wide"} {
		name, value, _ := strings.Cut(bad, "=")
		fields := map[string]string{"made": "2026-11-20", "count": "2"}
		fields[name] = value
		pairs := []string{}
		for k, v := range fields {
			pairs = append(pairs, k, v)
		}
		pairs = append(pairs, "for", "Wren & Tilly", "change", "a groove wider <b>")
		w := a.post(path+"/makings?stage=record", pairs...)
		said := w.Body.String()
		for _, want := range []string{"This was not saved", `value="Wren &amp; Tilly"`, ">a groove wider &lt;b&gt;</textarea>"} {
			if w.Code != http.StatusUnprocessableEntity || !strings.Contains(said, want) {
				t.Errorf("%s: %d, without %q: %s", bad, w.Code, want, text(w))
			}
		}
	}
	if _, all, _ := a.store.Log.Page(t.Context(), store.Look{}, 0); all != 0 || len(a.shop().Fits) != fits {
		t.Fatal("something bad was kept")
	}
	press := func() string {
		return at(t, a.post(path+"/makings", "key", "k1", "made", "2026-11-20", "count", "3", "for", "Wren", "fit", "right",
			"minutes", "95",
			"change", "a groove wider <b>"))
	}
	where := press()
	if again := press(); !strings.HasPrefix(again, "/logbook") || len(a.shop().Fits) != fits+1 {
		t.Errorf("pressed twice it is kept twice: %s, %d fits", again, len(a.shop().Fits))
	}
	a.sees(where, "Made 20 Nov 2026: 3 for Wren, with round tea tin", "just right", "1 h 35 min", "hasn't changed since",
		"Saved in the logbook")
	a.post(path+"/change", "base", fmt.Sprint(a.head(id).ID), "card.stock", "kraft-300", "was.card.stock", "duplex-350")
	making, _, _ := strings.Cut(where, "?")
	a.sees(making, "What has changed in the box since", "Kraft")
	again, _, _ := strings.Cut(at(t, a.post(making+"/again")), "?")
	b := a.head(strings.TrimPrefix(again, "/projects/")).Doc
	if b.Card.Stock != "duplex-350" || b.Name != "Round tea tin, as on 20 Nov 2026" {
		t.Errorf("made again of %s", b.Card.Stock)
	}
	// Two windows: what each changed stands, what both changed is told, and what it was made by stays.
	base := a.base(making)
	a.post(making+"/change", "base", base, "for", "Linden", "was.for", "Wren")
	w := a.post(making+"/change", "base", base, "for", "Sorrel", "was.for", "Wren", "notes", "typed later", "count", "a few")
	if got := text(w); !strings.Contains(got, "“for whom, or what” was changed in another window too") ||
		!strings.Contains(w.Body.String(), "typed later") || !strings.Contains(got, "\"a few\" isn't a number of boxes") {
		t.Errorf("%d %s", w.Code, got)
	}
	a.sees(making, "3 for Linden")
	a.acts(making, "count", "3")
	a.undoes(making, "How many 3")
	a.acts(making, "count", "3")
	was := a.get(making + "/picture.svg").Body.String()
	a.acts("/shop", "cards.@duplex-350.caliper", "0.9 mm")
	if is := a.get(making + "/picture.svg").Body.String(); is != was || !strings.Contains(is, "<svg") {
		t.Error("what the shop says now changes how a making looks")
	}
	a.sees("/logbook?q=what+fitted+an+85+mm+tin+last+time%3F", "Last time, 20 Nov 2026", "inside", "for Linden", "about 85 mm")
	a.sees("/logbook?q=40+mm+tin", "Nothing found")
	a.sees("/logbook?card=duplex-350", "Made of Duplex, moss")
	a.sees("/logbook?from=yesterday", "isn't a day")
	a.sees("/logbook/years", "2026 3 1")
	at(t, a.post(making+"/away"))
	a.sees("/logbook", "The logbook is empty")
	a.sees(making, "You deleted")
	at(t, a.post(making+"/back"))
	if w := a.get("/makings/99"); w.Code != http.StatusNotFound || !strings.Contains(text(w), "entry doesn't exist") {
		t.Errorf("%d %s", w.Code, text(w))
	}
}

// Photos come in whole or not at all.
func TestPhotosOfMaking(t *testing.T) {
	a := newApp(t)
	ids, err := a.store.Log.Record(t.Context(), record.Making{Made: "2026-11-20", Count: 1, Box: "Tin"})
	if err != nil {
		t.Fatal(err)
	}
	path := "/makings/" + ids[0]
	var flat bytes.Buffer
	png.Encode(&flat, image.NewGray(image.Rect(0, 0, 30, 20)))
	at(t, a.files(path+"/photos", "photo", map[string][]byte{"a.jpg": picture(900, 600), "b.png": flat.Bytes()}))
	page := a.get(path).Body.String()
	found := regexp.MustCompile(`/photos/([a-z0-9]+)\?small=1`).FindAllStringSubmatch(page, -1)
	if len(found) != 2 {
		t.Fatalf("%d photos: %s", len(found), page)
	}
	w := a.get("/photos/" + found[0][1])
	if m, kind, err := image.Decode(w.Body); err != nil || kind != "jpeg" || m.Bounds().Dx() > 1600 ||
		w.Header().Get("X-Content-Type-Options") != "nosniff" {
		t.Error(kind, err, w.Header())
	}
	for says, files := range map[string]map[string][]byte{
		"isn't a JPEG or PNG": {"a.jpg": picture(30, 20), "x.jpg": []byte("<svg onload=alert(1)>")},
		"No picture":          {},
		"up to 12 photos": func() map[string][]byte {
			out := map[string][]byte{}
			for n := range 11 {
				out[fmt.Sprint(n)] = flat.Bytes()
			}
			return out
		}(),
	} {
		if w := a.files(path+"/photos", "photo", files); w.Code < 400 || w.Code >= 500 || !strings.Contains(text(w), says) {
			t.Errorf("%s: %d %s", says, w.Code, text(w))
		}
	}
	if all, _ := a.store.Log.Photos(t.Context(), ids[0]); len(all) != 2 {
		t.Errorf("%d photos are kept", len(all))
	}
	at(t, a.post("/photos/"+found[0][1], "says", `the "lid" off`))
	if page := a.get(path).Body.String(); !strings.Contains(page, `alt="the &#34;lid&#34; off"`) {
		t.Error("what is to be seen is not told")
	}
	at(t, a.post("/photos/"+found[0][1], "act", "remove"))
	if w := a.get("/photos/" + found[0][1]); w.Code != http.StatusNotFound {
		t.Errorf("%d", w.Code)
	}
}

// The logbook comes in whole or not at all, and goes out as CSV and JSON.
func TestLogbookLists(t *testing.T) {
	a := newApp(t)
	list := "date,box,count,for,fit,card\n2025-03-01,Votive tube,4,Wren,right,\"Kraft, 300 gsm\"\n2026-04-02,Seed tray,10,=1+1,,\n"
	if w := a.send("/logbook/in", "log", list+"2026-02-30,Seed tray,1,,,\n"); w.Code != http.StatusUnprocessableEntity ||
		!strings.Contains(text(w), "Nothing was added: line 4") {
		t.Errorf("%d %s", w.Code, text(w))
	}
	if _, all, _ := a.store.Log.Page(t.Context(), store.Look{}, 0); all != 0 {
		t.Fatal("half of a list came in")
	}
	if w := a.send("/logbook/in", "log", list); w.Code != http.StatusOK || !strings.Contains(text(w),
		"Added 2 logbook entries") {
		t.Fatal(w.Code, text(w))
	}
	again := a.send("/logbook/in", "log", list+"2026-04-03,Seed tray,1,,,\n")
	if !strings.Contains(text(again), "Added 1 logbook entry. 2 were already there") {
		t.Error(text(again))
	}
	csv := a.get("/logbook/out/csv?whom=Wren").Body.String()
	if !strings.Contains(csv, "Votive tube,4,Wren") || strings.Contains(csv, "Seed tray") {
		t.Error(csv)
	}
	if all := a.get("/logbook/out/csv").Body.String(); !strings.Contains(all, "'=1+1") {
		t.Errorf("a spreadsheet would reckon this: %s", all)
	}
	var out struct{ Makings []record.Making }
	if err := json.Unmarshal(a.get("/logbook/out/json").Body.Bytes(), &out); err != nil || len(out.Makings) != 3 {
		t.Error(err, out)
	}
	if w := a.get("/logbook/out/exe"); w.Code != http.StatusNotFound {
		t.Errorf("%d", w.Code)
	}
	one := regexp.MustCompile(`/makings/[a-z0-9]+`).FindString(a.get("/logbook").Body.String())
	a.sees(one, "This entry came from a list")
	if w := a.post(one + "/again"); w.Code != http.StatusConflict {
		t.Errorf("%d", w.Code)
	}
}

// The same for other contents: what goes in is swapped, all is reckoned anew and what changed is said.
func TestOther(t *testing.T) {
	a := newApp(t)
	projects, _ := demo.Projects()
	id := a.begin(projects[0])
	a.sees("/projects/"+id+"/other", "Same box, other contents", "round tea tin")
	where := at(t, a.post("/projects/"+id+"/other", "thing", "round tea tin", "count", "2"))
	got := a.sees(where, "What is different", "Inside", "Seed packet sampler for round tea tin", "2 × 12")
	fresh, _, _ := strings.Cut(strings.TrimPrefix(where, "/projects/"), "/")
	b, of := a.head(fresh).Doc, projects[0]
	if len(b.Contents) != 1 || b.Contents[0].Count != "2" || b.Box.Style != of.Box.Style || b.Card.Stock != of.Card.Stock ||
		!strings.Contains(got, "thing") && !strings.Contains(got, "Diameter") {
		t.Errorf("%+v", b)
	}
	// Compartments that were for round things give way to what is flat.
	tin := a.begin(projects[slices.IndexFunc(projects, func(b brief.Brief) bool { return b.Name == "Round tea tin" })])
	a.sees(at(t, a.post("/projects/"+tin+"/other", "thing", "seed packet", "count", "4")), "Checks all passed all passed",
		"What goes in round tea tin seed packet")
	at(t, a.post("/projects/"+id+"/other", "name", "ring", "length", "30 mm", "width", "1 1/4 in", "height", "12 mm"))
	for says, pairs := range map[string][]string{"Choose one": {}, "whole number": {"thing", "round tea tin", "count", "some"},
		"width": {"length", "30 mm"}, "is not a length": {"length", "thirty", "width", "1 in", "height", "1 in"}} {
		if w := a.post("/projects/"+id+"/other", pairs...); w.Code != http.StatusUnprocessableEntity ||
			!strings.Contains(strings.ToLower(text(w)),
				strings.ToLower(says)) {
			t.Errorf("%s: %d %s", says, w.Code, text(w))
		}
	}
	set := a.begin(projects[slices.IndexFunc(projects, func(b brief.Brief) bool { return b.IsSet() })])
	a.sees("/projects/"+set+"/other", "has its own things")
}

// Folders and several boxes at once, from the first page.
func TestSeveral(t *testing.T) {
	a := newApp(t)
	projects, _ := demo.Projects()
	ids := []string{a.begin(projects[0]), a.begin(projects[1]), a.begin(projects[2])}
	act := func(act string, pairs ...string) string {
		t.Helper()
		v := append([]string{"act", act}, pairs...)
		r := httptest.NewRequest("POST", "/boxes", strings.NewReader(ticked(v, ids[:2])))
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		return at(t, a.do(r))
	}
	act("folder", "into", "Autumn fair", "back", "/?sort=name")
	a.sees("/?folder=Autumn+fair", "Seed packet sampler", "Beeswax votives", "2 boxes")
	if got := a.get("/?folder=Autumn+fair").Body.String(); strings.Contains(got, "Plant marker") {
		t.Error("what is not in the folder is shown there")
	}
	if back := act("starting", "back", "//elsewhere.example/x"); strings.Contains(back, "elsewhere") {
		t.Errorf("sent to %s", back)
	}
	a.sees("/?show=starting", "2 boxes")
	act("by")
	a.sees("/?show=by", "2 boxes")
	a.sees("/", "1 box")
	act("up")
	if to := act("batch"); !strings.HasPrefix(to, "/batches/") {
		t.Error(to)
	}
	if to := act("fair"); !strings.HasPrefix(to, "/fair?p=") {
		t.Error(to)
	}
	act("out", "back", "/?folder=Autumn+fair")
	a.sees("/?folder=Autumn+fair", "This folder is empty")
	if w := a.post("/boxes", "act", "bin"); at(t, w) != "/?said=none" {
		t.Error(w.Header())
	}
	act("folder", "into", "Presents")
	// The page of a folder shows boxes as they were, to whoever has the link.
	at(t, a.post("/folders/share", "folder", "Presents"))
	link := regexp.MustCompile(`/c/[a-z2-7]+`).FindString(a.get("/?folder=Presents").Body.String())
	a.sees(link, "Presents", "Seed packet sampler", "Beeswax votives")
	a.sees(link+"/1", "Step by step", "Save the box")
	if w := a.get(link + "/1/card.svg"); w.Code != http.StatusOK || w.Header().Get("Content-Type") != "image/svg+xml" {
		t.Errorf("%d", w.Code)
	}
	if w := a.get(link + "/3"); w.Code != http.StatusNotFound {
		t.Errorf("%d", w.Code)
	}
	at(t, a.post("/folders/rename", "folder", "Presents", "name", "For Wren"))
	at(t, a.post("/folders/share", "folder", "For Wren"))
	link = regexp.MustCompile(`/c/[a-z2-7]+`).FindString(a.get("/?folder=For+Wren").Body.String())
	at(t, a.post("/folders/unshare", "folder", "For Wren"))
	if w := a.get(link + "/1"); w.Code != http.StatusGone {
		t.Errorf("a link that was withdrawn: %d", w.Code)
	}
	act("bin")
	a.sees("/bin", "Seed packet sampler")
	a.sees("/projects/"+ids[2]+"?stage=record", "Folders", "Start new boxes from this")
	at(t, a.post("/projects/"+ids[2]+"/folder", "into", "Herbs"))
	a.sees("/projects/"+ids[2]+"?stage=record", "Herbs")
}

// ticked writes fields with several boxes ticked.
func ticked(pairs, ids []string) string {
	var out []string
	for i := 0; i+1 < len(pairs); i += 2 {
		out = append(out, pairs[i]+"="+strings.NewReplacer(" ", "+", "&", "%26", "=", "%3D", "?", "%3F").Replace(pairs[i+1]))
	}
	for _, id := range ids {
		out = append(out, "p="+id)
	}
	return strings.Join(out, "&")
}
