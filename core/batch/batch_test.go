package batch

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/request"
)

var (
	today  = day("2027-02-18") // a Thursday
	noPace = bench.PaceOf(nil)
	known  = map[string]*Made{}
)

func day(s string) Day {
	d, err := ParseDay(s)
	if err != nil {
		panic(err)
	}
	return d
}

// planned plans each box once for all tests.
func planned(b brief.Brief) *Made {
	key := string(b.Encode())
	if known[key] == nil {
		known[key] = Plan(b, request.Default)
	}
	return known[key]
}

// box is a small tray with its lid, glued or taped, for food or not, maybe with a layer.
func box(adhesive string, food, layer bool) json.RawMessage {
	b := brief.New("mm")
	b.Name = "Marker tray"
	b.Contents = []brief.Item{{Name: "plant marker", Shape: "block", Length: "110", Width: "30", Height: "14", Count: "3"}}
	b.Tools.Adhesive = brief.Text(adhesive)
	if food {
		b.Name, b.Contents[0].Food = "Tea sampler", "yes"
	}
	if layer {
		b.Dress.Layers = []brief.Layer{{ID: "1", On: "top"}}
	}
	return b.Encode()
}

func orders(n int, by ...string) (out []Order) {
	for i, d := range by {
		out = append(out, Order{Box: box([]string{"tape", "glue"}[i%2], i%3 == 1, i%2 == 0), Count: brief.Whole(fmt.Sprint(n)),
			By: brief.Text(d)})
	}
	return out
}

func made(t testing.TB, d Document) *Batch {
	t.Helper()
	Form.Identify(&d)
	b := Read(d, today.Begins(), request.Default)
	b.Make(planned)
	if !b.OK() {
		t.Fatalf("%+v", b.Problems)
	}
	return b
}

// Every field that can be wrong is told by its name, with what would mend it.
func TestProblems(t *testing.T) {
	week := map[string]brief.Text{"sat": "3"}
	for _, c := range []struct {
		change func(*Document)
		field  string
		says   string
	}{
		{func(d *Document) {}, "", ""},
		{func(d *Document) { d.Orders = nil }, "orders", "no orders yet"},
		{func(d *Document) { d.Orders[0].By = "2027-02-30" }, "orders.0.by", "no 2027-02-30 in the calendar"},
		{func(d *Document) { d.Orders[0].By = "3/6/27" }, "orders.0.by", "Write it like"},
		{func(d *Document) { d.Orders[0].By = "2027-02-17" }, "orders.0.by", "before you can begin"},
		{func(d *Document) { d.Orders[0].By = "2039-02-17" }, "orders.0.by", "two years"},
		{func(d *Document) { d.Orders[0].By = "" }, "orders.0.by", "when is it needed"},
		{func(d *Document) { d.Orders[0].By, d.By = "", "6 March 2027" }, "", ""},
		{func(d *Document) { d.Orders[0].Count = "some" }, "orders.0.count", "isn't a number"},
		{func(d *Document) { d.Orders[0].Count = "0" }, "orders.0.count", "0 boxes"},
		{func(d *Document) { d.Orders[0].Count = "201" }, "orders.0.count", "201 boxes"},
		{func(d *Document) { d.Orders[0].Box = nil }, "orders.0.box", "Which box"},
		{func(d *Document) { d.Orders[0].Box = json.RawMessage(`{"brevium": 9}`) }, "orders.0.box", "can't be read"},
		{func(d *Document) {
			d.Orders[0].Box = json.RawMessage(`{"brevium": 1, "name": "x", ` +
				`"size": {"length": "50", "width": "50", "depth": "20"}, "units": "mm", "box": {"style": "hat"}}`)
		}, "orders.0.box", "hat"},
		{func(d *Document) { d.Orders[0].Colours = "plaid" }, "orders.0.colours", "plaid"},
		{func(d *Document) { d.Orders[0].State = "lost" }, "orders.0.state", "lost"},
		{func(d *Document) { d.Hours = nil }, "hours", "No day has any hours"},
		{func(d *Document) { d.Hours = map[string]brief.Text{"sat": "0", "sun": "none"} }, "hours", "No day has any hours"},
		{func(d *Document) { d.Hours["sun"] = "17" }, "hours.sun", "too long for a day"},
		{func(d *Document) { d.Hours["sun"] = "late" }, "hours.sun", "isn't a time"},
		{func(d *Document) { d.Hours["caturday"] = "1" }, "hours.caturday", "Which day are these hours for"},
		{func(d *Document) { d.From = "soon" }, "from", "soon"},
		{func(d *Document) { d.From = "2031-01-01" }, "from", "two years"},
		{func(d *Document) { d.Hands = "0" }, "hands", "isn't a number"},
		{func(d *Document) { d.Orders = slices.Repeat(orders(200, "2027-03-06"), 16) }, "orders", "3200 boxes"},
	} {
		d := Document{Orders: orders(4, "2027-03-06"), Hours: map[string]brief.Text{"sat": week["sat"]}}
		c.change(&d)
		Form.Identify(&d)
		b := Read(d, today.Begins(), request.Default)
		b.Make(planned)
		i := slices.IndexFunc(b.Problems, func(p brief.Problem) bool { return p.Field == c.field })
		if c.field == "" && len(b.Problems) > 0 || c.field != "" && (i < 0 || !strings.Contains(b.Problems[i].Text, c.says) ||
			b.Problems[i].Fix == "") {
			t.Errorf("%s %q: %+v", c.field, c.says, b.Problems)
		}
		if out, fits := JSON(d, today.Begins(), request.Default, noPace); fits != (c.field == "") || !json.Valid(out) {
			t.Errorf("%s: fits %v", c.field, fits)
		}
	}
}

