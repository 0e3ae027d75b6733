package logbook

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"html/template"
	"net/http"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/record"
	"brevium/core/shop"
	"brevium/core/words"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/supplies"
	"brevium/web/workbench"
)

// The times a box was made.

// filledIn reads what a form says of a making, as it was typed too, or tells what in it can't be.
func (s *Room) filledIn(c *echo.Context, m record.Making) (record.Making, *record.Note, error) {
	n := m.Note()
	values, err := c.FormValues()
	if err != nil {
		return m, &n, err
	}
	for path := range record.Form.All(&n) {
		if values.Has(path) {
			record.Form.Set(&n, path, workbench.NoteText(path, values.Get(path), &n, &n))
		}
	}
	workbench.Titled(s.Workshop(c.Request().Context()), &n, m.Card)
	if wrong := m.Says(n); len(wrong) > 0 {
		return m, &n, errors.New(strings.TrimSuffix(wrong[0].Text+" "+wrong[0].Fix, "."))
	}
	return m, &n, nil
}

// RecordMade records that a box was made.
func (s *Room) RecordMade(c *echo.Context, st *workbench.State) error {
	ctx := c.Request().Context()
	m, err := s.Work.Making(ctx, st)
	if err != nil {
		return err
	}
	m.Key = c.FormValue("key") // pressed twice it is kept once
	m, typed, err := s.filledIn(c, m)
	if err != nil {
		return s.unkept(c, st, typed, err.Error()+".")
	}
	fit, why := fitFound(st, m)
	if why != "" {
		return s.unkept(c, st, typed, why)
	}
	err = s.keepMade(c, &m, fit, st.Called())
	if errors.Is(err, errKnown) || err == nil && m.ID == "" {
		return c.Redirect(http.StatusSeeOther, "/logbook?project="+m.Project)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, fmt.Sprintf("/makings/%s?new=1", m.ID))
}

// keepMade writes a making into the logbook, and in the same commit how its lid fitted into the shop.
func (s *Room) keepMade(c *echo.Context, m *record.Making, fit *shop.Fit, called string) error {
	written, photos := s.Store.Log.Recording(m), store.TakingBenchPhotos(m.Project, &m.ID)
	if fit == nil {
		return s.Store.Do(c.Request().Context(), desk.ActName(c), written, photos)
	}
	_, _, err := s.Supplies.AlterShop(c, func(head *store.Head[shop.Document]) (desk.Edited[shop.Document], error) {
		e := desk.Edited[shop.Document]{Doc: head.Doc.Clone(), What: "How the lid of " + called + " fitted"}
		e.Besides = []store.Write{written, func(context.Context, *sql.Tx) error {
			if m.ID == "" {
				return errKnown
			}
			return nil
		}, photos}
		e.Doc.Fits = append(e.Doc.Fits, *fit)
		return e, nil
	})
	return err
}

// errKnown says that a making is in the logbook already.
var errKnown = errors.New("this is in the logbook already")

// unkept shows the form of a making again, with what was typed and why that can't be kept.
func (s *Room) unkept(c *echo.Context, st *workbench.State, typed *record.Note, why string) error {
	st.Note, st.Unkept = typed, "This was not saved: "+why
	return s.Work.Show(c, http.StatusUnprocessableEntity, st)
}

// fitFound is what a making tells the shop of how the lid fitted, if anything, or why it can't.
func fitFound(st *workbench.State, m record.Making) (*shop.Fit, string) {
	if m.Fit == "" && m.Gap == "" || len(st.Sections()) == 0 {
		return nil, ""
	}
	verdict := m.Fit
	if m.Gap != "" {
		verdict = "" // what was measured tells more
	}
	fit, why := supplies.FitOf(st, verdict, m.Gap)
	return &fit, why
}

func (s *Room) MakingAt(c *echo.Context) (record.Making, error) {
	m, err := s.Store.Log.Making(c.Request().Context(), c.Param("id"))
	if errors.Is(err, store.ErrNone) {
		return m, echo.NewHTTPError(http.StatusNotFound, "This logbook entry doesn't exist.")
	}
	return m, err
}

type noteHead = store.Head[record.Note]

// NoteKind is what the engine needs to know to change what is said of makings.
func (s *Room) NoteKind(*echo.Context) desk.Kind[record.Note] {
	return desk.Kind[record.Note]{
		Kept: s.Store.Makings, Form: record.Form, Known: desk.InForm(record.Form), Written: workbench.NoteText,
		Nudged: desk.NudgeCount(record.Form),
		Of:     func(c *echo.Context) (string, string) { return c.Param("id"), "" },
		Act:    func(context.Context, *desk.Changing[record.Note]) error { return desk.ErrNoAct },
		Says:   func(was, now *record.Note, _ string) string { return desk.Changed(record.Form, was, now) },
		Settle: func(ctx context.Context, c *desk.Changing[record.Note]) error {
			workbench.Titled(s.Workshop(ctx), &c.Doc, string(c.Head.Doc.Card))
			return nil
		},
		Show: func(c *echo.Context, code int, head noteHead, e desk.Edited[record.Note]) error {
			return s.showMaking(c, code, head, e, "")
		},
		At:   func(_ *echo.Context, id, _ string) string { return "/makings/" + id },
		Busy: "This entry is being changed in another window, so this was not saved. Try again.",
	}
}

