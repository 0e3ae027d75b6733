package web

import (
	"html/template"
	"net/http"
	"regexp"
	"strings"

	"github.com/labstack/echo/v4"

	"brevium/core/words"
	"brevium/draw"
)

// meaning is a word with its picture.
type meaning struct {
	words.Meaning
	Picture template.HTML
}

func (s *Server) glossary(c echo.Context) error {
	var all []meaning
	for _, m := range words.Glossary {
		all = append(all, meaning{m, template.HTML(draw.Word(m.ID, m.Word))})
	}
	return s.render(c, http.StatusOK, "words", map[string]any{"Title": "Words", "Words": all})
}

// known finds a word of the glossary in a label, in the plural too.
var knownWords = func() *regexp.Regexp {
	var all []string
	for _, m := range words.Glossary {
		all = append(all, regexp.QuoteMeta(m.Word))
	}
	return regexp.MustCompile(`(?i)\b(` + strings.Join(all, "|") + `)s?\b`)
}()

// wordLink makes the first word of a label that the glossary has lead there.
func wordLink(label string) template.HTML {
	at := knownWords.FindStringSubmatchIndex(label)
	if at == nil {
		return template.HTML(template.HTMLEscapeString(label))
	}
	word := strings.ToLower(label[at[2]:at[3]])
	for _, m := range words.Glossary {
		if m.Word == word {
			esc := template.HTMLEscapeString
			return template.HTML(esc(label[:at[0]]) + `<a class="word" href="/words#` + m.ID + `" title="` + esc(m.Says) + `">` +
				esc(label[at[0]:at[1]]) + `</a>` + esc(label[at[1]:]))
		}
	}
	return template.HTML(template.HTMLEscapeString(label))
}
