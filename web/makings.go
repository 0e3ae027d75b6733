package web

import (
	"context"
	"errors"
	"fmt"
	"html/template"
	"math"
	"net/http"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/costs"
	"brevium/core/record"
	"brevium/core/sets"
	"brevium/core/shop"
	"brevium/core/words"
	"brevium/store"
)

// The times a box was made.

// recordStage is what the record's stage shows beside name and notes.
type recordStage struct {
	Makings []record.Making
	All     int
	Form    record.Making // filled in as far as is known
	Lid     bool          // something goes over it, so there is a fit to record
	Cards   []shop.Card
	Folders []string
	Known   []store.Folder
	By      bool // put by
	Start   bool // kept as a starting point
}

func (s *Server) recordStage(ctx context.Context, st *state) (r *recordStage, err error) {
	r = &recordStage{}
	project := st.Project.Project
	if r.Makings, r.All, err = s.store.Makings(ctx, store.Look{Project: project}, 0); err != nil {
		return nil, err
	}
	if len(r.Makings) > 6 {
		r.Makings = r.Makings[:6]
	}
	if r.Folders, err = s.store.FoldersOf(ctx, project); err != nil {
		return nil, err
	}
	if r.Known, err = s.store.Folders(ctx); err != nil {
		return nil, err
	}
	if r.By, r.Start, err = s.store.Marks(ctx, project); err != nil {
		return nil, err
	}
	if st.Making != nil {
		r.Form = *st.Making
	} else {
		r.Form, err = s.making(ctx, st)
	}
	r.Cards = s.workshop().Cards
	r.Lid = len(st.Sections()) > 0
	return r, err
}

// making begins a making of a box as it is now: of as many as it is planned for, with the time
// that its steps took at the bench.
func (s *Server) making(ctx context.Context, st *state) (record.Making, error) {
	b := allOf(st)
	job, made := jobOf(st)
	if made { // with what the shop says now, so that it stays as it was made
		b = job.AsMade()
	}
	m := record.Of(b, s.clock())
	m.Project, m.Revision = st.Project.Project, st.ID
	m.Box = words.Cut(st.Called(), 120)
	if made {
		s.reckoned(&m, job)
		m.Planned = planned(job)
	}
	if c, ok := s.workshop().Card(m.Card); ok {
		m.Title = c.Title
	}
	times, err := s.store.TimesOf(ctx, m.Project)
	if err != nil || len(times) == 0 {
		return m, err
	}
	m.Times, m.Minutes = times, 0
	for title, minutes := range times {
		m.Times[title] = math.Round(minutes*10) / 10
		m.Minutes += minutes
	}
	m.Minutes = math.Round(m.Minutes)
	return m, nil
}

// reckoned fills in what a job takes.
func (s *Server) reckoned(m *record.Making, j sets.Job) {
	times, _ := s.store.Times(context.Background()) // without them the pace is nobody's
	cost := costs.Reckon(j, s.workshop(), bench.PaceOf(times))
	m.Count, m.Cost, m.Minutes = costs.Boxes(j), cost.All, math.Round(cost.Minutes)
	for _, c := range j.Cuts {
		m.Sheets += len(c.Sheets)
	}
	m.Style = string(j.Plans[0].Brief.Box.Style)
	if m.Title = j.Plans[0].Card.Title; m.Card == "" {
		m.Card = j.Plans[0].Card.ID
	}
}

// allOf is the document of all that is made: of a set the set's.
func allOf(st *state) brief.Brief {
	if st.Set != nil {
		return st.Set.Brief
	}
	return st.Brief
}

// filledIn reads what a form says of a making.
func (s *Server) filledIn(c *echo.Context, m record.Making) (record.Making, error) {
	text := func(name string) string { return strings.TrimSpace(c.FormValue(name)) }
	number := func(name, what string) (float64, error) {
		if text(name) == "" {
			return 0, nil
		}
		n, err := strconv.ParseFloat(strings.ReplaceAll(text(name), ",", "."), 64)
		if err != nil || math.IsNaN(n) || n < 0 || n > 1e6 {
			return 0, fmt.Errorf("%q is no number of %s", text(name), what)
		}
		return n, nil
	}
	m.Made, m.Whom, m.Fit, m.Gap = text("made"), text("whom"), text("fit"), text("gap")
	m.Change, m.Notes = text("change"), text("notes")
	if box := text("box"); box != "" {
		m.Box = box
	}
	if id := text("card"); id != "" && id != m.Card {
		if card, ok := s.workshop().Card(id); ok {
			m.Card, m.Title = card.ID, card.Title
		}
	}
	if has, _ := c.FormValues(); has.Has("contents") {
		m.Contents = text("contents")
	}
	if d, err := batch.ParseDay(m.Made); err == nil {
		m.Made = d.String()
	}
	count, err := number("count", "boxes")
	if err == nil && count != math.Trunc(count) {
		err = fmt.Errorf("%q is no whole number of boxes", text("count"))
	}
	minutes, err2 := number("minutes", "minutes")
	m.Count = int(count)
	if m.Minutes = minutes; err == nil {
		err = err2
	}
	if err == nil {
		err = m.Check()
	}
	return m, err
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
	m, err = s.filledIn(c, m)
	if err != nil {
		return s.unkept(c, st, m, err.Error()+".")
	}
	fit, why := fitFound(st, m)
	if why != "" {
		return s.unkept(c, st, m, why)
	}
	ids, err := s.store.Record(ctx, m)
	if err != nil {
		return err
	}
	if len(ids) == 0 {
		return c.Redirect(http.StatusSeeOther, "/logbook?project="+m.Project)
	}
	if fit != nil {
		if _, err := s.editShop(c, func(head store.Shop) (editedShop, error) {
			e := editedShop{doc: head.Document.Clone(), what: "How the lid of " + st.Called() + " fitted"}
			e.doc.Fits = append(e.doc.Fits, *fit)
			return e, nil
		}); err != nil {
			return err
		}
	}
	return c.Redirect(http.StatusSeeOther, fmt.Sprintf("/makings/%d?new=1", ids[0]))
}

