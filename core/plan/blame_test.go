package plan_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
)

// What is too large for the largest card is blamed on the thing that is so
// large, by a measure it has.
func TestTheGuiltyThingIsBlamed(t *testing.T) {
	for _, c := range []struct {
		things []brief.Item
		field  string
	}{
		{[]brief.Item{{Shape: "block", Length: "60 mm", Width: "40 mm", Height: "30 mm"}, {Shape: "ball", Diameter: "260 mm"}},
			"contents.1.diameter"},
		{[]brief.Item{{Shape: "ball", Diameter: "260 mm"}, {Shape: "block", Length: "60 mm", Width: "40 mm", Height: "30 mm"}},
			"contents.0.diameter"},
		{[]brief.Item{{Shape: "ball", Diameter: "30 mm"}, {Shape: "cylinder", Diameter: "50 mm", Height: "400 mm",
			Upright: "yes"}}, "contents.1.height"},
		{[]brief.Item{{Shape: "ball", Diameter: "30 mm"}, {Shape: "block", Length: "30 mm", Width: "20 mm", Height: "10 mm"},
			{Shape: "flat", Length: "700 mm", Width: "100 mm", Thickness: "2 mm"}}, "contents.2.length"},
	} {
		for _, s := range style.Styles {
			b := tried.Sized("1", "1", "1", "box.style", s.ID, "card.sheet", "a4")
			b.Size, b.Contents = nil, slices.Clone(c.things)
			for i := range b.Contents {
				b.Contents[i].Name, b.Contents[i].Count = brief.Text(fmt.Sprint("thing ", i)), "1"
			}
			p := advice.Make(b, request.Default)
			if p.Holds() && len(p.Layout.TooBig) == 0 {
				t.Fatalf("%s: %v fits on A4", s.ID, c.things)
			}
			for _, pr := range p.Problems {
				field, _ := brief.FieldAt(pr.Field)
				_, ok := s.Ask(strings.TrimPrefix(pr.Field, "box.options."))
				if _, known := brief.FieldAt(pr.Field); !known && !ok ||
					strings.HasPrefix(pr.Field, "contents.") && pr.Field != c.field {
					t.Errorf("%s: %q blames %q %+v, not %s", s.ID, pr.Text, pr.Field, field, c.field)
				}
			}
		}
	}
}

// Where nothing is left within the walls of all that stands proud of them, that is to blame.
func TestProudIsBlamed(t *testing.T) {
	for _, s := range style.Styles {
		b := tried.Sized("1", "1", "1", "box.style", s.ID, "card.sheet", "a3", "room.proud", "99 in")
		b.Size = nil
		b.Contents = []brief.Item{{Name: "bulb", Shape: "ball", Diameter: "42 mm", Count: "1"},
			{Name: "marker", Shape: "block", Length: "44 mm", Width: "16 mm", Height: "3 mm", Count: "6"}}
		for _, pr := range advice.Make(b, request.Default).Problems {
			if pr.Field != "room.proud" || strings.Contains(pr.Fix, "deeper") {
				t.Errorf("%s: %q blames %q: %s", s.ID, pr.Text, pr.Field, pr.Fix)
			}
		}
	}
}

// A small box that is too low is blamed on how high the things are, not on how long.
func TestLowSmallBoxesAreBlamed(t *testing.T) {
	for _, id := range []string{"cross-fold", "strip-column"} {
		b := tried.Sized("1", "1", "1", "box.style", id, "card.sheet", "a3")
		b.Size = nil
		b.Contents = []brief.Item{{Name: "marker", Shape: "block", Length: "44 mm", Width: "36 mm", Height: "3 mm", Count: "3", Stack: "1"}}
		p := advice.Make(b, request.Default)
		if len(p.Problems) == 0 {
			t.Fatalf("%s is made", id)
		}
		for _, pr := range p.Problems {
			if strings.Contains(pr.Fix, "deeper") != (pr.Field == "contents.0.height") {
				t.Errorf("%s: %q blames %q: %s", id, pr.Text, pr.Field, pr.Fix)
			}
		}
	}
}

// Four answers to no question are told in the same order every time.
func TestProblemsKeepTheirOrder(t *testing.T) {
	b := tried.Sized("120 mm", "90 mm", "40 mm", "box.options.hat", "large", "box.options.boots", "two", "box.options.wings", "none",
		"box.options.tail", "long", "box.options.tabs", "seventeen")
	told := func() (out []string) {
		p := advice.Make(b, request.Default)
		for _, pr := range p.Problems {
			out = append(out, pr.Field+": "+pr.Text)
		}
		for _, w := range p.Warnings {
			out = append(out, w.Code+": "+w.Text)
		}
		return out
	}
	first := told()
	if len(first) < 5 {
		t.Fatalf("%q", first)
	}
	for range 50 {
		if again := told(); !slices.Equal(first, again) {
			t.Fatalf("%q, then %q", first, again)
		}
	}
}

// Whatever a plan makes larger or smaller than the maker's own number, it says:
// a note with the piece, the figure and the reason.
func TestAllowancesAreNoted(t *testing.T) {
	for _, c := range []struct{ style, options, codes string }{
		{"tray-lid", "", "lid clearance"},
		{"tray-lid", "walls=rolled", "base roll, lid clearance"},
		{"hinged-lid", "", "box clearance"},
		{"flap-box", "", "box top"},
		{"flap-box", "closure=band", "band band, box top"},
		{"flap-box", "closure=tuck", ""},
		{"sleeve-drawer", "", "sleeve clearance"},
		{"gable-cap", "", "cap clearance"},
		{"wrap-cover", "", "lid cover round, tray roll"},
		{"fold-flat", "", "cover round"},
		{"corner-shells", "", "band band, shell clearance, tray roll"},
		{"chamfer-foot", "", "box root"},
		{"book-wrap", "", "case spine, strap round"},
		{"cross-fold", "", "box lid clearance, lid clearance"},
		{"strip-column", "", "cap clearance"},
	} {
		for _, allow := range []string{"card", "plain"} {
			b := tried.Sized("120 mm", "90 mm", "40 mm", "units", "mm", "tools.step", "1 mm", "card.sheet", "a3", "card.join", "yes",
				"box.style", c.style, "tools.allowances", allow)
			for o := range strings.FieldsSeq(c.options) {
				id, answer, _ := strings.Cut(o, "=")
				b.Set("box.options."+id, answer)
			}
			p := advice.Make(b, request.Default)
			if !p.OK() {
				t.Fatalf("%s: %s", c.style, tried.Said(p))
			}
			var codes []string
			for _, n := range p.Box.Notes {
				if p.Box.Piece(n.Piece) == nil || n.Text == "" || n.Figure == 0 {
					t.Errorf("%s, %s: %+v", c.style, allow, n)
				}
				codes = append(codes, fmt.Sprint(n.Piece, " ", n.Code))
			}
			slices.Sort(codes)
			if got := strings.Join(codes, ", "); allow == "card" && got != c.codes {
				t.Errorf("%s %s: %s, not %s", c.style, c.options, got, c.codes)
			}
		}
	}
}
