package store

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"brevium/core/brief"
	"brevium/core/record"
)

func madeOn(day, box, whom, fit string) record.Making {
	return record.Making{Made: day, Count: 2, Box: box, Whom: whom, Style: "tray-lid", Card: "cover-216",
		Title: "Cover, oat", Fit: fit,
		Sheets: 3, Minutes: 40, Cost: 150}
}

// A making keeps what it was made by, is found by all that it says, and is changed by one at a time.
func TestMakings(t *testing.T) {
	s, ctx := open(t)
	b := named("Votive tube")
	b.Units = "mm"
	b.Contents = []brief.Item{{Name: "beeswax votive", Shape: "cylinder", Diameter: "61", Height: "50", Count: "2"}}
	first := madeOn("2026-03-04", "Votive tube", "Wren", "right")
	first.Document, first.Contents = string(b.Encode()), record.ContentsSaid(b)
	ids, err := s.Log.Record(As(ctx, "Ash"), first, madeOn("2026-05-01", "Seed tray", "Écru & Söhne", "tight"),
		madeOn("2027-01-02", "Seed tray", "", ""))
	if err != nil || len(ids) != 3 {
		t.Fatal(ids, err)
	}
	for _, c := range []struct {
		look Look
		want []string
	}{
		{Look{}, []string{ids[2], ids[1], ids[0]}},
		{Look{Ask: record.Question("what fitted a 60 mm candle last time?", time.Now())}, nil},
		{Look{Ask: record.Question("what fitted a 60 mm votive last time?", time.Now())}, ids[:1]},
		{Look{Ask: record.Question("votive of 63 mm", time.Now())}, nil},
		{Look{Ask: record.Question("2 3/8 in", time.Now())}, ids[:1]},
		{Look{Ask: record.Question("ecru", time.Now())}, ids[1:2]},
		{Look{Ask: record.Question(`seed "tray' tight`, time.Now())}, ids[1:2]},
		{Look{Whom: "Söhne"}, ids[1:2]}, {Look{Whom: "%"}, nil}, {Look{Fit: "right"}, ids[:1]},
		{Look{Card: "cover-216", From: "2026-05-01", To: "2026-12-31"}, ids[1:2]}, {Look{Style: "sleeve"}, nil},
		{Look{Contents: "votive"}, ids[:1]}, {Look{Project: "x"}, nil},
	} {
		got, all, err := s.Log.Page(ctx, c.look, 0)
		var found []string
		for _, m := range got {
			found = append(found, m.ID)
		}
		if err != nil || all != len(c.want) || !slices.Equal(found, c.want) {
			t.Errorf("%+v: %v (%d) %v, want %v", c.look, found, all, err, c.want)
		}
	}
	m, err := s.Log.Making(ctx, ids[0])
	if err != nil || m.Document != string(b.Encode()) {
		t.Fatal(m, err)
	}
	head, err := s.Makings.Head(ctx, ids[0])
	if err != nil || head.Who != "Ash" {
		t.Fatal(head, err)
	}
	note := head.Doc
	note.Notes, note.Count = "next time a groove wider", "many"
	if _, err := s.Makings.Save(ctx, ids[0], "", Change[record.Note]{Base: head.ID, Doc: note}); err != nil {
		t.Fatal(err)
	}
	if m, _ := s.Log.Making(ctx, ids[0]); m.Count != 2 || m.Notes != "next time a groove wider" || m.Document != string(b.Encode()) {
		t.Errorf("with a count that can't be read it is %+v", m)
	}
	if got, _, _ := s.Log.Page(ctx, Look{Ask: record.Question("groove", time.Now())}, 0); len(got) != 1 {
		t.Error("what was written later is not found")
	}
	totals, err := s.Log.Totals(ctx, Look{})
	if err != nil || len(totals) != 2 || totals[1] != (record.Total{Of: "2026", Makings: 2, Boxes: 4, Sheets: 6,
		Minutes: 80, Cost: 300}) {
		t.Errorf("%+v %v", totals, err)
	}
	if err := s.Makings.Throw(ctx, ids[0], true); err != nil {
		t.Fatal(err)
	}
	if got, all, _ := s.Log.Page(ctx, Look{Ask: record.Question("votive", time.Now())}, 0); len(got)+all != 0 {
		t.Error("what was thrown away is found")
	}
	s.Makings.Throw(ctx, ids[0], false)
	if got, _, _ := s.Log.Page(ctx, Look{Ask: record.Question("votive", time.Now())}, 0); len(got) != 1 {
		t.Error("what was put back is not found")
	}
	// All or none: the second is wrong.
	if _, err := s.Log.Record(ctx, madeOn("2027-02-02", "Ring box", "", ""), madeOn("2027-02-30", "Ring box", "",
		"")); err == nil {
		t.Error("a day that is none was kept")
	}
	if _, all, _ := s.Log.Page(ctx, Look{}, 0); all != 3 {
		t.Errorf("%d makings", all)
	}
	// The same making comes in once.
	if ids, err := s.Log.Record(ctx, m); err != nil || len(ids) != 0 {
		t.Error("a making came in twice", ids, err)
	}
}

