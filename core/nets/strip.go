package nets

import (
	"brevium/core/net"
)

// Strip is a strip with a flap: flap, top, back, bottom and front in one column, what makes its sides beside them.
type Strip struct {
	Sizes
	Tab  func() net.TabShape // of the tabs that stick the sides
	Dust func() net.TabShape // of the flaps that go in under the top
}

// FromBase stands the sides up from the bottom, over tabs of front and back; dust flaps hang on the top and go down
// inside.
func (s Strip) FromBase() Net {
	n := s.Fill(`
		left-flap       flap    right-flap
		left-dust       top     right-dust
		-               ~       -
		back-left-tab   back    back-right-tab
		-               ~       -
		left            bottom  right
		-               ~       -
		front-left-tab  front   front-right-tab`)
	for _, side := range Sides {
		for _, end := range Ends {
			if tab := end + "-" + side + "-tab"; !n.Gone[tab] {
				n.Corner(tab, end, side, s.Tab())
			}
		}
		n.dust(side, "top", side, 2, s.Dust)
	}
	n.FoldUp("back", "front", "back-left-tab", "front-left-tab", "back-right-tab", "front-right-tab")
	n.FoldUp("left", "right")
	n.closing()
	return n
}

// FromWalls makes each side of a cell of the front and one of the back, the inner one reaching so far behind the
// outer. What stands up from the bottom beside them is stuck inside, all of it or lapped.
func (s Strip) FromWalls(outer, inner string, reach Length, lapped bool) Net {
	n := s.Fill(`
		left-flap   flap     right-flap
		left-dust | top    | right-dust
		back-left   back     back-right
		-           ~        -
		left-tab    bottom   right-tab
		-           ~        -
		front-left  front    front-right`)
	for _, side := range Sides {
		if !n.Gone[inner+"-"+side] && !n.Gone[outer+"-"+side] {
			n.Shorten(inner+"-"+side, inner, reach)
			n.Glue(inner+"-"+side, outer+"-"+side)
			if s.Cols[0] == s.Rows[3] { // the outer one is as wide as the box
				n.Meet(outer+"-"+side, inner)
			}
		}
		if tab := side + "-tab"; !n.Gone[tab] {
			n.Tab(tab, "bottom", s.Tab())
			if n.Role("tab", tab); lapped {
				n.GlueLapped(tab, outer+"-"+side, 2)
			} else {
				n.GlueOver(tab, outer+"-"+side, 2)
			}
		}
		n.dust(side, "back-"+side, "top", 1, s.Dust)
	}
	n.FoldUp("left-tab", "right-tab")
	n.FoldUp(inner, inner+"-left", inner+"-right")
	n.FoldUp(outer, outer+"-left", outer+"-right")
	n.closing()
	return n
}

// dust shapes the dust flap of a side, if it has one.
func (n Net) dust(side, hang, behind string, layers int, shape func() net.TabShape) {
	if name := side + "-dust"; !n.Gone[name] {
		n.Tucked(name, hang, behind, layers, shape())
		n.Role("dust flap", name)
	}
}

// closing closes the dust flaps that there are.
func (n Net) closing() {
	if !n.Gone["left-dust"] || !n.Gone["right-dust"] {
		n.Closing("left-dust", "right-dust")
	}
}

// Hinged is a box whose lid hangs on its back wall: lid front, lid, hinge wall, base and front in one column, the
// sides of lid and base beside them. Of the seven columns the third and the fifth are what the lid is wider than
// the base on each side, the outermost what its sides are lower than the base's. A column of no size falls out.
func (s Sizes) Hinged(tab, lidTab func() net.TabShape) Net {
	n := s.Fill(`
		.              lid-left-tab   | lid-front lid-front lid-front | lid-right-tab   .
		.              lid-left         lid       lid       lid         lid-right       .
		-              -                -         ~         -           -               -
		back-left-tab  back-left-tab    back-left-tab  | back | back-right-tab back-right-tab  back-right-tab
		left           left             left      base        right     right           right
		front-left-tab front-left-tab   front-left-tab | front | front-right-tab front-right-tab front-right-tab`)
	n.Corners(tab)
	for _, side := range Sides {
		if tab := "lid-" + side + "-tab"; !n.Gone[tab] {
			n.Corner(tab, "lid-"+side, "lid-front", lidTab())
		}
	}
	n.Root = "base"
	FoldWalls(n.Piece)
	n.FoldUp("lid-left", "lid-right", "lid-left-tab", "lid-right-tab")
	n.FoldUp("lid-front")
	n.Closing("lid")
	return n
}

// Spread turns three columns into the seven of Hinged, with the squares that are cut away.
func (s Sizes) Spread() Sizes {
	away := map[[2]int]bool{}
	for at, gone := range s.Away {
		for c := range 7 {
			if of := []int{0, 0, 0, 1, 2, 2, 2}[c]; of == at[0] && gone {
				away[[2]int{c, at[1]}] = true
			}
		}
	}
	s.Cols, s.Away = net.Cols(0, s.Cols[0], 0, s.Cols[1], 0, s.Cols[2], 0), away
	return s
}
