package brief

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"brevium/core/measure"
	"brevium/core/words"
)

// Problem is something in the brief that keeps a box from being made of it: which field, what is wrong in the
// maker's words, what would put it right, and the fields that one click writes to do so.
type Problem struct {
	Field string  `json:"field"`
	Text  string  `json:"text"`
	Fix   string  `json:"fix"`
	Set   Changes `json:"set,omitempty"`
	Press string  `json:"-"` // what the button says that makes the changes, where it is not “Do this”
}

// Warning is something a plan can be cut with, but that the maker should
// know. Set holds the fields that would mend it, if one click can.
type Warning struct {
	Code  string  `json:"code"`
	Text  string  `json:"text"`
	Fix   string  `json:"fix"`
	Set   Changes `json:"set,omitempty"`
	Press string  `json:"-"`
}

// Fix is a change that would bring every piece on to its sheet: what, by how much, and the fields that do it.
type Fix struct {
	Text string  `json:"text"`
	Set  Changes `json:"set"`
}

// Report gathers what there is to say of a brief, in its units.
type Report struct {
	Units    measure.Unit
	Step     measure.Step
	Problems []Problem
	Warnings []Warning
}

// Problem notes what is wrong with a field, unless the field has one already.
// Set names fields and what to write in them, in pairs.
func (r *Report) Problem(field, text, fix string, set ...string) {
	r.Refuse(Problem{Field: field, Text: text, Fix: fix, Set: To(set...)})
}

// Refuse is Problem of one that is put together already.
func (r *Report) Refuse(p Problem) {
	if !slices.ContainsFunc(r.Problems, func(o Problem) bool { return o.Field == p.Field }) {
		r.Problems = append(r.Problems, p)
	}
}

// Warn notes a warning, once.
func (r *Report) Warn(w Warning) {
	if !slices.ContainsFunc(r.Warnings, func(said Warning) bool { return said.Code == w.Code && said.Text == w.Text }) {
		r.Warnings = append(r.Warnings, w)
	}
}

// Say writes a length for a sentence, such as "5 3/4 in" or "about 89 mm".
func (r *Report) Say(l measure.Length) string {
	s := r.Step.Show(l)
	return strings.ReplaceAll(s.String(), "⁄", "/")
}

// Reader turns typed fields into numbers and gathers what can't be read.
type Reader struct{ *Report }

// NewReader settles units and step, which everything else is read in.
func NewReader(b *Brief) *Reader {
	r := &Reader{&Report{Units: measure.Inches}}
	switch b.Units {
	case "in":
	case "mm", "cm":
		r.Units = measure.Unit(b.Units)
	default:
		r.Problem("units", fmt.Sprintf("Brevium doesn't measure in %q.", b.Units), "Choose in, mm or cm.")
	}
	step, err := measure.ParseStep(string(b.Tools.Step), r.Units)
	if err != nil {
		r.Problem("tools.step", sentence(err), "Choose the smallest mark on your tools.")
		step = measure.DefaultStep(r.Units)
	}
	step = step.In(r.Units)
	// A project in inches may be cut with a metric trimmer: numbers are shown
	// in the unit of the marks they are cut by.
	r.Step = step
	return r
}

// called is what people call a field: as it is said here, or as the table of fields has it.
func called(field string, as []string) string {
	if len(as) > 0 {
		return as[0]
	}
	f, _ := FieldAt(field)
	return f.Title()
}

// Length reads a length greater than nothing. It goes by the field's label, unless another is given.
func (r *Reader) Length(field string, text Text, as ...string) (measure.Length, bool) {
	l, ok := r.LengthOrNone(field, text, as...)
	if ok && l == 0 {
		r.Problem(field, called(field, as)+" can't be 0.", "Give it a size. "+measure.How)
		return 0, false
	}
	return l, ok
}

// LengthOrNone reads a length that may be zero.
func (r *Reader) LengthOrNone(field string, text Text, as ...string) (measure.Length, bool) {
	l, err := measure.Parse(string(text), r.Units)
	if err != nil {
		r.Problem(field, called(field, as)+": "+strings.TrimSuffix(err.Error(), ".")+".", measure.How)
		return 0, false
	}
	if r.Units.Metric() && measure.Fraction(string(text)) && field != "" {
		inches := strings.TrimSpace(string(text)) + " in"
		says := fmt.Sprintf("%s: “%s” is a fraction, but this box is in %s.", called(field, as), text, r.Units.Word())
		r.Warn(Warning{Code: "inches", Text: says, Fix: "Did you mean inches?", Set: To(field, inches), Press: "Use inches"})
	}
	return l, true
}

