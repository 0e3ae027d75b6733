package box

import (
	"fmt"
	"math"

	"brevium/core/measure"
	"brevium/core/sheet"
)

var pinchTop = &Style{
	ID: "pinch-top", Title: "Pinch-top tube", Level: 1, Suits: Suits{Flat: true, Tall: true},
	About: "A tube whose top is pinched flat to a line and held by a clip or a ribbon. For one upright thing, or small sweets.",
	Options: []Option{
		{ID: "pinch", Label: "Pinched part", Help: "How long the sides are above what goes in."},
		{ID: "closure", Label: "Closed by", Default: "clip", Choices: []Choice{
			{"clip", "A clip", "A peg or clip on the pinched line."},
			{"ribbon", "A ribbon", "Through holes punched in front and back."},
		}},
		{ID: "flaps", Label: "Base flaps", Help: "How deep the flaps are that close the base: more than half the side."},
		{ID: "seam", Label: "Seam", Help: "How wide the glued seam is."},
	},
	Build: buildPinchTop,
}

// buildPinchTop closes a tube below with two pairs of overlapping flaps and
// above by pinching front and back together. Nothing is scored there: the card
// bends. The corner scores run on to the top and are pressed flat again.
func buildPinchTop(j *Job) *Box {
	t, step := j.T(), j.Step.Size
	// Walls take a caliper, the seam another at the side it lies on; four
	// flaps lie on each other below.
	taken := Dims{3 * t, 3 * t, 4 * t}
	size := j.Size(taken)
	l, w, h := size.Length, size.Width, size.Depth
	pinch := j.Measure("pinch", (max(w, l) * 4 / 5).Up(step))
	if !j.Asked("pinch") && j.Proud > 0 {
		least, ok := j.roofOver(size, false)
		if !ok {
			return nil
		}
		pinch = max(pinch, least)
	}
	seam := j.Measure("seam", j.Adhesive.Width.Up(step))
	// Each pair of flaps laps by at least what sticks it.
	reach := func(side Length) Length {
		return min(side-2*t, max(side*5/8, side/2+j.Adhesive.Width/2+step)).Down(step)
	}
	flap := j.Measure("flaps", max(reach(l), reach(w)))
	j.settle("pinch", pinch)
	j.settle("seam", seam)
	j.settle("flaps", flap)
	deep := func(side Length) Length {
		if j.Asked("flaps") {
			return min(flap, side-2*t).Down(step)
		}
		return min(flap, reach(side))
	}
	if !j.pinchCanBe(size, pinch, seam, flap, 2*deep(w)-w, 2*deep(l)-l) {
		return nil
	}
	p := j.pinched(size, pinch, seam, flap, deep(w), deep(l))
	if j.Choice("closure") == "ribbon" {
		for _, face := range []string{"back-top", "front-top"} {
			lo, hi := p.Cell(face)
			p.Punch(sheet.Point{X: (lo.X + hi.X) / 2, Y: lo.Y + 10*measure.Millimetre}, 3*measure.Millimetre, 0, 0)
			p.Rename(face, sheet.Point{X: (lo.X + hi.X) / 2, Y: hi.Y - pinch/4})
		}
	}
	return &Box{
		Size: size, Holder: "tube", Rim: h, Strength: 1, Floor: 3 * t, Seams: "One, at the back left edge.", Peaked: true, OpenBy: 0.5,
		Inside:   size.less(taken),
		Outside:  Dims{l + w, w + t, h + t + RoofRise(pinch, w)},
		Pieces:   []*sheet.Piece{p},
		Opens:    []string{"back-top", "front-top", "right-top", "left-top", "right-back-wing", "right-front-wing", "left-front-wing", "left-back-wing", "seam-top"},
		Supplies: []string{map[string]string{"clip": "a peg or clip for the top", "ribbon": "ribbon for the top: about four times the box's width"}[j.Choice("closure")]},
	}
}

