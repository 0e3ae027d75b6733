// Package fold turns flat pieces into a box in space and proves it.
//
// Faces are folded about the scores they share, from the face that stays on the table outwards. Card is treated as
// its middle surface: a size from score to score is the distance between the middles of two walls, so the outside
// is one caliper more and the inside one caliper less. Glued faces are moved aside by the thickness of what they
// lie on.
package fold

import (
	"fmt"
	"math"
	"slices"

	"brevium/core/net"
)

// Placed is a face in space.
type Placed struct {
	*net.Face
	Frame
	Body  *Body
	Poly  []Vec
	Holes [][]Vec
	about [][2]Vec // the upright box round each hole
	Over  bool     // on the outside of what it lies on
	Layer int      // how many thicknesses of card glue has moved it aside
}

// Body is one copy of a piece, folded.
type Body struct {
	Piece *net.Piece
	Name  string  // of the part it is, unique but for its copies
	T     float64 // caliper, in millimetres
	Back  float64 // of what is stuck on other card: the caliper of that
	Faces []*Placed
	seams []seam
}

// gives is the caliper by which faces may press into each other: a layer gives with the card it is stuck on.
func (b *Body) gives() float64 { return max(b.T, b.Back) }

// seam is a crease that closes a loop: folding reached both sides of it by other creases.
type seam struct {
	a, b *Placed
	edge net.Edge
}

// Up folds a piece. Done says how far each face is folded about the crease it hangs on: 0 is flat, 1 is folded. The
// middle of the root face lies at the origin. Faces that no crease connects with the root are left out; Missing
// names them.
func Up(p *net.Piece, t float64, done func(face string) float64) *Body { return UpTo(p, t, done, nil) }

// Pressed says how far, in degrees, the crease between two faces is folded in a
// state that is not the closed one; not ok leaves it as it is.
type Pressed func(a, b string) (degrees float64, ok bool)

// UpTo is Up for a piece of which some creases are folded to another angle.
func UpTo(p *net.Piece, t float64, done func(face string) float64, pressed Pressed) *Body {
	b := &Body{Piece: p, Name: p.Name, T: t}
	if p.Caliper > 0 {
		b.T = p.Caliper.MM()
	}
	p = p.Facetted()
	root := rootOf(p)
	if root == nil {
		return b
	}
	lo, hi := root.Bounds()
	mid := net.Point{X: (lo.X + hi.X) / 2, Y: (lo.Y + hi.Y) / 2}
	if p.Middle != nil {
		mid = *p.Middle
	}
	start := flat
	start.At = Vec{-mid.X.MM(), mid.Y.MM(), 0}
	tree, loops := hangings(root, len(p.Faces))
	angle := settle(p, tree, loops, done)
	if pressed != nil {
		settled := angle
		angle = func(h hanging) float64 {
			if deg, ok := pressed(h.face.Name, h.on.Name); ok {
				return deg * math.Pi / 180 * sign(h.edge.Fold)
			}
			return settled(h)
		}
	}
	placed := map[*net.Face]*Placed{root: b.add(root, start)}
	for _, h := range tree {
		placed[h.face] = b.add(h.face, hinge(placed[h.on].Frame, h.edge, angle(h)))
	}
	for _, l := range loops {
		b.seams = append(b.seams, seam{placed[l.on], placed[l.face], l.edge})
	}
	return b
}

func sign(f net.Fold) float64 {
	if f == net.Mountain {
		return -1
	}
	return 1
}

func rootOf(p *net.Piece) *net.Face {
	if root := p.Face(p.Root); root != nil {
		return root
	}
	if kept := p.Kept(); len(kept) > 0 {
		return kept[0]
	}
	return nil
}

// hanging is a face that hangs on another by a crease.
type hanging struct {
	face, on *net.Face
	edge     net.Edge // of the face it hangs on
}

// hangings lists the faces in the order they are reached from the root, and the creases that close loops. There are about
// so many faces.
func hangings(root *net.Face, faces int) (tree, loops []hanging) {
	on := make(map[*net.Face]*net.Face, faces)
	on[root] = nil
	reached := append(make([]*net.Face, 0, faces), root)
	tree = make([]hanging, 0, faces)
	for i := 0; i < len(reached); i++ {
		from := reached[i]
		for _, e := range from.Edges {
			if e.Kind.Open() || e.Beyond == nil || e.Beyond.Waste {
				continue
			}
			h := hanging{e.Beyond, from, e}
			if by, known := on[e.Beyond]; !known {
				on[e.Beyond] = from
				reached = append(reached, e.Beyond)
				tree = append(tree, h)
			} else if by != from && on[from] != e.Beyond && slices.Index(reached, e.Beyond) > i {
				loops = append(loops, h)
			}
		}
	}
	return tree, loops
}

// Folded folds a piece all the way.
func Folded(p *net.Piece, t float64) *Body { return Up(p, t, func(string) float64 { return 1 }) }

func (b *Body) add(f *net.Face, at Frame) *Placed {
	p := &Placed{Face: f, Frame: at, Body: b}
	p.lay()
	b.Faces = append(b.Faces, p)
	return p
}

