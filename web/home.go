package web

import (
	"fmt"
	"html/template"
	"io"
	"net/http"
	"regexp"
	"strings"

	"github.com/labstack/echo/v4"

	"brevium/core/box"
	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/draw"
	"brevium/store"
)

// card is a project in a list.
type card struct {
	store.Project
	Picture template.HTML
	Line    string
	Trouble bool
}

func (s *Server) cards(c echo.Context, binned bool) ([]card, error) {
	projects, err := s.store.List(c.Request().Context(), binned)
	if err != nil {
		return nil, err
	}
	var out []card
	for _, p := range projects {
		k := card{Project: p, Line: "Not finished: something in its brief needs mending."}
		made := plan.Make(p.Brief, s.workshop)
		if made.OK() {
			k.Picture = template.HTML(draw.Folded(made, box.Pose{Fold: 1, Lift: 1}, draw.DefaultView, 220, 150))
			show := made.Step.ShowUp
			o := made.Box.Outside
			k.Line = fmt.Sprintf("%s × %s × %s outside · %d of %s", show(o.Length).Text, show(o.Width).Text, show(o.Depth).Text+" "+string(made.Step.Unit), len(made.Layout.Sheets), made.Sheet.Title)
		}
		k.Trouble = !made.Holds()
		out = append(out, k)
	}
	return out, nil
}

func (s *Server) home(c echo.Context) error { return s.homeWith(c, http.StatusOK, "") }

func (s *Server) homeWith(c echo.Context, code int, problem string) error {
	cards, err := s.cards(c, false)
	if err != nil {
		return err
	}
	binned, err := s.store.List(c.Request().Context(), true)
	if err != nil {
		return err
	}
	return s.render(c, code, "home", map[string]any{"Title": "Boxes", "Cards": cards, "Binned": len(binned), "Problem": problem})
}

func (s *Server) create(c echo.Context) error {
	if c.FormValue("from") == "scores" {
		return s.begin(c, brief.NewScores(), "new list of scores", "box")
	}
	units := c.FormValue("units")
	if units != "mm" {
		units = "in"
	}
	return s.begin(c, brief.New(units), "new project", "contents")
}

func (s *Server) begin(c echo.Context, b brief.Brief, what, stage string) error {
	id, err := s.store.Create(c.Request().Context(), b, what)
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+id+"?stage="+stage)
}

// upload takes a document: all of it or, with the reason, nothing.
func (s *Server) upload(c echo.Context) error {
	header, err := c.FormFile("document")
	if err != nil {
		return s.homeWith(c, http.StatusBadRequest, "No file was chosen. Choose a project's document, a .json file that Brevium wrote.")
	}
	file, err := header.Open()
	if err != nil {
		return err
	}
	defer file.Close()
	data, err := io.ReadAll(io.LimitReader(file, brief.Limit+1))
	if err != nil {
		return err
	}
	b, err := brief.Decode(data)
	if err != nil {
		return s.homeWith(c, http.StatusUnprocessableEntity, "Nothing was taken in: "+err.Error()+".")
	}
	return s.begin(c, b, "taken in from a document", "contents")
}

// document gives the project as a file.
func (s *Server) document(c echo.Context) error {
	p, err := s.store.Head(c.Request().Context(), c.Param("id"))
	if err != nil {
		return err
	}
	c.Response().Header().Set("Content-Disposition", `attachment; filename="`+fileName(string(p.Brief.Name))+`.brevium.json"`)
	return c.Blob(http.StatusOK, "application/json", p.Brief.Encode())
}

var notInNames = regexp.MustCompile(`[^a-z0-9]+`)

func fileName(name string) string {
	name = strings.Trim(notInNames.ReplaceAllString(strings.ToLower(name), "-"), "-")
	if name == "" {
		return "box"
	}
	return name[:min(len(name), 60)]
}

func (s *Server) copyProject(c echo.Context) error {
	p, err := s.store.Head(c.Request().Context(), c.Param("id"))
	if err != nil {
		return err
	}
	b := p.Brief.Clone()
	b.Name = brief.Text(strings.TrimSuffix(string(b.Name), ", copy") + ", copy")
	return s.begin(c, b, "copied from "+string(p.Brief.Name), "record")
}

func (s *Server) toBin(c echo.Context) error {
	if err := s.store.Bin(c.Request().Context(), c.Param("id")); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/")
}

func (s *Server) restore(c echo.Context) error {
	if err := s.store.Restore(c.Request().Context(), c.Param("id")); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+c.Param("id"))
}

func (s *Server) binPage(c echo.Context) error {
	cards, err := s.cards(c, true)
	if err != nil {
		return err
	}
	return s.render(c, http.StatusOK, "bin", map[string]any{"Title": "Bin", "Cards": cards})
}

func (s *Server) empty(c echo.Context) error {
	if _, err := s.store.Empty(c.Request().Context()); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/bin")
}
