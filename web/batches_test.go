package web

import (
	"bytes"
	"context"
	"fmt"
	"html"
	"net/http"
	"regexp"
	"strings"
	"testing"
	"time"
	"unicode/utf8"

	ics "github.com/arran4/golang-ical"
	goical "github.com/emersion/go-ical"

	"brevium/core/batch"
	"brevium/core/brief"
	"brevium/demo"
	"brevium/store"
)

// stopped is an application on a day of its own, with a few boxes of the fair.
func stopped(t testing.TB) *app {
	t.Helper()
	a := newApp(t)
	a.server.Clock = func() time.Time { return time.Date(2027, 2, 18, 9, 0, 0, 0, time.UTC) }
	projects, err := demo.Projects()
	if err != nil {
		t.Fatal(err)
	}
	for _, n := range []int{0, 2, 5} {
		a.begin(projects[n])
	}
	return a
}

const ordered = "name,box,count,colours,words,by\nthe seed table,seed packet sampler,12,,,2027-03-06\n" +
	"Wren,Round tea tin,3,,thank you,27 February 2027\nSorrel,Plant marker box,6,Cover,,2027-03-12\n"

func (a *app) batchOf(list string) string {
	a.t.Helper()
	w := a.send("/batches", "list", list)
	if w.Code != http.StatusSeeOther {
		a.t.Fatal(w.Code, text(w))
	}
	return w.Header().Get("Location")
}

// From an order list to sittings, shopping, ticks, labels and the logbook.
func TestBatchPages(t *testing.T) {
	a := stopped(t)
	path := a.batchOf(ordered)
	a.sees(path, "You can finish everything in time", "Start by", "Sat 20 Feb 2027", "the seed table × 12", "Double-sided tape",
		"fewest possible",
		"trimmer settings", "has no tag for the words “thank you”")
	a.sees(path+"/print", "☐ Trim: the seed table × 12", "To buy", "Trimmer settings, in order")
	if csv := a.get(path + "/orders.csv").Body.String(); !strings.Contains(csv,
		"Sorrel,Plant marker box,6,Cover,,2027-03-12") {
		t.Error(csv)
	}
	if csv := a.get(path + "/shopping.csv").Body.String(); !strings.Contains(csv, "12 × 12 in") {
		t.Error(csv)
	}
	// One Saturday is otherwise: nothing is done then.
	a.acts(path, "act", "add-day", "day", "2027-02-20", "hours.sun", "1")
	if page := a.sees(path, "Sun 21 Feb 2027 10:00"); strings.Contains(page, "Sat 20 Feb 2027 10:00") {
		t.Error("the day that is otherwise is worked on")
	}
	a.undoes(path, "Sat 20 Feb 2027: none")
	a.sees(path, "Sat 20 Feb 2027 10:00")
	before := a.minutesLeft(path)
	tick := func(do string) string { return a.acts(path, "act", "tick", "do", do) }
	tick("1/12/Trim")
	tick("1/4/Score")
	if after := a.minutesLeft(path); after >= before {
		t.Errorf("%s left after ticks, %s before", after, before)
	}
	a.sees(path, "the seed table, about 8 of 12", "Score of the seed table: 4 more, 4 of 12")
	if said := tick("1/13/Score"); !strings.Contains(said, "4 of 12 were done already, so only 8 more were added") {
		t.Error(said)
	}
	a.undoes(path, "Score of the seed table: 8 more, 12 of 12")
	for _, bad := range []string{"1/x/Trim", "1/0/Trim", "1/1/Hats", "", "1", "1/99999999/Trim"} {
		if w := a.post(path+"/change", "act", "tick", "do", bad); w.Code != http.StatusBadRequest {
			t.Errorf("%v: %d", bad, w.Code)
		}
	}
	// Packed away it waits; its bag has a label.
	a.acts(path, "act", "pack:3")
	got := a.sees(path+"/labels", "6 × Plant marker box, needed by Fri 12 Mar 2027", "Still to do: trim")
	if strings.Contains(got, "seed table") || strings.Contains(a.sees(path, "packed away"), "Sorrel ×") {
		t.Error("what is packed away is worked on")
	}
	a.sees(path+"/labels?all=1", "the seed table", "Done: trim", "On the tag: “thank you”")
	// One that takes the place of another takes over none of its ticks; undone, both are what they were.
	tick("3/6/Trim")
	a.acts(path, "act", "take-out:3")
	a.acts(path, "act", "add", "add", "plant marker box")
	if page := a.get(path).Body.String(); strings.Count(page, `class="order`) < 3 || strings.Contains(page, "Trim <small>6 of") {
		t.Error("a new order has the ticks of one that is gone")
	}
	a.undoes(path, "Added an order of Plant marker box")
	a.undoes(path, "Removed the order of Sorrel")
	if page := a.get(path).Body.String(); !strings.Contains(page, "Trim <small>6 of") {
		t.Error("an order that was put back has lost its ticks")
	}
	// Handed over it goes into the logbook, once.
	for _, act := range []string{"handed:2", "unhand:2", "handed:2"} {
		a.acts(path, "act", act)
	}
	if all, n, _ := a.store.Log.Page(t.Context(), store.Look{}, 0); n != 1 || all[0].Whom != "Wren" || all[0].Count != 3 ||
		all[0].Made != "2027-02-18" || all[0].Line == "" {
		t.Errorf("%+v", all)
	}
	// The box moves on; the order keeps it as it was, until it is taken as it is now.
	b, _ := a.store.Batches.Head(t.Context(), strings.TrimPrefix(path, "/batches/"))
	project := b.Doc.Orders[0].Project
	a.post("/projects/"+project+"/change", "base", fmt.Sprint(a.head(project).ID), "card.stock", "kraft-300",
		"was.card.stock", "cover-216")
	a.sees(path, "The box has changed since")
	a.acts(path, "act", "renew:1")
	if strings.Contains(a.sees(path), "The box has changed since") {
		t.Error("it is still older than the box")
	}
	if said := a.acts(path, "act", "pack:9"); !strings.Contains(said, "removed it in another window") {
		t.Error(said)
	}
	at(t, a.post(path+"/away"))
	a.sees("/batches", "No batches yet")
	a.sees(path, "You deleted")
}