func TestPhotos(t *testing.T) {
	s, ctx := open(t)
	ids, _ := s.Log.Record(ctx, madeOn("2026-03-04", "Votive tube", "", ""))
	for n := range MostPhotos + 1 {
		err := s.Log.KeepPhotos(ctx, Photo{Making: ids[0], Width: 4, Height: 3, Data: []byte("jpeg"), Small: []byte("small")})
		if full := n == MostPhotos; errors.Is(err, ErrFull) != full || !full && err != nil {
			t.Fatal(n, err)
		}
	}
	all, err := s.Log.Photos(ctx, ids[0])
	if err != nil || len(all) != MostPhotos {
		t.Fatal(len(all), err)
	}
	if err := errors.Join(s.Log.SayPhoto(ctx, all[0].ID, "with the bow"), s.Log.RemovePhoto(ctx, all[1].ID)); err != nil {
		t.Fatal(err)
	}
	if p, err := s.Log.Photo(ctx, all[0].ID, true); err != nil || p.Says != "with the bow" || string(p.Data) != "small" {
		t.Errorf("%+v %v", p, err)
	}
	if _, err := s.Log.Photo(ctx, all[1].ID, true); !errors.Is(err, ErrNone) {
		t.Error("a photo that was taken out is there")
	}
	if err := s.Log.KeepPhotos(ctx, Photo{Making: "99"}); !errors.Is(err, ErrNone) {
		t.Errorf("a photo of nothing: %v", err)
	}
	if m, _ := s.Log.Making(ctx, ids[0]); m.Photos != MostPhotos-1 {
		t.Errorf("%d photos", m.Photos)
	}
}

