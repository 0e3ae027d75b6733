package web

import (
	"errors"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/brief"
	"brevium/core/cutlist"
	"brevium/core/cutting"
	"brevium/core/least"
	"brevium/core/paths"
	"brevium/store"
)

// “Cut a list”: pieces of no box, typed or taken in as CSV.

// listPage is a list as its page shows it.
type listPage struct {
	store.CutList
	Problems map[string]brief.Problem
	Notice   string
}

// At gives a field of the list.
func (l listPage) At(path string) string { return paths.Get(&l.List, path) }

// Problem gives what is wrong at a field.
func (l listPage) Problem(path string) *brief.Problem {
	if p, ok := l.Problems[path]; ok {
		return &p
	}
	return nil
}

const mostListed = 50

func (s *Server) cutLists(c *echo.Context) error {
	all, err := s.store.CutLists(c.Request().Context(), mostListed)
	if err != nil {
		return err
	}
	return s.render(c, http.StatusOK, "cutlists", map[string]any{"Title": "Cut a list", "Lists": all})
}

// newCutList begins a list: as one begins, or with the pieces of a CSV.
func (s *Server) newCutList(c *echo.Context) error {
	l := cutlist.List{Name: "A list", Units: "in", Sheets: []cutlist.Sheet{{Name: "12x12", Width: "12 in", Height: "12 in"}},
		Pieces: []cutlist.Piece{{Name: "piece", Width: "4 in", Height: "3 in", Count: "1"}}}
	if now, err := s.shopNow(c.Request().Context()); err == nil && now.Document.Units().Metric() {
		l.Units, l.Sheets[0] = "mm", cutlist.Sheet{Name: "A4", Width: "210 mm", Height: "297 mm"}
		l.Pieces[0].Width, l.Pieces[0].Height = "100 mm", "75 mm"
	}
	if file, err := c.FormFile("list"); err == nil && file.Size > 0 {
		in, err := file.Open()
		if err != nil {
			return err
		}
		defer in.Close()
		if l.Pieces, err = cutlist.ReadCSV(in); err != nil {
			return s.render(c, http.StatusBadRequest, "cutlists", map[string]any{"Title": "Cut a list",
				"Problem": "The list was not taken in: " + err.Error() + "."})
		}
	}
	id, err := s.store.NewCutList(c.Request().Context(), l)
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/cut/"+id)
}

func (s *Server) cutList(c *echo.Context) error {
	l, err := s.store.CutList(c.Request().Context(), c.Param("list"))
	if err != nil {
		return err
	}
	return s.showCutList(c, http.StatusOK, listPage{CutList: l})
}

func (s *Server) showCutList(c *echo.Context, code int, l listPage) error {
	task, report := cutlist.Read(l.List)
	l.Problems = map[string]brief.Problem{}
	for _, p := range report.Problems {
		l.Problems[p.Field] = p
	}
	data := map[string]any{"Title": called(string(l.List.Name), "A list"), "L": l, "Path": "/cut/" + l.ID}
	if len(report.Problems) == 0 {
		if err := task.Check(); err != nil {
			l.Problems["pieces"] = brief.Problem{Field: "pieces", Text: err.Error() + ".", Fix: "Change the runs or the pins."}
		} else {
			data["Cutting"] = s.cutViewOfList(task, report, l)
		}
	}
	return s.render(c, code, "cutlist", data)
}

func (s *Server) cutViewOfList(task least.Task, report *brief.Report, l listPage) cutView {
	tasks := []cutting.Task{cutting.TaskOf(task)}
	found := s.best(tasks)
	v := cutViewOf(cutting.Cuts(found), report.Step, false)
	v.Bound, v.Proved = boundOf(found)
	v.Left = nil
	for _, w := range cutlist.Why(task, found[0].Result, report.Say) {
		v.Left = append(v.Left, strings.TrimSuffix(w.Text+" "+w.Fix, "."))
	}
	if deep := deepened(tasks); !v.Proved && s.cuttings.of(keyOf(deep)) == nil {
		v.Live, v.Key = "/cut/"+l.ID+"/least", keyOf(deep)
	}
	return v
}

func (s *Server) leastOfList(c *echo.Context) error {
	l, err := s.store.CutList(c.Request().Context(), c.Param("list"))
	if err != nil {
		return err
	}
	task, report := cutlist.Read(l.List)
	if len(report.Problems) > 0 {
		return echo.NewHTTPError(http.StatusNotFound, "Something in this list is to be mended first.")
	}
	tasks := []cutting.Task{cutting.TaskOf(task)}
	return s.leastStream(c, deepened(tasks), report.Step, cutting.Cuts(s.best(tasks)), false)
}