// Lengths reads a list of distances from an edge of a piece of a size, in order: with commas or "and" between them;
// "both" after one takes it from the far edge too.
func (r *Reader) Lengths(field string, text Text, size measure.Length) ([]measure.Length, bool) {
	var out []measure.Length
	words := strings.NewReplacer(" and ", ",", ";", ",", "&", ",", "\n", ",").Replace(string(text))
	for word := range strings.SplitSeq(words, ",") {
		word = strings.TrimSpace(word)
		if word == "" {
			continue
		}
		word, both := strings.CutSuffix(word, "both")
		l, ok := r.Length(field, Text(strings.TrimSpace(word)), "A score")
		if !ok {
			return nil, false
		}
		out = append(out, l)
		if both {
			out = append(out, size-l)
		}
	}
	slices.Sort(out)
	return slices.Compact(out), true
}

// Count reads a whole number from 1 to most.
func (r *Reader) Count(field string, text Whole, most int) (int, bool) {
	what := called(field, nil)
	s := strings.TrimSpace(string(text))
	n, err := strconv.Atoi(s)
	switch {
	case s == "":
		r.Problem(field, what+" is empty.", "Write a whole number, 1 or more.")
	case err != nil && strings.Trim(s, "0123456789") == "":
		r.Problem(field, fmt.Sprintf("%s: %s is too many.", what, s), fmt.Sprintf("The most is %d.", most))
	case err != nil:
		r.Problem(field, fmt.Sprintf("%s: %q is not a whole number.", what, s), "Write a whole number, 1 or more.")
	case n < 1:
		r.Problem(field, what+": write at least 1.", "Write a whole number, 1 or more.")
	case n > most:
		r.Problem(field, fmt.Sprintf("%s: %d is too many.", what, n), fmt.Sprintf("The most is %d.", most))
	default:
		return n, true
	}
	return 0, false
}

// Flag reads an answer of yes or no, or gives what it is when left open.
func (r *Reader) Flag(field string, text Flag, open bool) bool {
	switch text {
	case "yes":
		return true
	case "no":
		return false
	case "":
		return open
	}
	r.Problem(field, fmt.Sprintf("%s: %q isn't yes or no.", called(field, nil), text), "Answer yes or no.")
	return open
}

// Mass reads a mass such as "120 g", "1.2 kg", "4 oz" or "1/2 lb", in grams; a
// bare number is grams. Nothing written is nothing known, 0.
func (r *Reader) Mass(field string, text Text) float64 {
	s := strings.ToLower(strings.TrimSpace(string(text)))
	if s == "" {
		return 0
	}
	grams := 1.0
	for _, u := range []struct {
		suffix string
		grams  float64
	}{{"kg", 1000}, {"oz", 28.349523125}, {"lb", 453.59237}, {"g", 1}} {
		if rest, ok := strings.CutSuffix(s, u.suffix); ok {
			s, grams = strings.TrimSpace(rest), u.grams
			break
		}
	}
	// A number is written like a length is.
	l, err := measure.Parse(s+" mm", measure.Millimetres)
	if err != nil || s == "" {
		r.Problem(field, fmt.Sprintf("%s: %q isn't a weight.", called(field, nil), text),
			"Write it like 120 g, 4 oz or 1/2 lb, or leave it empty.")
		return 0
	}
	return l.MM() * grams
}

// Name reads a name that people will see.
func (r *Reader) Name(field string, text Text, what string) string {
	name := strings.Join(strings.Fields(string(text)), " ")
	if !words.Visible(name) {
		r.Problem(field, what+" has no name.", "Give it a name you will know it by.")
	}
	if words.Letters(name) > 80 {
		r.Problem(field, what+" has a name too long to print.", "Keep it under 80 letters. Use the notes for more.")
	}
	return name
}

func sentence(err error) string { return words.Capital(err.Error()) + "." }
