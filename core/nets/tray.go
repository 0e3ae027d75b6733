// Package nets holds the pictures that boxes are cut by, with the roles of their faces: a tray of single, rolled or
// pinwheeled walls, a strip with a flap. A style fills one with sizes that suit a box; a list of scores from elsewhere
// is matched against them and fills one with its own, some of its squares maybe cut away.
package nets

import (
	"strings"

	"brevium/core/measure"
	"brevium/core/net"
)

type Length = measure.Length

// Ends and Sides are the walls of a tray, in the order in which they are told.
var Ends, Sides = []string{"back", "front"}, []string{"left", "right"}

// Sizes are what a picture is filled with.
type Sizes struct {
	Name       string
	Cols, Rows []Length
	Away       map[[2]int]bool // squares that are cut away, by column and row from 0
	T          Length          // the caliper of the card
}

// Net is a picture filled with sizes: a piece, and which of its cells are cut away.
type Net struct {
	*net.Piece
	Gone map[string]bool
}

// Fill fills a picture of cells (see net.Grid), less those that are cut away.
func (s Sizes) Fill(picture string) Net {
	if len(s.Away) == 0 {
		return Net{net.Grid(s.Name, s.Cols, s.Rows, picture), nil}
	}
	gone, r := map[string]bool{}, 0
	var out []string
	for line := range strings.SplitSeq(strings.TrimSpace(picture), "\n") {
		words, c := strings.Fields(line), 0
		if strings.Trim(line, "-~ \t") != "" {
			for i, w := range words {
				if w == "|" {
					continue
				}
				if s.Away[[2]int{c, r}] && w != "." {
					gone[w], words[i] = true, "."
				}
				c++
			}
			r++
		}
		out = append(out, strings.Join(words, " "))
	}
	return Net{net.Grid(s.Name, s.Cols, s.Rows, strings.Join(out, "\n")), gone}
}

// Corners makes the corner squares tabs on the side walls, stuck behind back and front.
func (n Net) Corners(tab func() net.TabShape) {
	for _, end := range Ends {
		for _, side := range Sides {
			if name := end + "-" + side + "-tab"; n.Gone[name] {
				n.Meet(end, side)
			} else {
				n.Corner(name, side, end, tab())
			}
		}
	}
}

// FoldWalls folds the walls of a tray with tabs: sides, tabs, ends.
func FoldWalls(p *net.Piece) {
	p.FoldUp("left", "right")
	p.FoldUp("back-left-tab", "front-left-tab", "back-right-tab", "front-right-tab")
	p.FoldUp("back", "front")
}

// Single is a tray of three columns and three rows, whose corner squares are tabs.
func (s Sizes) Single(panel string, tab func() net.TabShape) Net {
	n := s.Fill(`
		back-left-tab  | back  | back-right-tab
		left             ` + panel + `  right
		front-left-tab | front | front-right-tab`)
	n.Root = panel
	n.Corners(tab)
	FoldWalls(n.Piece)
	return n
}

// Rolled is a tray of five columns and five rows: the walls are scored twice, folded over inwards and stuck down over the
// tabs. The inner flaps are relieved at their ends by what lies inside the walls they run into, or they would not lie
// flat.
func (s Sizes) Rolled(panel string, tab func() net.TabShape) Net {
	n := s.Fill(`
		.          .                back-roll   .                 .
		.          back-left-tab  | back      | back-right-tab    .
		left-roll  left             ` + panel + `   right             right-roll
		.          front-left-tab | front     | front-right-tab   .
		.          .                front-roll  .                 .`)
	n.Corners(tab)
	for i, end := range Ends {
		n.Tab(end+"-roll", end, net.TabShape{Reach: s.Rows[4*i], Relief: 2 * s.T})
		n.GlueOver(end+"-roll", end, 2)
		n.Turn(180, net.Valley, end, end+"-roll")
	}
	for i, side := range Sides {
		n.Tab(side+"-roll", side, net.TabShape{Reach: s.Cols[4*i], Relief: 3 * s.T})
		n.Glue(side+"-roll", side)
		n.Turn(180, net.Valley, side, side+"-roll")
	}
	n.Role("rolled flap", "left-roll", "right-roll", "back-roll", "front-roll")
	n.Root = panel
	FoldWalls(n.Piece)
	n.FoldUp("left-roll", "right-roll")
	n.FoldUp("back-roll", "front-roll")
	return n
}

// Pinwheel is a tray of three columns and three rows: each corner is slit once, the same way round, and its square
// wrapped on to the next wall, trimmed by a caliper.
func (s Sizes) Pinwheel(panel string) Net {
	n := s.Fill(`
		left-wrap  | back    back-wrap
		~            ~       -
		left         ` + panel + ` right
		-            ~       ~
		front-wrap   front | right-wrap`)
	for _, w := range []struct {
		from, to    string
		deep, along Length
	}{{"left", "back", s.Rows[0], s.Cols[1]}, {"back", "right", s.Cols[2], s.Rows[1]},
		{"right", "front", s.Rows[2], s.Cols[1]}, {"front", "left", s.Cols[0], s.Rows[1]}} {
		if wrap := w.from + "-wrap"; !n.Gone[wrap] {
			n.Corner(wrap, w.from, w.to, net.TabShape{Reach: min(w.deep-s.T, w.along-3*s.T), Relief: s.T})
			n.Role("wrapped corner", wrap)
		}
	}
	n.Root = panel
	n.FoldUp("left", "right", "back", "front")
	n.FoldUp("left-wrap", "back-wrap", "right-wrap", "front-wrap")
	return n
}
