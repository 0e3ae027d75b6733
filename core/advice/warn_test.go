package advice_test

import (
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/request"
	"brevium/internal/tried"
)

// What a good maker would say, and that doing what a warning offers ends it.
func TestWarnings(t *testing.T) {
	heavy := brief.New("in")
	heavy.Set("contents.0.mass", "1/2 lb")
	cases := []struct {
		code  string
		brief brief.Brief
	}{
		{"tight-corners", tried.Sized("120 mm", "80 mm", "40 mm", "card.stock", "duplex-350", "card.sheet", "a3",
			"tools.step", "0.5 mm", "units", "mm")},
		{"off-the-marks", tried.Sized("115 mm", "3 in", "2 in")},
		{"two-units", tried.Sized("5", "3", "2", "tools.step", "1 mm")},
		{"tall", tried.Sized("2 in", "1 1/2 in", "3 1/2 in")},
		{"weak-floor", heavy},
		{"sheet-too-small", tried.Sized("8", "8", "2", "card.sheet", "8.5x11")},
	}
	for _, c := range cases {
		p := advice.Make(c.brief, request.Default)
		found := false
		for _, w := range p.Warnings {
			if w.Code != c.code {
				continue
			}
			found = true
			if w.Text == "" || w.Fix == "" {
				t.Errorf("%s says nothing: %+v", c.code, w)
			}
			if len(w.Set) == 0 {
				continue
			}
			fixed := c.brief.Clone()
			for field, text := range w.Set.All() {
				fixed.Set(field, text)
			}
			for _, again := range advice.Make(fixed, request.Default).Warnings {
				if again.Code == c.code {
					t.Errorf("%s is still there after what it offers", c.code)
				}
			}
		}
		if !found {
			t.Errorf("no %s: %v %v", c.code, p.Problems, p.Warnings)
		}
	}
}

func TestCareForContents(t *testing.T) {
	b := brief.New("mm")
	b.Card.Sheet = "a3"
	b.Contents = []brief.Item{{Name: "honey jar", Shape: "cylinder", Diameter: "54 mm", Height: "68 mm",
		Count: "4", Mass: "250 g", Food: "yes", Liquid: "yes", Fragile: "yes"},
		{Name: "votive", Shape: "cylinder", Diameter: "48 mm", Height: "40 mm", Count: "1", Flame: "yes"}}
	p := advice.Make(b, request.Default)
	if !p.OK() {
		t.Fatal(p.Problems)
	}
	last := p.Guide.Steps[slices.IndexFunc(p.Guide.Steps, func(s bench.Step) bool { return s.Title == "Fill" })]
	for _, part := range []string{"aren't made to touch food", "local rules", "Never light the votive", "keep it upright",
		"Wrap the honey jar", "about 1.0 kg"} {
		if !strings.Contains(last.Caution(), part) {
			t.Errorf("no word of %q where the box is filled: %s", part, last.Caution())
		}
	}
	for _, word := range []string{"is safe", "are safe", "lawful", "legal"} {
		if strings.Contains(last.Caution(), word) {
			t.Errorf("it states that something is %s", word)
		}
	}
}

// The comparison is sorted by what the maker pays, and taking a row gives it.
func TestCompare(t *testing.T) {
	b := brief.New("mm")
	b.Card.Sheet = "a3"
	b.Contents = []brief.Item{{Name: "tin", Shape: "cylinder", Diameter: "40 mm", Height: "30 mm", Stack: "2", Count: "6"}}
	rows, _ := advice.Compare(t.Context(), b, request.Default)
	if len(rows) < 3 {
		t.Fatalf("%d rows", len(rows))
	}
	for i, r := range rows {
		if r.Proved != (r.Why == "") {
			t.Errorf("proved %v, and %q", r.Proved, r.Why)
		}
		if i > 0 && r.Why == rows[i-1].Why && (r.Sheets < rows[i-1].Sheets || r.Sheets == rows[i-1].Sheets && r.Area < rows[i-1].Area) {
			t.Errorf("row %d is cheaper than the one before", i)
		}
		if r.Minutes < 1 || r.Scores < 4 || r.Cuts < 8 || r.Waste < 0 || r.Waste >= 1 && r.Why == "" || r.Strength < 1 {
			t.Errorf("%+v", r)
		}
		took := b.Clone()
		for field, text := range r.Set.All() {
			took.Set(field, text)
		}
		if p := advice.Make(took, request.Default); p.Load.ID != r.Load.ID || p.Style != r.Style || p.Holds() != r.Proved {
			t.Errorf("taking row %d gives %s", i, p.Load.ID)
		}
	}
}