func (j *Job) pinched(d Dims, pinch, seam, flap, deepW, deepL Length) *sheet.Piece {
	t, step := j.T(), j.Step.Size
	half := d.Width / 2
	p := sheet.Grid("tube", sheet.Cols(d.Length, half, d.Width-half, d.Length, half, d.Width-half, seam), sheet.Rows(pinch, d.Depth, flap), `
		back-top    right-top    right-top    front-top    left-top    left-top    seam-top
		back        right        right        front        left        left        seam
		back-flap | right-flap   right-flap | front-flap | left-flap   left-flap | .`)
	lean := math.Asin(half.MM() / pinch.MM()) // of front and back, from the upright
	deg := 180 / math.Pi
	p.Turn(false, pinch, lean*deg, sheet.Valley)
	p.Bent(false, pinch)
	// Wings lie in the plane of front and back, the side's middle leans out: the
	// cosine between their insides is -sin²(lean).
	slant := math.Acos(-math.Sin(lean)*math.Sin(lean)) * deg
	for _, side := range []struct{ name, first, then string }{{"right", "back", "front"}, {"left", "front", "back"}} {
		lo, hi := p.Cell(side.name + "-top")
		tip := sheet.Point{X: (lo.X + hi.X) / 2, Y: 0}
		p.Rename(side.name+"-top", sheet.Point{X: tip.X, Y: hi.Y - pinch/4})
		p.Refold(sheet.Point{X: lo.X, Y: pinch}, sheet.Point{X: hi.X, Y: pinch}, lean*deg, sheet.Mountain)
		for _, wing := range []struct {
			name string
			x    Length
		}{{side.first, lo.X}, {side.then, hi.X}} {
			p.Slant(sheet.Bend, tip, sheet.Point{X: wing.x, Y: pinch}, slant, sheet.Valley)
			p.Label(sheet.Point{X: wing.x + (tip.X-wing.x)/6, Y: pinch / 6}, side.name+"-"+wing.name+"-wing")
			p.FoldTwice(sheet.Point{X: wing.x, Y: 0}, sheet.Point{X: wing.x, Y: pinch}, 90, 0, sheet.Valley)
		}
	}
	for _, f := range []struct {
		name        string
		side, reach Length
	}{{"back", d.Length, deepW}, {"front", d.Length, deepW}, {"right", d.Width, deepL}, {"left", d.Width, deepL}} {
		// Wedged, but still wide enough at its end to be stuck.
		wedge := max(step, min(f.reach/5, (f.side-2*t-j.Adhesive.Width)/2).Down(step))
		p.Tab(f.name+"-flap", f.name, sheet.TabShape{Reach: f.reach, Relief: t, Mitre: wedge})
	}
	j.mitreSeam(p, seam, 0, pinch+d.Depth)
	p.Glue("seam", "back")
	p.Meet("left", "back")
	p.GlueLapped("front-flap", "back-flap", 1)
	p.GlueLapped("right-flap", "back-flap", 2)
	p.GlueLapped("left-flap", "back-flap", 3)
	p.Root = "back-flap"
	lo, _ := p.Cell("back-flap")
	p.Middle = &sheet.Point{X: d.Length / 2, Y: lo.Y + half}
	tops := []string{"right-back-wing", "right-front-wing", "left-front-wing", "left-back-wing", "seam-top"}
	p.FoldUp("back")
	p.FoldUp(append([]string{"right", "front", "left", "seam"}, tops...)...)
	p.Tell("wrap the four walls round to the seam")
	p.GlueNow("seam-top", "back-top")
	p.FoldUp("left-flap", "right-flap")
	p.FoldUp("front-flap")
	p.FoldUp(append([]string{"back-top", "front-top", "right-top", "left-top"}, tops...)...)
	p.Tell("pinch the top flat")
	return p
}

func (j *Job) pinchCanBe(d Dims, pinch, seam, flap, lapW, lapL Length) bool {
	before := len(j.Problems)
	t, wide, step := j.T(), j.Adhesive.Width, j.Step.Size
	enough := j.Say(wide.Up(step))
	long, short := max(d.Length, d.Width), min(d.Length, d.Width)
	if least := (d.Width*11/20 + step).Up(step); pinch < least {
		j.Problem("box.options.pinch", fmt.Sprintf("Sides of %s can't be pinched to a line over %s.", j.Say(pinch), j.Say(d.Width)), "Make the pinched part at least "+j.Say(least)+".")
	}
	if j.Choice("closure") == "ribbon" && pinch < 30*measure.Millimetre {
		j.Problem("box.options.pinch", fmt.Sprintf("A pinched part of %s has no room for holes.", j.Say(pinch)), "Make it longer, or close it with a clip.")
	}
	if seam < wide || seam > d.Length-2*t || seam > d.Width-2*t {
		j.Problem("box.options.seam", fmt.Sprintf("A seam of %s does not hold here.", j.Say(seam)), "Make it between "+enough+" and "+j.Say((short-2*t).Down(step))+".")
	}
	if d.Depth < wide {
		j.Problem(j.SizeField("depth"), fmt.Sprintf("A seam %s high does not hold.", j.Say(d.Depth)), "Make the tube at least "+enough+" high.")
	}
	if flap <= long/2 || flap > long {
		j.Problem("box.options.flaps", fmt.Sprintf("Base flaps of %s don't close a base %s long.", j.Say(flap), j.Say(long)), "Make them more than half of it, and no more than the whole.")
	} else if lapW < wide || lapL < wide || short-2*t-2*step < wide {
		j.Problem(j.SizeField("width"), fmt.Sprintf("The flaps of a base of %s hardly lap; they want %s to stick.", j.Say(short), enough), "Make the tube wider or the flaps deeper, or stick with wet glue.")
	}
	return len(j.Problems) == before
}
