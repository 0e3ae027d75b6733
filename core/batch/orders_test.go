package batch

import (
	"encoding/json"
	"errors"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/request"
)

// An order list comes in whole or not at all, and goes out as it came.
func TestOrderList(t *testing.T) {
	find := func(name string) (Order, error) {
		if name != "Marker tray" {
			return Order{}, errors.New("there is no such box")
		}
		return Order{Box: box("tape", false, false)}, nil
	}
	got, err := ReadOrders(strings.NewReader("Box;Name;Count;By\nMarker tray;Wren;12;2027-03-06\nMarker tray;;;6 March 2027\n"), find)
	if err != nil || len(got) != 2 || got[0].Name != "Wren" || got[1].Count != "1" {
		t.Fatalf("%+v, %v", got, err)
	}
	b := made(t, Document{Orders: got, Hours: map[string]brief.Text{"sat": "3"}})
	var out strings.Builder
	if err := b.WriteOrders(&out); err != nil {
		t.Fatal(err)
	}
	again, err := ReadOrders(strings.NewReader(out.String()), find)
	if err != nil || len(again) != 2 || again[0].By != got[0].By || again[0].Count != "12" {
		t.Errorf("%+v, %v", again, err)
	}
	for list, says := range map[string]string{
		"":                                  "empty",
		"name,count\nWren,3\n":              "must be box",
		"box,count\n":                       "no orders",
		"box,count\nMarker tray,3\nHat,1\n": "line 3",
		"box,count\nMarker tray,many\n":     "line 2",
		"box,by\nMarker tray,2027-02-30\n":  "no 2027-02-30",
		"box,count\nMarker tray,3,4\n":      "line 2",
		"box\n" + strings.Repeat("Marker tray\n", 10_000): "10000 orders",
	} {
		if got, err := ReadOrders(strings.NewReader(list), find); err == nil || !strings.Contains(err.Error(), says) ||
			got != nil {
			t.Errorf("%.40q: %v, want %q", list, err, says)
		}
	}
}

func FuzzDecode(f *testing.F) {
	d := Document{Orders: orders(4, "2027-03-06"), Hours: map[string]brief.Text{"sat": "3", "2027-02-20": "1:30"}}
	data, _ := json.Marshal(d)
	f.Add(data)
	f.Add([]byte(`{"orders": [{"box": {}, "count": 3, "by": "2027-03-06"}], "hours": {"mon": 2}}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		d, err := Decode(data)
		if err != nil {
			return
		}
		b := Read(d, today.Begins(), request.Default)
		if len(b.Orders) != len(d.Orders) {
			t.Error("orders were lost")
		}
	})
}
