package style

import (
	"fmt"
	"math"

	"brevium/core/measure"
	"brevium/core/net"
)

var chamferFoot = &Style{
	ID: "chamfer-foot", Title: "Chamfer-foot box", Level: 3,
	About: "A box that narrows to its foot. One piece, two flaps on top.",
	Asks: []Question{
		length("chamfer", "Chamfer", "", "How much each lower corner is cut off, along the bottom and up the side."),
		length("flaps", "Top flaps", "", "How far the two flaps reach over the top."),
		mitreQuestion,
	},
	Build: buildChamferFoot,
}

// rootTwo is how long a slope is that goes as far up as along.
func rootTwo(l Length) float64 { return l.MM() * math.Sqrt2 }

// buildChamferFoot lays flap, back, base, front and flap out in one column. In the row of the base a facet hangs on
// either side, and the middle of a side wall on it; front and back carry the side wall's inner and outer cells, and
// below them the triangles that hold the facets.
func buildChamferFoot(j *Spec) *Box {
	t, step, d := j.T(), j.Mark(), j.Size()
	if j.Given == nil { // the tabs behind the facets, and what is stuck above them, must hold
		least := measure.FromMM(rootTwo(j.Adhesive.Width)).Up(step)
		d = dims(max(d.Length, 3*least), max(d.Width, (measure.FromMM(rootTwo(least))+2*t).Up(step)),
			max(d.Depth, least+j.Wide()+2*t.Up(step)))
	}
	l, w, h := d.Length, d.Width, d.Depth
	c := chamfer(j, d)
	facet := measure.FromMM(rootTwo(c)).Near(step)
	side := max(step, w+c-facet)
	flap := j.Measure("flaps", (w * 9 / 10).Down(step), Bound{At: w/2 + 6*mm, Why: "they must lap over the middle", Dim: "width"},
		most(w, "width", "the top is no deeper"))
	j.Want("width", w-2*t-2*step, j.Adhesive.Width, "A side, less the card", "the glue or tape there")
	p := net.Grid("box", net.Cols(side, w-side, c, l-2*c, c, w-side, side), net.Rows(flap, h-c, c, w, c, h-c, flap), `
		.          .          back-flap   back-flap  back-flap   .           .
		back-left  back-left  back        back       back        back-right  back-right
		.          .          back        back       back        .           .
		-          -          -           ~          -           -           -
		left-side  left-facet left-facet  base       right-facet right-facet right-side
		-          -          -           ~          -           -           -
		.          .          front       front      front       .           .
		front-left front-left front       front      front       front-right front-right
		.          .          front-flap  front-flap front-flap  .           .`)
	p.Rounded = measure.FromMM(math.Abs(facet.MM() - rootTwo(c)))
	reach := min(side, h-c).Down(step)
	for k, side := range sides {
		p.Tab(side+"-side", side+"-facet", endsOf(j, reach))
		p.Shorten("back-"+side, "back", w-t)
		p.Turn(45, net.Valley, side+"-facet", "base", side+"-side")
		for i, end := range ends {
			foot, up := p.Spot("base", 2*k, 2*i), net.Point{}
			up = foot.Add(net.Point{X: c * Length(2*k-1), Y: c * Length(2*i-1)})
			toe := end + "-" + side + "-toe"
			if i != k {
				foot, up = up, foot
			}
			p.Split(end, net.Score, foot, up, toe)
			p.Glue(toe, side+"-facet")
			p.Role("tab", toe)
		}
		p.Role("side wall's middle", side+"-side")
		p.GlueLapped(side+"-side", "front-"+side, 1)
		p.GlueOver("back-"+side, "front-"+side, 2)
		p.Meet("front-"+side, "back")
	}
	p.Over("front-flap", "back-flap", 1)
	p.Root = "base"
	p.FoldUp("left-facet", "right-facet", "left-side", "right-side")
	p.FoldUp("back", "back-left", "back-right", "back-left-toe", "back-right-toe")
	p.FoldUp("front", "front-left", "front-right", "front-left-toe", "front-right-toe")
	p.Closing("back-flap")
	p.Closing("front-flap")
	b := j.box(d, p)
	b.InTurn, b.OpenBy = true, 1.2
	b.Needs("hook dot", 1, 0, "a hook dot or a round sticker, to hold the flaps down")
	b.Do("Close", "Fold both flaps down. Hold them together with a hook dot or a round sticker.")
	j.note("root", "box", "chamfer", facet, fmt.Sprintf("A facet is %s times the square root of two wide, "+
		"%s. Its score is on the nearest mark.", j.Say(c), measure.FromMM(rootTwo(c)).Fine(j.Step.Unit)))
	return b
}

// chamfer settles how much of each lower corner goes: enough for the triangles
// that hold the facet, and no more than the walls beside it leave.
func chamfer(j *Spec, d Dims) Length {
	half := func(l Length) Length { return measure.FromMM(l.MM() / math.Sqrt2) }
	least := Bound{At: measure.FromMM(rootTwo(j.Adhesive.Width)), Why: "the tabs behind the facet need that much to hold"}
	far := most(d.Length/3, "length", "what is left would be no foot")
	far.In = 3
	if up := d.Depth - j.Adhesive.Width - 2*j.T().Up(j.Mark()); up < far.At {
		far = most(up, "depth", "the side above it must hold its glue or tape")
	}
	if across := half(d.Width - 2*j.T()); across < far.At {
		far = halfOf(across, "width", "the tabs of front and back would meet behind the facet")
	}
	return j.Measure("chamfer", rootPair(j, max(min(d.Length/4, d.Depth/3, half(d.Width), far.At), least.At)), least, far)
}

// rootPair gives a length near another whose slope comes nearest to a mark: in
// whole steps 5 and 7, 12 and 17, 17 and 24.
func rootPair(j *Spec, near Length) Length {
	step := j.Mark()
	best, off := near.Near(step), math.Inf(1)
	for l := (near * 5 / 6).Up(step); l <= near*7/6; l += step {
		if o := math.Abs(measure.FromMM(rootTwo(l)).Near(step).MM() - rootTwo(l)); o < off-1e-9 {
			best, off = l, o
		}
	}
	return best
}
