package record

import (
	"fmt"
	"math/rand/v2"
	"reflect"
	"slices"
	"strings"
	"testing"
	"time"

	"brevium/core/brief"
	"brevium/core/measure"
)

var now = time.Date(2026, 12, 1, 10, 0, 0, 0, time.UTC) // a Tuesday

func TestQuestion(t *testing.T) {
	mm := func(n float64) measure.Length { return measure.FromMM(n) }
	for text, want := range map[string]Ask{
		"":                                      {},
		"what fitted a 60 mm candle last time?": {Words: []string{"candle"}, Sizes: []measure.Length{mm(60)}, Fit: "right"},
		"2 3/8 in tin":                          {Words: []string{"tin"}, Sizes: []measure.Length{19 * measure.Inch / 8}},
		"5¾\" × 14.6cm for Wren": {Words: []string{"wren"}, Sizes: []measure.Length{23 * measure.Inch / 4,
			mm(146)}},
		"1/2 inch":                     {Sizes: []measure.Length{measure.Inch / 2}},
		"12 boxes in moss":             {Words: []string{"12", "moss"}},
		"the \"fair\"* OR NEAR(x)":     {Words: []string{"fair", "near", "x"}},
		"Écru à 3 mm":                  {Words: []string{"écru", "à"}, Sizes: []measure.Length{mm(3)}},
		"0 mm":                         {Words: []string{"0", "mm"}},
		"made last year":               {Since: "2025-01-01", Until: "2025-12-31"},
		"which lids were too tight?":   {Fit: "tight"},
		"what was loose in 2025":       {Fit: "loose", Since: "2025-01-01", Until: "2025-12-31"},
		"kraft boxes this month":       {Words: []string{"kraft"}, Since: "2026-12-01", Until: "2026-12-31"},
		"for Wren in June":             {Words: []string{"wren"}, Since: "2026-06-01", Until: "2026-06-30"},
		"since March 2026, just right": {Fit: "right", Since: "2026-03-01"},
		"before 2026":                  {Until: "2025-12-31"},
		"last week":                    {Since: "2026-11-23", Until: "2026-11-29"},
		"Yesterday":                    {Since: "2026-11-30", Until: "2026-11-30"},
		"two years ago, candle":        {Words: []string{"candle"}, Since: "2024-01-01", Until: "2024-12-31"},
		"in the last 3 months":         {Since: "2026-09-01"},
		"in December":                  {Since: "2026-12-01", Until: "2026-12-31"},
		"a tin of 2000 may bells":      {Words: []string{"tin", "may", "bells"}, Since: "2000-01-01", Until: "2000-12-31"},
	} {
		got := Question(text, now)
		if len(got.Said) != len(got.Sizes) {
			t.Errorf("%q: %d sizes, said as %q", text, len(got.Sizes), got.Said)
		}
		if got.Said = nil; !reflect.DeepEqual(got, want) {
			t.Errorf("%q is read as %+v, want %+v", text, got, want)
		}
	}
}

// A size is found from 1.5 mm below to 1.5 mm above, to whole millimetres.
func TestSizes(t *testing.T) {
	b := brief.New("mm")
	b.Contents = []brief.Item{{Name: "votive", Diameter: "61", Height: "2 in", Count: "3"}, {Name: "matches", Length: "48 mm"}}
	m := Of(b, time.Date(2027, 3, 6, 0, 0, 0, 0, time.UTC))
	if m.Contents != "3 × votive, matches" || !slices.Equal(m.Sizes(), []measure.Length{measure.FromMM(48),
		2 * measure.Inch, measure.FromMM(61)}) {
		t.Errorf("%q %v", m.Contents, m.Sizes())
	}
	words := " " + strings.Join(strings.Fields(m.Words()), " ") + " "
	for n := 40; n < 70; n++ {
		near := slices.ContainsFunc(m.Sizes(),
			func(l measure.Length) bool { return (l - measure.FromMM(float64(n))).Abs() <= Near })
		if has := strings.Contains(words, " "+Question(fmt.Sprint(n, " mm"), now).Match()+" "); has != near {
			t.Errorf("%d mm: found %v, near %v", n, has, near)
		}
	}
}

