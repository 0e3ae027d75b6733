package brief

import (
	"os"
	"strings"
	"testing"
)

// docs/format.md names every field of the document.
func TestFormatNamesEveryField(t *testing.T) {
	page, err := os.ReadFile("../../docs/format.md")
	if err != nil {
		t.Fatal(err)
	}
	for _, f := range Table {
		name := f.Path[strings.LastIndexByte(f.Path, '.')+1:]
		if !strings.Contains(string(page), `"`+name+`"`) && !strings.Contains(string(page), "`"+name+"`") &&
			!strings.Contains(string(page), " "+name+",") {
			t.Errorf("docs/format.md does not name %s", f.Path)
		}
		if f.Label == "" || f.Title() == f.Label && f.Label[0] >= 'a' {
			t.Errorf("%s has no label", f.Path)
		}
	}
}