var dataBase = regexp.MustCompile(`data-base="(\d+)"`)

// base is the revision that a page shows.
func (a *app) base(path string) string {
	a.t.Helper()
	found := dataBase.FindStringSubmatch(a.get(path).Body.String())
	if found == nil {
		a.t.Fatalf("%s shows no revision", path)
	}
	return found[1]
}

// acts sends what is typed or pressed on a page as it is now, and reads the answer.
func (a *app) acts(path string, pairs ...string) string {
	a.t.Helper()
	w := a.post(path+"/change", append([]string{"base", a.base(path)}, pairs...)...)
	if w.Code != http.StatusOK {
		a.t.Fatalf("%v: %d %s", pairs, w.Code, text(w))
	}
	return text(w)
}

// undoes takes the newest change back, which the page names before.
func (a *app) undoes(path, what string) {
	a.t.Helper()
	if page := a.get(path).Body.String(); !holds(page, `title="Undo: `+html.EscapeString(what)+`"`) {
		a.t.Errorf("undo does not name %q", what)
	}
	if w := a.post(path+"/undo", "since", a.base(path)); w.Code != http.StatusOK || !holds(w.Body.String(), `title="Redo: `+what+`"`) {
		a.t.Errorf("undo: %d, redo does not name %q", w.Code, what)
	}
}

func (a *app) minutesLeft(path string) string {
	return regexp.MustCompile(`(\d+ h )?\d+ min of work`).FindString(a.sees(path))
}

