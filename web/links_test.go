package web

import (
	"regexp"
	"slices"
	"strings"
	"testing"

	"brevium/core/box"
	"brevium/core/brief"
)

var linked = regexp.MustCompile(`data-link="([^"]+)"`)

// links gives the marks in a part of a page, each once.
func links(part string) (out []string) {
	for _, m := range linked.FindAllStringSubmatch(part, -1) {
		out = append(out, m[1])
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// Of every style, each number in the tally has its line on the flat drawing,
// and each line that is scored, slanted or bent its number.
func TestNumbersAndLinesAreLinked(t *testing.T) {
	a := newApp(t)
	for _, s := range box.Styles {
		b := brief.New("mm")
		b.Contents, b.Size = nil, &brief.Size{Length: "90 mm", Width: "70 mm", Depth: "40 mm"}
		b.Box = brief.Box{Style: brief.Text(s.ID)}
		b.Set("tools.step", "1 mm")
		b.Set("card.sheet", "a3")
		b.Set("card.join", "yes")
		page := a.get("/projects/" + a.begin(b) + "?view=flat").Body.String()
		flat, rest, ok := strings.Cut(page[strings.Index(page, "<figure"):], "</figure>")
		if !ok || !strings.Contains(flat, "drawing flat") {
			t.Fatalf("%s: no drawing", s.ID)
		}
		drawn, told := links(flat), links(rest[strings.Index(rest, `class="tally"`):])
		if !slices.Equal(drawn, told) {
			t.Errorf("%s: drawn %v, told %v", s.ID, drawn, told)
		}
		if len(told) < 6 {
			t.Errorf("%s: only %v", s.ID, told)
		}
	}
}
