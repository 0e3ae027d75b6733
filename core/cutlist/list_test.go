package cutlist

import (
	"bytes"
	"encoding/json"
	"strings"
	"testing"

	"brevium/core/least"
	"brevium/core/measure"
)

// told lays a list given as JSON.
func told(t *testing.T, doc string) (out Told, holds, read bool) {
	t.Helper()
	l, err := Decode([]byte(doc))
	if err != nil {
		t.Fatal(err)
	}
	line, holds, err := Line(t.Context(), l)
	read = err == nil
	if err := json.Unmarshal(line, &out); err != nil || bytes.Count(line, []byte("\n")) != 1 {
		t.Fatalf("%v: %s", err, line)
	}
	return out, holds, read
}

func TestLine(t *testing.T) {
	got, holds, _ := told(t, `{"sheets":[{"name":"12x12","width":"12 in","height":"12 in","price":"0.40","count":5}],
		"pieces":[{"name":"base","width":"9 in","height":"7 1/2 in","count":4,"turn":true},
		{"name":"lid","width":3,"height":"4 1/2","count":4}],"longest-cut":"12 in","work":"quick"}`)
	if !holds || got.Count != 4 || got.Bound != 4 || !got.Proved || got.Cost != "1.60" || len(got.Sheets) != 4 {
		t.Fatalf("%+v", got)
	}
	for _, s := range got.Sheets {
		if s.Name != "12x12" || len(s.Placed) != 2 || s.Width != "12 in" || len(s.Cuts) < 2 || len(s.Offcuts) == 0 {
			t.Errorf("%+v", s)
		}
	}
	// Sheets of metres with odd fractions are laid as well.
	got, holds, _ = told(t, `{"sheets":[{"width":"300 1/3","height":"300 1/7"}],"pieces":[{"width":"99 1/11","height":"33 1/3",
		"count":27}]}`)
	if !holds || got.Count != 1 || !got.Proved {
		t.Errorf("%+v", got)
	}
	// Of two sizes the cheaper way is taken, and said to be proved.
	got, holds, _ = told(t, `{"units":"mm","aim":"cost","sheets":[{"name":"small","width":100,"height":100,"price":30},
		{"name":"large","width":100,"height":200,"price":50}],"pieces":[{"name":"p","width":90,"height":95,"count":3}]}`)
	if !holds || got.Cost != "80.00" || got.Least != "80.00" || !got.Proved || got.Count != 2 {
		t.Errorf("%+v", got)
	}
	// A run stays in its order; what may not turn doesn't; offcuts come first.
	got, holds, _ = told(t, `{"units":"mm","sheets":[{"name":"rest","width":100,"height":60,"offcut":true},{"name":"new","width":300,
		"height":200}],"pieces":[{"name":"left","width":30,"height":50,"run":"front","turn":false},{"name":"right","width":40,
		"height":50,"run":"front","turn":false}]}`)
	if !holds || got.Count != 0 || len(got.Sheets) != 1 || !got.Sheets[0].Offcut || got.Sheets[0].Placed[1].X != "30 mm" {
		t.Errorf("%+v", got)
	}
}

// What can't be laid is told with by how much, and what would help.
func TestLeft(t *testing.T) {
	sheet := `"units":"mm","sheets":[{"name":"A4","width":210,"height":297,"count":2}],`
	for pieces, says := range map[string]string{
		`{"name":"wide","width":215,"height":220}`:                                  "5 mm too big for A4. Make it 5 mm smaller",
		`{"name":"lying","width":290,"height":200,"turn":false}`:                    "only fits A4 when it is turned",
		`{"name":"many","width":200,"height":200,"count":5}`:                        "not enough sheets for 3 of many",
		`{"name":"ok","width":9,"height":9},{"name":"no","width":400,"height":400}`: "no (400 mm × 400 mm)",
	} {
		got, holds, read := told(t, `{`+sheet+`"pieces":[`+pieces+`]}`)
		if holds || !read || len(got.Left) != 1 || !strings.Contains(got.Left[0].Why, says) || got.Proved {
			t.Errorf("%s: %+v", pieces, got)
		}
	}
	got, holds, _ := told(t, `{"units":"mm","longest-cut":150,"sheets":[{"name":"A3","width":297,"height":420}],
		"pieces":[{"name":"p","width":100,"height":100}]}`)
	if holds || !strings.Contains(got.Left[0].Why, "your trimmer is too short") {
		t.Errorf("%+v", got)
	}
}

