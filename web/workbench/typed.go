package workbench

import (
	"fmt"
	"strconv"
	"strings"

	"brevium/core/brief"
	"brevium/core/document"
	"brevium/core/measure"
	"brevium/web/desk"
)

// What a form holds, as the document writes it.

// known reports whether a form may hold a field: one of the document, or an answer
// to a question that some style asks.
func known(path string) bool {
	if id, ok := strings.CutPrefix(path, "box.options."); ok {
		_, ok := Option(&brief.Brief{}, id)
		return ok
	}
	_, ok := brief.FieldAt(path)
	return ok
}

// AsStored writes a field as the newest brief does, where it says the same
// already; else a length with its unit, so that it stays what it is when the
// project's unit changes, and anything else as typed.
func AsStored(path, text string, seen, head *brief.Brief) string {
	f, _ := brief.FieldAt(path)
	write := func(text string, units brief.Text) (out string, length bool) {
		sign, said := "", strings.TrimSpace(text)
		if back, ok := strings.CutPrefix(said, "-"); ok && f.Kind == document.Offset {
			sign, said = "-", back
		}
		if measure.Unit(units).Metric() && measure.Fraction(said) {
			return strings.TrimSpace(text), false // inches, perhaps: that is asked
		}
		l, unit, err := measure.ParseUnit(said, measure.Unit(units))
		if err != nil || !IsLength(path) && f.Kind != document.Offset {
			return strings.TrimSpace(text), false
		}
		return sign + l.Exact(unit), true
	}
	out, length := write(text, seen.Units)
	is := head.Get(path)
	if same, _ := write(is, head.Units); out == same {
		return is
	}
	if length {
		return out
	}
	return text
}

// IsLength reports whether a field holds a length.
func IsLength(path string) bool {
	if id, ok := strings.CutPrefix(path, "box.options."); ok {
		o, ok := Option(&brief.Brief{}, id)
		return ok && len(o.Choices) == 0
	}
	f, ok := brief.FieldAt(path)
	return ok && f.Kind == document.Distance
}

// Nudged moves a field by whole steps: "contents.@1.length:-4" takes a length
// four marks of the tools down, "contents.@1.count:1" a count one up. An empty
// field starts from what it means when it is left open.
func Nudged(b *brief.Brief, nudge, from string) (document.Conflict, bool) {
	path, n := desk.NudgeSaid(nudge)
	if n == 0 || !known(path) {
		return document.Conflict{}, true
	}
	if !b.Has(path) {
		return document.Conflict{Field: path, Mine: fmt.Sprintf("%d steps", n), Gone: true}, false
	}
	text := b.Get(path)
	empty := strings.TrimSpace(text) == ""
	if empty {
		text = from
	}
	if f, ok := brief.FieldAt(path); ok && (f.Kind == document.Number || f.Kind == document.Weight) {
		if _, err := strconv.Atoi(strings.TrimSpace(text)); empty && err != nil {
			text = "0"
		}
		b.Set(path, desk.CountedOn(text, n))
		return document.Conflict{}, true
	}
	if !IsLength(path) {
		return document.Conflict{}, true
	}
	r := brief.NewReader(b)
	l, err := measure.Parse(text, r.Units)
	if err != nil && !empty {
		return document.Conflict{}, true // what can't be read is not guessed at
	}
	if n > 0 {
		l = l.Down(r.Step.Size)
	} else {
		l = l.Up(r.Step.Size)
	}
	l = min(max(r.Step.Size, l+measure.Length(n)*r.Step.Size), measure.Max)
	b.Set(path, l.Exact(r.Units))
	return document.Conflict{}, true
}
