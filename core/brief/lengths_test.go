package brief

import (
	"fmt"
	"strings"
	"testing"

	"brevium/core/document"
	"brevium/core/measure"
)

// Lists of scores, as people write them.
func TestLengths(t *testing.T) {
	const in, mm = measure.Inch, measure.Millimetre
	for _, c := range []struct {
		text    string
		want    []measure.Length
		problem string
	}{
		{"2, 7", []measure.Length{2 * in, 7 * in}, ""},
		{"7;2", []measure.Length{2 * in, 7 * in}, ""},
		{"2 and 5 1/2", []measure.Length{2 * in, 11 * in / 2}, ""},
		{"2 & 7,", []measure.Length{2 * in, 7 * in}, ""},
		{"2\n7", []measure.Length{2 * in, 7 * in}, ""},
		{"2, 2, 2", []measure.Length{2 * in}, ""},
		{"3/4 both", []measure.Length{3 * in / 4, 33 * in / 4}, ""},
		{"10 mm, 2 cm both", []measure.Length{10 * mm, 20 * mm, 9*in - 20*mm}, ""},
		{"", nil, ""}, {" , ; ", nil, ""},
		{"2, seven", nil, "not a length"},
		{"0", nil, "can't be 0"},
		{"-1", nil, "A score"},
		{"both", nil, "A score"},
	} {
		b := New("in")
		r := NewReader(&b)
		got, ok := r.Lengths("across", Text(c.text), 9*in)
		says := ""
		if len(r.Problems) > 0 {
			says = r.Problems[0].Text
		}
		if ok != (c.problem == "") || ok && fmt.Sprint(got) != fmt.Sprint(c.want) || !strings.Contains(says, c.problem) {
			t.Errorf("%q: %v, %v, %q", c.text, got, ok, says)
		}
	}
}

// Fields of a list of scores are reached by their paths, and survive a document.
func TestScoredFields(t *testing.T) {
	b := NewScores()
	if !b.Set("box.pieces.1.across", "1 both") || b.Get("box.pieces.1.across") != "1 both" ||
		!b.Set("box.stated.depth", "2 in") {
		t.Error("a field of a list can't be set")
	}
	if b.Set("box.pieces.2.across", "1") || b.Set("box.pieces.x.across", "1") || b.Get("box.pieces.9.name") != "" {
		t.Error("a piece that is not there was set")
	}
	again, err := Decode(b.Encode())
	if err != nil || string(again.Encode()) != string(b.Encode()) {
		t.Errorf("it came back different: %v", err)
	}
	mine := map[string]document.Typed{"box.pieces.0.width": typed("10 in", "9 in"), "box.pieces.1.across": typed("1/2 both", "1 both")}
	newest := b.Clone()
	newest.Set("box.pieces.0.width", "11 in")
	if out, conflicts := Form.Merge(newest, mine); len(conflicts) != 1 ||
		conflicts[0].Field != "box.pieces.0.width" || out.Get("box.pieces.0.width") != "11 in" {
		t.Errorf("two windows: %v", conflicts)
	}
}
