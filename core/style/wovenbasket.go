package style

import (
	"fmt"
	"math"

	"brevium/core/assembly"
	"brevium/core/fasteners"
	"brevium/core/net"
)

var wovenBasket = &Style{
	ID: "woven-basket", Title: "Woven basket", Level: 3,
	About: "One piece with its corners cut into strips and woven around front and back. Open, with or without a handle.",
	Asks: []Question{
		choose("strips", "Strips", "", "3 | Three | Strong, and the weave shows.", "2 | Two | For a low basket.",
			"4 | Four | A finer weave.", "5 | Five | For a deep basket, and patience."),
		length("side-height", "Front and back", "",
			"The height of the front and back. Make them lower than the ends to slope the strips downwards."),
		choose("handle", "Handle", "", "stuck | Stuck on | Over the middle, where it hides the ends of the weave.",
			"brad | With brads | A brad at each end, so that it swings aside.", "none | None | The plain basket.").as(Closing),
		more("handle-width", "Handle", "", "The width of the handle. Its ends reach as far down the walls, so a wider handle is longer too.").
			unless("handle=none"),
	},
	Build: buildWovenBasket,
}

// woven is what a basket's questions come to, and how its strips lie: the places
// of their upper edges at the corner and at their far ends, from the base up.
type woven struct {
	Dims
	high, wide Length // of front and back; of a strip
	handle     Length // its width
	near, far  []Length
}

// buildWovenBasket hangs strips on the end walls, which wrap round the corners on
// to front and back. Lower front and back want strips that slope: they are cut as
// a fan, so that they lie flat and the upper one meets the rim at its end.
func buildWovenBasket(j *Spec) *Box {
	s := weave(j)
	t := j.T()
	p := net.Grid("basket", net.Cols(s.Depth, s.Length, s.Depth), net.Rows(s.high, s.Width, s.high), `
		left-back  | back  | right-back
		left         base    right
		left-front | front | right-front`)
	p.Root = "base"
	p.FoldUp("left", "right", "back", "front")
	if s.handle = s.wide; !j.Is("handle", "none") {
		s.handle = j.Measure("handle-width", s.wide, Bound{At: pierced + j.Mark(), Why: "what holds it needs card around it"},
			most(min(s.high, s.Length), "depth", "its ends would reach below the walls"))
	}
	names := func(cell string) (out []string) {
		for i := range s.near {
			out = append(out, fmt.Sprintf("%s-%d", cell, i+1))
		}
		p.Role("strip", out...)
		return out
	}
	for _, end := range ends {
		for _, side := range sides {
			p.Meet(end, side)
			p.Fan(side+"-"+end, side, side == "left", s.near, s.far, names(side+"-"+end))
		}
	}
	under := s.lay(func(side string, strip, layer int) {
		moved := []string{fmt.Sprintf("%s-back-%d", side, strip), fmt.Sprintf("%s-front-%d", side, strip)}
		p.GlueOutside(moved[0], "back", layer)
		p.GlueOutside(moved[1], "front", layer)
		p.FoldUp(moved...)
		p.Tell(fmt.Sprintf("wrap strip %d from the %s on to front and back", strip, side))
	})
	if j.Adhesive.ID == "tape" {
		p.Tips = []string{fmt.Sprintf("lay the tape across each corner while it is whole, near its outer edge. That "+
			"is 4 runs instead of %d bits.", 4*len(s.near))}
	}
	b := j.box(s.Dims, p)
	if !j.Is("handle", "none") {
		handle(j, b, s, under+1, t)
	}
	return b
}

// weave settles the heights and the strips.
func weave(j *Spec) woven {
	s := woven{Dims: j.Size()}
	n := Length(j.Choice("strips")[0] - '0')
	if j.Given == nil { // every strip must hold
		s.Depth = max(s.Depth, n*j.Wide())
		s.Length = max(s.Length, n*j.Wide())
	}
	e, t := s.Depth, j.T()
	s.high = j.Measure("side-height", min(e, s.Length), Bound{At: max(e/2, j.Adhesive.Width), Dim: "length", For: "depth",
		Why: "strips drawn down further leave the corners open"},
		most(s.Length, "length", "strips as long as that would pass the far corner"))
	top := min(e, s.high)
	for k := Length(1); k <= n; k++ {
		s.near = append(s.near, (e * k / n).Near(j.Mark()))
		s.far = append(s.far, (top * k / n).Near(j.Mark()))
	}
	s.near[n-1], s.far[n-1] = e, top
	s.wide = (top / n).Down(j.Mark())
	for k := Length(1); k < n; k++ { // on the marks, some are a little narrower
		s.wide = min(s.wide, s.far[k]-s.far[k-1])
	}
	if s.wide < j.Adhesive.Width && n > 2 {
		j.Problem("box.options.strips", fmt.Sprintf("%d strips are %s wide each, but %s "+
			"needs %s.", n, j.Say(s.wide), j.Adhesive.Title,
			j.Say(j.Wide())), "Cut fewer strips, or make the basket deeper.", "box.options.strips", "2")
	} else {
		j.Want("depth", s.wide, j.Adhesive.Width, "A strip", "its glue or tape")
	}
	if need := j.Need.Depth; j.Given == nil && j.Asked("side-height") && s.high < need+t/2 {
		j.Problem("box.options.side-height", fmt.Sprintf("Front and back are %s high, and what goes in is %s.", j.Say(s.high),
			j.Say(need)), "Leave it empty, or let things stick out above the rim.", "box.options.side-height", "")
	}
	j.Want("width", s.Width, 12*t+mm, "The basket from front to back", "a fold at either side")
	j.Want("length", s.Length, 12*t+mm, "The basket", "a fold at either end")
	return s
}

