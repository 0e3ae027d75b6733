package box

import (
	"fmt"

	"brevium/core/measure"
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

// tabsQuestion and tabWidth ask how a tray's corner squares become tabs.
var tabsQuestion = Option{ID: "tabs", Label: "Tabs", Default: "full", Choices: []Choice{
	{"full", "Full", "Strongest: the whole corner square, its ends mitred."},
	{"half", "Half", "Half as long: stays clear of a thumb notch."},
	{"narrow", "Narrow", "A strip just wide enough for what sticks it."},
}}

// tabsUnless is the question of tabs where walls may be made without them.
func tabsUnless(rule string) Option {
	o := tabsQuestion
	o.Unless = rule
	return o
}

var tabWidth = Option{ID: "tab-width", Label: "Tab width", When: "tabs=narrow", Help: "How far the strip reaches along the wall."}

// wallsFrom is the question of how a tray's walls are made.
func wallsFrom(id, label, otherwise string) Option {
	return Option{ID: id, Label: label, Default: otherwise, Choices: []Choice{
		{"single", "Single", "One thickness: least card, quickest."},
		{"rolled", "Rolled", "Folded over inwards: twice as thick, no raw edge at the rim, no tabs to be seen."},
		{"pinwheel", "Pinwheel", "Each corner slit once and wrapped on to the next wall: stiffer with no waste."},
	}}
}

// seams tells what one sees of how walls were made.
func seams(walls string) string {
	switch walls {
	case "rolled":
		return "None at the rims, which are folds; a hair line at each corner, seen from the sides."
	case "pinwheel":
		return "None outside: every corner is a fold."
	}
	return "A hair line at each corner, seen from the sides; front and back are clean."
}

// layers is how many full faces of card lie inside a wall made that way.
func layers(walls string) int {
	if walls == "single" {
		return 0
	}
	return 1
}

// takes is what a tray's walls take from its size, score to score: half a
// caliper each side, and what is stuck inside them. Left and right have no
// tabs behind them but where walls are pinwheeled; front and back have.
func takes(walls string, t Length) Dims {
	switch walls {
	case "rolled":
		return Dims{3 * t, 5 * t, (t + 1) / 2}
	case "pinwheel":
		return Dims{3 * t, 3 * t, (t + 1) / 2}
	}
	return Dims{t, 3 * t, (t + 1) / 2}
}

func (d Dims) less(by Dims) Dims {
	return Dims{d.Length - by.Length, d.Width - by.Width, d.Depth - by.Depth}
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

// Tray is a tray for another room to put inside a box, or nil with the problem
// noted.
func (j *Job) Tray(name, panel string, d Dims) *sheet.Piece {
	return j.singleTray(name, panel, d)
}

// TrayCanBe says whether such a tray can be made, and notes why not.
func (j *Job) TrayCanBe(name string, d Dims) bool { return j.trayCanBe(name, d, "single") }

// tray is a panel and four walls, made one of three ways. Front and back stay
// clean: no seam shows on them.
func (j *Job) tray(name, panel string, d Dims, walls string) *sheet.Piece {
	switch walls {
	case "rolled":
		return j.rolledTray(name, panel, d)
	case "pinwheel":
		return j.pinwheelTray(name, panel, d)
	}
	return j.singleTray(name, panel, d)
}

// singleTray has tabs on the side walls that glue behind the front and back.
func (j *Job) singleTray(name, panel string, d Dims) *sheet.Piece {
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

// sliver is the least the tools can take off to clear a thickness of card.
func (j *Job) sliver() Length { return j.T().Up(j.Step.Size) }

// rolledTray has walls scored twice, folded over inwards and stuck down over
// the tabs. The inner flaps are a sliver lower, and relieved at their ends by
// what lies inside the walls they run into, or they would not lie flat.
func (j *Job) rolledTray(name, panel string, d Dims) *sheet.Piece {
	t, h := j.T(), d.Depth
	in := h - j.sliver()
	p := sheet.Grid(name, sheet.Cols(in, h, d.Length, h, in), sheet.Rows(in, h, d.Width, h, in), `
		.          .                back-roll   .                 .
		.          back-left-tab  | back      | back-right-tab    .
		left-roll  left             `+panel+`   right             right-roll
		.          front-left-tab | front     | front-right-tab   .
		.          .                front-roll  .                 .`)
	shape := j.tab(d)
	for _, end := range []string{"back", "front"} {
		p.Tab(end+"-roll", end, sheet.TabShape{Reach: in, Relief: 2 * t})
		for _, side := range []string{"left", "right"} {
			tab := end + "-" + side + "-tab"
			p.Tab(tab, side, shape)
			p.Glue(tab, end)
			p.Meet(end, side)
		}
		p.GlueOver(end+"-roll", end, 2)
	}
	for _, side := range []string{"left", "right"} {
		p.Tab(side+"-roll", side, sheet.TabShape{Reach: in, Relief: 3 * t})
		p.Glue(side+"-roll", side)
	}
	for _, at := range []Length{in, p.Width - in} {
		p.Turn(true, at, 180, sheet.Valley)
	}
	for _, at := range []Length{in, p.Height - in} {
		p.Turn(false, at, 180, sheet.Valley)
	}
	p.Root = panel
	p.FoldUp("left", "right")
	p.FoldUp("back-left-tab", "front-left-tab", "back-right-tab", "front-right-tab")
	p.FoldUp("back", "front")
	p.FoldUp("left-roll", "right-roll")
	p.FoldUp("back-roll", "front-roll")
	return p
}

// pinwheelTray slits each corner once, the same way round, and wraps its
// square on to the next wall, trimmed by a caliper.
func (j *Job) pinwheelTray(name, panel string, d Dims) *sheet.Piece {
	t, h := j.T(), d.Depth
	p := sheet.Grid(name, sheet.Cols(h, d.Length, h), sheet.Rows(h, d.Width, h), `
		left-wrap  | back    back-wrap
		~            ~       -
		left         `+panel+` right
		-            ~       ~
		front-wrap   front | right-wrap`)
	for _, w := range []struct {
		from, to string
		along    Length
	}{{"left", "back", d.Length}, {"back", "right", d.Width}, {"right", "front", d.Length}, {"front", "left", d.Width}} {
		wrap := w.from + "-wrap"
		p.Tab(wrap, w.from, sheet.TabShape{Reach: min(h-t, w.along-3*t), Relief: t})
		p.Glue(wrap, w.to)
		p.Meet(w.from, w.to)
	}
	p.Root = panel
	p.FoldUp("left", "right", "back", "front")
	p.FoldUp("left-wrap", "back-wrap", "right-wrap", "front-wrap")
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
func (j *Job) trayCanBe(name string, d Dims, walls string) bool {
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
	if walls == "pinwheel" {
		if least := min(d.Length, d.Width) - 3*j.T(); least < wide {
			j.Problem(field("width"), fmt.Sprintf("The %s is only %s one way; a corner wrapped on to that wall wants %s.", name, j.Say(min(d.Length, d.Width)), enough), "Make the box larger, or choose single walls.")
		}
		if d.Depth-2*j.T() < wide {
			j.Problem(field("depth"), fmt.Sprintf("A pinwheel needs walls of at least %s; the %s's are %s.", j.Say((wide+2*j.T()).Up(j.Step.Size)), name, j.Say(d.Depth)), "Make the walls deeper or choose single walls.")
		}
	} else if d.Length/2-j.T() < wide.Up(j.Step.Size) {
		j.Problem(field("length"), fmt.Sprintf("The %s's front is %s long; two tabs side by side behind it want %s.", name, j.Say(d.Length), j.Say(2*(wide.Up(j.Step.Size)+j.T()))), "Make the box longer, or stick with wet glue.")
	}
	if walls == "rolled" && d.Depth-j.sliver() < wide {
		j.Problem(field("depth"), fmt.Sprintf("The %s's walls are too low to be rolled: the inner flap would be %s and wants %s.", name, j.Say(d.Depth-j.sliver()), enough), "Make the walls deeper or choose single walls.")
	}
	if walls == "rolled" && d.Width-6*j.T() < wide {
		j.Problem(field("width"), fmt.Sprintf("The %s is %s from front to back; the flaps rolled into its sides want %s to stick.", name, j.Say(d.Width), j.Say((wide+6*j.T()).Up(j.Step.Size))), "Make the box wider or choose single walls.")
	}
	if d.Width < 10*j.T()+measure.Millimetre {
		j.Problem(field("width"), fmt.Sprintf("The %s is only %s from front to back.", name, j.Say(d.Width)), "Make the box wider.")
	}
	if name != "lid" && j.Choice("tabs") == "narrow" && j.Asked("tab-width") {
		if w := j.Measure("tab-width", wide); w < wide {
			j.Problem("box.options.tab-width", fmt.Sprintf("A tab of %s is too narrow for %s, which wants %s.", j.Say(w), j.Adhesive.Title, enough), "Make it at least "+enough+".")
		}
	}
	return len(j.Problems) == before
}
