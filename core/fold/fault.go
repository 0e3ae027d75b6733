package fold

import (
	"strings"

	"brevium/core/words"
)

// faults say of a check that failed what goes wrong on the table. The first that the check's name ends with counts; of
// checks of one piece its name stands before a colon.
var faults = []struct{ check, says string }{
	{": every line is needed", "The drawing of the * doesn't fold"},
	{": every fold closes", "The * won't close"},
	{": it folds up without tearing", "The * would tear when you fold it"},
	{": the walls meet", "The walls of the * don't meet"},
	{": glued faces meet", "The tabs of the * don't reach"},
	{": every tuck holds", "A flap of the * doesn't hold"},
	{": every mark, hole and notch is on the card", "A hole or mark of the * is too near the edge"},
	{": opposite walls match", "Opposite walls of the * are different"},
	{"no part runs into another", "Two parts run into each other"},
	{"everything fits inside without touching", "Your things don't fit inside"},
	{"nothing inside sticks up above the rim", "Something inside sticks up above the rim"},
	{"nothing sticks up too far", "Something sticks up too far"},
	{"every piece fits its sheet", "A piece is too big for its sheet"},
	{"it is the size it should be", "The box comes out the wrong size"},
	{"every part is stuck where it should be", "A part isn't stuck to anything"},
	{"every leg reaches the floor", "A leg doesn't reach the floor"},
	{"the inner rims are level", "The inner rims aren't level"},
	{"it stores flat", "It won't fold flat"},
	{"every layer lies within its panel", "A layer reaches past its panel"},
	{"layers leave room for what slides over them", "A layer is in the way of what slides over it"},
	{"score cards and cuts match the drawings", "A score card and its drawing disagree"},
	{"the finished size matches", "The box doesn't have the size that is claimed"},
	{"the floor holds the weight", "The floor would sag"},
	{"the walls hold when the box is tilted", "The walls would bow when the box is tilted"},
	{"the walls hold what stands on them", "The walls would give under what stands on them"},
}

// Fault tells in a sentence what goes wrong where the check fails, with the figure.
func (c Check) Fault() string {
	for _, f := range faults {
		if piece, ok := strings.CutSuffix(c.Name, f.check); ok {
			return strings.Replace(f.says, "*", words.Plain(piece), 1) + ": " + c.Figure + "."
		}
	}
	if a, b, ok := strings.Cut(c.Name, " clears "); ok {
		return "The " + words.Plain(a) + " is too tight on the " + words.Plain(b) + ": " + c.Figure + "."
	}
	return words.Capital(c.Name) + " – no: " + c.Figure + "."
}
