package draw

import "brevium/core/fold"

// tree splits space by the planes of polygons, so that from any eye the
// polygons can be walked from the farthest to the nearest.
type tree struct {
	on           []poly // polygons in the node's plane
	front, back  *tree
	through, out fold.Vec
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
	front, back = poly{normal: p.normal, colour: p.colour, print: p.print}, poly{normal: p.normal, colour: p.colour, print: p.print}
	on = true
	for i, a := range p.points {
		b := p.points[(i+1)%len(p.points)]
		da, db := a.Sub(t.through).Dot(t.out), b.Sub(t.through).Dot(t.out)
		if da > flush || da < -flush {
			on = false
		}
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
	if !beyond(front, t, 1) {
		front.points = nil
	}
	if !beyond(back, t, -1) {
		back.points = nil
	}
	return front, back, on
}

func beyond(p poly, t *tree, sign float64) bool {
	for _, a := range p.points {
		if sign*a.Sub(t.through).Dot(t.out) > flush {
			return true
		}
	}
	return false
}

func (p *poly) add(a fold.Vec, real bool) {
	p.points, p.real = append(p.points, a), append(p.real, real)
}

// walk visits polygons from the far side to the near side.
func (t *tree) walk(eye fold.Vec, visit func(poly)) {
	if t == nil {
		return
	}
	near, far := t.front, t.back
	if t.out.Dot(eye) < 0 {
		near, far = far, near
	}
	far.walk(eye, visit)
	for _, p := range t.on {
		visit(p)
	}
	near.walk(eye, visit)
}
