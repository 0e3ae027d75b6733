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
var Columns = []string{"name", "shape", "count", "length", "width", "height", "thickness", "decorated", "envelope", "diameter",
	"neck-diameter", "neck-height", "press", "mass", "lie", "stand", "stack", "upright", "food", "fragile", "flame", "liquid"}

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

// guard keeps a spreadsheet from taking a name for a formula; reading takes
// the mark off again.
func guard(s string) string {
	if s != "" && strings.ContainsRune("=+-@'\t\r", rune(s[0])) {
		return "'" + s
	}
	return s
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
		return nil, errors.New("this list is empty or no CSV; its first line should be headings such as name,shape,count,length,width,height")
	}
	if err := checkHeadings(names); err != nil {
		return nil, err
	}
	var items []brief.Item
	for line := 2; ; line++ {
		row, err := in.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return nil, fmt.Errorf("line %d of the list can't be read: it should have %d fields", line, len(names))
		}
		if strings.TrimSpace(strings.Join(row, "")) == "" {
			continue
		}
		if len(items) == MostKinds {
			return nil, fmt.Errorf("line %d: a box takes %d kinds of thing at the most", line, MostKinds)
		}
		items = append(items, readRow(names, row))
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
		text := strings.TrimSpace(row[i])
		if rest, ok := strings.CutPrefix(text, "'"); ok && rest != "" && guard(rest) != rest {
			text = rest
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
