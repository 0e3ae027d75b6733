package box

import (
	"fmt"
	"math"

	"brevium/core/measure"
	"brevium/core/sheet"
)

// RoofRise is how high a roof stands over its eaves: sqrt(s² - (w/2)²) for
// slopes s over a width w.
func RoofRise(slope, width Length) Length {
	s, half := slope.MM(), width.MM()/2
	return measure.FromMM(math.Sqrt(max(0, s*s-half*half)))
}

// roofOver is how long slopes must be for contents that stand above the eaves
// to lie inside the roof at every height; with gussets the ends lean in too.
// When none will do, it says so.
func (j *Job) roofOver(d Dims, gussets bool) (Length, bool) {
	top, t := (j.Proud + 3*j.T()).MM(), j.T().MM()
	beside, eaves := j.Beside.MM()+(d.Width-j.Need.Width).MM()/2-2*t, "shoulder"
	if gussets {
		beside, eaves = min(beside, j.Beside.MM()+(d.Length-j.Need.Length).MM()/2-2*t), "eaves"
	}
	for roof := (d.Width * 11 / 20).Up(j.Step.Size); roof <= 3*d.Width; roof += j.Step.Size {
		// At the height of their upper edges the roof has come in by this much.
		rise := RoofRise(roof, d.Width).MM()
		if rise > top && d.Width.MM()/2*top/rise <= beside {
			return roof, true
		}
	}
	j.Problem("room.proud", fmt.Sprintf("The contents stand %s above the %s, too near the walls for any roof to clear them.", j.Say(j.Proud), eaves), "Leave more finger room round them, or let less stand proud.")
	return 0, false
}

// mitreSeam slants both ends of a seam that runs from top to bottom along the
// right side of a tube.
func (j *Job) mitreSeam(p *sheet.Piece, seam, top, bottom Length) {
	step := j.Step.Size
	for _, end := range []struct{ at, in Length }{{top, step}, {bottom, -step}} {
		p.CutAlong(sheet.Point{X: p.Width - seam, Y: end.at}, sheet.Point{X: p.Width, Y: end.at + end.in})
		p.Discard(sheet.Point{X: p.Width - seam/20, Y: end.at + end.in/20})
	}
}
