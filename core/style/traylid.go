package style

import (
	"fmt"
	"slices"

	"brevium/core/assembly"
	"brevium/core/sheet"
)

var trayLid = &Style{
	ID: "tray-lid", Title: "Tray and lift-off lid", Level: 1,
	About: "Two trays, one upside down over the other. Simple to cut, strong enough to keep.",
	Asks: slices.Concat(
		[]Question{wallsFrom("walls", "Base walls", "single"), lidWalls},
		tabQuestions(""),
		[]Question{
			{ID: "lid", Label: "Lid", Default: "short", Choices: []Choice{
				{"short", "Short", "Stops part way down; easy to lift off."},
				{"full", "Full", "Covers the base to the table."},
				{"none", "None", "An open tray: to be wrapped, or for things that stand proud of the rim."},
			}},
			length("lid-height", "Lid wall", "lid=short", "How deep the lid's own walls are."),
			length("reveal", "Reveal", "lid=short", "What shows of the base below the lid."),
			{ID: "clearance", Label: "Clearance comes from", Default: "grow-lid", Unless: "lid=none", Choices: []Choice{
				{"grow-lid", "A larger lid piece", "Every score on a coarse groove; the odd step is in the lid's trim."},
				{"trim-base", "A smaller base piece", "Every score on a coarse groove; the odd step is in the base's trim."},
				{"shift-scores", "The lid's scores", "Both pieces keep whole sizes; a spacer at the fence moves the lid's scores out."},
			}},
		}),
	Build: buildTrayLid,
}

var lidWalls = func() Question {
	q := wallsFrom("lid-walls", "Lid walls", "single")
	q.Unless = "lid=none"
	return q
}()

// around are the sides on which a lid must clear what it goes over.
var around = []string{"left", "right", "front", "back"}

func buildTrayLid(j *Job) *Box {
	walls, over := j.Choice("walls"), j.Choice("lid-walls")
	size := j.Size()
	if j.Is("lid", "none") {
		b := j.box(size, j.tray("base", "base", size, walls))
		b.Strength = 1 + layers(walls)
		return b
	}
	c := j.Clearance(layers(over))
	base, lid := size, dims(size.Length, size.Width, j.lidWall(size.Depth))
	says := fmt.Sprintf("The lid is %s larger than the base, or it would not go on.", j.Say(c))
	switch j.Choice("clearance") {
	case "trim-base":
		base.Length, base.Width = base.Length-c, base.Width-c
	case "shift-scores":
		lid = dims(lid.Length+c, lid.Width+c, lid.Depth-c/2)
		says += " Its scores stand half of that further out on each side, and its walls come out that much lower."
	default:
		lid.Length, lid.Width = lid.Length+c, lid.Width+c
	}
	b := j.box(size, j.tray("base", "base", base, walls))
	b.Clearance, b.Strength = c, min(3, 2+layers(walls))
	put := b.Add(j.tray("lid", "top", lid, over, j.lidField()...),
		assembly.Place{Face: "top", On: "base/base", Out: -(base.Depth + j.T()/2), Over: true})
	put.When, put.Off = sheet.Close, assembly.Up
	b.GoesOver("lid", "base", around...)
	j.note("clearance", "lid", "", c, says)
	return b
}

// lidField names what to blame, and to change, when the lid's walls are too low.
func (j *Job) lidField() []string {
	enough := (j.Adhesive.Width + 2*j.T()).Up(j.Mark()) + j.Sliver() + j.Mark()
	switch {
	case j.Is("lid", "full"):
		return nil
	case j.Asked("reveal") && !j.Asked("lid-height"):
		return []string{"box.options.reveal", "box.options.reveal", ""}
	}
	return []string{"box.options.lid-height", "box.options.lid-height", enough.Exact(j.Units)}
}

// lidWall settles the lid's wall from the three ways of saying it.
func (j *Job) lidWall(h Length) Length {
	if j.Is("lid", "full") {
		j.settled["lid-height"], j.settled["reveal"] = h, 0
		return h
	}
	usual := max((h * 3 / 8).Up(j.Mark()), min(h, (j.Adhesive.Width*3/2).Up(j.Mark())))
	rim := most(h, "depth", "deeper than the base the lid would stand on the table and not on the rim")
	if j.Asked("lid-height") || !j.Asked("reveal") {
		wall := j.Measure("lid-height", usual, Bound{}, rim)
		if r := j.Answers.Length["reveal"]; j.Asked("reveal") && r+wall != h {
			j.Problem("box.options.reveal", fmt.Sprintf("A reveal of %s and a lid wall of %s don't make up the base's wall of %s.",
				j.Say(r), j.Say(wall), j.Say(h)), "Clear one of the two.", "box.options.reveal", "")
		}
		j.settled["reveal"] = h - wall
		return wall
	}
	r := j.Measure("reveal", h-usual, Bound{}, most(h-j.Mark(), "depth", "more leaves no lid on such a wall"))
	j.settled["lid-height"] = h - r
	return h - r
}
