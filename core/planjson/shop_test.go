package planjson

import (
	"encoding/json"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/request"
)

// A document that describes its own cards and tools: each piece names its card, the
// corner tells every layer, each check of strength its load and limit, each score that
// no groove sets its way round.
func TestDocumentWithAShop(t *testing.T) {
	const document = `{"brevium": 1, "name": "Bulb sampler", "units": "in",
	  "contents": [{"name": "tulip bulb", "shape": "ball", "diameter": "1 3/4 in", "count": 6, "mass": "140 g"}],
	  "box": {"style": "tray-lid", "options": {"lid-walls": "rolled", "lid-height": "15/16 in"}},
	  "card": {"stock": "cover-216", "sheet": "12x12", "stocks": {"lid": "heavy", "layer": "dots-120"},
	    "own": [{"id": "heavy", "title": "Heavy, oat", "gsm": 300, "caliper": "0.42 mm", "grain": "long", "pattern": "up",
	      "sheets": ["12x12", "300 x 400 mm"]}]},
	  "dress": {"outside": 1},
	  "tools": {"step": "1/16 in", "fit": "snug", "grooves": ["5 mm"], "trimmer": {"reads": "1/16 in", "cuts": "12 in"},
	    "punches": ["hole 3 mm reach 25 mm"], "slack": "0.7 mm"}}`
	b, err := brief.Decode([]byte(document))
	if err != nil {
		t.Fatal(err)
	}
	again, err := brief.Decode(b.Encode())
	if err != nil || string(again.Encode()) != string(b.Encode()) || !strings.Contains(string(b.Encode()), `"grooves": [`) {
		t.Errorf("written again it is another: %v %s", err, b.Encode())
	}
	data, holds := Of(b, request.Default)
	var out struct {
		Pieces []struct {
			Name, Stock string
			Scores      []struct{ At, How string }
		}
		Sections []struct {
			Outer, Inner, Gap, Play string
			Layers                  []struct{ What, Stock, Thick string }
		}
		Strength []struct {
			Name, Load, Limit, Remedy string
			Holds                     bool
		}
		Layout struct{ Sheets []struct{ Stock string } }
		Used   []struct{ Kind string } `json:"from_the_shop"`
	}
	if err := json.Unmarshal(data, &out); err != nil || !holds {
		t.Fatalf("%v, holds %v: %.2000s", err, holds, data)
	}
	stocks := map[string]string{}
	odd := 0
	for _, p := range out.Pieces {
		stocks[p.Name] = p.Stock
		for _, s := range p.Scores {
			if s.How != "" {
				odd++
			}
		}
	}
	if stocks["base"] != "cover-216" || stocks["lid"] != "heavy" || out.Layout.Sheets[0].Stock != "cover-216" ||
		out.Layout.Sheets[len(out.Layout.Sheets)-1].Stock != "heavy" {
		t.Errorf("stocks %v, sheets %+v", stocks, out.Layout.Sheets)
	}
	var row []string
	for _, l := range out.Sections[0].Layers {
		row = append(row, l.Stock+" "+l.Thick)
	}
	// 0.27 + 3 x 0.42 + 2 x 0.15 + 0.7 = 2.53 mm goes up to 1/8 in: 3.175 - 1.83 = 1.345 of play
	if got := strings.Join(row, ", "); got != "cover-216 0.27 mm, dots-120 0.15 mm,  0.6725 mm, heavy 0.42 mm, heavy 0.42 mm" ||
		out.Sections[0].Play != "1.345 mm" {
		t.Errorf("the corner is %s, play %s", got, out.Sections[0].Play)
	}
	if odd == 0 || len(out.Strength) != 2 || out.Strength[0].Load != "840 g" || out.Strength[0].Holds != (out.Strength[0].Remedy == "") {
		t.Errorf("%d odd scores, strength %+v", odd, out.Strength)
	}
	for _, u := range out.Used {
		t.Errorf("it takes from the shop: %+v", u)
	}
	for _, bad := range []string{`"own": [{"title": "x"}]`, `"own": [{"id": "a.b"}]`,
		`"own": [{"id": "a", "title": "x"}, {"id": "a", "title": "y"}]`} {
		if _, err := brief.Decode([]byte(`{"brevium": 1, "card": {` + bad + `}}`)); err == nil {
			t.Errorf("%s was taken", bad)
		}
	}
}
