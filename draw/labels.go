package draw

// Texts on a drawing must not lie on each other. Each is placed where it was
// wanted, or at the first other place that is free; where there is none it is
// left out, and what it says stands in the tally and under the pointer.

import "slices"

// spot is a place for a text: its anchor point, as SVG has it, and whether it
// runs upwards.
type spot struct {
	x, y   float64
	anchor string // start, middle or end
	upward bool
}

// area is an upright rectangle on the picture.
type area struct{ x1, y1, x2, y2 float64 }

func (a area) meets(b area) bool {
	return a.x1 < b.x2 && b.x1 < a.x2 && a.y1 < b.y2 && b.y1 < a.y2
}

// labels knows where texts lie already.
type labels struct{ taken []area }

// extent is the room a text takes at a spot, of a size in pixels, with a little
// air round it.
func (s spot) extent(text string, size float64) area {
	const air = 1.5
	w := wide(text, size)
	left := s.x
	switch s.anchor {
	case "middle":
		left -= w / 2
	case "end":
		left -= w
	}
	if s.upward {
		// Turned a quarter about its anchor, left runs up.
		off := left - s.x
		return area{s.x - size*0.95 - air, s.y - off - w - air, s.x + size*0.35 + air, s.y - off + air}
	}
	return area{left - air, s.y - size*0.95 - air, left + w + air, s.y + size*0.3 + air}
}

// free takes the first of some spots at which a text lies on no other, or none.
func (l *labels) free(text string, size float64, spots ...spot) (spot, bool) {
	for _, s := range spots {
		e := s.extent(text, size)
		clear := !slices.ContainsFunc(l.taken, e.meets)
		if clear {
			l.taken = append(l.taken, e)
			return s, true
		}
	}
	return spot{}, false
}

// label writes a text at the first of some spots that is free, and says where.
func (c *canvas) label(text, class string, size float64, spots ...spot) (spot, bool) {
	s, ok := c.labels.free(text, size, spots...)
	if !ok {
		return s, false
	}
	if s.upward {
		c.text(s.x, s.y, class, s.anchor, text, "transform", Turn{-90, s.x, s.y})
	} else {
		c.text(s.x, s.y, class, s.anchor, text)
	}
	return s, true
}
