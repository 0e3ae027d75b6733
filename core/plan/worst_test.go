package plan_test

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/request"
	"brevium/core/sets"
)

// BenchmarkWorst plans the documents that took longest of all that were tried
// (scripts/worst looks for more): no box should take 50 ms, and no set 150.
func BenchmarkWorst(b *testing.B) {
	worst(b, func(d brief.Brief) {
		if d.IsSet() {
			sets.MakeFor(d, 0, request.Default)
			return
		}
		advice.Make(d, request.Default)
	})
}

// BenchmarkCompareWorst asks which box for each of them: none should take a
// second.
func BenchmarkCompareWorst(b *testing.B) {
	worst(b, func(d brief.Brief) { advice.Compare(b.Context(), d, request.Default) })
}

func worst(b *testing.B, do func(brief.Brief)) {
	files, err := filepath.Glob("testdata/worst/*.json")
	if err != nil || len(files) == 0 {
		b.Fatal("no documents", err)
	}
	for _, file := range files {
		data, err := os.ReadFile(file)
		if err != nil {
			b.Fatal(err)
		}
		d, err := brief.Decode(data)
		if err != nil {
			b.Fatal(file, err)
		}
		b.Run(strings.TrimSuffix(filepath.Base(file), ".json"), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				do(d)
			}
		})
	}
}
