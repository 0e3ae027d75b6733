package draw

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"brevium/core/box"
	"brevium/core/fold"
	"brevium/core/plan"
)

// View is where the folded box is seen from, in degrees: Yaw round the
// upright, Pitch from level (0) to straight above (90).
type View struct{ Yaw, Pitch float64 }

// DefaultView looks over the front left corner.
var DefaultView = View{-32, 28}

// Folded draws the box in a pose, with its contents, hidden card hidden.
func Folded(p *plan.Plan, pose box.Pose, v View, w, h float64) string {
	c := &canvas{}
	sceneOf(p, pose, v).paint(c, v, w, h)
	says := fmt.Sprintf("The box folded, %s by %s by %s outside.", p.Step.ShowUp(p.Box.Outside.Length), p.Step.ShowUp(p.Box.Outside.Width), p.Step.ShowUp(p.Box.Outside.Depth))
	return picture("folded", w, h, says, c)
}

// sceneOf puts the box in a pose, with its contents when they are in.
func sceneOf(p *plan.Plan, pose box.Pose, v View) *scene {
	scene := &scene{eye: v.eye(), print: newPrinting(p.Card, fmt.Sprint(string(p.Brief.Encode()), pose, v))}
	a := p.Box.Assemble(p.Card.Caliper, pose)
	for _, body := range a.Bodies {
		scene.body(body, p.Card.Colour, p.Card.Inside)
	}
	if a.Filled {
		for _, b := range p.Blocks {
			scene.block(b)
		}
	}
	return scene
}

func (v View) eye() fold.Vec {
	yaw, pitch := v.Yaw*math.Pi/180, v.Pitch*math.Pi/180
	return fold.Vec{X: math.Sin(yaw) * math.Cos(pitch), Y: -math.Cos(yaw) * math.Cos(pitch), Z: math.Sin(pitch)}
}

// screen gives the directions that run right and up on the picture.
func (v View) screen() (right, up fold.Vec) {
	eye := v.eye()
	yaw := v.Yaw * math.Pi / 180
	right = fold.Vec{X: math.Cos(yaw), Y: math.Sin(yaw)}
	return right, eye.Cross(right)
}

// scene is a heap of flat polygons to be painted from back to front.
type scene struct {
	eye   fold.Vec
	polys []poly
	print *printing
}

// poly is a convex polygon. Real says which edges are edges of card.
type poly struct {
	points []fold.Vec
	real   []bool
	normal fold.Vec
	colour string
	print  int // of the scene's printing, 0 for none
}

func (s *scene) body(b *fold.Body, outside, inside string) {
	for _, f := range b.Faces {
		colour, print := inside, 0
		if f.In.Dot(s.eye) <= 0 {
			colour, print = outside, s.print.on(f.Frame)
		}
		for _, part := range f.Convex() {
			s.polys = append(s.polys, poly{part.Points, part.Real, f.In, colour, print})
		}
	}
}

// thingColour is the colour of things inside.
const thingColour = "#c9a36b"

// around is how many flat sides stand for a round.
const around = 18

// block draws a thing in its shape.
func (s *scene) block(b fold.Block) {
	mid, r := b.Mid(), b.Radius()
	switch b.Shape {
	case fold.Ball:
		s.ball(mid, r)
	case fold.Upright:
		top := b.Hi.Z
		if b.Neck > 0 {
			top = b.Shoulder
			s.can(mid, fold.Vec{Z: 1}, b.Neck, b.Shoulder, b.Hi.Z)
		}
		s.can(mid, fold.Vec{Z: 1}, r, b.Lo.Z, top)
	case fold.LyingX:
		s.can(mid, fold.Vec{X: 1}, (b.Hi.Z-b.Lo.Z)/2, b.Lo.X, b.Hi.X)
	case fold.LyingY:
		s.can(mid, fold.Vec{Y: 1}, (b.Hi.Z-b.Lo.Z)/2, b.Lo.Y, b.Hi.Y)
	default:
		s.brick(b.Lo, b.Hi)
	}
}

// side adds one flat side of a thing; edges says whether its rim is inked.
func (s *scene) side(edges bool, pts ...fold.Vec) {
	n := pts[1].Sub(pts[0]).Cross(pts[2].Sub(pts[1]))
	real := make([]bool, len(pts))
	for i := range real {
		real[i] = edges
	}
	if l := n.Len(); l > 0 {
		s.polys = append(s.polys, poly{pts, real, n.Times(1 / l), thingColour, 0})
	}
}

