package web

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
)

// “Cut a list”: pieces of no box, typed or taken in as CSV.

type listHead = store.Head[cutlist.List]

// listKind is what the engine needs to know to change lists.
func (s *Server) listKind(*echo.Context) kind[cutlist.List] {
	return kind[cutlist.List]{
		Kept: s.store.Lists, form: cutlist.Form, known: inForm(cutlist.Form), written: listText, act: actList,
		nudged: nudgeCount(cutlist.Form),
		of:     func(c *echo.Context) (string, string) { return c.Param("list"), "" },
		says:   func(was, now *cutlist.List, _ string) string { return changed(cutlist.Form, was, now) },
		show:   s.showCutList,
		at:     func(_ *echo.Context, id, _ string) string { return "/cut/" + id },
		busy:   "Other windows keep changing this list, so this was not kept. Try again.",
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
	page
	Lists   []listHead
	Problem string
}

func (s *Server) cutLists(c *echo.Context) error {
	all, err := s.store.Lists.Recent(c.Request().Context(), mostListed)
	if err != nil {
		return err
	}
	return s.render(c, http.StatusOK, "cutlists", &listsPage{page{Title: "Cut a list"}, all, ""})
}

// newCutList begins a list: as one begins, or with the pieces of a CSV.
func (s *Server) newCutList(c *echo.Context) error {
	l := cutlist.List{Name: "A list", Units: "in", Sheets: []cutlist.Sheet{{Name: "12x12", Width: "12 in", Height: "12 in"}},
		Pieces: []cutlist.Piece{{Name: "piece", Width: "4 in", Height: "3 in", Count: "1"}}}
	now, err := s.shopNow(c.Request().Context())
	if err != nil {
		return err
	}
	if now.Doc.Units().Metric() {
		l.Units, l.Sheets[0] = "mm", cutlist.Sheet{Name: "A4", Width: "210 mm", Height: "297 mm"}
		l.Pieces[0].Width, l.Pieces[0].Height = "100 mm", "75 mm"
	}
	if file, err := uploaded(c, "list"); err == nil {
		if l.Pieces, err = cutlist.ReadCSV(bytes.NewReader(file)); err != nil {
			return s.render(c, http.StatusBadRequest, "cutlists", &listsPage{page: page{Title: "Cut a list"},
				Problem: "The list was not taken in: " + err.Error() + "."})
		}
	}
	cutlist.Form.Identify(&l)
	id, err := s.store.Lists.Create(c.Request().Context(), l, "Begun")
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/cut/"+id)
}

// listRow is a line of the list as it is typed.
type listRow struct {
	ID     string
	Fields []field
}

// listPage is a list as its page shows it.
type listPage struct {
	page
	kept
	L              *listHead
	Path, Here     string
	Asks           []field // about the list as a whole
	Sheets, Pieces []listRow
	Problems       []brief.Problem // of no field of these
	Cutting        *cutView
	History        []store.Revision[cutlist.List]
}

func (s *Server) showCutList(c *echo.Context, code int, head listHead, e edited[cutlist.List]) error {
	ctx, l := c.Request().Context(), &head.Doc
	task, report := cutlist.Read(*l)
	v := &listPage{page: page{Title: called(string(l.Name), "A list"), Part: "listbench", InPlace: true}, L: &head,
		Path: "/cut/" + head.Of}
	var err error
	if v.kept, err = keptOf(ctx, s.listKind(c), &head, &e, func(path string) string {
		return labelled(cutlist.Form, l, path)
	}); err != nil {
		return err
	}
	if v.History, err = s.store.Lists.History(ctx, head.Of, head.ID, 30); err != nil {
		return err
	}
	if len(report.Problems) == 0 {
		if err := task.Check(); err != nil {
			report.Problem("pieces", err.Error()+".", "Change the runs or the pins.")
		} else if v.Cutting, err = s.cutViewOfList(ctx, task, report, head.Of); err != nil {
			return err
		}
	}
	v.ask(form{doc: asked[cutlist.List]{l}, at: cutlist.Form.Field, report: report,
		placed: func(path string) string { return cutlist.Form.Placed(l, path) }})
	return s.render(c, code, "cutlist", v)
}

// ask makes the questions of a list.
func (v *listPage) ask(f form) {
	choices := func(pairs ...string) (out []style.Choice) { return said(pairs...) }
	v.Asks = []field{f.ask("name"), f.pick("units", choices("in", "inches", "mm", "millimetres")),
		f.pick("aim", choices("", "fewest sheets", "cost", "least cost", "card", "least card")),
		f.pick("among-equals", choices("", "the largest offcut", "stops", "fewest settings")),
		f.open("longest-cut", "any"), f.open("margin", "none")}
	row := func(list, id string, nth int, names ...string) listRow {
		r := listRow{ID: id}
		for _, name := range names {
			fd := f.ask(list + "s.@" + id + "." + name)
			switch name {
			case "offcut":
				fd = f.pick(fd.Path, choices("", "no", "yes", "yes"))
			case "turn":
				fd = f.pick(fd.Path, choices("", "yes", "no", "no"))
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
		if p := f.ask(name).Problem; p != nil {
			v.Problems = append(v.Problems, *p)
		}
	}
}

func (s *Server) cutViewOfList(ctx context.Context, task least.Task, report *brief.Report, id string) (*cutView, error) {
	tasks := []cutting.Task{cutting.TaskOf(task)}
	found, err := s.best(ctx, tasks)
	if err != nil {
		return nil, err
	}
	v := cutViewOf(cutting.Cuts(found), report.Step, false)
	v.Bound, v.Proved = boundOf(found)
	v.Left = nil
	for _, w := range cutlist.Why(task, found[0].Result, report.Say) {
		v.Left = append(v.Left, strings.TrimSuffix(w.Text+" "+w.Fix, "."))
	}
	if deep := deepened(tasks); !v.Proved && !s.cuttings.has(keyOf(deep)) {
		v.Live, v.Key = "/cut/"+id+"/least", keyOf(deep)
	}
	return &v, nil
}

func (s *Server) leastOfList(c *echo.Context) error {
	head, err := s.store.Lists.Head(c.Request().Context(), c.Param("list"))
	if err != nil {
		return err
	}
	task, report := cutlist.Read(head.Doc)
	if len(report.Problems) > 0 {
		return echo.NewHTTPError(http.StatusNotFound, "Something in this list is to be mended first.")
	}
	tasks := []cutting.Task{cutting.TaskOf(task)}
	found, err := s.best(c.Request().Context(), tasks)
	if err != nil {
		return err
	}
	return s.leastStream(c, deepened(tasks), report.Step, cutting.Cuts(found), false)
}

// actList does what a button of a list asks.
func actList(_ context.Context, c *changing[cutlist.List]) error {
	l := &c.doc
	switch c.act {
	case "add-piece":
		if len(l.Pieces) < cutlist.MostLines {
			l.Pieces = append(l.Pieces, cutlist.Piece{ID: newMark(), Count: "1"})
			c.what, c.focus = "A piece added", fieldMark("pieces.@"+l.Pieces[len(l.Pieces)-1].ID+".name")
		}
	case "add-sheet":
		if len(l.Sheets) < cutlist.MostSheets {
			l.Sheets = append(l.Sheets, cutlist.Sheet{ID: newMark()})
			c.what, c.focus = "A sheet added", fieldMark("sheets.@"+l.Sheets[len(l.Sheets)-1].ID+".name")
		}
	case "remove-piece":
		if takeOut(c, "pieces.@"+c.arg, "piece") {
			c.what = "A piece taken out"
		}
	case "remove-sheet":
		if takeOut(c, "sheets.@"+c.arg, "sheet") {
			c.what = "A sheet taken out"
		}
	default:
		return errNoAct
	}
	return nil
}

// readCutList takes the pieces of a CSV in, in place of those of the list: all or nothing.
func (s *Server) readCutList(c *echo.Context) error {
	file, err := uploaded(c, "list")
	notice := ""
	if err != nil {
		notice = "Choose a list first."
	}
	pieces, err := cutlist.ReadCSV(bytes.NewReader(file))
	if err != nil && notice == "" {
		notice = "The list was not taken in: " + err.Error() + "."
	}
	k := s.listKind(c)
	head, e, err := edit(s, c, k, func(head *listHead) (edited[cutlist.List], error) {
		e := edited[cutlist.List]{doc: document.Clone(head.Doc), what: "Pieces brought in from a list", notice: notice}
		if notice != "" {
			return e, nil
		}
		e.doc.Pieces = document.Clone(pieces)
		for i := range e.doc.Pieces { // they are others than those they come in place of
			e.doc.Pieces[i].ID = newMark()
		}
		return e, nil
	})
	if err != nil {
		return err
	}
	if notice != "" {
		return s.showCutList(c, http.StatusBadRequest, head, e)
	}
	return k.answer(c, head, e, nil)
}

func (s *Server) cutListCSV(c *echo.Context) error {
	head, err := s.store.Lists.Head(c.Request().Context(), c.Param("list"))
	if err != nil {
		return err
	}
	asFile(c, "pieces.csv")
	return cutlist.WriteCSV(c.Response(), head.Doc.Pieces)
}
