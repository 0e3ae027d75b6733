package contents

import (
	"bytes"
	"fmt"
	"math/rand/v2"
	"reflect"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/measure"
)

const mm = measure.Millimetre

func read(t *testing.T, items ...brief.Item) (*brief.Brief, *brief.Reader, []Thing) {
	t.Helper()
	b := brief.New("mm")
	b.Contents = items
	r := brief.NewReader(&b)
	things, ok := Read(&b, r)
	if !ok {
		t.Fatal(r.Problems)
	}
	return &b, r, things
}

// Worked by hand: the box each thing is reckoned as, and the ways it may rest.
func TestThings(t *testing.T) {
	cases := []struct {
		name string
		item brief.Item
		size Size
		ways string
	}{
		{"a block as measured", brief.Item{Shape: "block", Length: "50", Width: "40", Height: "30"},
			Size{50 * mm, 40 * mm, 30 * mm}, "h"},
		{"a marker on any side", brief.Item{Shape: "block", Length: "146", Width: "16", Height: "3", Lie: "yes",
			Stand: "yes"}, Size{146 * mm, 16 * mm, 3 * mm}, "hwl"},
		{"a card, decorated", brief.Item{Shape: "flat", Length: "140", Width: "108", Thickness: "1",
			Decorated: "4"}, Size{140 * mm, 108 * mm, 4 * mm}, "hwl"},
		{"in its envelope", brief.Item{Shape: "flat", Length: "140", Width: "108", Thickness: "1",
			Envelope: "yes"}, Size{146 * mm, 114 * mm, 5 * mm / 2}, "hwl"},
		{"a packet that must stand", brief.Item{Shape: "flat", Length: "114", Width: "82", Thickness: "6",
			Lie: "no"}, Size{114 * mm, 82 * mm, 6 * mm}, "wl"},
		{"a jar", brief.Item{Shape: "cylinder", Diameter: "54", Height: "68", Lie: "yes", Liquid: "yes"},
			Size{54 * mm, 54 * mm, 68 * mm}, "h"},
		{"a tin that may lie", brief.Item{Shape: "cylinder", Diameter: "54", Height: "68", Lie: "yes"},
			Size{54 * mm, 54 * mm, 68 * mm}, "hl"},
		{"a tin that may not stand", brief.Item{Shape: "cylinder", Diameter: "54", Height: "68", Stand: "no"},
			Size{54 * mm, 54 * mm, 68 * mm}, "l"},
		{"a disc that may not lie", brief.Item{Shape: "cylinder", Diameter: "54", Height: "8", Lie: "no"},
			Size{54 * mm, 54 * mm, 8 * mm}, "l"},
		{"a block that may not lie", brief.Item{Shape: "block", Length: "50", Width: "40", Height: "30", Lie: "no"},
			Size{50 * mm, 40 * mm, 30 * mm}, "wl"},
		{"a block that may not stand", brief.Item{Shape: "block", Length: "20", Width: "40", Height: "30", Stand: "no"},
			Size{20 * mm, 40 * mm, 30 * mm}, "l"},
		{"a ball", brief.Item{Shape: "ball", Diameter: "70"}, Size{70 * mm, 70 * mm, 70 * mm}, "h"},
		{"a towel, pressed", brief.Item{Shape: "soft", Length: "130", Width: "100", Height: "40", Press: "12"},
			Size{130 * mm, 100 * mm, 28 * mm}, "h"},
	}
	for _, c := range cases {
		c.item.Name, c.item.Count = "thing", "1"
		_, _, things := read(t, c.item)
		ways := ""
		for _, w := range things[0].Ways() {
			ways += w.ID
		}
		if things[0].Size != c.size || ways != c.ways {
			t.Errorf("%s: %v, ways %s; want %v, %s", c.name, things[0].Size, ways, c.size, c.ways)
		}
	}
}

// What may not lie or stand never does, and where no way is left that is said, with what would help.
func TestRestsAsAllowed(t *testing.T) {
	flags := []brief.Flag{"", "yes", "no"}
	for _, shape := range Shapes {
		for n := range 3 * 3 * 2 * 2 {
			item := brief.Item{Name: "thing", Shape: brief.Text(shape.ID), Count: "1", Length: "50", Width: "40", Height: "30",
				Thickness: "8", Diameter: "35", Lie: flags[n%3], Stand: flags[n/3%3]}
			if n/9%2 == 1 {
				item.Upright = "yes"
			}
			if n/18 == 1 {
				item.Height = "60"
			}
			b := brief.New("mm")
			b.Contents = []brief.Item{item}
			r := brief.NewReader(&b)
			things, ok := Read(&b, r)
			if !ok {
				for field, text := range r.Problems[0].Set.All() {
					b.Set(field, text)
				}
				if _, ok = Read(&b, brief.NewReader(&b)); !ok || len(r.Problems[0].Set) == 0 {
					t.Errorf("%+v: %+v", item, r.Problems)
				}
				continue
			}
			for _, w := range things[0].Ways() {
				if w.lies && item.Lie == "no" || w.stand && item.Stand == "no" || w.ID != "h" && item.Upright == "yes" {
					t.Errorf("%+v may rest %s", item, w.Says)
				}
			}
		}
	}
}

