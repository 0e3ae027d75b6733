// Package words holds what every sentence needs and no rule of the job does.
package words

import (
	"fmt"
	"regexp"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Count tells how many there are of something: "1 tab", "3 tabs".
func Count(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

// Capital begins a text with a capital, in any script that has them.
func Capital(s string) string {
	first, size := utf8.DecodeRuneInString(s)
	if size == 0 || first == utf8.RuneError {
		return s
	}
	return string(unicode.ToTitle(first)) + s[size:]
}

// Coins writes hundredths of a coin.
func Coins(hundredths int64) string { return fmt.Sprintf("%d.%02d", hundredths/100, hundredths%100) }

// Small begins a text with a small letter.
func Small(s string) string {
	first, size := utf8.DecodeRuneInString(s)
	if size == 0 || first == utf8.RuneError {
		return s
	}
	return string(unicode.ToLower(first)) + s[size:]
}

// Plain writes an identity such as "back-left-tab" as people say it.
func Plain(id string) string { return strings.ReplaceAll(id, "-", " ") }

// What belongs together in a length: a whole number and its fraction, the number and its unit.
var (
	mixed = regexp.MustCompile(`(\d) (\d+[/⁄]\d)`)
	unit  = regexp.MustCompile(`(\d) (mm|cm|in)\b`)
)

// Together keeps lengths from being broken over lines: the blanks in them do not break.
func Together(s string) string {
	return unit.ReplaceAllString(mixed.ReplaceAllString(s, "$1\u202f$2"), "$1\u00a0$2")
}

// Letters counts the letters of a text, however many bytes each takes.
func Letters(s string) int { return utf8.RuneCountInString(s) }

// Cut shortens a text to so many letters, and says that it did.
func Cut(s string, most int) string {
	n := 0
	for i := range s {
		if n == most {
			return s[:i] + "…"
		}
		n++
	}
	return s
}

// blank are marks that count as letters or signs and show nothing.
var blank = []rune{'\u115f', '\u1160', '\u2800', '\u3164', '\uffa0'}

// Visible reports whether anything of a text can be seen.
func Visible(s string) bool {
	return strings.ContainsFunc(s, func(r rune) bool {
		for _, b := range blank {
			if r == b {
				return false
			}
		}
		return r != utf8.RuneError && unicode.In(r, unicode.L, unicode.N, unicode.P, unicode.S)
	})
}

// List says several names in a sentence: "a, b and c".
func List(of []string) string { return row(of, "and") }

// Either says several choices in a sentence: "a, b or c".
func Either(of []string) string { return row(of, "or") }

func row(of []string, last string) string {
	if len(of) < 2 {
		return strings.Join(of, "")
	}
	return strings.Join(of[:len(of)-1], ", ") + " " + last + " " + of[len(of)-1]
}
