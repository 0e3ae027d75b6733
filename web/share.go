package web

import (
	"errors"
	"html/template"
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/plan"
	"brevium/draw"
	"brevium/export"
	"brevium/store"
)

// A shared page shows a box, read only, as it was when it was shared, to whoever has the link.

// share makes a link to a box as it is now, or moves the one there is to it.
func (s *Server) share(c *echo.Context) error {
	ctx := c.Request().Context()
	head, err := s.store.Head(ctx, c.Param("id"))
	if err != nil {
		return err
	}
	j, ok := s.jobCut(s.look(head, &edited{}))
	if !ok {
		return echo.NewHTTPError(http.StatusConflict, "There is nothing to show yet: the brief needs mending first.")
	}
	if _, err := s.store.Share(ctx, c.Param("id"), head.ID, j.Written()); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+c.Param("id")+"/handon#share")
}

// unshare withdraws the link.
func (s *Server) unshare(c *echo.Context) error {
	if err := s.store.Unshare(c.Request().Context(), c.Param("id")); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+c.Param("id")+"/handon#share")
}

// sharedState is the box that a link shows.
func (s *Server) sharedState(c *echo.Context) (*state, plan.Job, error) {
	ctx := c.Request().Context()
	sh, err := s.store.Shared(ctx, c.Param("token"))
	if errors.Is(err, store.ErrNone) {
		return nil, plan.Job{}, echo.NewHTTPError(http.StatusNotFound, "There is nothing under this link. Is all of it there?")
	}
	if err != nil {
		return nil, plan.Job{}, err
	}
	if sh.Gone {
		return nil, plan.Job{}, echo.NewHTTPError(http.StatusGone, "This link shows nothing any more: who made it has withdrawn it.")
	}
	rev := store.Revision{ID: sh.Revision, Project: sh.Project, Brief: sh.Document, Made: sh.Made}
	// What its shop said is written in the document; whatever that shop says now is left out.
	st := s.looked(store.Project{Revision: rev, Changed: sh.Made}, s.makeIn(plan.Default, sh.Document, c.QueryParam("box")))
	j, ok := s.jobCut(st)
	if !ok {
		return nil, j, echo.NewHTTPError(http.StatusConflict, "What was shared can't be planned any more by this Brevium.")
	}
	st.Shown = st.Plan
	return st, j, nil
}

// sharedPiece is a piece as a shared page shows it.
type sharedPiece struct {
	Name   string
	Says   []string
	Boards []template.HTML
}

// sharedBox is one box of it.
type sharedBox struct {
	Name   string
	Plan   *plan.Plan
	Flat   template.HTML
	Pieces []sharedPiece
}

func (s *Server) sharedPage(c *echo.Context) error {
	st, j, err := s.sharedState(c)
	if err != nil {
		return err
	}
	path := "/s/" + c.Param("token")
	if s.wholeSet(c, st); st.Set != nil && c.QueryParam("box") == "" {
		st.Set.Whole = true
	}
	v := view{Stage: "box", View: "folded"}
	if st.Set != nil {
		v.Box = st.Set.Here
	}
	seen := seenOf(c, st)
	data := map[string]any{"Title": called(j.Name, nameless), "S": st, "V": v, "Path": path, "Job": j, "Warning": j.Warning(),
		"Picture": s.picture(c, st, v), "Seen": seen, "Course": st.course(), "Shared": true, "Boxes": sharedBoxes(j),
		"Papers": export.Formats}
	return s.render(c, http.StatusOK, "shared", data)
}

func sharedBoxes(j plan.Job) (out []sharedBox) {
	for i, p := range j.Plans {
		b := sharedBox{Plan: p, Flat: template.HTML(draw.Flat(p, "", 700, 430, nil))}
		if len(j.Names) > 0 {
			b.Name = j.Names[i]
		}
		cards, _ := p.InBoth()
		for k, card := range cards {
			piece := sharedPiece{Name: card.Piece, Says: card.Says}
			for t := range p.Cards[k].Turns {
				piece.Boards = append(piece.Boards, template.HTML(draw.Board(p, p.Cards[k], t)))
			}
			b.Pieces = append(b.Pieces, piece)
		}
		out = append(out, b)
	}
	return out
}

func (s *Server) sharedFolded(c *echo.Context) error {
	st, _, err := s.sharedState(c)
	if err != nil {
		return err
	}
	s.wholeSet(c, st)
	return c.HTML(http.StatusOK, string(s.picture(c, st, view{View: "folded"})))
}

func (s *Server) sharedSolid(c *echo.Context) error {
	st, _, err := s.sharedState(c)
	if err != nil {
		return err
	}
	return s.solidOf(c, st)
}

func (s *Server) sharedStep(c *echo.Context) error {
	_, j, err := s.sharedState(c)
	if err != nil {
		return err
	}
	return writeStep(c, j, true)
}

// sharedOut gives the files that a shared page offers: all but those of a machine.
func (s *Server) sharedOut(c *echo.Context) error {
	_, j, err := s.sharedState(c)
	if err != nil {
		return err
	}
	switch as := c.Param("as"); as {
	case "pdf", "slip", "templates":
		o := export.Options{Paper: export.FormatOf(c.QueryParam("paper")), Both: true, Shop: plan.Default}
		return writeOut(c, j, as, export.What{}, o)
	}
	return echo.ErrNotFound
}

func (s *Server) sharedDocument(c *echo.Context) error {
	st, j, err := s.sharedState(c)
	if err != nil {
		return err
	}
	b := st.Project.Brief
	if j.Set != nil {
		b = j.Set.Brief
	}
	c.Response().Header().Set("Content-Disposition", `attachment; filename="`+fileName(string(b.Name))+`.brevium.json"`)
	return c.Blob(http.StatusOK, "application/json", b.Encode())
}