func TestFolders(t *testing.T) {
	s, ctx := open(t)
	var ids []string
	for _, name := range []string{"cedar", "Alder", "birch"} {
		id, err := s.Boxes.Create(As(ctx, "Ash"), named(name), "new")
		if err != nil {
			t.Fatal(err)
		}
		ids = append(ids, id)
	}
	if rev, _ := s.Boxes.Head(ctx, ids[0]); rev.Who != "Ash" {
		t.Errorf("made by %q", rev.Who)
	}
	must := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	must(s.Shelf.PutIn(ctx, "  Autumn   fair ", ids...))
	must(s.Shelf.PutIn(ctx, "Wren", ids[0]))
	must(s.Shelf.TakeOut(ctx, "Autumn fair", ids[1]))
	must(s.Shelf.PutBy(ctx, true, ids[2]))
	must(s.Shelf.StartFrom(ctx, true, ids[1]))
	titles := func(w Want) (out []string) {
		l, err := s.Shelf.List(ctx, w, "", 0)
		must(err)
		for _, x := range l.Listed {
			out = append(out, x.Title)
		}
		return out
	}
	for _, c := range []struct {
		want  Want
		shown string
	}{
		{Want{}, "Alder cedar"}, {Want{Sort: "name"}, "Alder cedar"}, {Want{Sort: "old"}, "cedar Alder"}, {Want{Sort: "new"},
			"Alder cedar"},
		{Want{Folder: "Autumn fair"}, "cedar"}, {Want{Archived: true}, "birch"}, {Want{Starting: true}, "Alder"},
		{Want{Folder: "Autumn fair", Archived: true}, "birch"}, {Want{Sort: "; DROP TABLE projects"}, "Alder cedar"},
	} {
		if got := strings.Join(titles(c.want), " "); got != c.shown {
			t.Errorf("%+v: %s, want %s", c.want, got, c.shown)
		}
	}
	if got, _ := s.Shelf.Folders(ctx); !slices.Equal(got, []Folder{{"Autumn fair", 1}, {"Wren", 1}}) {
		t.Errorf("%v", got)
	}
	must(s.Shelf.RenameFolder(ctx, "Wren", "Autumn fair"))
	if got, _ := s.Shelf.FoldersOf(ctx, ids[0]); !slices.Equal(got, []string{"Autumn fair"}) {
		t.Errorf("%v", got)
	}
	must(s.Shelf.PutBy(ctx, false, ids[2]))
	if got, _ := s.Shelf.InFolder(ctx, "Autumn fair"); len(got) != 2 {
		t.Errorf("%v", got)
	}
	if by, starting, err := s.Shelf.Marks(ctx, ids[1]); by || !starting || err != nil {
		t.Error(by, starting, err)
	}
	// All of them or none.
	if err := s.Shelf.ToBin(ctx, ids[0], "none"); !errors.Is(err, ErrNone) || len(titles(Want{})) != 3 {
		t.Errorf("%v %v", err, titles(Want{}))
	}
	for _, name := range []string{"", " \u200b", strings.Repeat("x", 61)} {
		if s.Shelf.PutIn(ctx, name, ids[0]) == nil {
			t.Errorf("a folder is called %q", name)
		}
	}
	token, err := s.Links.ShareFolder(ctx, "Autumn fair", []Share{{Project: ids[0], Document: named("cedar")}, {Project: ids[2],
		Document: named("birch")}})
	must(err)
	again, err := s.Links.ShareFolder(ctx, "Autumn fair", []Share{{Project: ids[0], Document: named("cedar")}})
	must(err)
	c, err := s.Links.Collection(ctx, token)
	if err != nil || again != token || len(c.Boxes) != 1 || c.Boxes[0].Document.Name != "cedar" {
		t.Errorf("%+v %v", c, err)
	}
	must(s.Links.UnshareFolder(ctx, "Autumn fair"))
	if c, err := s.Links.Collection(ctx, token); err != nil || !c.Gone || len(c.Boxes) != 0 {
		t.Errorf("%+v %v", c, err)
	}
	if _, err := s.Links.CollectionOf(ctx, "Autumn fair"); !errors.Is(err, ErrNone) {
		t.Error(err)
	}
}

// A copy is put in place while Brevium runs; one that is damaged, newer or none is refused and
// nothing is touched.
func TestReplace(t *testing.T) {
	file := filepath.Join(t.TempDir(), "x.db")
	s := at(t, file)
	ctx := t.Context()
	s.Boxes.Create(ctx, named("as it was"), "new")
	s.Set(ctx, Passphrase, "old")
	from := filepath.Join(t.TempDir(), "copy.db")
	if err := s.Backup(ctx, from); err != nil {
		t.Fatal(err)
	}
	s.Set(ctx, Passphrase, "new")
	s.Boxes.Create(ctx, named("since"), "new")
	whole, _ := os.ReadFile(from)
	half := filepath.Join(t.TempDir(), "half.db")
	spoilt := slices.Clone(whole)
	for i := 4096 * 3; i < len(spoilt)-4096; i += 97 {
		spoilt[i] ^= 0x55
	}
	for _, bad := range [][]byte{whole[:len(whole)/2], spoilt, []byte("no database"), nil} {
		if err := os.WriteFile(half, bad, 0o600); err != nil {
			t.Fatal(err)
		}
		if _, err := s.Replace(ctx, half); err == nil || !strings.Contains(err.Error(), "nothing was restored") {
			t.Errorf("a damaged copy was put in place: %v", err)
		}
	}
	if n, _ := s.Shelf.Count(ctx, false); n != 2 {
		t.Errorf("%d boxes", n)
	}
	kept, err := s.Replace(ctx, from)
	if err != nil {
		t.Fatal(err)
	}
	if n, _ := s.Shelf.Count(ctx, false); n != 1 {
		t.Errorf("%d boxes after the copy was put in place", n)
	}
	if pass, _ := s.Setting(ctx, Passphrase); pass != "new" {
		t.Errorf("the passphrase is %q", pass)
	}
	if _, err := s.Boxes.Create(ctx, named("goes on"), "new"); err != nil {
		t.Error(err)
	}
	if err := checkCopy(context.Background(), kept); err != nil {
		t.Errorf("what was there is not kept: %v", err)
	}
}

