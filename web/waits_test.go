package web

import (
	"fmt"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/web/workbench"
)

// Of every style, with things of every kind, on every sheet: where there is no plan the true reason is said, never
// that sizes are waited for which are there; and what is offered beside it makes a plan.
func TestNoPlanWithoutItsReason(t *testing.T) {
	things := []brief.Item{{Shape: "cylinder", Diameter: "65 mm", Height: "250 mm"}, {Shape: "flat", Length: "190 mm", Width: "130 mm",
		Thickness: "4 mm"}, {Shape: "ball", Diameter: "88 mm"}, {Shape: "block", Length: "150 mm", Width: "20 mm", Height: "15 mm"}}
	none, mended := 0, 0
	for _, s := range style.Styles {
		for _, thing := range things {
			for _, sheet := range []string{"a4", "a3", "6x6"} {
				b := brief.New("mm")
				b.Box.Style, b.Card.Sheet = brief.Text(s.ID), brief.Text(sheet)
				thing.ID, thing.Name, thing.Count = "1", "thing", "1"
				b.Contents = []brief.Item{thing}
				p := advice.Make(b, request.Default)
				if p.OK() {
					continue
				}
				none++
				if workbench.WaitsForSizes(&b, p) || len(p.Problems) == 0 || strings.Contains(p.Problems[0].Text, "is empty") {
					t.Errorf("%s, %s on %s: no true reason: %+v", s.ID, thing.Shape, sheet, p.Problems)
					continue
				}
				pr := p.Problems[0]
				if pr.Fix == "" || !b.Has(pr.Field) {
					t.Errorf("%s, %s on %s: %+v", s.ID, thing.Shape, sheet, pr)
				}
				for field, text := range pr.Set.All() {
					b.Set(field, text)
				}
				if q := advice.Make(b, request.Default); len(pr.Set) > 0 && !q.OK() {
					t.Errorf("%s, %s on %s: %s: that does not help: %v", s.ID, thing.Shape, sheet, pr.Fix, q.Problems)
				} else if len(pr.Set) > 0 {
					mended++
				}
			}
		}
	}
	t.Log(fmt.Sprint(none, " without a plan, ", mended, " mended by what is offered"))
	empty := brief.New("mm")
	empty.Contents = []brief.Item{{ID: "1", Name: "thing", Shape: "ball", Count: "1"}}
	if !workbench.WaitsForSizes(&empty, advice.Make(empty, request.Default)) {
		t.Error("a ball without its size is not waited for")
	}
}
