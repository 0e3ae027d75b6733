package solid

import (
	"math"

	"brevium/core/fold"
)

// tree splits space by the planes of polygons, so that from any eye the
// polygons can be walked from the farthest to the nearest.
type tree struct {
	on           []poly // polygons in the node's plane
	front, back  *tree
	through, out fold.Vec
	// where the tree goes no further: what hangs there, back to front
	frontHung, backHung []poly
}

// flush is how near a plane, in millimetres, a point lies on it.
const flush = 1e-3

func grow(polys []poly) *tree {
	if len(polys) == 0 {
		return nil
	}
	t := &tree{through: polys[0].points[0], out: polys[0].normal}
	var front, back []poly
	for _, p := range polys {
		f, b, on := t.split(p)
		switch {
		case on:
			t.on = append(t.on, p)
		default:
			if len(f.points) > 2 {
				front = append(front, f)
			}
			if len(b.points) > 2 {
				back = append(back, b)
			}
		}
	}
	t.front, t.back = grow(front), grow(back)
	return t
}

// split cuts a polygon by the node's plane. Cut edges are not edges of card.
func (t *tree) split(p poly) (front, back poly, on bool) {
	switch lo, hi := t.reach(p); {
	case lo >= -flush && hi <= flush:
		return front, back, true
	case lo >= -flush:
		return p, back, false
	case hi <= flush:
		return front, p, false
	}
	front = poly{normal: p.normal, colour: p.colour, print: p.print}
	back = front
	for i, a := range p.points {
		b := p.points[(i+1)%len(p.points)]
		da, db := a.Sub(t.through).Dot(t.out), b.Sub(t.through).Dot(t.out)
		if da >= -flush {
			front.add(a, p.real[i] && (da > flush || db >= -flush))
		}
		if da <= flush {
			back.add(a, p.real[i] && (da < -flush || db <= flush))
		}
		if da > flush && db < -flush || da < -flush && db > flush {
			x := a.Add(b.Sub(a).Times(da / (da - db)))
			// The half on the way in keeps the edge; the cut itself is bare.
			front.add(x, p.real[i] && da < 0)
			back.add(x, p.real[i] && da > 0)
		}
	}
	return front, back, false
}

// reach gives how far a polygon lies behind the plane and before it.
func (t *tree) reach(p poly) (lo, hi float64) {
	lo, hi = math.Inf(1), math.Inf(-1)
	for _, a := range p.points {
		d := a.Sub(t.through).Dot(t.out)
		lo, hi = min(lo, d), max(hi, d)
	}
	return lo, hi
}

// hang puts the polygons of a thing, from back to front, where they lie among
// the card. They split no card and nothing splits on them.
func (t *tree) hang(polys []poly, eye fold.Vec) {
	var front, back []poly
	for _, p := range polys {
		f, b, on := t.split(p)
		if on { // on the card: on the side that is seen
			if f = p; t.out.Dot(eye) < 0 {
				f, b = poly{}, p
			}
		}
		if len(f.points) > 2 {
			front = append(front, f)
		}
		if len(b.points) > 2 {
			back = append(back, b)
		}
	}
	if t.front != nil && len(front) > 0 {
		t.front.hang(front, eye)
	} else {
		t.frontHung = append(t.frontHung, front...)
	}
	if t.back != nil && len(back) > 0 {
		t.back.hang(back, eye)
	} else {
		t.backHung = append(t.backHung, back...)
	}
}

func (p *poly) add(a fold.Vec, real bool) {
	p.points, p.real = append(p.points, a), append(p.real, real)
}

// walk visits polygons from the far side to the near side.
func (t *tree) walk(eye fold.Vec, visit func(poly)) {
	if t == nil {
		return
	}
	near, far, nearHung, farHung := t.front, t.back, t.frontHung, t.backHung
	if t.out.Dot(eye) < 0 {
		near, far, nearHung, farHung = far, near, farHung, nearHung
	}
	far.walk(eye, visit)
	for _, polys := range [][]poly{farHung, t.on, nearHung} {
		for _, p := range polys {
			visit(p)
		}
	}
	near.walk(eye, visit)
}
