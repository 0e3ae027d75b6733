package planjson

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/request"
)

// A dressed document from end to end: each piece says what part it is, of which card, how
// many and on what; supplies say their length; the run its order.
func TestDressedDocument(t *testing.T) {
	const document = `{"brevium": 1, "name": "Fair gift", "units": "in", "copies": 2,
	  "size": {"length": "5 in", "width": "3 1/2 in", "depth": "2 in"},
	  "box": {"style": "tray-lid", "options": {"lid-height": "3/4 in"}}, "card": {"stock": "kraft-300", "sheet": "12x12"},
	  "dress": {"layers": [{"on": "all", "border": "1/8 in", "stock": "cover-216"},
	      {"on": "sides", "border": "1/16 in", "stock": "sprig-220", "run": true}],
	    "liners": [{"in": "floor", "less": "1/8 in"}], "band": {"width": "1 in", "lap": "1 in", "stock": "cover-270"},
	    "ribbon": {"way": "along", "width": "1/2 in"}, "handle": {}, "toppers": [{"shape": "banner", "words": "Thanks"}],
	    "bow": {"loops": 5}},
	  "tools": {"step": "1/16 in", "fit": "snug"}}`
	b, err := brief.Decode([]byte(document))
	if err != nil {
		t.Fatal(err)
	}
	data, holds := Of(b, request.Default)
	var out struct {
		Pieces []struct {
			Name, Part, Stock, Width, Height string
			Count                            int
			On                               []string
		}
		Supplies []struct {
			What, Width, Length string
			Count               int
		}
		Runs []struct {
			Name, Stock string
			Cuts        []struct{ On, X string }
		}
		Steps  []struct{ Title string }
		Layout struct {
			Sheets []struct{ Placed []struct{ Piece string } }
		}
	}
	if err := json.Unmarshal(data, &out); err != nil || !holds {
		t.Fatalf("%v %s", err, data)
	}
	parts := map[string]int{}
	var says []string
	for _, p := range out.Pieces {
		parts[p.Part] += p.Count
		says = append(says, fmt.Sprintf("%d %s %s %s x %s on %s", p.Count, p.Name, p.Stock, p.Width, p.Height,
			strings.Join(p.On, ", ")))
	}
	for _, want := range []string{
		"4 base front and back layer cover-216 4 3/4 in x 1 3/4 in on base/back, base/front",
		"4 base front and back layer 2 sprig-220 4 5/8 in x 1 5/8 in on base/back, base/front",
		"2 base bottom layer cover-216 4 3/4 in x 3 1/4 in on base/base",
	} {
		if !slices.Contains(says, want) {
			t.Errorf("no %s in\n%s", want, strings.Join(says, "\n"))
		}
	}
	if parts["layer"] != 36 || parts["liner"] != 2 || parts["band"] != 2 || parts["topper"] != 4 || parts["bow"] != 12 {
		t.Errorf("%v", parts)
	}
	if len(out.Supplies) != 1 || out.Supplies[0].What != "ribbon" || out.Supplies[0].Width != "1/2 in" ||
		!strings.HasSuffix(out.Supplies[0].Length, " in") || out.Supplies[0].Count != 2 {
		t.Errorf("%+v", out.Supplies)
	}
	if len(out.Runs) != 2 || out.Runs[0].Stock != "sprig-220" || len(out.Runs[0].Cuts) != 4 ||
		out.Runs[0].Cuts[1].On != "base/front" ||
		out.Runs[0].Cuts[1].X != "3 1/2 in" {
		t.Errorf("%+v", out.Runs)
	}
	var titles []string
	for _, s := range out.Steps {
		titles = append(titles, s.Title)
	}
	if i := slices.Index(titles, "Decorate while flat"); i < 0 || i > slices.Index(titles, "Stick") ||
		i < slices.Index(titles, "Cut") {
		t.Errorf("%v", titles)
	}
	strips := 0
	for _, s := range out.Layout.Sheets {
		for _, p := range s.Placed {
			if strings.HasPrefix(p.Piece, "run round") {
				strips++
			}
			if strings.HasSuffix(p.Piece, "back layer 2") || strings.HasSuffix(p.Piece, "right layer 2") {
				t.Errorf("%s is laid out beside its run", p.Piece)
			}
		}
	}
	if strips < 4 {
		t.Errorf("%d strips", strips)
	}
}
