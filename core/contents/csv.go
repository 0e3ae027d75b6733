package contents

import (
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"strings"

	"brevium/core/brief"
)

// Columns are the headings of a list of things in CSV, in the order they are
// written. A list that is read may have any of them, in any order.
var Columns = brief.Of("contents")

// mostCSV bounds a list's size in bytes.
const mostCSV = 64 << 10

// WriteCSV writes a list of things, headings first.
func WriteCSV(w io.Writer, items []brief.Item) error {
	out := csv.NewWriter(w)
	if err := out.Write(Columns); err != nil {
		return err
	}
	for _, item := range items {
		b := brief.Brief{Contents: []brief.Item{item}}
		row := make([]string, len(Columns))
		for i, c := range Columns {
			row[i] = guard(b.Get("contents.0." + c))
		}
		if err := out.Write(row); err != nil {
			return err
		}
	}
	out.Flush()
	return out.Error()
}

// A spreadsheet takes a cell that begins with one of these for a formula, be
// there blanks before it, and be the cell a piece of ours because its lists are
// parted by semicolons.
const (
	formula = "=+-@'"
	parts   = ";,\t\n\r"
	blanks  = " \t\r\n\u00a0\"" // a quote at a wrong place is dropped like a blank
)

// guard sets a mark before whatever a spreadsheet might take for a formula, and
// before blanks at the ends of a cell, which readers drop; unguard takes
// exactly those marks off again.
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

// marked says whether a guard stands before what is left of a cell.
func marked(rest string, first bool) bool {
	trimmed := strings.TrimLeft(rest, blanks)
	if trimmed != "" && strings.ContainsRune(formula, rune(trimmed[0])) {
		return true
	}
	return first && rest != strings.Trim(rest, blanks)
}

// ReadCSV reads a list of things: all of it, or an error that names the line.
// A first line of headings is needed; fields may be parted by commas or
// semicolons. What a field means is checked when the plan is made.
func ReadCSV(r io.Reader) ([]brief.Item, error) {
	data, err := io.ReadAll(io.LimitReader(r, mostCSV+1))
	if err != nil {
		return nil, err
	}
	if len(data) > mostCSV {
		return nil, fmt.Errorf("this list is larger than %d kB; a box holds fewer things", mostCSV>>10)
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
		return nil, errors.New("this list is empty or no CSV; its first line should be headings such as " +
			"name,shape,count,length,width,height")
	}
	if err := checkHeadings(names); err != nil {
		return nil, err
	}
	var items []brief.Item
	for {
		row, err := in.Read()
		if errors.Is(err, io.EOF) {
			break
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
		if len(items) == MostKinds {
			return nil, fmt.Errorf("line %d: a box takes %d kinds of thing at the most", line, MostKinds)
		}
		item := readRow(names, row)
		for path, text := range (&brief.Brief{Contents: []brief.Item{item}}).All() {
			if why := brief.TooLong(path, text); why != "" {
				return nil, fmt.Errorf("line %d: %s", line, why)
			}
		}
		items = append(items, item)
	}
	if len(items) == 0 {
		return nil, errors.New("this list has headings and no things")
	}
	return items, nil
}

func checkHeadings(names []string) error {
	seen := map[string]bool{}
	for i := range names {
		names[i] = strings.ReplaceAll(strings.ToLower(strings.TrimSpace(names[i])), " ", "-")
		known := false
		for _, c := range Columns {
			known = known || c == names[i]
		}
		if !known {
			return fmt.Errorf("the heading %q is not one of %s", names[i], strings.Join(Columns, ", "))
		}
		if seen[names[i]] {
			return fmt.Errorf("the heading %q stands there twice", names[i])
		}
		seen[names[i]] = true
	}
	if !seen["name"] {
		return errors.New("one of the headings must be name")
	}
	return nil
}

func readRow(names, row []string) brief.Item {
	b := brief.Brief{Contents: []brief.Item{{Shape: "block", Count: "1"}}}
	for i, name := range names {
		text := row[i]
		if bare := unguard(text); bare != text {
			text = bare
		} else {
			text = strings.TrimSpace(text)
		}
		if text == "" && (name == "shape" || name == "count") {
			continue
		}
		switch name {
		case "envelope", "lie", "stand", "upright", "food", "fragile", "flame", "liquid":
			text = yesNo(text)
		}
		b.Set("contents.0."+name, text)
	}
	return b.Contents[0]
}

func yesNo(s string) string {
	switch strings.ToLower(s) {
	case "yes", "y", "true", "1", "x":
		return "yes"
	case "no", "n", "false", "0":
		return "no"
	}
	return s
}
