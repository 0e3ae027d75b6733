package style

import (
	"slices"

	"brevium/core/assembly"
	"brevium/core/fasteners"
	"brevium/core/net"
	"brevium/core/nets"
)

var carton = &Style{
	ID: "carton", Title: "Tube carton", Level: 1, Tall: true,
	About: "One piece around your things, closed at both ends. For tall or upright things. Stores flat.",
	Asks: []Question{
		cartonEnd("top", "Top"), cartonEnd("bottom", "Bottom"),
		length("tuck", "Tuck lip", "", "How far the closing panel goes in."),
		choose("pull", "Pull tab", "top=tuck", "no | No | A light tuck opens with a fingernail.",
			"yes | Yes | A tab of card on the top's front edge, for a tight tuck."),
		choose("bottom-pull", "Pull tab below", "bottom=tuck", "no | No | It opens with a fingernail.",
			"yes | Yes | A tab of card on the bottom's front edge."),
		more("pull-width", "Pull tab", "", "How wide a pull tab is."),
		more("pull-out", "Pull tab, out", "", "How far it stands out over the front."),
		more("dust-reach", "Dust flaps", "", "How far they reach in."),
		length("ledge", "Ledges", "", "How far they fold in."),
		length("slot", "Window", "top=ledge", "How long the opening in the top panel is."),
		length("slot-width", "Window, wide", "top=ledge", "How wide it is."),
		length("tab-width", "Seam", "", "How wide the glued seam is."),
	},
	Build: buildCarton,
}

func cartonEnd(id, label string) Question {
	return choose(id, label, "", "tuck | Tucked | A lip tucks in behind the front. Opens and closes again.",
		"glued | Glued | Stuck to the dust flaps. Closed for good, and stronger.",
		"ledge | Ledge and panel | Four ledges folded in with a panel stuck on them. The top panel has a window.")
}

type tube struct { // what a carton's questions come to
	Dims
	seam, lip, ledge, dust Length
}

// buildCarton wraps four walls round the contents: back, right, front, left and a seam that is stuck behind the
// back. The closing panels hang on the back too, so that the front is one clean face.
func buildCarton(j *Spec) *Box {
	t, step, c := j.T(), j.Mark(), tube{Dims: j.Size()}
	w, l, h := c.Width, c.Length, c.Depth
	c.seam = j.Measure("tab-width", j.Wide(), j.sticks(0), most(l-3*t, "length", "the back it is stuck behind is no wider"))
	lip := Bound{}
	if j.Is("top", "tuck") || j.Is("bottom", "tuck") {
		lip = Bound{At: step, Why: "a shorter one doesn't hold"}
	}
	c.lip = j.Measure("tuck", max(min(w*3/8, h/2-2*t).Down(step), (8*mm).Up(step)), lip, halfOf(h/2-t, "depth", "two lips would meet"))
	far := most(w-t, "width", "they would reach out of their panel")
	if l/2 < w {
		far = halfOf(l/2-t, "length", "they would meet")
	}
	c.dust = j.Measure("dust-reach", far.At.Down(step), j.sticks(0), far)
	j.Want("width", w-4*t, j.Adhesive.Width, "A side, less the card", "a flap that holds")
	j.Want("length", l-6*t-2*step, 2*j.Adhesive.Width, "The front, less the card", "two dust flaps side by side")
	j.Want("depth", h, j.Adhesive.Width+2*t, "The tube", "its seam")
	if j.Is("top", "ledge") || j.Is("bottom", "ledge") {
		least := j.sticks(0)
		if j.Is("bottom", "ledge") {
			least = j.sticks((4*t+step)/2 + t) // a panel inside stays so far from the walls
		}
		meet := most(min((min(l, w)-least.At)/2, min(l, w)/3), shorter(c.Dims), "opposite ones would meet")
		meet.In = 3
		c.ledge = j.Measure("ledge", least.At.Up(step), least, meet)
	}
	b := j.box(c.Dims, tubeNet(j, c))
	b.FoldsOver("carton", [2]string{"right", "front"}, [2]string{"left", "seam"})
	if j.Is("top", "tuck") && j.Is("pull", "yes") {
		pullTab(j, b, c, "top", "pull tab")
	}
	if j.Is("bottom", "tuck") && j.Is("bottom-pull", "yes") {
		pullTab(j, b, c, "bottom", "bottom pull tab")
	}
	ledgePanels(j, b, c)
	return b
}

// tubeNet draws the tube with an end of each kind.
func tubeNet(j *Spec, c tube) *net.Piece {
	tube := nets.Tube{Sizes: nets.Sizes{Name: "carton", Cols: net.Cols(c.Length, c.Width, c.Length, c.Width, c.seam), T: j.T()},
		Mitre: j.Mark()}
	above, below := []Length(nil), []Length(nil)
	tube.Top, above = endOf(j, "top", c)
	tube.Bottom, below = endOf(j, "bottom", c)
	slices.Reverse(above)
	tube.Rows = slices.Concat(above, net.Rows(c.Depth), below)
	p := tube.Carton(c.Length, c.Width).Piece
	tubeEnd(j, p, c, "bottom", p.FoldUp)
	shuts := map[string]func(...string){"tuck": p.Closing, "glued": p.Sealing, "ledge": p.FoldUp}
	tubeEnd(j, p, c, "top", shuts[j.Choice("top")])
	return p
}