// unkept shows the form of a making again, with what was typed and why that can't be kept.
func (s *Server) unkept(c *echo.Context, st *state, typed record.Making, why string) error {
	st.Making, st.Unkept = &typed, "This was not kept: "+why
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
	id, err := strconv.ParseInt(c.Param("id"), 10, 64)
	if err != nil {
		return record.Making{}, echo.ErrNotFound
	}
	m, err := s.store.Making(c.Request().Context(), id)
	if errors.Is(err, store.ErrNone) {
		return m, echo.NewHTTPError(http.StatusNotFound, "There is no such making in the logbook.")
	}
	return m, err
}

func (s *Server) makingPage(c *echo.Context) error { return s.showMaking(c, http.StatusOK, nil, "") }

// showMaking shows a making, with what was typed where that could not be kept.
func (s *Server) showMaking(c *echo.Context, code int, typed *record.Making, problem string) error {
	m, err := s.makingAt(c)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	data := map[string]any{"Title": m.Box + ", made " + daySaid(m.Made), "M": m, "F": m, "Problem": problem,
		"New":  c.QueryParam("new") == "1",
		"Path": fmt.Sprintf("/makings/%d", m.ID), "Cards": s.workshop().Cards}
	if typed != nil {
		typed.Edits = m.Edits
		data["F"] = *typed
	}
	if data["Photos"], err = s.store.Photos(ctx, m.ID); err != nil {
		return err
	}
	was, err := m.Brief()
	if err == nil {
		data["Was"] = true
		mk := s.make(was, "")
		data["Picture"] = template.HTML(mk.picture(420, 300))
		data["Line"] = mk.card().Line
		if j, ok := mk.job(); ok && len(m.Planned) > 0 && fmt.Sprint(planned(j)) != fmt.Sprint(m.Planned) {
			data["Otherwise"] = true // a later Brevium plans it otherwise
		}
	}
	if head, err := s.store.Head(ctx, m.Project); err == nil && m.Project != "" {
		data["Box"] = called(string(head.Brief.Name), nameless)
		data["Binned"] = head.Binned
		if m.Document != "" {
			data["Differ"] = s.differences(stated(was, head.Brief), head.Brief)
		}
	}
	return s.render(c, code, "making", data)
}

func (s *Server) amend(c *echo.Context) error {
	m, err := s.makingAt(c)
	if err != nil {
		return err
	}
	m.Edits, _ = strconv.ParseInt(c.FormValue("edits"), 10, 64)
	next, err := s.filledIn(c, m)
	if err != nil {
		return s.showMaking(c, http.StatusUnprocessableEntity, &next, "This was not kept: "+err.Error()+".")
	}
	err = s.store.Amend(c.Request().Context(), next)
	if errors.Is(err, store.ErrMoved) {
		return s.showMaking(c, http.StatusConflict, &next,
			"This making was changed in another window meanwhile. What you typed stands "+
				"below and is not kept yet: look at it, and keep it if it is to stand.")
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, fmt.Sprintf("/makings/%d", m.ID))
}

func (s *Server) throwMaking(gone bool) echo.HandlerFunc {
	return func(c *echo.Context) error {
		m, err := s.makingAt(c)
		if err != nil {
			return err
		}
		if err := s.store.ThrowMaking(c.Request().Context(), m.ID, gone); err != nil {
			return err
		}
		return c.Redirect(http.StatusSeeOther, fmt.Sprintf("/makings/%d", m.ID))
	}
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

// daySaid writes a day of the record for people.
func daySaid(day string) string {
	if d, err := batch.ParseDay(day); err == nil {
		return d.Format("2 Jan 2006")
	}
	return day
}
