package web

import (
	"fmt"
	"html/template"
	"strings"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/style"
)

// field is one question of the brief.
type field struct {
	Path, Label, Help string
	Kind              string // length, count, text, notes, select, choice
	Kept              string // the field as the document has it
	Value, Open       string // Open is what an empty field means
	Wanted            bool   // nothing is written yet, and something should be
	Unit, Other       string
	Problem           *brief.Problem
	Choices           []style.Choice
}

// ID is the field's mark in the page.
func (f field) ID() string { return fieldMark(f.Path) }

// Steps says whether the arrow keys move it.
func (f field) Steps() bool { return f.Kind == "length" || f.Kind == "count" }

// Short says whether the answers are single words that can stand side by side.
func (f field) Short() bool {
	for _, c := range f.Choices {
		if c.Why != "" {
			return false
		}
	}
	return true
}

// group is a run of questions under one heading. Remove is the act that takes
// the whole group away.
type group struct {
	ID            string // its mark in the page
	Add, AddSays  string // a button that adds another of these
	Gallery       bool   // whether it leads to the gallery of styles
	Title, Remove string
	Keep          string // the thing's identity, to keep it in the library
	Fields, More  []field
	MoreSays      string
	Open          bool // More has something to mend
	How           string
	Drawing       template.HTML
	Says          []string
}

// form makes the questions of a stage.
type form struct {
	b *brief.Brief
	p *plan.Plan // of b itself, for its problems
	// shown is the plan on the table, for suggestions
	shown *plan.Plan
	shop  plan.Workshop
}

// widgets are how each kind of field is typed.
var widgets = map[brief.Kind]string{brief.Choice: "select", brief.Words: "text", brief.Distance: "length",
	brief.Number: "count", brief.Weight: "count", brief.YesNo: "tick"}

// ask is the field at a path, as the table of fields has it.
func (f form) ask(path string) field {
	asked, _ := brief.FieldAt(path)
	return f.field(widgets[asked.Kind], path, asked.Title(), asked.Help)
}

// open is ask for a field that may be left empty, with what that means.
func (f form) open(path, empty string) field {
	fd := f.ask(path)
	fd.Open = empty
	return fd
}

// pick is ask for a field of choices; buttons shows them all at once.
func (f form) pick(path string, choices []style.Choice) field {
	asked, _ := brief.FieldAt(path)
	return f.choice("select", path, asked.Title(), asked.Help, choices)
}

func (f form) buttons(path string, choices []style.Choice) field {
	asked, _ := brief.FieldAt(path)
	return f.choice("choice", path, asked.Title(), asked.Help, choices)
}

func (f form) field(kind, path, label, help string) field {
	out := field{Path: path, Label: label, Help: help, Kind: kind, Value: f.b.Get(path)}
	out.Kept = out.Value
	for _, pr := range f.p.Problems {
		if f.same(pr.Field, path) {
			out.Problem = &pr
		}
	}
	if kind != "length" {
		return out
	}
	u := f.p.Units
	out.Unit = string(u)
	out.Wanted = out.Problem != nil && strings.TrimSpace(out.Value) == ""
	if l, own, err := measure.ParseUnit(out.Value, u); err == nil {
		other := measure.Step{Size: measure.Millimetre / 10, Unit: measure.Millimetres}
		if own == measure.Millimetres {
			other = measure.Step{Size: measure.Inch / 32, Unit: measure.Inches}
		}
		shown := other.Show(l)
		out.Other = "about " + plainly(shown.Text+" "+string(shown.Unit))
		out.Value = strings.TrimSuffix(out.Value, " "+out.Unit)
	}
	return out
}

// same says whether a problem's field is this one: problems go by the place in
// the list, fields by the identity.
func (f form) same(problem, path string) bool {
	for i, item := range f.b.Contents {
		if rest, ok := strings.CutPrefix(path, "contents.@"+item.ID+"."); ok {
			return problem == fmt.Sprintf("contents.%d.%s", i, rest)
		}
	}
	for i, p := range f.b.Box.Pieces {
		if rest, ok := strings.CutPrefix(path, "box.pieces.@"+p.ID+"."); ok {
			return problem == fmt.Sprintf("box.pieces.%d.%s", i, rest)
		}
	}
	return problem == path
}

// plainly writes a fraction as it can be typed again.
func plainly(s string) string { return strings.ReplaceAll(s, "⁄", "/") }

func (f form) choice(kind, path, label, help string, choices []style.Choice) field {
	out := f.field(kind, path, label, help)
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
