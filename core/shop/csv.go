package shop

import (
	"errors"
	"fmt"
	"io"
	"regexp"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/document"
	"brevium/core/lists"
	"brevium/core/measure"
)

// Columns are the headings of a list of cards in CSV: what each goes by, then its fields.
var Columns = append([]string{"id"}, brief.Of("card.own")...)

// WriteCSV writes the cards of a shop as a list.
func WriteCSV(w io.Writer, cards []brief.Stock) error {
	rows := make([][]string, 0, len(cards))
	for _, c := range cards {
		row := []string{c.ID}
		for _, name := range Columns[1:] {
			row = append(row, document.Get(&c, name))
		}
		rows = append(rows, row)
	}
	return lists.Write(w, Columns, rows)
}

// mostTold is how many bad lines are told at once.
const mostTold = 12

// ReadCSV lays a list of cards on those of a shop, all of it or nothing: a card that is there already, by its id or
// its name, is changed, another is added. The error tells every line that is no card, by its number.
func ReadCSV(r io.Reader, cards []brief.Stock, units measure.Unit) ([]brief.Stock, error) {
	rows, err := lists.Read(r, Limit, Columns, "title", "title,gsm,caliper,sheets,price")
	if err != nil {
		return nil, err
	}
	out := slices.Clone(cards)
	var bad []string
	seen := map[string]int{}
	for _, row := range rows {
		s := brief.Stock{}
		i := slices.IndexFunc(out, func(c brief.Stock) bool {
			return row.Cells["id"] != "" && c.ID == row.Cells["id"] || row.Cells["id"] == "" && sameName(c, row.Cells["title"])
		})
		if i >= 0 {
			s = out[i]
		} else if s.ID = row.Cells["id"]; s.ID == "" {
			s.ID = Slug(row.Cells["title"], out)
		}
		for name, text := range brief.Sorted(row.Cells) {
			if name == "id" {
				continue
			}
			if f, _ := brief.FieldAt("card.own.0." + name); f.Kind == document.YesNo {
				text = lists.YesNo(text)
			}
			document.Set(&s, name, text)
		}
		why := wrong(s, units)
		if line := seen[s.ID]; line > 0 {
			why = fmt.Sprintf("it is the same card as line %d", line)
		}
		if seen[s.ID] = row.Line; why != "" {
			bad = append(bad, fmt.Sprintf("line %d: %s", row.Line, why))
		} else if i >= 0 {
			out[i] = s
		} else {
			out = append(out, s)
		}
	}
	switch {
	case len(bad) > mostTold:
		bad = append(bad[:mostTold], fmt.Sprintf("and %d more", len(bad)-mostTold))
		fallthrough
	case len(bad) > 0:
		return nil, errors.New(strings.Join(bad, "; "))
	case len(rows) == 0:
		return nil, errors.New("this list has headings but no cards")
	}
	_, report := Read(Document{Brevium: Version, Cards: out})
	if len(report.Problems) > 0 { // two of one name
		return nil, errors.New(strings.TrimSuffix(report.Problems[0].Text, "."))
	}
	d := Document{Brevium: Version, Cards: out}
	return out, d.Check()
}

// wrong says what keeps a card from being one; "" when it is.
func wrong(s brief.Stock, units measure.Unit) string {
	if strings.ContainsAny(s.ID, ".@") || len(s.ID) > 48 {
		return fmt.Sprintf("the id %.20q may have no dot in it", s.ID)
	}
	for _, name := range Columns[1:] {
		if why := brief.TooLong("card.own.0."+name, document.Get(&s, name)); why != "" {
			return why
		}
	}
	r := readerIn(units)
	if _, ok := ReadStock(r, "", s); ok {
		return ""
	}
	return strings.TrimSuffix(r.Problems[0].Text+" "+r.Problems[0].Fix, ".")
}

func sameName(c brief.Stock, title string) bool {
	return strings.EqualFold(strings.TrimSpace(string(c.Title)), strings.TrimSpace(title))
}

var notSlug = regexp.MustCompile(`[^a-z0-9]+`)

// Slug makes a name for a card to go by, of its title, that no other has.
func Slug(title string, others []brief.Stock) string {
	base := strings.Trim(notSlug.ReplaceAllString(strings.ToLower(title), "-"), "-")
	if base = base[:min(len(base), 30)]; base == "" {
		base = "card"
	}
	id := base
	for n := 2; slices.ContainsFunc(others, func(c brief.Stock) bool { return c.ID == id }); n++ {
		id = fmt.Sprintf("%s-%d", base, n)
	}
	return id
}
