package fold

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/words"
)

// Apart checks that no two faces of the bodies pass through each other, but for
// those of different pieces that touch by a join, which is checked by itself.
func Apart(touch func(p, q *Placed) bool, bodies ...*Body) Check {
	all := reaching(bodies)
	var hits []string
	pairs := 0
	for i, r := range all {
		for _, other := range all[i+1:] {
			p, q := r.Placed, other.Placed
			if !r.near(Block{Lo: other.lo, Hi: other.hi}, p.Body.T+q.Body.T) || related(p, q) ||
				touch != nil && p.Body != q.Body && touch(p, q) {
				continue
			}
			pairs++
			if pierces(p, q) || pierces(q, p) || crosses(p, q) || coincide(p, q) {
				hits = append(hits, fmt.Sprintf("%s and %s", fullName(p), fullName(q)))
			}
		}
	}
	c := Check{Name: "no part runs into another", Holds: len(hits) == 0,
		Figure: fmt.Sprintf("%d pairs come near each other", pairs)}
	if len(hits) > 3 {
		hits = append(hits[:3], fmt.Sprintf("and %d more", len(hits)-3))
	}
	if len(hits) > 0 {
		c.Figure = strings.Join(hits, "; ")
	}
	return c
}

// fullName is what people call a face: “front left tab of the base”.
func fullName(p *Placed) string { return words.Plain(p.Name) + " of the " + words.Plain(p.Body.Name) }

// related reports whether two faces touch by intention: across a crease, glued, or where card crowds.
func related(p, q *Placed) bool {
	if p.Body != q.Body {
		return false
	}
	for _, e := range p.Edges {
		if e.Beyond == q.Face && !e.Kind.Open() {
			return true
		}
	}
	for _, c := range p.Body.Piece.Crowds {
		if c == [2]string{p.Name, q.Name} || c == [2]string{q.Name, p.Name} {
			return true
		}
	}
	for _, g := range slices.Concat(p.Body.Piece.Glues, p.Body.Piece.Tucks) {
		if g.Face == p.Name && g.On == q.Name || g.Face == q.Name && g.On == p.Name {
			return true
		}
	}
	return false
}

// pierces reports whether an edge of p goes through q, further than card yields.
func pierces(p, q *Placed) bool {
	give := yields*(p.Body.gives()+q.Body.gives()) + tolerance
	for i, a := range p.Poly {
		b := p.Poly[(i+1)%len(p.Poly)]
		da, db := a.Sub(q.Poly[0]).Dot(q.In), b.Sub(q.Poly[0]).Dot(q.In)
		if da*db >= 0 || math.Abs(da) < give || math.Abs(db) < give {
			continue
		}
		at := a.Add(b.Sub(a).Times(da / (da - db)))
		if q.holds(at) && q.fromRim(at) > give {
			return true
		}
	}
	return false
}

// crosses reports whether two faces go through each other like the strips of a cross that nobody slotted: along the
// line where their planes meet, both have card on it and, further than card yields, to either side of it.
func crosses(p, q *Placed) bool {
	along := p.In.Cross(q.In)
	if along.Len() < 0.05 {
		return false
	}
	give := yields*(p.Body.gives()+q.Body.gives()) + tolerance
	along = along.unit()
	return shared(p.spans(q, along, give), q.spans(p, along, give)) > 2*give
}

// spans gives where, along the line in the other's plane, the face has card on the line and to both sides of it.
func (p *Placed) spans(q *Placed, along Vec, give float64) [][2]float64 {
	out := p.at(q, along, 0)
	for _, off := range []float64{give, -give} {
		out = both(out, p.at(q, along, off))
	}
	return out
}

// at gives the stretches of the face in a plane beside the other's.
func (p *Placed) at(q *Placed, along Vec, off float64) (out [][2]float64) {
	var hits []float64
	for i, a := range p.Poly {
		b := p.Poly[(i+1)%len(p.Poly)]
		da, db := a.Sub(q.Poly[0]).Dot(q.In)-off, b.Sub(q.Poly[0]).Dot(q.In)-off
		if (da > 0) != (db > 0) {
			hits = append(hits, a.Add(b.Sub(a).Times(da/(da-db))).Dot(along))
		}
	}
	slices.Sort(hits)
	for i := 1; i < len(hits); i += 2 {
		out = append(out, [2]float64{hits[i-1], hits[i]})
	}
	return out
}

// both gives what two sets of stretches have in common.
func both(a, b [][2]float64) (out [][2]float64) {
	for _, x := range a {
		for _, y := range b {
			if lo, hi := max(x[0], y[0]), min(x[1], y[1]); lo < hi {
				out = append(out, [2]float64{lo, hi})
			}
		}
	}
	return out
}

// shared is the length two sets of stretches have in common.
func shared(a, b [][2]float64) (sum float64) {
	for _, x := range both(a, b) {
		sum += x[1] - x[0]
	}
	return sum
}

// coincide reports whether two faces lie in one place, side on side.
func coincide(p, q *Placed) bool {
	if math.Abs(p.In.Dot(q.In)) < 0.999 {
		return false
	}
	if math.Abs(p.Poly[0].Sub(q.Poly[0]).Dot(q.In)) > min(p.Body.T, q.Body.T)/2 {
		return false
	}
	return overlap(p, q) > 1
}
