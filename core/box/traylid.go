package box

import (
	"fmt"

	"brevium/core/measure"
	"brevium/core/sheet"
)

var trayLid = &Style{
	ID: "tray-lid", Title: "Tray and lift-off lid",
	About: "Two trays, one upside down over the other. Simple to cut, strong enough to keep.",
	Options: []Option{
		{ID: "tabs", Label: "Tabs", Default: "full", Choices: []Choice{
			{"full", "Full", "Strongest: the whole corner square, its ends mitred."},
			{"half", "Half", "Half as long: stays clear of a thumb notch."},
			{"narrow", "Narrow", "A strip just wide enough for what sticks it."},
		}},
		{ID: "tab-width", Label: "Tab width", When: "tabs=narrow", Help: "How far the strip reaches along the wall."},
		{ID: "lid", Label: "Lid", Default: "short", Choices: []Choice{
			{"short", "Short", "Stops part way down; easy to lift off."},
			{"full", "Full", "Covers the base to the table."},
			{"none", "None", "An open tray: to be wrapped, or for things that stand proud of the rim."},
		}},
		{ID: "lid-height", Label: "Lid wall", When: "lid=short", Help: "How deep the lid's own walls are."},
		{ID: "reveal", Label: "Reveal", When: "lid=short", Help: "What shows of the base below the lid."},
		clearanceSchools("lid"),
	},
	Build: buildTrayLid,
}

// clearanceSchools is the question of every style with a lid over a base.
func clearanceSchools(lid string) Option {
	return Option{ID: "clearance", Label: "Clearance comes from", Default: "grow-lid", Unless: lid + "=none", Choices: []Choice{
		{"grow-lid", "A larger lid piece", "Every score on a coarse groove; the odd step is in the lid's trim."},
		{"trim-base", "A smaller base piece", "Every score on a coarse groove; the odd step is in the base's trim."},
		{"shift-scores", "The lid's scores", "Both pieces keep whole sizes; a spacer at the fence moves the lid's scores out."},
	}}
}

func buildTrayLid(j *Job) *Box {
	t := j.T()
	if j.Choice("lid") == "none" {
		return j.openTray()
	}
	if j.Proud > 0 {
		j.Problem("room.proud", "A lift-off lid sits on the rim, so nothing can stand proud of it.", "Choose no lid, or let nothing stand proud.")
		return nil
	}
	c := j.Clearance(0)
	school := j.Choice("clearance")
	// The walls take half a caliper each, the tabs behind front and back one
	// caliper each, the bottom half a caliper of the depth.
	taken := Dims{t, 3 * t, (t + 1) / 2}
	if school == "trim-base" && j.Given == nil {
		taken.Length, taken.Width = taken.Length+c, taken.Width+c
	}
	size := j.Size(taken)
	base := size
	lid := Dims{size.Length, size.Width, j.lidWall(size.Depth)}
	j.settle("lid-height", lid.Depth)
	j.settle("reveal", size.Depth-lid.Depth)
	score := lid.Depth
	switch school {
	case "grow-lid":
		lid.Length, lid.Width = lid.Length+c, lid.Width+c
	case "trim-base":
		base.Length, base.Width = base.Length-c, base.Width-c
	case "shift-scores":
		lid.Length, lid.Width = lid.Length+c, lid.Width+c
		score -= c / 2
	}
	if !j.trayCanBe("base", base) || !j.trayCanBe("lid", Dims{lid.Length, lid.Width, score}) {
		return nil
	}
	lid.Depth = score
	return &Box{
		Size: size, Clearance: c, Holder: "base", Rim: base.Depth, Strength: 2,
		Inside:  Dims{base.Length - t, base.Width - 3*t, base.Depth - t/2},
		Outside: Dims{lid.Length + t, lid.Width + t, base.Depth + t + t/2},
		Pieces:  []*sheet.Piece{j.tray("base", "base", base), j.tray("lid", "top", lid)},
		Lids:    []Lid{{"lid", "base"}},
	}
}

// openTray is the base alone.
func (j *Job) openTray() *Box {
	t := j.T()
	size := j.Size(Dims{t, 3 * t, (t + 1) / 2})
	if !j.trayCanBe("base", size) {
		return nil
	}
	return &Box{
		Size: size, Holder: "base", Rim: size.Depth, Strength: 1,
		Inside:  Dims{size.Length - t, size.Width - 3*t, size.Depth - t/2},
		Outside: Dims{size.Length + t, size.Width + t, size.Depth + t/2},
		Pieces:  []*sheet.Piece{j.tray("base", "base", size)},
	}
}

// Tray is a tray for another room to put inside a box, or nil with the problem
// noted.
func (j *Job) Tray(name, panel string, d Dims) *sheet.Piece { return j.tray(name, panel, d) }

// TrayCanBe says whether such a tray can be made, and notes why not.
func (j *Job) TrayCanBe(name string, d Dims) bool { return j.trayCanBe(name, d) }

