package planjson

import (
	"bytes"
	"crypto/sha256"
	"fmt"
	"math/rand/v2"
	"os"
	"os/exec"
	"testing"

	"brevium/core/brief"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/demo"
)

// documents are all of the demo's, and random ones, sensible or not.
func documents(t *testing.T) []brief.Brief {
	out, err := demo.Projects()
	if err != nil || len(out) < 10 {
		t.Fatal(err, len(out))
	}
	r := rand.New(rand.NewPCG(16, 16))
	mm := func(lo, hi int) string { return fmt.Sprintf("%d mm", lo+r.IntN(hi-lo)) }
	for n := range 40 {
		s := style.Styles[n%len(style.Styles)]
		b := brief.New([]string{"in", "mm"}[r.IntN(2)])
		b.Box = brief.Box{Style: brief.Text(s.ID)}
		for _, q := range s.Asks {
			switch {
			case len(q.Choices) > 0:
				b.Set("box.options."+q.ID, q.Choices[r.IntN(len(q.Choices))].ID)
			case r.IntN(5) == 0:
				b.Set("box.options."+q.ID, mm(1, 60))
			}
		}
		for range r.IntN(4) {
			b.Set("box.options.none-"+fmt.Sprint(r.IntN(9)), "x")
		}
		b.Set("contents.0.length", mm(20, 160))
		b.Set("contents.0.width", mm(20, 120))
		b.Set("contents.0.height", mm(3, 60))
		b.Set("contents.0.count", fmt.Sprint(1+r.IntN(9)))
		b.Set("arrange.compartments", []string{"", "slotted", "partitions", "trays", "petals"}[r.IntN(5)])
		b.Set("card.sheet", []string{"a3", "a4", "12x12"}[r.IntN(3)])
		b.Set("tools.allowances", []string{"", "plain"}[r.IntN(2)])
		if n%20 == 0 { // some are sets
			b.AddMember()
			b.AddMember()
			b.Several.Kind = []brief.Text{"stack", "nest", "cluster", "companions"}[n/20%4]
		}
		out = append(out, b)
	}
	return out
}

// The same document gives the same bytes, in another process too.
func TestSameDocumentSameBytes(t *testing.T) {
	sums := &bytes.Buffer{}
	for _, b := range documents(t) {
		out, _ := Of(b, request.Default)
		fmt.Fprintf(sums, "%x\n", sha256.Sum256(out))
	}
	if os.Getenv("BREVIUM_SUMS") != "" {
		if err := os.WriteFile(os.Getenv("BREVIUM_SUMS"), sums.Bytes(), 0o600); err != nil {
			t.Fatal(err)
		}
		return
	}
	name := t.TempDir() + "/sums"
	other := exec.Command(os.Args[0], "-test.run=^TestSameDocumentSameBytes$")
	other.Env = append(os.Environ(), "BREVIUM_SUMS="+name)
	if out, err := other.CombinedOutput(); err != nil {
		t.Fatalf("%v: %s", err, out)
	}
	again, err := os.ReadFile(name)
	if err != nil {
		t.Fatal(err)
	}
	a, b := bytes.Split(sums.Bytes(), []byte("\n")), bytes.Split(again, []byte("\n"))
	for i := range a {
		if i >= len(b) || !bytes.Equal(a[i], b[i]) {
			t.Fatalf("document %d gives other bytes the second time", i)
		}
	}
}
