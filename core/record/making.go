// Package record is a maker's memory: the times a box was made, kept apart from its design.
//
// A making says when, how many, for whom, from which card, how long it took, how it fitted and
// what to change; it keeps the document of the box as it then was. Makings go out as CSV and
// JSON and come in as CSV, and a question in plain words is read into what is looked for.
package record

import (
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/words"
)

// Making is one time a box was made.
type Making struct {
	ID       string             `json:"-"`
	Key      string             `json:"key"` // the same wherever it is taken
	Project  string             `json:"-"`
	Revision int64              `json:"-"`
	Document string             `json:"-"` // of the box as it was; "" where it came from a list
	Made     string             `json:"date"`
	Count    int                `json:"count"`
	Box      string             `json:"box"`
	Whom     string             `json:"for,omitempty"`
	Contents string             `json:"contents,omitempty"`
	Style    string             `json:"style,omitempty"`
	Card     string             `json:"card,omitempty"` // its identity
	Title    string             `json:"card-title,omitempty"`
	Fit      string             `json:"fit,omitempty"` // tight, right or loose
	Gap      string             `json:"gap,omitempty"` // measured with strips of card
	Change   string             `json:"change,omitempty"`
	Notes    string             `json:"notes,omitempty"`
	Minutes  float64            `json:"minutes,omitempty"`
	Times    map[string]float64 `json:"times,omitempty"` // minutes by the titles of the steps
	Sheets   int                `json:"sheets,omitempty"`
	Cost     int64              `json:"cost,omitempty"` // in hundredths
	Gone     bool               `json:"-"`
	Photos   int                `json:"photos,omitempty"`
	Planned  []Planned          `json:"planned,omitempty"` // the pieces it was made by, as they then were
	Line     string             `json:"-"`                 // the box in a line, and how it looked when it was made
	Picture  []byte             `json:"-"`                 // SVG
}

// Planned is a box as it was planned when it was made: its size from score to score, its inside, and its pieces.
type Planned struct {
	Box    string         `json:"box,omitempty"` // of a set its name
	Size   string         `json:"size"`
	Inside string         `json:"inside"`
	Pieces []PlannedPiece `json:"pieces"`
}

// PlannedPiece is a piece as it was cut: its size, and its scores from the left and from the top edge.
type PlannedPiece struct {
	Name   string `json:"name"`
	Count  int    `json:"count"`
	Card   string `json:"card"`
	Width  string `json:"width"`
	Height string `json:"height"`
	Across string `json:"across,omitempty"`
	Down   string `json:"down,omitempty"`
}

// Fits are how a box can be found to fit.
var Fits = []string{"tight", "right", "loose"}

// The most that a making may say.
const (
	mostLine  = 200
	mostNotes = 4000
	mostCut   = 2000 // pieces of all its boxes
	MostMade  = 10_000
)

// day is how days are written.
const day = "2006-01-02"

// Check says what is wrong with a making, in words.
func (m *Making) Check() error {
	if d, err := time.Parse(day, m.Made); err != nil || d.Year() < 1950 || d.Year() > 2200 {
		return fmt.Errorf("%q isn't a day. Write it like 2027-03-06", m.Made)
	}
	if m.Count < 1 || m.Count > MostMade {
		return fmt.Errorf("%d isn't a number of boxes made. Write 1 to %d", m.Count, MostMade)
	}
	if !words.Visible(m.Box) {
		return errors.New("it has no box name")
	}
	for _, text := range []string{m.Box, m.Whom, m.Contents, m.Style, m.Card, m.Title, m.Gap, m.Key} {
		if words.Letters(text) > mostLine {
			return fmt.Errorf("%q is too long: keep it under %d letters, notes take more", words.Cut(text, 30), mostLine)
		}
	}
	if words.Letters(m.Change)+words.Letters(m.Notes) > mostNotes {
		return fmt.Errorf("the notes are longer than %d letters", mostNotes)
	}
	pieces := 0
	for _, p := range m.Planned {
		pieces += len(p.Pieces)
	}
	if pieces > mostCut || len(m.Planned) > mostCut {
		return fmt.Errorf("it lists %d pieces, more than an entry can have", pieces)
	}
	if m.Fit != "" && !slices.Contains(Fits, m.Fit) {
		return fmt.Errorf("a box fits tight, right or loose, not %q", m.Fit)
	}
	if m.Minutes < 0 || m.Minutes > 100_000 || m.Sheets < 0 || m.Sheets > 100_000 || m.Cost < 0 || m.Cost > 1e9 {
		return errors.New("minutes, sheets and cost are numbers from 0 up")
	}
	return nil
}

// Of begins a making of a box as its document stands.
func Of(b brief.Brief, on time.Time) Making {
	m := Making{Document: string(b.Encode()), Made: on.Format(day), Count: 1, Box: cut(string(b.Name)),
		Style: string(b.Box.Style), Card: string(b.Card.Stock), Contents: cut(ContentsSaid(b))}
	return m
}

func cut(s string) string { return words.Cut(strings.TrimSpace(s), 120) }

// ContentsSaid tells what goes into a box in a line: its things with how many, in all its boxes.
func ContentsSaid(b brief.Brief) string {
	var out []string
	for _, t := range things(b) {
		n := strings.TrimSpace(string(t.Count))
		if n != "" && n != "1" {
			n += " × "
		} else {
			n = ""
		}
		out = append(out, n+strings.TrimSpace(string(t.Name)))
	}
	return strings.Join(out, ", ")
}

func things(b brief.Brief) []brief.Item {
	out := slices.Clone(b.Contents)
	if b.Several != nil {
		for _, m := range b.Several.Boxes {
			if m.Contents != nil {
				out = append(out, *m.Contents...)
			}
		}
	}
	return out
}

// Sizes are the measures of what went in: each once, the smallest first.
func (m *Making) Sizes() (out []measure.Length) {
	b, err := brief.Stored([]byte(m.Document))
	if err != nil {
		return nil
	}
	for _, t := range things(b) {
		for _, text := range []brief.Text{t.Length, t.Width, t.Height, t.Thickness, t.Decorated, t.Diameter} {
			if l, err := measure.Parse(string(text), measure.Unit(b.Units)); err == nil && l > 0 {
				out = append(out, l)
			}
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// Words is all that a making is found by: what it says and, as words that nobody writes, the sizes
// of what went in to the whole millimetres near them.
func (m *Making) Words() string {
	fit := m.Fit
	if fit != "" {
		fit += " fit"
	}
	sizes := ""
	for _, l := range m.Sizes() {
		for mm := int((l - Near).Up(measure.Millimetre).MM()); mm <= int((l + Near).MM()); mm++ {
			sizes += sizeWord(mm)
		}
	}
	return strings.Join([]string{m.Box, m.Whom, m.Contents, words.Plain(m.Style), m.Title, words.Plain(m.Card), fit,
		m.Change, m.Notes, m.Made, sizes}, "\n")
}

func sizeWord(mm int) string { return fmt.Sprintf(" qz%dmm", mm) }

// Brief is the document of the box as it then was.
func (m *Making) Brief() (brief.Brief, error) {
	if m.Document == "" {
		return brief.Brief{}, errors.New("this entry came from a list, so its box isn't known")
	}
	return brief.Stored([]byte(m.Document))
}

// Total is what the makings of a time come to.
type Total struct {
	Of      string // the year
	Makings int
	Boxes   int
	Sheets  int
	Minutes float64
	Cost    int64
}