// Whatever is wrong is told where it is, and nothing is half taken in.
func TestBatchRefused(t *testing.T) {
	a := stopped(t)
	for says, list := range map[string]string{
		"line 3: none of your boxes is called “Hat box”": "box,count\nRound tea tin,2\nHat box,1\n",
		"no 2027-02-30": "box,by\nRound tea tin,2027-02-30\n",
		"10000 orders":  "box\n" + strings.Repeat("Round tea tin\n", 10_000), "must be box": "name\nWren\n",
	} {
		if w := a.send("/batches", "list", list); w.Code/100 != 4 || !strings.Contains(text(w), says) {
			t.Errorf("%s: %d %s", says, w.Code, text(w))
		}
	}
	if all, _ := a.store.Batches.Recent(t.Context(), 9); len(all) != 0 {
		t.Fatal("a list that was refused left a batch")
	}
	path := a.batchOf(ordered)
	for _, c := range [][]string{
		{"no 2027-02-29 in the calendar", "orders.@1.by", "2027-02-29"},
		{"comes before you can begin", "orders.@1.by", "2027-02-01"},
		{"No day has any hours", "hours.sat", "", "orders.@1.by", "2027-03-06"},
		{"is too long for a day", "hours.sat", "17"},
		{"or split it into two orders", "hours.sat", "3", "orders.@1.count", "10000"},
		{"None of your cards is called", "orders.@1.count", "4", "orders.@1.colours", "plaid"},
		{"isn't a number of people", "orders.@1.colours", "", "hands", "none"},
	} {
		a.acts(path, c[1:]...)
		a.sees(path, c[0], "Fix the red fields")
		for _, file := range []string{"/sittings.ics", "/shopping.csv"} {
			if w := a.get(path + file); w.Code != http.StatusConflict {
				t.Errorf("%s: %d", file, w.Code)
			}
		}
		a.sees(path+"/print", "There is no plan to print")
	}
	a.acts(path, "hands", "1")
	// Too much for the time: what gives is told, and done when it is pressed.
	a.acts(path, "orders.@1.count", "120")
	a.sees(path, "There isn't enough time")
	gives := a.get(path + "/gives").Body.String()
	found := regexp.MustCompile(`name="act"\s+value="(give:(?:Longer days|Get help)[^"]*)"`).FindStringSubmatch(gives)
	if found == nil {
		t.Fatal(gives)
	}
	a.acts(path, "act", html.UnescapeString(found[1]))
	a.sees(path, "You can finish everything in time")
	if said := a.acts(path, "act", "add", "add", "Hat box"); !strings.Contains(said, "called “Hat box”") {
		t.Error(said)
	}
	if w := a.post(path+"/change", "act", "hats:1"); w.Code != http.StatusBadRequest ||
		!strings.Contains(text(w), "page is out of date") {
		t.Errorf("%d", w.Code)
	}
	if w := a.get("/batches/none"); w.Code != http.StatusNotFound || !strings.Contains(text(w), "batch doesn't exist") {
		t.Errorf("%d", w.Code)
	}
}

