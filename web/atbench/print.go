package atbench

import (
	"errors"
	"html/template"
	"net/http"
	"slices"

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
	What                 string
}

// printChoices are the parts of a plan that are printed alone: what she sees at a stage.
var printChoices = []printChoice{{"", "Everything"}, {"cards", "Score cards"}, {"steps", "Steps"}, {"sheets", "Sheets"}}

// printChoice is one of them.
type printChoice struct{ ID, Label string }

// Has reports whether a part is printed.
func (p printed) Has(part string) bool { return p.What == "" || p.What == part }

func printOf(p *plan.Plan, alone bool, what string) printed {
	out := printed{Plan: p, What: what}
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
	what := c.QueryParam("what")
	if !slices.ContainsFunc(printChoices, func(p printChoice) bool { return p.ID == what }) {
		what = ""
	}
	prints := []printed{}
	if st.Set == nil {
		prints = append(prints, printOf(st.Plan, true, what))
	} else {
		for _, p := range st.Set.Plans {
			prints = append(prints, printOf(p, false, what))
		}
	}
	return s.Render(c, http.StatusOK, "print", &printPage{desk.Page{Title: string(st.Brief.Name) + ": to print"}, st,
		"/projects/" + st.Of, prints, printChoices, what})
}

// printPage is a plan as it is printed.
type printPage struct {
	desk.Page
	S      *workbench.State
	Path   string
	Prints []printed
	Whats  []printChoice
	What   string
}

// Has reports whether a part of what all boxes share is printed.
func (p printPage) Has(part string) bool { return p.What == "" || p.What == part }
