package supplies

import (
	"bytes"
	"cmp"
	"context"
	"fmt"
	"net/http"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/brief"
	"brevium/core/cutlist"
	"brevium/core/cutting"
	"brevium/core/document"
	"brevium/core/least"
	"brevium/core/measure"
	"brevium/core/style"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/sheets"
)

// “Cut a list”: pieces of no box, typed or taken in as CSV.

type listHead = store.Head[cutlist.List]

// ListKind is what the engine needs to know to change lists.
func (s *Room) ListKind(*echo.Context) desk.Kind[cutlist.List] {
	return desk.Kind[cutlist.List]{
		Kept: s.Store.Lists, Form: cutlist.Form, Known: desk.InForm(cutlist.Form), Written: listText, Act: actList,
		Nudged: desk.NudgeCount(cutlist.Form),
		Of:     func(c *echo.Context) (string, string) { return c.Param("list"), "" },
		Says:   func(was, now *cutlist.List, _ string) string { return desk.Changed(cutlist.Form, was, now) },
		Show:   s.showCutList,
		At:     func(_ *echo.Context, id, _ string) string { return "/cut/" + id },
		Busy:   "This list is being changed in another window, so this was not saved. Try again.",
	}
}

// listText writes a field as the list keeps it: a length with its unit, so that it stays what it is when bare numbers
// come to mean another; anything else as typed.
func listText(path, text string, seen, head *cutlist.List) string {
	text = strings.TrimSpace(text)
	if f, _ := cutlist.Form.Field(path); f.Kind != document.Distance {
		return text
	}
	write := func(text string, l *cutlist.List) string {
		if length, unit, err := measure.ParseUnit(text, l.Bare()); err == nil {
			return length.Exact(unit)
		}
		return text
	}
	out, is := write(text, seen), document.Get(head, path)
	if write(is, head) == out {
		return is // the same, however it was written
	}
	return out
}

// listsPage lists the lists.
type listsPage struct {
	desk.Page
	Lists   []listHead
	Problem string
}

func (s *Room) CutLists(c *echo.Context) error {
	all, err := s.Store.Lists.Recent(c.Request().Context(), desk.MostListed)
	if err != nil {
		return err
	}
	return s.Render(c, http.StatusOK, "cutlists", &listsPage{desk.Page{Title: "Cut a list"}, all, ""})
}

// NewCutList begins a list: as one begins, or with the pieces of a CSV.
func (s *Room) NewCutList(c *echo.Context) error {
	l := cutlist.List{Name: "A list", Units: "in", Sheets: []cutlist.Sheet{{Name: "12x12", Width: "12 in", Height: "12 in"}},
		Pieces: []cutlist.Piece{{Name: "piece", Width: "4 in", Height: "3 in", Count: "1"}}}
	now, err := s.ShopNow(c.Request().Context())
	if err != nil {
		return err
	}
	if now.Doc.Units().Metric() {
		l.Units, l.Sheets[0] = "mm", cutlist.Sheet{Name: "A4", Width: "210 mm", Height: "297 mm"}
		l.Pieces[0].Width, l.Pieces[0].Height = "100 mm", "75 mm"
	}
	if file, err := desk.Uploaded(c, "list"); err == nil {
		if l.Pieces, err = cutlist.ReadCSV(bytes.NewReader(file)); err != nil {
			return s.Render(c, http.StatusBadRequest, "cutlists", &listsPage{Page: desk.Page{Title: "Cut a list"},
				Problem: "The list was not added: " + err.Error() + "."})
		}
	}
	cutlist.Form.Identify(&l)
	id, err := s.Store.Lists.Create(c.Request().Context(), l, "Begun")
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/cut/"+id)
}

// listRow is a line of the list as it is typed.
type listRow struct {
	ID     string
	Fields []desk.Field
}

