// Package contents works out the room that things want: how they lie beside
// and upon each other, and what fingers need round them.
package contents

import (
	"fmt"

	"brevium/core/brief"
	"brevium/core/measure"
)

type Length = measure.Length

// Size is left to right, front to back, up.
type Size struct{ Length, Width, Height Length }

// Thing is one kind of thing, by the upright box round it.
type Thing struct {
	Name  string
	Shape string
	Size  Size
	Count int
}

// Shapes lists what a thing may be, and what is measured of it.
var Shapes = []struct {
	ID, Title string
	Measures  []string
}{
	{"block", "Block", []string{"length", "width", "height"}},
	{"ball", "Ball", []string{"diameter"}},
	{"cylinder", "Cylinder or jar", []string{"diameter", "height"}},
}

// Limits that keep a plan sensible.
const (
	MostThings = 500
	MostKinds  = 24
)

// Placed is one thing in its place; At is its lower left front corner.
type Placed struct {
	Thing int
	At    Size
	Size  Size
}

// Load is the things arranged, and the clear room they want in all.
type Load struct {
	Things  []Thing
	Placed  []Placed
	Need    Size // with the room round them
	Around  Length
	Above   Length
	Columns int // left to right
	Rows    int // front to back
	Layers  int
}

// DefaultAround is the finger room on each side when the brief is silent.
func DefaultAround(u measure.Unit) Length {
	if u == measure.Inches {
		return measure.Inch / 8
	}
	return 3 * measure.Millimetre
}

// DefaultAbove is the room under the lid when the brief is silent.
func DefaultAbove(u measure.Unit) Length {
	if u == measure.Inches {
		return measure.Inch / 16
	}
	return measure.Millimetre
}

// Read turns the brief's things into numbers. It is not ok when a problem was
// noted.
func Read(b *brief.Brief, r *brief.Reader) (Load, bool) {
	before := len(r.Problems)
	load := Load{Around: DefaultAround(r.Units), Above: DefaultAbove(r.Units)}
	if b.Room.Around != "" {
		load.Around, _ = r.LengthOrNone("room.around", b.Room.Around, "Finger room")
	}
	if b.Room.Above != "" {
		load.Above, _ = r.LengthOrNone("room.above", b.Room.Above, "Room above")
	}
	if len(b.Contents) == 0 {
		r.Problem("contents", "Nothing goes in yet.", "Say what goes in, or give the size of the box.")
	}
	if len(b.Contents) > MostKinds {
		r.Problem("contents", fmt.Sprintf("%d kinds of thing are too many for one box.", len(b.Contents)), fmt.Sprintf("The most is %d.", MostKinds))
		return load, false
	}
	for i, item := range b.Contents {
		load.Things = append(load.Things, readThing(r, fmt.Sprintf("contents.%d.", i), item))
	}
	return load, len(r.Problems) == before
}

func readThing(r *brief.Reader, field string, item brief.Item) Thing {
	t := Thing{Name: r.Name(field+"name", item.Name, "This thing"), Shape: string(item.Shape)}
	t.Count, _ = r.Count(field+"count", item.Count, "How many", MostThings)
	switch item.Shape {
	case "block":
		t.Size.Length, _ = r.Length(field+"length", item.Length, "Its length")
		t.Size.Width, _ = r.Length(field+"width", item.Width, "Its width")
		t.Size.Height, _ = r.Length(field+"height", item.Height, "Its height")
	case "ball":
		d, _ := r.Length(field+"diameter", item.Diameter, "Its diameter")
		t.Size = Size{d, d, d}
	case "cylinder":
		d, _ := r.Length(field+"diameter", item.Diameter, "Its diameter")
		h, _ := r.Length(field+"height", item.Height, "Its height")
		t.Size = Size{d, d, h}
	default:
		r.Problem(field+"shape", fmt.Sprintf("%q is not a shape Brevium knows.", item.Shape), "Choose block, ball or cylinder.")
	}
	return t
}
