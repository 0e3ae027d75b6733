package atbench

import (
	"errors"
	"fmt"
	"html/template"
	"net/http"
	"strconv"

	"github.com/labstack/echo/v5"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/draw"
	"brevium/draw/pen"
	"brevium/export"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/workbench"
)

// A shared page shows a box, read only, as it was when it was shared, to whoever has the link.

// Share makes a link to a box as it is now, or moves the one there is to it.
func (s *Room) Share(c *echo.Context) error {
	ctx := c.Request().Context()
	head, err := s.Store.Boxes.Head(ctx, c.Param("id"))
	if err != nil {
		return err
	}
	j, err := s.Work.JobCut(ctx, s.Work.Look(ctx, head, &desk.Edited[brief.Brief]{}))
	if errors.Is(err, workbench.ErrUnmade) {
		return echo.NewHTTPError(http.StatusConflict, "There is no plan to show yet. Fix the red fields first.")
	}
	if err != nil {
		return err
	}
	if _, err := s.Store.Links.Share(ctx, c.Param("id"), head.ID, j.Written().ForOthers(c.FormValue("notes") == "1")); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+c.Param("id")+"/handon#share")
}

// Unshare withdraws the link.
func (s *Room) Unshare(c *echo.Context) error {
	if err := s.Store.Links.Unshare(c.Request().Context(), c.Param("id")); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+c.Param("id")+"/handon#share")
}

// SharedWorkshop is what shared pages are planned with: what their shop said is written in their
// documents; whatever that shop says now is left out.
var SharedWorkshop = request.Default

// Collection is the folder that a link shows.
func (s *Room) Collection(c *echo.Context) (store.Collection, error) {
	col, err := s.Store.Links.Collection(c.Request().Context(), c.Param("token"))
	if errors.Is(err, store.ErrNone) {
		return col, echo.NewHTTPError(http.StatusNotFound, "There is nothing at this link. Check that you have all of it.")
	}
	if err == nil && col.Gone {
		return col, withdrawn
	}
	return col, err
}

var withdrawn = echo.NewHTTPError(http.StatusGone, "This link no longer works. Whoever shared it has stopped sharing.")

// sharedBy finds what a link shows: a box by itself, or one of a folder by its place.
func (s *Room) sharedBy(c *echo.Context) (store.Share, error) {
	place := c.Param("place")
	if place == "" {
		sh, err := s.Store.Links.Shared(c.Request().Context(), c.Param("token"))
		if errors.Is(err, store.ErrNone) {
			err = echo.NewHTTPError(http.StatusNotFound, "There is nothing at this link. Check that you have all of it.")
		} else if err == nil && sh.Gone {
			err = withdrawn
		}
		return sh, err
	}
	col, err := s.Collection(c)
	if err != nil {
		return store.Share{}, err
	}
	n, err := strconv.Atoi(place)
	if err != nil || n < 1 || n > len(col.Boxes) {
		return store.Share{}, echo.NewHTTPError(http.StatusNotFound, "This box isn't in the folder.")
	}
	if col.Boxes[n-1].Gone {
		return store.Share{}, withdrawn
	}
	return col.Boxes[n-1], nil
}

// sharedPath is the address of what a link shows.
func sharedPath(c *echo.Context) string {
	if place := c.Param("place"); place != "" {
		return "/c/" + c.Param("token") + "/" + place
	}
	return "/s/" + c.Param("token")
}

// sharedState is the box that a link shows.
func (s *Room) sharedState(c *echo.Context) (*workbench.State, sets.Job, error) {
	sh, err := s.sharedBy(c)
	if err != nil {
		return nil, sets.Job{}, err
	}
	rev := store.BoxRev{ID: sh.Revision, Of: sh.Project, Doc: sh.Document, Made: sh.Made}
	st := workbench.Looked(store.Project{Revision: rev, Changed: sh.Made}, s.Work.MakeIn(SharedWorkshop, sh.Document, c.QueryParam("box")))
	j, err := s.Work.JobCut(c.Request().Context(), st)
	if errors.Is(err, workbench.ErrUnmade) {
		err = echo.NewHTTPError(http.StatusConflict, "This version of Brevium can't show what was shared.")
	}
	if err != nil {
		return nil, j, err
	}
	st.Shown = st.Plan
	return st, j, nil
}

