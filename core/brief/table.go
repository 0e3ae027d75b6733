package brief

import (
	"fmt"
	"strings"

	"brevium/core/words"
)

// Kind is what a field holds.
type Kind int

const (
	Choice Kind = iota
	Words
	Distance
	Number
	Weight
	YesNo
)

// Field is a question of the document: its path, with * for the thing, piece
// or place it belongs to, what it holds, and what people call it.
type Field struct {
	Path  string
	Kind  Kind
	Label string
	Most  int // letters
}

// Most letters in a field, and in the notes.
const (
	mostLetters = 200
	mostNotes   = 4000
)

// Table lists every field but the answers to a style's own questions, which
// the style lists.
var Table = []Field{
	{"name", Words, "name", mostLetters},
	{"notes", Words, "notes", mostNotes},
	{"units", Choice, "units", mostLetters},
	{"copies", Number, "how many boxes", mostLetters},
	{"contents.*.name", Words, "name", mostLetters},
	{"contents.*.shape", Choice, "shape", mostLetters},
	{"contents.*.count", Number, "how many", mostLetters},
	{"contents.*.length", Distance, "length", mostLetters},
	{"contents.*.width", Distance, "width", mostLetters},
	{"contents.*.height", Distance, "height", mostLetters},
	{"contents.*.thickness", Distance, "thickness", mostLetters},
	{"contents.*.decorated", Distance, "thickness decorated", mostLetters},
	{"contents.*.envelope", YesNo, "in an envelope", mostLetters},
	{"contents.*.diameter", Distance, "diameter", mostLetters},
	{"contents.*.neck-diameter", Distance, "neck diameter", mostLetters},
	{"contents.*.neck-height", Distance, "neck height", mostLetters},
	{"contents.*.press", Distance, "how far it presses down", mostLetters},
	{"contents.*.mass", Weight, "mass of one", mostLetters},
	{"contents.*.lie", YesNo, "may lie", mostLetters},
	{"contents.*.stand", YesNo, "may stand", mostLetters},
	{"contents.*.stack", Number, "on each other", mostLetters},
	{"contents.*.upright", YesNo, "must stay upright", mostLetters},
	{"contents.*.food", YesNo, "food", mostLetters},
	{"contents.*.fragile", YesNo, "fragile", mostLetters},
	{"contents.*.flame", YesNo, "hot or flame", mostLetters},
	{"contents.*.liquid", YesNo, "liquid", mostLetters},
	{"room.around", Distance, "finger room", mostLetters},
	{"room.between", Distance, "room between neighbours", mostLetters},
	{"room.padding", Distance, "tissue around", mostLetters},
	{"room.below", Distance, "tissue below", mostLetters},
	{"room.above", Distance, "room above", mostLetters},
	{"room.proud", Distance, "how far things stand proud", mostLetters},
	{"arrange.way", Choice, "arrangement", mostLetters},
	{"arrange.compartments", Choice, "compartments", mostLetters},
	{"arrange.dividers", Distance, "height of the dividers", mostLetters},
	{"arrange.places.*.x", Distance, "from the left", mostLetters},
	{"arrange.places.*.y", Distance, "from the front", mostLetters},
	{"arrange.places.*.turned", YesNo, "turned", mostLetters},
	{"size.length", Distance, "length", mostLetters},
	{"size.width", Distance, "width", mostLetters},
	{"size.depth", Distance, "depth", mostLetters},
	{"box.style", Choice, "style", mostLetters},
	{"box.pieces.*.name", Words, "name", mostLetters},
	{"box.pieces.*.is", Choice, "what it is", mostLetters},
	{"box.pieces.*.walls", Choice, "its walls", mostLetters},
	{"box.pieces.*.tabs", Choice, "its tabs", mostLetters},
	{"box.pieces.*.width", Distance, "width", mostLetters},
	{"box.pieces.*.height", Distance, "height", mostLetters},
	{"box.pieces.*.across", Words, "scores from the left edge", mostLetters},
	{"box.pieces.*.down", Words, "scores from the top edge", mostLetters},
	{"box.pieces.*.away", Words, "squares cut away", mostLetters},
	{"box.stated.length", Distance, "length it claims", mostLetters},
	{"box.stated.width", Distance, "width it claims", mostLetters},
	{"box.stated.depth", Distance, "depth it claims", mostLetters},
	{"card.stock", Choice, "card", mostLetters},
	{"card.sheet", Choice, "sheet", mostLetters},
	{"card.join", YesNo, "pieces made of two halves", mostLetters},
	{"tools.step", Choice, "marks on the tools", mostLetters},
	{"tools.fit", Choice, "how the lid goes on", mostLetters},
	{"tools.adhesive", Choice, "what it is stuck with", mostLetters},
	{"tools.allowances", Choice, "allowances", mostLetters},
}

var byPath = func() map[string]Field {
	m := map[string]Field{}
	for _, f := range Table {
		m[f.Path] = f
	}
	return m
}()

// FieldAt finds the field at a path such as "contents.0.length" or
// "contents.@k3.length".
func FieldAt(path string) (Field, bool) {
	parts := strings.Split(path, ".")
	if n := len(parts); n >= 3 && (parts[0] == "contents" || parts[1] == "places" || parts[1] == "pieces") {
		parts[n-2] = "*"
	}
	f, ok := byPath[strings.Join(parts, ".")]
	return f, ok
}

// TooLong says of a text that a field can't hold: which field, how long it is
// and how long it may be. It is "" for a text that fits.
func TooLong(path, text string) string {
	f, ok := FieldAt(path)
	if !ok {
		f = Field{Label: words.Plain(path[strings.LastIndexByte(path, '.')+1:]), Most: mostLetters}
	}
	if n := words.Letters(text); n > f.Most {
		return fmt.Sprintf("“%s” is %d letters long; it takes %d", words.Capital(f.Label), n, f.Most)
	}
	return ""
}
