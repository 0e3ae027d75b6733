package desk

import (
	"cmp"
	"html/template"
	"strings"
	"time"

	"brevium/core/brief"
	"brevium/core/document"
	"brevium/core/measure"
	"brevium/core/style"
)

// Field is one question of the brief.
type Field struct {
	Path, Label, Help string
	Kind              string // length, count, text, notes, select, choice
	Kept              string // the field as the document has it
	Value, Open       string // Open is what an empty field means
	Wanted            bool   // nothing is written yet, and something should be
	Unit, Other       string
	Problem           *brief.Problem
	Choices           []style.Choice
	Bare              bool   // its label is for who can't see where it stands
	In                string // what its mark begins with, where the page has another field of this path
}

// ID is the field's mark in the page.
func (f Field) ID() string { return f.In + FieldMark(f.Path) }

// IsDay reports whether what is typed can be shown as a day to choose.
func (f Field) IsDay() bool {
	_, err := time.Parse(time.DateOnly, f.Value)
	return err == nil || f.Value == ""
}

// Steps reports whether the arrow keys move it.
func (f Field) Steps() bool { return f.Kind == "length" || f.Kind == "count" }

// Group is a run of questions under one heading. Remove is the act that takes
// the whole group away.
type Group struct {
	ID            string // its mark in the page
	Add, AddSays  string // a button that adds another of these
	Gallery       bool   // whether it leads to the gallery of styles
	Title, Remove string
	Keep          string // the thing's identity, to keep it in the library
	Fields, More  []Field
	MoreSays      string
	MoreID        string // what was opened once is open the next time, wherever there is such a thing
	Open          bool   // More has something to fix
	How           string
	Drawing       template.HTML
	Says          []string // beneath the fields
	Tells         []string // beneath those of More
}

// getter is what a form asks about: a document of any kind.
type getter interface{ Get(path string) string }

// Asked is a document that has no such method of its own.
type Asked[D any] struct{ Of *D }

func (a Asked[D]) Get(path string) string { return document.Get(a.Of, path) }

// Form makes the questions of a stage, or of a part of the shop.
type Form struct {
	Doc    getter
	At     func(path string) (document.Field, bool)
	Placed func(path string) string // of a field by identities: by places, as problems go
	Report *brief.Report            // what is wrong with it
	Thick  bool                     // how thick card is, is said in millimetres, whatever else is not
}

// widgets are how each kind of field is typed.
var widgets = map[document.Kind]string{document.Choice: "select", document.Words: "text", document.Distance: "length",
	document.Offset: "text", document.Number: "count", document.Weight: "count", document.YesNo: "tick", document.Day: "day"}

// Ask is the field at a path, as the table of fields has it.
func (f Form) Ask(path string) Field {
	asked, _ := f.At(path)
	return f.Field(widgets[asked.Kind], path, asked.Title(), asked.Help)
}

// Open is ask for a field that may be left empty, with what that means.
func (f Form) Open(path, empty string) Field {
	fd := f.Ask(path)
	fd.Open = strings.TrimSuffix(inUnit(empty, f.unitAt(path)), " "+cmp.Or(fd.Unit, "?"))
	return fd
}

// inUnit writes a usual length in the unit of the page: about, to a sixteenth or a millimetre, or finer if it is less
// than any mark. A text that is no length stays.
func inUnit(text string, u measure.Unit) string {
	l, own, err := measure.ParseUnit(text, u)
	switch {
	case err != nil || own.Metric() == u.Metric():
		return text
	case l < 3*measure.Millimetre:
		return l.Fine(u)
	}
	mark := measure.Inch / 16
	if u.Metric() {
		mark = measure.Millimetre
	}
	if near := l.Near(mark); near != l {
		return "about " + near.Exact(u)
	}
	return l.Exact(u)
}

// Pick is ask for a field of choices; buttons shows them all at once.
func (f Form) Pick(path string, choices []style.Choice) Field {
	asked, _ := f.At(path)
	return f.Choice("select", path, asked.Title(), asked.Help, choices)
}

func (f Form) Buttons(path string, choices []style.Choice) Field {
	asked, _ := f.At(path)
	return f.Choice("choice", path, asked.Title(), asked.Help, choices)
}

func (f Form) Field(kind, path, label, help string) Field {
	out := Field{Path: path, Label: label, Help: help, Kind: kind, Value: f.Doc.Get(path)}
	out.Kept = out.Value
	for _, pr := range f.Report.Problems {
		if out.Problem == nil && f.same(pr.Field, path) {
			out.Problem = &pr
		}
	}
	if kind != "length" {
		return out
	}
	for _, w := range f.Report.Warnings {
		for at := range w.Set.All() {
			if w.Code == "inches" && out.Problem == nil && f.same(at, path) {
				out.Problem = &brief.Problem{Field: at, Text: w.Text, Fix: w.Fix, Set: w.Set, Press: w.Press}
			}
		}
	}
	u := f.unitAt(path)
	out.Unit = string(u)
	out.Wanted = out.Problem != nil && strings.TrimSpace(out.Value) == ""
	if l, own, err := measure.ParseUnit(out.Value, u); err == nil {
		other := measure.Step{Size: measure.Millimetre / 10, Unit: measure.Millimetres}
		if own.Metric() {
			other = measure.Step{Size: measure.Inch / 32, Unit: measure.Inches}
		}
		shown := other.Show(l)
		out.Other = "about " + Plainly(shown.Text+" "+string(shown.Unit))
		if out.Value = strings.TrimSuffix(out.Value, " "+out.Unit); own != u {
			out.Unit = "" // it says its own
		}
	}
	return out
}

// unitAt is the unit a bare number in a field takes: card is measured in millimetres
// everywhere.
func (f Form) unitAt(path string) measure.Unit {
	if f.Thick && IsThickness(path) {
		return measure.Millimetres
	}
	return f.Report.Units
}

// same reports whether a problem's field is this one: problems go by the place in the list, fields by the identity.
func (f Form) same(problem, path string) bool {
	return problem == path || f.Placed != nil && problem == f.Placed(path)
}

func (f Form) Choice(kind, path, label, help string, choices []style.Choice) Field {
	out := f.Field(kind, path, label, help)
	out.Choices = choices
	known := false
	for _, c := range choices {
		known = known || c.ID == out.Value
	}
	if out.Value == "" && len(choices) > 0 {
		out.Value = choices[0].ID
	} else if !known && kind != "half" {
		// What a document says is shown, even where it makes no sense.
		out.Choices = append([]style.Choice{{ID: out.Value, Label: "“" + out.Value + "”"}}, choices...)
	}
	return out
}
