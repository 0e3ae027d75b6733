package web

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
	"brevium/core/record"
	"brevium/core/shop"
	"brevium/core/words"
	"brevium/store"
)

// The times a box was made.

// filledIn reads what a form says of a making, as it was typed too, or tells what in it can't be.
func (s *Server) filledIn(c *echo.Context, m record.Making) (record.Making, *record.Note, error) {
	n := m.Note()
	values, err := c.FormValues()
	if err != nil {
		return m, &n, err
	}
	for path := range record.Form.All(&n) {
		if values.Has(path) {
			record.Form.Set(&n, path, s.noteText(path, values.Get(path), &n, &n))
		}
	}
	s.titled(&n, m.Card)
	if wrong := m.Says(n); len(wrong) > 0 {
		return m, &n, errors.New(strings.TrimSuffix(wrong[0].Text+" "+wrong[0].Fix, "."))
	}
	return m, &n, nil
}

// recordMade records that a box was made.
func (s *Server) recordMade(c *echo.Context) error {
	st, err := s.state(c)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	m, err := s.making(ctx, st)
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
	record := s.store.Recording(&m)
	if fit == nil {
		err = s.store.Do(ctx, actName(c), record)
	} else { // how it fitted goes to the shop in the same commit
		_, _, err = s.alterShop(c, func(head *store.Head[shop.Document]) (edited[shop.Document], error) {
			e := edited[shop.Document]{doc: head.Doc.Clone(), what: "How the lid of " + st.Called() + " fitted"}
			e.besides = []store.Write{record, func(context.Context, *sql.Tx) error {
				if m.ID == "" {
					return errKnown
				}
				return nil
			}}
			e.doc.Fits = append(e.doc.Fits, *fit)
			return e, nil
		})
	}
	if errors.Is(err, errKnown) || err == nil && m.ID == "" {
		return c.Redirect(http.StatusSeeOther, "/logbook?project="+m.Project)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, fmt.Sprintf("/makings/%s?new=1", m.ID))
}

// errKnown says that a making is in the logbook already.
var errKnown = errors.New("this making is in the logbook already")

// unkept shows the form of a making again, with what was typed and why that can't be kept.
func (s *Server) unkept(c *echo.Context, st *state, typed *record.Note, why string) error {
	st.Note, st.Unkept = typed, "This was not kept: "+why
	return s.show(c, http.StatusUnprocessableEntity, st)
}

// fitFound is what a making tells the shop of how the lid fitted, if anything, or why it can't.
func fitFound(st *state, m record.Making) (*shop.Fit, string) {
	if m.Fit == "" && m.Gap == "" || len(st.Sections()) == 0 {
		return nil, ""
	}
	verdict := m.Fit
	if m.Gap != "" {
		verdict = "" // what was measured tells more
	}
	fit, why := fitOf(st, verdict, m.Gap)
	return &fit, why
}

func (s *Server) makingAt(c *echo.Context) (record.Making, error) {
	m, err := s.store.Making(c.Request().Context(), c.Param("id"))
	if errors.Is(err, store.ErrNone) {
		return m, echo.NewHTTPError(http.StatusNotFound, "There is no such making in the logbook.")
	}
	return m, err
}

type noteHead = store.Head[record.Note]

// noteKind is what the engine needs to know to change what is said of makings.
func (s *Server) noteKind(*echo.Context) kind[record.Note] {
	return kind[record.Note]{
		Kept: s.store.Makings, form: record.Form, known: inForm(record.Form), written: s.noteText,
		nudged: nudgeCount(record.Form),
		of:     func(c *echo.Context) (string, string) { return c.Param("id"), "" },
		act:    func(context.Context, *changing[record.Note]) error { return errNoAct },
		says:   func(was, now *record.Note, _ string) string { return changed(record.Form, was, now) },
		settle: func(_ context.Context, c *changing[record.Note]) error {
			s.titled(&c.doc, string(c.head.Doc.Card))
			return nil
		},
		show: func(c *echo.Context, code int, head noteHead, e edited[record.Note]) error {
			return s.showMaking(c, code, head, e, "")
		},
		at:   func(_ *echo.Context, id, _ string) string { return "/makings/" + id },
		busy: "Other windows keep changing this making, so this was not kept. Try again.",
	}
}

// makingPage is a making as its page shows it.
type makingPage struct {
	page
	kept
	M          record.Making
	Path, Here string
	Who        string // wrote it, where several do
	New        bool
	Problem    string
	Fields     []field
	Photos     []store.Photo
	Was        bool // its document is there
	Picture    template.HTML
	Line       string
	Otherwise  bool // a later Brevium plans it otherwise
	Box        string
	Binned     bool
	Differ     []differ
	History    []store.Revision[record.Note]
}

