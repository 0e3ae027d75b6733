// Package contents works out the room that things want: how they may lie, how they lie beside and upon each other,
// what fingers and tissue need, and the compartments between them.
package contents

import (
	"fmt"

	"brevium/core/brief"
	"brevium/core/measure"
)

type Length = measure.Length

// Size is left to right, front to back, up.
type Size struct{ Length, Width, Height Length }

// Thing is one kind of thing. Size is the upright box round it as it was
// measured, decorated, wrapped or pressed as it will be.
type Thing struct {
	ID           string // of the brief's thing
	Name, Shape  string
	Size         Size
	NeckDiameter Length // of a cylinder whose top is narrower; 0 for none
	NeckHeight   Length
	Count        int
	Grams        float64 // of one; 0 when not known
	Lie, Stand   Leave   // on a side that is not its own
	Stack        int
	Upright      bool
	Food         bool
	Fragile      bool
	Flame        bool
	Liquid       bool
}

// Round reports whether the thing is round from above as it stands.
func (t Thing) Round() bool { return t.Shape == "ball" || t.Shape == "cylinder" }

// Shape is what a thing may be: what is measured of it, how, and how high it is stacked when nothing is said.
type Shape struct {
	ID, Title string
	Measures  []string
	May       []string // measures that may be left open
	How       string
	Stack     int
}

// Shapes lists the shapes.
var Shapes = []Shape{
	{"block", "Block", []string{"length", "width", "height"}, nil,
		"Measure the widest place, wrapping included. If you have several, measure three and use the largest.", 6},
	{"flat", "Flat thing", []string{"length", "width", "thickness"}, []string{"decorated"},
		"Press ten together lightly, measure the stack, and divide by ten. If they are decorated, measure one at its " +
			"thickest place.", 24},
	{"cylinder", "Cylinder or jar", []string{"diameter", "height"}, []string{"neck-diameter", "neck-height"},
		"Stand it between two blocks and measure between them. Measure the height to the top of the lid.", 1},
	{"ball", "Ball", []string{"diameter"}, nil,
		"Hold it between two blocks. Measure three ways and use the largest.", 1},
	{"soft", "Soft thing", []string{"length", "width", "height"}, []string{"press"},
		"Measure it at rest. Then measure how far a flat hand can press it without harm.", 2},
}

// ShapeOf finds a shape by name.
func ShapeOf(id string) (Shape, bool) {
	for _, s := range Shapes {
		if s.ID == id {
			return s, true
		}
	}
	return Shape{}, false
}

// Limits that keep a plan sensible.
const (
	MostThings = 500 // of one kind
	MostInAll  = 600
	MostKinds  = 24
)

// An envelope adds to a flat item: a little thickness, and its own edges.
const (
	envelopeThick = 3 * measure.Millimetre / 2
	envelopeEdge  = 6 * measure.Millimetre
)

// Read turns the brief's things into numbers. It is not ok when a problem was noted.
func Read(b *brief.Brief, r *brief.Reader) ([]Thing, bool) {
	before := len(r.Problems)
	if len(b.Contents) == 0 {
		r.Problem("contents", "Nothing goes in yet.", "Say what goes in, or give the size of the box.")
	}
	if len(b.Contents) > MostKinds {
		r.Problem("contents", fmt.Sprintf("%d kinds of thing are too many for one box.", len(b.Contents)),
			fmt.Sprintf("The most is %d.", MostKinds))
		return nil, false
	}
	var things []Thing
	for i, item := range b.Contents {
		things = append(things, readThing(r, fmt.Sprintf("contents.%d.", i), item))
	}
	if all := total(things); all > MostInAll {
		r.Problem(fmt.Sprintf("contents.%d.count", most(things)), fmt.Sprintf("%d things in all are too many for one box.", all),
			fmt.Sprintf("The most is %d: put fewer in, or make several boxes.", MostInAll))
	}
	return things, len(r.Problems) == before
}

func total(things []Thing) (n int) {
	for _, t := range things {
		n += t.Count
	}
	return n
}