// The calendar file is read back by another reader: each sitting when it is, no more and no less.
func TestCalendar(t *testing.T) {
	a := stopped(t)
	path := a.batchOf(ordered)
	w := a.get(path + "/sittings.ics")
	if w.Code != http.StatusOK || !strings.HasPrefix(w.Header().Get("Content-Type"), "text/calendar") {
		t.Fatal(w.Code)
	}
	cal, err := goical.NewDecoder(bytes.NewReader(w.Body.Bytes())).Decode()
	if err != nil {
		t.Fatal(err)
	}
	for line := range strings.SplitAfterSeq(w.Body.String(), "\n") {
		if line != "" && (!strings.HasSuffix(line, "\r\n") || len(line) > 77 || !utf8.ValidString(line)) {
			t.Errorf("a line of %d bytes: %q", len(line), line)
		}
	}
	again, err := ics.ParseCalendar(bytes.NewReader(w.Body.Bytes()))
	if err != nil {
		t.Fatal(err)
	}
	st, err := a.store.Batches.Head(t.Context(), strings.TrimPrefix(path, "/batches/"))
	if err != nil {
		t.Fatal(err)
	}
	read, err := a.server.Batches.ReadBatch(t.Context(), st)
	if err != nil {
		t.Fatal(err)
	}
	pace, _ := a.server.Pace(t.Context())
	sittings := read.Read.Share(pace).Sittings
	events := cal.Events()
	if len(events) != len(sittings) || len(events) < 3 || len(again.Events()) != len(events) {
		t.Fatalf("%d events, %d sittings", len(events), len(sittings))
	}
	seen := map[string]bool{}
	for i, e := range events {
		s := sittings[i]
		from, err1 := e.DateTimeStart(time.UTC)
		to, err2 := e.DateTimeEnd(time.UTC)
		if err1 != nil || err2 != nil || !from.Equal(s.Day.Add(time.Duration(s.Begins)*time.Minute)) ||
			to.Sub(from) != time.Duration(s.Minutes)*time.Minute {
			t.Errorf("%v to %v, want %s at %d for %d min: %v %v", from, to, s.Day, s.Begins, s.Minutes, err1, err2)
		}
		uid, _ := e.Props.Text(goical.PropUID)
		summary, _ := e.Props.Text(goical.PropSummary)
		says, _ := e.Props.Text(goical.PropDescription)
		if twice := again.Events()[i]; twice.Id() != uid || twice.GetProperty(ics.ComponentPropertyDescription).Value != says {
			t.Errorf("another reader finds %s: %q, not %q", twice.Id(), twice.GetProperty(ics.ComponentPropertyDescription).Value, says)
		}
		if seen[uid] || !strings.HasPrefix(summary, "A batch: ") || !strings.Contains(says, s.Entries[0].Order.Called()) {
			t.Errorf("%s %s: %s", uid, summary, says)
		}
		seen[uid] = true
	}
}

// BenchmarkTick is a batch of twenty orders and three hundred boxes, planned anew after a tick.
func BenchmarkTick(b *testing.B) {
	a := stopped(b)
	projects, _ := demo.Projects()
	d := batch.Document{Hours: map[string]brief.Text{"mon": "2", "tue": "2", "wed": "2", "thu": "2", "fri": "2",
		"sat": "6", "sun": "4"}}
	for i := range 20 {
		d.Add(batch.Order{Box: projects[i%10].Encode(), Count: "15", By: brief.Text(a.server.Today().Plus(30 + 3*i).String())})
	}
	id, err := a.store.Batches.Create(context.Background(), d, "new")
	if err != nil {
		b.Fatal(err)
	}
	if w := a.get("/batches/" + id); w.Code != http.StatusOK {
		b.Fatal(w.Code, text(w))
	}
	for i := 0; b.Loop(); i++ {
		more := fmt.Sprintf("1/%d/Score", 1-2*(i%2))
		if w := a.post("/batches/"+id+"/change", "act", "tick", "do", more); w.Code != http.StatusOK {
			b.Fatal(w.Code, text(w))
		}
	}
}

// Work that no day has time for is late, and nobody says that all is done: on the page, on paper, in the calendar.
func TestNoDayHasTime(t *testing.T) {
	a := stopped(t)
	path := a.batchOf(ordered)
	for _, day := range []string{"mon", "tue", "wed", "thu", "fri", "sat", "sun"} {
		a.post(path+"/change", "hours."+day, "1 min")
	}
	const says = "no day has time for"
	if page := a.sees(path, "There isn't enough time", says, "No day has time for this work"); strings.Contains(page, "All is done") {
		t.Error("the page says that all is done")
	}
	a.sees(path+"/print", says)
	cal, err := goical.NewDecoder(a.get(path + "/sittings.ics").Body).Decode()
	if err != nil || len(cal.Events()) == 0 {
		t.Fatal("an empty calendar", err)
	}
	for _, e := range cal.Events() {
		summary, _ := e.Props.Text(goical.PropSummary)
		whole, _ := e.Props.Text(goical.PropDescription)
		if !strings.Contains(summary, "not enough time") || !strings.Contains(whole, "No day has time for") {
			t.Errorf("%q: %q", summary, whole)
		}
	}
}