func TestBadThings(t *testing.T) {
	good := brief.Item{Name: "jar", Shape: "cylinder", Diameter: "54", Height: "68", Count: "1"}
	for _, c := range []struct{ field, text, says string }{
		{"neck-diameter", "60", "narrower than the body"}, {"neck-height", "5", "narrower"},
		{"mass", "heavy", "isn't a weight"}, {"mass", "-3 g", "isn't a weight"},
		{"stack", "0", "at least 1"}, {"stack", "many", "whole number"},
		{"food", "perhaps", "isn't yes or no"}, {"height", "0", "can't be 0"},
		{"shape", "heart", "doesn't know the shape"},
	} {
		b := brief.New("mm")
		b.Contents = []brief.Item{good}
		b.Set("contents.0."+c.field, c.text)
		r := brief.NewReader(&b)
		if _, ok := Read(&b, r); ok || !strings.Contains(r.Problems[0].Text, c.says) {
			t.Errorf("%s = %q: %+v", c.field, c.text, r.Problems)
		}
	}
}

// The room each kind of thing gets when nobody says, worked by hand.
func TestRoom(t *testing.T) {
	cases := []struct {
		item    brief.Item
		divided bool
		want    Room
	}{
		{brief.Item{Shape: "block", Length: "50", Width: "40", Height: "30"}, false, Room{Around: 3 * mm, Above: mm}},
		{brief.Item{Shape: "block", Length: "50", Width: "40", Height: "30"}, true, Room{Around: 3 * mm, Above: mm, Between: mm}},
		{brief.Item{Shape: "cylinder", Diameter: "54", Height: "68", Fragile: "yes"}, false,
			Room{Around: 3 * mm, Above: mm, Between: 3 * mm, Padding: 3 * mm, Below: 6 * mm}},
		{brief.Item{Shape: "flat", Length: "114", Width: "82", Thickness: "6", Lie: "no"}, false,
			Room{Around: 6 * mm, Above: mm}},
		{brief.Item{Shape: "ball", Diameter: "40", Food: "yes"}, false, Room{Around: 3 * mm, Above: mm, Below: mm}},
	}
	for i, c := range cases {
		c.item.Name, c.item.Count = "thing", "1"
		b, r, things := read(t, c.item)
		got := ReadRoom(b, r, things, c.divided)
		if len(got.Says) < 2 {
			t.Errorf("%d: the defaults are not said: %v", i, got.Says)
		}
		if got.Says = nil; !reflect.DeepEqual(got, c.want) {
			t.Errorf("%d: %+v, want %+v", i, got, c.want)
		}
	}
	b, r, things := read(t, brief.Item{Name: "x", Shape: "ball", Diameter: "40", Count: "1"})
	b.Room = brief.Room{Around: "1/2 in", Below: "20", Proud: "5"}
	if got := ReadRoom(b, r, things, false); got.Around != measure.Inch/2 || got.Below != 20*mm || got.Proud != 5*mm {
		t.Errorf("given room %+v", got)
	}
}

// Arrangements worked by hand.
func TestArrangements(t *testing.T) {
	cases := []struct {
		name    string
		item    brief.Item
		divided bool
		id      string
		need    Size // of the arrangement of that name
	}{
		{"six bulbs, three by two, divided", brief.Item{Shape: "ball", Diameter: "40", Count: "6"}, true, "0h3x2x1./",
			// three of 40, two gaps of 2.3 and twice 3; two of 40, one gap, twice 3
			Size{120*mm + 46*mm/10 + 6*mm, 80*mm + 23*mm/10 + 6*mm, 41 * mm}},
		{"twelve packets standing in a row", brief.Item{Shape: "flat", Length: "114", Width: "82",
			Thickness: "6", Lie: "no", Stack: "1", Count: "12"}, false, "0w1x12x1./",
			Size{114*mm + 12*mm, 72*mm + 12*mm, 83 * mm}},
		{"two tins in a pile", brief.Item{Shape: "cylinder", Diameter: "85", Height: "40", Stack: "2",
			Count: "2"}, false, "0h1x1x2./", Size{91 * mm, 91 * mm, 81 * mm}},
		{"five balls staggered, three and two", brief.Item{Shape: "ball", Diameter: "40", Count: "5"}, false, "0h3x2x1s./",
			Size{126 * mm, 80*mm + 6*mm - (40*mm - 3465*mm/100), 41 * mm}},
	}
	for _, c := range cases {
		c.item.Name = "thing"
		b, r, things := read(t, c.item)
		q := Request{Things: things, Room: ReadRoom(b, r, things, c.divided), Divided: c.divided, Caliper: 3 * mm / 10}
		found := false
		for _, l := range Arrangements(q) {
			if l.ID == c.id {
				found = true
				if l.Need != c.need {
					t.Errorf("%s needs %+v, want %+v", c.name, l.Need, c.need)
				}
			}
		}
		if !found {
			t.Errorf("%s: no arrangement %s", c.name, c.id)
		}
	}
}