// endOf is what an end is closed by, and how far each row of it stands out.
func endOf(j *Spec, end string, c tube) (nets.TubeEnd, []Length) {
	switch j.Choice(end) {
	case "ledge":
		return nets.Flaps, net.Rows(c.ledge)
	case "tuck":
		return nets.Lip, net.Rows(c.Width, c.lip)
	}
	return nets.Panel, net.Rows(c.Width)
}

// tubeEnd shapes the flaps of one end. A dust flap reaches no further than half way and stays within its panel.
func tubeEnd(j *Spec, p *net.Piece, c tube, end string, fold func(...string)) {
	t, step := j.T(), j.Mark()
	if j.Is(end, "ledge") {
		ledges := []string{end, "right-" + end, "left-" + end, "front-" + end}
		for i, wall := range []string{"back", "right", "left", "front"} {
			p.Tab(ledges[i], wall, net.TabShape{Reach: c.ledge, Mitre: c.ledge})
		}
		if end == "bottom" {
			ledges = ledges[1:] // the root stays on the table
		}
		fold(ledges...)
		return
	}
	for _, side := range []string{"right", "left"} {
		p.Tab(side+"-"+end, side, net.TabShape{Reach: c.dust, Relief: t, Mitre: step})
		if j.Is(end, "glued") {
			p.Glue(side+"-"+end, end)
		} else {
			p.Tuck(side+"-"+end, end, 1)
		}
	}
	fold("right-"+end, "left-"+end)
	if j.Is(end, "tuck") {
		// Relieved at both ends, so that it slips in beside the dust flaps.
		p.Tucked(end+"-lip", end, "front", 1, net.TabShape{Reach: c.lip, Relief: 2 * t, Mitre: step})
		fold(end, end+"-lip")
	} else if end == "top" {
		fold("top")
	}
}

// ledgePanels makes the panels that are stuck on ledges: the top's on the outside, its window clear of the ledges;
// the bottom's inside, where the weight presses it on to them.
func ledgePanels(j *Spec, b *Box, c tube) {
	t, step := j.T(), j.Mark()
	add := func(p *net.Piece, end string, down, out Length) *assembly.Part {
		p.Root = "panel"
		for _, ledge := range []string{end, "right-" + end, "front-" + end, "left-" + end} {
			b.Stick(p.Name+"/panel", "carton/"+ledge, true)
		}
		return b.Add(p, assembly.Place{Face: "panel", On: "carton/" + end, Down: down, Out: out})
	}
	if j.Is("top", "ledge") {
		clear := func(of Length, dim string) Bound { return most(of-2*c.ledge, dim, "the ledges would show behind it") }
		long := j.Measure("slot", ((c.Length - 2*c.ledge) * 2 / 3).Down(step), Bound{}, clear(c.Length, "length"))
		wide := j.Measure("slot-width", ((c.Width - 2*c.ledge) / 2).Down(step), Bound{}, clear(c.Width, "width"))
		p := net.Grid("top panel", net.Cols(c.Length), net.Rows(c.Width), "panel")
		lo := net.Point{X: (c.Length - long) / 2, Y: (c.Width - wide) / 2}
		p.Window(lo, lo.Add(net.Point{X: long, Y: wide}))
		put := add(p, "top", -(c.Width-c.ledge)/2, t)
		put.When, put.Off = net.Close, assembly.Up
	}
	if j.Is("bottom", "ledge") {
		p := net.Grid("bottom panel", net.Cols((c.Length - 4*t).Down(step)), net.Rows((c.Width - 4*t).Down(step)), "panel")
		add(p, "bottom", (c.Width-c.ledge)/2, -t)
	}
}

// pullTab sticks a tab on the closing panel of an end so that it stands out over the front edge.
func pullTab(j *Spec, b *Box, c tube, end, name string) {
	t, step := j.T(), j.Mark()
	least := Bound{At: fasteners.PullHold, Why: "fingers need something to hold"}
	out := j.Measure("pull-out", Length(fasteners.PullOut).Up(step), least, Free)
	wide := j.Measure("pull-width", min((18*mm).Up(step), c.Length), j.sticks(0), most(c.Length, "length", "the end is no wider"))
	j.Want("width", c.Width-t-step, j.Adhesive.Width, "The "+end+" from front to back, less the card", "a pull tab stuck on it")
	long := min(Length(fasteners.PullStuck).Up(step), (c.Width-t).Down(step)) + out
	p := net.Grid(name, net.Cols(wide), net.Rows(long), "pull")
	p.Chamfer(min(wide/4, out/2))
	at := assembly.Place{Face: "pull", On: "carton/" + end, Down: long/2 - out - c.Width/2, Out: t}
	if end == "bottom" { // it is drawn below its wall, its lip at the foot
		at.Down, at.Quarters = -at.Down, 2
	}
	b.Add(p, at)
	b.Stick(name+"/pull", "carton/"+end, true)
}