// Once a day a copy, of which the last seven are kept.
func TestDaily(t *testing.T) {
	file := filepath.Join(t.TempDir(), "x[1].db")
	s := at(t, file)
	for n := range 9 {
		os.WriteFile(fmt.Sprintf("%s.daily-2026-01-%02d", file, n+1), nil, 0o600)
	}
	today := file + ".daily-" + time.Now().Format(time.DateOnly)
	for n := range keptDaily + 1 { // made while the clock was wrong
		os.WriteFile(fmt.Sprintf("%s.daily-2091-01-%02d", file, n+1), nil, 0o600)
	}
	os.WriteFile(today+".making", []byte("broken off"), 0o600)
	for n := range 2 {
		made, err := s.Daily(t.Context())
		if err != nil || made != (n == 0) {
			t.Error(made, err)
		}
	}
	all := s.Copies()
	if len(all) != 2*keptDaily {
		t.Fatalf("%+v", all)
	}
	name, err := s.CopyCalled(filepath.Base(today))
	if err != nil || checkCopy(t.Context(), name) != nil {
		t.Error(name, err)
	}
	if _, err := s.CopyCalled("../x[1].db"); !errors.Is(err, ErrNone) {
		t.Error("any file is taken for a copy")
	}
}

// BenchmarkLogbook looks through 50,000 makings of 10,000 boxes.
func BenchmarkLogbook(b *testing.B) {
	file := filepath.Join(b.TempDir(), "x.db")
	s, err := Open(b.Context(), file)
	if err != nil {
		b.Fatal(err)
	}
	defer s.Close()
	var all []record.Making
	things := []string{"votive", "tulip bulb", "tea tin", "honey jar", "seed packet", "thumb pot"}
	for n := range 50_000 {
		box := named(fmt.Sprintf("Box %d", n%10_000))
		box.Contents = []brief.Item{{Name: brief.Text(things[n%6]), Shape: "cylinder",
			Diameter: brief.Text(fmt.Sprintf("%d mm", 20+n%90))}}
		m := madeOn(fmt.Sprintf("20%02d-%02d-%02d", 15+n%12, 1+n%12, 1+n%28), string(box.Name), fmt.Sprintf("Person %d",
			n%900), record.Fits[n%3])
		m.Document, m.Contents = string(box.Encode()), things[n%6]
		if all = append(all, m); len(all) == 5000 {
			if _, err := s.Log.Record(b.Context(), all...); err != nil {
				b.Fatal(err)
			}
			all = all[:0]
		}
	}
	for _, ask := range []string{"", "votive", "what fitted a 60 mm candle", "what fitted a 60 mm votive last time?",
		"person 77", "box tight"} {
		b.Run(ask, func(b *testing.B) {
			look := Look{Ask: record.Question(ask, time.Now())}
			for b.Loop() {
				if _, _, err := s.Log.Page(b.Context(), look, 0); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
	b.Run("totals", func(b *testing.B) {
		for b.Loop() {
			if _, err := s.Log.Totals(b.Context(), Look{}); err != nil {
				b.Fatal(err)
			}
		}
	})
}
