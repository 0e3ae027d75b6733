package desk

import (
	"context"
	"mime"
	"net/http"
	"slices"
	"strconv"

	"github.com/labstack/echo/v5"

	"brevium/core/measure"
	"brevium/export"
	"brevium/store"
)

// Unit is the unit that a maker measures in: her habit, or what her browser says of her.
func (s *Desk) Unit(c *echo.Context) measure.Unit {
	if unit := s.Workshop(c.Request().Context()).Habit("units"); unit != "" {
		return measure.Unit(unit)
	}
	unit, _, _ := Guess(c)
	return measure.Unit(unit)
}

// UsualPaper is the paper that a maker prints on.
func (s *Desk) UsualPaper(c *echo.Context) export.Format {
	if paper := s.Workshop(c.Request().Context()).Habit("paper"); paper != "" {
		return export.FormatOf(paper)
	}
	_, paper, _ := Guess(c)
	return export.FormatOf(paper)
}

// PrinterAsked is the printer that a form or an address names, the usual one where it names none.
func (s *Desk) PrinterAsked(c *echo.Context) (export.Printer, error) {
	all, err := s.Store.Printers(c.Request().Context())
	if err != nil {
		return export.Printer{}, err
	}
	asked := c.FormValue("printer")
	i := slices.IndexFunc(all, func(p store.Printer) bool { return p.ID == asked || asked == "" && p.Usual })
	if i < 0 {
		return export.Printer{}, nil
	}
	return export.Printer{Name: all[i].Name, Across: all[i].Across, Down: all[i].Down}, nil
}

// LabelForm is what a page asks before it prints labels.
type LabelForm struct {
	To       string // where it is sent
	All      string // what to print: "" for what the page shows
	Sheets   []export.LabelSheet
	Printers []store.Printer
}

// LabelForm makes one for a page.
func (s *Desk) LabelForm(ctx context.Context, paper export.Format, to string) (LabelForm, error) {
	printers, err := s.Store.Printers(ctx)
	return LabelForm{To: to, Sheets: export.LabelSheetsFor(paper), Printers: printers}, err
}

// mostLabels bounds how many are printed at once.
const mostLabels = 2000

// Labels gives labels as a PDF, on the sheets that the form asked for.
func (s *Desk) Labels(c *echo.Context, all []export.Label) error {
	if len(all) == 0 {
		return echo.NewHTTPError(http.StatusConflict, "There is nothing to print on labels yet.")
	}
	printer, err := s.PrinterAsked(c)
	if err != nil {
		return err
	}
	done, err := s.Short.Take(c.Request().Context())
	if err != nil {
		return err
	}
	defer done()
	first, _ := strconv.Atoi(c.QueryParam("first"))
	data, err := export.Labels(all[:min(len(all), mostLabels)], export.LabelSheetOf(c.QueryParam("sheet")), first, printer)
	if err != nil {
		return err
	}
	return PDF(c, "labels.pdf", data)
}

// PDF shows a PDF in the browser, which has parts of its own for it; the PDF runs nothing of ours.
func PDF(c *echo.Context, name string, data []byte) error {
	c.Response().Header().Set("Content-Security-Policy", "frame-ancestors 'none'")
	c.Response().Header().Set("Content-Disposition", mime.FormatMediaType("inline", map[string]string{"filename": name}))
	return c.Blob(http.StatusOK, "application/pdf", data)
}
