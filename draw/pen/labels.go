package pen

// Texts on a drawing must not lie on each other. Each is placed where it was
// wanted, or at the first other place that is free; where there is none it is
// left out, and what it says stands in the tally and under the pointer.

import (
	"slices"
	"strings"
)

// Spot is a place for a text: its anchor point, as SVG has it, and whether it
// runs upwards.
type Spot struct {
	X, Y   float64
	Anchor string // start, middle or end
	Upward bool
}

// At is the spot at a point, for a text that starts there, has it in its middle, or ends there.
func At(x, y float64, anchor string, upward bool) Spot { return Spot{x, y, anchor, upward} }

// Between is the area between two corners.
func Between(x1, y1, x2, y2 float64) Area { return Area{x1, y1, x2, y2} }

// Area is an upright rectangle on the picture.
type Area struct{ X1, Y1, X2, Y2 float64 }

// Meets reports whether two areas share more than an edge.
func (a Area) Meets(b Area) bool {
	return a.X1 < b.X2 && b.X1 < a.X2 && a.Y1 < b.Y2 && b.Y1 < a.Y2
}

// Labels knows where texts lie already.
type Labels struct{ Taken []Area }

// Extent is the room a text takes at a spot, of a size in pixels, with a little
// air round it.
func (s Spot) Extent(text string, size float64) Area {
	const air = 1.5
	w := Wide(text, size)
	left := s.X
	switch s.Anchor {
	case "middle":
		left -= w / 2
	case "end":
		left -= w
	}
	if s.Upward {
		// Turned a quarter about its anchor, left runs up.
		off := left - s.X
		return Area{s.X - size*0.95 - air, s.Y - off - w - air, s.X + size*0.35 + air, s.Y - off + air}
	}
	return Area{left - air, s.Y - size*0.95 - air, left + w + air, s.Y + size*0.3 + air}
}

// free takes the first of some spots at which a text lies on no other, or none.
func (l *Labels) free(text string, size float64, spots ...Spot) (Spot, bool) {
	for _, s := range spots {
		e := s.Extent(text, size)
		clear := !slices.ContainsFunc(l.Taken, e.Meets)
		if clear {
			l.Taken = append(l.Taken, e)
			return s, true
		}
	}
	return Spot{}, false
}

// SizeOf gives the size in pixels that draw.css sets a text of some classes in. What is cut and
// scored by is the largest.
func SizeOf(class string) float64 {
	switch {
	case strings.Contains(class, "figure"), strings.Contains(class, "flag-text"):
		return 16
	case strings.Contains(class, "small"), strings.Contains(class, "cut-number"):
		return 12
	case strings.Contains(class, "ruler-text"):
		return 11
	}
	return 14
}

// Label writes a text at the first of some spots that is free, and says where.
func (c *Canvas) Label(text, class string, spots ...Spot) (Spot, bool) {
	s, ok := c.Labels.free(text, SizeOf(class), spots...)
	if ok {
		c.write(text, class, s)
	}
	return s, ok
}

// Place writes a text where it has been given room already.
func (c *Canvas) Place(text, class string, s Spot) {
	c.Labels.Taken = append(c.Labels.Taken, s.Extent(text, SizeOf(class)))
	c.write(text, class, s)
}

func (c *Canvas) write(text, class string, s Spot) {
	if s.Upward {
		c.Text(s.X, s.Y, class, s.Anchor, text, "transform", Turn{-90, s.X, s.Y})
	} else {
		c.Text(s.X, s.Y, class, s.Anchor, text)
	}
}
