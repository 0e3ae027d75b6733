package style

import (
	"slices"

	"brevium/core/net"
	"brevium/core/nets"
)

var hingedLid = &Style{
	ID: "hinged-lid", Title: "Hinged-lid box", Level: 2,
	About: "One piece. The lid hangs on the back wall and closes over the base.",
	Asks: slices.Concat(tabQuestions(""), []Question{
		choose("lid", "Lid", "", "full | Full | Covers the walls nearly to the table.",
			"short | Short | Stops part way down.").remedied(shortLid),
		length("lid-height", "Lid wall", "lid=short", "The depth of the lid's walls."),
	}),
	Build: buildHingedLid,
}

// buildHingedLid lays base and lid out in one column: lid front, lid, hinge wall, base, front. The lid is wider
// than the base by the clearance, so its side scores stand half of it further out, and its own sides come out that
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
	p := nets.Sizes{Name: "box", Cols: net.Cols(full-wall, wall, half, size.Length, half, wall, full-wall),
		Rows: net.Rows(wall, lid.Width, h, size.Width, h), T: j.T()}.Hinged(
		func() net.TabShape { return tab(j, size) }, func() net.TabShape { return tab(j, lid) })
	b := j.box(size, p.Piece)
	b.Clearance = c
	b.GoesOver("box/lid", "", "left", "right", "front")
	j.note("clearance", "box", "", c, "The lid is wider than the base by the clearance, half on each side. "+
		"It is longer by half the clearance and the card it bends round.")
	return b
}
