package planjson

import (
	"encoding/json"
	"testing"

	"brevium/core/brief"
	"brevium/core/plan"
)

// The JSON holds every length exactly.
func TestJSON(t *testing.T) {
	var out struct {
		Clearance string
		Inside    map[string]string
		Pieces    []struct {
			Name, Width string
			Scores      []map[string]string
			Lines       []map[string]string
			Faces       []map[string]string
		}
		Proof  struct{ Holds bool }
		Layout struct {
			Count, Bound int
			Used         float64
		}
	}
	b := brief.New("in")
	b.Contents = nil
	b.Size = &brief.Size{Length: "5", Width: "3 1/2", Depth: "2"}
	if err := json.Unmarshal(Write(plan.Make(b, plan.Default)), &out); err != nil {
		t.Fatal(err)
	}
	if out.Clearance != "1/16 in" || out.Inside["length"] != "126.73 mm" || !out.Proof.Holds ||
		out.Layout.Count != 2 || out.Layout.Bound != 2 {
		t.Errorf("%+v", out)
	}
	base := out.Pieces[0]
	if base.Width != "9 in" || len(base.Scores) != 4 || base.Scores[0]["to"] != "7 1/2 in" ||
		base.Scores[0]["along"] != "width" || len(base.Faces) != 9 {
		t.Errorf("%+v", base)
	}
	kinds := map[string]int{}
	for _, l := range base.Lines {
		kinds[l["kind"]]++
	}
	if kinds["score"] != 4 || kinds["cut"] != 20 {
		t.Errorf("lines %v", kinds)
	}
}
