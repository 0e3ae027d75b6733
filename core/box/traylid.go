package box

import (
	"fmt"

	"brevium/core/sheet"
)

var trayLid = &Style{
	ID: "tray-lid", Title: "Tray and lift-off lid", Level: 1, Suits: Suits{Clean: true},
	About: "Two trays, one upside down over the other. Simple to cut, strong enough to keep.",
	Options: []Option{
		wallsFrom("walls", "Base walls", "single"), wallsFrom("lid-walls", "Lid walls", "single"),
		tabsQuestion, tabWidth,
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
	walls, lidWalls := j.Choice("walls"), j.Choice("lid-walls")
	c := j.Clearance(layers(lidWalls))
	school := j.Choice("clearance")
	taken := takes(walls, t)
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
	lid.Depth = score
	if !j.trayCanBe("base", base, walls) || !j.trayCanBe("lid", lid, lidWalls) {
		return nil
	}
	return &Box{
		Size: size, Clearance: c, Holder: "base", Rim: base.Depth, Strength: 2 + layers(walls), Seams: seams(lidWalls),
		Inside:  base.less(takes(walls, t)),
		Outside: Dims{lid.Length + t, lid.Width + t, base.Depth + t + t/2},
		Pieces:  []*sheet.Piece{j.tray("base", "base", base, walls), j.tray("lid", "top", lid, lidWalls)},
		Lids:    []Lid{{"lid", "base"}},
	}
}

// openTray is the base alone.
func (j *Job) openTray() *Box {
	t, walls := j.T(), j.Choice("walls")
	size := j.Size(takes(walls, t))
	if !j.trayCanBe("base", size, walls) {
		return nil
	}
	return &Box{
		Size: size, Holder: "base", Rim: size.Depth, Strength: 1 + layers(walls), OpenTop: true, Seams: seams(walls),
		Inside:  size.less(takes(walls, t)),
		Outside: Dims{size.Length + t, size.Width + t, size.Depth + t/2},
		Pieces:  []*sheet.Piece{j.tray("base", "base", size, walls)},
	}
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
