package contents

import (
	"errors"
	"fmt"
	"io"

	"brevium/core/brief"
	"brevium/core/document"
	"brevium/core/lists"
)

// Columns are the headings of a list of things in CSV, in the order they are
// written. A list that is read may have any of them, in any order.
var Columns = brief.Of("contents")

// mostCSV bounds a list's size in bytes.
const mostCSV = 64 << 10

// WriteCSV writes a list of things, headings first.
func WriteCSV(w io.Writer, items []brief.Item) error {
	rows := make([][]string, 0, len(items))
	for _, item := range items {
		b := brief.Brief{Contents: []brief.Item{item}}
		row := make([]string, len(Columns))
		for i, c := range Columns {
			row[i] = b.Get("contents.0." + c)
		}
		rows = append(rows, row)
	}
	return lists.Write(w, Columns, rows)
}

// ReadCSV reads a list of things: all of it, or an error that names the line. A first line of headings is needed;
// fields may be parted by commas or semicolons. What a field means is checked when the plan is made.
func ReadCSV(r io.Reader) ([]brief.Item, error) {
	rows, err := lists.Read(r, mostCSV, Columns, "name", "name,shape,count,length,width,height")
	if err != nil {
		return nil, err
	}
	var items []brief.Item
	for _, row := range rows {
		if len(items) == MostKinds {
			return nil, fmt.Errorf("line %d: a box takes up to %d kinds of thing", row.Line, MostKinds)
		}
		item := readRow(row.Cells)
		for path, text := range (&brief.Brief{Contents: []brief.Item{item}}).All() {
			if why := brief.TooLong(path, text); why != "" {
				return nil, fmt.Errorf("line %d: %s", row.Line, why)
			}
		}
		items = append(items, item)
	}
	if len(items) == 0 {
		return nil, errors.New("this list has headings and no things")
	}
	return items, nil
}

func readRow(cells map[string]string) brief.Item {
	b := brief.Brief{Contents: []brief.Item{{Shape: "block", Count: "1"}}}
	for name, text := range brief.Sorted(cells) {
		if text == "" && (name == "shape" || name == "count") {
			continue
		}
		if f, ok := brief.FieldAt("contents.0." + name); ok && f.Kind == document.YesNo {
			text = lists.YesNo(text)
		}
		b.Set("contents.0."+name, text)
	}
	return b.Contents[0]
}
