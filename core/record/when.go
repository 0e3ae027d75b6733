package record

import (
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode"

	"brevium/core/measure"
)

// What a question says of time and of how a box was found.

const months = `jan(?:uary)?|feb(?:ruary)?|mar(?:ch)?|apr(?:il)?|may|june?|` +
	`july?|aug(?:ust)?|sept?(?:ember)?|oct(?:ober)?|nov(?:ember)?|dec(?:ember)?`

var (
	aDay    = regexp.MustCompile(`\b(today|yesterday)\b`)
	aSpan   = regexp.MustCompile(`\b(this|last|past) (week|month|year)\b`)
	ago     = regexp.MustCompile(`\b(?:(since|in the last|within) )?(\d{1,3}|an?|one|two|three|six) (day|week|month|year)s?( ago)?\b`)
	aMonth  = regexp.MustCompile(`\b(in|of|since|before|after|until|last) (` + months + `)\b(?: (\d{4}))?`)
	aYear   = regexp.MustCompile(`\b(?:(in|of|since|before|after|until) )?((?:19|20)\d\d)\b`)
	verdict = regexp.MustCompile(`\b(too tight|tight|too loose|loose|just right|fitted|fits|fit)\b`)
	small   = map[string]int{"a": 1, "an": 1, "one": 1, "two": 2, "three": 3, "six": 6}
)

// span is from one day to another, both of them in it; a zero day leaves that end open.
type span struct{ from, to time.Time }

func (s span) days() (from, to string) {
	if !s.from.IsZero() {
		from = s.from.Format(day)
	}
	if !s.to.IsZero() {
		to = s.to.Format(day)
	}
	return from, to
}

// by narrows a span by the word before it: since, after, before, until.
func (s span) by(word string) span {
	switch word {
	case "since":
		s.to = time.Time{}
	case "after":
		s.from, s.to = s.to.AddDate(0, 0, 1), time.Time{}
	case "before":
		s.from, s.to = time.Time{}, s.from.AddDate(0, 0, -1)
	case "until":
		s.from = time.Time{}
	}
	return s
}

// unit is the week, month or year that a day lies in.
func unit(name string, of time.Time) span {
	switch name {
	case "week":
		from := of.AddDate(0, 0, -(int(of.Weekday())+6)%7)
		return span{from, from.AddDate(0, 0, 6)}
	case "month":
		from := time.Date(of.Year(), of.Month(), 1, 0, 0, 0, 0, time.UTC)
		return span{from, from.AddDate(0, 1, -1)}
	case "year":
		return span{time.Date(of.Year(), 1, 1, 0, 0, 0, 0, time.UTC), time.Date(of.Year(), 12, 31, 0, 0, 0, 0, time.UTC)}
	}
	return span{of, of}
}

func back(of time.Time, n int, name string) time.Time {
	switch name {
	case "week":
		return of.AddDate(0, 0, -7*n)
	case "month":
		return unit("month", of).from.AddDate(0, -n, 0)
	case "year":
		return of.AddDate(-n, 0, 0)
	}
	return of.AddDate(0, 0, -n)
}

// when takes what a question says of time out of it.
func when(text string, today time.Time) (rest, from, to string) {
	today = time.Date(today.Year(), today.Month(), today.Day(), 0, 0, 0, 0, time.UTC)
	var s span
	found := false
	take := func(re *regexp.Regexp, read func(m []string) (span, bool)) {
		if m := re.FindStringSubmatch(text); m != nil && !found {
			if got, ok := read(m); ok {
				s, found, text = got, true, strings.Replace(text, m[0], " ", 1)
			}
		}
	}
	take(aDay, func(m []string) (span, bool) {
		d := today
		if m[1] == "yesterday" {
			d = back(today, 1, "day")
		}
		return span{d, d}, true
	})
	take(aSpan, func(m []string) (span, bool) {
		of := today
		if m[1] == "last" {
			of = back(today, 1, m[2])
		}
		if m[1] == "past" {
			return span{from: back(today, 1, m[2])}, true
		}
		return unit(m[2], of), true
	})
	take(aMonth, func(m []string) (span, bool) {
		t, _ := time.Parse("Jan", strings.ToUpper(m[2][:1])+m[2][1:3])
		year := today.Year()
		if m[3] != "" {
			year, _ = strconv.Atoi(m[3])
		} else if t.Month() > today.Month() || m[1] == "last" && t.Month() == today.Month() {
			year--
		}
		return unit("month", time.Date(year, t.Month(), 1, 0, 0, 0, 0, time.UTC)).by(m[1]), true
	})
	take(ago, func(m []string) (span, bool) {
		n, err := strconv.Atoi(m[2])
		if err != nil {
			n = small[m[2]]
		}
		if m[4] == "" && m[1] == "" {
			return span{}, false // six months of what?
		}
		at := back(today, n, m[3])
		if m[1] != "" {
			return span{from: at}, true
		}
		return unit(m[3], at), true
	})
	take(aYear, func(m []string) (span, bool) {
		year, _ := strconv.Atoi(m[2])
		return unit("year", time.Date(year, 1, 1, 0, 0, 0, 0, time.UTC)).by(m[1]), true
	})
	from, to = s.days()
	return text, from, to
}

// found takes what a question says of how a box fitted out of it.
func found(text string) (rest, fit string) {
	rest = verdict.ReplaceAllStringFunc(text, func(s string) string {
		switch {
		case strings.HasSuffix(s, "tight"):
			fit = "tight"
		case strings.HasSuffix(s, "loose"):
			fit = "loose"
		default:
			fit = "right"
		}
		return " "
	})
	return rest, fit
}

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
