package help

import (
	"html/template"
	"net/http"
	"slices"

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

func pictured(m words.Meaning) meaning { return meaning{m, template.HTML(draw.Word(m.ID, m.Word))} }

// helpPage is all help on one page: the first box, how-tos, words, keys, settings.
type helpPage struct {
	desk.Page
	HowTos   []howTo
	Words    []meaning
	American bool
}

// Help shows it.
func (s *Room) Help(c *echo.Context) error {
	var all []meaning
	for _, m := range words.Glossary {
		all = append(all, pictured(m))
	}
	return s.Render(c, http.StatusOK, "help", &helpPage{desk.Page{Title: "Help"}, HowTos, all, s.American(c)})
}

// topicPage is help for one spot, beside the page that asks or as a page of its own.
type topicPage struct {
	desk.Page
	Title string
	Says  []string
	Words []meaning
	Hows  []howTo
}

// Topic shows help for a spot of the pages, or what a word means.
func (s *Room) Topic(c *echo.Context) error {
	id := c.Param("topic")
	v := &topicPage{Page: desk.Page{Title: "Help", Part: "topic"}}
	if t, ok := topicOf(id); ok {
		v.Title, v.Says = t.Title, t.Says
		for _, h := range HowTos {
			if slices.Contains(t.Hows, h.ID) {
				v.Hows = append(v.Hows, h)
			}
		}
		for _, m := range words.Glossary {
			if slices.Contains(t.Words, m.ID) {
				v.Words = append(v.Words, pictured(m))
			}
		}
		return s.Render(c, http.StatusOK, "topic", v)
	}
	i := slices.IndexFunc(words.Glossary, func(m words.Meaning) bool { return m.ID == id })
	if i < 0 {
		return echo.ErrNotFound
	}
	v.Title, v.Words = words.Capital(words.Glossary[i].Word), []meaning{pictured(words.Glossary[i])}
	return s.Render(c, http.StatusOK, "topic", v)
}

// Spell keeps how words are spelt in this browser: as in Britain or in America.
func (s *Room) Spell(c *echo.Context) error {
	desk.Spell(c, c.FormValue("spelling"))
	return c.Redirect(http.StatusSeeOther, "/help#settings")
}
