package style

import (
	"fmt"
	"slices"

	"brevium/core/fasteners"
	"brevium/core/net"
	"brevium/core/nets"
)

// A tray is a panel and four walls, of one thickness, rolled over inwards or
// pinwheeled. Most families have one in them.

// tabQuestions ask how a tray's corner squares become tabs; unless names the walls that have none.
func tabQuestions(unless string) []Question {
	return []Question{
		choose("tabs", "Tabs", "", "full | Full | Strongest. The whole corner square, with slanted ends.",
			"half | Half | Half as long. Stays clear of a thumb notch.",
			"narrow | Narrow | A strip just wide enough for the glue or tape.").as(Tabs).seldom().unless(unless),
		length("tab-width", "Tab width", "tabs=narrow", "How far the strip reaches along the wall."),
		mitreQuestion,
	}
}

var mitreQuestion = Question{ID: "mitre", Label: "Mitre", More: true,
	Help: "How far the ends of tabs slant in, so that they go in."}

// wallsFrom is the question of how a tray's walls are made.
func wallsFrom(id, label, otherwise string) Question {
	return Question{ID: id, Label: label, Default: otherwise, Choices: []Choice{
		{"single", "Single", "One thickness. Least card, quickest."},
		{"rolled", "Rolled", "Folded over inwards. Twice as thick, with no cut edge and no tabs showing."},
		{"pinwheel", "Pinwheel", "Each corner is slit once and wrapped onto the next wall. Stiffer, with no waste."},
	}}
}

// layers is how many full faces of card lie inside a wall made that way.
func layers(walls string) int {
	if walls == "single" {
		return 0
	}
	return 1
}

// chooseForMe leaves it to the plan where the clearance comes from.
const chooseForMe = "choose | Choose for me | Whichever has the fewest scores between the grooves of your board."

var ends, sides = nets.Ends, nets.Sides

// tray is a panel and four walls, made one of three ways. Front and back stay
// clean: no seam shows on them. What can't be is noted.
func tray(j *Spec, name, panel string, d Dims, walls string) *net.Piece {
	trayCanBe(j, name, d, walls)
	switch walls {
	case "rolled":
		return rolledTray(j, name, panel, d)
	case "pinwheel":
		return flat(j, name, d).Pinwheel(panel).Piece
	}
	return flat(j, name, d).Single(panel, func() net.TabShape { return tab(j, d) }).Piece
}

// Tray is a tray of single walls for another room to put inside a box.
func Tray(j *Spec, name, panel string, d Dims) *net.Piece { return tray(j, name, panel, d, "single") }

// flat is a tray of single walls, spread out: between its columns and rows the walls stand up.
func flat(j *Spec, name string, d Dims) nets.Sizes {
	return nets.Sizes{Name: name, Cols: net.Cols(d.Depth, d.Length, d.Depth), Rows: net.Rows(d.Depth, d.Width, d.Depth), T: j.T()}
}

// rolledTray has walls folded over inwards. The inner flaps are a sliver lower, or they would not lie flat.
func rolledTray(j *Spec, name, panel string, d Dims) *net.Piece {
	in := d.Depth - j.Sliver()
	s := flat(j, name, d)
	s.Cols, s.Rows = slices.Concat(net.Cols(in), s.Cols, net.Cols(in)), slices.Concat(net.Rows(in), s.Rows, net.Rows(in))
	n := s.Rolled(panel, func() net.TabShape { return tab(j, d) })
	j.note("roll", name, "", in-d.Depth, "The inner flaps are cut a little shorter than the walls, so they lie flat when you roll them in.")
	if j.Plain {
		j.note("roll-plain", name, "", d.Depth, "The inner flaps are as high as the walls. If one is too tight to roll in, trim a sliver off it.")
	}
	return n.Piece
}

// tab shapes the corner square of a tray. Two tabs share a wall, so neither reaches its middle.
func tab(j *Spec, d Dims) net.TabShape {
	step := j.Mark()
	shared := (d.Length/2 - j.T()).Down(step)
	reach := min(d.Depth, shared)
	switch j.Choice("tabs") {
	case "half":
		reach = min(shared, max((d.Depth/2).Near(step), j.Wide()))
	case "narrow":
		reach = min(reach, j.Measure("tab-width", j.Wide(), j.sticks(0), Free))
	}
	return net.TabShape{Reach: reach, Mitre: mitre(j, max((reach/8).Near(step), step))}
}

// endsOf shapes a tab relieved by the card beside it, its ends mitred.
func endsOf(j *Spec, reach Length) net.TabShape {
	return net.TabShape{Reach: reach, Relief: j.T(), Mitre: mitre(j, j.Mark())}
}

