package nets

import (
	"slices"
	"strings"

	"brevium/core/net"
)

// Tube is four walls in a row and the seam that closes them, before the first or after the last.
type Tube struct {
	Sizes
	SeamFirst   bool
	Mitre       Length  // of the seam's ends
	Top, Bottom TubeEnd // of a carton
	Closes      string  // what the name of its closing panels begins with; the end follows
}

// TubeEnd is what closes an end of a carton.
type TubeEnd int

// An end is open, or has a flap on each wall, or a panel on the back between two dust flaps, or such a panel with a lip.
const (
	Open TubeEnd = iota
	Flaps
	Panel
	Lip
)

// Carton stands the walls side by side round what lies on the bottom, which is so long and so wide. The flaps of its
// ends are left to be shaped and folded.
func (t Tube) Carton(long, wide Length) Net {
	walls := []string{"back", "right", "front", "left"}
	lines := slices.Concat(t.end("top", t.Top), []string{strings.Join(t.order(walls, "seam"), " ")}, t.end("bottom", t.Bottom))
	n := t.Fill(strings.Join(lines, "\n"))
	n.stickSeam(t, walls)
	n.Root = "back"
	if panel := t.Closes + "bottom"; t.Bottom != Open && !n.Gone[panel] {
		n.Stand(panel, long, wide)
		n.FoldUp("back")
	}
	n.FoldUp("right", "front", "left", "seam")
	return n
}

// end is the picture of an end of a carton.
func (t Tube) end(end string, kind TubeEnd) (rows []string) {
	panel, front := t.Closes+end, "."
	row := func(cells ...string) { rows = append(rows, strings.Join(t.order(cells, "."), " ")) }
	if kind == Flaps {
		front = "| front-" + end + " |"
	}
	if kind != Open {
		row(panel+" |", "right-"+end, front, "left-"+end)
	}
	if kind == Lip {
		row(panel+"-lip", ".", ".", ".")
	}
	if end == "top" {
		slices.Reverse(rows)
	}
	return rows
}

// Sleeve lays the walls one below the other or side by side, round what slides in on the bottom. Closed, an end stands
// up from the bottom beside tabs of its neighbours: its column is the second, and the seam comes first.
func (t Tube) Sleeve(walls []string, closed bool) Net {
	picture := strings.Join(t.order(walls, "seam"), map[bool]string{true: " ", false: "\n"}[len(t.Rows) == 1])
	if closed {
		picture = `
			seam     .
			bottom   end
			~        -
			front    front-tab
			~        -
			top      .
			~        -
			back     back-tab`
	}
	n := t.Fill(picture)
	n.stickSeam(t, walls)
	n.Root = "bottom"
	return n
}

// order puts the seam before or after the four walls.
func (t Tube) order(walls []string, seam string) []string {
	if t.SeamFirst {
		return append([]string{seam}, walls...)
	}
	return append(slices.Clone(walls), seam)
}

// stickSeam sticks the seam, which hangs on the wall beside it, behind the wall at the other end.
func (n Net) stickSeam(t Tube, walls []string) {
	from, to := walls[3], walls[0]
	if t.SeamFirst {
		from, to = to, from
	}
	segments := t.Cols
	if len(segments) < 5 {
		segments = t.Rows
	}
	n.Tab("seam", from, net.TabShape{Reach: min(segments[0], segments[4]), Relief: t.T, Mitre: t.Mitre})
	n.Seam("seam", from, to)
}
