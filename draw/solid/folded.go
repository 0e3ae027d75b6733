package solid

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"brevium/core/assembly"
	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/shop"
	"brevium/draw/pen"
)

// View is where the folded box is seen from, in degrees: Yaw round the
// upright, Pitch from level (0) to straight above (90).
type View struct{ Yaw, Pitch float64 }

// MostSeen is how many surfaces a picture shows at the most: beyond it the eye
// tells them no more apart.
const MostSeen = 1000

// DefaultView looks over the front left corner.
var DefaultView = View{-32, 28}

// Folded draws the box in a pose, with its contents, hidden card hidden.
func Folded(p *plan.Plan, pose assembly.Pose, v View, w, h float64) pen.Picture {
	c := &pen.Canvas{}
	sceneOf(p, pose, v, Whole, fold.Cuts{}).Paint(c, v, w, h, MostSeen)
	says := fmt.Sprintf("The box folded, %s by %s by %s outside.", p.Step.ShowUp(p.Box.Outside.Length),
		p.Step.ShowUp(p.Box.Outside.Width), p.Step.ShowUp(p.Box.Outside.Depth))
	return c.Picture("folded", w, h, says)
}

// Extent is what of a box is drawn.
type Extent bool

const (
	Whole   Extent = true
	boxOnly Extent = false // neither things nor what stands between them
)

// sceneOf puts the box in a pose, with its contents when they are in.
func sceneOf(p *plan.Plan, pose assembly.Pose, v View, what Extent, cuts fold.Cuts) *Scene {
	return standing(p, p.Box.Assemble(p.Card.Caliper, pose), fmt.Sprint(pose), v, what, cuts)
}

func standing(p *plan.Plan, a assembly.Standing, name string, v View, what Extent, cuts fold.Cuts) *Scene {
	return Lit(p, a, name, v, what, cuts, nil)
}

// Lit is standing with some faces lit.
func Lit(p *plan.Plan, a assembly.Standing, name string, v View, what Extent, cuts fold.Cuts,
	light func(*fold.Body, string) bool) *Scene {
	scene := &Scene{lit: light, eye: v.eye(), cuts: cuts, print: pen.NewPrints(fmt.Sprint(string(p.Brief.Encode()), name, v))}
	for _, body := range a.Bodies {
		if what == Whole || body.Piece.Part != net.Insert {
			x, y := p.Dressed.Begins(body.Piece, a.Rides(body))
			scene.body(body, p.CardOf(body.Piece.Stock), x.MM(), y.MM())
		}
	}
	if a.Filled && what == Whole {
		for _, b := range backToFront(p.Blocks, v) {
			scene.things = append(scene.things, scene.thing(b))
		}
	}
	return scene
}

// Stored draws the box put away flat, "" when it can't be.
func Stored(p *plan.Plan, w, h float64) pen.Picture {
	flat, ok := p.Box.FlatPacked(p.Card.Caliper)
	if !ok {
		return pen.Picture{}
	}
	c, view := &pen.Canvas{}, View{-18, 52}
	standing(p, flat, "flat", view, boxOnly, fold.Cuts{}).Paint(c, view, w, h, MostSeen)
	says := fmt.Sprintf("The box put away flat, %s by %s.", p.Step.ShowUp(p.Box.Stored.Length),
		p.Step.ShowUp(p.Box.Stored.Width))
	return c.Picture("folded", w, h, says)
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

// Scene is a heap of flat polygons of card, and the things among them, to be
// painted from back to front. Things are in that order already.
type Scene struct {
	lit    func(b *fold.Body, face string) bool // what moves now; nil lights nothing
	eye    fold.Vec
	polys  []poly
	things [][]poly
	print  *pen.Prints
	cuts   fold.Cuts
}

// poly is a convex polygon. Real says which edges are edges of card.
type poly struct {
	points []fold.Vec
	real   []bool
	normal fold.Vec
	colour string
	print  string // the fill of what is printed on it
	round  *disc  // what it is all of, when it is round
	lit    bool
}

// disc is a round: its middle, the way it faces, and its radius. A ball is the
// disc that faces the eye.
type disc struct {
	mid, out fold.Vec
	r        float64
	ball     bool
}

// body adds a body of a card, whose print begins so far right and down.
func (s *Scene) body(b *fold.Body, card shop.Card, x, y float64) {
	for _, f := range b.Faces {
		colour, print := card.Inside, ""
		if f.In.Dot(s.eye) <= 0 {
			colour, print = card.Colour, s.print.On(card, pen.Begun(f.Frame, x, y))
		}
		lit := s.lit != nil && s.lit(b, f.Name)
		for _, part := range f.Convex(s.cuts) {
			s.polys = append(s.polys, poly{points: part.Points, real: part.Real, normal: f.In, colour: colour, print: print,
				lit: lit})
		}
	}
}

// Paint orders the polygons by a tree of planes (each plane splits what
// crosses it, so the order is right from any side) and draws those that are
// seen.
func (s *Scene) Paint(c *pen.Canvas, v View, w, h float64, most int) {
	right, up := v.screen()
	flat := func(p fold.Vec) (x, y float64) { return p.Dot(right), -p.Dot(up) }
	loX, loY, hiX, hiY := math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)
	for _, polys := range append(s.things, s.polys) {
		for _, p := range polys {
			for _, pt := range p.points {
				x, y := flat(pt)
				loX, loY, hiX, hiY = min(loX, x), min(loY, y), max(hiX, x), max(hiY, y)
			}
		}
	}
	const rim = 18
	k := min((w-2*rim)/max(hiX-loX, 1), (h-2*rim)/max(hiY-loY, 1))
	dx, dy := (w-k*(hiX-loX))/2-k*loX, (h-k*(hiY-loY))/2-k*loY
	place := func(p fold.Vec) (x, y float64) {
		x, y = flat(p)
		return x*k + dx, y*k + dy
	}
	s.print.Define(c, right, up, k, dx, dy)
	b := brush{Canvas: c, scene: s, place: place, right: right, up: up, k: k}
	for _, p := range seen(s.painted(), place, w, h, most) {
		b.draw(p)
	}
}

