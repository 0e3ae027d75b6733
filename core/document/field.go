package document

import "brevium/core/words"

// Kind is what a field holds.
type Kind int

const (
	Choice Kind = iota
	Words
	Distance
	Offset // a distance either way: with - before it, the other
	Number
	Weight
	YesNo
	Day
)

// Field is a question of the document: its path, with * for the thing, piece or place it belongs to, what it holds,
// what people call it, and what helps to answer it. Forms, lists, merging, the words of a change and docs/format.md
// are all read from it.
type Field struct {
	Path  string
	Kind  Kind
	Label string
	Help  string
	Most  int // letters; 0 is the usual most
}

// Title is the label as it stands over the field.
func (f Field) Title() string { return words.Capital(f.Label) }

// Unit reports whether the field takes a unit: of length, or of mass.
func (f Field) Unit() bool { return f.Kind == Distance || f.Kind == Weight }

// usualMost is how many letters a field takes that says nothing of it.
const usualMost = 200
