package workbench

import (
	"fmt"
	"strings"

	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/insert"
	"brevium/core/reader"
	"brevium/core/record"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/words"
)

// Option finds a style's question by its identity, whichever style asks it; the
// brief's own style is asked first.
func Option(b *brief.Brief, id string) (style.Question, bool) {
	styles := style.Styles
	if own := style.Find(string(b.Box.Style)); own != nil {
		styles = append([]*style.Style{own}, styles...)
	}
	for _, s := range styles {
		for _, o := range s.Asks {
			if o.ID == id {
				return o, true
			}
		}
	}
	return style.Question{}, false
}

// FieldWords names a field for people: “seed packet: length”.
func FieldWords(b *brief.Brief, path string) string {
	if id, ok := strings.CutPrefix(path, "box.options."); ok {
		if o, ok := Option(b, id); ok {
			return words.Small(o.Label)
		}
		return words.Plain(id)
	}
	f, ok := brief.FieldAt(path)
	if !ok {
		return words.Plain(path[strings.LastIndexByte(path, '.')+1:])
	}
	owner := ""
	if at := path[:max(0, strings.LastIndexByte(path, '.'))]; strings.HasPrefix(at, "contents.") ||
		strings.HasPrefix(at, "box.pieces.") {
		owner = strings.TrimSpace(b.Get(at + ".name"))
	}
	if owner != "" && !strings.HasSuffix(path, ".name") {
		return owner + ": " + f.Label
	}
	return f.Label
}

// ValueWords writes what a field holds for people.
func ValueWords(b *brief.Brief, w request.Workshop, path, text string) string {
	name := text
	pick := func(choices []style.Choice) {
		for _, c := range choices {
			if c.ID == text {
				name = words.Small(c.Label)
			}
		}
	}
	switch path {
	case "box.style":
		if s := style.Find(text); s != nil {
			name = s.Title
		}
	case "card.stock":
		if c, ok := w.Card(text); ok {
			name = c.Title
		}
	case "card.sheet":
		if s, ok := w.Sheet(text); ok {
			name = s.Title
		}
	case "arrange.way":
		name = "another one"
	case "arrange.compartments":
		for _, k := range insert.Kinds {
			pick([]style.Choice{{ID: k.ID, Label: k.Title}})
		}
	case "tools.adhesive":
		for _, a := range shop.Adhesives {
			pick([]style.Choice{{ID: a.ID, Label: a.Title}})
		}
	case "units":
		pick([]style.Choice{{ID: "in", Label: "inches"}, {ID: "mm", Label: "millimetres"}, {ID: "cm", Label: "centimetres"}})
	}
	if strings.HasSuffix(path, ".shape") {
		for _, s := range contents.Shapes {
			pick([]style.Choice{{ID: s.ID, Label: s.Title}})
		}
	}
	if strings.HasSuffix(path, ".is") {
		pick(reader.Roles)
	}
	if id, ok := strings.CutPrefix(path, "box.options."); ok {
		if o, ok := Option(b, id); ok {
			pick(o.Choices)
		}
	}
	if strings.TrimSpace(text) == "" {
		return "left open"
	}
	return words.Cut(name, 60)
}

// Describe tells a change in words, for the record.
func Describe(was, now *brief.Brief, w request.Workshop, act string) string {
	if name, thing, _ := strings.Cut(act, ":"); acts[name].says != "" {
		if name == "add-usual" && thing != "" {
			return "Added " + words.Small(words.Cut(thing, 60))
		}
		return acts[name].says
	}
	var says []string
	more := 0
	for path, text := range now.All() {
		if old := was.Get(path); old == text {
			continue
		}
		if len(says) == 2 {
			more++
			continue
		}
		says = append(says, fmt.Sprintf("%s %s", FieldWords(now, path), ValueWords(now, w, path, text)))
	}
	for id, old := range brief.Sorted(was.Box.Options) {
		if _, is := now.Box.Options[id]; !is && old != "" && len(says) == 0 {
			says = append(says, FieldWords(was, "box.options."+id)+" cleared")
		}
	}
	switch {
	case len(says) == 0:
		return "a change"
	case more > 0:
		says = append(says, fmt.Sprintf("and %d more", more))
	}
	return words.Capital(strings.Join(says, "; "))
}

// Differ is a field that two documents say differently, in words.
type Differ struct{ Field, Was, Is string }

// Differences tells in words what two documents say differently.
func Differences(w request.Workshop, was, is brief.Brief) (out []Differ) {
	for _, d := range record.Differences(was, is) {
		of := &is
		if d.Is == "" && !is.Has(d.Field) {
			of = &was
		}
		label := FieldWords(of, d.Field)
		if strings.HasPrefix(d.Field, "contents.") && strings.HasSuffix(d.Field, ".name") {
			label = "what goes in"
		}
		out = append(out, Differ{words.Capital(label), ValueWords(&was, w, d.Field, d.Was),
			ValueWords(&is, w, d.Field, d.Is)})
	}
	if len(out) == 0 && string(was.Encode()) != string(is.Encode()) {
		out = append(out, Differ{"The set", "its boxes as they were", "its boxes as they are now"})
	}
	return out
}
