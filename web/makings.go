package web

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"html/template"
	"math"
	"net/http"
	"slices"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/costs"
	"brevium/core/record"
	"brevium/core/sets"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/words"
	"brevium/draw"
	"brevium/store"
)

// The times a box was made.

// recordStage is what the record's stage shows beside name and notes.
type recordStage struct {
	Makings []record.Making
	All     int
	Fields  []field // of a making, filled in as far as is known
	Folders []string
	Known   []store.Folder
	By      bool // put by
	Start   bool // kept as a starting point
}

func (s *Server) recordStage(ctx context.Context, st *state) (r *recordStage, err error) {
	r = &recordStage{}
	project := st.Of
	if r.Makings, r.All, err = s.store.Logbook(ctx, store.Look{Project: project}, 0); err != nil {
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
	n := st.Note
	if n == nil {
		m, err := s.making(ctx, st)
		if err != nil {
			return nil, err
		}
		said := m.Note()
		n = &said
	}
	f := form{doc: asked[record.Note]{n}, at: record.Form.Field, report: &brief.Report{}}
	for _, fd := range noteFields(f, n, s.workshop().Cards, false) {
		if fd.In = "making-"; fd.Path != "gap" || len(st.Sections()) > 0 {
			r.Fields = append(r.Fields, fd)
		}
	}
	return r, nil
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
	m.Project, m.Revision = st.Of, st.ID
	m.Box = words.Cut(st.Called(), 120)
	if made {
		if err := s.reckoned(&m, job); err != nil {
			return m, err
		}
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

// reckoned fills in what a job takes, and how it looks.
func (s *Server) reckoned(m *record.Making, j sets.Job) error {
	times, err := s.store.Times(context.Background())
	if err != nil {
		return err
	}
	cost := costs.Reckon(j, s.workshop(), bench.PaceOf(times))
	m.Count, m.Cost, m.Minutes = costs.Boxes(j), cost.All, math.Round(cost.Minutes)
	for _, c := range j.Cuts {
		m.Sheets += len(c.Sheets)
	}
	m.Style = string(j.Plans[0].Brief.Box.Style)
	if m.Title = j.Plans[0].Card.Title; m.Card == "" {
		m.Card = j.Plans[0].Card.ID
	}
	of := made{plan: j.Plans[0], set: j.Set}
	m.Line, m.Planned = of.card().Line, planned(j)
	if svg := of.picture(420, 300); svg != "" {
		m.Picture = draw.File(svg)
	}
	return nil
}

// allOf is the document of all that is made: of a set the set's.
func allOf(st *state) brief.Brief {
	if st.Set != nil {
		return st.Set.Brief
	}
	return st.Brief
}

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

// noteText writes a field of a making as it is kept: a day as days are written, anything else as typed.
func (s *Server) noteText(path, text string, _, _ *record.Note) string {
	text = strings.TrimSpace(text)
	if path == "made" {
		if d, err := batch.ParseDay(text); err == nil {
			return d.String()
		}
	}
	return text
}

// titled notes what the card of a making is called, when it is another than it was.
func (s *Server) titled(n *record.Note, was string) {
	if string(n.Card) == was {
		return
	}
	if card, ok := s.workshop().Card(string(n.Card)); ok {
		n.Title = brief.Text(card.Title)
	}
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

// noteFields are the questions about a making: with a lid that goes over it, how that fitted.
func noteFields(f form, n *record.Note, cards []shop.Card, whole bool) (out []field) {
	title := string(n.Title)
	if title == "" {
		title = "not said"
	}
	choices := []style.Choice{}
	if !slices.ContainsFunc(cards, func(c shop.Card) bool { return c.ID == string(n.Card) }) {
		choices = append(choices, style.Choice{ID: string(n.Card), Label: title})
	}
	for _, c := range cards {
		choices = append(choices, style.Choice{ID: c.ID, Label: c.Title})
	}
	out = []field{f.ask("made"), f.ask("count"), f.open("for", "nobody"), f.pick("card", choices), f.open("minutes", "not taken")}
	if whole {
		out = append([]field{f.ask("box"), f.open("contents", "not said")}, out...)
	}
	out = append(out, f.buttons("fit", said("", "not said", "tight", "too tight", "right", "just right", "loose", "loose")),
		f.open("gap", "0.6 mm"))
	for _, path := range []string{"change", "notes"} {
		asked, _ := f.at(path)
		out = append(out, f.field("notes", path, asked.Title(), ""))
	}
	return out
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