// changeCutList keeps what is typed in a list, and does what its button says.
func (s *Server) changeCutList(c *echo.Context) error {
	ctx := c.Request().Context()
	values, err := c.FormValues()
	if err != nil {
		return err
	}
	now, err := s.store.CutList(ctx, c.Param("list"))
	if err != nil {
		return err
	}
	l := typedList(now.List, values)
	act, arg, _ := strings.Cut(values.Get("act"), ":")
	n, _ := strconv.Atoi(arg)
	switch act {
	case "add-piece":
		if len(l.Pieces) < cutlist.MostLines {
			l.Pieces = append(l.Pieces, cutlist.Piece{Count: "1"})
		}
	case "add-sheet":
		if len(l.Sheets) < cutlist.MostSheets {
			l.Sheets = append(l.Sheets, cutlist.Sheet{})
		}
	case "remove-piece":
		if n >= 0 && n < len(l.Pieces) {
			l.Pieces = slices.Delete(l.Pieces, n, n+1)
		}
	case "remove-sheet":
		if n >= 0 && n < len(l.Sheets) {
			l.Sheets = slices.Delete(l.Sheets, n, n+1)
		}
	}
	base, _ := strconv.ParseInt(values.Get("base"), 10, 64)
	switch err := s.store.KeepCutList(ctx, now.ID, base, l); {
	case errors.Is(err, store.ErrMoved):
		now.List = l
		return s.showCutList(c, http.StatusConflict, listPage{CutList: now, Notice: "Another window has changed this list since. " +
			"What you typed stands here and is not kept yet: lay it out again to keep it in place of that."})
	case err != nil:
		return err
	}
	to := "/cut/" + now.ID
	if act != "" {
		to += "#" + strings.TrimPrefix(strings.TrimPrefix(act, "add-"), "remove-") + "s"
	}
	return c.Redirect(http.StatusSeeOther, to)
}

// typedList lays a form on a list: as many lines as the form has, and no more than a
// list may have.
func typedList(was cutlist.List, values url.Values) cutlist.List {
	l := cutlist.List{Seed: was.Seed, Pins: was.Pins}
	count := func(name string, most int) int {
		n, _ := strconv.Atoi(values.Get(name))
		return max(0, min(n, most))
	}
	l.Sheets = make([]cutlist.Sheet, count("sheets", cutlist.MostSheets))
	l.Pieces = make([]cutlist.Piece, count("pieces", cutlist.MostLines))
	for path, v := range values {
		if len(v) > 0 {
			paths.Set(&l, path, strings.TrimSpace(v[len(v)-1]))
		}
	}
	return l
}

// readCutList takes the pieces of a CSV in, in place of those of the list.
func (s *Server) readCutList(c *echo.Context) error {
	ctx := c.Request().Context()
	now, err := s.store.CutList(ctx, c.Param("list"))
	if err != nil {
		return err
	}
	file, err := c.FormFile("list")
	if err != nil {
		return s.showCutList(c, http.StatusBadRequest, listPage{CutList: now, Notice: "Choose a list first."})
	}
	in, err := file.Open()
	if err != nil {
		return err
	}
	defer in.Close()
	pieces, err := cutlist.ReadCSV(in)
	if err != nil {
		return s.showCutList(c, http.StatusBadRequest, listPage{CutList: now, Notice: "The list was not taken in: " + err.Error() + "."})
	}
	now.List.Pieces = pieces
	switch err := s.store.KeepCutList(ctx, now.ID, now.Revision, now.List); {
	case errors.Is(err, store.ErrMoved):
		return s.showCutList(c, http.StatusConflict, listPage{CutList: now, Notice: "Another window has just changed this list, " +
			"so the pieces were not taken in. Bring them in once more."})
	case err != nil:
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/cut/"+now.ID)
}

func (s *Server) cutListCSV(c *echo.Context) error {
	l, err := s.store.CutList(c.Request().Context(), c.Param("list"))
	if err != nil {
		return err
	}
	asFile(c, "pieces.csv")
	return cutlist.WriteCSV(c.Response(), l.List.Pieces)
}

func (s *Server) throwCutList(gone bool) echo.HandlerFunc {
	return func(c *echo.Context) error {
		if err := s.store.ThrowCutList(c.Request().Context(), c.Param("list"), gone); err != nil {
			return err
		}
		return c.Redirect(http.StatusSeeOther, "/cut/"+c.Param("list"))
	}
}
