package record

import (
	"fmt"
	"io"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"brevium/core/brief"
	"brevium/core/lists"
	"brevium/core/words"
)

// Columns are the headings of a logbook as a list.
var Columns = []string{"date", "box", "count", "for", "contents", "style", "card", "fit", "gap", "change", "notes",
	"minutes", "sheets", "cost"}

// The most that a list may hold.
const (
	mostList  = 8 << 20
	MostLines = 20_000
)

// Write writes makings as CSV.
func Write(w io.Writer, all []Making) error {
	rows := make([][]string, len(all))
	for i, m := range all {
		number := func(n float64) string {
			if n == 0 {
				return ""
			}
			return strconv.FormatFloat(math.Round(n*10)/10, 'f', -1, 64)
		}
		cost := ""
		if m.Cost > 0 {
			cost = words.Coins(m.Cost)
		}
		rows[i] = []string{m.Made, m.Box, fmt.Sprint(m.Count), m.Whom, m.Contents, m.Style, m.Title, m.Fit, m.Gap, m.Change,
			m.Notes, number(m.Minutes), number(float64(m.Sheets)), cost}
	}
	return lists.Write(w, Columns, rows)
}

// Read reads makings from CSV, all of them or, with the line that is wrong, none. The card is given by its name.
func Read(r io.Reader, card func(title string) (id string)) (out []Making, err error) {
	rows, err := lists.Read(r, mostList, Columns, "box", "date, box, count, for, fit")
	if err != nil {
		return nil, err
	}
	if len(rows) > MostLines {
		return nil, fmt.Errorf("this list has %d lines, and one import takes %d. Split it", len(rows), MostLines)
	}
	for _, row := range rows {
		m, err := making(row.Cells)
		if err == nil {
			m.Card = card(m.Title)
			err = m.Check()
		}
		if err != nil {
			return nil, fmt.Errorf("line %d: %w", row.Line, err)
		}
		out = append(out, m)
	}
	if len(out) == 0 {
		return nil, fmt.Errorf("this list has headings but no entries")
	}
	return out, nil
}

func making(c map[string]string) (m Making, err error) {
	m = Making{Made: c["date"], Count: 1, Box: c["box"], Whom: c["for"], Contents: c["contents"], Style: c["style"],
		Title: c["card"], Fit: strings.ToLower(c["fit"]), Gap: c["gap"], Change: c["change"], Notes: c["notes"]}
	if t, wrong := time.Parse("2 January 2006", m.Made); wrong == nil {
		m.Made = t.Format(day)
	}
	if m.Fit != "" && !slices.Contains(Fits, m.Fit) {
		m.Fit = strings.TrimPrefix(strings.TrimPrefix(m.Fit, "too "), "just ")
	}
	number := func(name string) float64 {
		if c[name] == "" || err != nil {
			return 0
		}
		n, wrong := strconv.ParseFloat(strings.ReplaceAll(c[name], ",", "."), 64)
		if wrong != nil || math.IsNaN(n) || math.IsInf(n, 0) {
			err = fmt.Errorf("%q isn't a number of %s", c[name], name)
		}
		return n
	}
	whole := func(name string) int {
		n := number(name)
		if err == nil && n != math.Trunc(n) {
			err = fmt.Errorf("%q isn't a whole number of %s", c[name], name)
		}
		return int(max(-1, min(n, 1e6)))
	}
	if c["count"] != "" {
		m.Count = whole("count")
	}
	m.Minutes, m.Sheets, m.Cost = number("minutes"), whole("sheets"), int64(math.Round(max(-1, min(number("cost"), 1e8))*100))
	return m, err
}

// Difference is a field that two documents say differently.
type Difference struct{ Field, Was, Is string }

// Differences lists what one document says otherwise than another, in the order of the table of
// fields. Things and pieces that only one of them has are told by their names.
func Differences(was, is brief.Brief) (out []Difference) {
	old, order := map[string]string{}, []string(nil)
	for path, text := range was.All() {
		old[path], order = text, append(order, path)
	}
	for path, text := range is.All() {
		before, known := old[path]
		if delete(old, path); (known || text != "") && before != text {
			out = append(out, Difference{path, before, text})
		}
	}
	for _, path := range order {
		if text, left := old[path]; left && text != "" {
			out = append(out, Difference{Field: path, Was: text})
		}
	}
	return out
}
