package net_test

import (
	"fmt"

	"brevium/core/measure"
	"brevium/core/net"
)

// The flat piece is a picture of its cells: "|" is a slit, a blank a score. Faces are found from the lines, so a
// slit that was forgotten is a fault with a name.
func ExampleGrid() {
	const cm = 10 * measure.Millimetre
	tray := func(corner string) *net.Piece {
		p := net.Grid("base", net.Cols(2*cm, 5*cm, 2*cm), net.Rows(2*cm, 4*cm, 2*cm), `
			a-tab `+corner+` back  | b-tab
			left    base    right
			c-tab | front | d-tab`)
		p.Corner("a-tab", "left", "back", net.TabShape{Reach: 2 * cm})
		p.FoldUp("left", "right")
		p.Find()
		return p
	}
	p := tray("|")
	fmt.Println(len(p.Kept()), "faces,", len(p.Passes), "scores,", len(p.Faults), "faults")
	fmt.Println(p.Width.Exact(measure.Centimetres), "wide; fold up", p.Says(p.Order[0]))
	// Output:
	// 9 faces, 4 scores, 0 faults
	// 9 cm wide; fold up left and right
}
