package plan

import (
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/style"
)

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
			b := metric(s.ID, 90, 70, 40, "card.join", "yes")
			if s.ID == "corner-shells" {
				b.Size.Length = "70 mm"
			} else if s.ID == "arched-box" {
				b.Size.Depth = "70 mm"
			}
			b.Set(field, choice)
			p := Make(b, Default)
			if !p.Holds() {
				t.Fatalf("%s, %s: %v %s", s.ID, tool, p.Problems, said(p))
			}
			text := strings.Join(p.Supplies(), "; ")
			for _, step := range p.Steps {
				text += "\n" + strings.Join(step.Says, " ") + step.Caution()
				for _, f := range step.Frames {
					text += "\n" + f.Says
				}
			}
			for _, c := range p.Cards {
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
			if !strings.Contains(text, says[tool]) && (tool != "tools.scoring=ruler" || len(p.Cards[0].Turns) > 0) {
				t.Errorf("%s, %s: it doesn't say %q", s.ID, tool, says[tool])
			}
		}
	}
}

// The makers' schools are seen in the steps: burnished before or after it is cut, dressed flat or
// when it stands, taped or glued.
func TestSchoolsAreSeen(t *testing.T) {
	order := func(pairs ...string) (titles []string, text string) {
		b := metric("tray-lid", 90, 70, 40, pairs...)
		b.Dress.Layers = []brief.Layer{{On: "lid", Border: "3 mm"}}
		for _, s := range Make(b, Default).Steps {
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
	if at(after, "Dress while flat") > at(after, "Stick") || at(before, "Dress while flat") >= 0 ||
		at(before, "Dress when it stands") < at(before, "Stick") {
		t.Errorf("dressed: %v, %v", after, before)
	}
	if !strings.Contains(taped, "tape") || strings.Contains(taped, "wet glue") || !strings.Contains(glued, "wet glue") ||
		at(before, "Let it dry") < 0 || at(after, "Let it dry") >= 0 {
		t.Errorf("stuck: %v, %v", after, before)
	}
}