func randomThing(r *rand.Rand) Thing {
	size := func(low, high int) Length { return Length(low+r.IntN(high-low)) * mm }
	shape := []string{"block", "flat", "cylinder", "ball", "soft"}[r.IntN(5)]
	t := Thing{Name: "thing", Shape: shape, Count: 1 + r.IntN(9), Stack: 1 + r.IntN(4), Lie: Leave(r.IntN(2)),
		Stand: Leave(r.IntN(2)), Grams: float64(r.IntN(300))}
	t.Size = Size{size(20, 90), size(20, 90), size(4, 60)}
	if t.Round() {
		t.Size.Width = t.Size.Length
	}
	if shape == "ball" {
		t.Size.Height = t.Size.Length
	}
	return t
}

func randomRequest(r *rand.Rand) Request {
	q := Request{Caliper: 3 * mm / 10, Divided: r.IntN(2) == 0,
		Room: Room{Around: Length(r.IntN(8)) * mm, Padding: Length(r.IntN(3)) * mm,
			Between: Length(r.IntN(4)) * mm, Below: Length(r.IntN(8)) * mm, Above: mm}}
	q.Slotted = q.Divided && r.IntN(2) == 0
	for range 1 + r.IntN(5) {
		q.Things = append(q.Things, randomThing(r))
	}
	return q
}

// In every arrangement all things are there, none stands in another, all lie
// inside with their room, and no divider runs through one.
func TestArrangementsAreSound(t *testing.T) {
	r := rand.New(rand.NewPCG(21, 22))
	for range 400 {
		q := randomRequest(r)
		side := q.Room.side()
		for _, l := range Arrangements(q) {
			count := make([]int, len(q.Things))
			for _, s := range l.Stacks {
				count[s.Thing] += s.Count
				if s.At.Length < side || s.At.Width < side || s.At.Length+s.Each.Length+side > l.Need.Length ||
					s.At.Width+s.Each.Width+side > l.Need.Width ||
					s.At.Height+Length(s.Count)*s.Each.Height+q.Room.Above > l.Need.Height || s.Count > q.Things[s.Thing].Stack {
					t.Fatalf("%s: a stack stands out: %+v of %+v", l.ID, s, l.Need)
				}
				for _, x := range l.Across {
					if x+q.Caliper/2 > s.At.Length && x-q.Caliper/2 < s.At.Length+s.Each.Length {
						t.Fatalf("%s: a divider at %d runs through %+v", l.ID, x, s)
					}
				}
				for _, y := range l.Along {
					if y+q.Caliper/2 > s.At.Width && y-q.Caliper/2 < s.At.Width+s.Each.Width {
						t.Fatalf("%s: a divider at %d runs through %+v", l.ID, y, s)
					}
				}
			}
			for i, thing := range q.Things {
				if count[i] != thing.Count {
					t.Fatalf("%s: %d of %d %s", l.ID, count[i], thing.Count, thing.Shape)
				}
			}
			if a, b, met := l.Overlap(); met {
				t.Fatalf("%s: thing %d stands in thing %d", l.ID, a, b)
			}
			if q.Slotted && len(l.Short) > 0 {
				t.Fatalf("%s: slotted dividers don't run straight", l.ID)
			}
		}
	}
}

// One more of a kind never takes less card.
func TestMoreNeverShrinks(t *testing.T) {
	r := rand.New(rand.NewPCG(23, 24))
	for range 150 {
		q := randomRequest(r)
		q.Things = q.Things[:1]
		last := 0.0
		for n := 1; n <= 14; n++ {
			q.Things[0].Count = n
			card := Arrangements(q)[0].Card()
			if card < last-1e-6 {
				t.Fatalf("%d of %+v take %.1f mm², one fewer %.1f", n, q.Things[0], card, last)
			}
			last = card
		}
	}
}

