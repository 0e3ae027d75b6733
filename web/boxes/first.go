package boxes

import (
	"net/http"
	"slices"

	"github.com/labstack/echo/v5"

	"brevium/core/shop"
	"brevium/demo"
	"brevium/store"
	"brevium/web/desk"
)

// The first time: how she works is asked once, with what her browser says already filled in.

// firstPage asks it.
type firstPage struct {
	desk.Page
	Asks []firstAsk
}

// firstAsk is a question with its answers; what it is about is a habit of the shop's.
type firstAsk struct {
	Habit   string
	Says    string
	Answers []shop.HabitChoice
	Is      string
}

// firstHabits are the habits that are asked.
var firstHabits = []string{"units", "paper", "spelling"}

// asksFirst reports whether she is to be asked: at her own computer, before there is anything of hers.
func (s *Room) asksFirst(c *echo.Context) (bool, error) {
	if !s.AtHome(c) || c.Request().URL.RawQuery != "" {
		return false, nil
	}
	ctx := c.Request().Context()
	begun, err := s.Store.Setting(ctx, store.Begun)
	if err != nil || begun != "" {
		return false, err
	}
	boxes, err := s.Store.Shelf.Count(ctx, false)
	if err != nil {
		return false, err
	}
	of, err := s.Store.Shops.At(ctx, store.TheShop)
	return boxes == 0 && of == 0, err
}

func (s *Room) firstPage(c *echo.Context) error {
	unit, paper, spelling := desk.Guess(c)
	is := map[string]string{"units": unit, "paper": paper, "spelling": spelling}
	v := &firstPage{Page: desk.Page{Title: "Welcome to Brevium"}}
	for _, id := range firstHabits {
		h, _ := shop.FindHabit(id)
		v.Asks = append(v.Asks, firstAsk{id, h.Label, h.Choices[1:], is[id]}) // the first is for who doesn't choose
	}
	return s.Render(c, http.StatusOK, "first", v)
}

// First keeps how she works, and puts in the samples when she wants to look round.
func (s *Room) First(c *echo.Context) error {
	ctx := c.Request().Context()
	head, err := s.Store.Shops.Head(ctx, store.TheShop)
	if err != nil {
		return err
	}
	for _, id := range firstHabits {
		if h, _ := shop.FindHabit(id); slices.ContainsFunc(h.Choices, func(o shop.HabitChoice) bool { return o.ID == c.FormValue(id) }) {
			head.Doc.Set("habits."+id, c.FormValue(id))
		}
	}
	if _, err := s.Store.Shops.Save(ctx, store.TheShop, "", store.Change[shop.Document]{Base: head.ID, Doc: head.Doc,
		What: "How you work"}); err != nil {
		return err
	}
	if err := s.Store.Set(ctx, store.Begun, "yes"); err != nil {
		return err
	}
	desk.Spell(c, c.FormValue("spelling"))
	if c.FormValue("with") == "samples" {
		if err := demo.Samples(ctx, s.Store); err != nil {
			return err
		}
	}
	return c.Redirect(http.StatusSeeOther, "/")
}

// Samples puts the samples in, or in again.
func (s *Room) Samples(c *echo.Context) error {
	v := &homePage{}
	var err error
	if v.Arrivals, err = s.Store.Arrivals(c.Request().Context()); err == nil && v.Samples() == nil {
		err = demo.Samples(c.Request().Context(), s.Store)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/")
}
