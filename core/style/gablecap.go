package style

import (
	"slices"

	"brevium/core/assembly"
	"brevium/core/net"
	"brevium/core/nets"
)

var gableCap = &Style{
	ID: "gable-cap", Title: "Gable cap on a box", Level: 3, Tall: true,
	Apart: []string{"base", "cap"},
	About: "A tray with a cap like a little house. The ridge is stuck, tied or carried by hand. For tall treats.",
	Asks: slices.Concat([]Question{wallsFrom("walls", "Base walls", "pinwheel").as(Walls).remedied(rolledWalls)},
		tabQuestions("walls=pinwheel"), []Question{
			length("roof", "Roof", "", "How long the roof slopes are, from eave to ridge."),
			length("seal", "Ridge", "", "The height of the strip that is glued together at the top."),
			length("skirt", "Skirt", "", "How far the cap comes down over the tray."),
			length("seam", "Seam", "", "How wide the cap's glued seam is."),
			choose("gussets", "Gussets", "",
				"scored | Scored | Two slanting scores on each end, so the card folds in where it should.",
				"pinched | Pinched | Only bent by hand: for thin paper.").as(Gussets).remedied(Remedy{For: Uncracked,
				From: "pinched", To: "scored", Says: "Score the gussets."}),
		}),
	Build: buildGableCap,
}

// buildGableCap slips a tube over a tray. Two opposite panels slope in to a ridge; the two between fold in as
// gussets, each along two slanting scores from the middle of its upper edge to its lower corners.
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
	crease := map[string]net.Kind{"scored": net.Score, "pinched": net.Bend}[j.Choice("gussets")]
	cap := nets.Slopes{Name: "cap", Length: d.Length, Width: d.Width, Slope: roof, Seam: seam, T: j.As("cap").T(), Mark: step}
	b.PutOn(cap.Gable(seal, skirt, crease), assembly.Up,
		assembly.Place{Face: "back", On: "base/back", Down: (skirt - size.Depth) / 2, Out: c / 2})
	b.GoesOver("cap", "base", around...)
	b.Needs("brad", 1, 0, "a ribbon or a brad for the ridge, if it should open again")
	b.DoFlat("cap", "Decide now whether the ridge should open again. "+
		"If so, pierce its strips for a ribbon or a brad, and don't stick them.")
	j.note("clearance", "cap", "", c, "The cap is larger than the tray, so it slips over.")
	return b
}
