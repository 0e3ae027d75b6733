package batch

import (
	"fmt"
	"io"
	"strings"

	"brevium/core/brief"
	"brevium/core/lists"
)

// Columns are the headings of an order list.
var Columns = []string{"name", "box", "count", "colours", "words", "by"}

// mostList bounds an order list, in bytes.
const mostList = 1 << 20

// ReadOrders reads an order list from CSV, all of it or nothing. Find gives a box by the name
// that stands in the list.
func ReadOrders(r io.Reader, find func(name string) (Order, error)) (out []Order, err error) {
	rows, err := lists.Read(r, mostList, Columns, "box", "name, box, count, colours, words, by")
	if err != nil {
		return nil, err
	}
	if len(rows) > MostOrders {
		return nil, fmt.Errorf("this list has %d orders, and a batch takes %d. Split it into two "+
			"batches", len(rows), MostOrders)
	}
	for _, row := range rows {
		at := func(err error) error { return fmt.Errorf("line %d: %w", row.Line, err) }
		o, err := find(row.Cells["box"])
		if err != nil {
			return nil, at(err)
		}
		o.Name, o.Count = brief.Text(row.Cells["name"]), brief.Whole(row.Cells["count"])
		o.Colours, o.Words, o.By = brief.Text(row.Cells["colours"]), brief.Text(row.Cells["words"]), brief.Text(row.Cells["by"])
		if o.Count == "" {
			o.Count = "1"
		}
		if n := strings.Trim(string(o.Count), "0123456789"); n != "" {
			return nil, at(fmt.Errorf("%q isn't a number of boxes", o.Count))
		}
		if o.By != "" {
			if _, err := ParseDay(string(o.By)); err != nil {
				return nil, at(err)
			}
		}
		for _, name := range Columns {
			if len(row.Cells[name]) > mostText {
				return nil, at(fmt.Errorf("the %s is longer than %d letters", name, mostText))
			}
		}
		out = append(out, o)
	}
	if len(out) == 0 {
		return nil, fmt.Errorf("this list has headings but no orders")
	}
	return out, nil
}

// WriteOrders writes the order list as CSV.
func (b *Batch) WriteOrders(w io.Writer) error {
	var rows [][]string
	for _, o := range b.Orders {
		rows = append(rows, []string{string(o.Order.Name), string(o.Brief.Name), string(o.Count), string(o.Colours),
			string(o.Words), string(o.By)})
	}
	return lists.Write(w, Columns, rows)
}
