package cutlist

import (
	"errors"
	"fmt"
	"io"

	"brevium/core/brief"
	"brevium/core/lists"
)

// Columns are the headings of a list of pieces as CSV.
var Columns = []string{"name", "width", "height", "count", "turn", "stock", "run"}

// ReadCSV reads a list of pieces: all of it, or an error that names the line.
func ReadCSV(r io.Reader) ([]Piece, error) {
	rows, err := lists.Read(r, 256<<10, Columns, "width", "name,width,height,count,turn")
	if err != nil {
		return nil, err
	}
	var out []Piece
	for _, row := range rows {
		if len(out) == MostLines {
			return nil, fmt.Errorf("line %d: a list takes %d lines at the most", row.Line, MostLines)
		}
		c := row.Cells
		for _, text := range c {
			if len(text) > mostText {
				return nil, fmt.Errorf("line %d: a cell is longer than %d letters", row.Line, mostText)
			}
		}
		out = append(out, Piece{Name: brief.Text(c["name"]), Width: brief.Text(c["width"]), Height: brief.Text(c["height"]),
			Count: brief.Whole(c["count"]), Turn: brief.Flag(lists.YesNo(c["turn"])), Stock: brief.Texts(c["stock"]),
			Run: brief.Text(c["run"])})
	}
	if len(out) == 0 {
		return nil, errors.New("this list has headings and no pieces")
	}
	return out, nil
}

// WriteCSV writes the pieces of a list.
func WriteCSV(w io.Writer, pieces []Piece) error {
	rows := make([][]string, 0, len(pieces))
	for _, p := range pieces {
		rows = append(rows, []string{string(p.Name), string(p.Width), string(p.Height), string(p.Count), string(p.Turn),
			string(p.Stock), string(p.Run)})
	}
	return lists.Write(w, Columns, rows)
}
