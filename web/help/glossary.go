package help

import (
	"html/template"
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/words"
	"brevium/draw"
	"brevium/web/desk"
)

// meaning is a word with its picture.
type meaning struct {
	words.Meaning
	Picture template.HTML
}

// wordsPage is the glossary.
type wordsPage struct {
	desk.Page
	Words []meaning
}

func (s *Room) Glossary(c *echo.Context) error {
	var all []meaning
	for _, m := range words.Glossary {
		all = append(all, meaning{m, template.HTML(draw.Word(m.ID, m.Word))})
	}
	return s.Render(c, http.StatusOK, "words", &wordsPage{desk.Page{Title: "Words"}, all})
}
