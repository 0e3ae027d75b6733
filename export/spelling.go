package export

import (
	"strings"
	"unicode"

	"brevium/core/brief"
	"brevium/core/document"
	"brevium/core/sets"
	"brevium/core/words"
)

// spelling is how the words of a job are spelt on paper: as in Britain, or as in America but for words that its maker
// typed, which stay as they are.
func spelling(j sets.Job, american bool) func(string) string {
	if !american {
		return func(s string) string { return s }
	}
	typed := map[string]bool{}
	for _, p := range j.Plans {
		for path, text := range p.Brief.All() {
			if f, ok := brief.FieldAt(path); ok && f.Kind == document.Words {
				for w := range strings.FieldsFuncSeq(text, func(r rune) bool { return !unicode.IsLetter(r) }) {
					typed[strings.ToLower(w)] = true
				}
			}
		}
	}
	return func(s string) string {
		return words.AmericanBut(s, func(word string) bool { return typed[strings.ToLower(word)] })
	}
}
