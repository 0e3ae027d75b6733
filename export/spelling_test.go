package export

import (
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/internal/drawn"
)

// A file is spelt as who asks has chosen; what the maker typed stays as it was typed.
func TestFilesAreSpelt(t *testing.T) {
	b := brief.New("mm")
	b.Name, b.Notes = "Grey favour box", "In my neighbour's grey paper."
	p := plan.Make(b, request.Default)
	for american, says := range map[bool][2]string{false: {"card", "cardstock"}, true: {"cardstock", "millimetre"}} {
		for _, as := range []string{"pdf", "slip"} {
			f, err := Write(sets.JobOf(p), as, What{}, Options{American: american, Parts: []string{"materials", "notes", "steps"}})
			if err != nil {
				t.Fatal(err)
			}
			text := flat(drawn.Runs(t, "pdftotext", drawn.Kept(t, "f.pdf", f.Data), "-"))
			if strings.Contains(text, says[1]) || !strings.Contains(text, "Grey favour box") || as == "pdf" &&
				(!strings.Contains(text, says[0]) || !strings.Contains(text, "my neighbour's grey paper")) {
				t.Errorf("%s, american %v: %.600s", as, american, text)
			}
		}
	}
}
