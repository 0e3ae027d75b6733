package box

import (
	"fmt"
	"math"

	"brevium/core/measure"
	"brevium/core/sheet"
)

var gableCap = &Style{
	ID: "gable-cap", Title: "Gable cap on a box",
	About: "A tray with a cap like a little house slipped over it; the ridge is stuck, tied or left to be handed over by. For tall treats.",
	Level: 3, Suits: Suits{Tall: true},
	Options: []Option{
		wallsFrom("walls", "Base walls", "pinwheel"),
		tabsUnless("walls=pinwheel"), tabWidth,
		{ID: "roof", Label: "Roof", Help: "How long the roof slopes are, from eave to ridge."},
		{ID: "seal", Label: "Ridge", Help: "How high the strip is that is stuck together at the top."},
		{ID: "skirt", Label: "Skirt", Help: "How far the cap comes down over the tray."},
		{ID: "seam", Label: "Seam", Help: "How wide the cap's glued seam is."},
		{ID: "gussets", Label: "Gussets", Default: "scored", Choices: []Choice{
			{"scored", "Scored", "Two slanting scores on each end: card folds in where it should."},
			{"pinched", "Pinched", "Only bent by hand: for thin paper."},
		}},
	},
	Build: buildGableCap,
}

// buildGableCap slips a tube over a tray. Two opposite panels slope in to a
// ridge; the two between fold in as gussets, each along two slanting scores
// from the middle of its upper edge to its lower corners.
func buildGableCap(j *Job) *Box {
	t, step := j.T(), j.Step.Size
	walls := j.Choice("walls")
	c := j.Clearance(0)
	taken := takes(walls, t)
	size := j.Size(taken)
	around := Dims{size.Length + c, size.Width + c, size.Depth}
	roof := j.Measure("roof", (around.Width * 2 / 3).Up(step))
	if !j.Asked("roof") && j.Proud > 0 {
		least, ok := j.roofOver(around, true)
		if !ok {
			return nil
		}
		roof = max(roof, least)
	}
	seal := j.Measure("seal", (12 * measure.Millimetre).Up(step))
	skirt := j.Measure("skirt", max((size.Depth*5/8).Up(step), min(size.Depth, j.Adhesive.Width.Up(step))))
	seam := j.Measure("seam", j.Adhesive.Width.Up(step))
	for id, l := range map[string]Length{"roof": roof, "seal": seal, "skirt": skirt, "seam": seam} {
		j.settle(id, l)
	}
	if !j.trayCanBe("base", size, walls) || !j.capCanBe(around, roof, seal, skirt, seam) {
		return nil
	}
	rise := RoofRise(roof, around.Width)
	cap := j.gable(around, roof, seal, skirt, seam)
	return &Box{
		Size: size, Clearance: c, Holder: "base", Rim: size.Depth, Strength: 2, Peaked: true, Seams: "One on the cap, at the back left edge.",
		Inside:   size.less(taken),
		Outside:  Dims{around.Length + t, around.Width + t, size.Depth + t/2 + rise + seal},
		Pieces:   []*sheet.Piece{j.tray("base", "base", size, walls), cap},
		Mounts:   []Mount{{Piece: "cap", Face: "back", On: "base", OnFace: "back", Down: (skirt - size.Depth) / 2, Out: c / 2, Closes: "up", Clears: []string{"left", "right", "front", "back"}}},
		Supplies: []string{"ribbon or a paper fastener for the ridge, if it is to be opened again"},
	}
}