// What an inside is said to take does fit it, and staggering only ever helps.
func TestCapacity(t *testing.T) {
	ball := Thing{Name: "ball", Shape: "ball", Size: Size{40 * mm, 40 * mm, 40 * mm}, Stack: 1}
	for _, c := range []struct {
		inside Size
		want   int
	}{
		{Size{126 * mm, 86 * mm, 45 * mm}, 6}, {Size{126 * mm, 81 * mm, 45 * mm}, 5},
		{Size{45 * mm, 45 * mm, 45 * mm}, 0}, {Size{46 * mm, 46 * mm, 41 * mm}, 1},
	} {
		if got, says := Capacity(ball, Room{Around: 3 * mm, Above: mm}, c.inside); got != c.want {
			t.Errorf("%v takes %d (%s), want %d", c.inside, got, says, c.want)
		}
	}
	r := rand.New(rand.NewPCG(25, 26))
	for range 300 {
		q := randomRequest(r)
		q.Things, q.Divided, q.Slotted = q.Things[:1], false, false
		l := Arrangements(q)[0]
		if got, _ := Capacity(q.Things[0], q.Room, l.Need); got < q.Things[0].Count {
			t.Fatalf("room made for %d of %+v is said to take %d", q.Things[0].Count, q.Things[0], got)
		}
	}
}

func TestCSV(t *testing.T) {
	var b bytes.Buffer
	if err := WriteCSV(&b, Usual); err != nil {
		t.Fatal(err)
	}
	got, err := ReadCSV(&b)
	if err != nil || !reflect.DeepEqual(got, Usual) {
		t.Errorf("the library comes back as %+v, %v", got, err)
	}
	got, err = ReadCSV(strings.NewReader("\ufeffName;Diameter;Shape;Food\ntin; 85 mm ;cylinder;x\n;;;\n"))
	if err != nil || len(got) != 1 || got[0].Diameter != "85 mm" || got[0].Food != "yes" || got[0].Count != "1" {
		t.Errorf("semicolons: %+v, %v", got, err)
	}
	for list, says := range map[string]string{
		"": "empty", "colour,name\nred,tin": `"colour"`, "name,name\na,b": "twice",
		"shape\nball": "must be name", "name\n": "no things", "name,shape\na\n": "line 2",
		"name\n" + strings.Repeat("x\n", 30): "24 kinds", strings.Repeat("x", mostCSV+1): "larger than",
	} {
		if _, err := ReadCSV(strings.NewReader(list)); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%.20q: %v, want %q", list, err, says)
		}
	}
}

// A list that is read, written and read again is the same list.
// Cells that a spreadsheet could take for a formula are marked, wherever it may
// part them, and every text comes back to the letter.
func TestCSVComesBack(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 3))
	letters := []rune("a =+-@';,\t\n\" é")
	for range 3_000 {
		text := make([]rune, r.IntN(9))
		for i := range text {
			text[i] = letters[r.IntN(len(letters))]
		}
		item := brief.Item{Name: brief.Text("x" + string(text)), Mass: brief.Text(text), Shape: "block", Count: "1"}
		var b strings.Builder
		if err := WriteCSV(&b, []brief.Item{item}); err != nil {
			t.Fatal(err)
		}
		for _, comma := range ",;" {
			for cell := range strings.SplitSeq(b.String(), string(comma)) {
				if cell = strings.Trim(cell, "\" \u00a0\t\r\n"); comma == ';' && cell != "" &&
					strings.ContainsRune("=+-@", rune(cell[0])) {
					t.Fatalf("%q: a spreadsheet may reckon %q", text, cell)
				}
			}
		}
		got, err := ReadCSV(strings.NewReader(b.String()))
		if err != nil || got[0] != item {
			t.Fatalf("%q came back as %+v, %v", text, got, err)
		}
	}
}

func FuzzCSV(f *testing.F) {
	f.Add("name,shape,count,length\nseed packet,flat,6,4 1/2 in\n")
	f.Add("name;stack\n'=1+1;3\n")
	f.Fuzz(func(t *testing.T, list string) {
		items, err := ReadCSV(strings.NewReader(list))
		if err != nil {
			return
		}
		var b bytes.Buffer
		if err := WriteCSV(&b, items); err != nil {
			t.Fatal(err)
		}
		text := b.String()
		again, err := ReadCSV(&b)
		if err != nil || fmt.Sprint(again) != fmt.Sprint(items) {
			t.Fatalf("%q\nis written\n%q\nand read as %v, %v", items, text, again, err)
		}
	})
}

func BenchmarkArrangements(b *testing.B) {
	r := rand.New(rand.NewPCG(1, 1))
	q := Request{Caliper: 3 * mm / 10, Room: Room{Around: 3 * mm}}
	for range 24 {
		q.Things = append(q.Things, randomThing(r))
	}
	for b.Loop() {
		if len(Arrangements(q)) == 0 {
			b.Fatal()
		}
	}
}
