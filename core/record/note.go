package record

import (
	"fmt"
	"math"
	"strconv"
	"strings"
	"time"

	"brevium/core/brief"
	"brevium/core/document"
)

// Note is what a maker says of a making, as it was typed: the part of it that can be changed. What it was made by
// stays as it was.
type Note struct {
	Made     brief.Text  `json:"made"`
	Count    brief.Whole `json:"count"`
	Box      brief.Text  `json:"box"`
	Whom     brief.Text  `json:"for,omitempty"`
	Contents brief.Text  `json:"contents,omitempty"`
	Card     brief.Text  `json:"card,omitempty"`
	Title    brief.Text  `json:"card-title,omitempty"` // of the card, as it then was called
	Fit      brief.Text  `json:"fit,omitempty"`
	Gap      brief.Text  `json:"gap,omitempty"`
	Minutes  brief.Text  `json:"minutes,omitempty"`
	Change   brief.Text  `json:"change,omitempty"`
	Notes    brief.Text  `json:"notes,omitempty"`
}

// Form states the note to the engine that reads, keeps and merges it.
var Form = document.New(document.Form[Note]{
	Name: "logbook entry", Limit: 64 << 10,
	Table: []document.Field{
		{Path: "made", Kind: document.Day, Label: "when"},
		{Path: "count", Kind: document.Number, Label: "how many"},
		{Path: "box", Kind: document.Words, Label: "name"},
		{Path: "for", Kind: document.Words, Label: "for whom, or what"},
		{Path: "contents", Kind: document.Words, Label: "what went in"},
		{Path: "card", Label: "from which card"},
		{Path: "fit", Label: "how it fitted"},
		{Path: "gap", Kind: document.Words, Label: "or how far the lid moved from side to side"},
		{Path: "minutes", Kind: document.Number, Label: "minutes, in all"},
		{Path: "change", Kind: document.Words, Label: "what to change next time", Most: mostNotes / 2},
		{Path: "notes", Kind: document.Words, Label: "notes", Most: mostNotes / 2},
	},
})

// Note is what a making says, as it is typed.
func (m *Making) Note() Note {
	n := Note{Made: brief.Text(m.Made), Count: brief.Whole(strconv.Itoa(m.Count)), Box: brief.Text(m.Box),
		Whom: brief.Text(m.Whom), Contents: brief.Text(m.Contents), Card: brief.Text(m.Card), Title: brief.Text(m.Title),
		Fit: brief.Text(m.Fit), Gap: brief.Text(m.Gap), Change: brief.Text(m.Change), Notes: brief.Text(m.Notes)}
	if m.Minutes > 0 {
		n.Minutes = brief.Text(strconv.FormatFloat(m.Minutes, 'f', -1, 64))
	}
	return n
}

// Says makes the making say what a note does; what in it can't be read is told at its field, and left as it was.
func (m *Making) Says(n Note) (wrong []brief.Problem) {
	was := *m
	m.Box, m.Whom, m.Contents = strings.TrimSpace(string(n.Box)), strings.TrimSpace(string(n.Whom)), strings.TrimSpace(string(n.Contents))
	m.Card, m.Title, m.Fit, m.Gap = string(n.Card), string(n.Title), string(n.Fit), strings.TrimSpace(string(n.Gap))
	m.Change, m.Notes = strings.TrimSpace(string(n.Change)), strings.TrimSpace(string(n.Notes))
	tell := func(field, text, fix string) {
		wrong = append(wrong, brief.Problem{Field: field, Text: text, Fix: fix})
	}
	if d, err := time.Parse(day, strings.TrimSpace(string(n.Made))); err != nil || d.Year() < 1950 || d.Year() > 2200 {
		tell("made", fmt.Sprintf("%q isn't a day.", n.Made), "Write it like 2027-03-06.")
	} else {
		m.Made = d.Format(day)
	}
	if count, err := strconv.Atoi(strings.TrimSpace(string(n.Count))); err != nil || count < 1 || count > MostMade {
		tell("count", fmt.Sprintf("%q isn't a number of boxes.", n.Count), fmt.Sprintf("Write 1 to %d.", MostMade))
	} else {
		m.Count = count
	}
	m.Minutes = 0
	if text := strings.TrimSpace(strings.ReplaceAll(string(n.Minutes), ",", ".")); text != "" {
		if got, err := strconv.ParseFloat(text, 64); err != nil || math.IsNaN(got) || got < 0 || got > 100_000 {
			tell("minutes", fmt.Sprintf("%q isn't a number of minutes.", n.Minutes), "Write 0 or more, such as 45.")
			m.Minutes = was.Minutes
		} else {
			m.Minutes = got
		}
	}
	if len(wrong) == 0 {
		if err := m.Check(); err != nil {
			tell("box", "This can't be saved: "+err.Error()+".", "Fix it.")
		}
	}
	if len(wrong) > 0 && m.Box == "" {
		m.Box = was.Box
	}
	return wrong
}
