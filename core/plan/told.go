package plan

import (
	"regexp"
	"slices"
	"strconv"
	"strings"

	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/words"
)

// The proof reckons in millimetres and calls faces by what the recipe calls
// them. What it found is told in the project's unit, with faces and pieces
// named as people do.

var (
	inMM  = regexp.MustCompile(`-?\b\d+\.\d{1,2} mm\b`) // reckoned, not typed
	inCM2 = regexp.MustCompile(`(\d+(?:\.\d+)?) cm²`)
)

func (p *Plan) told(checks []fold.Check) []fold.Check {
	var names []string
	for _, piece := range p.Box.Pieces() {
		names = append(names, piece.Name)
		for _, f := range piece.Faces {
			names = append(names, f.Name)
		}
	}
	names = slices.DeleteFunc(names, func(n string) bool { return !strings.Contains(n, "-") })
	// The longest first: one name may be a part of another.
	slices.SortFunc(names, func(a, b string) int { return len(b) - len(a) })
	var pairs []string
	for _, n := range slices.Compact(names) {
		pairs = append(pairs, n, words.Plain(n))
	}
	plainly := strings.NewReplacer(pairs...)
	for i := range checks {
		checks[i].Name = plainly.Replace(checks[i].Name)
		checks[i].Figure = InUnit(plainly.Replace(checks[i].Figure), p.Step.Unit)
	}
	return checks
}

// InUnit writes the millimetres and square centimetres of a text in inches,
// where those are the unit.
func InUnit(text string, u measure.Unit) string {
	if u == measure.Millimetres {
		return text
	}
	number := func(s string) float64 {
		n, _ := strconv.ParseFloat(strings.Fields(s)[0], 64)
		return n
	}
	text = inMM.ReplaceAllStringFunc(text, func(s string) string {
		const finest = measure.Inch / 64
		if u == measure.Centimetres {
			return strconv.FormatFloat(number(s)/10, 'f', -1, 64) + " cm"
		}
		switch l := measure.FromMM(number(s)); {
		case l == 0:
			return "0 in"
		case l < 0 && -l < finest:
			return "a hair under 0 in"
		case l.Abs() < finest:
			return "less than 1/64 in"
		default:
			return strings.ReplaceAll((measure.Step{Size: finest, Unit: measure.Inches}).Show(l.Near(finest)).String(), "⁄", "/")
		}
	})
	if u.Metric() || !strings.Contains(text, "cm²") {
		return text
	}
	return inCM2.ReplaceAllStringFunc(text, func(s string) string {
		return strconv.FormatFloat(number(s)/6.4516, 'f', 1, 64) + " sq in"
	})
}
