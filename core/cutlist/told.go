package cutlist

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"

	"brevium/core/brief"
	"brevium/core/layout"
	"brevium/core/least"
	"brevium/core/lists"
	"brevium/core/measure"
	"brevium/core/words"
)

// Told is what was found, as it is printed. Lengths are texts in the list's unit.
type Told struct {
	Count    int             `json:"count"`
	Bound    int             `json:"bound"`
	Proved   bool            `json:"proved"`
	Cost     string          `json:"cost,omitempty"`
	Least    string          `json:"least-cost,omitempty"`
	Used     float64         `json:"used"`
	Settings int             `json:"settings"`
	Sheets   []layout.Told   `json:"sheets"`
	Left     []ToldLeft      `json:"left,omitempty"`
	Problems []brief.Problem `json:"problems,omitempty"`
}

// ToldLeft is what was not laid, and why.
type ToldLeft struct {
	Piece string `json:"piece"`
	Count int    `json:"count"`
	Why   string `json:"why"`
}

// Tell tells a result in a unit.
func Tell(t least.Task, r least.Result, u measure.Unit) Told {
	out := Told{Count: r.Count, Bound: r.Layout.Bound, Proved: r.Proved, Used: r.Used, Settings: r.Settings(),
		Sheets: []layout.Told{}}
	for _, s := range r.Sheets {
		told := s.Tell(u, true)
		told.Name = s.Title
		out.Sheets = append(out.Sheets, told)
	}
	for _, s := range t.Sheets {
		if s.Price > 0 {
			out.Cost = words.Coins(r.Price)
		}
	}
	if t.Aim == least.Cost {
		out.Least = words.Coins(r.Bound)
	}
	for _, w := range Why(t, r, func(l measure.Length) string { return l.Exact(u) }) {
		out.Left = append(out.Left, ToldLeft{w.Piece.Name, w.Piece.Count, w.Text + " " + w.Fix})
	}
	out.Proved = out.Proved && len(out.Left) == 0
	return out
}

// Left is a piece that was not laid: why, and what would help.
type Left struct {
	Piece     layout.Piece
	Text, Fix string
}

// Why tells of each piece that was not laid by how much it is too large, or what there is not enough of.
func Why(t least.Task, r least.Result, say func(measure.Length) string) (out []Left) {
	for _, p := range r.TooBig {
		l := Left{Piece: p, Fix: "Make it smaller, or use a larger sheet."}
		by, on, turns := measure.Length(0), least.Size{}, false
		for _, s := range t.Sheets {
			if !mayLie(t, p, s) {
				continue
			}
			w, h := s.W-2*s.Margin, s.H-2*s.Margin
			over := max(0, p.W-w, p.H-h)
			turned := max(0, p.H-w, p.W-h)
			if p.Upright {
				turns = turns || over > 0 && turned == 0
				turned = over
			}
			if o := min(over, turned); on.Name == "" || o < by {
				by, on = o, s
			}
		}
		switch {
		case turns:
			l.Text = fmt.Sprintf("%s only fits %s when it is turned.", p.Name, on.Name)
			l.Fix = "Allow it to be turned, or use a larger sheet."
		case by > 0:
			l.Text = fmt.Sprintf("%s (%s × %s) is %s too big for %s.", p.Name, say(p.W), say(p.H), say(by), on.Name)
			l.Fix = fmt.Sprintf("Make it %s smaller, or use a larger sheet.", say(by))
		default:
			l.Text, l.Fix = fmt.Sprintf("You can't cut %s: your trimmer is too short for %s.", p.Name, on.Name),
				"Cut with a knife along a ruler (leave the longest cut empty), or use a smaller sheet."
		}
		out = append(out, l)
	}
	for _, p := range r.Short {
		out = append(out, Left{p, fmt.Sprintf("There are not enough sheets for %d of %s.", p.Count, p.Name),
			"Get more sheets, or cut fewer."})
	}
	return out
}

func mayLie(t least.Task, p layout.Piece, s least.Size) bool {
	for _, o := range t.Pieces {
		if o.Name == p.Name {
			return o.On(s.Stock)
		}
	}
	return true
}

// Line lays a list and tells it as a line of JSON; holds says that everything is laid. A
// list that can't be used has an error, and a line with its problems.
func Line(ctx context.Context, l List) (line []byte, holds bool, err error) {
	task, report := Read(l)
	if len(report.Problems) > 0 {
		p := report.Problems[0]
		return encode(Told{Sheets: []layout.Told{}, Problems: report.Problems}), false, fmt.Errorf("%s: %s %s", p.Field, p.Text, p.Fix)
	}
	r, err := least.Solve(task, func(least.Progress) bool { return ctx.Err() == nil })
	if err != nil {
		return Refused(err), false, err
	}
	told := Tell(task, r, report.Units)
	return encode(told), len(told.Left) == 0, nil
}

// Refused is the line for a list that can't be used.
func Refused(err error) []byte {
	return encode(Told{Sheets: []layout.Told{}, Problems: []brief.Problem{{Text: err.Error(), Fix: "Fix the list."}}})
}

func encode(t Told) []byte {
	line, err := json.Marshal(t)
	if err != nil {
		return []byte("{}\n") // texts and numbers always are JSON
	}
	return append(line, '\n')
}

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
			return nil, fmt.Errorf("line %d: a list takes up to %d lines", row.Line, MostLines)
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
		return nil, errors.New("this list has headings but no pieces")
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
