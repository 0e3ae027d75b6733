package box

import (
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/stock"
)

const in = measure.Inch

// job is a job in sixteenths on 0.27 mm card, stuck with tape.
func job(given *Dims, options ...string) *Job {
	b := brief.New("in")
	for i := 0; i+1 < len(options); i += 2 {
		b.Set("box.options."+options[i], options[i+1])
	}
	card, _ := stock.Default.Card("cover-216")
	return &Job{Reader: brief.NewReader(&b), Card: card, Adhesive: fit.Adhesives[0], Slack: fit.Slack["snug"],
		Given: given, Need: Dims{4 * in, 3 * in, in}, Options: b.Box.Options, style: trayLid, settled: map[string]Length{}}
}

// The lid's wall from the ways of saying it, on a base wall of 2 in.
func TestLidWall(t *testing.T) {
	cases := []struct {
		options string
		want    Length
		problem string
	}{
		{"", in * 3 / 4, ""}, {"lid=full", 2 * in, ""}, {"lid=full,lid-height=1 in", 2 * in, ""},
		{"lid-height=1 in", in, ""}, {"reveal=1/2 in", in * 3 / 2, ""}, {"reveal=1/2 in,lid-height=1 1/2 in", in * 3 / 2, ""},
		{"reveal=1/2 in,lid-height=1 in", in, "don't make up"}, {"lid-height=3 in", 3 * in, "deeper than"}, {"reveal=2 in", in * 3 / 4, "leaves no lid"},
		{"lid-height=words", in * 3 / 4, "not a length"}, {"lid=round", in * 3 / 4, `can't be "round"`},
	}
	for _, c := range cases {
		var pairs []string
		for _, o := range strings.Split(c.options, ",") {
			id, text, _ := strings.Cut(o, "=")
			if id != "" {
				pairs = append(pairs, id, text)
			}
		}
		j := job(nil, pairs...)
		got := j.lidWall(2 * in)
		says := ""
		if len(j.Problems) > 0 {
			says = j.Problems[0].Text
		}
		if got != c.want || !strings.Contains(says, c.problem) || c.problem == "" && says != "" {
			t.Errorf("%s: %s, %q; want %s, %q", c.options, got.Exact("in"), says, c.want.Exact("in"), c.problem)
		}
	}
}

// Needed room is never cut short and lands on the marks; a given size is taken
// to the letter.
func TestSize(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 1))
	for range 500 {
		j := job(nil)
		l := func() Length { return Length(r.Int64N(int64(10 * in))) }
		j.Need = Dims{l(), l(), l()}
		taken := Dims{l() / 50, l() / 50, l() / 50}
		got := j.Size(taken)
		for _, d := range [][3]Length{{got.Length, j.Need.Length, taken.Length}, {got.Width, j.Need.Width, taken.Width}, {got.Depth, j.Need.Depth, taken.Depth}} {
			if spare := d[0] - d[1] - d[2]; spare < 0 || spare >= in/16 || d[0]%(in/16) != 0 {
				t.Fatalf("%d for %d and %d taken", d[0], d[1], d[2])
			}
		}
		given := Dims{l(), l(), l()}
		if j.Given = &given; j.Size(taken) != given {
			t.Fatal("a given size was changed")
		}
	}
}

// Two tabs share a wall: however they are shaped, neither passes its middle,
// and each leaves card between its mitres.
func TestTabsShareAWall(t *testing.T) {
	r := rand.New(rand.NewPCG(2, 2))
	for range 500 {
		j := job(nil, "tabs", []string{"full", "half", "narrow"}[r.IntN(3)])
		d := Dims{Length(20+r.IntN(150)) * measure.Millimetre, 40 * measure.Millimetre, Length(10+r.IntN(90)) * measure.Millimetre}
		s := j.tab(d)
		if 2*s.Reach > d.Length-2*j.T() || s.Reach > d.Depth && s.Reach > j.Adhesive.Width.Up(in/16) || s.Mitre <= 0 {
			t.Fatalf("%+v for %+v", s, d)
		}
	}
}

func TestRegistry(t *testing.T) {
	seen := map[string]bool{}
	for _, s := range Styles {
		if s.ID == "" || s.Title == "" || s.About == "" || s.Build == nil || seen[s.ID] || Find(s.ID) != s {
			t.Errorf("%q is not told whole", s.ID)
		}
		seen[s.ID] = true
		for _, o := range s.Options {
			known := len(o.Choices) == 0
			for _, c := range o.Choices {
				known = known || c.ID == o.Default
			}
			if o.Label == "" || !known {
				t.Errorf("%s: the question %q has no sensible answer in it", s.ID, o.ID)
			}
		}
	}
	if Find("sphere") != nil {
		t.Error("a sphere was found")
	}
}
