package style

import (
	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/net"
)

var pinchTop = &Style{
	ID: "pinch-top", Title: "Pinch-top tube", Level: 1, Tall: true,
	About: "A tube whose top is pinched flat to a line and held by a clip or a ribbon. For one upright thing, or small sweets.",
	Asks: []Question{
		length("pinch", "Pinched part", "", "How long the sides are above what goes in."),
		choose("closure", "Closed by", "", "clip | A clip | A peg or clip on the pinched line.",
			"ribbon | A ribbon | Through holes punched in front and back.").as(Closing),
		more("hole", "Holes", "closure=ribbon", "How wide the ribbon's holes are."),
		more("drop", "Holes, down", "closure=ribbon", "How far their middles are below the pinched line."),
		length("flaps", "Base flaps", "", "How deep the flaps are that close the base: more than half the side."),
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
	hole, widest := Length(0), most(short-2*t, shorter(d), "it would pass the side")
	if j.Is("closure", "ribbon") {
		hole = holeSize(j, l, pinch)
		if beside := (l-hole)/2 - 3*mm; beside < widest.At {
			widest = halfOf(beside, "length", "it would pass a hole")
		}
	}
	seam := j.Measure("seam", j.seamWide(), j.seals(), widest)
	j.Want("depth", d.Depth, j.Adhesive.Width, "The tube", "its seam")
	j.Want(shorter(d), short-2*t-2*step, j.Adhesive.Width, "The shorter side, less the card", "a flap that is stuck below")
	// Each pair of flaps laps by at least what sticks it.
	lap := func(side Length) Length { return side/2 + j.Adhesive.Width/2 + step }
	reach := func(side Length) Length { return min(side-2*t, max(side*5/8, lap(side))).Down(step) }
	flap := j.Measure("flaps", max(reach(l), reach(w)), Bound{At: lap(long), Why: "they must lap over the middle",
		Dim: shorter(d)},
		most(long, shorter(d), "the base is no longer"))
	deep := func(side Length) Length {
		if j.Asked("flaps") {
			return min(flap, side-2*t).Down(step)
		}
		return min(flap, reach(side))
	}
	for dim, side := range brief.Sorted(map[string]Length{"length": l, "width": w}) {
		j.Want(dim, 2*deep(side)-side, j.Adhesive.Width, "What the base flaps lap by", "what sticks them")
	}
	p := pinched(j, "tube", d, pinch, seam, flap, deep(w), deep(l))
	b := j.box(d, p)
	b.Strength, b.OpenBy = 1, 0.5
	b.FoldsOver("tube", [2]string{"right", "front"}, [2]string{"left", "seam"}, [2]string{"right-front-wing", "front-top"},
		[2]string{"left-back-wing", "seam-top"})
	if hole > 0 {
		ribbonHole(j, p, hole, pinch, "back-top", "front-top")
		b.Threads = append(b.Threads, assembly.Thread{What: "ribbon", Faces: []string{"tube/back-top", "tube/front-top"}, Holes: 1})
		ribbon := (2*j.settled["drop"] + 280*mm).Up(10 * step) // over the line twice, and a bow
		b.Needs("ribbon", 1, ribbon, "ribbon for the top, "+j.Say(ribbon))
		b.Do("Close", "Thread the ribbon through both holes and tie it over the top.")
		b.Cautions = []string{assembly.RibbonCare}
	} else {
		b.Needs("clip", 1, 0, "a peg or clip for the top")
		b.Do("Close", "Clip the pinched top with the peg or clip.")
	}
	return b
}

// Pinched is such a tube of sizes from elsewhere, all its base flaps alike.
func Pinched(j *Spec, name string, d Dims, pinch, seam, flap Length) *net.Piece {
	return pinched(j, name, d, pinch, seam, flap, min(flap, d.Width-2*j.T()), min(flap, d.Length-2*j.T()))
}

func pinched(j *Spec, name string, d Dims, pinch, seam, flap, deepW, deepL Length) *net.Piece {
	t, step, half := j.T(), j.Mark(), d.Width/2
	p := net.Grid(name, net.Cols(d.Length, half, d.Width-half, d.Length, half, d.Width-half, seam),
		net.Rows(pinch, d.Depth, flap), `
		back-top    right-top    right-top    front-top    left-top    left-top    seam-top
		back        right        right        front        left        left        seam
		back-flap | right-flap   right-flap | front-flap | left-flap   left-flap | .`)
	lean, slant := p.Solved(40), p.Solved(110)
	p.Free(lean, net.Valley, "back", "back-top")
	p.Free(lean, net.Valley, "front", "front-top")
	p.Free(lean, net.Valley, "seam", "seam-top")
	p.Free(lean, net.Mountain, "right", "right-top")
	p.Free(lean, net.Mountain, "left", "left-top")
	gussets(p, net.Bend, slant, net.Valley, "right-top", "left-top")
	for _, wall := range []string{"back", "right", "front", "left", "seam"} {
		p.Bend(wall, wall+"-top")
	}
	p.Twice(90, 0, net.Valley, "back-top", "right-back-wing")
	p.Twice(90, 0, net.Valley, "front-top", "right-front-wing", "left-front-wing")
	p.Twice(90, 0, net.Valley, "seam-top", "left-back-wing")
	p.Meet("back-top", "front-top")
	for _, f := range []struct {
		name        string
		side, reach Length
	}{{"back", d.Length, deepW}, {"front", d.Length, deepW}, {"right", d.Width, deepL}, {"left", d.Width, deepL}} {
		// Wedged, but still wide enough at its end to be stuck.
		wedge := max(step, min(f.reach/5, (f.side-2*t-j.Adhesive.Width)/2).Down(step))
		p.Tab(f.name+"-flap", f.name, net.TabShape{Reach: f.reach, Relief: t, Mitre: wedge})
	}
	mitreSeam(j, p, seam, 0, pinch+d.Depth)
	p.Seam("seam", "left", "back")
	p.GlueLapped("front-flap", "back-flap", 1)
	p.GlueLapped("right-flap", "back-flap", 2)
	p.GlueLapped("left-flap", "back-flap", 3)
	p.Stand("back-flap", d.Length, d.Width)
	p.FoldUp("back")
	p.FoldUp(append([]string{"right", "front", "left", "seam", "seam-top"}, wings...)...)
	p.Tell("wrap the four walls round to the seam")
	p.GlueNow("seam-top", "back-top")
	p.FoldUp("left-flap", "right-flap")
	p.FoldUp("front-flap")
	p.Closing(append([]string{"back-top", "front-top", "right-top", "left-top", "seam-top"}, wings...)...)
	p.Tell("pinch the top flat")
	return p
}
