package shop

import (
	"bytes"
	"reflect"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/document"
	"brevium/core/measure"
)

// A list of cards written and read again is the same cards.
func TestCardsThereAndBack(t *testing.T) {
	cards := Shipped().Cards
	cards[0].Title, cards[1].Title = "=cmd|'x'!A1", "Two; parted, \"so\""
	var b bytes.Buffer
	if err := WriteCSV(&b, cards); err != nil {
		t.Fatal(err)
	}
	if strings.Contains(b.String(), "\n=") || strings.Contains(b.String(), ",=") {
		t.Error("a spreadsheet would take a name for a formula")
	}
	got, err := ReadCSV(&b, nil, measure.Millimetres)
	if err != nil || !reflect.DeepEqual(got, cards) {
		t.Errorf("%v\n%+v\n%+v", err, got, cards)
	}
}

// All or nothing: every bad line is told by its number, and good lists change what
// has the same name and add the rest.
func TestCardsFromAList(t *testing.T) {
	have := Shipped().Cards
	_, err := ReadCSV(strings.NewReader("title;gsm;caliper\nGood;300;\nBad;9000;\nWorse;;9 mm\nGood;200;\n"), have,
		measure.Millimetres)
	if err == nil || !strings.Contains(err.Error(), "line 3:") || !strings.Contains(err.Error(), "line 4:") ||
		!strings.Contains(err.Error(), "line 5: it is the same card as line 2") {
		t.Errorf("%v", err)
	}
	got, err := ReadCSV(strings.NewReader("title,caliper,retired\n"+
		"\"kraft, 300 gsm\",0.41 mm,yes\nHedge board,0.6 mm,no\n"), have, measure.Inches)
	if err != nil || len(got) != len(have)+1 || got[3].Caliper != "0.41 mm" || got[3].Retired != "yes" ||
		got[3].ID != "kraft-300" ||
		got[len(have)].ID != "hedge-board" || have[3].Caliper == "0.41 mm" {
		t.Errorf("%v %+v", err, got)
	}
	for _, bad := range []string{"", "gsm\n300\n", "title\n", "title,title\na,b\n", "name\nx\n", "title,gsm\nx\n"} {
		if _, err := ReadCSV(strings.NewReader(bad), have, measure.Inches); err == nil {
			t.Errorf("%q was taken", bad)
		}
	}
}

func FuzzCards(f *testing.F) {
	f.Add("title,gsm,sheets\nOat,80 lb cover,\"12x12, a4\"\n")
	f.Add("id;title;caliper;pattern\nx;Try;0.3;up\n")
	f.Fuzz(func(t *testing.T, text string) {
		cards, err := ReadCSV(strings.NewReader(text), Shipped().Cards, measure.Inches)
		if err != nil {
			return
		}
		d := Document{Brevium: Version, Cards: cards}
		if _, r := Read(d); len(r.Problems) > 0 {
			t.Fatalf("a list was taken that is no shop: %+v", r.Problems)
		}
		again, err := Decode(d.Encode())
		if err != nil || !bytes.Equal(again.Encode(), d.Encode()) {
			t.Fatalf("it can't be kept: %v", err)
		}
	})
}

// Two windows that change different fields come to the same shop, whoever is first; one
// field that both change is a conflict, and the first stands.
func TestMergingTheShop(t *testing.T) {
	d := Shipped()
	fields := []string{"cards.@kraft-300.price", "cards.@cover-216.hand", "tools.grooves", "habits.walls", "currency",
		"cards.@light-160.title"}
	for i, one := range fields {
		for k, other := range fields {
			a := map[string]document.Typed{one: {Text: "rolled", Was: d.Get(one)}}
			b := map[string]document.Typed{other: {Text: "single", Was: d.Get(other)}}
			x, none := Form.Merge(d, a)
			x, conflicts := Form.Merge(x, b)
			y, _ := Form.Merge(d, b)
			y, _ = Form.Merge(y, a)
			switch {
			case len(none) > 0:
				t.Fatalf("%s alone is a conflict", one)
			case i != k && (len(conflicts) > 0 || !bytes.Equal(x.Encode(), y.Encode())):
				t.Errorf("%s and %s: %v", one, other, conflicts)
			case i == k && (len(conflicts) != 1 || x.Get(one) != "rolled" || conflicts[0].Theirs != "rolled"):
				t.Errorf("%s twice: %+v, %q", one, conflicts, x.Get(one))
			}
		}
	}
	if !bytes.Equal(d.Encode(), Shipped().Encode()) {
		t.Error("merging changed what it was made of")
	}
	for path := range map[string]bool{"cards.@none.price": true, "cards.@kraft-300.none": true, "habits.none": true,
		"fits.0.gap": true, "x": true} {
		if c := d.Clone(); c.Set(path, "y") && path != "cards.@none.price" {
			t.Errorf("%s can be written", path)
		}
	}
	if _, conflicts := Form.Merge(d, map[string]document.Typed{"cards.@none.price": {Text: "1"}}); len(conflicts) != 1 ||
		!conflicts[0].Gone {
		t.Error("a card that is gone is no conflict")
	}
	// All fields there are can be set, and what is set is among all.
	n := 0
	for path := range Form.All(&d) {
		c := d.Clone()
		if _, ok := FieldAt(path); !ok || !c.Set(path, "z") || c.Get(path) != "z" {
			t.Errorf("%s is listed and can't be set", path)
		}
		n++
	}
	if n < 100 {
		t.Errorf("only %d fields", n)
	}
}

// Every habit's choices are choices: of the document's field it stands for, or of a
// style's question, and the first changes nothing.
func TestHabitsAreAnswers(t *testing.T) {
	for _, h := range Habits {
		if h.Choices[0].ID != "" || h.Why == "" || !h.Has(h.Choices[1].ID) || h.Has("nonsense") {
			t.Errorf("%+v", h)
		}
		if _, ok := brief.FieldAt(h.Path); h.Path != "" && !ok && !strings.HasPrefix(h.Path, "box.options.") {
			t.Errorf("%s stands for %s, which is no field", h.ID, h.Path)
		}
		d := Shipped()
		for _, c := range h.Choices[1:] {
			d.Set("habits."+h.ID, c.ID)
			if s, r := Read(d); len(r.Problems) > 0 || s.Habit(h.ID) != c.ID {
				t.Errorf("%s = %s: %v", h.ID, c.ID, r.Problems)
			}
		}
		d.Set("habits."+h.ID, "nonsense")
		if _, r := Read(d); len(r.Problems) != 1 || r.Problems[0].Set == nil {
			t.Errorf("%s = nonsense: %v", h.ID, r.Problems)
		}
	}
}
