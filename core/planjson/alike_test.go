package planjson

import (
	"bytes"
	"crypto/sha256"
	"flag"
	"fmt"
	"os"
	"testing"

	"brevium/core/brief"
	"brevium/core/request"
)

var rewrite = flag.Bool("rewrite", false, "write the sums of testdata/alike.txt anew, where plans are meant to differ")

// Old documents plan alike, to the byte: testdata/alike.jsonl holds documents of every style as
// they were once, a line each, and alike.txt the sums of their plans.
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
		now = append(now, fmt.Appendf(nil, "%x", sha256.Sum256(out)))
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
