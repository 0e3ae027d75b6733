package style

import (
	"fmt"
	"slices"

	"brevium/core/assembly"
)

var trayLid = &Style{
	ID: "tray-lid", Title: "Tray and lift-off lid", Level: 1, Tray: true,
	Apart: []string{"base", "lid"},
	About: "A tray with a lid that lifts off. Simple to cut, strong enough to keep.",
	Asks: slices.Concat(
		[]Question{wallsFrom("walls", "Base walls", "single").as(Walls).remedied(rolledWalls),
			wallsFrom("lid-walls", "Lid walls", "single").unless("lid=none").as(OuterWalls)},
		tabQuestions(""),
		[]Question{
			choose("lid", "Lid", "", "short | Short | Stops part way down. Easy to lift off.",
				"full | Full | Covers the base to the table.",
				"none | None | An open tray, to wrap or for things that stick out.").remedied(shortLid),
			length("lid-height", "Lid wall", "lid=short", "The depth of the lid's walls."),
			length("reveal", "Reveal", "lid=short", "How much of the base you can see below the lid."),
			choose("clearance", "Clearance comes from", "",
				"grow-lid | A larger lid piece | Every score lies in a groove. The odd fraction is in the lid's cut size.",
				"trim-base | A smaller base piece | Every score lies in a groove. The odd fraction is in the base's cut size.",
				"shift-scores | The lid's scores | Both pieces keep whole sizes. A spacer at the fence moves the "+
					"lid's scores out.",
				chooseForMe).as(Clearance).seldom().unless("lid=none"),
		}),
	Build: buildTrayLid,
}

func buildTrayLid(j *Spec) *Box {
	walls, over := j.Choice("walls"), j.Choice("lid-walls")
	size := j.Size()
	if j.Is("lid", "none") {
		b := j.box(size, tray(j.As("base"), "base", "base", size, walls))
		b.Strength = 1 + layers(walls)
		return b
	}
	c := j.Over("base", "lid", layers(over))
	lower := Length(0)
	if j.Is("clearance", "shift-scores") {
		lower = c / 2
	}
	base, lid := size, dims(size.Length, size.Width, lidWall(j.As("lid"), size.Depth, size.Depth, lower, over)-lower)
	says := fmt.Sprintf("The lid is %s larger than the base, so it slips over.", j.Say(c))
	if j.Is("clearance", "trim-base") {
		base.Length, base.Width = base.Length-c, base.Width-c
		says += j.noSmaller("base")
	} else {
		lid.Length, lid.Width = lid.Length+c, lid.Width+c
	}
	if lower > 0 {
		says += " Score it half of that further out on each side. Its walls come out that much lower."
	}
	b := j.box(size, tray(j.As("base"), "base", "base", base, walls))
	b.Clearance, b.Strength = c, min(3, 2+layers(walls))
	b.PutOn(tray(j.As("lid"), "lid", "top", lid, over), assembly.Up,
		assembly.Place{Face: "top", On: "base/base", Out: -(base.Depth + j.As("lid").T()/2), Over: true})
	b.GoesOver("lid", "base", around...)
	j.note("clearance", "lid", "", c, says)
	return b
}
