package demo

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/document"
	"brevium/core/request"
	"brevium/core/sets"
)

// BenchmarkChange is what a change of a box costs: how many go in, of the boxes of the fair in turn.
func BenchmarkChange(b *testing.B) {
	projects, err := Projects()
	if err != nil {
		b.Fatal(err)
	}
	var all []brief.Brief
	r := rand.New(rand.NewPCG(28, 3))
	for _, p := range projects {
		for range 4 {
			next := document.Clone(p)
			if len(next.Contents) > 0 {
				next.Contents[0].Count = brief.Whole(fmt.Sprint(1 + r.IntN(9)))
			}
			all = append(all, next)
		}
	}
	for b.Loop() {
		for _, next := range all {
			if next.IsSet() {
				sets.MakeFor(next, 0, request.Default)
			} else {
				advice.Make(next, request.Default)
			}
		}
	}
	b.ReportMetric(b.Elapsed().Seconds()*1000/float64(b.N*len(all)), "ms/change")
}