func (s *scene) brick(lo, hi fold.Vec) {
	v := func(i int) fold.Vec {
		p := lo
		if i&1 != 0 {
			p.X = hi.X
		}
		if i&2 != 0 {
			p.Y = hi.Y
		}
		if i&4 != 0 {
			p.Z = hi.Z
		}
		return p
	}
	for _, q := range [][4]int{{0, 1, 3, 2}, {4, 5, 7, 6}, {0, 1, 5, 4}, {2, 3, 7, 6}, {0, 2, 6, 4}, {1, 3, 7, 5}} {
		s.side(true, v(q[0]), v(q[1]), v(q[2]), v(q[3]))
	}
}

// ring gives points round an axis through mid, at a distance along it.
func ring(mid, axis fold.Vec, r, at float64) []fold.Vec {
	u := fold.Vec{X: axis.Y + axis.Z, Y: axis.X}
	w := axis.Cross(u)
	c := mid.Sub(axis.Times(mid.Dot(axis))).Add(axis.Times(at))
	out := make([]fold.Vec, around)
	for i := range out {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / around)
		out[i] = c.Add(u.Times(r * cos)).Add(w.Times(r * sin))
	}
	return out
}

func (s *scene) can(mid, axis fold.Vec, r, from, to float64) {
	a, b := ring(mid, axis, r, from), ring(mid, axis, r, to)
	s.side(true, a...)
	s.side(true, b...)
	for i := range a {
		k := (i + 1) % around
		s.side(false, a[i], a[k], b[k], b[i])
	}
}

func (s *scene) ball(mid fold.Vec, r float64) {
	up := fold.Vec{Z: 1}
	const bands = 8
	for n := range bands {
		s1, c1 := math.Sincos(math.Pi * (float64(n)/bands - 0.5))
		s2, c2 := math.Sincos(math.Pi * (float64(n+1)/bands - 0.5))
		a, b := ring(mid, up, max(r*c1, 1e-3), mid.Z+r*s1), ring(mid, up, max(r*c2, 1e-3), mid.Z+r*s2)
		for i := range a {
			k := (i + 1) % around
			s.side(false, a[i], a[k], b[k], b[i])
		}
	}
}

// paint orders the polygons by a tree of planes (each plane splits what
// crosses it, so the order is right from any side) and draws them.
func (s *scene) paint(c *canvas, v View, w, h float64) {
	right, up := v.screen()
	flat := func(p fold.Vec) (x, y float64) { return p.Dot(right), -p.Dot(up) }
	loX, loY, hiX, hiY := math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)
	for _, p := range s.polys {
		for _, pt := range p.points {
			x, y := flat(pt)
			loX, loY, hiX, hiY = min(loX, x), min(loY, y), max(hiX, x), max(hiY, y)
		}
	}
	const rim = 18
	k := min((w-2*rim)/max(hiX-loX, 1), (h-2*rim)/max(hiY-loY, 1))
	dx, dy := (w-k*(hiX-loX))/2-k*loX, (h-k*(hiY-loY))/2-k*loY
	at := func(p fold.Vec) string {
		x, y := flat(p)
		return tenth(x*k+dx) + " " + tenth(y*k+dy)
	}
	s.print.define(c, right, up, k, dx, dy)
	grow(s.polys).walk(s.eye, func(p poly) {
		var b, bare, edges strings.Builder
		for i, pt := range p.points {
			letter := "L"
			if i == 0 {
				letter = "M"
			}
			b.WriteString(letter + at(pt))
			side := &bare
			if p.real[i] {
				side = &edges
			}
			side.WriteString("M" + at(pt) + "L" + at(p.points[(i+1)%len(p.points)]))
		}
		fill := shade(p.colour, p.normal)
		if bare.Len() == 0 && p.print == 0 { // whole: its rim is its edge
			c.tag("path", "class", "face", "d", b.String()+"Z", "fill", fill)
			return
		}
		c.tag("path", "d", b.String()+"Z", "fill", fill)
		if bare.Len() > 0 { // over the seam, or what lies behind shines through
			c.tag("path", "d", bare.String(), "stroke", fill, "stroke-width", "1")
		}
		if p.print > 0 {
			c.tag("path", "d", b.String()+"Z", "fill", s.print.fill(p.print))
		}
		c.tag("path", "class", "edge", "d", edges.String())
	})
}

// shade darkens a colour by how the light falls on a face.
func shade(colour string, n fold.Vec) string {
	light := fold.Vec{X: -0.35, Y: -0.55, Z: 0.76}
	k := 0.66 + 0.34*math.Abs(n.Dot(light))
	rgb, err := strconv.ParseUint(strings.TrimPrefix(colour, "#"), 16, 32)
	if err != nil {
		return colour
	}
	part := func(shift uint) uint64 { return uint64(float64(rgb>>shift&255) * k) }
	return fmt.Sprintf("#%02x%02x%02x", part(16), part(8), part(0))
}