// Heavy card is to be scored where it is pinched, and heavy contents want wet glue; light ones are left in peace.
func TestHeavyCardAndContents(t *testing.T) {
	for _, c := range []struct {
		set    []string
		grams  string
		want   string
		unless string
	}{
		{[]string{"box.style", "gable-cap", "box.options.gussets", "pinched", "card.stock", "kraft-300"}, "", "score-it", ""},
		{[]string{"box.style", "gable-cap", "box.options.gussets", "pinched", "card.stock", "light-160"}, "", "", "score-it"},
		{[]string{"box.style", "gable-cap", "card.stock", "kraft-300"}, "", "", "score-it"},
		{[]string{"box.style", "sleeve-drawer", "tools.wraps", "formed", "card.stock", "kraft-300"}, "", "score-it", ""},
		{[]string{"box.style", "carton"}, "700 g", "glue-it", ""},
		{[]string{"box.style", "carton", "tools.adhesive", "glue"}, "700 g", "", "glue-it"},
		{[]string{"box.style", "carton"}, "90 g", "", "glue-it"},
	} {
		b := tried.Weighing(60, append(c.set, "card.sheet", "a3")...)
		b.Contents[0].Mass = brief.Text(c.grams)
		p := advice.Make(b, request.Default)
		i := slices.IndexFunc(p.Warnings, func(w brief.Warning) bool { return w.Code == c.want })
		if !p.OK() || c.want != "" && i < 0 || slices.ContainsFunc(p.Warnings, func(w brief.Warning) bool { return w.Code == c.unless }) {
			t.Errorf("%v, %s: %+v %v", c.set, c.grams, p.Warnings, p.Problems)
			continue
		}
		if c.want != "" {
			q := advice.Make(tried.Taken(b, p.Warnings[i].Set), request.Default)
			if slices.ContainsFunc(q.Warnings, func(w brief.Warning) bool { return w.Code == c.want }) {
				t.Errorf("%v: still %+v", c.set, q.Warnings)
			}
		}
	}
}

// A curl is cut as long as it is asked for, rounded laps hold, and a shell may stay on its tray.
func TestSmallWishes(t *testing.T) {
	b := tried.Weighing(70)
	b.Dress.Bow = brief.Bow{Loops: "6", Curls: "3", Curl: "110 mm", Rod: "8 mm"}
	if p := advice.Make(b, request.Default); !p.Holds() || p.Box.Piece("curl") == nil || p.Box.Piece("curl").Height != 110*measure.Millimetre {
		t.Errorf("%v %s", p.Problems, tried.Said(p))
	}
	b.Dress.Bow.Curl = "9 mm"
	if p := advice.Make(b, request.Default); p.OK() || p.Problems[0].Field != "dress.bow.curl" ||
		!advice.Make(tried.Taken(b, p.Problems[0].Set), request.Default).Holds() {
		t.Errorf("%v", p.Problems)
	}
	for _, set := range [][]string{{"box.style", "wrap-cover", "box.options.lap-corners", "rounded"},
		{"box.style", "fold-flat", "box.options.lip-corners", "rounded"}, {"box.style", "corner-shells", "box.options.shells", "one stuck"},
		{"box.style", "corner-shells", "box.options.shells", "one stuck", "box.options.band", "no"}} {
		for _, allowances := range []string{"card", "plain"} {
			b := tried.Weighing(60, append(set, "tools.allowances", allowances, "card.join", "yes")...)
			if p := advice.Make(b, request.Default); !p.Holds() {
				t.Errorf("%v, %s: %v %s", set, allowances, p.Problems, tried.Said(p))
			}
		}
	}
}
