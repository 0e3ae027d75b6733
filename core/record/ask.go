package record

import (
	"regexp"
	"slices"
	"strings"
	"time"
	"unicode"

	"brevium/core/measure"
)

// Ask is what is looked for among makings.
type Ask struct {
	Words []string         // all of which stand in it
	Sizes []measure.Length // each of which something in it has, nearly
	Said  []string         // the same as they were written
	Fit   string
	Since string // days, both of them in it; "" leaves that end open
	Until string
}

// Near is how far a size may be off the one that is asked for, to whole millimetres.
const Near = 3 * measure.Millimetre / 2

// idle are words of a question that say nothing of what is looked for.
var idle = strings.Fields("what which when who whom did do does was were is are the a an last time of for in it its to i my we our " +
	"box boxes with how and or any ever that made make making lid lids")

// sized finds a length with its unit: 60 mm, 2 3/8 in, 5¾", 14.6cm.
var sized = regexp.MustCompile(`(?i)(\d+(?:[.,]\d+)?(?:[ -]\d+/\d+)?[¼½¾⅛⅜⅝⅞]?|\d+/\d+|[¼½¾⅛⅜⅝⅞])` +
	`\s*(mm|cm|in\b|inch(?:es)?\b|"|″)`)

// Question reads what is asked in plain words: “what fitted a 60 mm candle last time?” looks for
// boxes that fitted right, with a candle, and with something of 60 mm in them; “which lids were too tight last
// year?” for those of that year that were.
func Question(text string, today time.Time) (a Ask) {
	text = sized.ReplaceAllStringFunc(text, func(s string) string {
		l, err := measure.Parse(strings.NewReplacer("inches", "in", "inch", "in", "Inches", "in", "″", `"`).Replace(s),
			measure.Millimetres)
		if err != nil || l <= 0 {
			return s
		}
		a.Sizes, a.Said = append(a.Sizes, l), append(a.Said, strings.TrimSpace(s))
		return " "
	})
	text, a.Since, a.Until = when(strings.Join(strings.Fields(strings.ToLower(text)), " "), today)
	text, a.Fit = found(text)
	for _, word := range strings.FieldsFunc(text, func(r rune) bool {
		return !unicode.IsLetter(r) && !unicode.IsDigit(r) && !unicode.Is(unicode.M, r)
	}) {
		if !slices.Contains(idle, word) {
			a.Words = append(a.Words, word)
		}
	}
	return a
}

// Match writes words and sizes as SQLite's full text search has them: a word may go on.
func (a Ask) Match() string {
	var out []string
	for _, w := range a.Words {
		out = append(out, `"`+strings.ReplaceAll(w, `"`, `""`)+`"*`)
	}
	for _, l := range a.Sizes {
		out = append(out, strings.TrimSpace(sizeWord(int(l.Near(measure.Millimetre).MM()))))
	}
	return strings.Join(out, " ")
}
