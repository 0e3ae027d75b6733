package words

import (
	"bytes"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
)

// told is a text of the program that people read, with where it stands.
type told struct{ at, text string }

// texts are all that the program says: of its templates what is no markup, of its code the strings that are sentences.
func texts(t *testing.T) (out []told) {
	t.Helper()
	root := filepath.Join("..", "..")
	for _, dir := range []string{"core", "draw", "export", "bundle", "photo", "machine", "web", "cmd", "store"} {
		err := filepath.WalkDir(filepath.Join(root, dir), func(name string, d fs.DirEntry, err error) error {
			switch {
			case err != nil || d.IsDir() || strings.Contains(name, "testdata"):
			case strings.HasSuffix(name, "_test.go"):
			case strings.HasSuffix(name, ".go"):
				out = append(out, inCode(t, name)...)
			case strings.HasSuffix(name, ".html"):
				page, err := os.ReadFile(name)
				if err != nil {
					return err
				}
				out = append(out, told{name, string(betweenTags.ReplaceAll(page, []byte("\n")))})
			case strings.HasSuffix(name, ".js") && strings.Contains(name, "script"):
				script, err := os.ReadFile(name)
				if err != nil {
					return err
				}
				for _, s := range said.FindAll(script, -1) {
					out = append(out, told{name, string(bytes.Trim(s, "\"`"))})
				}
			}
			return err
		})
		if err != nil {
			t.Fatal(err)
		}
	}
	pages, err := filepath.Glob(filepath.Join(root, "docs", "*.md"))
	if err != nil || len(pages) < 10 {
		t.Fatal(pages, err)
	}
	for _, name := range append(pages, filepath.Join(root, "README.md")) {
		page, err := os.ReadFile(name)
		if err != nil {
			t.Fatal(err)
		}
		if filepath.Base(name) != "words.md" { // which says what is not said
			out = append(out, told{name, string(asCode.ReplaceAll(page, []byte("…")))})
		}
	}
	return out
}

var (
	asCode      = regexp.MustCompile("(?s)```.*?```|`[^`]*`|\\]\\([^)]*\\)|\n    [^\n]*")
	betweenTags = regexp.MustCompile(`(?s)\{\{.*?\}\}|<!--.*?-->|<[^>]*>`)
	said        = regexp.MustCompile("\"[A-Z][^\"\n]* [^\"\n]*\"|`[A-Z][^`\n]* [^`\n]*`")
	oneWord     = regexp.MustCompile(`^[A-Z][a-z]+$`)
	statement   = regexp.MustCompile(`\b(SELECT|INSERT|UPDATE|DELETE|WHERE|PRAGMA|ORDER BY|INDEXED|FROM|JOIN)\b`)
)

// inCode gives the strings of a file that are sentences, put together where they were broken into lines.
func inCode(t *testing.T, name string) (out []told) {
	t.Helper()
	file, err := parser.ParseFile(token.NewFileSet(), name, nil, 0)
	if err != nil {
		t.Fatal(err)
	}
	var whole func(ast.Expr) (string, bool)
	whole = func(e ast.Expr) (string, bool) {
		switch e := e.(type) {
		case *ast.BasicLit:
			s, err := strconv.Unquote(e.Value)
			return s, e.Kind == token.STRING && err == nil
		case *ast.BinaryExpr:
			a, isA := whole(e.X)
			b, isB := whole(e.Y)
			return a + b, e.Op == token.ADD && (isA || isB)
		}
		return "", false
	}
	ast.Inspect(file, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.ImportSpec:
			return false
		case *ast.Field:
			return n.Tag == nil
		case ast.Expr:
			if s, ok := whole(n); ok {
				if (strings.Contains(strings.TrimSpace(s), " ") || oneWord.MatchString(s)) && !statement.MatchString(s) {
					out = append(out, told{name, s})
				}
				return false
			}
		}
		return true
	})
	return out
}

// column reads the cells of a column of docs/words.md, of the table under a heading.
func column(t *testing.T, heading string, n int) (out []string) {
	t.Helper()
	page, err := os.ReadFile(filepath.Join("..", "..", "docs", "words.md"))
	if err != nil {
		t.Fatal(err)
	}
	_, rest, _ := strings.Cut(string(page), "## "+heading)
	rest, _, _ = strings.Cut(rest, "\n## ")
	for _, line := range strings.Split(rest, "\n") {
		cells := strings.Split(strings.Trim(line, "| "), "|")
		if strings.HasPrefix(line, "|") && len(cells) > n && !strings.HasPrefix(line, "|---") {
			out = append(out, strings.TrimSpace(cells[n]))
		}
	}
	if len(out) < 8 {
		t.Fatalf("docs/words.md has %d lines under %s", len(out), heading)
	}
	return out[1:]
}

// Every text keeps to the house's words: docs/words.md.
func TestHouseWords(t *testing.T) {
	all := texts(t)
	if len(all) < 2000 {
		t.Fatalf("only %d texts were found", len(all))
	}
	turns := append(column(t, "Turns that are not used", 0), column(t, "One word for one thing", 2)...)
	inCodeToo := []string{"the shop", "of the shop", "the shop's", "put by"} // core/shop, as those who read docs know it
	for _, turn := range turns {
		pattern := regexp.MustCompile(`(?i)(^|[^a-z-])` + strings.ReplaceAll(regexp.QuoteMeta(turn), " ", `\s+`) + `s?($|[^a-z-])`)
		for _, s := range all {
			right, both := rightHere[turn]
			docs := strings.HasSuffix(s.at, ".md") && (both || slices.Contains(inCodeToo, turn))
			text := s.text
			if both && right != "" {
				text = regexp.MustCompile(`(?i)`+right).ReplaceAllString(text, "")
			}
			if found := pattern.FindStringIndex(text); found != nil && !docs {
				s.text = text
				t.Errorf("%s says %q: %.80q", s.at, turn, s.text[max(0, found[0]-30):])
			}
		}
	}
}

// rightHere are words that the code and its docs use as well, with the turns in which a maker may read them.
var rightHere = map[string]string{
	"project": "project sheet", "library": "", "proof": "", "dressing": "", "item": "",
	"making":   "(start|while) making|making it|make making lid",
	"take out": "hard to take out|: take out tissue|^take out tissue",
	"keep it":  "keep it (away|under|upright|on another disk)|keep it on another",
}

// No text of a page speaks of the program's inside.
func TestNoSoftwareWords(t *testing.T) {
	inside := regexp.MustCompile(`\b(JSON|null|stdin|HTTP|exit code|invalid character|[0-9]+ bytes|unmarshal)\b|docs/|` +
		`brevium (serve|backup|restore|passphrase)`)
	for _, s := range texts(t) {
		onPage := strings.Contains(s.at, "/web/") || strings.Contains(s.at, "/core/") && !strings.Contains(s.at, "planjson")
		if onPage && inside.MatchString(s.text) && !strings.Contains(s.at, "core/cutlist") {
			t.Errorf("%s: %.100q", s.at, s.text)
		}
	}
}

// American spelling changes words and leaves what they are part of.
func TestAmerican(t *testing.T) {
	for british, want := range map[string]string{
		"Colour of the card": "Color of the cardstock", "Follow its score card.": "Follow its score card.",
		"two cards, 3 millimetres": "two cards, 3 millimeters", "Cardigan in grey": "Cardigan in gray",
		"a greeting card in Card & fit": "a greeting card in Cardstock & fit", "": "",
	} {
		if got := American(british); got != want {
			t.Errorf("%q is spelt %q, not %q", british, got, want)
		}
	}
}
