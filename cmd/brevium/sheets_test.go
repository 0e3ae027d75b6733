package main

import (
	"bytes"
	"encoding/json"
	"errors"
	"os"
	"path/filepath"
	"strings"
	"testing"
)

func TestSheetsExitCodes(t *testing.T) {
	const sheet = `"sheets":[{"name":"A","width":"5 in","height":"5 in"}],`
	piece := func(w string) string {
		return `{` + sheet + `"pieces":[{"name":"p","width":"` + w + `","height":"2 in"}]}`
	}
	cases := []struct {
		name, doc string
		exit, out int // lines printed
	}{
		{"all laid", piece("3 in"), 0, 1},
		{"written over lines", strings.ReplaceAll(piece("3 in"), ",", ",\n"), 0, 1},
		{"too large", piece("6 in"), 1, 1},
		{"nothing of it", piece("0"), 2, 0},
		{"no sheet", `{"sheets":[],"pieces":[]}`, 2, 0},
		{"no list", `hello`, 2, 0},
		{"pinned where it can't be", strings.Replace(piece("3 in"), `"pieces"`,
			`"pins":[{"piece":"p","sheet":1,"x":"4 in","y":"0"}],"pieces"`, 1), 2, 0},
		{"a list a line", piece("3 in") + "\n" + piece("2 in") + "\n", 0, 2},
		{"a line left over", piece("3 in") + "\n" + piece("6 in"), 1, 2},
		{"a bad line keeps no other back", piece("3 in") + "\n{}\nx\n" + piece("6 in"), 2, 4},
	}
	for _, c := range cases {
		var out bytes.Buffer
		err := laySheets(t.Context(), []byte(c.doc), &out)
		exit, own := 0, code(0)
		switch {
		case errors.As(err, &own):
			exit = int(own)
		case err != nil:
			exit = 2
		}
		if exit != c.exit || strings.Count(out.String(), "\n") != c.out {
			t.Errorf("%s: exit %d (%v), want %d: %s", c.name, exit, err, c.exit, out.String())
		}
		for line := range strings.Lines(out.String()) {
			var told struct {
				Sheets   []any
				Problems []any
			}
			if err := json.Unmarshal([]byte(line), &told); err != nil || told.Sheets == nil {
				t.Errorf("%s: %v: %s", c.name, err, line)
			}
		}
	}
	file := filepath.Join(t.TempDir(), "list.json")
	if err := os.WriteFile(file, []byte(piece("6 in")), 0o600); err != nil {
		t.Fatal(err)
	}
	for args, want := range map[string]int{file: 1, file + ".none": 2} {
		if exit := run([]string{"sheets", args}); exit != want {
			t.Errorf("%s: exit %d, want %d", args, exit, want)
		}
	}
}
