package bench

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/shop"
	"brevium/core/words"
)

// Cuts of one piece, corner by corner: the piece is turned and the same corner always
// cut, so that nobody cuts the wrong one.

// Cuts are what is cut of a piece in one place, before it is turned for the next.
type Cuts struct {
	Where string // top left, top, ... going round; middle; or all round
	Slits []net.Line
	Away  []*net.Face
	Trim  bool // the slivers that shape a tab, once the rest is cut
}

// the places of a piece in the order it is turned, as column and row of thirds
var roundIt = [3][3]int{{0, 1, 2}, {7, 8, 3}, {6, 5, 4}}

var whereNames = []string{"top left", "top", "top right", "right", "bottom right", "bottom", "bottom left", "left", "middle"}

// place is the place of an upright rectangle: a corner where it reaches both edges of it.
func place(p *net.Piece, lo, hi net.Point) int {
	third := func(lo, hi, size Length) int {
		near, far := lo <= size/50, hi >= size-size/50
		switch mid := (lo + hi) / 2; {
		case near && far:
			return 1
		case near && mid < size/2:
			return 0
		case far && mid > size/2:
			return 2
		case 3*mid < size:
			return 0
		case 3*mid > 2*size:
			return 2
		}
		return 1
	}
	return roundIt[third(lo.Y, hi.Y, p.Height)][third(lo.X, hi.X, p.Width)]
}

// CutsOf lists the cuts of a piece: slits and what goes, place by place, then the
// slivers that shape its tabs. What is punched is among what goes.
func CutsOf(p *net.Piece) (out []Cuts) {
	if p.Shaped() {
		return []Cuts{{Where: "all around", Away: p.Faces[len(p.Kept()):]}}
	}
	var at [2][9]Cuts
	for _, s := range p.Slits {
		lo, hi := net.Bounds([]net.Point{s.A, s.B})
		c := &at[0][place(p, lo, hi)]
		c.Slits = append(c.Slits, s)
	}
	for _, f := range p.Faces[len(p.Kept()):] {
		lo, hi := f.Bounds()
		when := 0
		if f.Trim {
			when = 1
		}
		c := &at[when][place(p, lo, hi)]
		c.Away = append(c.Away, f)
	}
	for when := range at {
		for i, c := range at[when] {
			if len(c.Slits)+len(c.Away) > 0 {
				c.Where, c.Trim = whereNames[i], when == 1
				out = append(out, c)
			}
		}
	}
	return out
}

// says tells the cuts of one place.
func (c Cuts) says(p *net.Piece, say func(Length) string) string {
	var does []string
	if len(c.Slits) > 0 {
		var slits []Slit
		for _, l := range c.Slits {
			slits = append(slits, slitOf(p, l))
		}
		does = append(does, fmt.Sprintf("%s to the score, no further: %s", words.Capital(plural(len(c.Slits), "slit")),
			slitPlaces(slits, say)))
	}
	corners, punched := 0, 0
	for _, f := range c.Away {
		if punchedOut(f) {
			punched++
		} else {
			corners++
		}
	}
	switch {
	case c.Trim:
		does = append(does, plural(corners, "sliver")+" to come off, so that the tab ends a hair narrower")
	case c.Where == "all around":
		does = append(does, "to the shape that is drawn")
	case corners > 0:
		does = append(does, fmt.Sprintf("cut away the %s marked", plural(corners, "part")))
	}
	if punched > 0 {
		does = append(does, plural(punched, "opening")+" to cut or punch out")
	}
	return words.Capital(c.Where) + ": " + words.Small(strings.Join(does, "; ")) + "."
}

// punchedOut reports whether card cut away lies within a face.
func punchedOut(f *net.Face) bool {
	return !slices.ContainsFunc(f.Edges, func(e net.Edge) bool { return e.Kind != net.Hole })
}

