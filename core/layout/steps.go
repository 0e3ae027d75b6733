package layout

import (
	"fmt"
	"slices"
	"strings"
)

// Step is a cut as it is told at the trimmer: where the stop stands, whether it was
// moved for it, what lies against it and what is put aside.
type Step struct {
	Cut
	Moved bool
	Kept  string // the piece that is free, if that lies against the stop
	Freed string // the piece that is free beyond it
	Says  string
}

// ByHand tells a cut to one who has no trimmer: where its line is drawn, and what comes of it.
func (s Step) ByHand(say func(Length) string) string {
	from, near := "top", "upper"
	if s.Down {
		from, near = "left", "left"
	}
	part := "sheet"
	if _, what, ok := strings.Cut(s.Says, "part of "); ok {
		size, _, _ := strings.Cut(what, " against it")
		part = "part of " + size
	}
	out := fmt.Sprintf("draw a line %s from the %s edge of the %s, marked at both ends, and cut along it", say(s.At), from, part)
	switch {
	case s.Kept != "" && s.Freed != "":
		return out + fmt.Sprintf(": the %s part is the %s, and the %s is left.", near, s.Kept, s.Freed)
	case s.Kept != "":
		return out + fmt.Sprintf(": the %s part is the %s.", near, s.Kept)
	case s.Freed != "":
		return out + fmt.Sprintf("; what is left is the %s.", s.Freed)
	}
	return out + fmt.Sprintf("; keep the %s part.", near)
}

// Steps tells the cuts of a sheet in their order, lengths said by say.
func (s Sheet) Steps(say func(Length) string) []Step {
	piece := map[Rect]string{}
	for _, p := range s.Placed {
		piece[p.Rect] = p.Piece
	}
	out := make([]Step, len(s.Cuts))
	var stop Length
	for i, c := range s.Cuts {
		st := Step{Cut: c, Moved: c.At != stop}
		stop = c.At
		a, b := c.Parts()
		st.Kept, st.Freed = piece[a], piece[b]
		side := "top"
		if c.Down {
			side = "left"
		}
		st.Says = "Leave the stop as it is"
		if st.Moved {
			st.Says = "Set " + say(c.At)
		}
		part := "sheet"
		if c.In != (Rect{W: s.W, H: s.H}) {
			part = fmt.Sprintf("part of %s × %s", say(c.In.W), say(c.In.H))
		}
		st.Says += fmt.Sprintf(", the %s of the %s against it, and cut", side, part)
		near, far := "left", "right"
		if !c.Down {
			near, far = "upper", "lower"
		}
		switch {
		case st.Kept != "" && st.Freed != "":
			st.Says += fmt.Sprintf(": that is the %s, and the %s is left.", st.Kept, st.Freed)
		case st.Kept != "":
			st.Says += fmt.Sprintf(": that is the %s.", st.Kept)
		case st.Freed != "":
			st.Says += fmt.Sprintf("; what is left is the %s.", st.Freed)
		case !s.holds(a):
			st.Says += fmt.Sprintf("; the %s part goes.", near)
		case !s.holds(b):
			st.Says += fmt.Sprintf("; keep the %s part.", near)
		default:
			st.Says += fmt.Sprintf("; keep the %s part, and the %s one for later.", near, far)
		}
		out[i] = st
	}
	return out
}

// holds reports whether a piece comes out of a part.
func (s Sheet) holds(part Rect) bool {
	return slices.ContainsFunc(s.Placed, func(p Placed) bool {
		r := p.Rect
		return r.X >= part.X && r.Y >= part.Y && r.X+r.W <= part.X+part.W && r.Y+r.H <= part.Y+part.H
	})
}