// mitre is how far the ends of tabs slant in.
func mitre(j *Spec, usual Length) Length {
	if _, asks := j.style.Ask("mitre"); !asks {
		return usual
	}
	return j.Measure("mitre", usual, Bound{}, most(max(usual, j.Adhesive.Width/2), "", "more leaves too little to stick"))
}

// trayCanBe notes why a tray of that size can't be made.
func trayCanBe(j *Spec, name string, d Dims, walls string) {
	t, wide := j.T(), j.Adhesive.Width
	the := "The " + name
	j.Want("depth", d.Depth, wide, the+"'s wall", "a tab stuck with "+j.Adhesive.Title)
	switch walls {
	case "pinwheel":
		j.Want(shorter(d), min(d.Length, d.Width)-3*t, wide, the+"'s shorter wall, less the card", "a corner wrapped on to it")
		j.Want("depth", d.Depth-2*t, wide, the+"'s wall, less the card", "a corner wrapped round")
	case "rolled":
		j.Want("depth", d.Depth-j.T().Up(j.Mark()), wide, the+"'s rolled flap", "a flap stuck inside")
		j.Want("width", d.Width-6*t, wide, the+" from front to back, less the card", "a flap rolled into its side")
		fallthrough
	default:
		j.Want("length", d.Length-2*t, 2*j.Wide(), "The front of the "+name+", less the card",
			"two tabs side by side behind it")
	}
	j.Want("width", d.Width, 10*t+mm, the+" from front to back", "a fold at either side")
}

// thumbNotches are cut in the ends. No tab lies behind an end: they are stuck
// behind the long sides, which the sleeve hides.
func thumbNotches(j *Spec, p *net.Piece, d Dims, walls string) {
	if j.Is("notch", "none") || walls == "rolled" {
		return
	}
	thumb := Bound{At: fasteners.LeastThumb, Why: "no thumb goes in less"}
	room := most(fasteners.WidestNotch(d.Width, d.Depth, 3*mm), "depth", "some card must stay below it")
	if d.Width < 2*d.Depth {
		room = most(room.At, "width", "some card must stay beside it")
	}
	if room.At < thumb.At && !j.Asked("notch-width") {
		return
	}
	wide := j.Measure("notch-width", min(fasteners.Thumb, d.Depth*4/5, d.Width/2), thumb, room)
	p.Notch(net.Point{Y: p.Height / 2}, wide/2, net.Point{X: 1})
	if j.Is("notch", "both") {
		p.Notch(net.Point{X: p.Width, Y: p.Height / 2}, wide/2, net.Point{X: -1})
	}
}

// lidWall settles the wall of a lid over walls h high, from the ways of saying it;
// full is as deep as it may be, and it comes out so much less.
func lidWall(j *Spec, h, full, less Length, walls string) Length {
	if j.Is("lid", "full") {
		j.settled["lid-height"], j.settled["reveal"] = full, 0
		return full
	}
	least := j.sticks(less)
	switch walls {
	case "pinwheel":
		least.At += 2 * j.T()
	case "rolled":
		least.At += j.T().Up(j.Mark())
	}
	usual := max((h * 3 / 8).Up(j.Groove()), min(full, (j.Adhesive.Width*3/2).Up(j.Mark())))
	rim := most(full, "depth", "a deeper lid would stand on the table instead of the rim")
	if j.Asked("lid-height") || !j.Asked("reveal") {
		wall := j.Measure("lid-height", usual, least, rim)
		if r := j.Answers.Length["reveal"]; j.Asked("reveal") && r+wall != h {
			j.Problem("box.options.reveal", fmt.Sprintf("A reveal of %s and a lid wall of %s don't make up the base's wall of %s.",
				j.Say(r), j.Say(wall), j.Say(h)), "Clear one of the two.", "box.options.reveal", "")
		}
		j.settled["reveal"] = h - wall
		return wall
	}
	j.Want("depth", h, least.At, "The lid's wall", "a tab stuck with "+j.Adhesive.Title)
	r := j.Measure("reveal", max(0, h-usual), Bound{},
		most(max(0, h-least.At), "depth", "the lid's wall must hold the glue or tape of its tabs"))
	j.settled["lid-height"] = h - r
	return h - r
}

// around are the sides on which a lid must clear what it goes over.
var around = []string{"left", "right", "front", "back"}

// pick chooses between two rows of a picture.
func pick(yes bool, a, b string) string {
	if yes {
		return a
	}
	return b
}