// listPage is a list as its page shows it.
type listPage struct {
	desk.Page
	desk.Kept
	L              *listHead
	Path, Here     string
	Asks           []desk.Field // about the list as a whole
	Sheets, Pieces []listRow
	Problems       []brief.Problem // of no field of these
	Cutting        *sheets.CutView
	History        []store.Revision[cutlist.List]
}

func (s *Room) showCutList(c *echo.Context, code int, head listHead, e desk.Edited[cutlist.List]) error {
	ctx, l := c.Request().Context(), &head.Doc
	task, report := cutlist.Read(*l)
	v := &listPage{Page: desk.Page{Title: desk.Called(string(l.Name), "A list"), Part: "listbench", InPlace: true}, L: &head,
		Path: "/cut/" + head.Of}
	var err error
	if v.Kept, err = desk.KeptOf(ctx, s.ListKind(c), &head, &e, func(path string) string {
		return desk.Labelled(cutlist.Form, l, path)
	}); err != nil {
		return err
	}
	if v.History, err = s.Store.Lists.History(ctx, head.Of, head.ID, 30); err != nil {
		return err
	}
	if len(report.Problems) == 0 {
		if err := task.Check(); err != nil {
			report.Problem("pieces", err.Error()+".", "Change the runs or the pins.")
		} else if v.Cutting, err = s.cutViewOfList(ctx, task, report, head.Of); err != nil {
			return err
		}
	}
	v.ask(desk.Form{Doc: desk.Asked[cutlist.List]{Of: l}, At: cutlist.Form.Field, Report: report,
		Placed: func(path string) string { return cutlist.Form.Placed(l, path) }})
	return s.Render(c, code, "cutlist", v)
}

// ask makes the questions of a list.
func (v *listPage) ask(f desk.Form) {
	choices := func(pairs ...string) (out []style.Choice) { return desk.Said(pairs...) }
	v.Asks = []desk.Field{f.Ask("name"), f.Pick("units", choices("in", "inches", "mm", "millimetres")),
		f.Pick("aim", choices("", "fewest sheets", "cost", "least cost", "card", "least card")),
		f.Pick("among-equals", choices("", "the largest offcut", "stops", "fewest settings")),
		f.Open("longest-cut", "any"), f.Open("margin", "none")}
	row := func(list, id string, nth int, names ...string) listRow {
		r := listRow{ID: id}
		for _, name := range names {
			fd := f.Ask(list + "s.@" + id + "." + name)
			switch name {
			case "offcut":
				fd = f.Pick(fd.Path, choices("", "no", "yes", "yes"))
			case "turn":
				fd = f.Pick(fd.Path, choices("", "yes", "no", "no"))
			}
			fd.Label, fd.Bare = fmt.Sprintf("%s of %s %d", fd.Label, list, nth), true
			fd.Wanted, fd.Value = false, cmp.Or(fd.Kept, fd.Value) // a line without a size is told at once
			r.Fields = append(r.Fields, fd)
		}
		return r
	}
	for i, sheet := range v.L.Doc.Sheets {
		v.Sheets = append(v.Sheets, row("sheet", sheet.ID, i+1, "name", "width", "height", "price", "count", "stock", "offcut"))
	}
	for i, piece := range v.L.Doc.Pieces {
		v.Pieces = append(v.Pieces, row("piece", piece.ID, i+1, "name", "width", "height", "count", "stock", "run", "turn"))
	}
	for _, name := range []string{"sheets", "pieces", "pins"} {
		if p := f.Ask(name).Problem; p != nil {
			v.Problems = append(v.Problems, *p)
		}
	}
}

func (s *Room) cutViewOfList(ctx context.Context, task least.Task, report *brief.Report, id string) (*sheets.CutView, error) {
	tasks := []cutting.Task{cutting.TaskOf(task)}
	found, err := s.Sheets.Best(ctx, tasks)
	if err != nil {
		return nil, err
	}
	v := sheets.CutViewOf(cutting.Cuts(found), report.Step, false)
	v.Bound, v.Proved = sheets.BoundOf(found)
	v.Left = nil
	for _, w := range cutlist.Why(task, found[0].Result, report.Say) {
		v.Left = append(v.Left, strings.TrimSuffix(w.Text+" "+w.Fix, "."))
	}
	if deep := sheets.Deepened(tasks); !v.Proved && !s.Cuttings.Has(sheets.KeyOf(deep)) {
		v.Live, v.Key = "/cut/"+id+"/least", sheets.KeyOf(deep)
	}
	return &v, nil
}

