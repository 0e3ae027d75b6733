package desk

import (
	"html/template"
	"maps"
	"regexp"
	"slices"
	"strings"

	"brevium/core/words"
)

// knownWords finds a word of the glossary in a label, in the plural too.
var knownWords = func() *regexp.Regexp {
	var all []string
	for _, m := range words.Glossary {
		all = append(all, regexp.QuoteMeta(m.Word))
	}
	all = append(all, slices.Sorted(maps.Keys(words.Short))...)
	return regexp.MustCompile(`(?i)\b(` + strings.Join(all, "|") + `)s?\b`)
}()

// WordIn finds the first word of a text that the glossary has.
func WordIn(text string) (m words.Meaning, from, to int, ok bool) {
	at := knownWords.FindStringSubmatchIndex(text)
	if at == nil {
		return m, 0, 0, false
	}
	word := strings.ToLower(text[at[2]:at[3]])
	if long, ok := words.Short[word]; ok {
		word = long
	}
	for _, m := range words.Glossary {
		if m.Word == word {
			return m, at[0], at[1], true
		}
	}
	return m, 0, 0, false
}

// wordLink makes the first word of a sentence that the glossary has lead there.
func wordLink(text string) template.HTML {
	esc := template.HTMLEscapeString
	m, from, to, ok := WordIn(text)
	if !ok {
		return template.HTML(esc(text))
	}
	return template.HTML(esc(text[:from]) + `<a class="word" href="/help/` + m.ID + `" title="` + esc(m.Says) + `">` +
		esc(text[from:to]) + `</a>` + esc(text[to:]))
}

// Plain are words that every maker knows; a mark beside them would only be in
// the way.
var Plain = map[string]bool{"base": true, "lid": true, "wall": true, "piece": true, "panel": true, "flap": true,
	"tab": true, "score": true, "step": true, "proof": true}

// wordMark is a small mark to stand beside a label, which leads to what its
// word means; none where the glossary has no such word.
func wordMark(label string) template.HTML {
	m, _, _, ok := WordIn(label)
	if !ok || Plain[m.ID] {
		return ""
	}
	esc := template.HTMLEscapeString
	return template.HTML(`<a class="what" href="/help/` + m.ID + `" title="` + esc(m.Says) + `" aria-label="What “` +
		esc(m.Word) + `” means">?</a>`)
}
