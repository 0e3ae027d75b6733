package workbench

import (
	"bytes"
	"context"
	"fmt"
	"html/template"
	"net/http"
	"slices"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/words"
	"brevium/draw"
	"brevium/store"
	"brevium/web/desk"
)

// Usual is a thing of the library; Own ones can be forgotten.
type Usual struct {
	brief.Item
	Own bool
}

// shapePick is a shape to choose for a thing, with which way its measures run.
type shapePick struct {
	ID, Title string
	Drawing   template.HTML
}

func drawnShapes() (out []shapePick) {
	for _, s := range contents.Shapes {
		out = append(out, shapePick{s.ID, s.Title, template.HTML(draw.Measuring(s.ID))})
	}
	return out
}

// Usuals are the usual things of this maker.
type Usuals struct{ *desk.Desk }

// List gives those that ship, overruled by the maker's own.
func (s Usuals) List(ctx context.Context) ([]Usual, error) {
	own, err := s.Store.Things(ctx)
	if err != nil {
		return nil, err
	}
	var out []Usual
	for _, item := range own {
		out = append(out, Usual{item, true})
	}
	for _, item := range contents.Usual {
		if !slices.ContainsFunc(own, func(o brief.Item) bool { return o.Name == item.Name }) {
			out = append(out, Usual{item, false})
		}
	}
	return out, nil
}

// Sizes tells a thing's measures in a line.
func (u Usual) Sizes() string {
	b := brief.Brief{Contents: []brief.Item{u.Item}}
	shape, _ := contents.ShapeOf(string(u.Shape))
	var out []string
	for _, m := range append(slices.Clone(shape.Measures), shape.May...) {
		if text := b.Get("contents.0." + m); text != "" {
			f, _ := brief.FieldAt("contents.0." + m)
			out = append(out, f.Label+" "+text)
		}
	}
	return strings.Join(out, ", ")
}

// Looks is the thing's shape in words.
func (u Usual) Looks() string {
	shape, _ := contents.ShapeOf(string(u.Shape))
	return words.Small(shape.Title)
}

// Page shows them.
func (s Usuals) Page(c *echo.Context) error {
	things, err := s.List(c.Request().Context())
	if err != nil {
		return err
	}
	return s.Render(c, http.StatusOK, "library", &libraryPage{desk.Page{Title: "Usual things"}, things})
}

// libraryPage lists the usual things.
type libraryPage struct {
	desk.Page
	Things []Usual
}

// Forget drops one of the maker's own.
func (s Usuals) Forget(c *echo.Context) error {
	if err := s.Store.ForgetThing(c.Request().Context(), c.FormValue("name")); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/library")
}

// KeepThing puts one of a project's things into the library, if it can be read.
func (s *Room) KeepThing(c *echo.Context) error {
	p, err := s.Store.Boxes.Head(c.Request().Context(), c.Param("id"))
	if err != nil {
		return err
	}
	p.Doc = one(s.Workshop(c.Request().Context()), p.Doc, c.QueryParam("box"))
	i := p.Doc.Item(c.FormValue("thing"))
	if i < 0 {
		return echo.NewHTTPError(http.StatusConflict, "That thing is gone. Someone removed it in another window. "+
			"Reload the page.")
	}
	one := brief.Brief{Units: p.Doc.Units, Tools: p.Doc.Tools, Contents: p.Doc.Contents[i : i+1]}
	r := brief.NewReader(&one)
	if _, ok := contents.Read(&one, r); !ok {
		return echo.NewHTTPError(http.StatusUnprocessableEntity,
			"That thing was not saved: "+r.Problems[0].Text+" "+r.Problems[0].Fix)
	}
	if err := s.Store.KeepThing(c.Request().Context(), one.Contents[0]); err != nil {
		return err
	}
	notice := fmt.Sprintf("%s is now one of your usual things.", words.Capital(string(one.Contents[0].Name)))
	st, err := s.stateAfter(c, desk.Edited[brief.Brief]{Notice: notice}, nil)
	if err != nil {
		return err
	}
	return s.Answer(c, http.StatusOK, st)
}

// ThingsCSV gives the project's things as a list.
func (s *Room) ThingsCSV(c *echo.Context) error {
	p, err := s.Store.Boxes.Head(c.Request().Context(), c.Param("id"))
	if err != nil {
		return err
	}
	p.Doc = one(s.Workshop(c.Request().Context()), p.Doc, c.QueryParam("box"))
	var b bytes.Buffer
	if err := contents.WriteCSV(&b, p.Doc.Contents); err != nil {
		return err
	}
	c.Response().Header().Set("Content-Disposition", `attachment; filename="`+desk.FileName(string(p.Doc.Name))+`.csv"`)
	return c.Blob(http.StatusOK, "text/csv; charset=utf-8", b.Bytes())
}

// ReadThings takes a list in place of the project's things: all or nothing.
func (s *Room) ReadThings(c *echo.Context) error {
	list, err := desk.Chosen(c, "name, shape, count, length, width, height")
	if err != nil {
		return err
	}
	items, err := contents.ReadCSV(bytes.NewReader(list))
	if err != nil {
		return echo.NewHTTPError(http.StatusUnprocessableEntity, "Nothing was added: "+err.Error()+".")
	}
	for i := range items {
		items[i].ID = desk.NewMark() // they are other things than those they come in place of
	}
	_, _, err = desk.Edit(s.Desk, c, s.Boxes(c), func(head *store.Project) (desk.Edited[brief.Brief], error) {
		b := head.Doc.Clone()
		b.Contents = slices.Clone(items)
		for path, text := range b.All() {
			if strings.HasPrefix(path, "contents.") && IsLength(path) {
				b.Set(path, AsStored(path, text, &b, &b))
			}
		}
		b.Arrange.Way, b.Arrange.Places = "", nil
		return desk.Edited[brief.Brief]{Doc: b, What: "Added things from a list"}, nil
	})
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+c.Param("id")+"?stage=contents&view=above")
}

// HowMany answers, for each thing, how many fit.
func (s *Room) HowMany(c *echo.Context, st *State) error {
	ctx := c.Request().Context()
	done, err := s.Long.Take(ctx)
	if err != nil {
		return err
	}
	defer done()
	answers, whole := advice.Count(ctx, st.Shown, s.Workshop(c.Request().Context()))
	return s.Render(c, http.StatusOK, "howmany", &howManyPage{desk.Page{Title: "How many fit", Part: "howmany"}, st, answers, whole,
		"/projects/" + c.Param("id")})
}

// howManyPage tells how many of each thing fit.
type howManyPage struct {
	desk.Page
	S       *State
	Answers []advice.HowMany
	Whole   bool
	Path    string
}
