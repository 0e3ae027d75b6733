package box

import (
	"fmt"

	"brevium/core/measure"
	"brevium/core/sheet"
)

var wrapCover = &Style{
	ID: "wrap-cover", Title: "Tray with a wrap-round cover", Level: 3, Suits: Suits{Clean: true, Book: true},
	About: "A rolled tray between two covers that stand out over its sides and open like a book. For things to keep and to look at.",
	Options: []Option{
		{ID: "overhang", Label: "Overhang", Help: "How far the covers stand out on each side."},
		{ID: "lap", Label: "Front lap", Help: "How far the lid comes down over the front."},
		{ID: "closure", Label: "Closed by", Default: "ribbon", Choices: []Choice{
			{"ribbon", "A ribbon", "Through a hole in the lap and one below it; a strip of card hides the end inside."},
			{"magnet", "A magnet", "Under the lap and behind the front: stuck on before the tray goes in."},
			{"none", "Nothing", "The lid's own weight keeps it shut."},
		}},
	},
	Build: buildWrapCover,
}

// buildWrapCover stands a rolled tray on one cover and hangs another on its
// back. Each cover bends round what is inside it and is larger by that: the
// base cover's back lies on the tray's, the lid's on the base cover's.
func buildWrapCover(j *Job) *Box {
	t, step := j.T(), j.Step.Size
	taken := takes("rolled", t)
	size := j.Size(taken)
	l, w, h := size.Length, size.Width, size.Depth
	over := j.Measure("overhang", (5 * measure.Millimetre).Up(step))
	lap := j.Measure("lap", max((h/2).Up(step), min(h, j.leastLap())))
	j.settle("overhang", over)
	j.settle("lap", lap)
	if !j.trayCanBe("tray", size, "rolled") || !j.coversCanBe(size, over, lap) {
		return nil
	}
	wide := l + 2*over
	base := sheet.Grid("base cover", sheet.Cols(wide), sheet.Rows(h, (w+2*t).Up(step), h), `
		back
		bottom
		front`)
	base.Root = "bottom"
	base.FoldUp("back", "front")
	above := (base.Height - 2*h + 2*t + j.Slack).Up(step)
	lid := sheet.Grid("lid cover", sheet.Cols(wide), sheet.Rows(lap, above, h), `
		lap
		top
		back`)
	lid.Root = "back"
	lid.FoldUp("top")
	lid.FoldUp("lap")
	b := &Box{
		Size: size, Holder: "tray", Rim: h, Strength: 3, Seams: "None: the covers hide the tray's corners and what is stuck.", Hinged: "lid cover", Opens: []string{"top"}, OpenBy: 1.15,
		Inside:  size.less(taken),
		Outside: Dims{wide, above + t, h + 3*t},
		Pieces:  []*sheet.Piece{j.tray("tray", "base", size, "rolled"), base, lid},
		Mounts: []Mount{
			{Piece: "base cover", Face: "back", On: "tray", OnFace: "back", Out: t, Down: t},
			{Piece: "lid cover", Face: "back", On: "tray", OnFace: "back", Out: 2 * t, Down: -t, Clears: []string{"front", "back"}},
		},
		Seats: []Seat{
			{Piece: "tray", Face: "base", On: "base cover", OnFace: "bottom"},
			{Piece: "base cover", Face: "back", On: "tray", OnFace: "back", Lapped: true},
			{Piece: "lid cover", Face: "back", On: "base cover", OnFace: "back", Lapped: true},
		},
	}
	j.closeCovers(b, base, lid, lap)
	return b
}

// leastLap is how far the lid must come down: over what closes it, and the
// strip that hides a ribbon's end must hold there.
func (j *Job) leastLap() Length {
	if j.Choice("closure") == "ribbon" {
		return (j.Adhesive.Width + 2*j.T()).Up(j.Step.Size) + j.Step.Size
	}
	return (j.Adhesive.Width/2 + 2*j.T()).Up(j.Step.Size)
}

// closeCovers punches the holes of a ribbon, with the strip that hides its end,
// or marks a pair of magnets.
func (j *Job) closeCovers(b *Box, base, lid *sheet.Piece, lap Length) {
	mid := lid.Width / 2
	lo, _ := base.Cell("front")
	_, hi := lid.Cell("lap")
	// Down from the rim, in the middle of the lap, and as far down the front.
	drop := lap / 2
	below := sheet.Point{X: mid, Y: lo.Y + b.Size.Depth - drop}
	on := sheet.Point{X: mid, Y: hi.Y - drop}
	switch j.Choice("closure") {
	case "ribbon":
		radius := min(3*measure.Millimetre, lap/5)
		below.Y = lo.Y + (b.Size.Depth-lap)/2
		if b.Size.Depth-lap < 4*radius {
			below.Y = lo.Y + b.Size.Depth/2
		}
		base.Punch(below, radius, 0, 0)
		base.Rename("front", sheet.Point{X: mid / 4, Y: below.Y})
		lid.Punch(on, radius, 0, 0)
		lid.Rename("lap", sheet.Point{X: mid / 4, Y: on.Y})
		strip := sheet.Grid("ribbon strip", sheet.Cols(min(lid.Width, 40*measure.Millimetre).Down(j.Step.Size)), sheet.Rows((lap - 2*j.T()).Down(j.Step.Size)), "strip")
		strip.Part = sheet.Liner
		b.Pieces = append(b.Pieces, strip)
		b.Seats = append(b.Seats, Seat{Piece: "ribbon strip", Face: "strip", On: "lid cover", OnFace: "lap", Lapped: true})
		b.Mounts = append(b.Mounts, Mount{Piece: "ribbon strip", Face: "strip", On: "lid cover", OnFace: "lap", Out: -j.T()})
		b.Supplies = append(b.Supplies, "two lengths of ribbon, each twice the box's width; their ends are stuck down flat before the tray goes in and under the strip")
		b.Cautions = append(b.Cautions, "Ribbon and cord are not for infants: keep long ends away from them.")
	case "magnet":
		base.Mark("magnet", below)
		lid.Mark("magnet", on)
		b.needMagnets("one inside the lap and one behind the base cover's front")
	}
}

func (j *Job) coversCanBe(d Dims, over, lap Length) bool {
	before := len(j.Problems)
	wide := j.Adhesive.Width
	if over > d.Length/2 {
		j.Problem("box.options.overhang", fmt.Sprintf("Covers that stand out %s over a tray %s long.", j.Say(over), j.Say(d.Length)), "Make the overhang smaller.")
	}
	if d.Depth < wide+2*j.T() {
		j.Problem(j.SizeField("depth"), fmt.Sprintf("The tray's walls are %s; the covers stuck on their back want %s.", j.Say(d.Depth), j.Say((wide+2*j.T()).Up(j.Step.Size))), "Make the tray deeper, or stick with wet glue.")
	}
	if least := j.leastLap(); least > d.Depth {
		j.Problem(j.SizeField("depth"), fmt.Sprintf("A tray %s deep has no room for a front lap of %s.", j.Say(d.Depth), j.Say(least)), "Make the tray deeper, or stick with wet glue.")
	} else if lap > d.Depth || lap < least {
		j.Problem("box.options.lap", fmt.Sprintf("A front lap of %s does not suit a tray %s deep.", j.Say(lap), j.Say(d.Depth)), "Make it between "+j.Say(least)+" and "+j.Say(d.Depth)+".")
	}
	return len(j.Problems) == before
}
