package plan_test

import (
	"fmt"
	"testing"

	"brevium/core/advice"
	"brevium/core/request"
	"brevium/internal/tried"
)

// A gable cap folds up however steep its roof is: its gussets go in, and no corner closes another way.
func TestGableCapsFoldUp(t *testing.T) {
	planned := 0
	for _, wide := range []int{50, 60} {
		for roof := wide * 3 / 5; roof <= wide*6/5; roof++ {
			p := advice.Make(tried.Metric("gable-cap", 100, wide, 57, "box.options.roof", fmt.Sprintf("%d mm", roof)), request.Default)
			if !p.OK() {
				continue
			}
			planned++
			if why := tried.Said(p); why != "" {
				t.Errorf("%d wide, roof %d: %s", wide, roof, why)
			}
		}
	}
	if planned < 60 {
		t.Errorf("only %d were planned", planned)
	}
}
