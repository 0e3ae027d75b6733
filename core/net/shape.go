package net

import (
	"math"
	"slices"

	"brevium/core/measure"
)

// facets is how many straight cuts stand for a whole round.
const facets = 24

// Punch cuts a round hole that a circle of the radius just passes through. A
// scoop, if not 0, widens it towards the given direction, for a fingertip.
func (p *Piece) Punch(mid Point, radius, scoop Length, towards float64) {
	h := Punch{Mid: mid, Diameter: 2 * radius, Scoop: scoop, Towards: towards}
	p.Punches = append(p.Punches, h)
	// The facets lie outside the circle, so that what fits it fits the hole.
	out := radius.MM()/math.Cos(math.Pi/facets) - radius.MM()
	ring := make([]Point, facets)
	for i := range ring {
		angle := 2 * math.Pi * float64(i) / facets
		r := h.Wide(angle) + out
		ring[i] = Point{mid.X + measure.FromMM(r*math.Cos(angle)), mid.Y + measure.FromMM(r*math.Sin(angle))}
	}
	for i := range ring {
		p.Lines = append(p.Lines, Line{Kind: Hole, A: ring[i], B: ring[(i+1)%facets]})
	}
}

// ScoopHalf is how far a scoop goes to either side of where it is widest: an angle.
const ScoopHalf = math.Pi / 5

// Wide is how far the rim of a hole lies from its middle in a direction, in millimetres.
func (h Punch) Wide(angle float64) float64 {
	r := h.Diameter.MM() / 2
	if off := math.Abs(math.Remainder(angle-h.Towards, 2*math.Pi)); off < ScoopHalf {
		r += h.Scoop.MM() * math.Cos(off/ScoopHalf*math.Pi/2)
	}
	return r
}

// Window cuts an upright opening.
func (p *Piece) Window(lo, hi Point) {
	p.Opening("square", []Point{lo, {hi.X, lo.Y}, hi, {lo.X, hi.Y}})
}

// Mark notes where something of a radius is put on the piece.
func (o *Openings) Mark(what string, at Point, radius Length) {
	o.Marks = append(o.Marks, Mark{at, what, radius})
}

// Notch cuts a half round out of the edge at a point, into the card: inward is a unit step along an axis.
func (p *Piece) Notch(at Point, radius Length, inward Point) {
	p.Notches = append(p.Notches, Punch{Mid: at, Diameter: 2 * radius, Inward: inward})
	along := Point{inward.Y, inward.X}
	var arc []Point
	for i := 0; i <= facets/2; i++ {
		s, c := math.Sincos(math.Pi * float64(i) / (facets / 2))
		u, v := measure.FromMM(radius.MM()*c), measure.FromMM(radius.MM()*s)
		arc = append(arc, Point{at.X + along.X*u + inward.X*v, at.Y + along.Y*u + inward.Y*v})
	}
	for i, l := range p.labels { // a name within the notch moves into the card that is left
		d := Point{l.at.X - at.X, l.at.Y - at.Y}
		if d.X*inward.X+d.Y*inward.Y >= 0 && math.Hypot(d.X.MM(), d.Y.MM()) <= radius.MM() {
			deep := radius + radius/20
			p.labels[i].at = Point{at.X + inward.X*deep, at.Y + inward.Y*deep}
		}
	}
	p.CutAlong(arc...)
	p.Discard(Point{at.X + inward.X*radius/2, at.Y + inward.Y*radius/2})
}

// Slot cuts a narrow slot of a depth down from the top edge, its middle at x; or, from the bottom edge, up.
func (p *Piece) Slot(x, width, depth Length, fromBottom bool) {
	p.Slots = append(p.Slots, Slot{x, width, depth, fromBottom})
	edge, end := Length(0), depth
	if fromBottom {
		edge, end = p.Height, p.Height-depth
	}
	l, r := x-width/2, x+width-width/2
	p.CutAlong(Point{l, edge}, Point{l, end}, Point{r, end}, Point{r, edge})
	p.Discard(Point{x, (edge + end) / 2})
}

// Mountains folds every score of the piece away from the inside.
func (d *Drawing) Mountains() {
	for i := range d.Lines {
		d.Lines[i].Fold = Mountain
	}
	for i := range d.Passes {
		d.Passes[i].Fold = Mountain
	}
}

// Bounds reports whether a cut is the notch's own, or lies along the edge that it is cut out of.
func (h Punch) Bounds(l Line) bool {
	near := func(at Point) bool {
		u, v := (at.X - h.Mid.X).MM(), (at.Y - h.Mid.Y).MM()
		out := u*float64(h.Inward.X) + v*float64(h.Inward.Y)
		return math.Abs(out) < 0.01 || math.Hypot(u, v) <= h.Diameter.MM()/2*1.01
	}
	return near(l.A) && near(l.B)
}

// Chamfer cuts the two upper corners of the piece off on the slant.
func (p *Piece) Chamfer(by Length) {
	for _, c := range []struct{ x, in Length }{{0, by}, {p.Width, -by}} {
		p.CutAlong(Point{c.x, by}, Point{c.x + c.in, 0})
		p.Discard(Point{c.x + c.in/5, by / 5})
	}
}

// Mirrored gives a found piece as its mirror image, left for right: what one
// gets by cutting it alike and scoring it on the other face.
func (p *Piece) Mirrored() *Piece {
	q := *p
	flip := func(at Point) Point { return Point{p.Width - at.X, at.Y} }
	q.Faces = make([]*Face, len(p.Faces))
	beyond := map[*Face]*Face{}
	for i, f := range p.Faces {
		g := *f
		q.Faces[i], beyond[f] = &g, &g
	}
	for i, f := range p.Faces {
		g, n := q.Faces[i], len(f.Points)
		g.Points, g.Edges, g.Holes = mirrored(f.Points, flip), make([]Edge, n), nil
		for k := range n {
			e := f.Edges[(2*n-2-k)%n]
			e.A, e.B = flip(e.B), flip(e.A)
			e.Beyond = beyond[e.Beyond]
			g.Edges[k] = e
		}
		for _, h := range f.Holes {
			g.Holes = append(g.Holes, mirrored(h, flip))
		}
	}
	if p.facetted != nil {
		q.facetted = p.facetted.Mirrored()
	}
	if p.Middle != nil {
		mid := flip(*p.Middle)
		q.Middle = &mid
	}
	return &q
}

func mirrored(ring []Point, flip func(Point) Point) []Point {
	out := make([]Point, len(ring))
	for i, at := range ring {
		out[len(ring)-1-i] = flip(at)
	}
	return slices.Clip(out)
}