// most gives the kind of which there are most.
func most(things []Thing) (at int) {
	for i, t := range things {
		if t.Count > things[at].Count {
			at = i
		}
	}
	return at
}

func readThing(r *brief.Reader, field string, item brief.Item) Thing {
	shape, ok := ShapeOf(string(item.Shape))
	if !ok {
		r.Problem(field+"shape", fmt.Sprintf("Brevium doesn't know the shape %q.", item.Shape),
			"Choose block, flat, cylinder, ball or soft.")
	}
	t := Thing{ID: item.ID, Name: r.Name(field+"name", item.Name, "This thing"), Shape: shape.ID, Stack: shape.Stack}
	t.Count, _ = r.Count(field+"count", item.Count, MostThings)
	t.Grams = r.Mass(field+"mass", item.Mass)
	t.Fragile = r.Flag(field+"fragile", item.Fragile, false)
	t.Upright = r.Flag(field+"upright", item.Upright, false)
	t.Food = r.Flag(field+"food", item.Food, false)
	t.Flame = r.Flag(field+"flame", item.Flame, false)
	t.Liquid = r.Flag(field+"liquid", item.Liquid, false)
	t.Lie = leave(r, field+"lie", item.Lie)
	t.Stand = leave(r, field+"stand", item.Stand)
	if t.Fragile {
		t.Stack = 1
	}
	if item.Stack != "" {
		t.Stack, _ = r.Count(field+"stack", item.Stack, MostThings)
	}
	t.Upright = t.Upright || t.Liquid
	t.readSize(r, field, item)
	t.readRest(r, field)
	return t
}

func (t *Thing) readSize(r *brief.Reader, field string, item brief.Item) {
	need := func(name string, text brief.Text) Length {
		l, _ := r.Length(field+name, text)
		return l
	}
	may := func(name string, text brief.Text) Length {
		if text == "" {
			return 0
		}
		l, _ := r.LengthOrNone(field+name, text)
		return l
	}
	switch t.Shape {
	case "block", "soft":
		t.Size = Size{need("length", item.Length), need("width", item.Width), need("height", item.Height)}
	case "flat":
		t.Size = Size{need("length", item.Length), need("width", item.Width), need("thickness", item.Thickness)}
		if d := may("decorated", item.Decorated); d > 0 {
			if d < t.Size.Height {
				r.Problem(field+"decorated", "It is thinner decorated than plain.", "Measure it decorated, at its "+
					"thickest place.")
			}
			t.Size.Height = d
		}
		if r.Flag(field+"envelope", item.Envelope, false) {
			t.Size = Size{t.Size.Length + envelopeEdge, t.Size.Width + envelopeEdge, t.Size.Height + envelopeThick}
		}
	case "ball":
		d := need("diameter", item.Diameter)
		t.Size = Size{d, d, d}
	case "cylinder":
		d := need("diameter", item.Diameter)
		t.Size = Size{d, d, need("height", item.Height)}
		t.readNeck(r, field, may("neck-diameter", item.NeckDiameter), may("neck-height", item.NeckHeight))
	}
	if t.Shape == "soft" {
		press := may("press", item.Press)
		if press > 0 && press*4 > t.Size.Height*3 {
			r.Problem(field+"press", fmt.Sprintf("If %s presses down %s, almost nothing is left.", r.Say(press),
				r.Say(t.Size.Height)), "Write how far it goes down under a flat hand.")
			return
		}
		t.Size.Height -= press
	}
}

func (t *Thing) readNeck(r *brief.Reader, field string, wide, high Length) {
	if wide == 0 && high == 0 {
		return
	}
	switch {
	case wide == 0 || wide >= t.Size.Length:
		r.Problem(field+"neck-diameter", "The neck must be narrower than the body.", "Measure the neck, or leave "+
			"both neck fields empty.")
	case high == 0 || high >= t.Size.Height:
		r.Problem(field+"neck-height", "The neck must be shorter than the whole thing.",
			"Measure from the shoulder to the top, or leave both fields empty.")
	default:
		t.NeckDiameter, t.NeckHeight = wide, high
	}
}