func TestTimes(t *testing.T) {
	for text, want := range map[string]Time{"2": {-1, 120}, "1 1/2": {-1, 90}, "1½ h": {-1, 90}, "90 min": {-1, 90},
		"1:30":        {-1, 90},
		"19:00-21:15": {1140, 135}, "": {-1, 0}, "none": {-1, 0}, "0": {-1, 0}, "16": {-1, 960}} {
		if got, err := ParseTime(text); err != nil || got.Minutes != want.Minutes || got.Minutes > 0 && got.From != want.From {
			t.Errorf("%q: %+v, %v", text, got, err)
		}
	}
	for _, text := range []string{"-1", "21:00-19:00", "1:75", "25:00-26:00", "a while", "17 h", "1e9"} {
		if got, err := ParseTime(text); err == nil {
			t.Errorf("%q is read as %+v", text, got)
		}
	}
	for minutes, work := range map[int]int{0: 0, 45: 45, 50: 45, 51: 46, 60: 55, 95: 90, 180: 165} {
		if got := workable(minutes); got != work || untilClock(got) > minutes {
			t.Errorf("of %d minutes one works %d, want %d", minutes, got, work)
		}
	}
}

// check is what must hold of any batch that is shared out.
func check(b *Batch, s Shared) error {
	minutes := map[string]int{}
	seen := map[string]int{} // how far each order has come
	for i, sit := range s.Sittings {
		if i > 0 && sit.Day.Since(s.Sittings[i-1].Day) <= 0 || sit.Day.Since(b.From) < 0 {
			return fmt.Errorf("a sitting on %s out of turn", sit.Day)
		}
		if has := b.Calendar.Of(sit.Day); sit.Minutes > has.Minutes || sit.Begins != has.From || sit.Minutes <= 0 {
			return fmt.Errorf("%s takes %d of %d minutes", sit.Day, sit.Minutes, has.Minutes)
		}
		at := 0
		for _, e := range sit.Entries {
			if e.At < at {
				return fmt.Errorf("%s: %s %s begins at %d, before %d", sit.Day, e.Order.ID, e.Stage, e.At, at)
			}
			at = e.At + e.Setup + e.Minutes
			minutes[e.Order.ID] += e.Minutes
			if s.Fits && sit.Day.Since(e.Order.Due) > 0 {
				return fmt.Errorf("%s of %s on %s, after %s", e.Stage, e.Order.ID, sit.Day, e.Order.Due)
			}
			n := slices.Index(Stages, e.Stage)
			if n < seen[e.Order.ID] {
				return fmt.Errorf("%s of %s after %s", e.Stage, e.Order.ID, Stages[seen[e.Order.ID]])
			}
			seen[e.Order.ID] = n
		}
		if at > sit.Minutes {
			return fmt.Errorf("%s ends at %d, not %d", sit.Day, at, sit.Minutes)
		}
	}
	sum := 0
	for _, m := range minutes {
		sum += m * b.Hands
	}
	if sum < s.Minutes-s.Left || s.Fits && s.Left > 0 {
		return fmt.Errorf("%d minutes shared out of %d, %d left", sum, s.Minutes, s.Left)
	}
	return nil
}

