package box

import (
	"fmt"
	"strings"

	"brevium/core/measure"
	"brevium/core/sheet"
)

var carton = &Style{
	ID: "carton", Title: "Tube carton", Level: 1, Suits: Suits{Flat: true, Tall: true},
	About: "One piece round the contents, closed at both ends. For tall or upright things; stores flat.",
	Options: []Option{
		cartonEnd("top", "Top"), cartonEnd("bottom", "Bottom"),
		{ID: "tuck", Label: "Tuck lip", Help: "How far the closing panel goes in."},
		{ID: "pull", Label: "Pull tab", Default: "no", When: "top=tuck", Choices: []Choice{
			{"no", "No", "A light tuck opens with a fingernail."},
			{"yes", "Yes", "A tab of card on the top's front edge, for a tight tuck."},
		}},
		{ID: "ledge", Label: "Ledges", Help: "How far they fold in."},
		{ID: "slot", Label: "Window", When: "top=ledge", Help: "How long the opening in the top panel is."},
		{ID: "slot-width", Label: "Window, wide", When: "top=ledge", Help: "How wide it is."},
		{ID: "tab-width", Label: "Seam", Help: "How wide the glued seam is."},
	},
	Build: buildCarton,
}

func cartonEnd(id, label string) Option {
	return Option{ID: id, Label: label, Default: "tuck", Choices: []Choice{
		{"tuck", "Tucked", "A lip goes in behind the front: opens and closes again."},
		{"glued", "Glued", "Stuck on to the dust flaps: closed for good, carries more."},
		{"ledge", "Ledge and panel", "Four ledges folded in and a panel stuck on them; the top panel has a window."},
	}}
}

// tube is what a carton's questions come to.
type tube struct {
	Dims
	seam, lip, ledge, slot, slotWidth Length
	top, bottom                       string
}

// buildCarton wraps four walls round the contents: back, right, front, left
// and a seam that is stuck behind the back. The closing panels hang on the
// back too, so that the front is one clean face.
func buildCarton(j *Job) *Box {
	t, step := j.T(), j.Step.Size
	// Walls take a caliper; seam and tuck lip one each from front to back; dust
	// flaps one each at both ends.
	taken := Dims{t, 3 * t, 3 * t}
	c := tube{Dims: j.Size(taken), top: j.Choice("top"), bottom: j.Choice("bottom")}
	w, l, h := c.Width, c.Length, c.Depth
	wide := j.Adhesive.Width.Up(step)
	c.seam = j.Measure("tab-width", wide)
	c.lip = j.Measure("tuck", max(min(w*3/8, h/2-2*t).Down(step), (8*measure.Millimetre).Up(step)))
	c.ledge = j.Measure("ledge", (j.Adhesive.Width + c.panelEase(j)).Up(step))
	c.slot = j.Measure("slot", max(step, ((l-2*c.ledge)*2/3).Down(step)))
	c.slotWidth = j.Measure("slot-width", max(step, ((w-2*c.ledge)/2).Down(step)))
	for id, v := range map[string]Length{"tab-width": c.seam, "tuck": c.lip, "ledge": c.ledge, "slot": c.slot, "slot-width": c.slotWidth} {
		j.settle(id, v)
	}
	if !j.cartonCanBe(c) {
		return nil
	}
	p := j.tubeNet(c)
	b := &Box{
		Size: c.Dims, Holder: "carton", Rim: h, Strength: 2, Floor: t, Seams: "One, at the back left edge.",
		Inside: c.less(taken), Outside: Dims{l + t, w + t, h + t}, Pieces: []*sheet.Piece{p},
	}
	if c.top == "tuck" {
		b.Opens = []string{"top", "top-lip", "right-top", "left-top"}
		if j.Choice("pull") == "yes" {
			j.pullTab(b, c)
		}
	}
	if c.top == "glued" {
		b.Seals = []string{"top", "right-top", "left-top"}
	}
	j.ledgePanels(b, c)
	return b
}