// lay works out the outline from the frame.
func (p *Placed) lay() {
	p.Poly, p.Holes, p.about = outline(p.Frame, p.Face.Points), nil, nil
	for _, h := range p.Face.Holes {
		hole := outline(p.Frame, h)
		lo, hi := boxRound(hole)
		p.Holes, p.about = append(p.Holes, hole), append(p.about, [2]Vec{lo, hi})
	}
}

// boxRound gives the corners of the upright box round an outline.
func boxRound(ring []Vec) (lo, hi Vec) {
	lo, hi = ring[0], ring[0]
	for _, p := range ring {
		lo = Vec{min(lo.X, p.X), min(lo.Y, p.Y), min(lo.Z, p.Z)}
		hi = Vec{max(hi.X, p.X), max(hi.Y, p.Y), max(hi.Z, p.Z)}
	}
	return lo, hi
}

// Middle is the middle of the face's bounds, in space.
func (p *Placed) Middle() Vec {
	lo, hi := p.Bounds()
	return p.place(net.Point{X: (lo.X + hi.X) / 2, Y: (lo.Y + hi.Y) / 2})
}

func outline(f Frame, points []net.Point) []Vec {
	out := make([]Vec, len(points))
	for i, pt := range points {
		out[i] = f.place(pt)
	}
	return out
}

// Angle is how far a score is folded in the end, in radians: positive towards the inside.
func Angle(l net.Line) float64 { return AngleAt(l, 1) }

// AngleAt is how far it is folded when so much of its folding is done, from 0
// to 1. What is folded twice is folded the first way at a half.
func AngleAt(l net.Line, done float64) float64 {
	turn := l.Turn * done
	if l.Via != 0 {
		turn = l.Via * 2 * done
		if done > 0.5 {
			turn = l.Via + (l.Turn-l.Via)*(2*done-1)
		}
	}
	if l.Fold == net.Mountain {
		turn = -turn
	}
	return turn * math.Pi / 180
}

// hinge turns the card beyond an edge about it.
func hinge(f Frame, e net.Edge, angle float64) Frame {
	a, b := f.place(e.A), f.place(e.B)
	// Find walks every face with its card on the same side of each edge, so a
	// positive turn about the edge lifts the card beyond it inwards.
	return f.turn(a, b.Sub(a).unit(), angle)
}

// Press moves glued and tucked faces aside by the thickness of what they lie
// on; pairs that do not lie on each other now don't pass.
func (b *Body) Press(pass func(face, on string) bool) {
	for _, g := range slices.Concat(b.Piece.Glues, b.Piece.Tucks) {
		face, on := b.Find(g.Face), b.Find(g.On)
		if face == nil || on == nil || pass != nil && !pass(g.Face, g.On) {
			continue
		}
		by := on.In.Times(b.T * float64(g.Layers))
		if face.Over = face.Over || g.Outside; g.Outside {
			by = by.Times(-1)
		}
		// What was rounded is pulled to its place by what sticks it.
		if off := face.Poly[0].Sub(on.Poly[0]).Dot(on.In); math.Abs(off) <= b.Piece.Rounded.MM() {
			by = by.Sub(on.In.Times(off))
		}
		face.Frame = face.Frame.move(by)
		face.Layer += g.Layers
		face.lay()
	}
}

// Find gives a face of the body by name.
func (b *Body) Find(name string) *Placed {
	for _, f := range b.Faces {
		if f.Name == name {
			return f
		}
	}
	return nil
}

// Part gives the faces whose names pass, as a body of their own.
func (b *Body) Part(name string, pass func(string) bool) *Body {
	out := &Body{Piece: b.Piece, Name: name, T: b.T}
	for _, f := range b.Faces {
		if pass(f.Name) {
			out.Faces = append(out.Faces, f)
		}
	}
	return out
}

// Union gives the faces of several bodies as those of one.
func Union(name string, bodies ...*Body) *Body {
	out := &Body{Piece: bodies[0].Piece, Name: name, T: bodies[0].T}
	for _, b := range bodies {
		out.Faces = append(out.Faces, b.Faces...)
	}
	return out
}

// Move shifts the whole body.
func (b *Body) Move(by Vec) {
	for _, f := range b.Faces {
		f.Frame = f.Frame.move(by)
		f.lay()
	}
}

// Turn rotates the whole body about an axis through the origin.
func (b *Body) Turn(axis Vec, angle float64) {
	for _, f := range b.Faces {
		f.Frame = f.Frame.turn(Vec{}, axis, angle)
		f.lay()
	}
}

// Bounds gives the box round the middle surfaces of the bodies.
func Bounds(bodies ...*Body) (lo, hi Vec) {
	inf := math.Inf(1)
	lo, hi = Vec{inf, inf, inf}, Vec{-inf, -inf, -inf}
	for _, b := range bodies {
		for _, f := range b.Faces {
			for _, v := range f.Poly {
				lo = Vec{min(lo.X, v.X), min(lo.Y, v.Y), min(lo.Z, v.Z)}
				hi = Vec{max(hi.X, v.X), max(hi.Y, v.Y), max(hi.Z, v.Z)}
			}
		}
	}
	return lo, hi
}

// Missing names kept faces that hang on nothing.
func (b *Body) Missing() (names []string) {
	for _, f := range b.Piece.Kept() {
		if b.Find(f.Name) == nil {
			names = append(names, fmt.Sprintf("%s of %s", f.Name, b.Piece.Name))
		}
	}
	return names
}