// Over random batches: hours are never exceeded, nothing is done after its date when it fits, each
// order's stages come in their turn, and whatever gives makes it fit when it is taken.
func TestShared(t *testing.T) {
	r := rand.New(rand.NewPCG(14, 4))
	fits, gives := 0, map[string]int{}
	for n := range 24 {
		var by []string
		for range 1 + r.IntN(5) {
			by = append(by, today.Plus(1+r.IntN(16)).String())
		}
		d := Document{Orders: orders([]int{6, 14}[n%2], by...), Hours: map[string]brief.Text{},
			Hands: brief.Whole(fmt.Sprint(1 + r.IntN(2)))}
		for _, name := range Week {
			if r.IntN(2) == 0 {
				d.Hours[name] = brief.Text([]string{"40 min", "1", "2", "18:30-21:00"}[r.IntN(4)])
			}
		}
		d.Hours["sat"] = "3"
		b := made(t, d)
		s := b.Share(noPace)
		if err := check(b, s); err != nil {
			t.Fatalf("%d: %v", n, err)
		}
		if s.Fits {
			fits++
			if s.Start == nil {
				t.Errorf("%d: it fits, and no day is said to start by", n)
			}
			continue
		}
		for _, g := range b.Gives(noPace) {
			gives[g.Kind]++
			var next Document
			data, _ := json.Marshal(d)
			if err := json.Unmarshal(data, &next); err != nil {
				t.Fatal(err)
			}
			Form.Identify(&next)
			if g.Take(&next); len(next.Orders) > 0 {
				if again := made(t, next).Share(noPace); !again.Fits {
					t.Errorf("%d: %q does not make it fit: %d late", n, g.Text, again.Late)
				}
			}
		}
	}
	if fits < 4 || fits > 19 || len(gives) < 4 {
		t.Errorf("%d of 24 fit; gives %v", fits, gives)
	}
}

// What is done is not planned again, what is packed away waits, and what dries is filled with other
// work.
func TestProgress(t *testing.T) {
	d := Document{Orders: orders(12, "2027-03-06", "2027-03-06", "2027-03-12"), Hours: map[string]brief.Text{"sat": "4",
		"sun": "4", "tue": "2"}}
	b := made(t, d)
	all := b.Share(noPace)
	trim := b.Orders[1].Made.Stages[0]
	whole, sheets, done := b.Left(b.Orders[1], trim, noPace), b.Lay(request.Default, noPace), Progress{}
	for _, st := range b.Orders[0].Made.Stages {
		done["1/"+st.Title] = "12"
	}
	done["2/Trim"] = "6"
	d.Done, b.Doc.Done = done, done
	half := b.Share(noPace)
	if half.Minutes >= all.Minutes || slices.ContainsFunc(half.Sittings, func(s Sitting) bool {
		return slices.ContainsFunc(s.Entries, func(e Entry) bool { return e.Order.ID == "1" })
	}) {
		t.Errorf("%d of %d minutes are left", half.Minutes, all.Minutes)
	}
	if got := b.Left(b.Orders[1], trim, noPace); got*2 < whole || got >= whole {
		t.Errorf("of %d minutes %d are left for half", whole, got)
	}
	if fewer := b.Lay(request.Default, noPace); fewer.Count() >= sheets.Count() {
		t.Errorf("%d sheets of %d are still to be cut", fewer.Count(), sheets.Count())
	}
	d.Orders[2].State = Packed
	away := made(t, d).Share(noPace)
	if _, there := away.Ready["3"]; there || away.Minutes >= half.Minutes {
		t.Error("what is packed away is worked on")
	}
	for _, w := range all.Waits {
		if w.Minutes != 60 || len(w.Filled) == 0 && !w.Over {
			t.Errorf("%+v", w)
		}
	}
	if len(all.Waits) == 0 {
		t.Error("glue dries without a wait")
	}
}