// Bad lists are refused at their line, with the reason and the remedy.
func TestRefused(t *testing.T) {
	const sheet, piece = `"sheets":[{"name":"A","width":"5","height":"5"}],`, `"pieces":[{"name":"p","width":"1","height":"2"}]`
	for doc, field := range map[string]string{
		`{"sheets":[],` + piece + `}`:                                                     "sheets",
		`{` + sheet + `"pieces":[]}`:                                                      "pieces",
		`{` + sheet + `"pieces":[{"name":"p","width":"0","height":"2"}]}`:                 "pieces.0.width",
		`{` + sheet + `"pieces":[{"name":"p","width":"1","height":"-2"}]}`:                "pieces.0.height",
		`{` + sheet + `"pieces":[{"width":"1","height":"1"},{"width":"1"}]}`:              "pieces.1.height",
		`{` + sheet + `"pieces":[{"name":"p","width":"1","height":"2","count":1000000}]}`: "pieces.0.count",
		`{` + sheet + `"pieces":[{"name":"p","width":"1","height":"2","count":0}]}`:       "pieces.0.count",
		`{` + sheet + `"pieces":[{"name":"p","width":"1","height":"2","turn":"maybe"}]}`:  "pieces.0.turn",
		`{` + sheet + `"pieces":[{"name":"p","width":"1","height":"2","stock":"kraft"}]}`: "pieces.0.stock",
		`{` + sheet + piece + `,"longest-cut":"1 mm"}`:                                    "longest-cut",
		`{` + sheet + piece + `,"aim":"luck"}`:                                            "aim",
		`{` + sheet + piece + `,"aim":"cost"}`:                                            "sheets.0.price",
		`{` + sheet + piece + `,"margin":"3 in"}`:                                         "margin",
		`{"sheets":[{"name":"A","width":"1","height":"5","margin":"0.6"}],` + piece + `}`: "sheets.0.margin",
		`{"sheets":[{"name":"A","width":"5","height":"5","count":"few"}],` + piece + `}`:  "sheets.0.count",
		`{"sheets":[{"name":"A","width":"5","height":"5","price":"dear"}],` + piece + `}`: "sheets.0.price",
		`{` + sheet + piece + `,"pins":[{"piece":"q","sheet":1,"x":"0","y":"0"}]}`:        "pins.0.piece",
		`{` + sheet + piece + `,"units":"ells"}`:                                          "units",
	} {
		got, holds, read := told(t, doc)
		if holds || read || len(got.Problems) == 0 || got.Problems[0].Field != field || got.Problems[0].Fix == "" {
			t.Errorf("%s: %+v, want %s", doc, got.Problems, field)
		}
	}
	for _, doc := range []string{
		`{` + sheet + piece + `,"pins":[{"piece":"p","sheet":1,"x":"0","y":"0"},{"piece":"p","sheet":1,"x":"2","y":"0"}]}`,
		`{` + sheet + piece + `,"pins":[{"piece":"p","sheet":1,"x":"4.5","y":"0"}]}`,
		`{` + sheet + `"pieces":[{"name":"p","width":"1","height":"2","run":"r"},{"name":"q","width":"1","height":"2","run":"r","count":2}]}`,
	} {
		if got, _, read := told(t, doc); read || len(got.Problems) != 1 {
			t.Errorf("%s: %+v", doc, got)
		}
	}
	for _, doc := range []string{``, `[]`, `{"glitter":1}`, `{} {}`, strings.Repeat(" ", Limit+1)} {
		if _, err := Decode([]byte(doc)); err == nil {
			t.Errorf("%.20q was taken for a list", doc)
		}
	}
}

func TestCSV(t *testing.T) {
	in := "width;height;name;turn;count;run\n9 in;7 1/2 in;base;no;4;\n\n3;4;lid;yes;;front\n"
	pieces, err := ReadCSV(strings.NewReader(in))
	if err != nil || len(pieces) != 2 || pieces[0].Turn != "no" || pieces[1].Run != "front" {
		t.Fatalf("%+v %v", pieces, err)
	}
	var out bytes.Buffer
	if err := WriteCSV(&out, pieces); err != nil {
		t.Fatal(err)
	}
	again, err := ReadCSV(&out)
	if err != nil || len(again) != 2 || again[0] != pieces[0] || again[1] != pieces[1] {
		t.Errorf("%+v %v", again, err)
	}
	for bad, says := range map[string]string{"": "empty", "name,height\na,1": "width", "width,height\n1,2\n\"3": "line 3",
		"width,height\n": "no pieces", "width,height\n" + strings.Repeat("1,2\n", MostLines+1): "line 602"} {
		if _, err := ReadCSV(strings.NewReader(bad)); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%.30q: %v", bad, err)
		}
	}
}

// Whatever is typed, a list is refused at a field or laid so that its cuts free every
// piece; nothing panics.
func FuzzList(f *testing.F) {
	f.Add([]byte(`{"sheets":[{"name":"A","width":"5","height":"5","margin":"3 mm","count":2,"offcut":true},{"name":"B","width":7,
		"height":9,"price":"2.5","stock":"x"}],"pieces":[{"name":"p","width":"1","height":"2","count":3,"turn":false,"stock":"x, y"},
		{"name":"q","width":2,"height":3,"run":"r"},{"name":"s","width":1,"height":3,"run":"r"}],"longest-cut":"6 in","aim":"cost",
		"among-equals":"stops","pins":[{"piece":"q","sheet":2,"x":"1 in","y":0}],"seed":4}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		l, err := Decode(data)
		if err != nil {
			return
		}
		task, report := Read(l)
		if len(report.Problems) > 0 {
			return
		}
		if task.Work = 2000; len(task.Pieces) > 30 {
			return
		}
		r, err := least.Solve(task, nil)
		if err != nil {
			if strings.Contains(err.Error(), "fault of Brevium") {
				t.Fatal(err)
			}
			return
		}
		n := 0
		for _, s := range r.Sheets {
			n += len(s.Placed)
		}
		want := 0
		for _, p := range task.Pieces {
			want += p.Count
		}
		for _, p := range append(r.TooBig, r.Short...) {
			want -= p.Count
		}
		if n != want {
			t.Fatalf("%d of %d are laid", n, want)
		}
		Tell(task, r, measure.Inches)
	})
}
