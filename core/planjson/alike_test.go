package planjson

import (
	"bytes"
	"crypto/sha256"
	"encoding/json"
	"flag"
	"fmt"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/request"
)

var rewrite = flag.Bool("rewrite", false, "write the sums of testdata/alike.txt anew, where plans are meant to differ")

// Old documents plan alike: testdata/alike.jsonl holds documents of every style as they were once, a line each, and
// alike.txt the sums of their plans. Of a sentence only its figures count: how a thing is said may be bettered.
func TestOldDocumentsPlanAlike(t *testing.T) {
	lines, err := os.ReadFile("testdata/alike.jsonl")
	if err != nil {
		t.Fatal(err)
	}
	sums, err := os.ReadFile("testdata/alike.txt")
	if err != nil && !*rewrite {
		t.Fatal(err)
	}
	old, now := bytes.Split(sums, []byte("\n")), [][]byte{}
	for i, line := range bytes.Split(bytes.TrimSpace(lines), []byte("\n")) {
		b, err := brief.Decode(line)
		if err != nil {
			t.Fatalf("document %d: %v", i+1, err)
		}
		out, _ := Of(b, request.Default)
		now = append(now, fmt.Appendf(nil, "%x", sha256.Sum256(figures(t, out))))
		if !*rewrite && (i >= len(old) || !bytes.Equal(now[i], old[i])) {
			t.Errorf("document %d, of %s, plans otherwise than it did", i+1, b.Box.Style)
		}
	}
	if *rewrite {
		if err := os.WriteFile("testdata/alike.txt", append(bytes.Join(now, []byte("\n")), '\n'), 0o600); err != nil {
			t.Fatal(err)
		}
	}
}

var (
	sentence = regexp.MustCompile(`\pL{2,} \pL+|\pL[a-z]{3,}[.:,]? `)
	figure   = regexp.MustCompile(`\d[\d./⁄]*`)
)

// figures is a plan with each sentence in it reduced to the figures it tells, in order of size.
func figures(t *testing.T, plan []byte) []byte {
	t.Helper()
	var all any
	d := json.NewDecoder(bytes.NewReader(plan))
	d.UseNumber()
	if err := d.Decode(&all); err != nil {
		t.Fatal(err)
	}
	var walk func(any) any
	walk = func(v any) any {
		switch v := v.(type) {
		case string:
			if sentence.MatchString(v) {
				of := figure.FindAllString(v, -1)
				for i := range of {
					of[i] = strings.TrimRight(of[i], ".")
				}
				slices.Sort(of)
				return of
			}
		case []any:
			for i := range v {
				v[i] = walk(v[i])
			}
		case map[string]any:
			for k := range v {
				v[k] = walk(v[k])
			}
		}
		return v
	}
	out, err := json.Marshal(walk(all))
	if err != nil {
		t.Fatal(err)
	}
	return out
}
