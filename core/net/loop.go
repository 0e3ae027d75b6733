package net

import "strings"

// Loop is a strip round four sides, so deep and so high, its lap out of sight under
// the first. Its sides follow each other down the drawing or, level, to the right.
func Loop(name string, round [4]string, wide, deep, high, lap, t Length, level bool) *Piece {
	p := loop(name, round, wide, [5]Length{deep, high, deep, high, lap}, t, level)
	p.Seam("lap", round[3], round[0])
	return p
}

// LoopMiddle is Loop with its lap in the middle of the first side, of which the strip's two ends cover a
// part each: it gives how far the first end reaches, from where it hangs on the second side.
func LoopMiddle(name string, round [4]string, wide, deep, high, lap, t, step Length, level bool) (p *Piece, reach Length) {
	reach = ((deep + lap) / 2).Up(step)
	p = loop(name, round, wide, [5]Length{reach, high, deep, high, deep + lap - reach}, t, level)
	p.GlueLapped("lap", round[0], 1)
	return p, reach
}

func loop(name string, round [4]string, wide Length, sides [5]Length, t Length, level bool) *Piece {
	p := Grid(name, []Length{wide}, sides[:], strings.Join(round[:], "\n")+"\nlap")
	if level {
		p = Grid(name, sides[:], []Length{wide}, strings.Join(round[:], " ")+" lap")
	}
	p.Part, p.Root = Band, round[0]
	p.Tab("lap", round[3], TabShape{Reach: sides[4], Relief: t})
	p.Role("lap", "lap")
	p.FoldUp(round[1], round[2], round[3], "lap")
	return p
}