// tubeNet draws the tube with an end of each kind.
func (j *Job) tubeNet(c tube) *sheet.Piece {
	t, step, w, l := j.T(), j.Step.Size, c.Width, c.Length
	rows, heights := []string{"back right front left seam"}, []Length{c.Depth}
	for _, end := range []struct{ name, how string }{{"top", c.top}, {"bottom", c.bottom}} {
		row := strings.ReplaceAll("END | right-END . left-END .", "END", end.name)
		add, size := []string{row}, []Length{w}
		switch end.how {
		case "ledge":
			add, size = []string{strings.ReplaceAll("END | right-END | front-END | left-END .", "END", end.name)}, []Length{c.ledge}
		case "tuck":
			add, size = []string{row, end.name + "-lip . . . ."}, []Length{w, c.lip}
		}
		for i := range add {
			if end.name == "top" {
				rows, heights = append([]string{add[i]}, rows...), append([]Length{size[i]}, heights...)
			} else {
				rows, heights = append(rows, add[i]), append(heights, size[i])
			}
		}
	}
	p := sheet.Grid("carton", sheet.Cols(l, w, l, w, c.seam), heights, strings.Join(rows, "\n"))
	p.Tab("seam", "left", sheet.TabShape{Reach: c.seam, Mitre: step, Relief: t})
	p.Glue("seam", "back")
	p.Meet("left", "back")
	p.Root = "bottom"
	lo, _ := p.Cell("bottom")
	p.Middle = &sheet.Point{X: l / 2, Y: lo.Y + w/2}
	p.FoldUp("back")
	p.FoldUp("right", "front", "left", "seam")
	j.tubeEnd(p, c, "bottom", c.bottom)
	j.tubeEnd(p, c, "top", c.top)
	return p
}

// tubeEnd shapes the flaps of one end. A dust flap reaches no further than
// half way and stays within its panel.
func (j *Job) tubeEnd(p *sheet.Piece, c tube, end, how string) {
	t, step := j.T(), j.Step.Size
	if how == "ledge" {
		walls := map[string]string{end: "back", "right-" + end: "right", "front-" + end: "front", "left-" + end: "left"}
		for ledge, wall := range walls {
			p.Tab(ledge, wall, sheet.TabShape{Reach: c.ledge, Mitre: c.ledge})
		}
		if end == "bottom" {
			p.FoldUp("right-bottom", "left-bottom", "front-bottom")
		} else {
			p.FoldUp("top", "right-top", "left-top", "front-top")
		}
		return
	}
	for _, side := range []string{"right", "left"} {
		flap := side + "-" + end
		p.Tab(flap, side, sheet.TabShape{Reach: j.dustFlap(c.Dims), Relief: t, Mitre: step})
		if how == "glued" {
			p.Glue(flap, end)
		} else {
			p.Tuck(flap, end, 1)
		}
	}
	p.FoldUp("right-"+end, "left-"+end)
	if how == "tuck" {
		// Relieved at both ends, so that it slips in beside the dust flaps.
		p.Tab(end+"-lip", end, sheet.TabShape{Reach: c.lip, Relief: 2 * t, Mitre: step})
		p.Tuck(end+"-lip", "front", 1)
		p.FoldUp(end, end+"-lip")
	} else if end == "top" {
		p.FoldUp("top")
	}
}

// ledgePanels makes the panels that are stuck on ledges: the top's on the
// outside, its window clear of the ledges; the bottom's inside, where the
// weight presses it on to them.
func (j *Job) ledgePanels(b *Box, c tube) {
	t, step := j.T(), j.Step.Size
	add := func(p *sheet.Piece, end string, down, out Length, closes string) {
		p.Root = "panel"
		b.Pieces = append(b.Pieces, p)
		b.Mounts = append(b.Mounts, Mount{Piece: p.Name, Face: "panel", On: "carton", OnFace: end, Down: down, Out: out, Closes: closes})
		for _, ledge := range []string{end, "right-" + end, "front-" + end, "left-" + end} {
			b.Seats = append(b.Seats, Seat{Piece: p.Name, Face: "panel", On: "carton", OnFace: ledge, Lapped: true})
		}
	}
	if c.top == "ledge" {
		p := sheet.Grid("top panel", sheet.Cols(c.Length), sheet.Rows(c.Width), "panel")
		mid := sheet.Point{X: c.Length / 2, Y: c.Width / 2}
		p.Window(sheet.Point{X: mid.X - c.slot/2, Y: mid.Y - c.slotWidth/2}, sheet.Point{X: mid.X + c.slot/2, Y: mid.Y + c.slotWidth/2})
		p.Rename("panel", sheet.Point{X: c.ledge / 2, Y: c.ledge / 2})
		add(p, "top", -(c.Width-c.ledge)/2, t, "up")
	}
	if c.bottom == "ledge" {
		p := sheet.Grid("bottom panel", sheet.Cols((c.Length - 4*t).Down(step)), sheet.Rows((c.Width - 4*t).Down(step)), "panel")
		add(p, "bottom", (c.Width-c.ledge)/2, -t, "")
	}
}

// panelEase is how far the edge of a panel inside stays from the walls.
func (c tube) panelEase(j *Job) Length {
	if c.bottom != "ledge" {
		return 0
	}
	return (4*j.T()+j.Step.Size)/2 + j.T()
}

