package style

import (
	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/fasteners"
	"brevium/core/nets"
)

var pinchTop = &Style{
	ID: "pinch-top", Title: "Pinch-top tube", Level: 1, Tall: true,
	About: "A tube pinched flat at the top and held by a clip or a ribbon. For one upright thing, or small sweets.",
	Asks: []Question{
		length("pinch", "Pinched part", "", "How far the sides reach above your things."),
		choose("closure", "Closed by", "", "clip | A clip | A peg or clip on the pinched line.",
			"ribbon | A ribbon | Through holes punched in front and back.").as(Closing),
		more("hole", "Holes", "closure=ribbon", "How wide the ribbon's holes are."),
		more("drop", "Holes, down", "closure=ribbon", "How far the middle of each hole is below the pinched line."),
		length("flaps", "Base flaps", "", "The depth of the flaps that close the base. Make them deeper than half the side."),
		length("seam", "Seam", "", "How wide the glued seam is."),
	},
	Build: buildPinchTop,
}

// buildPinchTop closes a tube below with two pairs of overlapping flaps and
// above by pinching front and back together. Nothing is scored there: the card
// bends. The corner scores run on to the top and are pressed flat again.
func buildPinchTop(j *Spec) *Box {
	t, step, d := j.T(), j.Mark(), j.Size()
	l, w := d.Length, d.Width
	short, long := min(l, w), max(l, w)
	pinch := slopes(j, "pinch", d, (long * 4 / 5).Up(step), false)
	hole, widest := Length(0), most(short-2*t, shorter(d), "it would reach past the side")
	if j.Is("closure", "ribbon") {
		hole = holeSize(j, l, pinch)
		if beside := (l-hole)/2 - 3*mm; beside < widest.At {
			widest = halfOf(beside, "length", "it would reach past a hole")
		}
	}
	seam := j.Measure("seam", j.seamWide(), j.seals(), widest)
	j.Want("depth", d.Depth, j.Adhesive.Width, "The tube", "its seam")
	j.Want(shorter(d), short-2*t-2*step, j.Adhesive.Width, "The shorter side, less the card", "a flap that is stuck below")
	// Each pair of flaps laps by at least what sticks it.
	lap := func(side Length) Length { return side/2 + j.Adhesive.Width/2 + step }
	reach := func(side Length) Length { return min(side-2*t, max(side*5/8, lap(side))).Down(step) }
	flap := j.Measure("flaps", max(reach(l), reach(w)), Bound{At: lap(long), Why: "they must lap over the middle",
		Dim: shorter(d)}, most(long, shorter(d), "the base is no longer"))
	deep := func(side Length) Length {
		if j.Asked("flaps") {
			return min(flap, side-2*t).Down(step)
		}
		return min(flap, reach(side))
	}
	for dim, side := range brief.Sorted(map[string]Length{"length": l, "width": w}) {
		j.Want(dim, 2*deep(side)-side, j.Adhesive.Width, "The overlap of the base flaps", "the glue or tape")
	}
	p := nets.Slopes{Name: "tube", Length: l, Width: w, Slope: pinch, Seam: seam, T: t, Mark: step}.Pinched(
		d.Depth, flap, deep(w), deep(l), j.Adhesive.Width)
	b := j.box(d, p)
	b.Strength, b.OpenBy = 1, 0.5
	b.FoldsOver("tube", [2]string{"right", "front"}, [2]string{"left", "seam"}, [2]string{"right-front-wing", "front-top"},
		[2]string{"left-back-wing", "seam-top"})
	if hole > 0 {
		ribbonHole(j, p, hole, pinch, "back-top", "front-top")
		b.Threads = append(b.Threads, assembly.Thread{What: "ribbon", Faces: []string{"tube/back-top", "tube/front-top"}, Holes: 1})
		ribbon := (2*j.settled["drop"] + 280*mm).Up(10 * step) // over the line twice, and a bow
		fasteners.Ribbon(b, 1, ribbon, "ribbon for the top, "+j.Say(ribbon))
		b.Do("Close", "Thread the ribbon through both holes and tie it over the top.")
	} else {
		b.Needs("clip", 1, 0, "a peg or clip for the top")
		b.Do("Close", "Clip the pinched top with the peg or clip.")
	}
	return b
}
