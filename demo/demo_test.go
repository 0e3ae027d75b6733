package demo

import (
	"testing"

	"brevium/core/plan"
	"brevium/core/request"
)

func TestEveryProjectHolds(t *testing.T) {
	projects, err := Projects()
	if err != nil || len(projects) < 3 {
		t.Fatal(len(projects), err)
	}
	for _, b := range projects {
		p := plan.Make(b, request.Default)
		slip := b.Name == "A list with a slip" // shows what the proof tells
		if p.Holds() == slip || !p.OK() {
			t.Errorf("%s: %v %v", b.Name, p.Problems, p.Checks)
		}
	}
}
