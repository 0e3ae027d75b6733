package web

import (
	"context"
	"math"
	"slices"
	"strings"

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

// planned lists the pieces of all that is made, as they are now.
func planned(j sets.Job) (out []record.Planned) {
	for i, p := range j.Plans {
		one := record.Planned{Size: sizeSaid(p.Step.Show, p.Box.Size), Inside: sizeSaid(p.Step.ShowDown, p.Box.Inside)}
		if j.Set != nil {
			one.Box = j.Names[i]
		}
		for _, piece := range p.Box.Pieces() {
			one.Pieces = append(one.Pieces, record.PlannedPiece{Name: words.Plain(piece.Name), Count: piece.Count,
				Card: p.CardOf(piece.Stock).Title, Width: p.Say(piece.Width), Height: p.Say(piece.Height),
				Across: scoresSaid(p, piece, true), Down: scoresSaid(p, piece, false)})
		}
		out = append(out, one)
	}
	return out
}
