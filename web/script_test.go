package web

import (
	"bytes"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"brevium/internal/bundled"
)

// What the pages load is what lies in web/script.
func TestScriptIsBundled(t *testing.T) {
	want, err := bundled.Script("..")
	if err != nil {
		t.Fatal(err)
	}
	if got, err := os.ReadFile(filepath.Join("..", bundled.File)); err != nil || !bytes.Equal(got, want) {
		t.Errorf("run go run ./scripts/bundle (%v)", err)
	}
}

// A class of Bootstrap's that a page uses ships.
func TestClassesShip(t *testing.T) {
	list, err := os.ReadFile("testdata/bootstrap-classes.txt")
	if err != nil {
		t.Fatal(err)
	}
	theirs := strings.Fields(string(list))
	sheet, _ := fs.ReadFile(staticFiles, "static/vendor/bootstrap.min.css")
	named := regexp.MustCompile(`class="([^"{]*)`)
	used := 0
	for _, room := range rooms {
		pages, _ := fs.Glob(room.Files, "templates/*.html")
		for _, depth := range []string{"templates/*/*.html"} {
			more, _ := fs.Glob(room.Files, depth)
			pages = append(pages, more...)
		}
		for _, page := range pages {
			text, _ := fs.ReadFile(room.Files, page)
			for _, found := range named.FindAllSubmatch(text, -1) {
				for _, class := range strings.Fields(string(found[1])) {
					if _, is := slices.BinarySearch(theirs, class); !is {
						continue
					}
					used++
					if !regexp.MustCompile(`\.` + regexp.QuoteMeta(class) + `\b`).Match(sheet) {
						t.Errorf("%s uses %s: run scripts/vendor", page, class)
					}
				}
			}
		}
	}
	if used < 100 {
		t.Errorf("%d classes of Bootstrap's were found", used)
	}
}