// showMakingWith shows a making, with a problem that something brought in had.
func (s *Server) showMakingWith(c *echo.Context, code int, problem string) error {
	head, err := s.store.Makings.Head(c.Request().Context(), c.Param("id"))
	if errors.Is(err, store.ErrNone) {
		return echo.NewHTTPError(http.StatusNotFound, "There is no such making in the logbook.")
	}
	if err != nil {
		return err
	}
	return s.showMaking(c, code, head, edited[record.Note]{}, problem)
}

func (s *Server) showMaking(c *echo.Context, code int, head noteHead, e edited[record.Note], problem string) error {
	ctx := c.Request().Context()
	m, err := s.makingAt(c)
	if err != nil {
		return err
	}
	v := &makingPage{page: page{Title: m.Box + ", made " + daySaid(m.Made), Part: "makingbench", InPlace: true}, M: m,
		Path: "/makings/" + m.ID, Who: head.Who, New: c.QueryParam("new") == "1", Problem: problem}
	if v.kept, err = keptOf(ctx, s.noteKind(c), &head, &e, func(path string) string {
		return labelled(record.Form, &head.Doc, path)
	}); err != nil {
		return err
	}
	if v.Photos, err = s.store.Photos(ctx, m.ID); err != nil {
		return err
	}
	if v.History, err = s.store.Makings.History(ctx, m.ID, head.ID, 30); err != nil {
		return err
	}
	wrong := m
	v.Fields = noteFields(form{doc: asked[record.Note]{&head.Doc}, at: record.Form.Field,
		report: &brief.Report{Problems: wrong.Says(head.Doc)}}, &head.Doc, s.workshop().Cards, true)
	was, err := m.Brief()
	if v.Was = err == nil; v.Was {
		s.asMade(v, was)
	}
	if m.Project != "" {
		box, err := s.store.Boxes.Head(ctx, m.Project)
		if err != nil && !errors.Is(err, store.ErrNone) && !errors.As(err, new(*store.Broken)) {
			return err
		}
		if err == nil {
			if v.Box, v.Binned = called(string(box.Doc.Name), nameless), box.Binned; v.Was {
				v.Differ = s.differences(stated(was, box.Doc), box.Doc)
			}
		}
	}
	return s.render(c, code, "making", v)
}

// asMade shows the box as it was made: as it was kept then, or, of makings that kept no picture yet, as it is planned
// now.
func (s *Server) asMade(v *makingPage, was brief.Brief) {
	if v.Line = v.M.Line; len(v.M.Picture) > 0 {
		return
	}
	mk := s.make(was, "")
	v.Picture, v.Line = template.HTML(mk.picture(420, 300)), mk.card().Line
	if j, ok := mk.job(); ok && len(v.M.Planned) > 0 && fmt.Sprint(planned(j)) != fmt.Sprint(v.M.Planned) {
		v.Otherwise = true
	}
}

// madePicture is the box as it looked when it was made.
func (s *Server) madePicture(c *echo.Context) error {
	m, err := s.makingAt(c)
	if err != nil {
		return err
	}
	if len(m.Picture) == 0 {
		return echo.ErrNotFound
	}
	return c.Blob(http.StatusOK, "image/svg+xml", m.Picture)
}

// makeAgain begins a box from a making, as it then was.
func (s *Server) makeAgain(c *echo.Context) error {
	m, err := s.makingAt(c)
	if err != nil {
		return err
	}
	b, err := m.Brief()
	if err != nil {
		return echo.NewHTTPError(http.StatusConflict, words.Capital(err.Error())+". Open a box like it and start from that.")
	}
	const longest = 60
	b.Name = brief.Text(strings.TrimSuffix(words.Cut(string(b.Name), longest), "…") + ", as on " + daySaid(m.Made))
	return s.begin(c, b, "Made again as on "+daySaid(m.Made), "bench")
}

// differ is a field that two documents say differently, in words.
type differ struct{ Field, Was, Is string }

// differences tells in words what two documents say differently.
func (s *Server) differences(was, is brief.Brief) (out []differ) {
	w := s.workshop()
	for _, d := range record.Differences(was, is) {
		of := &is
		if d.Is == "" && !is.Has(d.Field) {
			of = &was
		}
		label := fieldWords(of, d.Field)
		if strings.HasPrefix(d.Field, "contents.") && strings.HasSuffix(d.Field, ".name") {
			label = "what goes in"
		}
		out = append(out, differ{words.Capital(label), valueWords(&was, w, d.Field, d.Was),
			valueWords(&is, w, d.Field, d.Is)})
	}
	if len(out) == 0 && string(was.Encode()) != string(is.Encode()) {
		out = append(out, differ{"The set", "its boxes as they were", "its boxes as they are now"})
	}
	return out
}
