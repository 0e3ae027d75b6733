package wish_test

import (
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/shop"
	"brevium/core/wish"
	"brevium/internal/tried"
)

const mm = measure.Millimetre

// read reads a dressing with a shelf that has a card of each thickness: "c3" is three tenths of a millimetre.
func read(b brief.Brief) (*wish.Wish, *brief.Reader) {
	r := brief.NewReader(&b)
	card := func(id string, tenths measure.Length) shop.Card { return shop.Card{ID: id, Caliper: tenths * mm / 10} }
	return wish.Read(r, &b.Dress, wish.Shelf{Usual: func(part string) shop.Card { return card("usual "+part, 2) },
		Find: func(field, id string) (shop.Card, bool) {
			if len(id) == 2 && id[0] == 'c' {
				return card(id, measure.Length(id[1]-'0')), true
			}
			r.Problem(field, "There is no card "+id+".", "Choose another.")
			return shop.Card{}, false
		}}), r
}

// What layers and liners take of the room, worked by hand: on the floor, on each wall, under the cover; what lies on the
// walls that something goes over, in how many layers; and what lies on petals. In tenths of a millimetre.
func TestWhatLiesWhere(t *testing.T) {
	for _, c := range []struct {
		dress                     string
		floor, wall, cover        measure.Length
		skin, deep, papers, wrong measure.Length
	}{
		{`{}`, 0, 0, 0, 0, 0, 0, 0},
		{`{"layers": [{"on": "base/front", "stock": "c3"}, {"on": "lid", "stock": "c4"}]}`, 0, 0, 0, 3, 1, 0, 0},
		{`{"layers": [{"on": "all"}, {"on": "sides, top", "stock": "c5"}]}`, 0, 0, 0, 7, 2, 0, 0},
		{`{"layers": [{"on": "inside", "stock": "c3"}]}`, 3, 3, 3, 0, 0, 0, 0},
		{`{"layers": [{"on": "front", "inside": true, "stock": "c3"}]}`, 3, 3, 3, 3, 1, 0, 0},
		{`{"layers": [{"on": "petals", "stock": "c6"}]}`, 0, 0, 0, 0, 0, 6, 0},
		{`{"liners": [{"in": "floor", "layers": 2, "stock": "c4"}, {"in": "walls"}, {"in": "lid", "stock": "c1"}]}`, 8, 2, 1, 0, 0, 0, 0},
		{`{"liners": [{"in": "all", "layers": 3, "stock": "c1"}]}`, 3, 3, 3, 0, 0, 0, 0},
		{`{"liners": [{"in": "roof", "layers": 9, "stock": "felt"}]}`, 2, 0, 0, 0, 0, 0, 3},
		{`{"layers": [{"on": "top", "border": "wide"}], "scheme": {"second": "c7"}}`, 0, 0, 0, 0, 0, 0, 1},
		{`{"layers": [{"on": "sides"}], "scheme": {"second": "c7"}}`, 0, 0, 0, 7, 1, 0, 0},
	} {
		w, r := read(tried.Dressed(brief.New("mm"), c.dress))
		floor, wall, cover := w.Lined()
		skin, deep := w.Skin()
		got := [7]measure.Length{floor * 10 / mm, wall * 10 / mm, cover * 10 / mm, skin * 10 / mm, measure.Length(deep),
			w.Papers() * 10 / mm, measure.Length(len(r.Problems))}
		if want := [7]measure.Length{c.floor, c.wall, c.cover, c.skin, c.deep, c.papers, c.wrong}; got != want {
			t.Errorf("%s: %v, want %v: %v", c.dress, got, want, r.Problems)
		}
		if empty := len(c.dress) == 2; w.Empty() != empty {
			t.Errorf("%s: empty %v", c.dress, w.Empty())
		}
	}
}

// Left open, a dressing is as makers usually have it: in whole marks of the unit, and never of a card that isn't there.
// Whatever is typed, a problem names the field it was typed in, and its change mends it.
func TestReadsAnything(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 4))
	texts := []string{"", "", "", "none", "7", "0", "-2 mm", "3 mm", "yes", "no", "across", "heart", "c3", "felt", "9 m", "1/0", "all"}
	for range 3000 {
		b, set := brief.New("mm"), []string(nil)
		for _, f := range brief.Table {
			if strings.HasPrefix(f.Path, "dress.") && r.IntN(12) == 0 {
				path := strings.ReplaceAll(f.Path, "*", "0")
				b.Set(path, texts[r.IntN(len(texts))])
				set = append(set, path+"="+b.Get(path))
			}
		}
		w, report := read(b)
		for _, p := range report.Problems {
			if !b.Has(p.Field) || b.Get(p.Field) == "" {
				t.Fatalf("%v: a problem is told at %s, where nothing is: %s", set, p.Field, p.Text)
			}
			if _, again := read(b.With(p.Set)); len(p.Set) > 0 && len(again.Problems) >= len(report.Problems) {
				t.Fatalf("%v: %v doesn't mend %q", set, p.Set, p.Text)
			}
		}
		for _, l := range w.Lines() {
			if l.Layers < 1 || l.Card.ID == "" || l.Less < 0 {
				t.Fatalf("%v: %+v", set, l)
			}
		}
	}
}
