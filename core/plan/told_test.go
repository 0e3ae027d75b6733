package plan_test

import (
	"regexp"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
)

func TestInUnit(t *testing.T) {
	for in, want := range map[string]string{
		"0.00 mm apart at most": "0 in apart at most", "0.12 mm": "less than 1/64 in",
		"left 3.2 mm, right 12.7 mm free": "left 1/8 in, right 1/2 in free",
		"3 tabs, 12.9 cm² in all":         "3 tabs, 2.0 sq in in all", "10 pairs": "10 pairs",
		"left -0.12 mm, right -3.2 mm": "left a hair under 0 in, right -1/8 in",
		"90 mm and 88 mm":              "90 mm and 88 mm",
	} {
		if got := plan.InUnit(in, measure.Inches); got != want {
			t.Errorf("%q is told as %q, want %q", in, got, want)
		}
		if got := plan.InUnit(in, measure.Millimetres); got != in {
			t.Errorf("%q is told as %q", in, got)
		}
	}
}

// What a person reads of a box in inches has no millimetres, and no box's words
// are the marks of the program.
func TestWordsAreAMakers(t *testing.T) {
	foreign := regexp.MustCompile(`\d mm\b|cm²|\b(left|right|front|back|top|base|lid|tab|roll|lip)-[a-z]`)
	for _, style := range style.Styles {
		b := brief.New("in")
		b.Box = brief.Box{Style: brief.Text(style.ID)}
		if style.Rooms == nil {
			b.Set("arrange.compartments", "trays")
		}
		b.Set("card.sheet", "a3")
		b.Set("card.join", "yes")
		b.Set("contents.0.length", "3 in")
		p := advice.Make(b, request.Default)
		if !p.OK() {
			t.Fatalf("%s: %v", style.ID, p.Problems)
		}
		var all []string
		for _, c := range p.Checks {
			all = append(all, c.Name, c.Figure)
		}
		for _, w := range p.Ways {
			all = append(all, w.Says, w.Reason)
		}
		for _, s := range p.Guide.Steps {
			all = append(all, append(s.Says, s.Title, s.Caution())...)
		}
		for _, w := range p.Warnings {
			all = append(all, w.Text, w.Fix)
		}
		for _, m := range p.Course() {
			all = append(all, m.Says)
		}
		all = append(all, p.Load.Room.Says...)
		for _, text := range all {
			if m := foreign.FindString(strings.ReplaceAll(text, p.Sheet.Title, "")); m != "" {
				t.Errorf("%s: %q in %q", style.ID, m, text)
			}
		}
		says := map[string]bool{}
		for _, w := range p.Ways {
			if says[w.Says] {
				t.Errorf("%s: two ways are called %q", style.ID, w.Says)
			}
			says[w.Says] = true
		}
	}
}
