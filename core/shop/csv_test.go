package shop

import (
	"bytes"
	"reflect"
	"strings"
	"testing"

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
	_, err := ReadCSV(strings.NewReader("title;gsm;caliper\nGood;300;\nBad;9000;\nWorse;;9 mm\nGood;200;\n"), have, measure.Millimetres)
	if err == nil || !strings.Contains(err.Error(), "line 3:") || !strings.Contains(err.Error(), "line 4:") ||
		!strings.Contains(err.Error(), "line 5: it is the same card as line 2") {
		t.Errorf("%v", err)
	}
	got, err := ReadCSV(strings.NewReader("title,caliper,retired\n\"kraft, 300 gsm\",0.41 mm,yes\nHedge board,0.6 mm,no\n"), have, measure.Inches)
	if err != nil || len(got) != len(have)+1 || got[3].Caliper != "0.41 mm" || got[3].Retired != "yes" || got[3].ID != "kraft-300" ||
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
