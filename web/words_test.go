package web

import (
	"fmt"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/request"
	"brevium/web/workbench"
)

// A change is told alike however often it is told, and by the names on the page.
func TestChangesAreToldAlike(t *testing.T) {
	was := brief.New("mm")
	now := was.Clone()
	for i, id := range []string{"tabs", "lid", "clearance", "walls", "hat", "boots"} {
		now.Set("box.options."+id, fmt.Sprint("answer ", i))
	}
	first := workbench.Describe(&was, &now, request.Default, "")
	if strings.Count(first, ";") != 2 || !strings.HasSuffix(first, "and 4 more") {
		t.Errorf("%q", first)
	}
	gone := workbench.Describe(&now, &was, request.Default, "")
	for range 50 {
		if again := workbench.Describe(&was, &now, request.Default, ""); again != first {
			t.Fatalf("%q, then %q", first, again)
		}
		if again := workbench.Describe(&now, &was, request.Default, ""); again != gone {
			t.Fatalf("%q, then %q", gone, again)
		}
	}
	for path, says := range map[string]string{
		"card.sheet a3": "sheet a3", "contents.0.shape ball": "seed packet: shape ball",
		"contents.0.height 30 mm": "height 30 mm",
		"box.options.tabs half":   "half", "size.length ": "left open",
	} {
		now = was.Clone()
		path, text, _ := strings.Cut(path, " ")
		was.Size = &brief.Size{Length: "90 mm"}
		now.Size = &brief.Size{Length: "90 mm"}
		now.Set(path, text)
		if got := strings.ToLower(workbench.Describe(&was, &now, request.Default, "")); !strings.Contains(got, strings.ToLower(says)) {
			t.Errorf("%s %s: %q, not %q", path, text, got, says)
		}
	}
}
