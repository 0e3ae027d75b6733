package style

import (
	"slices"

	"brevium/core/assembly"
	"brevium/core/net"
)

var gableCap = &Style{
	ID: "gable-cap", Title: "Gable cap on a box", Level: 3, Tall: true,
	Apart: []string{"base", "cap"},
	About: "A tray with a cap like a little house slipped over it; the ridge is stuck, tied or left to be handed over by. " +
		"For tall treats.",
	Asks: slices.Concat([]Question{wallsFrom("walls", "Base walls", "pinwheel").remedied(rolledWalls)},
		tabQuestions("walls=pinwheel"), []Question{
			length("roof", "Roof", "", "How long the roof slopes are, from eave to ridge."),
			length("seal", "Ridge", "", "How high the strip is that is stuck together at the top."),
			length("skirt", "Skirt", "", "How far the cap comes down over the tray."),
			length("seam", "Seam", "", "How wide the cap's glued seam is."),
			choose("gussets", "Gussets", "",
				"scored | Scored | Two slanting scores on each end: card folds in where it should.",
				"pinched | Pinched | Only bent by hand: for thin paper.").remedied(Remedy{For: Uncracked,
				From: "pinched", To: "scored", Says: "Score the gussets."}),
		}),
	Build: buildGableCap,
}

// buildGableCap slips a tube over a tray. Two opposite panels slope in to a
// ridge; the two between fold in as gussets, each along two slanting scores
// from the middle of its upper edge to its lower corners.
func buildGableCap(j *Spec) *Box {
	step, c, size := j.Mark(), j.Over("base", "cap", 0), j.Size()
	if j.Given == nil {
		size.Length = max(size.Length, size.Width) // the ridge is no shorter than the ends are wide
	}
	d := dims(size.Length+c, size.Width+c, size.Depth)
	j.Want("length", d.Length, d.Width, "The ridge", "room for gussets half as deep as the width at either end")
	j.Want("width", d.Width, 2*j.Adhesive.Width, "An end", "its ridge, folded in two,")
	roof := slopes(j, "roof", d, (d.Width * 2 / 3).Up(step), true)
	seal := j.Measure("seal", (12 * mm).Up(step), j.sticks(0), Free)
	skirt := j.Measure("skirt", max((size.Depth*5/8).Up(step), min(size.Depth, j.Wide())), j.sticks(0),
		most(size.Depth, "depth", "the tray is no deeper"))
	seam := j.Measure("seam", j.seamWide(), j.seals(), halfOf(d.Width/2-j.T(), "width", "it would lie in the gusset's fold"))
	walls := j.Choice("walls")
	b := j.box(size, tray(j.As("base"), "base", "base", size, walls))
	b.Clearance = c
	put := b.Add(Gable(j.As("cap"), "cap", d, roof, seal, skirt, seam),
		assembly.Place{Face: "back", On: "base/back", Down: (skirt - size.Depth) / 2, Out: c / 2})
	put.When, put.Off = net.Close, assembly.Up
	b.GoesOver("cap", "base", around...)
	b.Needs("brad", 1, 0, "a ribbon or a brad for the ridge, if it should open again")
	b.DoFlat("cap", "Decide now whether the ridge should open again. "+
		"If so, pierce its strips for a ribbon or a brad, and don't stick them.")
	j.note("clearance", "cap", "", c, "The cap is larger than the tray, so that it slips over it.")
	return b
}

// Gable is the cap: a tube with a ridge over its walls.
func Gable(j *Spec, name string, d Dims, roof, seal, skirt, seam Length) *net.Piece {
	half := d.Width / 2
	p := net.Grid(name, net.Cols(d.Length, half, d.Width-half, d.Length, half, d.Width-half, seam),
		net.Rows(seal, roof, skirt), `
		back-seal   right-back-seal right-front-seal  front-seal   left-front-seal left-back-seal  .
		back-roof   right-gusset    right-gusset      front-roof   left-gusset     left-gusset     seam-top
		back        right           right             front        left            left            seam`)
	kind := map[string]net.Kind{"scored": net.Score, "pinched": net.Bend}[j.Choice("gussets")]
	lean, slant := p.Solved(50), p.Solved(120)
	for _, wall := range [][3]string{{"back", "back-roof", "back-seal"}, {"front", "front-roof", "front-seal"}} {
		p.Free(lean, net.Valley, wall[0], wall[1])
		p.Free(lean, net.Mountain, wall[1], wall[2])
	}
	p.Free(lean, net.Valley, "right", "right-gusset")
	p.Free(lean, net.Valley, "left", "left-gusset")
	p.Free(lean, net.Valley, "seam", "seam-top")
	gussets(p, kind, slant, net.Mountain, "right-gusset", "left-gusset")
	for _, wing := range [][4]string{{"right", "back", "back-roof", "back-seal"},
		{"right", "front", "front-roof", "front-seal"},
		{"left", "front", "front-roof", "front-seal"}} {
		name, top := wing[0]+"-"+wing[1]+"-wing", wing[0]+"-"+wing[1]+"-seal"
		p.Twice(90, 180, net.Valley, name, wing[2])
		p.Twice(90, 180, net.Valley, top, wing[3])
	}
	p.Twice(90, 180, net.Valley, "left-back-wing", "seam-top")
	p.Turn(180, net.Mountain, "right-back-seal", "right-front-seal")
	p.Turn(180, net.Mountain, "left-back-seal", "left-front-seal")
	mitreSeam(j, p, seam, seal, p.Height)
	p.Seam("seam", "left", "back")
	for i, wing := range []string{"right-back", "right-front", "left-front", "left-back"} {
		wall := []string{"back", "front", "front", "back"}[i]
		p.Free(lean, net.Valley, wing+"-wing", wing+"-seal")
		p.Tuck(wing+"-wing", wall+"-roof", 1+i/3)
	}
	// A steep roof brings the wings of a gusset together well below the ridge.
	p.Crowds = [][2]string{{"right-back-wing", "right-front-wing"}, {"left-front-wing", "left-back-wing"}}
	p.Glue("right-back-seal", "back-seal")
	p.Glue("left-back-seal", "back-seal")
	p.GlueOver("right-front-seal", "back-seal", 2)
	p.GlueOver("left-front-seal", "back-seal", 2)
	p.GlueOver("front-seal", "back-seal", 3)
	p.Role("ridge strip", "back-seal", "front-seal", "right-back-seal", "right-front-seal", "left-front-seal",
		"left-back-seal")
	p.Role("roof slope", "back-roof", "front-roof")
	p.Role("gusset", "right-gusset", "left-gusset")
	moved := append([]string{"seam-top", "right-back-seal", "right-front-seal", "left-front-seal", "left-back-seal"},
		wings...)
	p.Root = "back"
	p.FoldUp(append([]string{"right", "front", "left", "seam"}, moved...)...)
	p.Tell("wrap the four walls round to the seam")
	p.GlueNow("seam-top", "back-roof")
	p.FoldUp(append([]string{"back-roof", "front-roof", "right-gusset", "left-gusset", "back-seal", "front-seal"},
		moved...)...)
	p.Tell("push the gussets in and bring the roof slopes together")
	return p
}
