package net

import (
	"fmt"
	"math"
	"strings"

	"brevium/core/measure"
)

// A curved face is one face to whoever draws, cuts or names it. Only folding
// takes it apart, into facets so narrow that each turns by a few degrees.

// facetTurn is how far, in degrees, a facet turns at the most.
const facetTurn = 7.5

// Length is how long the curved face is, measured on the flat card.
func (c Curve) Length(f *Face) Length {
	lo, hi := f.Bounds()
	if c.AcrossWidth {
		return hi.X - lo.X
	}
	return hi.Y - lo.Y
}

// Radius is that of the arc, to the middle of the card.
func (c Curve) Radius(f *Face) Length {
	return measure.FromMM(c.Length(f).MM() * 180 / (math.Pi * math.Abs(c.Turn)))
}

// curveEnds makes the ends of curved faces bends that run on straight into what lies beyond.
func (p finder) curveEnds() {
	for _, c := range p.Curves {
		f := p.Face(c.Face)
		if f == nil {
			p.fault("%s has no face %s to bend", p.Name, c.Face)
			continue
		}
		for i := range f.Edges {
			e := &f.Edges[i]
			if e.Beyond == nil || e.Kind.Open() || !c.end(*e) {
				continue
			}
			for _, side := range []*Face{f, e.Beyond} {
				for k := range side.Edges {
					if x := &side.Edges[k]; c.end(*x) && (x.Beyond == f || x.Beyond == e.Beyond && side == f) {
						x.Kind, x.Turn, x.Fold = Bend, 0, c.Fold
					}
				}
			}
		}
	}
}

// end reports whether an edge runs along the lines a face is bent about.
func (c Curve) end(e Edge) bool {
	return c.AcrossWidth && e.A.X == e.B.X || !c.AcrossWidth && e.A.Y == e.B.Y
}

// Facetted gives a found piece with its curved faces cut into facets of the
// same name; without any it is the piece itself.
func (p *Piece) Facetted() *Piece {
	if p.facetted != nil {
		return p.facetted
	}
	return p
}

func (p finder) facet() *Piece {
	q := *p.Piece
	q.Lines, q.labels, q.rules, q.Passes, q.Faults, q.grid, q.Curves, q.facetted = nil, nil, nil, nil, nil, nil, nil, nil
	edges := 0
	for _, f := range p.Faces {
		edges += len(f.Edges)
	}
	known := make(map[[2]Point]bool, edges)
	q.Lines = make([]Line, 0, edges)
	for _, f := range p.Faces {
		for _, e := range f.Edges {
			if known[[2]Point{e.B, e.A}] { // from the other side
				continue
			}
			known[[2]Point{e.A, e.B}] = true
			l := e.Line
			if c := p.curveOf(f, e.Beyond); c != nil && !e.Kind.Open() && c.end(e) {
				l.Turn = c.Turn / float64(2*c.facets())
			}
			q.Lines = append(q.Lines, l)
		}
		switch c := p.curveOf(f, nil); {
		case f.Waste && !punched(f):
			q.Label(f.Centre(), waste)
		case c != nil:
			c.cut(&q, f)
		case !f.Waste:
			q.Label(f.Centre(), f.Name)
		}
	}
	q.Find()
	for _, f := range q.Faces {
		f.Name, _, _ = strings.Cut(f.Name, "#")
	}
	q.Faults = p.Faults
	return &q
}

func (c Curve) facets() int { return max(4, int(math.Ceil(math.Abs(c.Turn)/facetTurn))) }

func (p finder) curveOf(f, g *Face) *Curve {
	for i := range p.Curves {
		if name := p.Curves[i].Face; f.Name == name || g != nil && g.Name == name {
			return &p.Curves[i]
		}
	}
	return nil
}

// cut draws the bends between the facets of a face, and names the facets.
func (c Curve) cut(q *Piece, f *Face) {
	lo, hi := f.Bounds()
	n := c.facets()
	from, size := lo.Y, hi.Y-lo.Y
	if c.AcrossWidth {
		from, size = lo.X, hi.X-lo.X
	}
	for i := range n {
		if i > 0 {
			a, b := f.across(c.AcrossWidth, from+size*Length(i)/Length(n))
			q.Lines = append(q.Lines, Line{Kind: Bend, Fold: c.Fold, A: a, B: b, Turn: c.Turn / float64(n)})
		}
		a, b := f.across(c.AcrossWidth, from+size*Length(2*i+1)/Length(2*n))
		q.Label(Point{(a.X + b.X) / 2, (a.Y + b.Y) / 2}, fmt.Sprintf("%s#%d", f.Name, i))
	}
}

// across gives where a line along the height (or the width) enters and leaves a face that is convex.
func (f *Face) across(alongHeight bool, at Length) (a, b Point) {
	least, most := math.Inf(1), math.Inf(-1)
	for i, p := range f.Points {
		q := f.Points[(i+1)%len(f.Points)]
		u, v, s, t := p.X, q.X, p.Y, q.Y
		if !alongHeight {
			u, v, s, t = p.Y, q.Y, p.X, q.X
		}
		if u == v || at < min(u, v) || at > max(u, v) {
			continue
		}
		hit := s.MM() + (t-s).MM()*float64(at-u)/float64(v-u)
		least, most = min(least, hit), max(most, hit)
	}
	return on(alongHeight, at, measure.FromMM(least)), on(alongHeight, at, measure.FromMM(most))
}
