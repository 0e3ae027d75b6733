package box

import (
	"brevium/core/sheet"
)

var hingedLid = &Style{
	ID: "hinged-lid", Title: "Hinged-lid box", Level: 2, Suits: Suits{Clean: true, Book: true},
	About: "One piece: the lid hangs on the back wall and closes over the base. Nothing to lose.",
	Options: []Option{
		tabsQuestion, tabWidth,
		{ID: "lid", Label: "Lid", Default: "full", Choices: []Choice{
			{"full", "Full", "Covers the walls nearly to the table."}, {"short", "Short", "Stops part way down."},
		}},
		{ID: "lid-height", Label: "Lid wall", When: "lid=short", Help: "How deep the lid's own walls are."},
	},
	Build: buildHingedLid,
}

// buildHingedLid lays base and lid out in one column: lid front, lid, hinge
// wall, base, front. The lid is wider than the base by the clearance, so its
// side scores stand half of it further out, and its own sides come out that
// much lower.
func buildHingedLid(j *Job) *Box {
	t := j.T()
	c := j.Clearance(0)
	half := (c / 2).Up(j.Step.Size)
	taken := Dims{t, 3 * t, t}
	size := j.Size(taken)
	h := size.Depth
	full := h - half
	wall := full
	if j.Choice("lid") == "short" {
		wall = min(full, j.Measure("lid-height", max((h*3/8).Up(j.Step.Size), (j.Adhesive.Width*3/2).Up(j.Step.Size))))
		j.settle("lid-height", wall)
	}
	lid := Dims{size.Length + 2*half, size.Width + half + j.sliver(), wall}
	if !j.trayCanBe("base", size, "single") || !j.trayCanBe("lid", lid, "single") {
		return nil
	}
	p := sheet.Grid("box", sheet.Cols(full-wall, wall, half, size.Length, half, wall, full-wall), sheet.Rows(wall, lid.Width, h, size.Width, h), `
		.              lid-left-tab   | lid-front lid-front lid-front | lid-right-tab   .
		.              lid-left         lid       lid       lid         lid-right       .
		-              -                -         ~         -           -               -
		back-left-tab  back-left-tab    back-left-tab  | back | back-right-tab back-right-tab  back-right-tab
		left           left             left      base        right     right           right
		front-left-tab front-left-tab   front-left-tab | front | front-right-tab front-right-tab front-right-tab`)
	for _, side := range []string{"left", "right"} {
		for _, end := range []string{"back", "front"} {
			tab := end + "-" + side + "-tab"
			p.Tab(tab, side, j.tab(size))
			p.Glue(tab, end)
			p.Meet(end, side)
		}
		tab := "lid-" + side + "-tab"
		p.Tab(tab, "lid-"+side, j.tab(lid))
		p.Glue(tab, "lid-front")
		p.Meet("lid-front", "lid-"+side)
	}
	p.Root = "base"
	p.FoldUp("left", "right")
	p.FoldUp("back-left-tab", "front-left-tab", "back-right-tab", "front-right-tab")
	p.FoldUp("back", "front")
	p.FoldUp("lid-left", "lid-right", "lid-left-tab", "lid-right-tab")
	p.FoldUp("lid-front")
	p.FoldUp("lid")
	return &Box{
		Size: size, Clearance: 2 * half, Holder: "box", Rim: h, Strength: 2,
		Inside: size.less(taken), Outside: Dims{lid.Length + t, lid.Width + t, h + t},
		Seams: seams("single"), Pieces: []*sheet.Piece{p}, Opens: []string{"lid"},
		Caps: []Cap{{"box", "lid", []string{"left", "right", "front"}}},
	}
}
