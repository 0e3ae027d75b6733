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

// American reports whether words are spelt as in America for who asks: as was chosen in this browser or, until
// something was, as the browser asks for.
func American(c *echo.Context) bool {
	if k, err := c.Cookie(spellingCookie); err == nil {
		return k.Value == "us"
	}
	first, _, _ := strings.Cut(c.Request().Header.Get("Accept-Language"), ",")
	first = strings.ToLower(strings.TrimSpace(first))
	return strings.HasPrefix(first, "en-us") || first == "en"
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
