package desk

import (
	"strconv"
	"strings"

	"brevium/core/document"
)

// NudgeSaid reads by how many steps a field is to be moved, such as "contents.@1.length:-4"; 0 when that can't be read.
func NudgeSaid(nudge string) (path string, steps int) {
	path, by, _ := strings.Cut(nudge, ":")
	n, err := strconv.Atoi(by)
	if err != nil || n < -MostSteps || n > MostSteps {
		n = 0
	}
	return path, n
}

// NudgeCount moves a count by ones.
func NudgeCount[D any](f *document.Form[D]) func(d *D, nudge, from string) (document.Conflict, bool) {
	return func(d *D, nudge, _ string) (document.Conflict, bool) {
		path, n := NudgeSaid(nudge)
		if field, ok := f.Field(path); ok && field.Kind == document.Number && n != 0 {
			text := document.Get(d, path)
			if text == "" {
				text = "0"
			}
			f.Set(d, path, CountedOn(text, n))
		}
		return document.Conflict{}, true
	}
}

// MostSteps bounds how far the keys of one change move a field.
const MostSteps = 10_000

// CountedOn moves the number that a text begins with, and leaves the rest: a
// mass keeps its unit.
func CountedOn(text string, by int) string {
	text = strings.TrimSpace(text)
	digits := strings.IndexFunc(text, func(r rune) bool { return r < '0' || r > '9' })
	if digits < 0 {
		digits = len(text)
	}
	n, err := strconv.Atoi(text[:digits])
	if err != nil {
		return text // what can't be read is not guessed at
	}
	return strconv.Itoa(max(1, n+by)) + text[digits:]
}