// cutSays tells what is slit and cut away of a piece, in one sentence; mitres are told by themselves.
func cutSays(p *net.Piece, say func(Length) string, tools shop.Tools) (cut, mitre string) {
	away, trims := 0, 0
	for _, f := range p.Faces {
		switch {
		case f.Trim:
			trims++
		case f.Waste:
			away++
		}
	}
	parts := openings(p, say, tools)
	if p.Shaped() {
		parts = append(parts, "cut it to the shape that is drawn")
		away = 0
	}
	away -= len(p.Slots) + len(p.Punches) + len(p.Notches) + len(p.Windows)
	if n := len(p.Slits); n > 0 {
		parts = append(parts, fmt.Sprintf("make %s, each to the score and no further (%s)",
			plural(n, "slit"), slitPlaces(SlitsOf(p), say)))
	}
	if away > 0 {
		parts = append(parts, fmt.Sprintf("cut away the %s marked on the drawing", plural(away, "part")))
	}
	if trims > 0 {
		shape := "trim what is marked to its shape (%s to come off)"
		if p.Has("tab") {
			shape = "trim the tabs to their shape and mitre their ends (%s to come off)"
		}
		mitre = words.Capital(p.Name) + ": " + fmt.Sprintf(shape, plural(trims, "sliver")) + "."
	}
	if len(parts) > 0 {
		cut = words.Capital(p.Name) + ": " + strings.Join(parts, "; ") + "."
	}
	return cut, mitre
}

// openings tells slots, holes and notches with their places.
func openings(p *net.Piece, say func(Length) string, tools shop.Tools) (parts []string) {
	for _, fromBottom := range []bool{false, true} {
		var at []string
		var one net.Slot
		for _, s := range p.Slots {
			if s.FromBottom == fromBottom {
				at, one = append(at, say(s.X)), s
			}
		}
		edge := map[bool]string{false: "top", true: "bottom"}[fromBottom]
		if len(at) > 0 {
			parts = append(parts, fmt.Sprintf("cut %s %s deep from the %s edge, the card's thickness and a hair wide, at %s from "+
				"the left", plural(len(at), "slot"), say(one.Depth), edge, strings.Join(at, ", ")))
		}
	}
	knife := ""
	if tools.Scissors {
		knife = "; prick through its middle, and cut outwards from there to its line"
	}
	for _, w := range p.Windows {
		wide, high := say(w.Hi.X-w.Lo.X), say(w.Hi.Y-w.Lo.Y)
		mid := fmt.Sprintf("its middle %s from the left and %s from the top", say((w.Lo.X+w.Hi.X)/2), say((w.Lo.Y+w.Hi.Y)/2))
		switch corner := fmt.Sprintf("its corner %s from the left and %s from the top", say(w.Lo.X), say(w.Lo.Y)); w.Shape {
		case "round":
			parts = append(parts, fmt.Sprintf("cut a round window %s across, %s%s", wide, mid, knife))
		case "rounded":
			parts = append(parts, fmt.Sprintf("cut a window %s × %s with rounded corners, %s%s", wide, high, corner, knife))
		default:
			parts = append(parts, fmt.Sprintf("cut a window %s × %s, %s%s", wide, high, corner, knife))
		}
	}
	for _, h := range p.Punches {
		with := punches(p, h, tools, say)
		s := fmt.Sprintf("%s a round hole %s across, its middle %s from the left and %s from the top%s",
			map[bool]string{true: "punch", false: "cut"}[with != ""], say(h.Diameter), say(h.Mid.X), say(h.Mid.Y), with)
		if h.Scoop > 0 {
			s += fmt.Sprintf(", with a finger scoop %s deep on the slant", say(h.Scoop))
		}
		parts = append(parts, s)
	}
	if n := len(p.Notches); n > 0 {
		by := ""
		if _, owned, _ := tools.Reaches("notch", p.Notches[0].Diameter, 0); owned {
			by = ", with your notch punch"
		}
		parts = append(parts, fmt.Sprintf("cut %s %s across in the middle of the edge%s",
			plural(n, "half-round notch"), say(p.Notches[0].Diameter), by))
	}
	return parts
}

// punches tells with which punch a hole is made, or what does it where the hand punch
// doesn't reach; "" when there is none of its size.
func punches(p *net.Piece, h net.Punch, tools shop.Tools, say func(Length) string) string {
	in := min(h.Mid.X, h.Mid.Y, p.Width-h.Mid.X, p.Height-h.Mid.Y)
	for _, kind := range []string{"hole", "circle"} {
		if punch, owned, reaches := tools.Reaches(kind, h.Diameter, in); owned && reaches {
			return fmt.Sprintf(", with your %s %s", punch.Size.Exact(measure.Inches),
				map[string]string{"hole": "punch", "circle": "circle cutter"}[kind])
		} else if owned {
			return fmt.Sprintf(": that is %s in and your punch reaches %s. Use a screw punch, or an awl and a round file",
				say(in), say(punch.Reach))
		}
	}
	return ""
}
