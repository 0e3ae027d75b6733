package box

import (
	"fmt"
	"strings"

	"brevium/core/measure"
	"brevium/core/sheet"
)

var carton = &Style{
	ID: "carton", Title: "Tube carton",
	About: "One piece round the contents, closed at both ends. For tall or upright things; stores flat.",
	Options: []Option{
		cartonEnd("top", "Top", "tuck"), cartonEnd("bottom", "Bottom", "tuck"),
		{ID: "tuck", Label: "Tuck lip", Help: "How far the closing panel goes in."},
		{ID: "tab-width", Label: "Seam", Help: "How wide the glued seam is."},
	},
	Build: buildCarton,
}

func cartonEnd(id, label, otherwise string) Option {
	return Option{ID: id, Label: label, Default: otherwise, Choices: []Choice{
		{"tuck", "Tucked", "A lip goes in behind the front: opens and closes again."},
		{"glued", "Glued", "Stuck on to the dust flaps: closed for good, carries more."},
	}}
}

// buildCarton wraps four walls round the contents: back, right, front, left
// and a seam that is stuck behind the back. The closing panels hang on the
// back too, so that the front is one clean face.
func buildCarton(j *Job) *Box {
	t, step := j.T(), j.Step.Size
	// Walls take a caliper; seam and tuck lip one each from front to back; dust
	// flaps one each at both ends.
	taken := Dims{t, 3 * t, 3 * t}
	size := j.Size(taken)
	seam := j.Measure("tab-width", j.Adhesive.Width.Up(step))
	j.settle("tab-width", seam)
	lip := j.Measure("tuck", max((size.Width*3/8).Near(step), (8*measure.Millimetre).Up(step)))
	j.settle("tuck", lip)
	if !j.cartonCanBe(size, seam, lip) {
		return nil
	}
	top, bottom := j.Choice("top"), j.Choice("bottom")
	w, l, h := size.Width, size.Length, size.Depth
	rows := []string{
		"top     | right-top    . left-top    .",
		"back      right        front left        seam",
		"bottom  | right-bottom . left-bottom .",
	}
	heights := []Length{w, h, w}
	if top == "tuck" {
		rows, heights = append([]string{"top-lip . . . ."}, rows...), append([]Length{lip}, heights...)
	}
	if bottom == "tuck" {
		rows, heights = append(rows, "bottom-lip . . . ."), append(heights, lip)
	}
	p := sheet.Grid("carton", sheet.Cols(l, w, l, w, seam), heights, strings.Join(rows, "\n"))
	// A dust flap reaches no further than half way and stays within its panel.
	dust := sheet.TabShape{Reach: j.dustFlap(size), Relief: t, Mitre: step}
	for _, end := range []struct{ name, how string }{{"bottom", bottom}, {"top", top}} {
		for _, side := range []string{"right", "left"} {
			flap := side + "-" + end.name
			p.Tab(flap, side, dust)
			if end.how == "glued" {
				p.Glue(flap, end.name)
			} else {
				p.Tuck(flap, end.name, 1)
			}
		}
		if end.how == "tuck" {
			// Relieved at both ends, so that it slips in beside the dust flaps.
			p.Tab(end.name+"-lip", end.name, sheet.TabShape{Reach: lip, Relief: 2 * t, Mitre: step})
			p.Tuck(end.name+"-lip", "front", 1)
		}
	}
	p.Tab("seam", "left", sheet.TabShape{Reach: seam, Mitre: step, Relief: t})
	p.Glue("seam", "back")
	p.Meet("left", "back")
	p.Root = "bottom"
	p.FoldUp("back")
	p.FoldUp("right", "front", "left", "seam")
	p.FoldUp("right-bottom", "left-bottom")
	p.FoldUp("bottom-lip")
	p.FoldUp("right-top", "left-top")
	p.FoldUp("top", "top-lip")
	b := &Box{
		Size: size, Holder: "carton", Rim: h, Strength: 2, Floor: t,
		Inside: size.less(taken), Outside: Dims{l + t, w + t, h + t}, Pieces: []*sheet.Piece{p},
	}
	if top == "tuck" {
		b.Opens = []string{"top", "top-lip", "right-top", "left-top"}
	}
	return b
}

// dustFlap is how far a dust flap reaches: not past the middle, nor out of the
// panel that covers it.
func (j *Job) dustFlap(d Dims) Length {
	return min(d.Length/2-j.T(), d.Width-j.T()).Down(j.Step.Size)
}

func (j *Job) cartonCanBe(d Dims, seam, lip Length) bool {
	before := len(j.Problems)
	wide := j.Adhesive.Width
	enough := j.Say(wide.Up(j.Step.Size))
	if seam < wide {
		j.Problem("box.options.tab-width", fmt.Sprintf("A seam of %s is too narrow for %s, which wants %s.", j.Say(seam), j.Adhesive.Title, enough), "Make it at least "+enough+".")
	}
	if seam > d.Length-3*j.T() {
		j.Problem("box.options.tab-width", fmt.Sprintf("A seam of %s is wider than the back it is stuck behind.", j.Say(seam)), "Make it narrower.")
	}
	least := j.Say((wide + 4*j.T()).Up(j.Step.Size) + j.Step.Size)
	if d.Width-4*j.T() < wide || d.Width < d.Length && j.dustFlap(d) < wide {
		j.Problem(j.SizeField("width"), fmt.Sprintf("A carton of %s from front to back leaves no room for flaps that hold.", j.Say(d.Width)), "Make it at least "+least+".")
	}
	if d.Length/2-3*j.T()-j.Step.Size < wide || j.dustFlap(d) < wide {
		j.Problem(j.SizeField("length"), fmt.Sprintf("A carton %s long has no room for two dust flaps.", j.Say(d.Length)), "Make it longer.")
	}
	if d.Depth < 2*lip+2*j.T() {
		j.Problem("box.options.tuck", fmt.Sprintf("Two tuck lips of %s don't fit in a carton %s high.", j.Say(lip), j.Say(d.Depth)), "Make the lips shorter or the carton higher.")
	}
	if d.Depth < wide {
		j.Problem(j.SizeField("depth"), fmt.Sprintf("A seam %s high does not hold.", j.Say(d.Depth)), "Make the carton at least "+enough+" high.")
	}
	return len(j.Problems) == before
}