// makingPage is a making as its page shows it.
type makingPage struct {
	desk.Page
	desk.Kept
	M          record.Making
	Path, Here string
	Who        string // wrote it, where several do
	New        bool
	Problem    string
	Fields     []desk.Field
	Photos     []store.Photo
	Was        bool // its document is there
	Picture    template.HTML
	Line       string
	Otherwise  bool // a later Brevium plans it otherwise
	Box        string
	Binned     bool
	Differ     []workbench.Differ
	History    []store.Revision[record.Note]
}

// showMakingWith shows a making, with a problem that something brought in had.
func (s *Room) showMakingWith(c *echo.Context, code int, problem string) error {
	head, err := s.Store.Makings.Head(c.Request().Context(), c.Param("id"))
	if errors.Is(err, store.ErrNone) {
		return echo.NewHTTPError(http.StatusNotFound, "This logbook entry doesn't exist.")
	}
	if err != nil {
		return err
	}
	return s.showMaking(c, code, head, desk.Edited[record.Note]{}, problem)
}

func (s *Room) showMaking(c *echo.Context, code int, head noteHead, e desk.Edited[record.Note], problem string) error {
	ctx := c.Request().Context()
	m, err := s.MakingAt(c)
	if err != nil {
		return err
	}
	v := &makingPage{Page: desk.Page{Title: m.Box + ", made " + desk.DaySaid(m.Made), Part: "makingbench", InPlace: true}, M: m,
		Path: "/makings/" + m.ID, Who: head.Who, New: c.QueryParam("new") == "1", Problem: problem}
	if v.Kept, err = desk.KeptOf(ctx, s.NoteKind(c), &head, &e, func(path string) string {
		return desk.Labelled(record.Form, &head.Doc, path)
	}); err != nil {
		return err
	}
	if v.Photos, err = s.Store.Log.Photos(ctx, m.ID); err != nil {
		return err
	}
	if v.History, err = s.Store.Makings.History(ctx, m.ID, head.ID, 30); err != nil {
		return err
	}
	was, err := m.Brief()
	wrong := m
	told := &brief.Report{Units: measure.Unit(was.Units), Problems: wrong.Says(head.Doc)}
	v.Fields = workbench.NoteFields(desk.Form{Doc: desk.Asked[record.Note]{Of: &head.Doc}, At: record.Form.Field,
		Report: told}, &head.Doc, s.Workshop(c.Request().Context()).Cards, true)
	if v.Was = err == nil; v.Was {
		s.asMade(ctx, v, was)
	}
	if m.Project != "" {
		box, err := s.Store.Boxes.Head(ctx, m.Project)
		if err != nil && !errors.Is(err, store.ErrNone) && !errors.As(err, new(*store.Broken)) {
			return err
		}
		if err == nil {
			if v.Box, v.Binned = desk.Called(string(box.Doc.Name), desk.Nameless), box.Binned; v.Was {
				v.Differ = workbench.Differences(s.Workshop(ctx), stated(was, box.Doc), box.Doc)
			}
		}
	}
	return s.Render(c, code, "making", v)
}

// asMade shows the box as it was made: as it was kept then, or, of makings that kept no picture yet, as it is planned
// now.
func (s *Room) asMade(ctx context.Context, v *makingPage, was brief.Brief) {
	if v.Line = v.M.Line; len(v.M.Picture) > 0 {
		return
	}
	mk := s.Work.Make(ctx, was, "")
	v.Picture, v.Line = template.HTML(mk.Picture(420, 300)), mk.Card().Line
	if j, ok := mk.Job(); ok && len(v.M.Planned) > 0 && fmt.Sprint(workbench.Planned(j)) != fmt.Sprint(v.M.Planned) {
		v.Otherwise = true
	}
}

// MadePicture is the box as it looked when it was made.
func (s *Room) MadePicture(c *echo.Context, m record.Making) error {
	if len(m.Picture) == 0 {
		return echo.ErrNotFound
	}
	return c.Blob(http.StatusOK, "image/svg+xml", m.Picture)
}

// MakeAgain begins a box from a making, as it then was.
func (s *Room) MakeAgain(c *echo.Context, m record.Making) error {
	b, err := m.Brief()
	if err != nil {
		return echo.NewHTTPError(http.StatusConflict, words.Capital(err.Error())+". Open a similar box and start from that.")
	}
	const longest = 60
	b.Name = brief.Text(strings.TrimSuffix(words.Cut(string(b.Name), longest), "…") + ", as on " + desk.DaySaid(m.Made))
	return s.Work.Begin(c, b, "Made again as on "+desk.DaySaid(m.Made), "bench")
}
