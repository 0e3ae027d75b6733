package sheet

import "strings"

// Loop is a strip round four sides, so deep and so high, its lap out of sight under
// the first. Its sides follow each other down the drawing or, level, to the right.
func Loop(name string, round [4]string, wide, deep, high, lap, t Length, level bool) *Piece {
	sides := []Length{deep, high, deep, high, lap}
	p := Grid(name, []Length{wide}, sides, strings.Join(round[:], "\n")+"\nlap")
	if level {
		p = Grid(name, sides, []Length{wide}, strings.Join(round[:], " ")+" lap")
	}
	p.Part, p.Root = Band, round[0]
	p.Tab("lap", round[3], TabShape{Reach: lap, Relief: t})
	p.Seam("lap", round[3], round[0])
	p.Role("lap", "lap")
	p.FoldUp(round[1], round[2], round[3], "lap")
	return p
}