// painted gives all polygons in the order they are painted.
func (s *Scene) painted() (out []poly) {
	cards := grow(s.polys)
	for _, thing := range s.things {
		if cards == nil {
			out = append(out, thing...)
		} else {
			cards.hang(thing, s.eye)
		}
	}
	cards.walk(s.eye, func(p poly) { out = append(out, p) })
	return out
}

// brush draws polygons where they are seen.
type brush struct {
	*pen.Canvas
	scene     *Scene
	place     func(fold.Vec) (x, y float64)
	right, up fold.Vec
	k         float64
}

func (n *brush) draw(p poly) {
	fill := shade(p.colour, p.normal)
	if p.round != nil {
		n.disc(*p.round, fill)
		return
	}
	line := make([][2]float64, len(p.points))
	for i, pt := range p.points {
		x, y := n.place(pt)
		line[i] = [2]float64{pen.Tenth(x), pen.Tenth(y)}
	}
	face, bare, edges := pen.Ring(line), pen.Path(nil), pen.Path(nil)
	for i, from := range line {
		side, to := &bare, line[(i+1)%len(line)]
		if p.real[i] {
			side = &edges
		}
		*side = append(*side, pen.Seg{Do: 'M', X: from[0], Y: from[1]}, pen.Seg{Do: 'L', X: to[0], Y: to[1]})
	}
	if p.lit {
		n.Tag("path", "d", face, "fill", fill)
		n.Tag("path", "class", "lit-face", "d", face)
		return
	}
	if len(bare) == 0 && p.print == "" { // whole: its rim is its edge
		n.Tag("path", "class", "face", "d", face, "fill", fill)
		return
	}
	if len(bare) > 0 { // over the seam too, or what lies behind shines through
		n.Tag("path", "d", face, "fill", fill, "stroke", fill)
	} else {
		n.Tag("path", "d", face, "fill", fill)
	}
	if p.print != "" {
		n.Tag("path", "d", face, "fill", p.print)
	}
	if len(edges) > 0 {
		n.Tag("path", "class", "edge", "d", edges)
	}
}

// disc draws a round whole, as the oval it is seen as.
func (n *brush) disc(d disc, fill string) {
	x, y := n.place(d.mid)
	if d.ball {
		n.Tag("circle", "class", "face", "cx", pen.Tenth(x), "cy", pen.Tenth(y), "r", pen.Tenth(d.r*n.k), "fill", "url(#p-ball)")
		return
	}
	// The oval is narrow the way the disc leans.
	a, b := d.out.Dot(n.right), -d.out.Dot(n.up)
	var turn pen.Turn
	if math.Hypot(a, b) > 1e-6 && math.Abs(a) > 1e-6 {
		turn = pen.Turned(pen.Tenth(math.Atan2(b, a)*180/math.Pi-90), pen.Tenth(x), pen.Tenth(y))
	}
	n.Tag("ellipse", "class", "face", "cx", pen.Tenth(x), "cy", pen.Tenth(y), "rx", pen.Tenth(d.r*n.k),
		"ry", pen.Tenth(d.r*n.k*math.Abs(d.out.Dot(n.scene.eye))), "transform", turn, "fill", fill)
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
