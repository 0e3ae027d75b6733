package planjson

import (
	"encoding/json"
	"testing"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
)

// The JSON holds every length exactly.
// A document that asks for it is cut as was searched, with the proof; and what is a hair
// from saving is told.
func TestCutAsAsked(t *testing.T) {
	doc := `{"brevium":1,"units":"mm","copies":8,"box":{"style":"score-list","pieces":[{"name":"tube","is":"tube","width":"214 mm",
		"height":"121 mm","across":"50, 100, 150, 200"}]},"card":{"stock":"cover-216","sheet":"a4"},"tools":{"step":"1 mm","fit":"snug"}`
	var out struct {
		Layout struct {
			Count  int
			Proved bool
			Sheets []struct{ Width string }
		}
		Nearly []struct {
			Less   string
			Sheets int
			Set    brief.Changes
		}
	}
	of := func(more string) {
		t.Helper()
		b, err := brief.Decode([]byte(doc + more + "}"))
		if err != nil {
			t.Fatal(err)
		}
		data, holds := Of(b, request.Default)
		out.Nearly = nil
		if err := json.Unmarshal(data, &out); err != nil || !holds {
			t.Fatal(err, holds)
		}
	}
	of("")
	if out.Layout.Count != 8 || !out.Layout.Proved || len(out.Nearly) == 0 || out.Nearly[0].Less != "4 mm" || out.Nearly[0].Sheets != 4 ||
		out.Nearly[0].Set.Get("box.pieces.0.width") != "210 mm" {
		t.Errorf("%+v", out)
	}
	of(`,"sheets":{"sizes":"any"}`)
	if out.Layout.Count > 3 || !out.Layout.Proved {
		t.Errorf("%+v", out)
	}
}

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
	if err := json.Unmarshal(Write(plan.Make(b, request.Default)), &out); err != nil {
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
