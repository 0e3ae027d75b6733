package web

import (
	"html/template"
	"net/http"
	"slices"

	"github.com/labstack/echo/v5"

	"brevium/core/words"
	"brevium/draw"
)

// meaning is a word with its picture.
type meaning struct {
	words.Meaning
	Picture template.HTML
}

// wordsPage is the glossary.
type wordsPage struct {
	page
	Words []meaning
}

func (s *Server) glossary(c *echo.Context) error {
	var all []meaning
	for _, m := range words.Glossary {
		all = append(all, meaning{m, template.HTML(draw.Word(m.ID, m.Word))})
	}
	return s.render(c, http.StatusOK, "words", &wordsPage{page{Title: "Words"}, all})
}

// Words are those of the answers to a field that may want explaining.
func (f field) Words() (out []words.Meaning) {
	for _, c := range f.Choices {
		m, _, _, ok := wordIn(c.Label)
		if ok && !plain[m.ID] && !slices.Contains(out, m) {
			out = append(out, m)
		}
	}
	return out
}
