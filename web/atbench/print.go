package atbench

import (
	"errors"
	"html/template"
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/plan"
	"brevium/draw"
	"brevium/web/desk"
	"brevium/web/workbench"
)

// printed is one box as it is printed.
type printed struct {
	Plan                 *plan.Plan
	Flat, Closed, Sheets template.HTML
	Dressing             template.HTML
}

func printOf(p *plan.Plan, alone bool) printed {
	out := printed{Plan: p}
	if p.OK() {
		out.Flat = template.HTML(draw.Flat(p, "", 700, 430, nil))
		out.Closed = template.HTML(draw.Made(p, 1, 300, 230).SVG())
		out.Dressing = template.HTML(draw.Dressing(p, 700, 520))
		if alone {
			out.Sheets = template.HTML(draw.Sheets(p, 700, 330, 4))
		}
	}
	return out
}

func (s *Room) Print(c *echo.Context, st *workbench.State) error {
	if _, err := s.Work.JobCut(c.Request().Context(), st); err != nil && !errors.Is(err, workbench.ErrUnmade) {
		return err
	}
	prints := []printed{}
	if st.Set == nil {
		prints = append(prints, printOf(st.Plan, true))
	} else {
		for _, p := range st.Set.Plans {
			prints = append(prints, printOf(p, false))
		}
	}
	return s.Render(c, http.StatusOK, "print", &printPage{desk.Page{Title: string(st.Brief.Name) + ": to print"}, st,
		"/projects/" + st.Of, prints})
}

// printPage is a plan as it is printed.
type printPage struct {
	desk.Page
	S      *workbench.State
	Path   string
	Prints []printed
}
