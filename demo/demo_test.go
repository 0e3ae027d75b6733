package demo

import (
	"testing"

	"brevium/core/plan"
)

func TestEveryProjectHolds(t *testing.T) {
	projects, err := Projects()
	if err != nil || len(projects) < 3 {
		t.Fatal(len(projects), err)
	}
	for _, b := range projects {
		if p := plan.Make(b, plan.Default); !p.Holds() {
			t.Errorf("%s: %v %v", b.Name, p.Problems, p.Checks)
		}
	}
}