func (j *Job) gable(d Dims, roof, seal, skirt, seam Length) *sheet.Piece {
	half := d.Width / 2
	p := sheet.Grid("cap", sheet.Cols(d.Length, half, d.Width-half, d.Length, half, d.Width-half, seam), sheet.Rows(seal, roof, skirt), `
		back-seal   right-back-seal right-front-seal  front-seal   left-front-seal left-back-seal  .
		back-roof   right-gusset    right-gusset      front-roof   left-gusset     left-gusset     seam-top
		back        right           right             front        left            left            seam`)
	kind := sheet.Score
	if j.Choice("gussets") == "pinched" {
		kind = sheet.Bend
	}
	lean := math.Asin(half.MM() / roof.MM()) // of the roof, from the upright
	deg := 180 / math.Pi
	// A wing lies back against the roof; between it and the gusset's middle the
	// faces' insides meet at an angle whose cosine is -sin²(lean).
	slant := math.Acos(-math.Sin(lean)*math.Sin(lean)) * deg
	eave, ridge := seal+roof, seal
	p.Turn(false, eave, lean*deg, sheet.Valley)
	p.Turn(false, ridge, lean*deg, sheet.Mountain)
	for _, side := range []struct{ name, first, then string }{{"right", "back", "front"}, {"left", "front", "back"}} {
		lo, hi := p.Cell(side.name + "-gusset")
		tip := sheet.Point{X: (lo.X + hi.X) / 2, Y: ridge}
		p.Rename(side.name+"-gusset", sheet.Point{X: tip.X, Y: hi.Y - roof/4})
		for _, wing := range []struct {
			name string
			x    Length
		}{{side.first, lo.X}, {side.then, hi.X}} {
			p.Slant(kind, tip, sheet.Point{X: wing.x, Y: eave}, slant, sheet.Mountain)
			name := side.name + "-" + wing.name + "-wing"
			p.Label(sheet.Point{X: wing.x + (tip.X-wing.x)/6, Y: ridge + roof/6}, name)
			p.FoldTwice(sheet.Point{X: wing.x, Y: ridge}, sheet.Point{X: wing.x, Y: eave}, 90, 180, sheet.Valley)
			p.FoldTwice(sheet.Point{X: wing.x, Y: 0}, sheet.Point{X: wing.x, Y: ridge}, 90, 180, sheet.Valley)
			p.Refold(sheet.Point{X: wing.x, Y: ridge}, tip, lean*deg, sheet.Valley)
		}
		p.Refold(sheet.Point{X: tip.X, Y: 0}, tip, 180, sheet.Mountain)
	}
	j.mitreSeam(p, seam, seal, p.Height)
	p.Glue("seam", "back")
	p.Meet("left", "back")
	p.Tuck("right-back-wing", "back-roof", 1)
	p.Tuck("right-front-wing", "front-roof", 1)
	p.Tuck("left-front-wing", "front-roof", 1)
	p.Tuck("left-back-wing", "back-roof", 2)
	// A steep roof brings the wings of a gusset together well below the ridge.
	p.Crowds = [][2]string{{"right-back-wing", "right-front-wing"}, {"left-front-wing", "left-back-wing"}}
	p.Glue("right-back-seal", "back-seal")
	p.Glue("left-back-seal", "back-seal")
	p.GlueOver("right-front-seal", "back-seal", 2)
	p.GlueOver("left-front-seal", "back-seal", 2)
	p.GlueOver("front-seal", "back-seal", 3)
	wings := []string{"right-back-wing", "right-front-wing", "left-front-wing", "left-back-wing", "seam-top",
		"right-back-seal", "right-front-seal", "left-front-seal", "left-back-seal"}
	p.Root = "back"
	p.FoldUp(append([]string{"right", "front", "left", "seam"}, wings...)...)
	p.Tell("wrap the four walls round to the seam")
	p.GlueNow("seam-top", "back-roof")
	p.FoldUp(append([]string{"back-roof", "front-roof", "right-gusset", "left-gusset", "back-seal", "front-seal"}, wings...)...)
	p.Tell("push the gussets in and bring the roof slopes together")
	return p
}

func (j *Job) capCanBe(d Dims, roof, seal, skirt, seam Length) bool {
	before := len(j.Problems)
	wide, step := j.Adhesive.Width, j.Step.Size
	enough := j.Say(wide.Up(step))
	if d.Width > d.Length {
		j.Problem(j.SizeField("width"), fmt.Sprintf("The ridge runs from left to right, and gussets as deep as half the width (%s) don't fit under one %s long.", j.Say(d.Width), j.Say(d.Length)), "Make the box at least as long as it is wide.")
	}
	if least := (d.Width*11/20 + step).Up(step); roof < least {
		j.Problem("box.options.roof", fmt.Sprintf("Slopes of %s don't meet over a width of %s.", j.Say(roof), j.Say(d.Width)), "Make them at least "+j.Say(least)+".")
	} else if roof > 3*d.Width {
		j.Problem("box.options.roof", fmt.Sprintf("Slopes of %s make a steeple of a box %s wide.", j.Say(roof), j.Say(d.Width)), "Make them "+j.Say(3*d.Width)+" or less.")
	}
	if seal < wide {
		j.Problem("box.options.seal", fmt.Sprintf("A ridge of %s is too narrow for %s, which wants %s.", j.Say(seal), j.Adhesive.Title, enough), "Make it at least "+enough+".")
	}
	if skirt > d.Depth || skirt < wide {
		j.Problem("box.options.skirt", fmt.Sprintf("A skirt of %s does not suit a tray %s deep.", j.Say(skirt), j.Say(d.Depth)), "Make it between "+enough+" and "+j.Say(d.Depth)+".")
	}
	if seam < wide || seam > d.Width/2-j.T() {
		j.Problem("box.options.seam", fmt.Sprintf("A seam of %s does not hold here.", j.Say(seam)), "Make it between "+enough+" and "+j.Say((d.Width/2-j.T()).Down(step))+".")
	}
	if d.Width/2 < wide {
		j.Problem(j.SizeField("width"), fmt.Sprintf("The ends are %s wide; folded in, each half of their ridge wants %s.", j.Say(d.Width), enough), "Make the box wider.")
	}
	return len(j.Problems) == before
}