// SharedCard is the small picture of a box that a link shows.
func (s *Room) SharedCard(c *echo.Context) error {
	sh, err := s.sharedBy(c)
	if err != nil {
		return err
	}
	svg := s.Work.MakeIn(SharedWorkshop, sh.Document, "").Picture(220, 150)
	if svg == "" {
		return echo.ErrNotFound
	}
	return c.Blob(http.StatusOK, "image/svg+xml", pen.File(svg))
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

func (s *Room) SharedPage(c *echo.Context) error {
	st, j, err := s.sharedState(c)
	if err != nil {
		return err
	}
	path := sharedPath(c)
	if workbench.WholeSet(c, st); st.Set != nil && c.QueryParam("box") == "" {
		st.Set.Whole = true
	}
	v := workbench.View{Stage: "box", View: "folded"}
	if st.Set != nil {
		v.Box = st.Set.Here
	}
	seen := workbench.SeenOf(c, st)
	return s.Render(c, http.StatusOK, "shared", &sharedPage{Page: desk.Page{Title: desk.Called(j.Name, desk.Nameless), Shared: true},
		OnTable: workbench.OnTable{S: st, V: v, Path: path, Picture: workbench.Picture(c, st, v), Seen: seen, Course: st.Course()}, Job: &j,
		Warning: j.Warning(), Boxes: sharedBoxes(j), Papers: export.PapersFor(j, "")})
}

// sharedPage shows a box to whoever has its link.
type sharedPage struct {
	desk.Page
	workbench.OnTable
	Job     *sets.Job
	Warning string
	Boxes   []sharedBox
	Papers  []export.Format
}

func sharedBoxes(j sets.Job) (out []sharedBox) {
	for i, p := range j.Plans {
		b := sharedBox{Plan: p, Flat: template.HTML(draw.Flat(p, "", 700, 430, nil))}
		if len(j.Names) > 0 {
			b.Name = j.Names[i]
		}
		cards := p.InBoth().Cards
		for k, card := range cards {
			piece := sharedPiece{Name: card.Piece, Says: card.Says}
			for t := range p.Guide.Cards[k].Turns {
				piece.Boards = append(piece.Boards, template.HTML(draw.Board(p, p.Guide.Cards[k], t).SVG()))
			}
			b.Pieces = append(b.Pieces, piece)
		}
		out = append(out, b)
	}
	return out
}

func (s *Room) SharedFolded(c *echo.Context) error {
	st, _, err := s.sharedState(c)
	if err != nil {
		return err
	}
	workbench.WholeSet(c, st)
	return c.HTML(http.StatusOK, string(workbench.Picture(c, st, workbench.View{View: "folded"})))
}

func (s *Room) SharedSolid(c *echo.Context) error {
	st, _, err := s.sharedState(c)
	if err != nil {
		return err
	}
	return workbench.Solid(c, st)
}

func (s *Room) SharedStep(c *echo.Context) error {
	_, j, err := s.sharedState(c)
	if err != nil {
		return err
	}
	return writeStep(c, j, true)
}

// sharedParts are what the project sheet tells of a box that is shown: not what it costs. Notes
// stand in it where its document has them, which is where that was asked.
var sharedParts = func() (out []string) {
	for _, p := range export.Parts {
		if p.ID != "cost" {
			out = append(out, p.ID)
		}
	}
	return out
}()

// SharedOut gives the files that a shared page offers: all but those of a machine.
func (s *Room) SharedOut(c *echo.Context) error {
	_, j, err := s.sharedState(c)
	if err != nil {
		return err
	}
	switch as := c.Param("as"); as {
	case "pdf", "slip", "templates":
		o := export.Options{Paper: export.PaperFor(c.QueryParam("paper"), j), Parts: sharedParts, Both: true, Shop: SharedWorkshop,
			American: s.American(c)}
		return s.writeOut(c, j, as, export.What{}, o)
	}
	return echo.ErrNotFound
}

func (s *Room) SharedDocument(c *echo.Context) error {
	st, j, err := s.sharedState(c)
	if err != nil {
		return err
	}
	b := st.Brief
	if j.Set != nil {
		b = j.Set.Brief
	}
	c.Response().Header().Set("Content-Disposition", `attachment; filename="`+desk.FileName(string(b.Name))+`.brevium.json"`)
	return c.Blob(http.StatusOK, "application/json", b.Encode())
}

// collected is a box on the page of a folder.
type collected struct {
	Name, Line, Link, Picture string
}

func (s *Room) CollectionPage(c *echo.Context) error {
	col, err := s.Collection(c)
	if err != nil {
		return err
	}
	var out []collected
	for i, b := range col.Boxes {
		m := s.Work.MakeIn(SharedWorkshop, b.Document, "")
		link := fmt.Sprintf("/c/%s/%d", col.Token, i+1)
		out = append(out, collected{desk.Called(string(b.Document.Name), desk.Nameless), m.Card().Line, link, link + "/card.svg"})
	}
	return s.Render(c, http.StatusOK, "collection", &collectionPage{desk.Page{Title: col.Folder, Shared: true}, col, out})
}

// collectionPage shows the boxes of a folder to whoever has its link.
type collectionPage struct {
	desk.Page
	C     store.Collection
	Boxes []collected
}
