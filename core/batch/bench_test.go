package batch

import (
	"strconv"
	"testing"

	"brevium/core/brief"
	"brevium/core/request"
)

// twenty are twenty orders of fifteen boxes each.
func twenty(b *testing.B) *Batch {
	var by []string
	for i := range 20 {
		by = append(by, today.Plus(10+3*i).String())
	}
	d := Document{Orders: orders(15, by...), Hours: map[string]brief.Text{"mon": "1 1/2", "wed": "1 1/2", "sat": "5",
		"sun": "3"}}
	return made(b, d)
}

func BenchmarkBatch(b *testing.B) {
	of := twenty(b)
	for b.Loop() {
		clear(known)
		of.Make(planned)
		of.Lay(request.Default, noPace)
		of.Share(noPace)
	}
}

func BenchmarkPlanAgain(b *testing.B) {
	of := twenty(b)
	done := Progress{}
	of.Doc.Done = done
	for i := 0; b.Loop(); i++ {
		done["1/Score"] = brief.Whole(strconv.Itoa(i % 15))
		of.Share(noPace)
	}
}
