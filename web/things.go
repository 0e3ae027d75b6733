package web

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"slices"
	"strconv"

	"github.com/labstack/echo/v4"

	"brevium/core/brief"
	"brevium/core/contents"
)

// usual is a thing of the library; Own ones can be forgotten.
type usual struct {
	brief.Item
	Own bool
}

// library lists the usual things that ship, overruled by the maker's own.
func (s *Server) library(ctx context.Context) ([]usual, error) {
	own, err := s.store.Things(ctx)
	if err != nil {
		return nil, err
	}
	var out []usual
	for _, item := range own {
		out = append(out, usual{item, true})
	}
	for _, item := range contents.Usual {
		if !slices.ContainsFunc(own, func(o brief.Item) bool { return o.Name == item.Name }) {
			out = append(out, usual{item, false})
		}
	}
	return out, nil
}

// Sizes tells a thing's measures in a line.
func (u usual) Sizes() string {
	b := brief.Brief{Contents: []brief.Item{u.Item}}
	shape, _ := contents.ShapeOf(string(u.Shape))
	out := ""
	for _, m := range append(slices.Clone(shape.Measures), shape.May...) {
		if text := b.Get("contents.0." + m); text != "" {
			if out != "" {
				out += ", "
			}
			out += m + " " + text
		}
	}
	return out
}

func (s *Server) libraryPage(c echo.Context) error {
	things, err := s.library(c.Request().Context())
	if err != nil {
		return err
	}
	return s.render(c, http.StatusOK, "library", map[string]any{"Title": "Usual things", "Things": things})
}

func (s *Server) forget(c echo.Context) error {
	if err := s.store.ForgetThing(c.Request().Context(), c.FormValue("name")); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/library")
}

// keepThing puts one of a project's things into the library, if it can be read.
func (s *Server) keepThing(c echo.Context) error {
	p, err := s.store.Head(c.Request().Context(), c.Param("id"))
	if err != nil {
		return err
	}
	i, err := strconv.Atoi(c.FormValue("thing"))
	if err != nil || i < 0 || i >= len(p.Brief.Contents) {
		return echo.NewHTTPError(http.StatusConflict, "That thing is no longer where it was. Load the page again.")
	}
	one := brief.Brief{Units: p.Brief.Units, Tools: p.Brief.Tools, Contents: p.Brief.Contents[i : i+1]}
	r := brief.NewReader(&one)
	if _, ok := contents.Read(&one, r); !ok {
		return echo.NewHTTPError(http.StatusUnprocessableEntity, "That thing was not kept: "+r.Problems[0].Text+" "+r.Problems[0].Fix)
	}
	if err := s.store.KeepThing(c.Request().Context(), one.Contents[0]); err != nil {
		return err
	}
	st, err := s.state(c)
	if err != nil {
		return err
	}
	st.Notice = fmt.Sprintf("%s is kept among the usual things.", one.Contents[0].Name)
	return s.answer(c, http.StatusOK, st)
}

// thingsCSV gives the project's things as a list.
func (s *Server) thingsCSV(c echo.Context) error {
	p, err := s.store.Head(c.Request().Context(), c.Param("id"))
	if err != nil {
		return err
	}
	var b bytes.Buffer
	if err := contents.WriteCSV(&b, p.Brief.Contents); err != nil {
		return err
	}
	c.Response().Header().Set("Content-Disposition", `attachment; filename="`+fileName(string(p.Brief.Name))+`.csv"`)
	return c.Blob(http.StatusOK, "text/csv; charset=utf-8", b.Bytes())
}

// readThings takes a list in place of the project's things: all or nothing.
func (s *Server) readThings(c echo.Context) error {
	p, err := s.store.Head(c.Request().Context(), c.Param("id"))
	if err != nil {
		return err
	}
	header, err := c.FormFile("list")
	if err != nil {
		return echo.NewHTTPError(http.StatusBadRequest, "No list was chosen. Choose a CSV file with headings such as name, shape, count, length, width, height.")
	}
	file, err := header.Open()
	if err != nil {
		return err
	}
	defer file.Close()
	items, err := contents.ReadCSV(file)
	if err != nil {
		return echo.NewHTTPError(http.StatusUnprocessableEntity, "Nothing was taken in: "+err.Error()+".")
	}
	b := p.Brief.Clone()
	b.Contents = items
	for i := range b.Contents {
		for _, m := range []string{"length", "width", "height", "thickness", "decorated", "diameter", "neck-diameter", "neck-height", "press"} {
			path := fmt.Sprintf("contents.%d.%s", i, m)
			b.Set(path, canonical(b.Get(path), &b))
		}
	}
	b.Arrange.Way, b.Arrange.Places = "", nil
	if err := s.store.Save(c.Request().Context(), p.Revision.Project, p.ID, b, "things taken in from a list", ""); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+c.Param("id")+"?stage=contents&view=above")
}

// howMany answers, for each thing, how many fit.
func (s *Server) howMany(c echo.Context) error {
	st, err := s.state(c)
	if err != nil {
		return err
	}
	if st.Shown == nil {
		return echo.NewHTTPError(http.StatusNotFound, "There is no plan to count in yet.")
	}
	return s.render(c, http.StatusOK, "howmany", map[string]any{"Title": "How many fit", "Part": "howmany", "S": st, "Answers": st.Shown.HowMany(s.workshop)})
}
