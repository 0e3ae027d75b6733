package contents

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/brief"
)

// Leave is what the maker says of lying or of standing: nothing, yes or no.
type Leave int

const (
	Unsaid Leave = iota
	May
	MayNot
)

func leave(r *brief.Reader, field string, f brief.Flag) Leave {
	switch {
	case f == "":
		return Unsaid
	case r.Flag(field, f, false):
		return May
	}
	return MayNot
}

// Way is one way a thing may rest, and the upright box round it then.
type Way struct {
	Size  Size
	ID    string // which measure is up: h, w or l
	Says  string
	lies  bool // neither of both: a ball
	stand bool
}

// Ways lists how a thing may rest: as measured, and lying or standing on its other sides where that is
// allowed. What may not lie stands, and what may not stand lies. Of a thing that was read there is always one.
func (t Thing) Ways() []Way {
	ways := t.rests()
	return slices.DeleteFunc(ways, func(w Way) bool {
		if w.lies && t.Lie == MayNot || w.stand && t.Stand == MayNot {
			return true
		}
		switch {
		case w.ID == "h":
			return false
		case t.Upright || t.Shape == "soft":
			return true
		case t.Shape == "flat":
			return false
		case t.Shape == "cylinder" && t.Lie == May: // either side of it may be called lying
			return false
		case w.lies:
			return t.Lie != May && t.Stand != MayNot
		}
		return t.Stand != May && t.Lie != MayNot
	})
}

// Turns reports whether a thing may rest on another side than the one it was measured on.
func (t Thing) Turns() bool {
	return slices.ContainsFunc(t.Ways(), func(w Way) bool { return w.ID != "h" })
}

// rests lists how things of the shape rest at all, as measured first.
func (t Thing) rests() []Way {
	s := t.Size
	measured := Way{Size: s, ID: "h", Says: "as measured"}
	side := Way{Size: Size{s.Length, s.Height, s.Width}, ID: "w", Says: "on its side"}
	end := Way{Size: Size{s.Width, s.Height, s.Length}, ID: "l", Says: "on end"}
	switch t.Shape {
	case "ball":
		measured.Says = ""
		return []Way{measured}
	case "flat":
		measured.Says, side.Says, end.Says = "lying flat", "standing on the long edge", "standing on end"
		measured.lies, side.stand, end.stand = true, true, true
		return []Way{measured, side, end}
	case "cylinder":
		rolled := Way{Size: Size{s.Height, s.Width, s.Length}, ID: "l", Says: "lying down", lies: true}
		measured.Says, measured.stand = "standing", true
		if 2*s.Height <= s.Length { // a disc
			measured.Says, measured.lies, measured.stand = "lying flat", true, false
			rolled.Says, rolled.lies, rolled.stand = "standing on its rim", false, true
		}
		return []Way{measured, rolled}
	}
	ways := []Way{measured, side, end}
	least := min(s.Length, s.Width, s.Height)
	for i := range ways {
		ways[i].lies = ways[i].Size.Height == least
		ways[i].stand = !ways[i].lies
	}
	return ways
}

// readRest notes a thing that would rest no way at all.
func (t *Thing) readRest(r *brief.Reader, field string) {
	if t.Shape == "" || len(t.Ways()) > 0 {
		return
	}
	name := strings.TrimSpace(t.Name)
	rest, forbids, at := "lies", t.Lie, field+"lie"
	if t.rests()[0].stand {
		rest, forbids, at = "stands", t.Stand, field+"stand"
	}
	word := strings.TrimSuffix(rest, "s")
	switch {
	case t.Lie == MayNot && t.Stand == MayNot:
		r.Problem(at, fmt.Sprintf("The %s may not lie down or stand up, so there is no way to put it in.", name),
			fmt.Sprintf("Let it %s, the way it was measured.", word), at, "yes")
	case t.Shape == "soft":
		r.Problem(at, fmt.Sprintf("A soft thing rests the way it was measured, and there it %s.", rest),
			fmt.Sprintf("Let it %s, or measure it the way it should rest.", word), at, "yes")
	case forbids == MayNot:
		r.Problem(at, fmt.Sprintf("The %s must stay upright, but then it %s, which you ruled out.", name, rest),
			fmt.Sprintf("Allow it to %s, or clear “must stay upright”.", word), at, "yes")
	}
}
