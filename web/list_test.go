package web

import (
	"strings"
	"testing"

	"brevium/core/brief"
)

// A list with a wrong number says which, and the button puts it right; while a list can't be, no older plan
// stands beside it as proved.
func TestWrongList(t *testing.T) {
	a := newApp(t)
	b, err := brief.Decode([]byte(`{"brevium":1,"name":"Tube","units":"mm","box":{"style":"score-list","pieces":[
		{"name":"tube","is":"tube","width":"270 mm","height":"230 mm","across":"90, 130, 220, 260","down":"15, 55, 175, 215"}]},
		"card":{"stock":"cover-216","sheet":"a3"},"tools":{"step":"1 mm","fit":"snug"}}`))
	if err != nil {
		t.Fatal(err)
	}
	id := a.begin(b)
	path := "/projects/" + id
	change := func(field, text string) string {
		t.Helper()
		w := a.post(path+"/change?stage=box", "base", a.headID(id), field, text)
		if w.Code != 200 {
			t.Fatalf("%s = %s: %d %s", field, text, w.Code, w.Body)
		}
		return w.Body.String()
	}
	if page := a.get(path + "?stage=box").Body.String(); strings.Contains(page, "looks wrong") || !strings.Contains(page, "Proved:") {
		t.Error("a list that is right is doubted, or not proved")
	}
	page := change("box.pieces.0.across", "90, 130, 222, 260")
	if !strings.Contains(page, "the score across at 222 mm should be at 220 mm") {
		t.Errorf("not told which number is wrong")
	}
	if page = change("box.pieces.0.across", "90, 130, 220"); strings.Contains(page, "Proved:") || strings.Contains(page, "last plan that worked") {
		t.Error("a list that can't be shows an older plan")
	}
	if !strings.Contains(page, "a score across is missing at 260 mm") {
		t.Error("not told which score is missing")
	}
	if page = change("box.pieces.0.across", "90 mm, 130 mm, 220 mm, 260 mm"); !strings.Contains(page, "Proved:") {
		t.Error("put right, it is not proved")
	}
}
