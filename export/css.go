package export

import (
	"maps"
	"regexp"
	"slices"
	"strings"

	"brevium/draw/pen"
)

// The pictures' own style sheet, read for paper: what a rule sets of lines, fills and
// texts, with every colour as it is in print.

// style is what rules set of an element.
type style map[string]string

// simple is one compound of a selector: an element's name, if it is asked for, and classes
// of which every group must have one.
type simple struct {
	tag     string
	classes [][]string
}

type rule struct {
	chain []simple // from the outermost to the element itself
	sets  style
}

var (
	comments  = regexp.MustCompile(`(?s)/\*.*?\*/`)
	variables = regexp.MustCompile(`var\(--[a-z-]+, ?(#[0-9a-fA-F]+)\)`)
	either    = regexp.MustCompile(`:is\(([^()]*)\)`)
)

// rules are those of the pictures, in order. What asks for a state that paper does not have
// (focus, an attribute) is left out.
var rules = readRules(pen.CSS)

func readRules(css string) (out []rule) {
	css = variables.ReplaceAllString(comments.ReplaceAllString(css, ""), "$1")
	for block := range strings.SplitSeq(css, "}") {
		selectors, body, ok := strings.Cut(block, "{")
		if !ok {
			continue
		}
		sets := style{}
		for line := range strings.SplitSeq(body, ";") {
			if name, value, ok := strings.Cut(line, ":"); ok {
				sets[strings.TrimSpace(name)] = strings.TrimSpace(value)
			}
		}
		for _, one := range apart(selectors) {
			if chain, ok := readChain(one); ok {
				out = append(out, rule{chain, sets})
			}
		}
	}
	return out
}

// apart splits a list of selectors, and spells out the choices within each.
func apart(selectors string) (out []string) {
	depth, from := 0, 0
	var all []string
	for i, r := range selectors {
		switch {
		case r == '(':
			depth++
		case r == ')':
			depth--
		case r == ',' && depth == 0:
			all, from = append(all, selectors[from:i]), i+1
		}
	}
	for _, s := range append(all, selectors[from:]) {
		m := either.FindStringSubmatchIndex(s)
		if m == nil {
			out = append(out, strings.TrimSpace(s))
			continue
		}
		for choice := range strings.SplitSeq(s[m[2]:m[3]], ",") {
			out = append(out, apart(s[:m[0]]+strings.TrimSpace(choice)+s[m[1]:])...)
		}
	}
	return out
}

func readChain(selector string) (out []simple, ok bool) {
	if strings.ContainsAny(selector, ":[>~+*") || selector == "" {
		return nil, false
	}
	for part := range strings.FieldsSeq(selector) {
		words := strings.Split(part, ".")
		s := simple{tag: words[0]}
		for _, class := range words[1:] {
			s.classes = append(s.classes, []string{class})
		}
		out = append(out, s)
	}
	return out, true
}

// element is an element with the classes it has.
type element struct {
	tag     string
	classes []string
}

func (s simple) fits(e element) bool {
	if s.tag != "" && s.tag != e.tag {
		return false
	}
	for _, any := range s.classes {
		if !slices.ContainsFunc(any, func(c string) bool { return slices.Contains(e.classes, c) }) {
			return false
		}
	}
	return true
}

// fits reports whether a rule is for the last of a line of elements.
func (r rule) fits(line []element) bool {
	n := len(r.chain) - 1
	if !r.chain[n].fits(line[len(line)-1]) {
		return false
	}
	for i := len(line) - 2; i >= 0 && n > 0; i-- {
		if r.chain[n-1].fits(line[i]) {
			n--
		}
	}
	return n == 0
}

// weight is how particular a rule is: those that are more come later.
func (r rule) weight() (n int) {
	for _, s := range r.chain {
		n += 10 * len(s.classes)
		if s.tag != "" {
			n++
		}
	}
	return n
}

// styleOf is what the rules set of the last of a line of elements.
func styleOf(line []element) style {
	var of []rule
	for _, r := range rules {
		if r.fits(line) {
			of = append(of, r)
		}
	}
	slices.SortStableFunc(of, func(a, b rule) int { return a.weight() - b.weight() })
	out := style{}
	for _, r := range of {
		maps.Copy(out, r.sets)
	}
	return out
}
