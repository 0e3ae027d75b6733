package bench_test

import (
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/readings"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
)

// A sleeve, strap or cover formed on the box is cut longer by what its step says is trimmed, on the
// sheet, in the cut list and on its card; nobody scores it before; the rest of the box is as it was.
func TestFormedOnTheBox(t *testing.T) {
	for family, name := range map[string]string{"sleeve-drawer": "sleeve", "flap-box": "band", "book-wrap": "strap",
		"wrap-cover": "base cover", "fold-flat": "cover"} {
		b := tried.Metric(family, 96, 70, 44, "tools.wraps", "formed")
		if name == "band" {
			b.Set("box.options.closure", "band")
		}
		p := advice.Make(b, request.Default)
		if !p.Holds() {
			t.Fatal(family, p.Problems, tried.Said(p))
		}
		piece := p.Box.Piece(name)
		cut := p.Blanks(piece, p.Copies)[0]
		if off := cut.W + cut.H - piece.Width - piece.Height; off != 12*measure.Millimetre {
			t.Errorf("%s: the %s is cut %v longer", family, name, off)
		}
		form := tried.StepOf(p, "stick:"+name)
		if form.Title != bench.FormOn || !strings.Contains(form.Says[0], "12 mm too long") {
			t.Errorf("%s: %s %v", family, form.Title, form.Says)
		}
		for _, s := range p.Guide.Steps {
			if s.Piece == name && (s.Title == "Score" || s.Title == "Mitre") {
				t.Errorf("%s: %s before it is wrapped", family, s.ID)
			}
		}
		card := p.Guide.Cards[slices.IndexFunc(p.Guide.Cards, func(c bench.ScoreCard) bool { return c.Piece == name })]
		if !strings.Contains(card.Says[0], p.Say(max(cut.W, cut.H))) || !strings.Contains(card.Says[0], "form it on the box") {
			t.Errorf("%s: its card says %s", family, card.Says[0])
		}
	}
}

// Round corners are punched with the punch that is owned; without one they are drawn and cut.
func TestRoundCornersByHand(t *testing.T) {
	for punches, want := range map[string]string{"": "coin or lid 10 mm across", "corner 4 mm": "4 mm corner punch"} {
		b := tried.Dressed(tried.Metric("tray-lid", 90, 70, 40, "tools.punches", punches), `{"layers": [{"on": "lid/top", "corners": "round"}]}`)
		if p := advice.Make(b, request.Default); !p.Holds() || !strings.Contains(strings.Join(p.Dressed.Flat, " "), want) {
			t.Errorf("%q: %v %s %v", punches, p.Problems, tried.Said(p), p.Dressed)
		}
	}
}

// Who has no scoring board measures from one edge and marks both ends; who has no trimmer draws
// her cuts; who has no bone folder presses with something else. What she doesn't own is named
// nowhere: not on the score cards, not in the steps, not among what to lay out.
func TestOtherHands(t *testing.T) {
	none := map[string][]string{
		"tools.scoring=ruler":    {"fence", "groove", "scoring board", "Turn so", "Turn half", "Turn a quarter, ", "spacer"},
		"tools.cutting=scissors": {"the stop", "against it", "rotary", "trimmer and", "set the trimmer", "behind the guard"},
		"tools.folder=none":      {"bone folder"},
	}
	says := map[string]string{"tools.scoring=ruler": "Lay the ruler through each pair of marks", "tools.cutting=scissors": "draw a line",
		"tools.folder=none": "back of a spoon"}
	for _, s := range style.Styles {
		for tool, words := range none {
			field, choice, _ := strings.Cut(tool, "=")
			b := tried.Metric(s.ID, 90, 70, 40, "card.join", "yes")
			if s.ID == "corner-shells" {
				b.Size.Length = "70 mm"
			} else if s.ID == "arched-box" {
				b.Size.Depth = "70 mm"
			}
			b.Set(field, choice)
			p := advice.Make(b, request.Default)
			if !p.Holds() {
				t.Fatalf("%s, %s: %v %s", s.ID, tool, p.Problems, tried.Said(p))
			}
			text := strings.Join(readings.Supplies(p), "; ")
			for _, step := range p.Guide.Steps {
				text += "\n" + strings.Join(step.Says, " ") + step.Caution()
				for _, f := range step.Frames {
					text += "\n" + f.Says
				}
			}
			for _, c := range p.Guide.Cards {
				text += "\n" + strings.Join(c.Says, " ")
				for _, turn := range c.Turns {
					if choice == "ruler" && turn.Edge != "left" && turn.Edge != "top" {
						t.Errorf("%s: the %s is measured from the %s edge", s.ID, c.Piece, turn.Edge)
					}
				}
			}
			for _, word := range words {
				if i := strings.Index(text, word); i >= 0 {
					t.Errorf("%s, %s: %q is told: …%s", s.ID, tool, word, text[max(0, i-60):min(len(text), i+60)])
				}
			}
			if !strings.Contains(text, says[tool]) && (tool != "tools.scoring=ruler" || len(p.Guide.Cards[0].Turns) > 0) {
				t.Errorf("%s, %s: it doesn't say %q", s.ID, tool, says[tool])
			}
		}
	}
}

// The makers' schools are seen in the steps: burnished before or after it is cut, dressed flat or
// when it stands, taped or glued.
func TestSchoolsAreSeen(t *testing.T) {
	order := func(pairs ...string) (titles []string, text string) {
		b := tried.Metric("tray-lid", 90, 70, 40, pairs...)
		b.Dress.Layers = []brief.Layer{{On: "lid", Border: "3 mm"}}
		for _, s := range advice.Make(b, request.Default).Guide.Steps {
			titles, text = append(titles, s.Title), text+strings.Join(s.Says, " ")
		}
		return titles, text
	}
	at := func(titles []string, title string) int {
		for i, of := range titles {
			if of == title {
				return i
			}
		}
		return -1
	}
	after, taped := order()
	before, glued := order("tools.burnish", "before", "tools.dressing", "standing", "tools.adhesive", "glue")
	if at(after, "Fold and burnish") < at(after, "Cut") || at(before, "Fold and burnish") > at(before, "Cut") {
		t.Errorf("burnished: %v, %v", after, before)
	}
	if at(after, "Decorate while flat") > at(after, "Stick") || at(before, "Decorate while flat") >= 0 ||
		at(before, "Decorate when it stands") < at(before, "Stick") {
		t.Errorf("dressed: %v, %v", after, before)
	}
	if !strings.Contains(taped, "tape") || strings.Contains(taped, "wet glue") || !strings.Contains(glued, "wet glue") ||
		at(before, "Let it dry") < 0 || at(after, "Let it dry") >= 0 {
		t.Errorf("stuck: %v, %v", after, before)
	}
}
