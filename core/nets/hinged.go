package nets

import "brevium/core/net"

// Hinged is a box whose lid hangs on its back wall: lid front, lid, hinge wall, base and front in one column, the sides
// of lid and base beside them. Of seven columns the third and the fifth are what the lid is wider than the base on
// each side, and the outermost what its sides are lower than the base's; a column of no size falls out.
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

// Spread gives the squares that are cut away of three columns as those of the seven of Hinged.
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
