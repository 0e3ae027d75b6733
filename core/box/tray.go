package box

import (
	"fmt"

	"brevium/core/measure"
	"brevium/core/sheet"
)

// A tray is a panel and four walls, of one thickness, rolled over inwards or
// pinwheeled. Most families have one in them.

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
