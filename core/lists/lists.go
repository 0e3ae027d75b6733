// Package lists reads and writes lists as CSV, for spreadsheets: headings first, all
// or nothing, each line that can't be read told by its number.
package lists

import (
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"
)

// Row is a line of a list: its number, and its cells by their headings.
type Row struct {
	Line  int
	Cells map[string]string
}

// Write writes a list, headings first.
func Write(w io.Writer, headings []string, rows [][]string) error {
	out := csv.NewWriter(w)
	if err := out.Write(headings); err != nil {
		return err
	}
	for _, row := range rows {
		guarded := make([]string, len(row))
		for i, cell := range row {
			guarded[i] = guard(cell)
		}
		if err := out.Write(guarded); err != nil {
			return err
		}
	}
	out.Flush()
	return out.Error()
}

// Read reads a list of at most so many bytes. A first line of headings is needed, one of which must be there;
// fields may be parted by commas or semicolons. Such is an example of headings, told when there are none.
func Read(r io.Reader, most int, headings []string, must, such string) ([]Row, error) {
	data, err := io.ReadAll(io.LimitReader(r, int64(most)+1))
	if err != nil {
		return nil, err
	}
	if len(data) > most {
		return nil, fmt.Errorf("this list is larger than %d kB", most>>10)
	}
	text := strings.TrimPrefix(string(data), "\ufeff")
	in := csv.NewReader(strings.NewReader(text))
	in.TrimLeadingSpace = true
	head, _, _ := strings.Cut(text, "\n")
	if strings.Count(head, ";") > strings.Count(head, ",") {
		in.Comma = ';'
	}
	names, err := in.Read()
	if err != nil {
		return nil, errors.New("this list is empty or isn't a CSV file. Its first line should be headings such as " + such)
	}
	if err := checkHeadings(names, headings, must); err != nil {
		return nil, err
	}
	var out []Row
	for {
		row, err := in.Read()
		if errors.Is(err, io.EOF) {
			return out, nil
		}
		if err != nil {
			line := 0
			if bad := new(csv.ParseError); errors.As(err, &bad) {
				line = bad.Line
			}
			return nil, fmt.Errorf("line %d of the list can't be read: it should have %d fields", line, len(names))
		}
		if strings.TrimSpace(strings.Join(row, "")) == "" {
			continue
		}
		line, _ := in.FieldPos(0)
		cells := map[string]string{}
		for i, name := range names {
			cells[name] = cell(row[i])
		}
		out = append(out, Row{line, cells})
	}
}

// Headings gives the headings that a list seems to have, as Read takes them; none where its first line is no such thing.
func Headings(begins []byte) []string {
	text, _, _ := strings.Cut(strings.TrimPrefix(string(begins), "\ufeff"), "\n")
	in := csv.NewReader(strings.NewReader(text))
	in.TrimLeadingSpace = true
	if strings.Count(text, ";") > strings.Count(text, ",") {
		in.Comma = ';'
	}
	names, err := in.Read()
	if err != nil {
		return nil
	}
	for i := range names {
		names[i] = heading(names[i])
	}
	return names
}

// heading is a heading however it is written.
func heading(text string) string {
	return strings.ReplaceAll(strings.ToLower(strings.TrimSpace(text)), " ", "-")
}

func checkHeadings(names, headings []string, must string) error {
	seen := map[string]bool{}
	for i := range names {
		names[i] = heading(names[i])
		if !slices.Contains(headings, names[i]) {
			return fmt.Errorf("the heading %q is not one of %s", names[i], strings.Join(headings, ", "))
		}
		if seen[names[i]] {
			return fmt.Errorf("the heading %q is there twice", names[i])
		}
		seen[names[i]] = true
	}
	if !seen[must] {
		return errors.New("one of the headings must be " + must)
	}
	return nil
}

// cell gives what was meant: without the marks that Write sets, or without the blanks at its ends.
func cell(text string) string {
	if bare := unguard(text); bare != text {
		return bare
	}
	return strings.TrimSpace(text)
}

// YesNo reads the usual ways of saying yes and no.
func YesNo(s string) string {
	switch strings.ToLower(s) {
	case "yes", "y", "true", "1", "x":
		return "yes"
	case "no", "n", "false", "0":
		return "no"
	}
	return s
}

// A spreadsheet takes a cell that begins with one of these for a formula, be there blanks before it, and be the
// cell a piece of ours because its lists are parted by semicolons.
const (
	formula = "=+-@'"
	parts   = ";,\t\n\r"
	blanks  = " \t\r\n\u00a0\"" // a quote at a wrong place is dropped like a blank
)

// guard sets a mark before whatever a spreadsheet might take for a formula, and before blanks at the ends of a
// cell, which readers drop; unguard takes exactly those marks off again.
func guard(s string) string {
	var out strings.Builder
	start := true
	for i, r := range s {
		if start && marked(s[i:], i == 0) {
			out.WriteByte('\'')
		}
		out.WriteRune(r)
		start = strings.ContainsRune(parts, r)
	}
	return out.String()
}

func unguard(s string) string {
	var out strings.Builder
	start := true
	for i, r := range s {
		if start && r == '\'' && marked(s[i+1:], i == 0) {
			start = false
			continue
		}
		out.WriteRune(r)
		start = strings.ContainsRune(parts, r)
	}
	return out.String()
}

// marked reports whether a guard stands before what is left of a cell.
func marked(rest string, first bool) bool {
	trimmed := strings.TrimLeft(rest, blanks)
	if trimmed != "" && strings.ContainsRune(formula, rune(trimmed[0])) {
		return true
	}
	return first && rest != strings.Trim(rest, blanks)
}
