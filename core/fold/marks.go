package fold

import (
	"fmt"
	"math"
	"strings"

	"brevium/core/measure"
	"brevium/core/net"
)

// What is put on a piece or punched out of it must lie on card that stays, with a margin: a magnet over a score
// keeps the box from folding, a hole at an edge tears out.

// margin is the least card, in millimetres, round a mark, hole or window.
const margin = 1.2

// HangsOn names a face and all faces that hang on it.
func (b *Body) HangsOn(face string) map[string]bool {
	p := b.Piece.Facetted()
	out := map[string]bool{face: true}
	root := rootOf(p)
	if root == nil {
		return out
	}
	tree, _ := hangings(root, len(p.Faces))
	for _, h := range tree {
		if out[h.on.Name] {
			out[h.face.Name] = true
		}
	}
	return out
}

// MarkOn finds what is put on a face, in space.
func (b *Body) MarkOn(f *Placed, what string) (Vec, bool) {
	for _, m := range b.Piece.Marks {
		if m.What == what && net.Inside(f.Face.Points, m.At) {
			return f.place(m.At), true
		}
	}
	return Vec{}, false
}

// Kept checks that every mark, hole, notch and window lies on card that stays.
func (b *Body) Kept() []Check {
	p := b.Piece
	n := len(p.Marks) + len(p.Punches) + len(p.Notches) + len(p.Windows)
	if n == 0 {
		return nil
	}
	c := Check{Name: p.Name + ": every mark, hole and notch is on the card", Holds: true}
	least := math.Inf(1)
	var faults []string
	note := func(what string, room float64) {
		least = min(least, room)
		if room < margin-tolerance {
			faults = append(faults, fmt.Sprintf("the %s has only %.1f mm of card around it", what, max(room, 0)))
		}
	}
	for _, m := range p.Marks {
		note(m.What, b.roomRound(m.At, m.Radius.MM(), nil))
	}
	for _, h := range p.Punches {
		note("hole", b.roomRound(h.Mid, h.Diameter.MM()/2, func(a Vec, of Vec) bool {
			return a.Sub(of).Len() <= (h.Diameter/2+h.Scoop).MM()*1.01+0.01
		}))
	}
	for _, w := range p.Windows {
		note("window", b.roomRoundWindow(w))
	}
	for _, h := range p.Notches {
		note("notch", b.roomBehindNotch(h))
	}
	c.Figure = fmt.Sprintf("%d, at least %.1f mm from the edge", n, least)
	if len(faults) > 0 {
		c.Holds, c.Figure = false, strings.Join(faults, "; ")
	}
	return []Check{c}
}

// faceAt finds the face that holds a place of the flat piece, holes filled.
func (b *Body) faceAt(at net.Point) *Placed {
	for _, f := range b.Faces {
		if net.Inside(f.Face.Points, at) {
			return f
		}
	}
	return nil
}

// roomRound is the card round a circle, up to the nearest edge or crease of its
// face; own edges, if any, are left out of account.
func (b *Body) roomRound(at net.Point, radius float64, own func(a, of Vec) bool) float64 {
	f := b.faceAt(at)
	if f == nil {
		return 0
	}
	mid := f.place(at)
	best := math.Inf(1)
	for n, ring := range append([][]Vec{f.Poly}, f.Holes...) {
		if n > 0 && f.fromHole(n-1, mid) >= best {
			continue
		}
		for i, a := range ring {
			c := ring[(i+1)%len(ring)]
			if own != nil && own(a, mid) && own(c, mid) {
				continue
			}
			best = min(best, fromLine(mid, a, c))
		}
	}
	return best - radius
}

func (b *Body) roomRoundWindow(w net.Window) float64 {
	f := b.faceAt(net.Point{X: (w.Lo.X + w.Hi.X) / 2, Y: (w.Lo.Y + w.Hi.Y) / 2})
	if f == nil {
		return 0
	}
	best := math.Inf(1)
	for _, at := range []net.Point{w.Lo, {X: w.Hi.X, Y: w.Lo.Y}, w.Hi, {X: w.Lo.X, Y: w.Hi.Y}} {
		if !net.Inside(f.Face.Points, at) {
			return 0
		}
		corner := f.place(at)
		for i, a := range f.Poly {
			best = min(best, fromLine(corner, a, f.Poly[(i+1)%len(f.Poly)]))
		}
	}
	return best
}

// roomBehindNotch looks from the end of a notch on into the card.
func (b *Body) roomBehindNotch(h net.Punch) float64 {
	r := h.Diameter / 2
	inner := net.Point{X: h.Mid.X + h.Inward.X*(r+r/50), Y: h.Mid.Y + h.Inward.Y*(r+r/50)}
	f := b.faceAt(inner)
	if f == nil {
		return 0
	}
	best := math.Inf(1)
	for i, e := range f.Face.Edges {
		a, c := f.Poly[i], f.Poly[(i+1)%len(f.Poly)]
		if e.Kind.Open() && h.Bounds(e.Line) {
			continue
		}
		mid := f.place(h.Mid)
		best = min(best, fromLine(mid, a, c)-r.MM())
	}
	return best
}

// Place gives a place of the face's flat piece in space.
func (p *Placed) Place(at net.Point) Vec { return p.place(at) }

// Under gives the place of the flat piece that a place in space lies over.
func (p *Placed) Under(at Vec) net.Point {
	d := at.Sub(p.At)
	return net.Point{X: measure.FromMM(d.Dot(p.X)), Y: measure.FromMM(d.Dot(p.Y))}
}

// RoomRound is how far, in millimetres, a place of the flat piece is from the
// nearest edge or crease of a face that holds it; 0 when the face does not.
func (b *Body) RoomRound(f *Placed, at net.Point) float64 {
	if !net.Inside(f.Face.Points, at) {
		return 0
	}
	return f.fromRim(f.place(at))
}