// lay weaves: from the base up, of each height first the one from the left, then
// first the one from the right. It gives how many lie on each other in the middle.
func (s woven) lay(put func(side string, strip, layer int)) (middle int) {
	type laid struct {
		quad  [4][2]float64
		layer int
	}
	var done []laid
	// Beside the rim the strips may stand higher than the wall.
	handle := [4][2]float64{{(s.Length - s.handle).MM() / 2, 0}, {(s.Length + s.handle).MM() / 2, 0},
		{(s.Length + s.handle).MM() / 2, s.Depth.MM()}, {(s.Length - s.handle).MM() / 2, s.Depth.MM()}}
	for i := range s.near {
		order := sides
		if i%2 == 1 {
			order = []string{"right", "left"}
		}
		for _, side := range order {
			one := laid{s.strip(i, side), 1}
			for _, o := range done {
				if crossing(o.quad, one.quad) {
					one.layer = max(one.layer, o.layer+1)
				}
			}
			done = append(done, one)
			if crossing(one.quad, handle) {
				middle = max(middle, one.layer)
			}
			put(side, i+1, one.layer)
		}
	}
	return middle
}

// strip is where a strip lies on the wall, in millimetres from its lower left corner.
func (s woven) strip(i int, side string) (q [4][2]float64) {
	below := [2]Length{}
	if i > 0 {
		below = [2]Length{s.near[i-1], s.far[i-1]}
	}
	q = [4][2]float64{{0, below[0].MM()}, {s.high.MM(), below[1].MM()}, {s.high.MM(), s.far[i].MM()}, {0, s.near[i].MM()}}
	for k := range q {
		if side == "right" {
			q[k][0] = s.Length.MM() - q[k][0]
		}
	}
	return q
}

// crossing reports whether two convex outlines share more than an edge: no side of either parts them.
func crossing(a, b [4][2]float64) bool {
	for _, of := range [][4][2]float64{a, b} {
		for i, p := range of {
			q := of[(i+1)%4]
			nx, ny := q[1]-p[1], p[0]-q[0]
			long := math.Hypot(nx, ny)
			span := func(o [4][2]float64) (lo, hi float64) {
				lo, hi = math.Inf(1), math.Inf(-1)
				for _, at := range o {
					d := (at[0]*nx + at[1]*ny) / max(long, 1e-9)
					lo, hi = min(lo, d), max(hi, d)
				}
				return lo, hi
			}
			alo, ahi := span(a)
			blo, bhi := span(b)
			if long > 1e-6 && (ahi < blo+0.05 || bhi < alo+0.05) {
				return false
			}
		}
	}
	return true
}

// handle is a strip as long as the sheet, bent over the basket in a half round; a
// square at either end lies on front and back, over so many layers of the weave.
func handle(j *Spec, b *Box, s woven, layer int, t Length) {
	across := s.Width + 2*t*Length(layer)
	arch := fasteners.HalfRound(across)
	// It bends in above the rim, and above what of the strips stands higher.
	least := s.handle + max(0, s.Depth-s.high) + j.Mark()
	long := max(s.Length+2*s.Depth, arch+2*least).Up(j.Mark())
	end := (long - arch) / 2
	p := fasteners.Handle("handle", [2]string{"front-end", "back-end"}, s.handle, end, long, across, "arch", "front-end", "back-end", "arch")
	b.Add(p, assembly.Place{Face: "back-end", On: "basket/back", Down: s.handle - end/2 - s.high/2, Out: t * Length(layer)})
	brads := j.Is("handle", "brad")
	for _, end := range ends {
		b.Joins = append(b.Joins, assembly.Join{A: "handle/" + end + "-end", B: "basket/" + end, Layers: layer, Stuck: !brads,
			Lapped: true})
		if brads {
			b.Pairs = append(b.Pairs, assembly.Pair{What: "brad", A: "handle/" + end + "-end", B: "basket/" + end,
				Radius: pierced/2 - fasteners.Room})
		}
	}
	if brads {
		b.Do("Put together", "Push a brad through each end of the handle, the weave and the wall behind it. Open its legs inside.")
		b.Needs("brad", 2, 0, "two brads: pierce handle, weave and wall together, and open their legs inside")
	}
}