// A day that goes by while an order is worked on stops nothing: what is made is done, what is not is
// late, and the other orders go on.
func TestOverdue(t *testing.T) {
	d := Document{Orders: orders(6, "2027-02-19", "2027-02-19", "2027-03-12"), Hours: map[string]brief.Text{"sat": "4", "sun": "4"}}
	Form.Identify(&d)
	first := Read(d, today.Begins(), request.Default)
	first.Make(planned)
	d.Done = Progress{"2/Trim": "6"}
	for _, st := range first.Orders[0].Made.Stages {
		d.Done["1/"+st.Title] = "6"
	}
	b := Read(d, today.Plus(3).Begins(), request.Default)
	b.Make(planned)
	if !b.OK() {
		t.Fatalf("%+v", b.Problems)
	}
	s := b.Share(noPace)
	if _, there := s.Ready["1"]; there || s.Fits || s.Late == 0 || s.Ready["2"].Since(today) < 0 || s.Ready["3"].IsZero() {
		t.Errorf("late %d, ready %v", s.Late, s.Ready)
	}
	for _, g := range b.Gives(noPace) {
		if g.Kind == "later" && g.Dates[0].Order.ID == "2" {
			return
		}
	}
	t.Error("no later day is offered")
}

// Food is filled as near its date as the hours let it.
func TestFood(t *testing.T) {
	d := Document{Orders: orders(6, "2027-03-20", "2027-03-20"), Hours: map[string]brief.Text{"sat": "4", "wed": "2"}}
	b := made(t, d)
	s := b.Share(noPace)
	last := map[string]string{}
	for _, sit := range s.Sittings {
		for _, e := range sit.Entries {
			if e.Stage == "Fill" {
				last[e.Order.ID] = sit.Day.String()
			}
		}
	}
	if !s.Fits || last["2"] != "2027-03-20" || last["1"] >= last["2"] {
		t.Errorf("filled %v", last)
	}
}

// The stop is set seldom: every cut of every sheet is made once, in its turn, and never with more
// settings than sheet by sheet.
func TestSettings(t *testing.T) {
	d := Document{Orders: orders(9, "2027-03-06", "2027-03-06", "2027-03-07"), Hours: map[string]brief.Text{"sat": "9"}}
	b := made(t, d)
	s := b.Lay(request.Default, noPace)
	at, kinds, moves := map[int]int{}, map[string]int{}, 0
	n := 0
	for _, c := range s.Cuts {
		for _, sheet := range c.Sheets {
			n++
			if mark := c.Mark(sheet); kinds[mark] == 0 {
				kinds[mark] = n
				for _, step := range sheet.Steps(b.Orders[0].Made.Job.Plans[0].Say) {
					if step.Moved {
						moves++
					}
				}
			}
		}
	}
	for i, set := range s.Settings {
		if i > 0 && set.At == s.Settings[i-1].At {
			t.Errorf("%s is set twice running", set.At)
		}
		for _, c := range set.Cuts {
			for _, step := range c.Steps {
				if at[c.Sheet]++; step != at[c.Sheet] {
					t.Errorf("sheet %d: cut %d comes as number %d", c.Sheet, step, at[c.Sheet])
				}
			}
		}
	}
	if len(s.Settings) == 0 || len(s.Settings) > moves || len(at) != len(kinds) || s.Count() < s.Bound || s.Count() > s.Alone {
		t.Errorf("%d settings, %d sheet by sheet; %d of %d kinds; %d sheets, %d alone, %d at the least", len(s.Settings),
			moves, len(at),
			len(kinds), s.Count(), s.Alone, s.Bound)
	}
}
