package shop

import "brevium/core/measure"

// Habit is something makers differ in: how this house does it, in force for every box that does not say otherwise.
type Habit struct {
	ID, Label, Why string
	Path           string // where a box says otherwise; "" where that is an answer of its style, or nowhere
	Begins         bool   // it is what new boxes begin with, and each says it itself
	Choices        []HabitChoice
}

// HabitChoice is one way, with the reason for it. The first is Brevium's own.
type HabitChoice struct{ ID, Label, Why string }

// Habits lists them.
var Habits = []Habit{
	{ID: "units", Label: "Units", Path: "units", Begins: true, Why: "New boxes begin in these.", Choices: []HabitChoice{
		{"", "Inches, until you choose", "Sixteenths, as most trimmers read."},
		{"in", "Inches", "Sixteenths, as most trimmers read."}, {"mm", "Millimetres", "No fractions to add."},
		{"cm", "Centimetres", "Like millimetres, with a decimal point."}}},
	{ID: "step", Label: "Marks on your tools", Path: "tools.step", Begins: true,
		Why: "New boxes begin with these marks. A trimmer you describe has its own.", Choices: steps()},
	{ID: "fit", Label: "How lids go on", Path: "tools.fit", Begins: true, Why: "New boxes begin with this.",
		Choices: []HabitChoice{
			{"", "Snug", "Stays on when it is lifted by the lid."}, {"easy", "Easy", "Comes off with one hand."},
			{"loose", "Loose", "For children, or if you will add layers."}}},
	{ID: "allowances", Label: "Allowances", Path: "tools.allowances",
		Why: "Thick card jams with round numbers. Thin card doesn't.",
		Choices: []HabitChoice{{"", "For the card", "The numbers allow for the card's thickness."},
			{"plain", "Plain numbers", "Round numbers. You trim a sliver where it jams."}}},
	{ID: "clearance", Label: "Clearance comes from",
		Why: "A larger lid keeps the base at the size you asked for.",
		Choices: []HabitChoice{{"", "A larger outer piece", "The odd fraction is in its cut size."},
			{"trim", "A smaller inner piece", "The odd fraction is in its cut size. The lid keeps its size."},
			{"shift", "Shifted scores", "Both pieces keep whole sizes. A spacer moves the scores out."},
			{"choose", "Choose for me", "Whichever has the fewest scores between grooves."}}},
	{ID: "walls", Label: "Walls", Why: "Single walls take least card.",
		Choices: []HabitChoice{{"", "As each style has them", ""}, {"single", "Single", "Least card, quickest."},
			{"rolled", "Rolled", "Twice as thick, no raw edge."}, {"pinwheel", "Pinwheel", "Stiffer, with no waste."}}},
	{ID: "tabs", Label: "Tabs", Why: "A tab along the whole wall is strongest.",
		Choices: []HabitChoice{{"", "Full", "Strongest."}, {"half", "Half", "Clear of a thumb notch."},
			{"narrow", "Narrow", "Just wide enough to hold."}}},
	{ID: "adhesive", Label: "Stuck with", Path: "tools.adhesive", Why: "Tape holds at once, and nothing has to be held.",
		Choices: []HabitChoice{{"", "Tape", "Holds at once, needs a wide tab."},
			{"glue", "Wet glue", "Narrower tabs, but must be held while it sets."},
			{"both", "Both", "Tape on the long seam, glue on the corners."}}},
	{ID: "burnish", Label: "Fold and burnish", Path: "tools.burnish",
		Why: "Cutting to a sharp fold stops the slit in the right place.",
		Choices: []HabitChoice{{"", "After cutting", "The fold starts from the slit's end."},
			{"before", "Before cutting", "The scores are sharp and easily seen when you cut to them."}}},
	{ID: "dressing", Label: "Layers go on", Path: "tools.dressing", Why: "Flat card is easy to press evenly.",
		Choices: []HabitChoice{{"", "While all is flat", "Pressed evenly, before anything is stuck."},
			{"standing", "When it stands", "They hide cracks along the folds, and meet neatly at the edges."}}},
	{ID: "wraps", Label: "Straps, sleeves and covers", Path: "tools.wraps", Why: "Scored flat, they come out the same every time.",
		Choices: []HabitChoice{{"", "Scored by measure", "The same on every copy."},
			{"formed", "Formed on the box", "Cut a little long, wrap and pinch around the box, then score."}}},
	{ID: "first", Label: "Score first", Path: "tools.first", Why: "As drawn, left edge first: easiest to remember.",
		Choices: []HabitChoice{{"", "As drawn", "Left edge, then a quarter turn each time."},
			{"short", "The short way", "Long scores last lie flatter."}, {"long", "The long way",
				"The long scores guide the short ones."}}},
	{ID: "gussets", Label: "A gable's gussets", Why: "Scored card folds in where it should.",
		Choices: []HabitChoice{{"", "Scored", "Folds in where it should."},
			{"pinched", "Pinched", "Bent by hand: for thin paper."}}},
	{ID: "underside", Label: "Underside", Path: "dress.underside", Why: "Nobody sees it, and it saves a layer.",
		Choices: []HabitChoice{{"", "Left bare", ""}, {"yes", "Dressed", "For a keepsake."}}},
	{ID: "second", Label: "The other unit", Why: "One unit is harder to misread.",
		Choices: []HabitChoice{{"", "On pointing", "Shown when you point at a number."},
			{"yes", "Always beside", "Each number has the other unit beside it."}}},
	{ID: "paper", Label: "Paper in your printer", Why: "What you print is laid out for it.",
		Choices: []HabitChoice{{"", "By the box's unit", "Letter for inches, A4 for millimetres."}, {"a4", "A4", "210 × 297 mm"},
			{"letter", "Letter", "8 1/2 × 11 in"}}},
	{ID: "spelling", Label: "Spelling", Why: "On every device, unless Help says otherwise there.",
		Choices: []HabitChoice{{"", "As the browser asks", ""}, {"uk", "British", "colour, centre"},
			{"us", "American", "color, center"}}},
}

func steps() []HabitChoice {
	out := []HabitChoice{{"", "Usual for the unit", "1/16 in or 1 mm."}}
	for _, s := range measure.Steps {
		out = append(out, HabitChoice{ID: s.String(), Label: s.String()})
	}
	return out
}

// FindHabit gives a habit by its name.
func FindHabit(id string) (Habit, bool) {
	for _, h := range Habits {
		if h.ID == id {
			return h, true
		}
	}
	return Habit{}, false
}

// Has reports whether a choice is one of the habit's.
func (h Habit) Has(choice string) bool {
	for _, c := range h.Choices {
		if c.ID == choice {
			return true
		}
	}
	return false
}
