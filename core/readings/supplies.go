package readings

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/dress"
	"brevium/core/plan"
	"brevium/core/words"
)

// PanelRef is the name by which a panel is asked for in a document: without blanks.
func PanelRef(part, face string) string { return strings.ReplaceAll(part+"/"+face, " ", "-") }

// supplySays tells what is to be bought, for all copies.
func supplySays(p *plan.Plan, s dress.Supply) string {
	switch {
	case s.Text != "" && p.Copies > 1 && !s.Tool:
		return fmt.Sprintf("for each of %d boxes: %s", p.Copies, s.Text)
	case s.Text != "":
		return s.Text
	}
	says := s.What
	switch {
	case s.Length > 0 && s.Width > 0:
		says = fmt.Sprintf("%s, %s × %s", s.What, p.Say(s.Width), p.Say(s.Length))
	case s.Length > 0:
		says = fmt.Sprintf("%s, %s", s.What, p.Say(s.Length))
	case s.Width > 0:
		says = fmt.Sprintf("%s, %s across", s.What, p.Say(s.Width))
	}
	if n := s.Count * p.Copies; n > 1 {
		says = fmt.Sprintf("%d × %s", n, says)
	}
	return says + ": " + s.Says
}

// Supplies lists what to lay out before beginning.
func Supplies(p *plan.Plan) []string {
	cuts, scores, folds := "trimmer", "scoring board", "bone folder"
	if p.Tools.Scissors {
		cuts = "scissors, ruler and pencil"
	}
	if p.Tools.Ruler {
		scores = "ruler and stylus (an empty ballpoint works)"
	}
	if p.Tools.NoFolder {
		folds = "a spoon to press folds with"
	}
	out := []string{
		cuts + " and " + scores + ", marked every " + p.Step.String(),
		folds + ", scissors or knife",
		sticksSaid(p),
	}
	for i, c := range p.Cuts {
		out = slices.Insert(out, i, fmt.Sprintf("%d of %s: %s", len(c.Sheets), c.Sheet.Title, c.Card.Title))
	}
	all := slices.Clone(p.Box.Supplies)
	if p.Dressed != nil {
		all = append(all, p.Dressed.Supplies...)
	}
	for _, s := range all {
		out = append(out, supplySays(p, s))
	}
	for _, c := range p.Guide.Cards {
		for _, t := range c.Turns {
			for _, m := range t.At {
				if m.Spacer > 0 && len(p.Tools.Grooves) == 0 {
					return append(out, fmt.Sprintf("a card spacer %s thick, to hold the piece off the fence",
						p.Say(m.Spacer)))
				}
			}
		}
	}
	return out
}

// sticksSaid tells it among what to lay out, with how much tape.
func sticksSaid(p *plan.Plan) string {
	says := p.Adhesive.Title
	if long := p.Guide.Tape.Long(); long > 0 {
		says = fmt.Sprintf("%s: about %s of tape in %s", says, p.Say(long.Up(10*p.Step.Size)), words.Count(p.Guide.Tape.Pieces(), "strip"))
	}
	return says
}
