package lists

import (
	"bytes"
	"math/rand/v2"
	"strings"
	"testing"
)

// Whatever stands in the cells, a list that is written and read again says the same,
// and no spreadsheet finds a formula in it.
func TestThereAndBack(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 4))
	letters := []string{"a", " ", "=", "+", "-", "@", "'", "\"", ",", ";", "\n", "é", "1", "\t", "\u00a0"}
	for range 3000 {
		var rows [][]string
		for range 1 + r.IntN(4) {
			row := []string{"x"}
			for range 2 {
				cell := ""
				for range r.IntN(6) {
					cell += letters[r.IntN(len(letters))]
				}
				row = append(row, cell)
			}
			rows = append(rows, row)
		}
		var b bytes.Buffer
		if err := Write(&b, []string{"name", "one", "two"}, rows); err != nil {
			t.Fatal(err)
		}
		for line := range strings.SplitSeq(b.String(), "\n") {
			for _, cell := range strings.FieldsFunc(line, func(c rune) bool { return strings.ContainsRune(parts, c) }) {
				if c := strings.Trim(cell, blanks); c != "" && strings.ContainsRune("=+-@", rune(c[0])) {
					t.Fatalf("a formula: %q of %q", cell, b.String())
				}
			}
		}
		got, err := Read(&b, 1<<16, []string{"name", "one", "two"}, "name", "name")
		if err != nil || len(got) != len(rows) {
			t.Fatalf("%v: %d rows of %d", err, len(got), len(rows))
		}
		for i, row := range rows {
			if got[i].Cells["one"] != row[1] || got[i].Cells["two"] != row[2] {
				t.Fatalf("%q came back as %q", row, got[i].Cells)
			}
		}
	}
}

// What can't be read says why, with the line.
func TestRefusals(t *testing.T) {
	for text, why := range map[string]string{"": "such as name,one", "one\nx\n": "must be name", "name,none\n": `"none" is not one of`,
		"name,name\n": "twice", "name;one\nx;1\ny\n": "line 3", strings.Repeat("x", 200): "larger than"} {
		if _, err := Read(strings.NewReader(text), 100, []string{"name", "one"}, "name", "name,one"); err == nil ||
			!strings.Contains(err.Error(), why) {
			t.Errorf("%.20q: %v does not say %q", text, err, why)
		}
	}
	if YesNo("X") != "yes" || YesNo("False") != "no" || YesNo("perhaps") != "perhaps" {
		t.Error("yes and no")
	}
}