// pullTab sticks a tab on the top so that it stands out over the front edge.
func (j *Job) pullTab(b *Box, c tube) {
	step := j.Step.Size
	wide, long, out := (18 * measure.Millimetre).Up(step), (24 * measure.Millimetre).Up(step), (8 * measure.Millimetre).Up(step)
	wide, long = min(wide, c.Length), min(long, c.Width-j.T()+out)
	p := sheet.Grid("pull tab", sheet.Cols(wide), sheet.Rows(long), "pull")
	p.Root = "pull"
	cut := wide / 4
	for _, corner := range []struct{ x, in Length }{{0, cut}, {wide, -cut}} {
		p.CutAlong(sheet.Point{X: corner.x, Y: cut}, sheet.Point{X: corner.x + corner.in, Y: 0})
		p.Discard(sheet.Point{X: corner.x + corner.in/5, Y: cut / 5})
	}
	b.Pieces = append(b.Pieces, p)
	b.Mounts = append(b.Mounts, Mount{Piece: "pull tab", Face: "pull", On: "carton", OnFace: "top", Down: -(c.Width/2 - long/2 + out), Out: j.T()})
	b.Seats = append(b.Seats, Seat{Piece: "pull tab", Face: "pull", On: "carton", OnFace: "top", Lapped: true})
}

// dustFlap is how far a dust flap reaches: not past the middle, nor out of the
// panel that covers it.
func (j *Job) dustFlap(d Dims) Length {
	return min(d.Length/2-j.T(), d.Width-j.T()).Down(j.Step.Size)
}

func (j *Job) cartonCanBe(c tube) bool {
	before := len(j.Problems)
	wide, step, t := j.Adhesive.Width, j.Step.Size, j.T()
	enough := j.Say(wide.Up(step))
	if c.seam < wide {
		j.Problem("box.options.tab-width", fmt.Sprintf("A seam of %s is too narrow for %s, which wants %s.", j.Say(c.seam), j.Adhesive.Title, enough), "Make it at least "+enough+".")
	}
	if c.seam > c.Length-3*t {
		j.Problem("box.options.tab-width", fmt.Sprintf("A seam of %s is wider than the back it is stuck behind.", j.Say(c.seam)), "Make it narrower.")
	}
	least := j.Say((wide + 4*t).Up(step) + step)
	if c.Width-4*t < wide || c.Width < c.Length && j.dustFlap(c.Dims) < wide {
		j.Problem(j.SizeField("width"), fmt.Sprintf("A carton of %s from front to back leaves no room for flaps that hold.", j.Say(c.Width)), "Make it at least "+least+".")
	}
	if c.Length/2-3*t-step < wide || j.dustFlap(c.Dims) < wide {
		j.Problem(j.SizeField("length"), fmt.Sprintf("A carton %s long has no room for two dust flaps.", j.Say(c.Length)), "Make it longer.")
	}
	if c.Depth < 2*c.lip+2*t && (c.top == "tuck" || c.bottom == "tuck") {
		j.Problem("box.options.tuck", fmt.Sprintf("Two tuck lips of %s don't fit in a carton %s high.", j.Say(c.lip), j.Say(c.Depth)), "Make the lips shorter or the carton higher.")
	}
	if c.Depth < wide+2*t {
		j.Problem(j.SizeField("depth"), fmt.Sprintf("A seam %s high does not hold.", j.Say(c.Depth)), "Make the carton at least "+j.Say((wide+2*t).Up(step))+" high.")
	}
	if c.top == "ledge" || c.bottom == "ledge" {
		j.ledgesCanBe(c)
	}
	return len(j.Problems) == before
}

func (j *Job) ledgesCanBe(c tube) {
	wide, step := j.Adhesive.Width, j.Step.Size
	short := min(c.Length, c.Width)
	wide += c.panelEase(j)
	if c.ledge < wide {
		j.Problem("box.options.ledge", fmt.Sprintf("A ledge of %s is too narrow for %s, which wants %s.", j.Say(c.ledge), j.Adhesive.Title, j.Say(wide.Up(step))), "Make it wider, or stick with wet glue.")
	}
	if least := max(2*c.ledge+wide, 3*c.ledge); short < least {
		j.Problem(j.SizeField("width"), fmt.Sprintf("Ledges of %s meet in a carton %s wide.", j.Say(c.ledge), j.Say(short)), "Make the carton at least "+j.Say(least.Up(step))+" each way, or close it another way.")
	} else if c.top == "ledge" && (c.slot > c.Length-2*c.ledge || c.slotWidth > c.Width-2*c.ledge) {
		j.Problem("box.options.slot", fmt.Sprintf("A window of %s × %s would show the ledges behind it.", j.Say(c.slot), j.Say(c.slotWidth)),
			fmt.Sprintf("Make it %s × %s or less.", j.Say((c.Length-2*c.ledge).Down(step)), j.Say((c.Width-2*c.ledge).Down(step))))
	}
}
