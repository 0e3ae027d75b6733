package style

import (
	"slices"

	"brevium/core/net"
	"brevium/core/nets"
)

var hingedLid = &Style{
	ID: "hinged-lid", Title: "Hinged-lid box", Level: 2,
	About: "One piece: the lid hangs on the back wall and closes over the base. Nothing to lose.",
	Asks: slices.Concat(tabQuestions(""), []Question{
		choose("lid", "Lid", "", "full | Full | Covers the walls nearly to the table.",
			"short | Short | Stops part way down.").remedied(shortLid),
		length("lid-height", "Lid wall", "lid=short", "How deep the lid's own walls are."),
	}),
	Build: buildHingedLid,
}

// buildHingedLid lays base and lid out in one column: lid front, lid, hinge
// wall, base, front. The lid is wider than the base by the clearance, so its
// side scores stand half of it further out, and its own sides come out that
// much lower.
func buildHingedLid(j *Spec) *Box {
	c, size := j.Over("", "box/lid", 0), j.Size()
	half, h := c/2, size.Depth
	full := h - half
	wall := lidWall(j, h, full, 0, "single")
	longer := (half + j.T()).Up(j.Mark())
	if j.Plain {
		longer = half
	}
	lid := dims(size.Length+c, size.Width+longer, wall)
	trayCanBe(j, "base", size, "single")
	trayCanBe(j, "lid", lid, "single")
	p := net.Grid("box", net.Cols(full-wall, wall, half, size.Length, half, wall, full-wall),
		net.Rows(wall, lid.Width, h, size.Width, h), `
		.              lid-left-tab   | lid-front lid-front lid-front | lid-right-tab   .
		.              lid-left         lid       lid       lid         lid-right       .
		-              -                -         ~         -           -               -
		back-left-tab  back-left-tab    back-left-tab  | back | back-right-tab back-right-tab  back-right-tab
		left           left             left      base        right     right           right
		front-left-tab front-left-tab   front-left-tab | front | front-right-tab front-right-tab front-right-tab`)
	nets.Net{Piece: p}.Corners(func() net.TabShape { return tab(j, size) })
	for _, side := range sides {
		p.Corner("lid-"+side+"-tab", "lid-"+side, "lid-front", tab(j, lid))
	}
	p.Root = "base"
	nets.FoldWalls(p)
	p.FoldUp("lid-left", "lid-right", "lid-left-tab", "lid-right-tab")
	p.FoldUp("lid-front")
	p.Closing("lid")
	b := j.box(size, p)
	b.Clearance = c
	b.GoesOver("box/lid", "", "left", "right", "front")
	j.note("clearance", "box", "", c, "The lid is wider than the base by the clearance, half on each side, and longer by "+
		"half of it and the card it bends round.")
	return b
}