// tray is a panel and four walls, with tabs on the side walls that glue behind
// the front and back, so that those two stay clean.
func (j *Job) tray(name, panel string, d Dims) *sheet.Piece {
	h := d.Depth
	p := sheet.Grid(name, sheet.Cols(h, d.Length, h), sheet.Rows(h, d.Width, h), `
		back-left-tab  | back  | back-right-tab
		left             `+panel+`  right
		front-left-tab | front | front-right-tab`)
	shape := j.tab(d)
	for _, end := range []string{"back", "front"} {
		for _, side := range []string{"left", "right"} {
			tab := end + "-" + side + "-tab"
			p.Tab(tab, side, shape)
			p.Glue(tab, end)
			p.Meet(end, side)
		}
	}
	p.Root = panel
	p.FoldUp("left", "right")
	p.FoldUp("back-left-tab", "front-left-tab", "back-right-tab", "front-right-tab")
	p.FoldUp("back", "front")
	return p
}

// tab shapes the corner square of a tray. Two tabs share a wall, so neither
// reaches its middle.
func (j *Job) tab(d Dims) sheet.TabShape {
	step := j.Step.Size
	most := (d.Length/2 - j.T()).Down(step)
	reach := min(d.Depth, most)
	switch j.Choice("tabs") {
	case "half":
		reach = min(most, max((d.Depth/2).Near(step), j.Adhesive.Width.Up(step)))
	case "narrow":
		width := j.Measure("tab-width", j.Adhesive.Width.Up(step))
		j.settle("tab-width", width)
		reach = min(reach, width)
	}
	return sheet.TabShape{Reach: reach, Mitre: max((reach / 8).Near(step), step)}
}

// lidWall settles the lid's wall from the three ways of saying it.
func (j *Job) lidWall(h Length) Length {
	wall := max((h * 3 / 8).Up(j.Step.Size), min(h, (j.Adhesive.Width*3/2).Up(j.Step.Size)))
	switch {
	case j.Choice("lid") == "full":
		return h
	case j.Asked("lid-height"):
		wall = j.Measure("lid-height", wall)
		if j.Asked("reveal") {
			if r := j.Measure("reveal", h-wall); r+wall != h {
				j.Problem("box.options.reveal", fmt.Sprintf("A reveal of %s and a lid wall of %s don't make up the base's wall of %s.", j.Say(r), j.Say(wall), j.Say(h)), "Clear one of the two.")
			}
		}
		if wall > h {
			j.Problem("box.options.lid-height", fmt.Sprintf("A lid wall of %s is deeper than the base's wall of %s: the lid would stand on the table and not on the rim.", j.Say(wall), j.Say(h)), "Make it "+j.Say(h)+" or less.")
		}
	case j.Asked("reveal"):
		r := j.Measure("reveal", h-wall)
		if r >= h {
			j.Problem("box.options.reveal", fmt.Sprintf("A reveal of %s leaves no lid on a wall of %s.", j.Say(r), j.Say(h)), "Make the reveal smaller.")
			return wall
		}
		wall = h - r
	}
	return wall
}

// trayCanBe says why a tray of that size can't be made.
func (j *Job) trayCanBe(name string, d Dims) bool {
	wide := j.Adhesive.Width
	field := func(dim string) string { return j.SizeField(dim) }
	if name == "lid" {
		field = func(dim string) string {
			if dim == "depth" && j.Asked("reveal") && !j.Asked("lid-height") {
				return "box.options.reveal"
			} else if dim == "depth" && j.Choice("lid") == "short" {
				return "box.options.lid-height"
			}
			return j.SizeField(dim)
		}
	}
	before := len(j.Problems)
	enough := j.Say(wide.Up(j.Step.Size))
	if d.Depth < wide {
		fix := "Make the walls at least " + enough + "."
		if j.Adhesive.ID == "tape" {
			fix = "Make the walls at least " + enough + ", or stick with wet glue, which can do with less."
		}
		j.Problem(field("depth"), fmt.Sprintf("The %s's walls are %s; a tab stuck with %s wants %s.", name, j.Say(d.Depth), j.Adhesive.Title, enough), fix)
	}
	if d.Length/2-j.T() < wide.Up(j.Step.Size) {
		j.Problem(field("length"), fmt.Sprintf("The %s's front is %s long; two tabs side by side behind it want %s.", name, j.Say(d.Length), j.Say(2*(wide.Up(j.Step.Size)+j.T()))), "Make the box longer, or stick with wet glue.")
	}
	if d.Width < 3*j.T()+measure.Millimetre {
		j.Problem(field("width"), fmt.Sprintf("The %s is only %s from front to back.", name, j.Say(d.Width)), "Make the box wider.")
	}
	if name == "base" && j.Choice("tabs") == "narrow" && j.Asked("tab-width") {
		if w := j.Measure("tab-width", wide); w < wide {
			j.Problem("box.options.tab-width", fmt.Sprintf("A tab of %s is too narrow for %s, which wants %s.", j.Say(w), j.Adhesive.Title, enough), "Make it at least "+enough+".")
		}
	}
	return len(j.Problems) == before
}
