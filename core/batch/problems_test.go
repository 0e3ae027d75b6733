package batch

import (
	"reflect"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/request"
)

// An order whose box can't be made says what the box's own page says: which measure decides, and what mends it.
func TestProblemsAreTheBoxsOwn(t *testing.T) {
	b := brief.New("mm")
	b.Contents, b.Card.Sheet = nil, "a4"
	b.Size = &brief.Size{Length: "300 mm", Width: "120 mm", Depth: "160 mm"}
	own := advice.Make(b, request.Default)
	if own.OK() || len(own.Problems[0].Set) == 0 {
		t.Fatalf("the box can be made, or nothing mends it: %v", own.Problems)
	}
	if got := Plan(b, request.Default).Problems; !reflect.DeepEqual(got, own.Problems) {
		t.Errorf("the order says %v, the box %v", got, own.Problems)
	}
}
