package house

import (
	"errors"
	"fmt"
	"math"
	"net/http"
	"slices"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/measure"
	"brevium/core/words"
	"brevium/export"
	"brevium/store"
	"brevium/web/desk"
)

// printersPage is the printers of the house, and how true they are.
type printersPage struct {
	desk.Page
	Printers         []printerRow
	Papers           []export.Format
	Across, Down     string // how long the test page's lines should be
	Name, Wide, Long string // as typed
	Problem          string
	ProblemAt        string // the field it is about
	Said             string
	UnitHint, Short  string
}

// printerRow is a printer with what Brevium does for it.
type printerRow struct {
	store.Printer
	Prints, Does string
}

// Printers shows the printers and how to measure one.
func (s *Room) Printers(c *echo.Context) error {
	return s.showPrinters(c, http.StatusOK, &printersPage{Name: c.QueryParam("name")})
}

func (s *Room) showPrinters(c *echo.Context, code int, v *printersPage) error {
	all, err := s.Store.Printers(c.Request().Context())
	if err != nil {
		return err
	}
	v.Title = "Your printers"
	for _, p := range all {
		v.Printers = append(v.Printers, printerRow{p,
			export.Percent(p.Across) + " across, " + export.Percent(p.Down) + " down", correction(p)})
		if c.QueryParam("said") == p.ID {
			v.Said = fmt.Sprintf("Brevium now prints templates and labels true to size on “%s”. Print a page to check.", p.Name)
		}
	}
	paper := s.UsualPaper(c)
	v.Papers = slices.Clone(export.Formats)
	slices.SortStableFunc(v.Papers, func(a, b export.Format) int {
		return map[bool]int{true: -1}[a.ID == paper.ID] + map[bool]int{true: 1}[b.ID == paper.ID]
	})
	unit := s.Unit(c)
	across, down := export.TestLines(unit)
	step := measure.DefaultStep(unit)
	v.Across, v.Down = step.Show(across).String(), step.Show(down).String()
	v.UnitHint, v.Short = "178.6", "a wall of 250 mm is 2 mm short"
	if !unit.Metric() {
		v.UnitHint, v.Short = "6 15/16", "a wall of 8 in is 1/16 in short"
	}
	return s.Render(c, code, "printers", v)
}

// correction says what Brevium does for a printer.
func correction(p store.Printer) string {
	says := func(share float64, more, less string) string {
		switch by := math.Round((1/share - 1) * 1000); {
		case by > 0:
			return fmt.Sprintf("%.1f %% %s", by/10, more)
		case by < 0:
			return fmt.Sprintf("%.1f %% %s", -by/10, less)
		}
		return ""
	}
	parts := slices.DeleteFunc([]string{says(p.Across, "wider", "narrower"), says(p.Down, "taller", "shorter")},
		func(s string) bool { return s == "" })
	if len(parts) == 0 {
		return "It prints true. Nothing is corrected."
	}
	return "Brevium prints everything true to size " + words.List(parts) + "."
}

// MeasurePrinter keeps how long the lines of a printer's test page came out.
func (s *Room) MeasurePrinter(c *echo.Context) error {
	v := &printersPage{Name: words.Cut(strings.TrimSpace(c.FormValue("name")), 60),
		Wide: c.FormValue("across"), Long: c.FormValue("down")}
	unit := s.Unit(c)
	refuse := func(at, problem string) error {
		v.ProblemAt, v.Problem = at, problem
		return s.showPrinters(c, http.StatusUnprocessableEntity, v)
	}
	if v.Name == "" {
		return refuse("name", "Type a name for the printer.")
	}
	across, down := export.TestLines(unit)
	p := store.Printer{Name: v.Name}
	for _, line := range []struct {
		at, text string
		should   measure.Length
		is       *float64
	}{{"across", v.Wide, across, &p.Across}, {"down", v.Long, down, &p.Down}} {
		l, err := measure.Parse(line.text, unit)
		if err != nil {
			return refuse(line.at, words.Capital(err.Error())+". "+measure.How)
		}
		*line.is = l.MM() / line.should.MM()
		if math.Abs(*line.is-1) > export.Farthest {
			return refuse(line.at, fmt.Sprintf("That is %s of what it should be. The page was probably fitted to the paper: "+
				"print it again at 100 %%, then measure.", export.Percent(*line.is)))
		}
	}
	ctx := c.Request().Context()
	err := s.Store.KeepPrinter(ctx, p)
	if errors.Is(err, store.ErrFull) {
		return refuse("name", "There are too many printers. Delete one first.")
	}
	if err != nil {
		return err
	}
	all, err := s.Store.Printers(ctx)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(all, func(one store.Printer) bool { return one.Name == p.Name })
	if i < 0 { // deleted meanwhile
		return c.Redirect(http.StatusSeeOther, "/printers")
	}
	return c.Redirect(http.StatusSeeOther, "/printers?said="+all[i].ID)
}

// ChangePrinter makes a printer the usual one, or forgets it.
func (s *Room) ChangePrinter(c *echo.Context) error {
	ctx, id, err := c.Request().Context(), c.Param("id"), error(nil)
	switch c.FormValue("act") {
	case "use":
		err = s.Store.UsePrinter(ctx, id)
	case "none":
		err = s.Store.UsePrinter(ctx, "")
	case "away":
		err = s.Store.ForgetPrinter(ctx, id)
	}
	if err != nil && !errors.Is(err, store.ErrNone) {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/printers")
}

// TestPage gives the page by which a printer is measured, or with a printer its correction is checked.
func (s *Room) TestPage(c *echo.Context) error {
	printer := export.Printer{}
	if c.QueryParam("printer") != "" {
		var err error
		if printer, err = s.PrinterAsked(c); err != nil {
			return err
		}
	}
	paper := s.UsualPaper(c)
	if id := c.QueryParam("paper"); id != "" {
		paper = export.FormatOf(id)
	}
	data, err := export.TestPage(paper, s.Unit(c), printer, s.American(c))
	if err != nil {
		return err
	}
	return desk.PDF(c, "printer-test-page.pdf", data)
}
