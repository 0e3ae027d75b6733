package box

import (
	"fmt"

	"brevium/core/measure"
	"brevium/core/sheet"
)

var sleeveDrawer = &Style{
	ID: "sleeve-drawer", Title: "Drawer and sleeve", Level: 2, Suits: Suits{Clean: true},
	About: "A tray that slides out of a sleeve. Strong, opens without lifting, and its ends stay clean.",
	Options: []Option{
		{ID: "walls", Label: "Drawer walls", Default: "single", Choices: []Choice{
			{"single", "Single", "One thickness: least card, quickest."},
			{"rolled", "Rolled", "Folded over inwards: twice as thick and no raw edge."},
		}},
		tabsQuestion, tabWidth,
		{ID: "notch", Label: "Thumb notch", Default: "both", Unless: "walls=rolled", Choices: []Choice{
			{"both", "At both ends", "Opens from either side."}, {"one", "At one end", "The other end stays whole."}, {"none", "None", "For a ribbon pull."},
		}},
		{ID: "sleeve", Label: "Sleeve", Default: "open", Choices: []Choice{
			{"open", "Open at both ends", "One strip; push from behind."},
			{"closed", "Closed at one end", "Nothing falls out at the back."},
		}},
		{ID: "clearance", Label: "Clearance comes from", Default: "grow-sleeve", Choices: []Choice{
			{"grow-sleeve", "A larger sleeve", "The drawer keeps its size."},
			{"trim-drawer", "A smaller drawer", "The sleeve keeps its size."},
		}},
	},
	Build: buildSleeveDrawer,
}

func buildSleeveDrawer(j *Job) *Box {
	t, walls := j.T(), j.Choice("walls")
	c := j.Clearance(0)
	trim := j.Choice("clearance") == "trim-drawer"
	taken := takes(walls, t)
	if trim && j.Given == nil {
		taken.Width, taken.Depth = taken.Width+c, taken.Depth+c
	}
	size := j.Size(taken)
	drawer, around := size, size
	if trim {
		drawer.Width, drawer.Depth = size.Width-c, size.Depth-c
	} else {
		around.Width, around.Depth = size.Width+c, size.Depth+c
	}
	if !j.trayCanBe("drawer", drawer, walls) || !j.sleeveCanBe(around) {
		return nil
	}
	closed := j.Choice("sleeve") == "closed"
	if closed {
		around.Length += (3 * t).Up(j.Step.Size) // its tabs lie between the drawer and the end
	}
	p := j.tray("drawer", "bottom", drawer, walls)
	j.thumbNotches(p, drawer, walls)
	return &Box{
		Size: size, Clearance: c, Holder: "drawer", Rim: drawer.Depth, Strength: 2 + layers(walls), Seams: "One on the sleeve, at its lower back edge.",
		Inside:  drawer.less(takes(walls, t)),
		Outside: Dims{around.Length + t, around.Width + t, around.Depth + t},
		Pieces:  []*sheet.Piece{p, j.sleeve(around, closed)},
		Slides:  []Slide{{"drawer", "sleeve"}},
	}
}

// thumbNotches are cut in the ends. No tab lies behind an end: they are stuck
// behind the long sides, which the sleeve hides.
func (j *Job) thumbNotches(p *sheet.Piece, d Dims, walls string) {
	where := j.Choice("notch")
	radius := min(10*measure.Millimetre, d.Depth*2/5, d.Width/4)
	if where == "none" || walls == "rolled" || radius < 4*measure.Millimetre {
		return
	}
	p.Notch(sheet.Point{X: 0, Y: p.Height / 2}, radius, sheet.Point{X: 1})
	if where == "both" {
		p.Notch(sheet.Point{X: p.Width, Y: p.Height / 2}, radius, sheet.Point{X: -1})
	}
}

// sleeve is four walls round the drawer, the seam stuck behind the back at its
// lower edge, where it is seen least. Closed, an end panel folds up from the
// bottom over tabs of the sides.
func (j *Job) sleeve(d Dims, closed bool) *sheet.Piece {
	t, step := j.T(), j.Step.Size
	seam := j.Adhesive.Width.Up(step)
	end := Length(0)
	if closed {
		end = d.Depth - j.sliver()
	}
	p := sheet.Grid("sleeve", sheet.Cols(d.Length, end), sheet.Rows(seam, d.Width, d.Depth, d.Width, d.Depth), `
		seam     .
		bottom   end
		~        -
		front    front-tab
		~        -
		top      .
		~        -
		back     back-tab`)
	p.Tab("seam", "bottom", sheet.TabShape{Reach: seam, Relief: t, Mitre: step})
	p.Glue("seam", "back")
	p.Meet("back", "bottom")
	p.Root = "bottom"
	p.FoldUp("front", "top", "back", "seam")
	if closed {
		for _, side := range []string{"front", "back"} {
			tab := side + "-tab"
			p.Tab(tab, side, sheet.TabShape{Reach: min(j.Adhesive.Width.Up(step), (d.Width/2 - t).Down(step)), Relief: t + j.sliver(), Mitre: step})
			p.Glue(tab, "end")
		}
		p.FoldUp("front-tab", "back-tab")
		p.FoldUp("end")
	}
	return p
}

func (j *Job) sleeveCanBe(d Dims) bool {
	before := len(j.Problems)
	wide := j.Adhesive.Width.Up(j.Step.Size)
	if least := wide + 3*j.T() + 2*j.sliver(); d.Depth < least {
		j.Problem(j.SizeField("depth"), fmt.Sprintf("The sleeve is %s high; its seam wants %s.", j.Say(d.Depth), j.Say(least)), "Make the drawer deeper, or stick with wet glue.")
	}
	if d.Width < 2*wide+2*j.T() {
		j.Problem(j.SizeField("width"), fmt.Sprintf("The sleeve is only %s wide.", j.Say(d.Width)), "Make the drawer wider.")
	}
	return len(j.Problems) == before
}
