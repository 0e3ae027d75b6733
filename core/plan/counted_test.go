package plan_test

import (
	"regexp"
	"testing"

	"brevium/core/advice"
	"brevium/core/plan"
	"brevium/core/readings"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
)

// What no one says: "1 faces", and nothing at all as a length. A gap may be measured as 0.
var (
	oneOfMany = regexp.MustCompile(`(^|[^\d.,/⁄])1 [a-z]+s\b`)
	nothing   = regexp.MustCompile(`(^|[^\d.,/⁄])0(\.0)? (mm|in|cm) (larger|longer|wider|higher|smaller|shorter|more|less|too)\b`)
)

// One is one, and nothing is not told as a length, in all that is said of a box of every style.
func TestCounted(t *testing.T) {
	for _, s := range style.Styles {
		for n := range min(tried.Combinations(s), tried.Fewer(2000)) {
			for _, units := range []string{"in", "mm", "cm"} {
				b := tried.Sized("3 1/2", "3 1/2", "2 1/2", "box.style", s.ID, "card.sheet", "600 x 600 mm")
				if units != "in" {
					b = tried.Sized("90 mm", "90 mm", "60 mm", "units", units, "tools.step", "1 mm", "box.style", s.ID, "card.sheet", "600 x 600 mm")
				}
				tried.Answer(&b, s, n)
				p := advice.Make(b, request.Default)
				texts := allSaid(p)
				for _, text := range texts {
					for _, bad := range []*regexp.Regexp{oneOfMany, nothing} {
						if m := bad.FindString(text); m != "" {
							t.Errorf("%s: %q in %q", s.ID, m, text)
						}
					}
				}
			}
		}
	}
}

// allSaid is what is said of a box: checks, warnings, problems, notes, steps and supplies.
func allSaid(p *plan.Plan) (out []string) {
	for _, c := range p.Checks {
		out = append(out, c.Name+": "+c.Figure)
	}
	for _, w := range p.Warnings {
		out = append(out, w.Text+" "+w.Fix)
	}
	for _, w := range p.Problems {
		out = append(out, w.Text+" "+w.Fix)
	}
	if p.Box == nil {
		return out
	}
	for _, n := range p.Box.Notes {
		out = append(out, n.Text)
	}
	for _, s := range p.Guide.Steps {
		out = append(out, s.Says...)
	}
	return append(out, readings.Supplies(p)...)
}