// A logbook goes out as CSV and comes in as it was; one bad line and nothing comes in.
func TestList(t *testing.T) {
	r := rand.New(rand.NewPCG(14, 5))
	texts := []string{"", "Wren", "=1+1", "a \"quoted\", one\nof two lines", " blank ", "'apostrophe", "Écru; moss", "-3"}
	pick := func() string { return texts[r.IntN(len(texts))] }
	for range 200 {
		m := Making{Made: "2027-03-06", Count: 1 + r.IntN(90), Box: "Tin " + pick(), Whom: pick(), Contents: pick(),
			Style: "tray-lid",
			Title: pick(), Fit: append(Fits, "")[r.IntN(4)], Gap: pick(), Change: pick(), Notes: pick(),
			Minutes: float64(r.IntN(900)) / 10,
			Sheets:  r.IntN(40), Cost: int64(r.IntN(9000))}
		var out strings.Builder
		if err := Write(&out, []Making{m}); err != nil {
			t.Fatal(err)
		}
		got, err := Read(strings.NewReader(out.String()), func(title string) string { return "id of " + title })
		if err != nil {
			t.Fatalf("%+v: %v", m, err)
		}
		if m.Card = "id of " + m.Title; !reflect.DeepEqual(got, []Making{m}) {
			t.Fatalf("%+v\ncame in as\n%+v", m, got[0])
		}
	}
	for list, says := range map[string]string{
		"":                           "empty",
		"date,count\n2027-03-06,3\n": "must be box",
		"date,box\n":                 "no entries",
		"date,box\n2027-03-06,Tin\n2027-02-30,Tin\n":       "line 3: \"2027-02-30\" isn't a day",
		"date,box,count\n2027-03-06,Tin,some\n":            "line 2: \"some\" isn't a number",
		"date,box,count\n2027-03-06,Tin,0\n":               "line 2: 0 isn't a number of boxes",
		"date,box,count\n2027-03-06,Tin,1.5\n":             "isn't a whole number",
		"date,box,fit\n2027-03-06,Tin,odd\n":               "tight, right or loose",
		"date,box,minutes\n2027-03-06,Tin,NaN\n":           "isn't a number of minutes",
		"date,box,cost\n2027-03-06,Tin,-1\n":               "from 0 up",
		"date,box\n2027-03-06," + strings.Repeat("x", 300): "too long",
		"date,box,hat\n2027-03-06,Tin,1\n":                 "heading",
	} {
		if got, err := Read(strings.NewReader(list), strings.ToUpper); err == nil || got != nil ||
			!strings.Contains(err.Error(), says) {
			t.Errorf("%.50q: %v, want %q", list, err, says)
		}
	}
	if got, err := Read(strings.NewReader("box;date;fit\nTin;6 March 2027;too tight\n"), strings.ToUpper); err != nil ||
		got[0].Fit != "tight" ||
		got[0].Made != "2027-03-06" {
		t.Errorf("%+v %v", got, err)
	}
}

// A name in any script may be as long as a box's may be.
func TestLongNames(t *testing.T) {
	b := brief.New("mm")
	b.Name = brief.Text(strings.Repeat("箱", 80))
	b.Contents = []brief.Item{{Name: brief.Text(strings.Repeat("свеча ", 13)), Count: "2"}}
	m := Of(b, time.Date(2027, 3, 6, 0, 0, 0, 0, time.UTC))
	m.Whom = strings.Repeat("ш", 160)
	if err := m.Check(); err != nil {
		t.Error(err)
	}
}

func TestDifferences(t *testing.T) {
	was := brief.New("in")
	was.Box.Options = brief.Options{"walls": "rolled", "lid": "full"}
	is := was.Clone()
	if d := Differences(was, is); len(d) != 0 {
		t.Errorf("a copy differs in %v", d)
	}
	is.Card.Stock, is.Notes = "kraft-300", "for Wren"
	is.Box.Options = brief.Options{"walls": "single"}
	is.Contents = append(is.Contents, brief.Item{ID: "9", Name: "jute", Shape: "ball", Count: "1"})
	got := map[string]Difference{}
	for _, d := range Differences(was, is) {
		got[d.Field] = d
	}
	const last = "contents.@9.name"
	for field, want := range map[string]Difference{"card.stock": {"card.stock", string(was.Card.Stock), "kraft-300"},
		"notes": {"notes", "", "for Wren"}, "box.options.walls": {"box.options.walls", "rolled", "single"},
		"box.options.lid": {"box.options.lid", "full", ""}, last: {last, "", "jute"}} {
		if got[field] != want {
			t.Errorf("%s: %+v", field, got[field])
		}
	}
	for _, d := range Differences(is, was) {
		if back := got[d.Field]; back.Was != d.Is || back.Is != d.Was {
			t.Errorf("%+v, and back %+v", d, back)
		}
	}
}

func FuzzRead(f *testing.F) {
	f.Add("date,box,count,for\n2027-03-06,Tin,3,Wren\n")
	f.Add("date;box;fit\n6 March 2027;\"a\nb\";too tight\n")
	f.Fuzz(func(t *testing.T, list string) {
		all, err := Read(strings.NewReader(list), strings.ToUpper)
		if (err == nil) == (len(all) == 0) {
			t.Fatalf("%d makings, %v", len(all), err)
		}
		for i := range all {
			if err := all[i].Check(); err != nil {
				t.Error(err)
			}
		}
	})
}

func FuzzQuestion(f *testing.F) {
	f.Add(`what fitted a 60 mm candle`)
	f.Add(`"5 3/4 in" * ( ) : ^ é`)
	f.Fuzz(func(t *testing.T, text string) {
		a := Question(text, now)
		for _, l := range a.Sizes {
			if l <= 0 {
				t.Error(l)
			}
		}
		if strings.Count(a.Match(), `"`)%2 != 0 {
			t.Error(a.Match())
		}
	})
}