func (s *Room) LeastOfList(c *echo.Context) error {
	head, err := s.Store.Lists.Head(c.Request().Context(), c.Param("list"))
	if err != nil {
		return err
	}
	task, report := cutlist.Read(head.Doc)
	if len(report.Problems) > 0 {
		return echo.NewHTTPError(http.StatusNotFound, "Fix the red fields in this list first.")
	}
	tasks := []cutting.Task{cutting.TaskOf(task)}
	found, err := s.Sheets.Best(c.Request().Context(), tasks)
	if err != nil {
		return err
	}
	return s.Sheets.LeastStream(c, sheets.Deepened(tasks), report.Step, cutting.Cuts(found), false)
}

// actList does what a button of a list asks.
func actList(_ context.Context, c *desk.Changing[cutlist.List]) error {
	l := &c.Doc
	switch c.Act {
	case "add-piece":
		if len(l.Pieces) < cutlist.MostLines {
			l.Pieces = append(l.Pieces, cutlist.Piece{ID: desk.NewMark(), Count: "1"})
			c.What, c.Focus = "Added a piece", desk.FieldMark("pieces.@"+l.Pieces[len(l.Pieces)-1].ID+".name")
		}
	case "add-sheet":
		if len(l.Sheets) < cutlist.MostSheets {
			l.Sheets = append(l.Sheets, cutlist.Sheet{ID: desk.NewMark()})
			c.What, c.Focus = "Added a sheet", desk.FieldMark("sheets.@"+l.Sheets[len(l.Sheets)-1].ID+".name")
		}
	case "remove-piece":
		if desk.TakeOut(c, "pieces.@"+c.Arg, "piece") {
			c.What = "Removed a piece"
		}
	case "remove-sheet":
		if desk.TakeOut(c, "sheets.@"+c.Arg, "sheet") {
			c.What = "Removed a sheet"
		}
	default:
		return desk.ErrNoAct
	}
	return nil
}

// ReadCutList takes the pieces of a CSV in, in place of those of the list: all or nothing.
func (s *Room) ReadCutList(c *echo.Context) error {
	file, err := desk.Uploaded(c, "list")
	notice := ""
	if err != nil {
		notice = "Choose a list first."
	}
	pieces, err := cutlist.ReadCSV(bytes.NewReader(file))
	if err != nil && notice == "" {
		notice = "The list was not added: " + err.Error() + "."
	}
	k := s.ListKind(c)
	head, e, err := desk.Edit(s.Desk, c, k, func(head *listHead) (desk.Edited[cutlist.List], error) {
		e := desk.Edited[cutlist.List]{Doc: document.Clone(head.Doc), What: "Added pieces from a list", Notice: notice}
		if notice != "" {
			return e, nil
		}
		e.Doc.Pieces = document.Clone(pieces)
		for i := range e.Doc.Pieces { // they are others than those they come in place of
			e.Doc.Pieces[i].ID = desk.NewMark()
		}
		return e, nil
	})
	if err != nil {
		return err
	}
	if notice != "" {
		return s.showCutList(c, http.StatusBadRequest, head, e)
	}
	return k.Answer(c, head, e, nil)
}

func (s *Room) CutListCSV(c *echo.Context) error {
	head, err := s.Store.Lists.Head(c.Request().Context(), c.Param("list"))
	if err != nil {
		return err
	}
	desk.AsFile(c, "pieces.csv")
	return cutlist.WriteCSV(c.Response(), head.Doc.Pieces)
}
