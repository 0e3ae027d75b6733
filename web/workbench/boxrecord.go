package workbench

import (
	"context"
	"math"
	"slices"
	"strings"

	"brevium/core/batch"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/costs"
	"brevium/core/measure"
	"brevium/core/record"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/words"
	"brevium/draw/pen"
	"brevium/store"
	"brevium/web/desk"
)

// recordStage is what the record's stage shows beside name and notes.
type recordStage struct {
	Makings []record.Making
	All     int
	Fields  []desk.Field // of a making, filled in as far as is known
	Folders []string
	Known   []store.Folder
	By      bool // put by
	Start   bool // kept as a starting point
}

func (s *Room) recordStage(ctx context.Context, st *State) (r *recordStage, err error) {
	r = &recordStage{}
	project := st.Of
	if r.Makings, r.All, err = s.Store.Log.Page(ctx, store.Look{Project: project}, 0); err != nil {
		return nil, err
	}
	if len(r.Makings) > 6 {
		r.Makings = r.Makings[:6]
	}
	if r.Folders, err = s.Store.Shelf.FoldersOf(ctx, project); err != nil {
		return nil, err
	}
	if r.Known, err = s.Store.Shelf.Folders(ctx); err != nil {
		return nil, err
	}
	if r.By, r.Start, err = s.Store.Shelf.Marks(ctx, project); err != nil {
		return nil, err
	}
	n := st.Note
	if n == nil {
		m, err := s.Making(ctx, st)
		if err != nil {
			return nil, err
		}
		said := m.Note()
		n = &said
	}
	f := desk.Form{Doc: desk.Asked[record.Note]{Of: n}, At: record.Form.Field, Report: &brief.Report{Units: measure.Unit(st.Brief.Units)}}
	for _, fd := range NoteFields(f, n, s.Workshop(ctx).Cards, false) {
		if fd.In = "making-"; fd.Path != "gap" || len(st.Sections()) > 0 {
			r.Fields = append(r.Fields, fd)
		}
	}
	return r, nil
}

// Making begins a making of a box as it is now: of as many as it is planned for, with the time
// that its steps took at the bench.
func (s *Room) Making(ctx context.Context, st *State) (record.Making, error) {
	b := allOf(st)
	job, made := jobOf(st)
	if made { // with what the shop says now, so that it stays as it was made
		b = job.AsMade()
	}
	m := record.Of(b, s.Clock())
	m.Project, m.Revision = st.Of, st.ID
	m.Box = words.Cut(st.Called(), 120)
	if made {
		if err := s.Reckoned(ctx, &m, job); err != nil {
			return m, err
		}
	}
	if c, ok := s.Workshop(ctx).Card(m.Card); ok {
		m.Title = c.Title
	}
	times, err := s.Store.Log.TimesOf(ctx, m.Project)
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

// Reckoned fills in what a job takes, and how it looks.
func (s *Room) Reckoned(ctx context.Context, m *record.Making, j sets.Job) error {
	times, err := s.Store.Log.Times(ctx)
	if err != nil {
		return err
	}
	cost := costs.Reckon(j, s.Workshop(ctx), bench.PaceOf(times))
	m.Count, m.Cost, m.Minutes = costs.Boxes(j), cost.All, math.Round(cost.Minutes)
	for _, c := range j.Cuts {
		m.Sheets += len(c.Sheets)
	}
	m.Style = string(j.Plans[0].Brief.Box.Style)
	if m.Title = j.Plans[0].Card.Title; m.Card == "" {
		m.Card = j.Plans[0].Card.ID
	}
	of := made{Plan: j.Plans[0], Set: j.Set}
	m.Line, m.Planned = of.Card().Line, Planned(j)
	if svg := of.Picture(420, 300); svg != "" {
		m.Picture = pen.File(svg)
	}
	return nil
}

// allOf is the document of all that is made: of a set the set's.
func allOf(st *State) brief.Brief {
	if st.Set != nil {
		return st.Set.Brief
	}
	return st.Brief
}

// NoteText writes a field of a making as it is kept: a day as days are written, anything else as typed.
func NoteText(path, text string, _, _ *record.Note) string {
	text = strings.TrimSpace(text)
	if path == "made" {
		if d, err := batch.ParseDay(text); err == nil {
			return d.String()
		}
	}
	return text
}

// Titled notes what the card of a making is called, when it is another than it was.
func Titled(w request.Workshop, n *record.Note, was string) {
	if string(n.Card) == was {
		return
	}
	if card, ok := w.Card(string(n.Card)); ok {
		n.Title = brief.Text(card.Title)
	}
}

// NoteFields are the questions about a making: with a lid that goes over it, how that fitted.
func NoteFields(f desk.Form, n *record.Note, cards []shop.Card, whole bool) (out []desk.Field) {
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
	out = []desk.Field{f.Ask("made"), f.Ask("count"), f.Open("for", "nobody"), f.Pick("card", choices), f.Open("minutes", "not taken")}
	if whole {
		out = append([]desk.Field{f.Ask("box"), f.Open("contents", "not said")}, out...)
	}
	out = append(out, f.Buttons("fit", desk.Said("", "not said", "tight", "too tight", "right", "just right", "loose", "loose")),
		f.Open("gap", f.Report.Units.Either("1/32 in", "0.6 mm")))
	for _, path := range []string{"change", "notes"} {
		asked, _ := f.At(path)
		out = append(out, f.Field("notes", path, asked.Title(), ""))
	}
	return out
}

// Planned lists the pieces of all that is made, as they are now.
func Planned(j sets.Job) (out []record.Planned) {
	for i, p := range j.Plans {
		one := record.Planned{Size: desk.SizeSaid(p.Step.Show, p.Box.Size), Inside: desk.SizeSaid(p.Step.ShowDown, p.Box.Inside)}
		if j.Set != nil {
			one.Box = j.Names[i]
		}
		for _, piece := range p.Box.Pieces() {
			one.Pieces = append(one.Pieces, record.PlannedPiece{Name: words.Plain(piece.Name), Count: piece.Count,
				Card: p.CardOf(piece.Stock).Title, Width: p.Say(piece.Width), Height: p.Say(piece.Height),
				Across: desk.ScoresSaid(p, piece, true), Down: desk.ScoresSaid(p, piece, false)})
		}
		out = append(out, one)
	}
	return out
}
