package desk

import (
	"bytes"
	"net/http"
	"regexp"
	"strings"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/core/words"
)

const spellingCookie = "spelling"

// American reports whether words are spelt as in America for who asks: as was chosen in this browser, or for this house,
// or as the browser asks for.
func (s *Desk) American(c *echo.Context) bool {
	if k, err := c.Cookie(spellingCookie); err == nil {
		return k.Value == "us"
	}
	if house := s.lastRead().Habit("spelling"); house != "" {
		return house == "us"
	}
	return asksAmerican(c)
}

func asksAmerican(c *echo.Context) bool {
	first, _, _ := strings.Cut(c.Request().Header.Get("Accept-Language"), ",")
	first = strings.ToLower(strings.TrimSpace(first))
	return strings.HasPrefix(first, "en-us") || first == "en"
}

// Guess is what a browser says of where somebody is: the unit and the paper that are usual there, and the spelling.
func Guess(c *echo.Context) (unit, paper, spelling string) {
	first, _, _ := strings.Cut(c.Request().Header.Get("Accept-Language"), ",")
	_, land, _ := strings.Cut(strings.ToLower(strings.TrimSpace(first)), "-")
	unit, paper, spelling = "mm", "a4", "uk"
	if asksAmerican(c) {
		spelling = "us"
	}
	if spelling == "us" || land == "ca" { // inches at the craft table, and letter paper
		unit, paper = "in", "letter"
	}
	return unit, paper, spelling
}

// Spell keeps which spelling was chosen, "us" or "uk".
func Spell(c *echo.Context, which string) {
	if which != "us" {
		which = "uk"
	}
	c.SetCookie(&http.Cookie{Name: spellingCookie, Value: which, Path: "/", HttpOnly: true,
		SameSite: http.SameSiteStrictMode, Expires: time.Now().AddDate(5, 0, 0)})
}

// markup is what lies between the texts of a page, with what a person typed: fields, and what says that it is not to
// be translated.
var markup = regexp.MustCompile(`(?s)<textarea.*?</textarea>|<([a-z0-9]+)[^>]* translate="no"[^>]*>.*?</[a-z0-9]+>|<[^>]*>`)

// told are the attributes of an element that are read by people.
var told = regexp.MustCompile(` (?:title|aria-label|placeholder|alt)="[^"]*"`)

// respelt spells a page as in America, and leaves what was typed alone.
func respelt(page []byte) []byte {
	var out bytes.Buffer
	out.Grow(len(page) + len(page)/50)
	at := 0
	for _, m := range markup.FindAllIndex(page, -1) {
		out.WriteString(words.American(string(page[at:m[0]])))
		tag := page[m[0]:m[1]]
		if !bytes.Contains(tag, []byte(`translate="no"`)) {
			tag = told.ReplaceAllFunc(tag, func(a []byte) []byte { return []byte(words.American(string(a))) })
		}
		out.Write(tag)
		at = m[1]
	}
	out.WriteString(words.American(string(page[at:])))
	return out.Bytes()
}
