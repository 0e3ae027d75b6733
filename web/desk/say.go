package desk

import (
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"html/template"
	"io"
	"maps"
	"net/http"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/bench"
	"brevium/core/document"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/style"
	"brevium/core/words"
	"brevium/store"
)

// FieldMark is the mark in the page of a field.
func FieldMark(path string) string {
	return "f-" + strings.NewReplacer(".", "-", "@", "").Replace(path)
}

// NewMark is a short identity for a thing or a piece of one project.
func NewMark() string { return store.NewID()[:8] }

func C256(data []byte) string { return fmt.Sprintf("%x", sha256.Sum256(data)) }

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

// Today is the day it is.
func (s *Desk) Today() batch.Day { return batch.DayOf(s.Clock()) }

// Uploaded gives what was sent as a file, an error when none was chosen.
func Uploaded(c *echo.Context, field string) ([]byte, error) {
	header, err := c.FormFile(field)
	if err != nil {
		return nil, err
	}
	if header.Size == 0 {
		return nil, errors.New("nothing is in it")
	}
	file, err := header.Open()
	if err != nil {
		return nil, err
	}
	defer file.Close()
	return io.ReadAll(file)
}

// Clock writes minutes after midnight.
func Clock(m int) string { return fmt.Sprintf("%d:%02d", m/60%24, m%60) }

// MostNames is how many names of boxes there are to pick from.
const MostNames = 120

func AsFile(c *echo.Context, name string) {
	h := c.Response().Header()
	h.Set(echo.HeaderContentType, "text/csv; charset=utf-8")
	h.Set(echo.HeaderContentDisposition, fmt.Sprintf("attachment; filename=%q", name))
}

const MostListed = 50

func IsThickness(path string) bool {
	return strings.HasSuffix(path, ".caliper") || strings.HasSuffix(path, ".ten")
}

// Plainly writes a fraction as it can be typed again.
func Plainly(s string) string { return strings.ReplaceAll(s, "⁄", "/") }

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
	return template.HTML(esc(text[:from]) + `<a class="word" href="/words#` + m.ID + `" title="` + esc(m.Says) + `">` +
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
	return template.HTML(`<a class="what" href="/words#` + m.ID + `" title="` + esc(m.Says) + `" aria-label="What “` +
		esc(m.Word) + `” means">?</a>`)
}

// Pace is how fast this maker works, as far as that was recorded.
func (s *Desk) Pace(c *echo.Context) (bench.Pace, error) { return s.PaceNow(c.Request().Context()) }

func (s *Desk) PaceNow(ctx context.Context) (bench.Pace, error) {
	times, err := s.Store.Log.Times(ctx)
	return bench.PaceOf(times), err
}

const Nameless = "A box without a name"

var notInNames = regexp.MustCompile(`[^a-z0-9]+`)

func FileName(name string) string {
	name = strings.Trim(notInNames.ReplaceAllString(strings.ToLower(name), "-"), "-")
	if name == "" {
		return "box"
	}
	return name[:min(len(name), 60)]
}

// DaySaid writes a day of the record for people.
func DaySaid(day string) string {
	if d, err := batch.ParseDay(day); err == nil {
		return d.Format("2 Jan 2006")
	}
	return day
}

func SizeSaid(show func(measure.Length) measure.Shown, d style.Dims) string {
	l, w, h := show(d.Length), show(d.Width), show(d.Depth)
	return fmt.Sprintf("%s × %s × %s", Plainly(l.Text), Plainly(w.Text), Plainly(h.Text+" "+string(h.Unit)))
}

// ScoresSaid lists the scores of a piece one way.
func ScoresSaid(p *plan.Plan, piece *net.Piece, across bool) string {
	var out []string
	for _, pass := range scoresOf(piece, across) {
		if at := Plainly(p.Step.Show(pass.At).Text); !slices.Contains(out, at) {
			out = append(out, at)
		}
	}
	return strings.Join(out, ", ")
}

func ago(t time.Time) string {
	switch d := time.Since(t); {
	case d < time.Minute:
		return "just now"
	case d < time.Hour:
		return fmt.Sprintf("%d min ago", int(d.Minutes()))
	case d < 24*time.Hour:
		return fmt.Sprintf("%d h ago", int(d.Hours()))
	default:
		return t.Format("2 Jan 2006")
	}
}

// minutesSaid writes minutes, whole or not, for people.
func minutesSaid(m any) string {
	switch m := m.(type) {
	case int:
		return batch.MinutesSaid(m)
	case float64:
		return batch.MinutesSaid(int(m + 0.5))
	}
	return fmt.Sprint(m)
}

// scoresOf gives a piece's passes along the width, or down the height.
func scoresOf(p *net.Piece, alongWidth bool) (out []net.Pass) {
	for _, s := range p.Passes {
		if s.AlongWidth == alongWidth && !slices.ContainsFunc(out, func(o net.Pass) bool { return o.Name == s.Name }) {
			out = append(out, s)
		}
	}
	return out
}

// Area writes an area, given in square millimetres, in the maker's unit.
func Area(mm2 float64, u measure.Unit) string {
	if u == measure.Inches {
		return fmt.Sprintf("%.0f sq in", mm2/(25.4*25.4))
	}
	return fmt.Sprintf("%.0f cm²", mm2/100)
}

func PlainCount(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

// Said are answers with their labels, in pairs.
func Said(of ...string) (out []style.Choice) {
	for i := 0; i+1 < len(of); i += 2 {
		out = append(out, style.Choice{ID: of[i], Label: of[i+1]})
	}
	return out
}

// Called is a name, or what to say where there is none.
func Called(name, otherwise string) string {
	if words.Visible(name) {
		return name
	}
	return otherwise
}

// Thick says how thick card is: in inches in thousandths, as it is sold there.
func Thick(caliper measure.Length, u measure.Unit) string {
	if u == measure.Inches {
		return fmt.Sprintf("%.0f thousandths of an inch thick", caliper.MM()/25.4*1000)
	}
	return strings.TrimSuffix(caliper.Exact(measure.Millimetres), " mm") + " mm thick"
}

// Chosen reads the list that was chosen to be brought in; such are its headings.
func Chosen(c *echo.Context, such string) ([]byte, error) {
	header, err := c.FormFile("list")
	if err != nil {
		return nil, echo.NewHTTPError(http.StatusBadRequest, "No list was chosen. Choose a CSV file with headings such as "+such+".")
	}
	file, err := header.Open()
	if err != nil {
		return nil, err
	}
	defer file.Close()
	return io.ReadAll(file)
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
